//! Numbers as lists show them.

use crate::document::Marker;

/// A number as a list writes it.
pub(crate) fn numeral(number: i64, marker: Marker) -> String {
    let letters = |first: u8| {
        let (mut left, mut out) = (number, Vec::new());
        while left > 0 {
            left -= 1;
            out.insert(0, (first + (left % 26) as u8) as char);
            left /= 26;
        }
        out.into_iter().collect::<String>()
    };
    let roman = || {
        const SIGNS: [(i64, &str); 13] = [
            (1000, "m"),
            (900, "cm"),
            (500, "d"),
            (400, "cd"),
            (100, "c"),
            (90, "xc"),
            (50, "l"),
            (40, "xl"),
            (10, "x"),
            (9, "ix"),
            (5, "v"),
            (4, "iv"),
            (1, "i"),
        ];
        let (mut left, mut out) = (number, String::new());
        for (value, sign) in SIGNS {
            while left >= value {
                out.push_str(sign);
                left -= value;
            }
        }
        out
    };
    if !(1..4000).contains(&number) {
        return number.to_string();
    }
    match marker {
        Marker::Plain => number.to_string(),
        Marker::LowerAlpha => letters(b'a'),
        Marker::UpperAlpha => letters(b'A'),
        Marker::LowerRoman => roman(),
        Marker::UpperRoman => roman().to_uppercase(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_are_written_as_lists_write_them() {
        assert_eq!(numeral(28, Marker::LowerAlpha), "ab");
        assert_eq!(numeral(1994, Marker::UpperRoman), "MCMXCIV");
        assert_eq!(numeral(0, Marker::LowerRoman), "0");
    }
}
