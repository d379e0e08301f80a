//! Getting over plain text quickly: sixteen bytes at a time.
//!
//! Most text is plain, and a look at each byte by itself is most of what a conversion costs.

#[cfg(not(feature = "simd"))]
use lanes::u8x16;
#[cfg(feature = "simd")]
use wide::u8x16;

const LANES: usize = 16;
const FEW: usize = 6;

/// How many bytes at the start need no escaping in HTML: all but `&`, `<`, `>`, in an attribute `"`, control characters
/// other than newline, and the first bytes of characters that may be controls or no characters at all.
#[inline]
pub(crate) fn unescaped_length<const ATTRIBUTE: bool>(bytes: &[u8]) -> usize {
    let (chunks, rest) = bytes.as_chunks::<LANES>();
    for (index, &chunk) in chunks.iter().enumerate() {
        let mask = escape_mask::<ATTRIBUTE>(chunk);
        if mask != 0 {
            return index * LANES + mask.trailing_zeros() as usize;
        }
    }
    if rest.is_empty() {
        return bytes.len();
    }
    let start = bytes.len() - rest.len();
    // The last sixteen bytes again where there are so many, else what there is with plain bytes behind it.
    let (chunk, known) = match bytes.last_chunk::<LANES>() {
        Some(chunk) => (*chunk, LANES - rest.len()),
        None => {
            let mut padded = [b'a'; LANES];
            padded[..rest.len()].copy_from_slice(rest);
            (padded, 0)
        }
    };
    let mask = escape_mask::<ATTRIBUTE>(chunk) >> known;
    bytes.len().min(start + mask.trailing_zeros() as usize)
}

#[inline]
fn escape_mask<const ATTRIBUTE: bool>(chunk: [u8; LANES]) -> u32 {
    let lanes = u8x16::new(chunk);
    let is = |byte: u8| lanes.simd_eq(u8x16::splat(byte));
    let markup = is(b'&') | is(b'<') | is(b'>');
    let markup = if ATTRIBUTE { markup | is(b'"') } else { markup };
    let control = lanes.min(u8x16::splat(0x1F)).simd_eq(lanes) & !is(b'\n');
    let doubtful = is(0x7F) | is(0xC2) | lanes.max(u8x16::splat(0xEF)).simd_eq(lanes);
    (markup | control | doubtful).to_bitmask()
}

/// Whether two white characters of ASCII stand in a row, or a character may be there that is white or nothing and not in ASCII:
/// a no-break space, one of the general punctuation, a byte order mark.
#[inline]
pub(crate) fn may_be_untidy(bytes: &[u8]) -> bool {
    let (chunks, rest) = bytes.as_chunks::<LANES>();
    let mut padded = [b'a'; LANES];
    padded[..rest.len()].copy_from_slice(rest);
    // Whether the chunk before ends with a white character.
    let mut before = 0;
    for &chunk in chunks.iter().chain([&padded]) {
        let lanes = u8x16::new(chunk);
        let is = |byte: u8| lanes.simd_eq(u8x16::splat(byte));
        let foreign = is(0xC2) | is(0xE2) | is(0xEF);
        let white = (is(b' ') | is(b'\t') | is(b'\n') | is(b'\r') | is(0x0C)).to_bitmask();
        if foreign.any() || white & (white << 1 | before) != 0 {
            return true;
        }
        before = white >> (LANES - 1) & 1;
    }
    false
}

/// How many bytes at the start are letters of ASCII.
#[inline]
pub(crate) fn letters(bytes: &[u8]) -> usize {
    let mut at = 0;
    while let Some(chunk) = bytes.get(at..).and_then(<[u8]>::first_chunk::<LANES>) {
        let lanes = u8x16::new(*chunk) | u8x16::splat(0x20);
        let is_letter = lanes.max(u8x16::splat(b'a')).simd_eq(lanes) & lanes.min(u8x16::splat(b'z')).simd_eq(lanes);
        let found = is_letter.to_bitmask().trailing_ones() as usize;
        at += found;
        if found < LANES {
            return at;
        }
    }
    at + bytes[at..].iter().take_while(|byte| byte.is_ascii_alphabetic()).count()
}

/// How many bytes at the start are a run of plain text in LaTeX: nothing that is a command, a mark or part of a ligature, no white
/// space but single spaces between words.
#[inline]
pub(crate) fn plain_latex_length(bytes: &[u8]) -> usize {
    let mut at = 0;
    let stop = loop {
        let Some(rest) = bytes.get(at..).filter(|rest| !rest.is_empty()) else { break bytes.len() };
        let mut padded = [0; LANES];
        let chunk = match rest.first_chunk::<LANES>() {
            Some(chunk) => *chunk,
            None => {
                padded[..rest.len()].copy_from_slice(rest);
                padded
            }
        };
        let lanes = u8x16::new(chunk);
        let is = |byte: u8| lanes.simd_eq(u8x16::splat(byte));
        let up_to = |last: u8| lanes.min(u8x16::splat(last)).simd_eq(lanes);
        let among = |first: u8, last: u8| lanes.max(u8x16::splat(first)).simd_eq(lanes) & up_to(last);
        let space = is(b' ');
        let marks =
            up_to(b'\'') & !space | is(b'*') | is(b'-') | is(b'<') | among(b'>', b'@') | among(b'[', b'`') | among(b'{', 0x7F);
        let spaces = space.to_bitmask();
        let stops = marks.to_bitmask() | spaces & (spaces >> 1);
        if stops != 0 {
            break at + stops.trailing_zeros() as usize;
        }
        // A space at the end of the sixteen is looked at again, with what stands behind it.
        at += LANES - (spaces >> (LANES - 1)) as usize;
    };
    let stop = stop.min(bytes.len());
    // A space before the end of a line, a comment or the end of all is no part of the run.
    let ends_white = matches!(bytes.get(stop), None | Some(b'\t' | b'\n' | b'%'));
    if ends_white && stop > 0 && bytes[stop - 1] == b' ' { stop - 1 } else { stop }
}

