//! The elements of HTML: what each is, what it may hold, which attributes it may have (HTML Standard, section 4 and its
//! index of elements, 2026). Data only.

/// Categories of content (HTML, section 3.2.5.2), as bits.
pub(super) const FLOW: u8 = 1;
pub(super) const PHRASING: u8 = 2;
pub(super) const HEADING: u8 = 4;
pub(super) const SECTIONING: u8 = 8;
/// What a user can work with.
pub(super) const INTERACTIVE: u8 = 16;
/// What may stand in the head of a page.
pub(super) const METADATA: u8 = 32;

/// What an element may hold.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Holds {
    Nothing,
    Text,
    Phrasing,
    Flow,
    /// What the element around it may hold.
    AsAround,
    Metadata,
    /// Elements of these names only.
    Only(&'static [&'static str]),
    /// Phrasing content, and elements of these names.
    PhrasingAnd(&'static [&'static str]),
    /// Flow content, and elements of these names.
    FlowAnd(&'static [&'static str]),
    /// What surrounds it, and elements of these names.
    AsAroundAnd(&'static [&'static str]),
}

use Holds::{AsAround, AsAroundAnd, Flow, FlowAnd, Metadata, Nothing, Only, Phrasing, PhrasingAnd, Text};

/// One element.
#[derive(Debug)]
pub(super) struct Element {
    pub(super) name: &'static str,
    pub(super) is: u8,
    pub(super) holds: Holds,
    /// Names of attributes, apart from those that all elements may have.
    pub(super) attributes: &'static str,
}

const fn element(name: &'static str, is: u8, holds: Holds, attributes: &'static str) -> Element {
    Element { name, is, holds, attributes }
}

const F: u8 = FLOW;
const P: u8 = FLOW | PHRASING;

