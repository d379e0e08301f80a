//! Carrying a plan out.

use super::convert_document::{self, FolderState, lead};
use super::hash::{self, Hash};
use super::link_index::LinkIndex;
use super::output_folder::{Put, Target};
use super::parallel::{in_order, lock};
use super::plan::{Plan, Planned, State};
use super::record::{self, DocumentFacts, FactsJson, Known, Other, Output};
use super::rendered::{Body, FactsByIndex, Rendered, RenderedStore};
use super::site::Site;
use super::slice_files::SliceFile;
use super::targets::Targets;
use super::{Action, Progress, Step, Summary, Why, paths};
use crate::context::Context;
use crate::document::Finding;
use crate::error::{Error, PublishError};
use crate::fast_hash::HashMap;
use crate::page::{self, Navigation};
use rayon::prelude::*;
use std::collections::{BTreeMap, BTreeSet};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex};
use std::time::Duration;

/// RenderedStore beyond so many bytes wait in a file.
const BUDGET: usize = 256 << 20;

/// So often are documents converted again because others became known: links may lead to places that are only there when they
/// are wanted.
const MOST_ROUNDS: usize = 3;

/// A document of the run.
#[derive(Default)]
struct Progressing {
    /// Why it was converted in this run; none where it was not.
    action: Option<Action>,
    failure: Option<Error>,
    /// What its links led to when it was converted.
    leads: Hash,
    /// Links to places that are not there.
    astray: Vec<Finding>,
    navigation: Navigation,
    around_hash: Hash,
}

/// What came of writing a document.
struct Done {
    known: Known,
    findings: Vec<Finding>,
    time: Duration,
    edited: usize,
}

pub(super) struct Run<'p> {
    pub(super) plan: &'p Plan,
    pub(super) target: Target<'p>,
    pub(super) summary: Summary,
    pub(super) link_index: LinkIndex,
    pub(super) facts: FactsByIndex,
    /// What the links of each document lead to.
    pub(super) targets: Vec<Targets>,
    /// Documents for which something may differ from the last run: those that are converted, those that lead to them, and those
    /// that they lead to.
    pub(super) touched: Vec<bool>,
    states: Vec<Progressing>,
    pub(super) rendered: RenderedStore,
    /// What the new record says.
    pub(super) documents: BTreeMap<String, Known>,
    pub(super) others: BTreeMap<String, Other>,
    /// Files that no document is made of and that were written in this run, or would be.
    pub(super) put_now: HashMap<String, Hash>,
    /// Whether a file that should come along could not, so that the next run has to try again.
    pub(super) lacks_files: bool,
    /// What was reported of the folder as a whole.
    pub(super) of_folder: Vec<Finding>,
    /// Style sheets and the like, which many pages bring along.
    pub(super) shared: Mutex<BTreeMap<String, Vec<u8>>>,
}

impl Plan {
    /// Does what the plan says.
    ///
    /// # Errors
    /// Where the output can't be written, or another run writes to it. What is wrong with a single document is reported to
    /// `progress`, and counted in the summary.
    pub fn run(&self, progress: &mut dyn Progress) -> Result<Summary, Error> {
        self.carry_out(progress, false)
    }

    /// Does everything that a run would do, but writes nothing.
    ///
    /// # Errors
    /// As [`Plan::run`].
    pub fn rehearse(&self, progress: &mut dyn Progress) -> Result<Summary, Error> {
        self.carry_out(progress, true)
    }

