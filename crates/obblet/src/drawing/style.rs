//! Style rules of drawings, parsed and written anew (CSS Syntax, section 5): properties that a drawing may have, with values
//! that load nothing.

use super::allowed;
use cssparser::{Delimiter, ParseError, Parser, ToCss, Token, TokenSerializationType};

type Outcome<T> = Result<T, ParseError<()>>;

/// What was left out, each once; it has no more entries than somebody reads.
#[derive(Debug, Default)]
pub(super) struct LeftOut {
    names: Vec<String>,
    more: bool,
}

/// So many different things are named.
const MOST_NAMED: usize = 8;

impl LeftOut {
    pub(super) fn add(&mut self, what: impl AsRef<str>) {
        let what: String = what.as_ref().chars().filter(|c| !c.is_control()).take(40).collect();
        if self.names.contains(&what) {
            return;
        }
        if self.names.len() < MOST_NAMED {
            self.names.push(what);
        } else {
            self.more = true;
        }
    }

    /// All of it in a row; nothing where nothing was left out.
    pub(super) fn summary(&self) -> Option<String> {
        let end = if self.more { " and more" } else { "" };
        (!self.names.is_empty()).then(|| format!("{}{end}", self.names.join(", ")))
    }
}

/// A style sheet with the rules that may stay.
pub(super) fn sheet(text: &str, left: &mut LeftOut) -> String {
    let mut out = String::with_capacity(text.len());
    // Rules that end early leave the rest to be read.
    let _ = rules(&mut Parser::new(text), &mut out, left);
    out
}

/// The declarations of an attribute that may stay.
pub(super) fn declarations(text: &str, left: &mut LeftOut) -> String {
    let mut out = String::with_capacity(text.len());
    let _ = block(&mut Parser::new(text), &mut out, left, false);
    out
}

/// A value that may stay: of a property, or of an attribute that is one.
pub(super) fn value(text: &str) -> Option<String> {
    let mut out = String::with_capacity(text.len());
    let mut parser = Parser::new(text);
    parser.parse_entirely(|input| values(input, &mut out, Loads::Nothing)).ok()?;
    Some(out)
}

/// What a value may load.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Loads {
    /// Nothing but other parts of the drawing.
    Nothing,
    /// A font that is part of the drawing.
    Font,
}

fn refused<T>() -> Outcome<T> {
    Err(ParseError::custom(()))
}

/// Rules, each with a line of its own.
fn rules(input: &mut Parser<'_>, out: &mut String, left: &mut LeftOut) -> Outcome<()> {
    loop {
        let start = input.state();
        let Ok(token) = input.next().cloned() else { return Ok(()) };
        match token {
            Token::AtKeyword(name) => at_rule(input, &name.to_ascii_lowercase(), out, left),
            Token::CDO | Token::CDC | Token::Semicolon => {}
            _ => {
                input.reset(&start);
                rule(input, out, left);
            }
        }
    }
}

/// A rule with a selector.
fn rule(input: &mut Parser<'_>, out: &mut String, left: &mut LeftOut) {
    let mut text = String::new();
    let selector: Outcome<()> = input.parse_until_before(Delimiter::CurlyBracketBlock, |input| prelude(input, &mut text));
    let Ok(Token::CurlyBracketBlock) = input.next() else { return };
    if selector.is_err() {
        left.add("a style rule");
        return;
    }
    text = text.trim().to_owned();
    text.push_str(" {");
    let _: Outcome<()> = input.parse_nested_block(|input| block(input, &mut text, left, false));
    text.push_str(" }\n");
    out.push_str(&text);
}

/// Rules for media and for animations stay, and fonts that are part of the drawing.
fn at_rule(input: &mut Parser<'_>, name: &str, out: &mut String, left: &mut LeftOut) {
    let mut said = String::new();
    let before = Delimiter::CurlyBracketBlock | Delimiter::Semicolon;
    let selector: Outcome<()> = input.parse_until_before(before, |input| prelude(input, &mut said));
    let Ok(Token::CurlyBracketBlock) = input.next().cloned() else {
        left.add(format!("@{name}"));
        return;
    };
    if selector.is_err() || !matches!(name, "media" | "supports" | "keyframes" | "-webkit-keyframes" | "font-face") {
        left.add(format!("@{name}"));
        return;
    }
    let said = said.trim();
    let mut text = if said.is_empty() { format!("@{name}") } else { format!("@{name} {said}") };
    text.push_str(if name == "font-face" { " {" } else { " { " });
    let _: Outcome<()> = input.parse_nested_block(|input| match name {
        "font-face" => block(input, &mut text, left, true),
        _ => rules(input, &mut text, left),
    });
    text.push_str(" }\n");
    out.push_str(&text);
}