/// All elements, by name.
pub(super) static ELEMENTS: [Element; 112] = [
    element("a", P, AsAround, "href target download ping rel hreflang type referrerpolicy"),
    element("abbr", P, Phrasing, ""),
    element("address", F, Flow, ""),
    element("area", P, Nothing, "alt coords shape href target download ping rel referrerpolicy"),
    element("article", F | SECTIONING, Flow, ""),
    element("aside", F | SECTIONING, Flow, ""),
    element("audio", P, AsAroundAnd(&["source", "track"]), "src crossorigin preload autoplay loop muted controls"),
    element("b", P, Phrasing, ""),
    element("base", METADATA, Nothing, "href target"),
    element("bdi", P, Phrasing, ""),
    element("bdo", P, Phrasing, ""),
    element("blockquote", F, Flow, "cite"),
    element(
        "body",
        0,
        Flow,
        "onafterprint onbeforeprint onbeforeunload onhashchange onlanguagechange onmessage onoffline ononline onpagehide onpageshow onpopstate onstorage onunload",
    ),
    element("br", P, Nothing, ""),
    element(
        "button",
        P | INTERACTIVE,
        Phrasing,
        "command commandfor disabled form formaction formenctype formmethod formnovalidate formtarget name popovertarget popovertargetaction type value",
    ),
    element("canvas", P, AsAround, "width height"),
    element("caption", 0, Flow, ""),
    element("cite", P, Phrasing, ""),
    element("code", P, Phrasing, ""),
    element("col", 0, Nothing, "span"),
    element("colgroup", 0, Only(&["col", "template"]), "span"),
    element("data", P, Phrasing, "value"),
    element("datalist", P, PhrasingAnd(&["option"]), ""),
    element("dd", 0, Flow, ""),
    element("del", P, AsAround, "cite datetime"),
    element("details", F | INTERACTIVE, FlowAnd(&["summary"]), "name open"),
    element("dfn", P, Phrasing, ""),
    element("dialog", F, Flow, "open closedby"),
    element("div", F, Flow, ""),
    element("dl", F, Only(&["dt", "dd", "div", "script", "template"]), ""),
    element("dt", 0, Flow, ""),
    element("em", P, Phrasing, ""),
    element("embed", P | INTERACTIVE, Nothing, "src type width height *"),
    element("fieldset", F, FlowAnd(&["legend"]), "disabled form name"),
    element("figcaption", 0, Flow, ""),
    element("figure", F, FlowAnd(&["figcaption"]), ""),
    element("footer", F, Flow, ""),
    element("form", F, Flow, "accept-charset action autocomplete enctype method name novalidate target rel"),
    element("h1", F | HEADING, Phrasing, ""),
    element("h2", F | HEADING, Phrasing, ""),
    element("h3", F | HEADING, Phrasing, ""),
    element("h4", F | HEADING, Phrasing, ""),
    element("h5", F | HEADING, Phrasing, ""),
    element("h6", F | HEADING, Phrasing, ""),
    element("head", 0, Metadata, ""),
    element("header", F, Flow, ""),
    element("hgroup", F | HEADING, Only(&["p", "h1", "h2", "h3", "h4", "h5", "h6", "script", "template"]), ""),
    element("hr", F, Nothing, ""),
    element("html", 0, Only(&["head", "body"]), "xmlns"),
    element("i", P, Phrasing, ""),
    element(
        "iframe",
        P | INTERACTIVE,
        Nothing,
        "src srcdoc name sandbox allow allowfullscreen width height referrerpolicy loading",
    ),
    element(
        "img",
        P,
        Nothing,
        "alt src srcset sizes crossorigin usemap ismap width height referrerpolicy decoding loading fetchpriority",
    ),
    element(
        "input",
        P | INTERACTIVE,
        Nothing,
        "accept alpha alt autocomplete checked colorspace dirname disabled form formaction formenctype formmethod formnovalidate formtarget height list max maxlength min minlength multiple name pattern placeholder popovertarget popovertargetaction readonly required size src step type value width",
    ),
    element("ins", P, AsAround, "cite datetime"),
    element("kbd", P, Phrasing, ""),
    element("label", P | INTERACTIVE, Phrasing, "for"),
    element("legend", 0, PhrasingAnd(&["h1", "h2", "h3", "h4", "h5", "h6", "hgroup"]), ""),
    element("li", 0, Flow, "value"),
    element(
        "link",
        METADATA | P,
        Nothing,
        "href crossorigin rel as media hreflang type sizes imagesrcset imagesizes referrerpolicy integrity blocking color disabled fetchpriority",
    ),
    element("main", F, Flow, ""),
    element("map", P, AsAroundAnd(&["area"]), "name"),
    element("mark", P, Phrasing, ""),
    element("menu", F, Only(&["li", "script", "template"]), ""),
    element("meta", METADATA, Nothing, "name http-equiv content charset media property"),
    element("meter", P, Phrasing, "value min max low high optimum"),
    element("nav", F | SECTIONING, Flow, ""),
    element("noscript", METADATA | P, AsAroundAnd(&["link", "style", "meta"]), ""),
    element("object", P, AsAround, "data type name form width height"),
    element("ol", F, Only(&["li", "script", "template"]), "reversed start type"),
    element("optgroup", 0, Only(&["option", "script", "template", "legend"]), "disabled label"),
    element("option", 0, Text, "disabled label selected value"),
    element("output", P, Phrasing, "for form name"),
    element("p", F, Phrasing, ""),
    element("picture", P, Only(&["source", "img", "script", "template"]), ""),
    element("pre", F, Phrasing, ""),
    element("progress", P, Phrasing, "value max"),
    element("q", P, Phrasing, "cite"),
    element("rp", 0, Text, ""),
    element("rt", 0, Phrasing, ""),
    element("ruby", P, PhrasingAnd(&["rt", "rp"]), ""),
    element("s", P, Phrasing, ""),
    element("samp", P, Phrasing, ""),
    element(
        "script",
        METADATA | P,
        Text,
        "src type nomodule async defer crossorigin integrity referrerpolicy blocking fetchpriority",
    ),
    element("search", F, Flow, ""),
    element("section", F | SECTIONING, Flow, ""),
    element(
        "select",
        P | INTERACTIVE,
        Only(&["option", "optgroup", "hr", "script", "template", "button", "div"]),
        "autocomplete disabled form multiple name required size",
    ),
    element("slot", P, AsAround, "name"),
    element("small", P, Phrasing, ""),
    element("source", 0, Nothing, "type media src srcset sizes width height"),
    element("span", P, Phrasing, ""),
    element("strong", P, Phrasing, ""),
    element("style", METADATA, Text, "media blocking type"),
    element("sub", P, Phrasing, ""),
    element("summary", 0, PhrasingAnd(&["h1", "h2", "h3", "h4", "h5", "h6", "hgroup"]), ""),
    element("sup", P, Phrasing, ""),
    element("table", F, Only(&["caption", "colgroup", "thead", "tbody", "tfoot", "tr", "script", "template"]), ""),
    element("tbody", 0, Only(&["tr", "script", "template"]), ""),
    element("td", 0, Flow, "colspan rowspan headers"),
    element("template", METADATA | P, Flow, "shadowrootmode shadowrootdelegatesfocus shadowrootclonable shadowrootserializable"),
    element(
        "textarea",
        P | INTERACTIVE,
        Text,
        "autocomplete cols dirname disabled form maxlength minlength name placeholder readonly required rows wrap",
    ),
    element("tfoot", 0, Only(&["tr", "script", "template"]), ""),
    element("th", 0, Flow, "colspan rowspan headers scope abbr"),
    element("thead", 0, Only(&["tr", "script", "template"]), ""),
    element("time", P, Phrasing, "datetime"),
    element("title", METADATA, Text, ""),
    element("tr", 0, Only(&["td", "th", "script", "template"]), ""),
    element("track", 0, Nothing, "default kind label src srclang"),
    element("u", P, Phrasing, ""),
    element("ul", F, Only(&["li", "script", "template"]), ""),
    element("var", P, Phrasing, ""),
    element(
        "video",
        P,
        AsAroundAnd(&["source", "track"]),
        "src crossorigin poster preload autoplay playsinline loop muted controls width height",
    ),
    element("wbr", P, Nothing, ""),
];

