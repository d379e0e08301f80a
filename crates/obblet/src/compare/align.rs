//! The units of two documents, side by side.

use super::units::Unit;
use super::{Category, Difference, Score, Side};
use crate::fast_hash::HashMap;
use similar::{Algorithm, DiffOp, capture_diff_slices};

/// Units of which less than this is the same have nothing to do with each other.
const ALIKE: f64 = 0.4;
/// So many units on either side are paired by what they say; more of them by their order.
const MOST_PAIRED: usize = 60;

/// Aligns the units of a category, and adds what differs.
pub(super) fn category(category: Category, first: &[Unit], second: &[Unit], differences: &mut Vec<Difference>) -> Score {
    let weigh = |unit: &Unit| if category == Category::Text { unit.text.split_whitespace().count().max(1) } else { 1 };
    let (keys_first, keys_second) = numbers(first, second);
    let mut same = 0;
    for op in capture_diff_slices(Algorithm::Patience, &keys_first, &keys_second) {
        match op {
            DiffOp::Equal { old_index, len, .. } => same += first[old_index..old_index + len].iter().map(weigh).sum::<usize>(),
            DiffOp::Delete { old_index, old_len, .. } => {
                differences.extend(
                    first[old_index..old_index + old_len].iter().map(|unit| only(category, Some(unit), None, weigh(unit))),
                );
            }
            DiffOp::Insert { new_index, new_len, .. } => {
                differences.extend(
                    second[new_index..new_index + new_len].iter().map(|unit| only(category, None, Some(unit), weigh(unit))),
                );
            }
            DiffOp::Replace { old_index, old_len, new_index, new_len } => {
                let (old, new) = (&first[old_index..old_index + old_len], &second[new_index..new_index + new_len]);
                same += replaced(category, old, new, differences);
            }
        }
    }
    Score { category, first: first.iter().map(weigh).sum(), second: second.iter().map(weigh).sum(), same }
}

/// A number for each key, the same for the same key: comparing numbers is quicker than comparing texts.
fn numbers<'u>(first: &'u [Unit], second: &'u [Unit]) -> (Vec<u32>, Vec<u32>) {
    let mut known: HashMap<&'u str, u32> = HashMap::default();
    let mut numbers = |units: &'u [Unit]| -> Vec<u32> {
        let number = |unit: &'u Unit| {
            let next = known.len() as u32;
            *known.entry(unit.key.as_str()).or_insert(next)
        };
        units.iter().map(number).collect()
    };
    (numbers(first), numbers(second))
}

fn only(category: Category, first: Option<&Unit>, second: Option<&Unit>, size: usize) -> Difference {
    let side = |unit: &Unit| Side { place: unit.place, text: unit.text.clone() };
    Difference { category, size, first: first.map(side), second: second.map(side) }
}

/// Units that stand where others stand. Returns how much of them is the same.
fn replaced(category: Category, old: &[Unit], new: &[Unit], differences: &mut Vec<Difference>) -> usize {
    let mut same = 0;
    let mut next = 0;
    // One in the place of one is what became of it, however little they share.
    let least = if old.len() == 1 && new.len() == 1 { 0.0 } else { ALIKE };
    for unit in old {
        let few = new.len() <= MOST_PAIRED && old.len() <= MOST_PAIRED;
        let candidates = if few { next..new.len() } else { next..(next + 1).min(new.len()) };
        let best = candidates
            .map(|at| (at, alike(&unit.text, &new[at].text)))
            .filter(|(_, (share, ..))| *share >= least)
            .max_by(|(_, a), (_, b)| a.0.total_cmp(&b.0));
        match best {
            Some((at, (_, shared, changed))) => {
                differences.extend(new[next..at].iter().map(|unit| only(category, None, Some(unit), size(category, unit))));
                let size = if category == Category::Text { changed.max(1) } else { 1 };
                same += if category == Category::Text { shared } else { 0 };
                differences.push(shortened(only(category, Some(unit), Some(&new[at]), size)));
                next = at + 1;
            }
            None => differences.push(only(category, Some(unit), None, size(category, unit))),
        }
    }
    differences.extend(new[next.min(new.len())..].iter().map(|unit| only(category, None, Some(unit), size(category, unit))));
    same
}

fn size(category: Category, unit: &Unit) -> usize {
    if category == Category::Text { unit.text.split_whitespace().count().max(1) } else { 1 }
}

/// What share of the words of two texts is the same, how many words that are, and how many are not.
fn alike(first: &str, second: &str) -> (f64, usize, usize) {
    let (a, b): (Vec<&str>, Vec<&str>) = (first.split_whitespace().collect(), second.split_whitespace().collect());
    let same: usize = capture_diff_slices(Algorithm::Patience, &a, &b)
        .iter()
        .map(|op| if let DiffOp::Equal { len, .. } = op { *len } else { 0 })
        .sum();
    let all = a.len() + b.len();
    // Different words of the same text still stand in the same place.
    let share = if all == 0 { 1.0 } else { 2.0 * same as f64 / all as f64 };
    let letters = if share < ALIKE && all <= 4 { common_start(first, second) } else { 0.0 };
    (share.max(letters), same, a.len().max(b.len()) - same)
}

/// What share of two short texts is their common beginning.
fn common_start(first: &str, second: &str) -> f64 {
    let common = first.chars().zip(second.chars()).take_while(|(a, b)| a == b).count();
    common as f64 / first.chars().count().max(second.chars().count()).max(1) as f64
}

/// Long texts that differ in the middle, cut to the words around it.
fn shortened(mut difference: Difference) -> Difference {
    const AROUND: usize = 4;
    let (Some(first), Some(second)) = (&mut difference.first, &mut difference.second) else { return difference };
    let (a, b): (Vec<&str>, Vec<&str>) = (first.text.split(' ').collect(), second.text.split(' ').collect());
    let start = a.iter().zip(&b).take_while(|(a, b)| a == b).count();
    let most = a.len().min(b.len()) - start;
    let end = a.iter().rev().zip(b.iter().rev()).take(most).take_while(|(a, b)| a == b).count();
    let from = start.saturating_sub(AROUND);
    let cut = |words: &[&str]| {
        let to = (words.len() - end + AROUND).min(words.len());
        let before = if from > 0 { "\u{2026} " } else { "" };
        let after = if to < words.len() { " \u{2026}" } else { "" };
        format!("{before}{}{after}", words[from.min(to)..to].join(" "))
    };
    let (a, b) = (cut(&a), cut(&b));
    (first.text, second.text) = (a, b);
    difference
}
