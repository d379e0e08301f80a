//! Metafiles drawn anew: whole small ones read by eye, and damage.
#![cfg(feature = "images")]
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use obblet::metafile::{Drawing, draw, is_metafile};
use proptest::prelude::*;

/// Bytes of numbers, the least first.
fn words(numbers: &[i32]) -> Vec<u8> {
    numbers.iter().flat_map(|number| number.to_le_bytes()).collect()
}

fn shorts(numbers: &[i32]) -> Vec<u8> {
    numbers.iter().flat_map(|number| (*number as i16).to_le_bytes()).collect()
}

/// A bitmap of two by two pixels with 24 bits, from the bottom row on: its header, and its pixels.
fn bitmap() -> (Vec<u8>, Vec<u8>) {
    let header = [words(&[40, 2, 2]), shorts(&[1, 24]), words(&[0, 16, 0, 0, 0, 0])].concat();
    (header, vec![255, 0, 0, 0, 255, 0, 0, 0, 0, 0, 255, 255, 255, 255, 0, 0])
}

/// An enhanced metafile of records, on a device with 10 units in a millimetre, 60 by 40 millimetres.
fn emf(records: &[(u32, Vec<u8>)]) -> Vec<u8> {
    let mut body = Vec::new();
    for (kind, data) in records.iter().chain([&(14, words(&[0, 16, 20]))]) {
        let size = 8 + data.len().next_multiple_of(4);
        body.extend(kind.to_le_bytes());
        body.extend((size as u32).to_le_bytes());
        body.extend(data);
        body.resize(body.len().next_multiple_of(4), 0);
    }
    let mut header = words(&[1, 88, 0, 0, 599, 399, 0, 0, 6000, 4000]);
    header.extend(b" EMF");
    header.extend(words(&[0x10000, body.len() as i32 + 88, records.len() as i32 + 2, 1, 0, 0, 0, 3200, 2400, 320, 240]));
    header.extend(body);
    header
}

fn text_record(kind: u32, at: (i32, i32), text: &str, widths: &[i32]) -> (u32, Vec<u8>) {
    let units: Vec<u8> = text.encode_utf16().flat_map(u16::to_le_bytes).collect();
    let string = 76;
    let distances = string + units.len().next_multiple_of(4);
    let count = text.encode_utf16().count() as i32;
    let mut data = words(&[0, 0, 0, 0, 2, 0, 0, at.0, at.1, count, string as i32, 0, 0, 0, 0, 0, distances as i32]);
    data.extend(units);
    data.resize(distances - 8, 0);
    data.extend(words(widths));
    (kind, data)
}

fn font_record(index: i32, height: i32, face: &str) -> (u32, Vec<u8>) {
    let mut data = words(&[index, height, 0, 0, 0, 700]);
    data.extend([1, 0, 0, 0, 0, 0, 0, 0]);
    let mut face: Vec<u8> = face.encode_utf16().flat_map(u16::to_le_bytes).collect();
    face.resize(64, 0);
    data.extend(face);
    (82, data)
}

/// A drawing of the tide station that uses most of what there is.
fn station() -> Vec<u8> {
    let bounds = [0, 0, 0, 0];
    let (header, bits) = bitmap();
    let mut stretch = words(&[
        0,
        0,
        0,
        0,
        440,
        40,
        0,
        0,
        2,
        2,
        80,
        header.len() as i32,
        80 + header.len() as i32,
        16,
        0,
        0x00CC_0020,
        120,
        120,
    ]);
    stretch.extend(header);
    stretch.extend(bits);
    emf(&[
        // A blue pen of 8 units, a sand brush, a hatched brush, a font.
        (38, words(&[1, 0, 8, 0, 0x0090_4020])),
        (39, words(&[2, 0, 0x0060_B0E0, 0])),
        (39, words(&[3, 2, 0x0000_8000, 4])),
        font_record(4, -40, "Station Sans"),
        (37, words(&[1])),
        (37, words(&[2])),
        (43, words(&[20, 20, 220, 140])),
        (42, words(&[240, 20, 400, 140])),
        (37, words(&[3])),
        (86, [words(&bounds), words(&[3]), shorts(&[20, 300, 120, 180, 220, 300])].concat()),
        // A window that goes upwards, saved around.
        (33, Vec::new()),
        (17, words(&[8])),
        (9, words(&[100, -100])),
        (11, words(&[200, 200])),
        (12, words(&[240, 360])),
        (30, words(&[0, 0, 80, 80])),
        (85, [words(&bounds), words(&[4]), shorts(&[0, 0, 30, 120, 60, -60, 100, 60])].concat()),
        (34, words(&[-1])),
        // A path with a hole.
        (59, Vec::new()),
        (27, words(&[460, 200])),
        (89, [words(&bounds), words(&[3]), shorts(&[560, 200, 560, 300, 460, 300])].concat()),
        (61, Vec::new()),
        (27, words(&[490, 230])),
        (54, words(&[530, 230])),
        (54, words(&[530, 270])),
        (61, Vec::new()),
        (60, Vec::new()),
        (63, words(&bounds)),
        (81, stretch),
        (37, words(&[4])),
        (18, words(&[1])),
        (24, words(&[0x0000_00C0])),
        (22, words(&[24])),
        text_record(84, (20, 370), "Tide & time", &[20, 10, 20, 20, 10, 30, 10, 10, 10, 30, 20]),
        (45, words(&[300, 320, 420, 390, 420, 355, 300, 355])),
    ])
}