/// Bytes at which a scan stops.
pub(crate) trait Mask {
    /// One bit for each of sixteen bytes that is a stop.
    fn mask(&self, chunk: [u8; LANES]) -> u32;
}

/// One of some bytes, for scans that stop often.
#[derive(Clone, Copy, Debug)]
pub(crate) struct OneOf<const N: usize>(pub(crate) [u8; N]);

impl<const N: usize> Mask for OneOf<N> {
    #[inline]
    fn mask(&self, chunk: [u8; LANES]) -> u32 {
        let lanes = u8x16::new(chunk);
        self.0.iter().fold(0, |mask, &byte| mask | lanes.simd_eq(u8x16::splat(byte)).to_bitmask())
    }
}

/// All places where one of some bytes stands: quicker than a search for each where they are many.
pub(crate) fn places<const N: usize>(bytes: &[u8], wanted: [u8; N]) -> impl Iterator<Item = usize> + '_ {
    let mut window = Window::default();
    let mut next = 0;
    std::iter::from_fn(move || {
        let at = window.next_stop(bytes, &OneOf(wanted), next);
        next = at + 1;
        (at < bytes.len()).then_some(at)
    })
}

/// Bytes that objects of Org begin with.
#[derive(Clone, Copy, Debug)]
pub(crate) struct ObjectStops {
    /// Quotation marks are stops, too.
    pub(crate) quotes: bool,
    /// The letters that code within lines begins with are.
    pub(crate) code: bool,
}

impl Mask for ObjectStops {
    #[inline]
    fn mask(&self, chunk: [u8; LANES]) -> u32 {
        let lanes = u8x16::new(chunk);
        let is = |byte: u8| lanes.simd_eq(u8x16::splat(byte));
        let among =
            |first: u8, last: u8| lanes.max(u8x16::splat(first)).simd_eq(lanes) & lanes.min(u8x16::splat(last)).simd_eq(lanes);
        // * + - . / but no comma, and [ \ ^ _ but neither the bracket that closes nor the backtick.
        let marks = among(b'*', b'/') & !is(b',') | among(b'[', b'_') & !is(b']');
        let mut found = marks | is(b':') | among(b'<', b'=') | is(b'\n') | is(b'~') | is(b'$') | is(b'@');
        if self.quotes {
            found = found | is(b'"') | is(b'\'');
        }
        if self.code {
            found = found | is(b's') | is(b'c');
        }
        found.to_bitmask()
    }
}

/// Bytes at which a scan of inline Markdown stops. Besides the brackets and what stands between them in ASCII, there is
/// room for ten.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Stops {
    lanes: [u8x16; 10],
    /// Whether the last four are not needed.
    few: bool,
}

impl Stops {
    pub(crate) fn new(stops: &[u8]) -> Self {
        let mut lanes = [u8x16::splat(b'\n'); 10];
        for (lane, &stop) in lanes.iter_mut().zip(stops) {
            *lane = u8x16::splat(stop);
        }
        Self { lanes, few: stops.len() <= FEW }
    }
}

impl Mask for Stops {
    #[inline]
    fn mask(&self, chunk: [u8; LANES]) -> u32 {
        let lanes = u8x16::new(chunk);
        // From the opening bracket to the backtick: [ \ ] ^ _ `
        let low = lanes.max(u8x16::splat(b'[')).simd_eq(lanes);
        let high = lanes.min(u8x16::splat(b'`')).simd_eq(lanes);
        let (first, last) = self.lanes.split_at(FEW);
        let mut found = first.iter().fold(low & high, |found, &stop| found | lanes.simd_eq(stop));
        if !self.few {
            found = last.iter().fold(found, |found, &stop| found | lanes.simd_eq(stop));
        }
        found.to_bitmask()
    }
}

/// Where a scan is: which bytes of the sixteen around it are stops.
#[derive(Clone, Copy, Debug, Default)]
pub(crate) struct Window {
    start: usize,
    end: usize,
    mask: u32,
}