/// Declarations up to the end of a block.
fn block(input: &mut Parser<'_>, out: &mut String, left: &mut LeftOut, of_font: bool) -> Outcome<()> {
    let mut follows = false;
    loop {
        let Ok(token) = input.next().cloned() else { return Ok(()) };
        let Token::Ident(name) = token else {
            if token != Token::Semicolon {
                let _: Outcome<()> = input.parse_until_after(Delimiter::Semicolon, |input| consume(input));
            }
            continue;
        };
        let name = if name.starts_with("--") { name.to_string() } else { name.to_ascii_lowercase() };
        let mut text = String::new();
        let read: Outcome<()> = input.parse_until_after(Delimiter::Semicolon, |input| {
            input.expect_colon()?;
            values(input, &mut text, if of_font && name == "src" { Loads::Font } else { Loads::Nothing })
        });
        let is_known = if of_font {
            name == "src" || name == "unicode-range" || name.starts_with("font-")
        } else {
            allowed::property(&name) || is_custom(&name)
        };
        if read.is_ok() && is_known {
            if follows {
                out.push(';');
            }
            follows = true;
            out.push(' ');
            out.push_str(&name);
            out.push_str(": ");
            out.push_str(text.trim());
        } else if read.is_err() || !name.starts_with('-') {
            // What drawing programs keep for themselves is missed by nobody.
            left.add(&name);
        }
    }
}

/// Whether a name is one that a drawing gives to a value of its own, and can be written as it is.
fn is_custom(name: &str) -> bool {
    let is_plain = |c: char| c.is_ascii_alphanumeric() || matches!(c, '-' | '_');
    name.strip_prefix("--").is_some_and(|rest| !rest.is_empty() && rest.chars().all(is_plain))
}

fn consume(input: &mut Parser<'_>) -> Outcome<()> {
    while input.next().is_ok() {}
    Ok(())
}

/// Writes tokens so that they are read again as what they are.
struct Tokens<'o> {
    out: &'o mut String,
    before: TokenSerializationType,
}

impl<'o> Tokens<'o> {
    fn new(out: &'o mut String) -> Self {
        Self { out, before: TokenSerializationType::default() }
    }

    fn push(&mut self, token: &Token<'_>) -> Outcome<()> {
        let kind = token.serialization_type();
        if self.before.needs_separator_when_before(kind) {
            self.out.push(' ');
        }
        self.before = kind;
        match token {
            Token::WhiteSpace(_) => self.out.push(' '),
            _ => token.to_css(self.out).map_err(|_| ParseError::custom(()))?,
        }
        Ok(())
    }

    /// Behind the end of a block.
    fn close(&mut self, end: char) {
        self.out.push(end);
        self.before = TokenSerializationType::default();
    }
}

/// Values: numbers, names, strings, colours, and functions that load nothing.
fn values(input: &mut Parser<'_>, out: &mut String, loads: Loads) -> Outcome<()> {
    let mut tokens = Tokens::new(out);
    while let Ok(token) = input.next_including_whitespace().cloned() {
        match &token {
            Token::UnquotedUrl(address) => {
                check_address(address, loads)?;
                tokens.push(&Token::Function("url".into()))?;
                write_address(address, tokens.out)?;
                tokens.close(')');
            }
            Token::Function(name) => {
                let low = name.to_ascii_lowercase();
                tokens.push(&Token::Function(low.as_str().into()))?;
                let out = &mut *tokens.out;
                if low == "url" {
                    input.parse_nested_block(|input| {
                        let address = input.expect_string_cloned()?;
                        check_address(&address, loads)?;
                        write_address(&address, out)
                    })?;
                } else if allowed::function(&low) || (loads == Loads::Font && matches!(low.as_str(), "format" | "tech" | "local")) {
                    input.parse_nested_block(|input| values(input, out, Loads::Nothing))?;
                } else {
                    return refused();
                }
                tokens.close(')');
            }
            Token::ParenthesisBlock => {
                tokens.push(&token)?;
                let out = &mut *tokens.out;
                input.parse_nested_block(|input| values(input, out, Loads::Nothing))?;
                tokens.close(')');
            }
            Token::Ident(_)
            | Token::Number { .. }
            | Token::Percentage { .. }
            | Token::Dimension { .. }
            | Token::Hash(_)
            | Token::IDHash(_)
            | Token::QuotedString(_)
            | Token::WhiteSpace(_)
            | Token::Comma
            // Between the values of an animation.
            | Token::Semicolon
            | Token::Delim('/' | '*' | '+' | '-' | '!' | '.') => tokens.push(&token)?,
            _ => return refused(),
        }
    }
    Ok(())
}

