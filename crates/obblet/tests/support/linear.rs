//! Ten times the input takes no more than eleven times as long.

use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

/// One shape at a time is measured, for tests run beside each other.
static ALONE: Mutex<()> = Mutex::new(());

/// Ten times the input may take so many times as long.
const MOST: f64 = 11.0;

/// At the largest size it may take so many, for what no longer fits into caches: whatever is not linear takes more there than at the
/// sizes before, and far more than this.
const MOST_AT_LARGEST: f64 = 12.0;

/// A machine that does other things beside is slow now and then, but not each time.
const TRIES: usize = 100;

/// No more time than this is spent on a shape, once it was measured a few times.
const LONGEST: Duration = Duration::from_secs(3);
const FEWEST: usize = 3;

/// What takes less time than this can't be measured. What takes much longer no longer fits into the caches of the processor.
const SHORTEST: Duration = Duration::from_millis(1);

/// Runs over ten small inputs, whose results are kept, and over one that is ten times as large, so that both need as much memory;
/// the best of several rounds counts. Inputs begin at `size` and grow until the time can be measured.
///
/// # Panics
/// Where the large input does not hold ten times as many bytes, or takes more than eleven times as long.
#[track_caller]
pub fn assert_linear<R>(name: &str, size: usize, shape: impl Fn(usize) -> Vec<u8>, run: impl Fn(&[u8]) -> R) {
    if let Err(message) = grows_linearly(name, size, shape, run) {
        panic!("{message}");
    }
}

/// As [`assert_linear`], for several shapes whose failures are told together.
///
/// # Panics
/// Where the large input does not hold ten times as many bytes.
#[track_caller]
pub fn grows_linearly<R>(
    name: &str,
    size: usize,
    shape: impl Fn(usize) -> Vec<u8>,
    run: impl Fn(&[u8]) -> R,
) -> Result<(), String> {
    let _alone = ALONE.lock().unwrap_or_else(PoisonError::into_inner);
    let time = |inputs: &[&[u8]]| {
        let start = Instant::now();
        let results: Vec<R> = inputs.iter().map(|input| run(input)).collect();
        let time = start.elapsed();
        drop(results);
        time
    };
    let mut size = size;
    while time(&[&*shape(size); 10]) < SHORTEST && size < 4_000 {
        size *= 2;
    }
    // Sizes at which something no longer fits into a cache say little; what is quadratic is so at each of them.
    let mut best = f64::MAX;
    let mut best_at_largest = f64::MAX;
    for size in [size, size * 2, size / 2, size * 4] {
        best_at_largest = f64::MAX;
        let (small, large) = (shape(size), shape(size * 10));
        let growth = large.len() as f64 / small.len() as f64;
        assert!(
            (8.0..=11.5).contains(&growth),
            "{name}: an input that is to be ten times as large is {growth:.1} times as large"
        );
        let begun = Instant::now();
        for round in 0..TRIES {
            if round >= FEWEST && begun.elapsed() > LONGEST {
                break;
            }
            let (ten, one) = (time(&[&*small; 10]), time(&[&*large]));
            let times = one.as_secs_f64() / ten.as_secs_f64() * 100.0 / growth;
            best_at_largest = times.min(best_at_largest);
            best = times.min(best);
            if best <= MOST {
                return Ok(());
            }
        }
    }
    if best_at_largest <= MOST_AT_LARGEST {
        return Ok(());
    }
    Err(format!(
        "{name}: ten times the input takes {best:.1} times as long, at {size}, and {best_at_largest:.1} at the largest size"
    ))
}
