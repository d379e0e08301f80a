//! Links and targets (Org syntax, "Links" and "Targets").

use super::super::Reader;
use super::Inlines;
use crate::document::{Kind, NodeId};

/// Schemes whose addresses are links wherever they stand.
const PLAIN: [&str; 8] = ["https", "http", "ftp", "mailto", "news", "file", "doi", "irc"];

/// Extensions of files that are shown where a link to one has no text.
const PICTURES: [&str; 11] = ["png", "jpg", "jpeg", "gif", "svg", "webp", "avif", "bmp", "tif", "tiff", "svgz"];

/// Schemes that only the program follows that wrote the file.
const OF_PROGRAM: [&str; 14] = [
    "elisp",
    "shell",
    "help",
    "info",
    "man",
    "attachment",
    "coderef",
    "gnus",
    "rmail",
    "mhe",
    "bbdb",
    "docview",
    "woman",
    "notmuch",
];

/// Where a link leads.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(in super::super) enum Target {
    Address(String),
    /// A heading, by its words.
    Heading(String),
    /// A heading, by its property `ID`.
    Id(String),
    /// What has a name, or a heading.
    Name(String),
    /// What has a name, where there is such; else an address of a scheme that is not known.
    NameOrAddress(String),
    /// What has this id; the link has no text of its own.
    Place(String),
    /// A line of code, by its label.
    Code(String),
    /// Nowhere but in the program.
    Program,
}

/// A link whose address is not what it leads to.
#[derive(Clone, Debug)]
pub(in super::super) struct Link {
    pub(in super::super) node: NodeId,
    pub(in super::super) target: Target,
    /// Whether it has no text of its own.
    pub(in super::super) is_bare: bool,
}

/// What stands before the colon of an address, where that may be a scheme.
pub(in super::super::super) fn scheme(address: &str) -> Option<&str> {
    let (scheme, _) = address.split_once(':')?;
    let is_scheme =
        !scheme.is_empty() && scheme.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'-' | b'.'));
    is_scheme.then_some(scheme)
}

/// Whether addresses of a scheme are what they are, whatever has their name.
pub(in super::super::super) fn is_known(scheme: &str) -> bool {
    const OTHERS: [&str; 12] =
        ["id", "tel", "sms", "data", "javascript", "ssh", "sftp", "git", "urn", "xmpp", "file+sys", "file+emacs"];
    let scheme = scheme.to_ascii_lowercase();
    PLAIN.contains(&&*scheme) || OF_PROGRAM.contains(&&*scheme) || OTHERS.contains(&&*scheme)
}

/// Whether an address is that of a picture.
pub(in super::super) fn is_picture(address: &str) -> bool {
    let path = address.split(['?', '#']).next().unwrap_or_default();
    let extension = path.rsplit_once('.').map_or("", |(_, extension)| extension);
    !path.starts_with("mailto:") && PICTURES.iter().any(|known| known.eq_ignore_ascii_case(extension))
}

