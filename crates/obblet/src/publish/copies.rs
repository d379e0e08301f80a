//! Files that come along: pictures that pages show, files that links lead to, style sheets that pages share; and what is left of
//! things that nothing needs any more.

use super::atlas::Target as Leads;
use super::hash::Hash;
use super::parallel::lock;
use super::record::{Other, Output};
use super::run::{Run, edited};
use super::source;
use super::target::{Put, Target};
use super::{Action, Progress, Step};
use crate::document::Finding;
use crate::error::Error;
use crate::page::svg;
use crate::profile::{Copies, ImagePlace};
use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;
use std::time::Duration;

impl Run<'_> {
    /// Brings files along that documents show or lead to, or all of them.
    pub(super) fn copy_others(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        for path in self.needed() {
            self.copy(&path, progress)?;
        }
        self.put_shared(progress)?;
        // What pages bring along that were not written in this run.
        let brought: BTreeSet<String> = self.documents.values().flat_map(|known| known.brings.iter().cloned()).collect();
        for path in brought {
            if let Some(other) = self.plan.record.others.get(&path).filter(|_| !self.others.contains_key(&path)) {
                self.others.insert(path, Other { gone: false, ..other.clone() });
            }
        }
        Ok(())
    }

    /// Writes what pages share that were put together since the last call.
    pub(super) fn put_shared(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        let shared = std::mem::take(&mut *lock(&self.shared));
        for (path, bytes) in shared {
            self.put_made(&path, &bytes, progress)?;
        }
        Ok(())
    }

    /// The files that have to come along.
    fn needed(&self) -> BTreeSet<String> {
        let plan = self.plan;
        if plan.profile.publish.copy == Copies::All {
            return plan.others.clone();
        }
        let mut needed = BTreeSet::new();
        for (index, planned) in plan.documents.iter().enumerate() {
            let Some(facts) = &self.facts[index] else { continue };
            for (address, _) in &facts.links {
                if let Leads::File(path) = self.atlas.find(&planned.source, address) {
                    needed.insert(path);
                }
            }
            let Some(known) = self.documents.get(&planned.source) else { continue };
            if planned.profile.images.place == ImagePlace::Folder {
                needed.extend(known.uses.iter().filter(|(_, hash)| !hash.is_nothing()).map(|(path, _)| path.clone()));
            }
        }
        needed
    }

    /// Copies a file. Drawings lose what can run, unless the folder is trusted.
    fn copy(&mut self, path: &str, progress: &mut dyn Progress) -> Result<(), Error> {
        let plan = self.plan;
        let full = plan.source.join(path);
        let profile = &plan.profile;
        let from = plan.hash_of(path);
        let before = plan.record.others.get(path).filter(|other| other.from == Some(from) && !other.gone);
        let is_there = |other: &&Other| {
            std::fs::metadata(plan.output.join(path)).is_ok_and(|found| found.is_file() && found.len() == other.output.size)
        };
        if let Some(other) = before.filter(is_there).filter(|_| !plan.options.force && !plan.record.unfinished) {
            self.others.insert(path.to_owned(), other.clone());
            return Ok(());
        }
        let is_drawing = path.rsplit_once('.').is_some_and(|(_, extension)| extension.eq_ignore_ascii_case("svg"));
        if is_drawing && !profile.html.trust {
            return self.copy_drawing(path, from, &full, progress);
        }
        for _ in 0..source::MOST_TRIES {
            let (hash, size) = match source::hash(&full) {
                Ok(known) => known,
                Err(cause) => return self.fail(path, cause, progress),
            };
            let output = Output { path: path.to_owned(), hash, size };
            let other = Other { source: path.to_owned(), from: Some(hash), output, gone: false };
            self.target.announce_other(&other)?;
            if let Some(put) = self.target.put_copy(&other.output, &full)? {
                self.note_other(other, put, Action::Copied, progress);
                return Ok(());
            }
        }
        self.fail(path, source::changing(), progress)
    }

    /// Copies a drawing without what can run in it. One that can't be made safe does not come along.
    fn copy_drawing(&mut self, path: &str, from: Hash, full: &Path, progress: &mut dyn Progress) -> Result<(), Error> {
        let limit = self.plan.profile.limits.image;
        let clean = if std::fs::metadata(full).is_ok_and(|found| found.len() > limit) {
            Err("it has more bytes than limits.image allows".to_owned())
        } else {
            match source::read(full) {
                Ok(bytes) => svg::clean(&bytes),
                Err(cause) => return self.fail(path, cause, progress),
            }
        };
        match clean {
            Ok(clean) => self.put_other(path, Some(from), path, &clean, Action::Copied, progress),
            Err(message) => {
                let why = format!("it can't be made safe: {message}");
                let finding = Finding::lost("image.scriptable", format!("{path} does not come along, for {why}"));
                self.summary.weights[finding.weight as usize] += 1;
                self.lacks_files = true;
                progress.step(&step(path, path, Action::Skipped(why), std::slice::from_ref(&finding)));
                Ok(())
            }
        }
    }

    fn fail(&mut self, path: &str, cause: std::io::Error, progress: &mut dyn Progress) -> Result<(), Error> {
        let error = Error::File { path: path.to_owned(), cause };
        self.summary.failed += 1;
        self.lacks_files = true;
        progress.step(&Step { error: Some(&error), ..step(path, path, Action::Failed, &[]) });
        Ok(())
    }

    /// Writes a file that no document is made of.
    pub(super) fn put_made(&mut self, path: &str, bytes: &[u8], progress: &mut dyn Progress) -> Result<(), Error> {
        self.put_other("", None, path, bytes, Action::Made, progress)
    }

    fn put_other(
        &mut self,
        source: &str,
        from: Option<Hash>,
        path: &str,
        bytes: &[u8],
        action: Action,
        progress: &mut dyn Progress,
    ) -> Result<(), Error> {
        let other = Other { source: source.to_owned(), from, output: Target::output(path, bytes), gone: false };
        // What several pages bring along is written, told and counted once, in a rehearsal too.
        if self.put_now.insert(path.to_owned(), other.output.hash) == Some(other.output.hash) {
            return Ok(());
        }
        self.target.announce_other(&other)?;
        let put = self.target.put(&other.output, bytes)?;
        self.note_other(other, put, action, progress);
        Ok(())
    }

    /// Tells and counts what became of a file, and keeps it for the record.
    fn note_other(&mut self, other: Other, put: Put, action: Action, progress: &mut dyn Progress) {
        let path = &other.output.path;
        let finding = (put == Put::Kept).then(|| edited(path));
        match (put, &action) {
            (Put::Same, _) => {}
            (Put::Kept, _) => self.summary.edited += 1,
            (Put::Written, Action::Copied) => self.summary.copied += 1,
            (Put::Written, _) => self.summary.made += 1,
        }
        if put != Put::Same {
            progress.step(&step(&other.source, path, action, finding.as_slice()));
        }
        self.others.insert(path.clone(), other);
    }

    /// Lists what nothing needs any more, and removes it where that was asked for.
    pub(super) fn settle_gone(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        let plan = self.plan;
        let mut current: BTreeSet<&str> = self.others.keys().map(String::as_str).collect();
        current.extend(self.documents.values().flat_map(|known| known.outputs.iter().map(|output| output.path.as_str())));
        let of_documents = plan
            .record
            .documents
            .values()
            .flat_map(|known| known.outputs.iter().map(move |output| (known.source.as_str(), output)));
        let of_others = plan.record.others.values().map(|other| (other.source.as_str(), &other.output));
        let gone: BTreeMap<String, (String, Output)> = of_documents
            .chain(of_others)
            .filter(|(_, output)| !current.contains(output.path.as_str()))
            .map(|(source, output)| (output.path.clone(), (source.to_owned(), output.clone())))
            .collect();
        for (path, (source, output)) in gone {
            let mut finding = None;
            let action = if plan.options.prune {
                match self.target.remove(&path)? {
                    Put::Kept => {
                        finding = Some(edited(&path));
                        Action::Stays
                    }
                    Put::Same => continue,
                    Put::Written => Action::Removed,
                }
            } else {
                Action::Stays
            };
            match action {
                Action::Removed => self.summary.removed += 1,
                _ => {
                    if !plan.output.join(&path).is_file() {
                        continue;
                    }
                    self.summary.stays += 1;
                    let other = Other { source: source.clone(), from: None, output, gone: true };
                    self.others.insert(path.clone(), other);
                }
            }
            progress.step(&step(&source, &path, action, finding.as_slice()));
        }
        Ok(())
    }
}

fn step<'s>(source: &'s str, path: &'s str, action: Action, findings: &'s [Finding]) -> Step<'s> {
    Step { source, outputs: vec![path], action, findings, error: None, time: Duration::ZERO }
}