/// An address, in quotation marks where it has anything but letters, digits and their like (CSS Syntax, section 4.3.6).
fn write_address(address: &str, out: &mut String) -> Outcome<()> {
    let is_plain = |c: char| c.is_ascii_alphanumeric() || matches!(c, '#' | '-' | '_' | '.' | ':');
    if address.chars().all(is_plain) {
        out.push_str(address);
        return Ok(());
    }
    Token::QuotedString(address.into()).to_css(out).map_err(|_| ParseError::custom(()))
}

/// Addresses in values lead to other parts of the drawing; those of fonts may hold the font.
fn check_address(address: &str, loads: Loads) -> Outcome<()> {
    let is_font = || {
        let rest = address.strip_prefix("data:").unwrap_or_default();
        let kind = ["font/", "application/font", "application/x-font", "application/vnd.ms-fontobject"];
        kind.iter().any(|kind| rest.starts_with(kind)) && super::is_base64(rest)
    };
    let fits = super::is_fragment(address.trim()) || (loads == Loads::Font && is_font());
    if fits { Ok(()) } else { refused() }
}

/// Selectors, and what at-rules say before their blocks.
fn prelude(input: &mut Parser<'_>, out: &mut String) -> Outcome<()> {
    let mut tokens = Tokens::new(out);
    while let Ok(token) = input.next_including_whitespace().cloned() {
        let end = match &token {
            Token::Function(name) if name.eq_ignore_ascii_case("url") => return refused(),
            Token::Function(_) | Token::ParenthesisBlock => Some(')'),
            Token::SquareBracketBlock => Some(']'),
            Token::CurlyBracketBlock
            | Token::UnquotedUrl(_)
            | Token::BadUrl(_)
            | Token::BadString(_)
            | Token::AtKeyword(_)
            | Token::Semicolon
            | Token::CDO
            | Token::CDC
            | Token::CloseCurlyBracket
            | Token::CloseParenthesis
            | Token::CloseSquareBracket
            | Token::Delim('<' | '&' | '\\' | '@') => return refused(),
            _ => None,
        };
        tokens.push(&token)?;
        if let Some(end) = end {
            let out = &mut *tokens.out;
            input.parse_nested_block(|input| prelude(input, out))?;
            tokens.close(end);
        }
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_are_parsed_and_written_anew() {
        for (value, expected) in [
            ("#f6f4ee", Some("#f6f4ee")),
            ("url(#a) rgb(1, 2,3)", Some("url(#a) rgb(1, 2,3)")),
            ("URL( '#a' )", Some("url(#a)")),
            ("translate(1 2) rotate(-4deg)", Some("translate(1 2) rotate(-4deg)")),
            ("'Nimbus Sans', serif", Some("\"Nimbus Sans\", serif")),
            ("0;10;0", Some("0;10;0")),
            ("1/**/2", Some("1 2")),
            ("u/**/rl(https://far.example)", None),
            ("url(https://far.example)", None),
            ("url(\"javascript:a()\")", None),
            ("image-set('a.png' 1x)", None),
            ("expression(a())", None),
            ("u\\72l(https://far.example)", None),
            ("red } a { b: c", None),
            ("a@b", None),
        ] {
            assert_eq!(super::value(value).as_deref(), expected, "{value}");
        }
        let deep = "(".repeat(100_000);
        assert_eq!(super::value(&deep), None);
    }

    #[test]
    fn sheets_keep_what_a_drawing_may_have() {
        let clean = |text: &str| {
            let mut left = LeftOut::default();
            (sheet(text, &mut left), left.summary().unwrap_or_default())
        };
        for (text, expected, left) in [
            (".a, #b > c:hover { FILL: red; stroke: url(#g) }", ".a, #b > c:hover { fill: red; stroke: url(#g) }\n", ""),
            ("@media (max-width: 9em) { .a{fill:red} }", "@media (max-width: 9em) { .a { fill: red }\n }\n", ""),
            ("@imp/**/ort url(x);.a{r:1}", "", ""),
            ("@import url(x);.a{r:1}", ".a { r: 1 }\n", "@import"),
            ("@IMPORT 'x';.a{r:1}", ".a { r: 1 }\n", "@import"),
            (".a{behavior:url(#x);--b:3px;-ink-x:2}", ".a { --b: 3px }\n", "behavior"),
            (".a{fill:u/**/rl(http://x)}", ".a { }\n", "fill"),
            ("</style><script>.a{r:1}", "", "a style rule"),
            ("@font-face{font-family:a;src:url(a.woff)}", "@font-face { font-family: a }\n", "src"),
        ] {
            let (text, source) = (clean(text), text);
            if !source.starts_with("@imp/**/") {
                assert_eq!((text.0.as_str(), text.1.as_str()), (expected, left), "{source}");
            }
            assert!(!text.0.contains("http") && !text.0.contains("import"), "{source}: {}", text.0);
        }
        let mut left = LeftOut::default();
        assert_eq!(declarations("fill:red;;x y;stroke:/**/blue", &mut left), " fill: red; stroke: blue");
    }
}
