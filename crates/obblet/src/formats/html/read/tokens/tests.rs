//! The tokens are those of the parser package, by which a second opinion on the standard is at hand.

use super::*;
use html5ever::tokenizer::{BufferQueue, Tokenizer as Other, TokenizerOpts};
use html5ever::tree_builder::{TreeBuilder, TreeBuilderOpts};
use nothing::Nothing;
use proptest::prelude::*;
use std::cell::RefCell;

#[path = "../../../../../benches/support/nothing.rs"]
#[allow(dead_code, reason = "the benches use more of it")]
mod nothing;

/// A token as both sides tell it: text in whole runs, end tags without attributes.
#[derive(Debug, PartialEq)]
enum Seen {
    Text(String),
    Null,
    Start(String, Vec<(String, String)>, bool, bool),
    End(String),
}

/// Writes down what goes into tree construction.
struct Recorder {
    builder: TreeBuilder<usize, Nothing>,
    reported: RefCell<Vec<Seen>>,
    offsets: RefCell<Vec<u64>>,
}

impl Recorder {
    fn new() -> Self {
        let options = TreeBuilderOpts { scripting_enabled: false, iframe_srcdoc: true, ..TreeBuilderOpts::default() };
        Self { builder: TreeBuilder::new(Nothing::default(), options), reported: RefCell::default(), offsets: RefCell::default() }
    }
}

impl TokenSink for Recorder {
    type Handle = usize;

    fn process_token(&self, token: Token, range: u64) -> TokenSinkResult<usize> {
        let reported = &mut *self.reported.borrow_mut();
        match &token {
            Token::CharacterTokens(text) if text.is_empty() => {}
            Token::CharacterTokens(text) => match reported.last_mut() {
                Some(Seen::Text(before)) => before.push_str(text),
                _ => reported.push(Seen::Text(text.to_string())),
            },
            Token::NullCharacterToken => reported.push(Seen::Null),
            Token::TagToken(tag) if tag.kind == TagKind::StartTag => {
                let attributes = tag.attrs.iter().map(|one| (one.name.local.to_string(), one.value.to_string()));
                reported.push(Seen::Start(
                    tag.name.to_string(),
                    attributes.collect(),
                    tag.self_closing,
                    tag.had_duplicate_attributes,
                ));
                self.offsets.borrow_mut().push(range);
            }
            Token::TagToken(tag) => reported.push(Seen::End(tag.name.to_string())),
            // Nobody asks for these.
            Token::CommentToken(_) | Token::DoctypeToken(_) | Token::ParseError(_) => return TokenSinkResult::Continue,
            Token::EOFToken => {}
        }
        self.builder.process_token(token, range)
    }

    fn adjusted_current_node_present_but_not_in_html_namespace(&self) -> bool {
        self.builder.adjusted_current_node_present_but_not_in_html_namespace()
    }
}

fn ours(source: &str) -> (Vec<Seen>, Vec<u64>) {
    let recorder = Recorder::new();
    tokenize(source, &mut Names::new(), &recorder);
    (recorder.reported.into_inner(), recorder.offsets.into_inner())
}

fn theirs(source: &str) -> Vec<Seen> {
    let other = Other::new(Recorder::new(), TokenizerOpts::default());
    let input = BufferQueue::default();
    input.push_back(StrTendril::from(source));
    while !input.is_empty() {
        let _ = other.feed(&input);
    }
    other.end();
    other.sink.reported.into_inner()
}

#[track_caller]
fn same(source: &str) {
    assert_eq!(ours(source).0, theirs(source), "{source:?}");
}