fn svg(drawing: &Drawing) -> &str {
    std::str::from_utf8(&drawing.svg).unwrap()
}

#[test]
fn an_enhanced_metafile_is_drawn() {
    let drawing = draw(&station()).unwrap();
    assert!(drawing.missing.is_empty(), "{:?}", drawing.missing);
    insta::assert_snapshot!(svg(&drawing));
    // What is drawn is markup, and nothing that makes drawings safe finds anything in it.
    roxmltree::Document::parse(svg(&drawing)).unwrap();
    let clean = obblet::drawing::clean(&drawing.svg).unwrap();
    assert_eq!(clean.left_out, None);
    if let Ok(folder) = std::env::var("OBBLET_SHOW") {
        std::fs::write(format!("{folder}/station.svg"), &drawing.svg).unwrap();
        std::fs::write(format!("{folder}/log.svg"), draw(&log()).unwrap().svg).unwrap();
    }
}

/// A record of a plain metafile.
fn record(function: u16, data: &[i32]) -> Vec<u8> {
    let mut out = (3 + data.len() as u32).to_le_bytes().to_vec();
    out.extend(function.to_le_bytes());
    out.extend(shorts(data));
    out
}

/// A plain metafile in a box of 600 by 400 units, 1000 of which are an inch.
fn log() -> Vec<u8> {
    let words_of = |text: &str| -> Vec<i32> {
        let mut bytes = text.as_bytes().to_vec();
        bytes.resize(bytes.len().next_multiple_of(2), 0);
        bytes.as_chunks().0.iter().map(|pair| i32::from(i16::from_le_bytes(*pair))).collect()
    };
    let face = words_of("Log Serif\0");
    let records = [
        record(0x020B, &[0, 0]),
        record(0x020C, &[400, 600]),
        record(0x02FA, &[0, 10, 0, 0x00C0, 0]),
        record(0x02FC, &[0, 0xF0 | (0xF0 << 8), 0x00C0, 0]),
        record(0x02FB, &[[-60, 0, 300, 0, 400, 0x0001, 0, 0, 0].as_slice(), &face].concat()),
        record(0x012D, &[0]),
        record(0x012D, &[1]),
        record(0x041B, &[380, 580, 20, 20]),
        record(0x0418, &[300, 300, 100, 100]),
        record(0x0325, &[3, 320, 300, 420, 100, 560, 300]),
        record(0x081A, &[350, 40, 350, 150, 380, 180, 300, 40]),
        record(0x012D, &[2]),
        record(0x0209, &[0x4000, 0x0040]),
        record(0x0521, &[[5].as_slice(), &words_of("1 < 2"), &[120, 340]].concat()),
        // An object that goes makes room for the next.
        record(0x01F0, &[0]),
        record(0x02FA, &[2, 4, 0, 0, 0]),
        record(0x012D, &[0]),
        record(0x0213, &[60, 560]),
        record(0x0000, &[]),
    ]
    .concat();
    let mut out = vec![0xD7, 0xCD, 0xC6, 0x9A];
    out.extend(shorts(&[0, 0, 0, 600, 400, 1000, 0, 0, 0]));
    out.extend(shorts(&[1, 9, 0x0300, 0, 0, 4, 0, 0, 0]));
    out.extend(records);
    out
}

#[test]
fn a_plain_metafile_is_drawn() {
    let drawing = draw(&log()).unwrap();
    assert!(drawing.missing.is_empty(), "{:?}", drawing.missing);
    insta::assert_snapshot!(svg(&drawing));
}

fn floats(numbers: &[f32]) -> Vec<u8> {
    numbers.iter().flat_map(|number| number.to_le_bytes()).collect()
}

/// A comment that holds records of the extension: their kinds, their flags, and what they hold.
fn comment(records: &[(u16, u16, Vec<u8>)]) -> (u32, Vec<u8>) {
    let mut own = b"EMF+".to_vec();
    for (kind, flags, data) in records {
        own.extend(kind.to_le_bytes());
        own.extend(flags.to_le_bytes());
        own.extend(words(&[data.len() as i32 + 12, data.len() as i32]));
        own.extend(data);
    }
    (70, [words(&[own.len() as i32]), own].concat())
}

