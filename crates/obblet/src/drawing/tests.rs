use super::*;

fn cleaned(drawing: &str) -> (String, String) {
    let clean = clean(drawing.as_bytes()).unwrap_or_else(|error| panic!("{error}: {drawing}"));
    (String::from_utf8(clean.bytes).unwrap(), clean.left_out.unwrap_or_default())
}

#[test]
fn nothing_that_runs_is_left() {
    let drawing = r#"<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY x "y">]><svg xmlns="http://www.w3.org/2000/svg"
xmlns:xlink="http://www.w3.org/1999/xlink" onload="a()" viewBox="0 0 20 10">
<script>alert(1)</script><a xlink:href="java&#9;script:b()"><path d="M0 0"/></a><g><foreignObject><p onclick="c()">x</p></foreignObject></g>&x;<text>Tide &amp; time</text></svg>"#;
    let (clean, left) = cleaned(drawing);
    for gone in ["script", "onload", "onclick", "foreignObject", "ENTITY", "alert", "&x;"] {
        assert!(!clean.contains(gone), "{gone} in {clean}");
    }
    assert!(clean.contains("<path d=\"M0 0\"/>") && clean.contains("Tide &amp; time"), "{clean}");
    assert_eq!(left, "onload, <script>, href, <foreignObject>");
}

#[test]
fn declared_names_of_namespaces_stay_names() {
    let drawing = r#"<?xml version="1.0"?><!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd" [
<!ENTITY ns_svg "http://www.w3.org/2000/svg"> <!ENTITY both "&ns_svg;x"> <!ENTITY tide 'ebb &#38; flood'>
]><s:svg xmlns:s="&ns_svg;" xmlns:x="http://ns.greywick.example/Extensibility/1.0/" y="&both;" id="a &amp; b &lt;"><x:path/><s:text>&both;&tide;&#x41;</s:text></s:svg>"#;
    let (clean, left) = cleaned(drawing);
    // What is made of others, and what nobody declared, is left out.
    let expected = "<svg xmlns=\"http://www.w3.org/2000/svg\" id=\"a &amp; b &lt;\"><text>A</text></svg>\n";
    assert!(clean.ends_with(expected), "{clean}");
    assert_eq!(left, "");
}

#[test]
fn what_programs_keep_for_themselves_goes_without_a_word() {
    let (clean, left) = cleaned(
        r##"<svg xmlns="http://www.w3.org/2000/svg" xmlns:i="http://pen.example/1.0" i:version="1" data-a="b"><metadata><i:rdf/></metadata>
<i:view a="b"><path d="M0"/></i:view><!-- a --><?pen x?><g i:label="1" style="-pen-mode:2;fill:red"/><rect rx="1" href="#a"/></svg>"##,
    );
    assert_eq!(left, "");
    assert!(clean.contains("<g style=\"fill: red\"/><rect rx=\"1\" href=\"#a\"/></svg>") && !clean.contains("M0"), "{clean}");
}

#[test]
fn other_encodings_are_read_as_what_they_are() {
    // In ISO-2022-JP these bytes are two characters, and what follows is script for whoever takes them for ASCII.
    let mut drawing =
        b"<?xml version=\"1.0\" encoding=\"ISO-2022-JP\"?><svg xmlns=\"http://www.w3.org/2000/svg\"><text>".to_vec();
    drawing.extend_from_slice(b"\x1B$B\x44\x2C\x1B(B</text></svg>");
    let clean = String::from_utf8(clean(&drawing).unwrap().bytes).unwrap();
    assert!(
        clean.starts_with("<?xml version=\"1.0\" encoding=\"UTF-8\"?>") && clean.contains("<text>\u{6F6E}</text>"),
        "{clean}"
    );
    let wide: Vec<u8> =
        [0xFF, 0xFE].into_iter().chain("<svg><text>潮</text></svg>".encode_utf16().flat_map(u16::to_le_bytes)).collect();
    assert!(String::from_utf8(super::clean(&wide).unwrap().bytes).unwrap().contains("潮"));
    for broken in
        [&b"<svg>\xFF</svg>"[..], b"<?xml version='1.0' encoding='x-none'?><svg/>", b"<?xml encoding='utf-8'?><svg>\xE9</svg>"]
    {
        assert!(super::clean(broken).is_err());
    }
}

#[test]
fn what_is_no_drawing_is_refused() {
    for text in [
        "<svg><g></svg>",
        "<svg><g>",
        "<svg/><svg/>",
        "<svg/>text",
        "text<svg/>",
        "<html xmlns='http://www.w3.org/1999/xhtml'><svg/></html>",
        "<svg xmlns='http://www.w3.org/1999/xhtml'/>",
        "",
        "<p/>",
    ] {
        assert!(clean(text.as_bytes()).is_err(), "{text}");
    }
}
