//! Work over all cores.

use rayon::prelude::*;
use std::collections::BTreeMap;
use std::sync::{Mutex, MutexGuard, PoisonError, mpsc};

/// Takes hold of what cores share; where one of them broke off, what it left is still whole.
pub(super) fn lock<T>(mutex: &Mutex<T>) -> MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

/// How many neighbours a core takes at once, at most: documents of one folder, mostly, so that cores do not wait for each other to
/// make files in it.
const MOST_AT_ONCE: usize = 32;

/// Does work over all cores, and hands on what comes of it in order.
pub(super) fn in_order<T: Sync, R: Send>(
    pool: &rayon::ThreadPool,
    items: &[T],
    work: impl Fn(&T) -> R + Sync,
    mut receive: impl FnMut(usize, R),
) {
    let (sender, receiver) = mpsc::channel();
    std::thread::scope(|scope| {
        let work = &work;
        scope.spawn(move || {
            pool.install(|| {
                // Towards the end there has to be something left for each of them.
                let at_once = (items.len() / (rayon::current_num_threads() * 16)).clamp(1, MOST_AT_ONCE);
                items.chunks(at_once).enumerate().par_bridge().for_each_with(sender, |sender, (chunk, items)| {
                    for (offset, item) in items.iter().enumerate() {
                        // Nobody listens any more only where the receiving end has broken off.
                        let _ = sender.send((chunk * at_once + offset, work(item)));
                    }
                });
            });
        });
        let mut early = BTreeMap::new();
        let mut next = 0;
        for (at, outcome) in receiver {
            early.insert(at, outcome);
            while let Some(outcome) = early.remove(&next) {
                receive(next, outcome);
                next += 1;
            }
        }
    });
}
