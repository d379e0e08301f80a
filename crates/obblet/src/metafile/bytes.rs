//! Numbers in a record, with the least byte first. What lies beyond its end is nothing.

/// The bytes of a record.
#[derive(Clone, Copy, Debug)]
pub(super) struct Bytes<'b>(pub(super) &'b [u8]);

impl<'b> Bytes<'b> {
    pub(super) fn u16(self, at: usize) -> Option<u16> {
        Some(u16::from_le_bytes(*self.0.get(at..)?.first_chunk()?))
    }

    pub(super) fn i16(self, at: usize) -> Option<i32> {
        self.u16(at).map(|number| i32::from(number.cast_signed()))
    }

    pub(super) fn u32(self, at: usize) -> Option<u32> {
        Some(u32::from_le_bytes(*self.0.get(at..)?.first_chunk()?))
    }

    pub(super) fn i32(self, at: usize) -> Option<i32> {
        self.u32(at).map(u32::cast_signed)
    }

    /// A number that may be fractional; what is none is nothing.
    pub(super) fn f32(self, at: usize) -> Option<f64> {
        self.u32(at).map(f32::from_bits).filter(|number| number.is_finite()).map(f64::from)
    }

    pub(super) fn from(self, at: usize) -> Option<Self> {
        self.0.get(at..).map(Self)
    }

    pub(super) fn slice(self, at: usize, length: usize) -> Option<&'b [u8]> {
        self.0.get(at..at.checked_add(length)?)
    }

    /// A text in UTF-16, up to a NUL.
    pub(super) fn utf16(self, at: usize, length: usize) -> Option<String> {
        let bytes = self.slice(at, length.checked_mul(2)?)?;
        let (units, _) = bytes.as_chunks::<2>();
        Some(
            char::decode_utf16(units.iter().map(|unit| u16::from_le_bytes(*unit)).take_while(|unit| *unit != 0))
                .map(|c| c.unwrap_or(char::REPLACEMENT_CHARACTER))
                .collect(),
        )
    }
}