impl Reader<'_> {
    /// Where the address of a link leads.
    pub(in super::super) fn target(&self, address: &str) -> Target {
        let address = self.unabbreviated(address.trim());
        if let Some(label) = address.strip_prefix('(').and_then(|label| label.strip_suffix(')')) {
            return Target::Code(label.to_owned());
        }
        if let Some(heading) = address.strip_prefix('*') {
            return Target::Heading(heading.to_owned());
        }
        if address.starts_with(['#', '/', '.', '~']) {
            return Target::Address(file_place(&address));
        }
        let Some(scheme) = scheme(&address) else { return Target::Name(address) };
        let rest = &address[scheme.len() + 1..];
        match scheme.to_ascii_lowercase().as_str() {
            "file" if rest.starts_with("//") => Target::Address(address),
            "file" | "file+sys" | "file+emacs" => Target::Address(file_place(rest)),
            "id" => Target::Id(rest.to_owned()),
            "doi" => Target::Address(format!("https://doi.org/{rest}")),
            scheme if OF_PROGRAM.contains(&scheme) => Target::Program,
            _ => Target::Address(address),
        }
    }

    /// An address with its abbreviation written out.
    fn unabbreviated(&self, address: &str) -> String {
        let Some((name, tag)) = address.split_once(':') else { return address.to_owned() };
        let Some(whole) = self.options.abbreviations.get(name) else { return address.to_owned() };
        if whole.contains("%s") {
            return whole.replace("%s", tag);
        }
        if whole.contains("%h") {
            return whole
                .replace("%h", &percent_encoding::utf8_percent_encode(tag, percent_encoding::NON_ALPHANUMERIC).to_string());
        }
        format!("{whole}{tag}")
    }

    /// Reads a link in double brackets.
    pub(super) fn link(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let rest = &scan.text[at + 2..scan.end()];
        let Some(length) = unescaped_end(rest) else { return false };
        let mut address = rest[..length].trim().to_owned();
        if address.contains('\\') {
            address = address.replace("\\[", "[").replace("\\]", "]");
        }
        if address.contains(char::is_whitespace) {
            address = address.split_whitespace().collect::<Vec<_>>().join(" ");
        }
        if address.is_empty() {
            return false;
        }
        let behind = at + 2 + length;
        let (text, resume) = if scan.text[behind..].starts_with("]]") {
            (None, behind + 2)
        } else if scan.text[behind..].starts_with("][") {
            let Some(end) = scan.find("]]", behind + 2).filter(|end| *end < scan.end()) else { return false };
            (Some((behind + 2, end)), end + 2)
        } else {
            return false;
        };
        let target = self.target(&address);
        self.put_link(scan, target, &address, text, resume);
        true
    }

    /// Puts a link into the line, with its text, a picture, or its address.
    fn put_link(&mut self, scan: &mut Inlines<'_>, target: Target, written: &str, text: Option<(usize, usize)>, resume: usize) {
        let offset = scan.offset(scan.at);
        if let (Target::Address(address), None) = (&target, text)
            && is_picture(address)
        {
            self.put_picture(scan, address, resume);
            return;
        }
        let place = scan.at;
        let href = match &target {
            Target::Address(address) => address.clone(),
            _ => String::new(),
        };
        if target == Target::Program || scan.in_link() {
            if target == Target::Program {
                self.tallies.program_links.add(offset, written);
            }
            match text {
                Some(inner) => {
                    self.enter(scan, Kind::Span, inner, resume);
                }
                None => self.put_text(scan, written, resume),
            }
            return;
        }
        let href = self.doc.intern(&href);
        let node = match text {
            Some(inner) => {
                // The text may be the address of a picture.
                let words = scan.text[inner.0..inner.1].trim();
                let is_address = !words.contains(char::is_whitespace) && (words.contains(':') || words.starts_with(['.', '/']));
                let picture = Some(words).filter(|_| is_address).map(|words| self.target(words));
                if let Some(Target::Address(picture)) =
                    picture.filter(|picture| matches!(picture, Target::Address(address) if is_picture(address)))
                {
                    let node = self.put(scan, Kind::Link { href }, resume);
                    let image = self.doc.append_image(node, &picture, "");
                    self.doc.set_offset(image, offset);
                    node
                } else {
                    self.enter(scan, Kind::Link { href }, inner, resume)
                }
            }
            None if matches!(&target, Target::Address(address) if address.starts_with('#')) => {
                let node = self.put(scan, Kind::Link { href }, resume);
                self.links.push(Link { node, target: Target::Place(written[1..].to_owned()), is_bare: true });
                node
            }
            None => {
                let node = self.put(scan, Kind::Link { href }, resume);
                let shown = match &target {
                    Target::Address(address) if written.starts_with("file:") => address.clone(),
                    Target::Heading(words) | Target::Name(words) => words.clone(),
                    _ => written.to_owned(),
                };
                let text = self.doc.intern(&shown);
                self.doc.append_at(node, Kind::Text(text), offset);
                node
            }
        };
        self.doc.set_offset(node, scan.offset(place));
        let is_bare = text.is_none();
        match target {
            // Names of figures, tables and formulas often begin as addresses do: `fig:pier`.
            Target::Address(address) if address == written && scheme(&address).is_some_and(|scheme| !is_known(scheme)) => {
                self.links.push(Link { node, target: Target::NameOrAddress(address), is_bare });
            }
            Target::Address(_) => {}
            target => self.links.push(Link { node, target, is_bare }),
        }
    }

    fn put_picture(&mut self, scan: &mut Inlines<'_>, address: &str, resume: usize) {
        let (src, alt) = (self.doc.intern(address), crate::document::Text::EMPTY);
        self.put(scan, Kind::Image { src, alt }, resume);
    }

    /// Reads what an angle bracket begins: a date, a target, or an address.
    pub(super) fn angle(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let rest = &scan.text[at..scan.end()];
        if rest.as_bytes().get(1).is_some_and(u8::is_ascii_digit) {
            return self.timestamp(scan, b'>');
        }
        // More than three of them begin nothing.
        let marks = rest.bytes().take(4).take_while(|byte| *byte == b'<').count();
        let inner = &rest[marks..];
        let Some(length) = inner.bytes().position(|byte| matches!(byte, b'<' | b'>' | b'\n')) else { return false };
        let ends = inner[length..].bytes().take_while(|byte| *byte == b'>').count();
        let name = &inner[..length];
        if ends < marks || name.trim() != name || name.is_empty() {
            return false;
        }
        match marks {
            1 => {
                let is_address = PLAIN.iter().any(|scheme| name.strip_prefix(scheme).is_some_and(|rest| rest.starts_with(':')));
                if !is_address || scan.in_link() {
                    return false;
                }
                let target = self.target(name);
                let name = name.to_owned();
                self.put_link(scan, target, &name, Some((at + 1, at + 1 + length)), at + length + 2);
                // Its text is an address, whatever is in it.
                self.end_as_text(scan);
                true
            }
            2 | 3 => {
                let id = self.anchor_id(name);
                let resume = at + 2 * marks + length;
                if marks == 2 {
                    let anchor = self.put(scan, Kind::Anchor, resume);
                    self.name(anchor, name, &id);
                } else {
                    // What leads here shows its words.
                    let name = name.to_owned();
                    let anchor = self.enter(scan, Kind::Span, (at + 3, at + 3 + length), resume);
                    self.name(anchor, &name, &id);
                    self.radio.push(anchor);
                }
                true
            }
            _ => false,
        }
    }

    /// The text of the innermost frame is read as it is.
    fn end_as_text(&mut self, scan: &mut Inlines<'_>) {
        let end = scan.end();
        self.write_to(scan, end);
        scan.at = end;
    }

    /// Reads an address that stands in the text: behind a scheme that is known.
    pub(super) fn plain_link(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        if scan.in_link() {
            return false;
        }
        let start_of_frame = scan.frames.last().map_or(0, |frame| frame.start);
        let from = scan.written.max(start_of_frame);
        let word = scan.text[from..at].bytes().rev().take_while(u8::is_ascii_alphabetic).count();
        let scheme = &scan.text[at - word..at];
        let before = scan.text[start_of_frame..at - word].chars().next_back();
        if !PLAIN.contains(&scheme) || before.is_some_and(char::is_alphanumeric) {
            return false;
        }
        let rest = &scan.text[at + 1..scan.end()];
        if scheme.starts_with("http") && !rest.starts_with("//") {
            return false;
        }
        let length = address_length(rest);
        if length == 0 {
            return false;
        }
        scan.at = at - word;
        let (start, end) = (scan.at, at + 1 + length);
        let written = scan.text[start..end].to_owned();
        let target = self.target(&written);
        self.put_link(scan, target, &written, None, end);
        true
    }

    /// Gives a node a name that links lead to.
    pub(in super::super) fn name(&mut self, node: NodeId, name: &str, id: &str) {
        let text = self.doc.intern(id);
        self.doc.attributes_mut(node).id.get_or_insert(text);
        self.custom_ids.insert(id.to_owned());
        self.names.entry(name.to_lowercase()).or_insert(node);
    }
}