    fn carry_out(&self, progress: &mut dyn Progress, rehearsal: bool) -> Result<Summary, Error> {
        let slices = super::slice_files::find(self)?;
        let target = Target::open(&self.output, &self.record, self.options.force, rehearsal)?;
        if !rehearsal && super::record::Record::mark(&self.output) != self.record.mark {
            target.leave()?;
            return Err(PublishError::Busy { output: self.output.path().display().to_string() }.into());
        }
        let is_idle = self.options.slice.is_none() && slices.is_empty() && self.is_idle();
        let mut counted = Counted { progress, weights: [0; 3] };
        let progress = &mut counted;
        let run = Run {
            plan: self,
            target,
            summary: Summary { skipped: self.skipped.len(), ..Summary::default() },
            // Nobody asks where links lead when nothing is done.
            link_index: if is_idle { LinkIndex::default() } else { self.link_index() },
            facts: Vec::new(),
            targets: vec![Targets::default(); if is_idle { 0 } else { self.documents.len() }],
            touched: vec![true; if is_idle { 0 } else { self.documents.len() }],
            states: std::iter::repeat_with(Progressing::default).take(if is_idle { 0 } else { self.documents.len() }).collect(),
            rendered: RenderedStore::new(BUDGET, self.output.path()),
            documents: BTreeMap::new(),
            others: BTreeMap::new(),
            put_now: HashMap::default(),
            lacks_files: false,
            of_folder: Vec::new(),
            shared: Mutex::default(),
        };
        for skipped in &self.skipped {
            progress.step(&Step::of(&skipped.path, Action::Skipped(skipped.why.clone())));
        }
        for finding in &self.findings {
            progress.step(&Step { findings: std::slice::from_ref(finding), ..Step::of("", Action::Unchanged) });
        }
        let summary = if self.options.slice.is_some() {
            run.write_slice(progress)
        } else if is_idle {
            run.leave_all(progress)
        } else {
            run.carry_out(progress, &slices)
        };
        Ok(Summary { weights: counted.weights, ..summary? })
    }

    /// Whether nothing is to be done.
    fn is_idle(&self) -> bool {
        let record = &self.record;
        let other_is_fine = |other: &Other| {
            let is_current = other.from.is_none_or(|from| self.hash_of(&other.source) == from);
            let is_there = self.output.has(&other.output.path, other.output.size) && !self.is_damaged(&other.output);
            other.gone || (is_current && is_there)
        };
        self.documents.iter().all(|planned| planned.action().is_none())
            && !record.unfinished
            && record.damage.is_none()
            && !self.options.force
            && record.marks == self.marks()
            && !self.documents.iter().any(|planned| matches!(planned.state, State::Unreadable(_)))
            && (self.removed.is_empty() || !self.options.prune)
            && record.others.values().all(other_is_fine)
            && !(self.options.prune && record.others.values().any(|other| other.gone))
    }

    /// Whether an output has other bytes than a run gave it, where `publish.verify` asks for looking.
    pub(super) fn is_damaged(&self, output: &Output) -> bool {
        let is_other = || hash::of_file(&self.output, output.path.as_ref()).is_ok_and(|(hash, _)| hash != output.hash);
        self.profile.publish.verify && is_other()
    }

    /// What is known of documents that are not converted, or not yet.
    fn known_facts(&self) -> FactsByIndex {
        let known = |planned: &Planned| self.record.documents.get(&planned.source)?.facts.read();
        self.documents.par_iter().with_min_len(16).map(known).collect()
    }
}

/// Counts all findings that are reported, so that the summary, the report and the log have the same numbers.
struct Counted<'p> {
    progress: &'p mut dyn Progress,
    weights: [usize; 3],
}

impl Progress for Counted<'_> {
    fn begin(&mut self, documents: usize) {
        self.progress.begin(documents);
    }

    fn converted(&mut self, source: &str) {
        self.progress.converted(source);
    }

    fn step(&mut self, step: &Step<'_>) {
        for finding in step.findings {
            self.weights[finding.weight as usize] += 1;
        }
        self.progress.step(step);
    }
}

impl<'s> Step<'s> {
    fn of(source: &'s str, action: Action) -> Self {
        Self { source, outputs: Vec::new(), action, findings: &[], error: None, time: Duration::ZERO }
    }
}