/// A drawing whose records are those of the extension alone.
fn gauge() -> Vec<u8> {
    const VERSION: i32 = 0xDBC0_1002_u32.cast_signed();
    const INK: i32 = 0xFF20_4080_u32.cast_signed();
    const WATER: i32 = 0x8000_A0C0_u32.cast_signed();
    const SAND: i32 = 0xFFE0_C080_u32.cast_signed();
    let pen = |width: f32| [words(&[VERSION, 0, 0x28, 0]), floats(&[width]), words(&[2, 1, VERSION, 0, INK])].concat();
    let run = [words(&[VERSION, 4, 0, 4]), floats(&[20.0, 0.0, 200.0, 1.0]), words(&[SAND, INK, 0, 0])].concat();
    let drop_shape = [
        words(&[VERSION, 7, 0]),
        floats(&[300.0, 20.0, 360.0, 100.0, 340.0, 140.0, 300.0, 140.0, 260.0, 140.0, 240.0, 100.0, 300.0, 20.0]),
        vec![0, 3, 3, 3, 3, 3, 0x83],
    ]
    .concat();
    let utf16 = |text: &str| text.encode_utf16().flat_map(u16::to_le_bytes).collect::<Vec<u8>>();
    let font = [words(&[VERSION]), floats(&[12.0]), words(&[3, 1, 0, 12]), utf16("Station Sans")].concat();
    let format = words(&[VERSION, 0, 0, 1, 1, 0, 0, 0, 0, 0, 0, 0, 0, 0]);
    let image = [words(&[VERSION, 1, 2, 1, 8, 0x0026_200A, 0]), words(&[INK, WATER])].concat();
    let text = "High water at noon";
    let string = [words(&[INK, 6, text.len() as i32]), floats(&[20.0, 200.0, 90.0, 80.0]), utf16(text)].concat();
    let gradient = [words(&[0, 0, 0, 0, 2, 1, 0, 400, 200]), shorts(&[0xFF00, 0, 0, 0]), words(&[560, 260])].concat();
    let gradient = [gradient, shorts(&[0, 0, 0xFF00, 0]), words(&[0, 1])].concat();
    emf(&[
        comment(&[
            (0x4001, 0, words(&[VERSION, 1, 96, 96])),
            (0x4008, 0x0200, pen(4.0)),
            (0x4008, 0x0101, run),
            (0x4008, 0x0302, drop_shape),
            (0x4008, 0x0605, font),
            (0x4008, 0x0706, format),
            (0x4008, 0x0507, image),
            (0x400A, 0x4000, [words(&[1, 1]), shorts(&[20, 20, 200, 100])].concat()),
            (0x400B, 0x4000, [words(&[1]), shorts(&[20, 20, 200, 100])].concat()),
            (0x4014, 0x8002, words(&[WATER])),
            (0x4015, 0x0002, words(&[0])),
            (0x4025, 0, words(&[1])),
            (0x402D, 0, floats(&[400.0, 20.0])),
            (0x402E, 0, floats(&[2.0, 1.0])),
            (0x4032, 0x0100, floats(&[0.0, 0.0, 80.0, 90.0])),
            (0x4012, 0x4000, [floats(&[0.0, 90.0]), shorts(&[0, 0, 80, 100])].concat()),
            (0x401A, 0x0007, [words(&[0, 2]), floats(&[0.0, 0.0, 2.0, 1.0, 0.0, 0.0, 20.0, 20.0])].concat()),
            (0x4026, 0, words(&[1])),
            (0x4018, 0x4000, [floats(&[0.5]), words(&[0, 2, 3]), shorts(&[20, 180, 120, 140, 220, 180])].concat()),
            (0x401C, 0x8005, string),
        ]),
        // What the older form says beside it is not drawn a second time.
        (43, words(&[0, 0, 599, 399])),
        comment(&[(0x4004, 0, Vec::new())]),
        (118, gradient),
        comment(&[(0x4002, 0, Vec::new())]),
    ])
}

#[test]
fn a_metafile_of_the_extension_is_drawn() {
    let drawing = draw(&gauge()).unwrap();
    assert!(drawing.missing.is_empty(), "{:?}", drawing.missing);
    insta::assert_snapshot!(svg(&drawing));
    if let Ok(folder) = std::env::var("OBBLET_SHOW") {
        std::fs::write(format!("{folder}/gauge.svg"), &drawing.svg).unwrap();
    }
}

#[test]
fn what_can_not_be_drawn_is_said() {
    let framed = emf(&[(43, words(&[20, 20, 220, 140])), (72, words(&[0; 8]))]);
    assert_eq!(draw(&framed).unwrap().missing, ["regions that are framed or inverted"]);
    // Nothing at all is no drawing: whoever asks keeps the file.
    assert_eq!(draw(&emf(&[])), None);
    assert!(is_metafile(&emf(&[])) && !is_metafile(b"\x89PNG\r\n\x1A\n"));
}

proptest! {
    /// Damage anywhere gives a drawing that is markup, or none, and takes no time.
    #[test]
    fn damage_does_no_harm(at in 0_usize..3000, bytes in proptest::collection::vec(any::<u8>(), 1..40), cut in 0_usize..3000, which in 0_usize..3) {
        let files: [fn() -> Vec<u8>; 3] = [log, station, gauge];
        let mut file = files[which]();
        for (place, byte) in bytes.into_iter().enumerate() {
            let length = file.len();
            file[(at + place) % length] = byte;
        }
        file.truncate(file.len().max(cut) - cut / 2);
        if let Some(drawing) = draw(&file) {
            prop_assert!(roxmltree::Document::parse(svg(&drawing)).is_ok(), "{}", svg(&drawing));
        }
    }
}