/// Where an address ends that stands in brackets, at a bracket that no backslash is before.
fn unescaped_end(text: &str) -> Option<usize> {
    let mut from = 0;
    loop {
        let at = from + memchr::memchr2(b'[', b']', text.get(from..)?.as_bytes())?;
        let slashes = text[..at].bytes().rev().take_while(|byte| *byte == b'\\').count();
        if slashes % 2 == 0 {
            return text[at..].starts_with(']').then_some(at);
        }
        from = at + 1;
    }
}

/// How long the address is at the beginning of a text: parentheses in it are in pairs, and it ends with no mark of a sentence.
fn address_length(text: &str) -> usize {
    let (mut depth, mut end) = (0_usize, 0);
    for (at, c) in text.char_indices() {
        match c {
            '(' => depth += 1,
            ')' if depth == 0 => break,
            ')' => depth -= 1,
            '<' | '>' | '[' | ']' | '"' => break,
            c if c.is_whitespace() => break,
            _ => {}
        }
        end = at + c.len_utf8();
    }
    text[..end].trim_end_matches(['.', ',', ';', ':', '!', '?', '\'', '*', '=', '~', '_', '+']).len()
}

/// The address of a place in a file: a heading or a name is behind two colons.
fn file_place(path: &str) -> String {
    let Some((path, place)) = path.split_once("::") else { return path.to_owned() };
    match place.strip_prefix('#') {
        Some(id) => format!("{path}#{id}"),
        None if place.bytes().all(|byte| byte.is_ascii_digit()) || place.starts_with('/') => path.to_owned(),
        None => format!("{path}#{}", crate::slug::of(place.trim_start_matches('*'))),
    }
}