impl Run<'_> {
    fn carry_out(mut self, progress: &mut dyn Progress, slices: &[SliceFile]) -> Result<Summary, Error> {
        let site = self.plan.is_site();
        if site {
            self.link_index.folders = Site::pages_of_folders(self.plan);
        }
        self.facts = self.plan.pool.install(|| self.plan.known_facts());
        self.load(slices)?;
        // What the record says of a document may be damaged in itself.
        let unknown = |index: usize| self.facts[index].is_none() && self.plan.documents[index].state == State::Unchanged;
        let chosen: Vec<(usize, Action)> = (0..self.plan.documents.len())
            .filter(|&index| self.states[index].action.is_none())
            .filter_map(|index| {
                let action = self.plan.documents[index].action();
                Some((index, action.or_else(|| unknown(index).then_some(Action::Changed(Why::Settings)))?))
            })
            .collect();
        progress.begin(chosen.len());
        self.find_targets();
        if self.has_same_names() && slices.is_empty() {
            self.touched.fill(false);
            self.touch(&chosen);
        }
        let wanted = self.wanted();
        self.make(&chosen, &wanted, progress);
        self.touch(&chosen);
        self.update_links(progress);
        self.find_astray();
        let mut whole = None;
        if site {
            let built = Site::build(self.plan, &self.facts);
            self.update_navigation(&built, progress);
            whole = Some(built);
        }
        self.write_all(progress)?;
        self.copy_others(progress)?;
        if let Some(site) = &whole {
            self.make_site(site, progress)?;
        }
        if self.plan.has_agenda() {
            self.make_agenda(whole.as_ref(), progress)?;
        }
        if self.plan.has_binder() {
            self.make_binder(progress)?;
        }
        self.make_moved(progress)?;
        self.remove_obsolete(progress)?;
        let marks = if self.lacks_files { Hash::NOTHING } else { self.plan.marks() };
        let text = record::text(marks, &self.of_folder, self.documents.values(), self.others.values());
        self.target.close(&text, false)?;
        if !slices.is_empty() {
            super::slice_files::remove(self.plan, slices);
        }
        Ok(self.summary)
    }

    /// Tells of the folder as a whole, and keeps it for the record.
    pub(super) fn report_folder(&mut self, finding: Finding, progress: &mut dyn Progress) {
        progress.step(&Step { findings: std::slice::from_ref(&finding), ..Step::of("", Action::Unchanged) });
        self.of_folder.push(finding);
    }

    /// Whether all documents and files have the names that they had in the last run, so that links lead where they led.
    fn has_same_names(&self) -> bool {
        let record = &self.plan.record;
        record.marks == self.plan.marks() && !record.unfinished && record.damage.is_none()
    }

    /// Takes up what slices made.
    fn load(&mut self, slices: &[SliceFile]) -> Result<(), Error> {
        let plan = self.plan;
        let by_source: HashMap<&str, usize> =
            plan.documents.iter().enumerate().map(|(index, planned)| (planned.source.as_str(), index)).collect();
        for file in slices {
            let (facts, states) = (&mut self.facts, &mut self.states);
            self.rendered.load((&file.root, &file.name), |rendered| {
                let Some(&index) = by_source.get(rendered.source.as_str()) else { return Ok(None) };
                let planned = &plan.documents[index];
                // What changed since the slice was made is converted here.
                if planned.hash != rendered.hash || planned.settings != rendered.settings {
                    return Ok(None);
                }
                if let Some(fault) = rendered.fault(&planned.output) {
                    return Err(fault);
                }
                facts[index] = Some(Arc::new(rendered.facts.clone()));
                states[index].leads = rendered.leads;
                states[index].action = Some(planned.action().unwrap_or(Action::Changed(Why::Forced)));
                Ok(Some(index))
            })?;
        }
        Ok(())
    }

    /// Says that nothing is to be done.
    fn leave_all(mut self, progress: &mut dyn Progress) -> Result<Summary, Error> {
        progress.begin(0);
        for planned in &self.plan.documents {
            let known = self.plan.record.documents.get(&planned.source).map(|known| &**known);
            let action = if planned.state == State::Unchanged { Action::Unchanged } else { Action::Left };
            match action {
                Action::Left => self.summary.left += 1,
                _ => self.summary.unchanged += 1,
            }
            self.summary.edited += planned.edited.len();
            let mut findings = known.map(Known::read_findings).unwrap_or_default();
            findings.extend(planned.edited.iter().map(|path| edited(path)));
            findings.extend(known.iter().flat_map(|known| known.astray.iter().cloned()));
            let outputs = known.map(|known| known.outputs.iter().map(|output| output.path.as_str()).collect());
            progress.step(&Step {
                outputs: outputs.unwrap_or_default(),
                findings: &findings,
                ..Step::of(&planned.source, action)
            });
        }
        let others = self.plan.record.others.values().filter(|other| !other.findings.is_empty() && !other.gone);
        let mut others: Vec<&Other> = others.collect();
        others.sort_by(|a, b| a.output.path.cmp(&b.output.path));
        for other in others {
            let outputs = vec![other.output.path.as_str()];
            progress.step(&Step { outputs, findings: &other.findings, ..Step::of(&other.source, Action::Unchanged) });
        }
        for finding in &self.plan.record.findings {
            progress.step(&Step { findings: std::slice::from_ref(finding), ..Step::of("", Action::Unchanged) });
        }
        for removed in &self.plan.removed {
            self.summary.stays += removed.outputs.len();
            let outputs = removed.outputs.iter().map(String::as_str).collect();
            progress.step(&Step { outputs, ..Step::of(&removed.source, Action::Stays) });
        }
        self.target.close(&[], true)?;
        Ok(self.summary)
    }

    /// Converts documents, over all cores.
    pub(super) fn make(&mut self, chosen: &[(usize, Action)], wanted: &[BTreeSet<String>], progress: &mut dyn Progress) {
        let (plan, pool, store) = (self.plan, &self.plan.pool, &self.rendered);
        let folder = FolderState { plan, link_index: &self.link_index, facts: &self.facts };
        let make = |&(index, _): &(usize, Action)| -> Result<(Arc<DocumentFacts>, Hash, Targets), Error> {
            if let State::Unreadable(message) = &plan.documents[index].state {
                let cause = std::io::Error::other(message.clone());
                return Err(Error::File { path: plan.documents[index].source.clone(), cause });
            }
            // One document that finds a fault of the program does not take the others with it.
            let rendered = std::panic::catch_unwind(std::panic::AssertUnwindSafe(|| {
                convert_document::convert(&folder, index, &wanted[index])
            }))
            .unwrap_or_else(|_| Err(Error::Internal { message: "the conversion broke off".to_owned() }))?;
            let targets = Targets::of(folder.link_index, &plan.documents[index].source, &rendered.facts);
            let known = (Arc::new(rendered.facts.clone()), rendered.leads, targets);
            store.put(index, rendered)?;
            Ok(known)
        };
        let mut made = Vec::with_capacity(chosen.len());
        in_order(pool, chosen, make, |at, outcome| {
            progress.converted(&plan.documents[chosen[at].0].source);
            made.push(outcome);
        });
        for ((index, action), outcome) in chosen.iter().zip(made) {
            let state = &mut self.states[*index];
            match outcome {
                Ok((facts, leads, targets)) => {
                    self.facts[*index] = Some(facts);
                    self.targets[*index] = targets;
                    (state.action, state.leads) = (Some(action.clone()), leads);
                    state.failure = None;
                }
                Err(error) => {
                    state.action = Some(Action::Failed);
                    state.failure = Some(error);
                }
            }
        }
    }

    /// Converts those documents again for which it makes a difference what is known of the others.
    fn update_links(&mut self, progress: &mut dyn Progress) {
        for _ in 0..MOST_ROUNDS {
            let wanted = self.wanted();
            let again: Vec<(usize, Action)> = self
                .plan
                .pool
                .install(|| {
                    (0..self.facts.len())
                        .into_par_iter()
                        .filter(|&index| self.touched[index] && self.is_outdated(index, &wanted[index]))
                        .collect::<Vec<_>>()
                })
                .into_iter()
                .map(|index| (index, self.states[index].action.clone().unwrap_or(Action::Changed(Why::Navigation))))
                .collect();
            if again.is_empty() {
                return;
            }
            self.make(&again, &wanted, progress);
            self.touch(&again);
        }
    }

    fn is_outdated(&self, index: usize, wanted: &BTreeSet<String>) -> bool {
        let (planned, state) = (&self.plan.documents[index], &self.states[index]);
        let Some(facts) = self.facts[index].as_ref().filter(|_| planned.is_chosen && state.failure.is_none()) else {
            return false;
        };
        if !facts.external.is_subset(wanted) || !facts.unreferenced.is_disjoint(wanted) {
            return true;
        }
        let folder = FolderState { plan: self.plan, link_index: &self.link_index, facts: &self.facts };
        let leads: Vec<_> = facts.links.iter().map(|(address, _)| lead(&folder, planned, address)).collect();
        let before = match (&state.action, self.plan.record.documents.get(&planned.source)) {
            (Some(_), _) => state.leads,
            (None, Some(known)) => known.leads,
            (None, None) => return false,
        };
        convert_document::hash_of_leads(leads.iter()) != before
    }

    /// Looks for links to places that are not there.
    fn find_astray(&mut self) {
        let folder = FolderState { plan: self.plan, link_index: &self.link_index, facts: &self.facts };
        let documents = &self.plan.documents;
        let (states, touched, record) = (&mut self.states, &self.touched, &self.plan.record);
        self.plan.pool.install(|| {
            states.par_iter_mut().enumerate().for_each(|(index, state)| {
                if !touched[index] {
                    if let Some(known) = record.documents.get(&documents[index].source) {
                        state.astray.clone_from(&known.astray);
                    }
                } else if let Some(facts) = &folder.facts[index] {
                    state.astray = convert_document::check_places(&folder, &documents[index], facts);
                }
            });
        });
    }

    /// Converts those documents again that have other pages around them now.
    fn update_navigation(&mut self, site: &Site, progress: &mut dyn Progress) {
        for (index, state) in self.states.iter_mut().enumerate() {
            state.navigation = site.navigation(&self.plan.documents[index].output);
            let text = serde_json::to_vec(&state.navigation).unwrap_or_default();
            state.around_hash = Hash::of_parts([text.as_slice()]);
        }
        let again: Vec<(usize, Action)> = (0..self.states.len())
            .filter(|&index| {
                let (planned, state) = (&self.plan.documents[index], &self.states[index]);
                let known = self.plan.record.documents.get(&planned.source).map(|known| &**known);
                planned.is_chosen && state.action.is_none() && known.is_some_and(|known| known.navigation != state.around_hash)
            })
            .map(|index| (index, Action::Changed(Why::Navigation)))
            .collect();
        if !again.is_empty() {
            self.touch(&again);
            let wanted = self.wanted();
            self.make(&again, &wanted, progress);
        }
    }

    /// Gives pages their frames and writes them.
    fn write_all(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        let all: Vec<usize> = (0..self.states.len()).collect();
        let mut outcomes = Vec::with_capacity(all.len());
        // Where there is no room for one file there is none for the others: that is reported once, and ends the run.
        let (is_full, mut full) = (AtomicBool::new(false), None);
        {
            let run = &*self;
            let write = |&index: &usize| match run.states[index].action {
                Some(Action::Failed) | None => Ok(None),
                Some(_) if is_full.load(Ordering::Relaxed) => {
                    let path = run.plan.output.path().display().to_string();
                    Err(Error::File { path, cause: std::io::ErrorKind::StorageFull.into() })
                }
                Some(_) => run.write(index).map(Some).inspect_err(|error| {
                    is_full.fetch_or(error.is_full(), Ordering::Relaxed);
                }),
            };
            in_order(&run.plan.pool, &all, write, |index, outcome| match outcome {
                Err(error) if error.is_full() => drop(full.get_or_insert(error)),
                _ if full.is_some() => {}
                outcome => {
                    run.report(index, &outcome, progress);
                    outcomes.push(outcome);
                }
            });
        }
        if let Some(full) = full {
            return Err(full);
        }
        for (index, outcome) in outcomes.into_iter().enumerate() {
            self.note(index, outcome);
        }
        Ok(())
    }

    /// Writes the pages of a document, and the files that go with it.
    fn write(&self, index: usize) -> Result<Done, Error> {
        let (plan, state) = (self.plan, &self.states[index]);
        let planned = &plan.documents[index];
        let gone = || Error::Internal { message: "a converted document is not there any more".to_owned() };
        let mut rendered = self.rendered.take(index)?.ok_or_else(gone)?;
        let mut files: Vec<(Output, Vec<u8>)> = Vec::with_capacity(rendered.bodies.len());
        let mut brings = BTreeSet::new();
        let bodies = std::mem::take(&mut rendered.bodies);
        for (at, (body, page)) in bodies.into_iter().zip(&rendered.facts.pages).enumerate() {
            let bytes = match body {
                Body::Bytes(bytes) => bytes,
                Body::Page(content) => {
                    let navigation = around_part(&state.navigation, &rendered.facts, at);
                    self.assemble(&planned.profile, &content, &page.output, &navigation, &mut brings)?.into_bytes()
                }
            };
            files.push((Target::output(&page.output, &bytes), bytes));
        }
        for extra in std::mem::take(&mut rendered.extras) {
            files.push((Target::output(&extra.path, &extra.bytes), extra.bytes));
        }
        let mut known = known(rendered, state);
        known.brings = brings.into_iter().collect();
        known.outputs = files.iter().map(|(output, _)| output.clone()).collect();
        self.target.announce(&known)?;
        let mut findings = known.read_findings();
        let mut kept = 0;
        // Pictures first, so that no page names what is not there.
        for (output, bytes) in files.iter().rev() {
            if self.target.put(output, bytes)? == Put::Kept {
                findings.push(edited(&output.path));
                kept += 1;
            }
        }
        findings.extend(state.astray.iter().cloned());
        let time = Duration::from_micros(known.time);
        Ok(Done { known, findings, time, edited: kept })
    }

    /// Puts the frame around a page.
    pub(super) fn assemble(
        &self,
        profile: &crate::profile::Profile,
        content: &page::Content,
        output: &str,
        navigation: &Navigation,
        brings: &mut BTreeSet<String>,
    ) -> Result<String, Error> {
        let full = self.plan.output.path().join(output);
        // A page that is shown at an address that nobody knows names the top by its whole address.
        let to_top = if navigation.top.is_empty() { paths::to_top(output) } else { navigation.top.clone() };
        let context = Context {
            name: paths::stem(output).0,
            media: Some(&*self.plan.source),
            shows: Some(&|path| self.plan.shows(path)),
            output: full.parent(),
            to_top: &to_top,
            mirrored: true,
            shared: Some(&self.plan.shared),
            ..Context::default()
        };
        let (text, files) = page::assemble(content, profile, &context, navigation)?;
        for file in files {
            let Some(path) = file.path.to_str().and_then(|path| paths::follow(paths::folder(output), &path.replace('%', "%25")))
            else {
                continue;
            };
            lock(&self.shared).entry(path.clone()).or_insert(file.bytes);
            brings.insert(path);
        }
        Ok(text)
    }

    /// Tells what became of a document.
    fn report(&self, index: usize, outcome: &Result<Option<Done>, Error>, progress: &mut dyn Progress) {
        let (planned, state) = (&self.plan.documents[index], &self.states[index]);
        let known = self.plan.record.documents.get(&planned.source).map(|known| &**known);
        let outputs = |known: Option<&Known>| -> Vec<String> {
            known.map_or_else(Vec::new, |known| known.outputs.iter().map(|output| output.path.clone()).collect())
        };
        let (findings, outputs, error, time) = match outcome {
            Ok(Some(done)) => (done.findings.clone(), outputs(Some(&done.known)), None, done.time),
            Ok(None) => {
                // What is still wrong with it is reported again.
                let mut findings = known.map(Known::read_findings).unwrap_or_default();
                findings.extend(planned.edited.iter().map(|path| edited(path)));
                findings.extend(state.astray.iter().cloned());
                (findings, outputs(known), state.failure.as_ref(), Duration::ZERO)
            }
            Err(error) => (Vec::new(), Vec::new(), Some(error), Duration::ZERO),
        };
        let action = match (&state.action, planned.is_chosen) {
            _ if error.is_some() => Action::Failed,
            (Some(action), _) => action.clone(),
            (None, _) if planned.state == State::Unchanged => Action::Unchanged,
            (None, _) => Action::Left,
        };
        progress.step(&Step {
            source: &planned.source,
            outputs: outputs.iter().map(String::as_str).collect(),
            action,
            findings: &findings,
            error,
            time,
        });
    }

    /// Counts what became of a document, and keeps it for the record.
    fn note(&mut self, index: usize, outcome: Result<Option<Done>, Error>) {
        let (planned, state) = (&self.plan.documents[index], &mut self.states[index]);
        let known = match outcome {
            Ok(Some(done)) => {
                self.summary.converted += 1;
                self.summary.edited += done.edited;
                Some(done.known)
            }
            other => {
                if other.is_err() || state.failure.is_some() {
                    self.summary.failed += 1;
                } else if planned.state == State::Unchanged {
                    self.summary.unchanged += 1;
                    self.summary.edited += planned.edited.len();
                } else {
                    self.summary.left += 1;
                }
                let mut known = self.plan.record.documents.get(&planned.source).map(|known| Known::clone(known));
                if let Some(known) = &mut known {
                    known.astray.clone_from(&state.astray);
                }
                known
            }
        };
        if let Some(known) = known {
            self.documents.insert(known.source.clone(), known);
        }
    }
}

