//! Drawings of strangers: what runs or loads in them is gone, and what they draw is there.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::drawing::clean as clean_drawing;
use proptest::prelude::*;
use support::drawing::fault;
use support::linear;

const HOSTILE: &str = include_str!("../data/hostile-drawings.txt");

#[test]
fn hostile_drawings_are_harmless_or_refused() {
    let mut refused = 0;
    for drawing in HOSTILE.lines() {
        match clean_drawing(drawing.as_bytes()) {
            Ok(clean) => {
                assert_eq!(fault(&clean.bytes), None, "of {drawing}");
                let again = clean_drawing(&clean.bytes).unwrap();
                assert_eq!(String::from_utf8(again.bytes), String::from_utf8(clean.bytes), "what is clean stays as it is");
            }
            Err(_) => refused += 1,
        }
    }
    assert_eq!(refused, 0, "they are well-formed, all of them");
}

#[test]
fn the_other_parser_sees_what_is_wrong() {
    // A check that finds nothing in drawings as strangers send them would find nothing in ours either.
    let harmless: Vec<&str> = HOSTILE.lines().filter(|drawing| fault(drawing.as_bytes()).is_none()).collect();
    assert!(harmless.len() * 8 < HOSTILE.lines().count(), "{} of them: {harmless:#?}", harmless.len());
}

#[test]
fn other_encodings_hide_nothing() {
    let script =
        "<svg xmlns=\"http://www.w3.org/2000/svg\" onload=\"alert(1)\"><text>潮 <!-- --></text><script>alert(1)</script></svg>";
    for label in ["UTF-16LE", "UTF-16BE", "ISO-2022-JP", "Shift_JIS", "EUC-JP", "GBK"] {
        let text = format!("<?xml version=\"1.0\" encoding=\"{label}\"?>{script}");
        let bytes = match label {
            "UTF-16LE" => [0xFF, 0xFE].into_iter().chain(text.encode_utf16().flat_map(u16::to_le_bytes)).collect(),
            "UTF-16BE" => [0xFE, 0xFF].into_iter().chain(text.encode_utf16().flat_map(u16::to_be_bytes)).collect(),
            _ => encoding_rs::Encoding::for_label(label.as_bytes()).unwrap().encode(&text).0.into_owned(),
        };
        let clean = clean_drawing(&bytes).unwrap();
        assert_eq!(fault(&clean.bytes), None);
        assert!(String::from_utf8(clean.bytes).unwrap().ends_with("<text>潮 </text></svg>\n"), "{label}");
    }
}

type Shape = fn(usize) -> String;

#[test]
fn drawings_take_linear_time() {
    let whole = |inner: &str| format!("<svg xmlns=\"http://www.w3.org/2000/svg\">{inner}</svg>");
    let shapes: [(&str, Shape); 6] = [
        ("deep", |n| format!("{}{}", "<g>".repeat(n), "</g>".repeat(n))),
        ("attributes", |n| format!("<g {}/>", (0..n).map(|at| format!("a{at}='' x='1' ")).collect::<String>())),
        ("namespaces", |n| (0..n).map(|at| format!("<g xmlns:n{at}='x'>")).collect::<String>() + &"</g>".repeat(n)),
        ("rules", |n| format!("<style>{}</style>", "a{fill:red}@media x{a{b:c}}".repeat(n))),
        ("brackets", |n| format!("<style>{}</style><g style='fill:{}'/>", "((((({[".repeat(n), "(".repeat(n))),
        ("left out", |n| format!("<script>{}</script>", "<x onload='a'/>".repeat(n))),
    ];
    for (name, shape) in shapes {
        linear::assert_linear(name, 500, |n| whole(&shape(n)).into_bytes(), |bytes| clean_drawing(bytes).unwrap().bytes.len());
    }
}

fn any_piece() -> impl Strategy<Value = String> {
    let pieces: Vec<String> = HOSTILE
        .lines()
        .flat_map(|line| {
            line.split_inclusive(['<', '>', ' ', '"', '=', ';', '{', '}', '(', ')']).map(str::to_owned).collect::<Vec<_>>()
        })
        .collect();
    prop_oneof![8 => proptest::sample::select(pieces), 1 => any::<char>().prop_map(String::from)]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 512, ..ProptestConfig::default() })]

    #[test]
    fn drawings_of_any_pieces_are_harmless(pieces in proptest::collection::vec(any_piece(), 1..40), at in 0..HOSTILE.lines().count()) {
        let whole = HOSTILE.lines().nth(at).unwrap();
        let middle = whole.char_indices().map(|(at, _)| at).nth(whole.chars().count() / 2).unwrap_or_default();
        let mixed = format!("{}{}{}", &whole[..middle], pieces.concat(), &whole[middle..]);
        let inner = format!("<svg xmlns=\"http://www.w3.org/2000/svg\">{}</svg>", pieces.concat());
        for drawing in [mixed, inner] {
            if let Ok(clean) = clean_drawing(drawing.as_bytes()) {
                prop_assert_eq!(fault(&clean.bytes), None, "of {}", drawing);
            }
        }
    }
}
