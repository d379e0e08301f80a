//! Publishing again whenever something changes.

use crate::{Outcome, messages};
use notify::{RecommendedWatcher, RecursiveMode, Watcher};
use std::path::{Path, PathBuf};
use std::sync::mpsc::{self, Receiver, RecvTimeoutError};
use std::time::{Duration, Instant};

/// A burst of changes is over when nothing has changed for so long.
const QUIET: Duration = Duration::from_millis(120);
/// Changes that never end are published after so long all the same.
const LONGEST: Duration = Duration::from_secs(2);
/// A folder that is gone is looked for so often.
const PATIENCE: Duration = Duration::from_millis(300);

/// Calls `publish` now and whenever something changes in the folder `source`, but for what changes in `output`.
pub(crate) fn run(source: &Path, output: &Path, quiet: bool, mut publish: impl FnMut()) -> Outcome {
    let output = std::path::absolute(output).unwrap_or_else(|_| output.to_owned());
    loop {
        let (sender, receiver) = mpsc::channel();
        // Watching begins before the run, so that no change falls between the two.
        let watcher = watch(source, sender);
        publish();
        match watcher {
            Ok(_watcher) => {
                if !quiet {
                    messages::say(format_args!("watching {}", messages::shown_path(source)));
                }
                while source.is_dir() {
                    if !changed(&receiver, &output, source) {
                        break;
                    }
                    if source.is_dir() {
                        publish();
                    }
                }
            }
            Err(error) if source.is_dir() => {
                return messages::fail(Outcome::Failed, format_args!("{}: it can't be watched: {error}", source.display()));
            }
            Err(_) => {}
        }
        if !source.is_dir() {
            messages::error(format_args!("{}: the folder is gone; waiting for it", source.display()));
            while !source.is_dir() {
                std::thread::sleep(PATIENCE);
            }
        }
    }
}

fn watch(source: &Path, sender: mpsc::Sender<notify::Result<notify::Event>>) -> notify::Result<RecommendedWatcher> {
    let mut watcher = notify::recommended_watcher(sender)?;
    watcher.watch(source, RecursiveMode::Recursive)?;
    Ok(watcher)
}

/// Waits for a change and for the end of the burst that it begins. `false` when the folder itself is gone or the watching is
/// over.
fn changed(events: &Receiver<notify::Result<notify::Event>>, output: &Path, source: &Path) -> bool {
    let matters = |event: &notify::Result<notify::Event>| {
        event.as_ref().map_or(true, |event| {
            let of_output = |path: &PathBuf| path.starts_with(output);
            !event.kind.is_access() && (event.paths.is_empty() || !event.paths.iter().all(of_output))
        })
    };
    loop {
        match events.recv_timeout(Duration::from_secs(1)) {
            Ok(event) if matters(&event) => break,
            Ok(_) => {}
            // A folder that was put in the place of another is reported by nobody.
            Err(RecvTimeoutError::Timeout) if source.is_dir() => {}
            Err(_) => return false,
        }
    }
    let begun = Instant::now();
    while begun.elapsed() < LONGEST {
        match events.recv_timeout(QUIET) {
            Ok(_) => {}
            Err(RecvTimeoutError::Timeout) => break,
            Err(RecvTimeoutError::Disconnected) => return false,
        }
    }
    true
}