impl Run<'_> {
    /// Why a document failed.
    pub(super) fn failure(&self, index: usize) -> Option<&Error> {
        self.states[index].failure.as_ref()
    }
}

impl Planned {
    /// What has to be done with a document in this run, if anything.
    fn action(&self) -> Option<Action> {
        match &self.state {
            _ if !self.is_chosen => None,
            State::New | State::Unreadable(_) => Some(Action::New),
            State::Changed(why) => Some(Action::Changed(why.clone())),
            State::Unchanged => None,
        }
    }
}

/// What the record says of a piece.
fn known(rendered: Rendered, state: &Progressing) -> Known {
    let findings = Some(&rendered.findings).filter(|findings| !findings.is_empty());
    let findings = findings.and_then(|findings| serde_json::value::to_raw_value(findings).ok());
    Known {
        source: rendered.source,
        hash: rendered.hash,
        settings: rendered.settings,
        leads: rendered.leads,
        navigation: state.around_hash,
        brings: Vec::new(),
        uses: rendered.uses,
        includes: rendered.includes,
        outputs: Vec::new(),
        facts: FactsJson::new(&rendered.facts),
        findings,
        astray: state.astray.clone(),
        time: rendered.time,
    }
}

/// What stands around one page of a document: around those behind the first are the pages before and behind them.
fn around_part(navigation: &Navigation, facts: &DocumentFacts, at: usize) -> Navigation {
    if facts.pages.len() < 2 {
        return navigation.clone();
    }
    let output = &facts.pages[at].output;
    let stop = |index: usize| page::NavLink {
        title: facts.pages[index].title.clone(),
        address: paths::address(output, &facts.pages[index].output),
        current: index == at,
    };
    let mut navigation = navigation.clone();
    navigation.parts = (0..facts.pages.len()).map(stop).collect();
    if at > 0 {
        navigation.previous = Some(stop(at - 1));
    }
    if at + 1 < facts.pages.len() {
        navigation.next = Some(stop(at + 1));
    }
    navigation
}

/// What there is to say of an output that somebody edited.
pub(super) fn edited(path: &str) -> Finding {
    Finding::changed("publish.edited", format!("{path} was changed since the last run and is left alone"))
        .hint("--force overwrites it")
}
