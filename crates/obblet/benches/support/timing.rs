//! Taking times.

use std::time::{Duration, Instant};

/// The best time of fifteen.
pub(crate) fn best(mut work: impl FnMut()) -> Duration {
    (0..15)
        .map(|_| {
            let start = Instant::now();
            work();
            start.elapsed()
        })
        .min()
        .unwrap_or_default()
}