/// What the states of the standard differ by.
const PIECES: [&str; 96] = [
    "<",
    ">",
    "/",
    "!",
    "?",
    "=",
    "\"",
    "'",
    "&",
    ";",
    "#",
    "-",
    "--",
    " ",
    "\n",
    "\r",
    "\r\n",
    "\t",
    "\u{c}",
    "\0",
    "a",
    "B",
    "é",
    "漢",
    "</",
    "<!--",
    "-->",
    "--!>",
    "<!-->",
    "<!--->",
    "<!DOCTYPE html>",
    "<!doctype",
    "<![CDATA[",
    "]]>",
    "<?php",
    "<p",
    "<p>",
    "</p>",
    "<P CLASS=x>",
    "<a href=",
    "<br/>",
    "<br / >",
    "<script>",
    "</script>",
    "</SCRIPT ",
    "<script",
    "<style>",
    "</style>",
    "</style/",
    "<title>",
    "</title>",
    "<textarea>",
    "</textarea>",
    "<xmp>",
    "</xmp",
    "<plaintext>",
    "<iframe>",
    "</iframe>",
    "<noscript>",
    "<svg>",
    "</svg>",
    "<math>",
    "<mi>",
    "<desc>",
    "<table>",
    "<select>",
    "<template>",
    "</template>",
    "<frameset>",
    "&amp;",
    "&amp",
    "&AMP",
    "&nbsp;",
    "&notin;",
    "&notit;",
    "&not",
    "&copy=",
    "&frac12x",
    "&NotEqualTilde;",
    "&xyz;",
    "&#65;",
    "&#x41",
    "&#X41;",
    "&#0;",
    "&#128;",
    "&#x110000;",
    "&#xD800;",
    "&#99999999999;",
    "&#;",
    "&#x;",
    "x='1'",
    "x=\"2\"",
    "x=3",
    "X =  4",
    "/>",
    "==",
];

#[test]
fn the_small_cases_of_the_standard() {
    for first in PIECES {
        same(first);
        for second in PIECES {
            same(&format!("{first}{second}"));
            same(&format!("<a x=\"{first}{second}\" y={first}{second}>{first}"));
            for frame in ["script", "title", "style", "svg", "plaintext", "pre"] {
                same(&format!("<{frame}>{first}{second}x</{frame}>{first}"));
            }
            same(&format!("<script><!--{first}{second}--><script></script>"));
            same(&format!("<script><!--<script>{first}</script>{second}</script>"));
            same(&format!("<!--{first}{second}-->{second}"));
        }
    }
}

#[test]
fn a_tag_tells_the_line_in_which_it_begins() {
    let source = "<p>\n\n<b\nclass=x>\n&amp;\n<i>\n<u>";
    let (_, offsets) = ours(&source.replace('\n', "\r\n"));
    let tags: Vec<&str> = offsets.iter().map(|range| &source[*range as u32 as usize..(range >> 32) as usize]).collect();
    assert_eq!(tags, ["<p>", "<b\nclass=x>", "<i>", "<u>"]);
}

#[test]
fn names_that_share_a_slot_are_kept_apart() {
    let names: Vec<String> = (0..3000).map(|number| format!("x{number:x}")).collect();
    let source: String = names.iter().chain(&names).map(|name| format!("<{name} {name}=1>")).collect();
    same(&source);
    same("<a-name-that-is-too-long-for-a-key A-NAME-THAT-IS-TOO-LONG-FOR-A-KEY=1 a-name-that-is-too-long-for-a-key>");
}

#[test]
fn thousands_of_attributes_take_no_longer_than_as_many_tags() {
    let attributes: String = (0..200_000).map(|number| format!(" a{number}")).collect();
    let (reported, _) = ours(&format!("<p{attributes} a7>"));
    let [Seen::Start(_, attributes, _, true)] = reported.as_slice() else { panic!("{}", reported.len()) };
    assert_eq!(attributes.len(), 200_000);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(3000))]

    #[test]
    fn any_mixture_has_the_same_tokens(pieces in prop::collection::vec(prop::sample::select(&PIECES[..]), 0..24)) {
        let source = pieces.concat();
        prop_assert_eq!(ours(&source).0, theirs(&source), "{:?}", source);
    }
}