/// An element by its name.
pub(super) fn find(name: &str) -> Option<&'static Element> {
    ELEMENTS.binary_search_by(|element| element.name.cmp(name)).ok().map(|place| &ELEMENTS[place])
}

/// Whether `child` may stand directly in what holds `holds`, if `AsAround` has been looked up already.
pub(super) fn may_hold(holds: Holds, child: &Element) -> bool {
    let named = |names: &[&str]| names.contains(&child.name);
    match holds {
        Nothing | Text => false,
        Phrasing => child.is & PHRASING != 0,
        Flow | AsAround => child.is & FLOW != 0,
        Metadata => child.is & METADATA != 0,
        Only(names) => named(names),
        PhrasingAnd(names) => child.is & PHRASING != 0 || named(names),
        FlowAnd(names) | AsAroundAnd(names) => child.is & FLOW != 0 || named(names),
    }
}

/// Attributes that every element may have (HTML, section 3.2.6), with those of microdata and WAI-ARIA's role.
pub(super) const GLOBAL: [&str; 32] = [
    "accesskey",
    "autocapitalize",
    "autocorrect",
    "autofocus",
    "class",
    "contenteditable",
    "dir",
    "draggable",
    "enterkeyhint",
    "exportparts",
    "hidden",
    "id",
    "inert",
    "inputmode",
    "is",
    "itemid",
    "itemprop",
    "itemref",
    "itemscope",
    "itemtype",
    "lang",
    "nonce",
    "part",
    "popover",
    "role",
    "slot",
    "spellcheck",
    "style",
    "tabindex",
    "title",
    "translate",
    "writingsuggestions",
];

/// Elements that were part of HTML once (HTML, section 16.2).
pub(super) const OBSOLETE: [&str; 31] = [
    "acronym",
    "applet",
    "basefont",
    "bgsound",
    "big",
    "blink",
    "center",
    "dir",
    "font",
    "frame",
    "frameset",
    "image",
    "isindex",
    "keygen",
    "listing",
    "marquee",
    "menuitem",
    "multicol",
    "nextid",
    "nobr",
    "noembed",
    "noframes",
    "param",
    "plaintext",
    "rb",
    "rtc",
    "spacer",
    "strike",
    "tt",
    "xmp",
    "content",
];

/// Attributes that were part of HTML once, by the elements that had them (HTML, section 16.2).
pub(super) const OBSOLETE_ATTRIBUTES: [(&str, &str); 44] = [
    ("abbr", "td"),
    ("align", "*"),
    ("alink", "body"),
    ("archive", "object"),
    ("axis", "td th"),
    ("background", "body table thead tbody tfoot tr td th"),
    ("bgcolor", "body table tr td th thead tbody tfoot"),
    ("border", "table object"),
    ("bordercolor", "table"),
    ("cellpadding", "table"),
    ("cellspacing", "table"),
    ("char", "col colgroup tbody td tfoot th thead tr"),
    ("charoff", "col colgroup tbody td tfoot th thead tr"),
    ("charset", "a link script"),
    ("classid", "object"),
    ("clear", "br"),
    ("codebase", "object"),
    ("color", "hr"),
    ("compact", "dl ol ul menu"),
    ("coords", "a"),
    ("datetime", "a"),
    ("frame", "table"),
    ("frameborder", "iframe"),
    ("height", "table tr td th"),
    ("hspace", "img object embed iframe"),
    ("language", "script"),
    ("link", "body"),
    ("longdesc", "img iframe"),
    ("lowsrc", "img"),
    ("marginheight", "iframe body"),
    ("marginwidth", "iframe body"),
    ("name", "a"),
    ("noshade", "hr"),
    ("nowrap", "td th"),
    ("rev", "a link"),
    ("rules", "table"),
    ("scheme", "meta"),
    ("scope", "td"),
    ("scrolling", "iframe"),
    ("size", "hr"),
    ("summary", "table"),
    ("text", "body"),
    ("valign", "col colgroup tbody td tfoot th thead tr"),
    ("vlink", "body"),
];

/// More of them: one attribute of several elements that keep others of that name.
pub(super) const OBSOLETE_PAIRS: [(&str, &str); 16] = [
    ("width", "table td th col colgroup hr pre"),
    ("type", "ul li"),
    ("version", "html"),
    ("profile", "head"),
    ("manifest", "html"),
    ("target", "link"),
    ("urn", "a link"),
    ("shape", "a"),
    ("methods", "a link"),
    ("border", "img"),
    ("vspace", "img object embed iframe"),
    ("leftmargin", "body"),
    ("topmargin", "body"),
    ("event", "script"),
    ("for", "script"),
    ("allowtransparency", "iframe"),
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn elements_stand_in_order() {
        assert!(ELEMENTS.is_sorted_by_key(|element| element.name));
        assert!(GLOBAL.is_sorted());
    }
}