impl Window {
    /// The first stop at or behind `at`, or the end.
    #[inline]
    pub(crate) fn next_stop(&mut self, bytes: &[u8], stops: &impl Mask, mut at: usize) -> usize {
        loop {
            if at >= self.end || at < self.start {
                let Some(rest) = bytes.get(at..).filter(|rest| !rest.is_empty()) else { return bytes.len() };
                let mut padded = [0; LANES];
                self.mask = match rest.first_chunk::<LANES>() {
                    Some(chunk) => stops.mask(*chunk),
                    None => {
                        padded[..rest.len()].copy_from_slice(rest);
                        stops.mask(padded)
                    }
                };
                (self.start, self.end) = (at, at + rest.len().min(LANES));
            }
            let left = self.mask & (u32::MAX << (at - self.start));
            if left != 0 {
                return self.start + left.trailing_zeros() as usize;
            }
            at = self.end;
        }
    }
}

/// The same sixteen bytes without the package for it; the compiler makes of it what it can.
#[cfg(not(feature = "simd"))]
mod lanes {
    use std::ops::{BitAnd, BitOr, Not};

    #[derive(Clone, Copy, Debug)]
    #[allow(non_camel_case_types, reason = "it is called as the type of the package")]
    pub(super) struct u8x16([u8; 16]);

    impl u8x16 {
        pub(super) const fn new(bytes: [u8; 16]) -> Self {
            Self(bytes)
        }

        pub(super) const fn splat(byte: u8) -> Self {
            Self([byte; 16])
        }

        fn with(self, other: Self, of: impl Fn(u8, u8) -> u8) -> Self {
            Self(std::array::from_fn(|lane| of(self.0[lane], other.0[lane])))
        }

        pub(super) fn simd_eq(self, other: Self) -> Self {
            self.with(other, |a, b| if a == b { 0xFF } else { 0 })
        }

        pub(super) fn min(self, other: Self) -> Self {
            self.with(other, u8::min)
        }

        pub(super) fn max(self, other: Self) -> Self {
            self.with(other, u8::max)
        }

        pub(super) fn to_bitmask(self) -> u32 {
            self.0.iter().enumerate().fold(0, |mask, (lane, byte)| mask | u32::from(byte >> 7) << lane)
        }

        pub(super) fn any(self) -> bool {
            self.to_bitmask() != 0
        }
    }

    impl BitAnd for u8x16 {
        type Output = Self;
        fn bitand(self, other: Self) -> Self {
            self.with(other, |a, b| a & b)
        }
    }

    impl BitOr for u8x16 {
        type Output = Self;
        fn bitor(self, other: Self) -> Self {
            self.with(other, |a, b| a | b)
        }
    }

    impl Not for u8x16 {
        type Output = Self;
        fn not(self) -> Self {
            Self(self.0.map(|byte| !byte))
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn the_fast_way_finds_what_the_slow_way_finds(bytes in prop::collection::vec(prop_oneof![4 => Just(b'a'), 2 => Just(b' '), 1 => any::<u8>()], 0..80)) {
            let escaped = |byte: u8| matches!(byte, b'&' | b'<' | b'>' | 0x7F | 0xC2 | 0xEF..) || (byte < 0x20 && byte != b'\n');
            let in_text = bytes.iter().position(|&byte| escaped(byte)).unwrap_or(bytes.len());
            let in_attribute = bytes.iter().position(|&byte| escaped(byte) || byte == b'"').unwrap_or(bytes.len());
            prop_assert_eq!(unescaped_length::<false>(&bytes), in_text);
            prop_assert_eq!(unescaped_length::<true>(&bytes), in_attribute);

            let white = |byte: u8| matches!(byte, b' ' | b'\t' | b'\n' | b'\r' | 0x0C);
            let untidy = bytes.windows(2).any(|pair| white(pair[0]) && white(pair[1]))
                || bytes.iter().any(|byte| matches!(byte, 0xC2 | 0xE2 | 0xEF));
            prop_assert_eq!(may_be_untidy(&bytes), untidy);

            prop_assert_eq!(letters(&bytes), bytes.iter().take_while(|byte| byte.is_ascii_alphabetic()).count());
            let plain = |at: usize| match bytes[at] {
                b' ' => !matches!(bytes.get(at + 1), None | Some(b' ' | b'\t' | b'\n' | b'%')),
                byte => byte >= 0x80 || byte.is_ascii_alphanumeric() || b".,;:()/=+".contains(&byte),
            };
            let run = (0..bytes.len()).find(|&at| !plain(at)).unwrap_or(bytes.len());
            prop_assert_eq!(plain_latex_length(&bytes), run);

            let wanted = [b'\n', b'a'];
            let expected: Vec<usize> = (0..bytes.len()).filter(|&at| wanted.contains(&bytes[at])).collect();
            prop_assert_eq!(places(&bytes, wanted).collect::<Vec<_>>(), expected);

            let stops = Stops::new(b"\n*<&");
            let is_stop = |byte: u8| matches!(byte, b'\n' | b'*' | b'<' | b'&' | b'['..=b'`');
            let (mut window, mut at) = (Window::default(), 0);
            while at <= bytes.len() {
                let expected = (at..bytes.len()).find(|&at| is_stop(bytes[at])).unwrap_or(bytes.len());
                prop_assert_eq!(window.next_stop(&bytes, &stops, at), expected);
                at = expected + 1;
            }
        }
    }
}
