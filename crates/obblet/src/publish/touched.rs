//! Which documents a change touches: those that link to what changed, and those that it links to.

use super::Action;
use super::run::Run;
use super::targets::Targets;
use rayon::prelude::*;
use std::collections::BTreeSet;

impl Run<'_> {
    /// Looks up what links lead to, of those documents that are known already.
    pub(super) fn find_targets(&mut self) {
        let (link_index, facts, documents) = (&self.link_index, &self.facts, &self.plan.documents);
        let find = |(index, known): (usize, &mut Targets)| {
            if let Some(facts) = &facts[index] {
                *known = Targets::of(link_index, &documents[index].source, facts);
            }
        };
        let all = self.targets.par_iter_mut().enumerate().with_min_len(16);
        self.plan.pool.install(|| all.for_each(find));
    }

    /// Notes that something differs for documents, and so perhaps for those that lead to them or that they lead to.
    pub(super) fn touch(&mut self, changed: &[(usize, Action)]) {
        if changed.is_empty() || self.touched.iter().all(|touched| *touched) {
            return;
        }
        let mut is_changed = vec![false; self.touched.len()];
        for &(index, _) in changed {
            is_changed[index] = true;
            self.touched[index] = true;
            for &(_, to) in &self.targets[index].documents {
                self.touched[to as usize] = true;
            }
        }
        for (touched, targets) in self.touched.iter_mut().zip(&self.targets) {
            *touched |= targets.documents.iter().any(|&(_, to)| is_changed[to as usize]);
        }
    }

    /// The names of places that other documents lead to, for each document for which something may differ.
    pub(super) fn wanted(&self) -> Vec<BTreeSet<String>> {
        let mut wanted = vec![BTreeSet::new(); self.facts.len()];
        for (facts, targets) in self.facts.iter().zip(&self.targets) {
            let Some(facts) = facts else { continue };
            for &(link, to) in targets.documents.iter().filter(|(_, to)| self.touched[*to as usize]) {
                let name = facts.links.get(link as usize).and_then(|(address, _)| address.split_once('#'));
                let Some((_, name)) = name.filter(|(_, name)| !name.is_empty()) else { continue };
                let name = percent_encoding::percent_decode_str(name).decode_utf8_lossy();
                let wanted = &mut wanted[to as usize];
                if !wanted.contains(&*name) {
                    wanted.insert(name.into_owned());
                }
            }
        }
        wanted
    }
}
