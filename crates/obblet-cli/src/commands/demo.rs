//! `obblet demo`

use crate::arguments::Demo;
use crate::{Outcome, messages};
use obblet::Error;
use obblet::document::Finding;
use obblet::profile::Profile;
use obblet::publish::{self, Entry, Progress, write_whole};
use std::path::Path;

include!(concat!(env!("OUT_DIR"), "/demo_files.rs"));

/// Tells what becomes of each document.
#[derive(Default)]
struct Telling {
    findings: Vec<Finding>,
    pages: usize,
    failed: usize,
}

impl Progress for Telling {
    fn done(&mut self, entry: &Entry, findings: &[Finding]) {
        let source = entry.source.display().to_string();
        messages::findings(&source, findings, false);
        self.findings.extend_from_slice(findings);
        self.pages += 1;
    }

    fn failed(&mut self, entry: &Entry, error: &Error) {
        messages::error(format_args!("{}: {error}", entry.source.display()));
        self.failed += 1;
    }
}

pub(crate) fn run(demo: &Demo) -> Outcome {
    let mut telling = Telling::default();
    match publish(demo, &mut telling) {
        Err(error) => messages::fail(Outcome::Failed, error),
        Ok(()) if telling.failed > 0 => Outcome::Failed,
        Ok(()) => {
            let tally = messages::tally(&telling.findings);
            let tally = if tally.is_empty() { "nothing lost".to_owned() } else { tally };
            let site = demo.folder.join("site");
            messages::say(format_args!("{} pages from {} ({tally})", telling.pages, demo.folder.join("handbook").display()));
            messages::say(format_args!("open {}", site.join("index.html").display()));
            Outcome::Done
        }
    }
}

fn publish(demo: &Demo, telling: &mut Telling) -> Result<(), Error> {
    let (source, output) = (demo.folder.join("handbook"), demo.folder.join("site"));
    for (path, bytes) in DEMO_FILES {
        write_whole(&source.join(Path::new(path)), bytes)?;
    }
    let mut profile = Profile::built_in("page")?;
    if let Some(look) = &demo.look {
        profile.set(&format!("page.look={look}"))?;
    }
    let entries = publish::plan(&source)?;
    publish::run(&source, &output, &entries, &profile, telling)
}
