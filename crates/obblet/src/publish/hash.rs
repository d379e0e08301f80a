//! Hashes of what goes in and comes out.

use crate::files::Root;
use serde::{Deserialize, Deserializer, Serialize, Serializer};
use std::cell::RefCell;
use std::io::{self, Read};
use std::path::Path;

/// The first half of a BLAKE3 hash; written as hexadecimal digits.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub(super) struct Hash(u128);

impl Hash {
    /// The hash of something that is not there.
    pub(super) const NOTHING: Self = Self(0);

    /// The hash of bytes.
    pub(super) fn of(bytes: &[u8]) -> Self {
        Self::from(blake3::hash(bytes))
    }

    /// The hash of several texts: which ones, and where each ends.
    pub(super) fn of_parts<'p>(parts: impl IntoIterator<Item = &'p [u8]>) -> Self {
        let mut hasher = blake3::Hasher::new();
        for part in parts {
            hasher.update(&(part.len() as u64).to_le_bytes());
            hasher.update(part);
        }
        Self::from(hasher.finalize())
    }

    pub(super) fn is_nothing(&self) -> bool {
        *self == Self::NOTHING
    }

    pub(super) fn bytes(self) -> [u8; 16] {
        self.0.to_be_bytes()
    }
}

/// The hash of a file, and how many bytes it has.
pub(super) fn of_file(root: &Root, path: &Path) -> io::Result<(Hash, u64)> {
    of_file_to(root, path, |_| Ok(()))
}

/// The hash of a file, and how many bytes it has, all of which go to `take`; it ends where that takes no more.
pub(super) fn of_file_to(root: &Root, path: &Path, mut take: impl FnMut(&[u8]) -> Result<(), ()>) -> io::Result<(Hash, u64)> {
    thread_local! {
        static BUFFER: RefCell<Vec<u8>> = RefCell::new(vec![0; 1 << 17]);
    }
    let mut file = root.open_file(path)?;
    let mut hasher = blake3::Hasher::new();
    let mut size = 0;
    BUFFER.with_borrow_mut(|buffer| {
        loop {
            let read = file.read(buffer)?;
            hasher.update(&buffer[..read]);
            size += read as u64;
            if read == 0 || take(&buffer[..read]).is_err() {
                return Ok((Hash::from(hasher.finalize()), size));
            }
        }
    })
}

impl From<blake3::Hash> for Hash {
    fn from(hash: blake3::Hash) -> Self {
        let mut half = [0; 16];
        half.copy_from_slice(&hash.as_bytes()[..16]);
        Self(u128::from_be_bytes(half))
    }
}

impl Serialize for Hash {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        if *self == Self::NOTHING {
            serializer.serialize_str("")
        } else {
            serializer.collect_str(&format_args!("{:032x}", self.0))
        }
    }
}

impl<'de> Deserialize<'de> for Hash {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        let text = std::borrow::Cow::<str>::deserialize(deserializer)?;
        if text.is_empty() {
            return Ok(Self::NOTHING);
        }
        // In halves, for which processors have instructions.
        let half = |digits: &[u8; 16]| {
            digits.iter().try_fold(0_u64, |value, digit| {
                let digit = match digit {
                    b'0'..=b'9' => digit - b'0',
                    b'a'..=b'f' => digit - b'a' + 10,
                    _ => return None,
                };
                Some(value << 4 | u64::from(digit))
            })
        };
        let halves = match text.as_bytes().as_chunks() {
            ([high, low], []) => half(high).zip(half(low)),
            _ => None,
        };
        halves
            .map(|(high, low)| Self(u128::from(high) << 64 | u128::from(low)))
            .ok_or_else(|| serde::de::Error::custom("it is no hash"))
    }
}
