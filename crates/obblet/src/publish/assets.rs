//! Files that come along: pictures that pages show, files that links lead to, style sheets that pages share; and what is left of
//! things that nothing needs any more.

use super::hash::{self, Hash};
use super::output_folder::{Put, Target};
use super::parallel::lock;
use super::record::{Other, Output};
use super::run::{Run, edited};
use super::{Action, Progress, Step};
use crate::document::Finding;
use crate::drawing;
use crate::error::Error;
use crate::files::{self, Stray, There};
use crate::inert::{self, Coming};
use crate::page::images::left_out_of;
use crate::picture;
use crate::profile::{Copies, ImagePlace};
use std::collections::{BTreeMap, BTreeSet};
use std::io::Read;
use std::time::Duration;

/// So often is a file copied again that changed while it was copied.
const MOST_TRIES: usize = 4;

impl Run<'_> {
    /// Brings files along that documents show or lead to, or all of them.
    pub(super) fn copy_others(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        for (path, only_shown) in self.needed() {
            self.copy(&path, only_shown, progress)?;
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

    /// The files that have to come along, and whether nothing leads to them but pages that show them.
    fn needed(&self) -> BTreeMap<String, bool> {
        let plan = self.plan;
        if plan.profile.publish.copy == Copies::All {
            return plan.others.iter().map(|path| (path.clone(), false)).collect();
        }
        let mut needed = BTreeMap::new();
        for (index, planned) in plan.documents.iter().enumerate() {
            needed.extend(self.targets[index].files.iter().map(|path| (path.clone(), false)));
            let Some(known) = self.documents.get(&planned.source) else { continue };
            if planned.profile.images.place == ImagePlace::Folder {
                let shown = known.uses.iter().filter(|(path, hash)| !hash.is_nothing() && plan.shows(path));
                for (path, _) in shown {
                    needed.entry(path.clone()).or_insert(true);
                }
            }
        }
        needed
    }

    /// Copies a file without what can run in it, unless the folder is trusted. A file may be there only because pages show it.
    fn copy(&mut self, path: &str, only_shown: bool, progress: &mut dyn Progress) -> Result<(), Error> {
        let plan = self.plan;
        let from = plan.hash_of(path);
        let coming = match self.coming(path, only_shown) {
            Ok(coming) => coming,
            Err(cause) => return self.fail(path, cause, progress),
        };
        // A copy that was made under other rules is made again.
        let is_such = |other: &&Other| (coming == Coming::AsItIs) == (other.output.hash == from);
        let before = plan.record.others.get(path).filter(|other| other.from == Some(from) && !other.gone).filter(is_such);
        let is_there = |other: &&Other| plan.output.has(path, other.output.size) && !plan.is_damaged(&other.output);
        let is_current = !plan.options.force && !plan.record.unfinished && !matches!(coming, Coming::Not(_));
        if let Some(other) = before.filter(is_there).filter(|_| is_current) {
            if !other.findings.is_empty() {
                progress.step(&step(path, path, Action::Unchanged, &other.findings));
            }
            self.others.insert(path.to_owned(), other.clone());
            return Ok(());
        }
        match coming {
            Coming::AsItIs => {}
            Coming::Drawing => return self.copy_drawing(path, from, only_shown, progress),
            Coming::Not(why) => return self.leave_out(path, why, only_shown, progress),
        }
        for _ in 0..MOST_TRIES {
            let (hash, size) = match hash::of_file(&plan.source, path.as_ref()) {
                Ok(known) => known,
                Err(cause) => return self.fail(path, cause, progress),
            };
            let output = Output { path: path.to_owned(), hash, size };
            let other = Other {
                source: path.to_owned(),
                from: Some(hash),
                output,
                leads: String::new(),
                findings: Vec::new(),
                gone: false,
            };
            self.target.announce_other(&other)?;
            if let Some(put) = self.target.put_copy(&other.output, &plan.source, path)? {
                self.note_other(other, put, Action::Copied, progress);
                return Ok(());
            }
        }
        self.fail(path, files::changing(), progress)
    }

    /// How a file comes along: pictures where pages show it, and otherwise what can't run.
    fn coming(&self, path: &str, only_shown: bool) -> std::io::Result<Coming> {
        let (source, profile) = (&self.plan.source, &self.plan.profile);
        if bool::from(profile.formats.html.trust) {
            return Ok(Coming::AsItIs);
        }
        let mut start = Vec::new();
        source.open_file(path.as_ref())?.take(inert::LOOKED_AT as u64).read_to_end(&mut start)?;
        let limit = profile.limits.image;
        let coming = inert::coming(path, &start, || source.read(path.as_ref(), limit))?;
        if !only_shown || coming != Coming::AsItIs {
            return Ok(coming);
        }
        // What is shown as a picture and is none has been reported where it is shown.
        let is_picture = picture::Kind::of(&start).is_some_and(|kind| kind.fits(path));
        Ok(if is_picture { coming } else { Coming::Not("it is not an image") })
    }

    /// Says that a file does not come along. What is wrong with one that is only shown has been reported where it is.
    fn leave_out(&mut self, path: &str, why: &str, only_shown: bool, progress: &mut dyn Progress) -> Result<(), Error> {
        if only_shown {
            return Ok(());
        }
        let finding = Finding::lost("publish.running-file", format!("{path} was not copied: {why}"))
            .hint("html.trust=true copies it unchanged; only for your own documents");
        self.report_skipped(path, why, &finding, progress);
        Ok(())
    }

    fn report_skipped(&mut self, path: &str, why: &str, finding: &Finding, progress: &mut dyn Progress) {
        self.lacks_files = true;
        progress.step(&step(path, path, Action::Skipped(why.to_owned()), std::slice::from_ref(finding)));
    }

    /// Copies a drawing without what can run in it. One that can't be made safe does not come along.
    fn copy_drawing(&mut self, path: &str, from: Hash, only_shown: bool, progress: &mut dyn Progress) -> Result<(), Error> {
        let bytes = match self.plan.source.read(path.as_ref(), self.plan.profile.limits.image) {
            Ok(bytes) => Ok(bytes),
            Err(cause) if matches!(Stray::of(&cause), Some(Stray::TooLarge(_))) => {
                Err("it has more bytes than limits.image allows".to_owned())
            }
            Err(cause) => return self.fail(path, cause, progress),
        };
        match bytes.and_then(|bytes| drawing::clean(&bytes)) {
            Ok(clean) => {
                let lost = clean.left_out.filter(|_| !only_shown).map(|left_out| left_out_of(path, &left_out));
                let output = Target::output(path, &clean.bytes);
                let findings = lost.iter().cloned().collect();
                let (source, leads) = (path.to_owned(), String::new());
                let other = Other { source, from: Some(from), output, leads, findings, gone: false };
                self.put_other(other, &clean.bytes, Action::Copied, progress)
            }
            Err(_) if only_shown => Ok(()),
            Err(message) => {
                let why = format!("it can't be sanitized: {message}");
                let finding = Finding::lost("image.scriptable", format!("{path} was not copied: {why}"));
                self.report_skipped(path, &why, &finding, progress);
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
        let output = Target::output(path, bytes);
        let (source, leads) = (String::new(), String::new());
        let other = Other { source, from: None, output, leads, findings: Vec::new(), gone: false };
        self.put_other(other, bytes, Action::Made, progress)
    }

    /// Writes a page that leads on to another.
    pub(super) fn put_leading(&mut self, path: &str, to: &str, text: &str, progress: &mut dyn Progress) -> Result<(), Error> {
        self.put_made(path, text.as_bytes(), progress)?;
        if let Some(other) = self.others.get_mut(path) {
            to.clone_into(&mut other.leads);
        }
        Ok(())
    }

    fn put_other(&mut self, other: Other, bytes: &[u8], action: Action, progress: &mut dyn Progress) -> Result<(), Error> {
        // What several pages bring along is written, reported and counted once, in a rehearsal too.
        if self.put_now.insert(other.output.path.clone(), other.output.hash) == Some(other.output.hash) {
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
        let mut findings = other.findings.clone();
        findings.extend((put == Put::Kept).then(|| edited(path)));
        match (put, &action) {
            (Put::Same, _) => {}
            (Put::Kept, _) => self.summary.edited += 1,
            (Put::Written, Action::Copied) => self.summary.copied += 1,
            (Put::Written, _) => self.summary.made += 1,
        }
        if put != Put::Same || !findings.is_empty() {
            progress.step(&step(&other.source, path, action, &findings));
        }
        self.others.insert(path.clone(), other);
    }

    /// Lists what nothing needs any more, and removes it where that was asked for.
    pub(super) fn remove_obsolete(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
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
                    if !matches!(plan.output.there(path.as_ref()), There::File(_)) {
                        continue;
                    }
                    self.summary.stays += 1;
                    let other = Other {
                        source: source.clone(),
                        from: None,
                        output,
                        leads: String::new(),
                        findings: Vec::new(),
                        gone: true,
                    };
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
