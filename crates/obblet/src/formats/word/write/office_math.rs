//! Formulas of office programs, as they were but for what leads out of them: links, bookmarks, changes and the looks of their runs.

use super::super::printer::Printer;
use super::super::xml::{Event, Ns, Xml};

/// The elements of formulas (ECMA-376, part 1, section 22.1.2), which are written under the same names.
const ELEMENTS: [&str; 93] = [
    "m:acc",
    "m:accPr",
    "m:aln",
    "m:alnScr",
    "m:argPr",
    "m:argSz",
    "m:bar",
    "m:barPr",
    "m:baseJc",
    "m:begChr",
    "m:borderBox",
    "m:borderBoxPr",
    "m:box",
    "m:boxPr",
    "m:brk",
    "m:cGp",
    "m:cGpRule",
    "m:chr",
    "m:count",
    "m:cSp",
    "m:ctrlPr",
    "m:d",
    "m:deg",
    "m:degHide",
    "m:den",
    "m:diff",
    "m:dPr",
    "m:e",
    "m:endChr",
    "m:eqArr",
    "m:eqArrPr",
    "m:f",
    "m:fName",
    "m:fPr",
    "m:func",
    "m:funcPr",
    "m:groupChr",
    "m:groupChrPr",
    "m:grow",
    "m:hideBot",
    "m:hideLeft",
    "m:hideRight",
    "m:hideTop",
    "m:jc",
    "m:lim",
    "m:limLoc",
    "m:limLow",
    "m:limLowPr",
    "m:limUpp",
    "m:limUppPr",
    "m:lit",
    "m:m",
    "m:maxDist",
    "m:mc",
    "m:mcJc",
    "m:mcPr",
    "m:mcs",
    "m:mPr",
    "m:mr",
    "m:nary",
    "m:naryPr",
    "m:noBreak",
    "m:nor",
    "m:num",
    "m:objDist",
    "m:oMath",
    "m:oMathPara",
    "m:oMathParaPr",
    "m:opEmu",
    "m:phant",
    "m:phantPr",
    "m:plcHide",
    "m:pos",
    "m:r",
    "m:rad",
    "m:radPr",
    "m:rPr",
    "m:rSp",
    "m:rSpRule",
    "m:scr",
    "m:sepChr",
    "m:show",
    "m:shp",
    "m:sPre",
    "m:sPrePr",
    "m:sSub",
    "m:sSubPr",
    "m:sSubSup",
    "m:sSubSupPr",
    "m:sSup",
    "m:sSupPr",
    "m:sty",
    "m:sub",
];

const MORE: [&str; 14] = [
    "m:subHide",
    "m:sup",
    "m:supHide",
    "m:t",
    "m:transp",
    "m:type",
    "m:vertJc",
    "m:zeroAsc",
    "m:zeroDesc",
    "m:zeroWid",
    "m:strikeBLTR",
    "m:strikeH",
    "m:strikeTLBR",
    "m:strikeV",
];

fn element(local: &[u8]) -> Option<&'static str> {
    ELEMENTS.iter().chain(&MORE).find(|name| name.as_bytes()[2..] == *local).copied()
}

/// Prints a formula.
pub(super) fn print(source: &str, out: &mut Printer) {
    let mut xml = Xml::new(source);
    // What is open: the names of elements that were printed.
    let mut open: Vec<Option<&'static str>> = Vec::new();
    // Whether the style of the run is said whose properties are open: the schema wants it.
    let mut says_style = true;
    let mut in_text = false;
    while let Some(event) = xml.next() {
        match event {
            Event::Open(found) if found.ns == Ns::M => match element(found.local()) {
                Some(name) => {
                    match name {
                        "m:nor" | "m:scr" | "m:sty" => says_style = true,
                        "m:brk" | "m:aln" if open.last() == Some(&Some("m:rPr")) => say_style(&mut says_style, out),
                        "m:rPr" => says_style = false,
                        _ => {}
                    }
                    out.open(name);
                    if let Some(value) = found.get(b"val") {
                        out.attribute("m:val", &value);
                    }
                    in_text = name == "m:t";
                    if in_text {
                        out.attribute("xml:space", "preserve");
                    }
                    open.push(Some(name));
                }
                None => xml.skip(),
            },
            // The text of links and changes stays; what says how something looks goes.
            Event::Open(found)
                if found.ns == Ns::W && matches!(found.local(), b"hyperlink" | b"ins" | b"smartTag" | b"sdt" | b"sdtContent") =>
            {
                open.push(None);
            }
            Event::Open(_) => xml.skip(),
            Event::Close => {
                in_text = false;
                if let Some(Some(name)) = open.pop() {
                    if name == "m:rPr" {
                        say_style(&mut says_style, out);
                    }
                    out.close();
                }
            }
            Event::Text(text) => {
                if in_text {
                    out.text(&text);
                }
            }
        }
    }
    for _ in open.into_iter().flatten() {
        out.close();
    }
}

/// Says that a run is in italics, as formulas are that say nothing.
fn say_style(says_style: &mut bool, out: &mut Printer) {
    if !std::mem::replace(says_style, true) {
        out.open("m:sty").attribute("m:val", "i").close();
    }
}
