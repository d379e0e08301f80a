//! A folder that is published in slices, each on another machine: every slice converts its part into a file, and a last run
//! joins them.

use super::run::Run;
use super::slice_files::name;
use super::{Action, Progress, Step, Summary};
use crate::error::Error;
use std::io::{BufWriter, Write};
use std::time::Duration;

impl Run<'_> {
    /// Converts the documents of the slice and writes them into its file.
    pub(super) fn write_slice(mut self, progress: &mut dyn Progress) -> Result<Summary, Error> {
        let Some((slice, slices)) = self.plan.options.slice else { return Ok(self.summary) };
        let chosen: Vec<(usize, Action)> = (0..self.plan.documents.len())
            .filter(|&index| self.plan.documents[index].is_chosen)
            .map(|index| (index, Action::New))
            .collect();
        progress.begin(chosen.len());
        // Nothing of the others is known here; what that makes a difference for is converted again when slices are joined.
        self.facts = vec![None; self.plan.documents.len()];
        let wanted = vec![std::collections::BTreeSet::new(); self.facts.len()];
        self.make(&chosen, &wanted, progress);
        let (root, name) = (&self.plan.output, name(slice, slices));
        let fail = |cause| Error::File { path: root.path().join(&name).display().to_string(), cause };
        let mut out = match self.target.is_rehearsal() {
            true => None,
            false => Some(BufWriter::new(root.aside(name.as_ref()).map_err(fail)?)),
        };
        for (index, planned) in self.plan.documents.iter().enumerate() {
            let step = |action: Action| Step {
                source: &planned.source,
                outputs: Vec::new(),
                action,
                findings: &[],
                error: None,
                time: Duration::ZERO,
            };
            if !planned.is_chosen {
                self.summary.left += 1;
                progress.step(&step(Action::Left));
                continue;
            }
            match self.rendered.take(index)? {
                Some(rendered) => {
                    self.summary.converted += 1;
                    let time = Duration::from_micros(rendered.time);
                    progress.step(&Step { findings: &rendered.findings, time, ..step(Action::New) });
                    if let Some(out) = &mut out {
                        out.write_all(&rendered.line()?).map_err(fail)?;
                    }
                }
                None => {
                    self.summary.failed += 1;
                    progress.step(&Step { error: self.failure(index), ..step(Action::Failed) });
                }
            }
        }
        if let Some(out) = out {
            out.into_inner().map_err(|error| fail(error.into_error()))?.take_name(false).map_err(fail)?;
        }
        self.target.leave()?;
        Ok(self.summary)
    }
}
