//! `obblet compare`

use super::comparison::{read, score_as_json};
use super::input::is_dash;
use crate::arguments::Compare;
use crate::failure::{Failure, misused};
use crate::messages::shown;
use crate::{Outcome, messages, report};
use anstyle::{AnsiColor, Style};
use obblet::compare::{Comparison, Difference, Side, compare};
use obblet::document::{Document, Place};
use obblet::profile::{Layers, Profile, Shape};
use obblet::refine::Cleaning;
use obblet::{Context, Format};
use std::io::Write;
use std::path::Path;

/// So many differences are shown.
const MOST_SHOWN: usize = 20;
/// Texts are shown up to so many characters.
const LONGEST: usize = 160;

pub(crate) fn run(arguments: &Compare) -> Outcome {
    match compare_all(arguments) {
        Ok(outcome) => outcome,
        Err(Failure(outcome, message)) => messages::fail(outcome, message),
    }
}

fn compare_all(arguments: &Compare) -> Result<Outcome, Failure> {
    let layers = super::layers(&arguments.settings, &[])?;
    let second = arguments.second.as_deref();
    match (arguments.first.is_dir(), second.map(Path::is_dir)) {
        (true, _) if arguments.through.is_some() => Err(misused("--through takes one document, not a folder")),
        (true, Some(true)) => super::compare_folders::run(arguments, &layers, second.unwrap_or(Path::new(""))),
        (true, _) => Err(misused("a folder is compared with another folder; name two of them")),
        (false, Some(true)) => Err(misused("a document is compared with another document; name two of them, or two folders")),
        _ => {
            let comparison = compare_both(arguments, &layers)?;
            Ok(if comparison.is_same() { Outcome::Done } else { Outcome::Found })
        }
    }
}

fn compare_both(arguments: &Compare, layers: &Layers) -> Result<Comparison, Failure> {
    let first_name = arguments.first.display().to_string();
    let (first, first_profile) = read(arguments, layers, &arguments.first)?;
    let (second, second_name) = match (&arguments.second, &arguments.through) {
        (Some(path), None) => (read(arguments, layers, path)?.0, path.display().to_string()),
        (None, Some(format)) => (trip(&first, arguments, *format, &first_profile)?, format!("itself, through {}", format.name())),
        (None, None) => return Err(misused("name a second document, or a format with --through")),
        (Some(_), Some(_)) => return Err(misused("--through compares one document with itself; leave the second one out")),
    };
    let comparison = compare(&first, &second);
    if let Some(path) = &arguments.report {
        let json = serde_json::json!({
            "first": first_name,
            "second": second_name,
            "scores": comparison.scores.iter().map(score_as_json).collect::<Vec<_>>(),
            "differences": comparison.differences,
        });
        report::save(path, &json)?;
    }
    if arguments.verbose {
        super::report_settings(layers);
    }
    if !arguments.quiet && !arguments.report.as_deref().is_some_and(is_dash) {
        report::written(show(&first_name, &second_name, &comparison, arguments.verbose))?;
    }
    Ok(comparison)
}

/// A document that was written in a format and read again.
fn trip(doc: &Document, arguments: &Compare, format: Format, profile: &Profile) -> Result<Document, Failure> {
    let mut profile = profile.clone();
    // What passes change is wanted; what the trip changes is the question.
    profile.clean = Cleaning::none();
    if arguments.settings.shape.is_none() {
        // In LaTeX, what characters mean is said before the text.
        profile.shape = if format == Format::Latex { Shape::Page } else { Shape::Fragment };
    }
    let written = obblet::write(doc.clone(), format, &profile, &Context::default())?;
    Ok(obblet::read(&written.bytes, format, &profile)?)
}

fn show(first: &str, second: &str, comparison: &Comparison, all: bool) -> std::io::Result<()> {
    let mut out = anstream::stdout().lock();
    let (bold, dim) = (Style::new().bold(), Style::new().dimmed());
    writeln!(out, "{bold}{}{bold:#} and {bold}{}{bold:#}\n", shown(first), shown(second))?;
    writeln!(out, "{dim}{:<10}{:>9}{:>9}{:>9}{:>11}{dim:#}", "", "first", "second", "same", "score")?;
    for score in comparison.scores.iter().filter(|score| score.first + score.second > 0) {
        let share = score.share();
        let color = if share >= 1.0 {
            AnsiColor::Green
        } else if share >= 0.95 {
            AnsiColor::Yellow
        } else {
            AnsiColor::Red
        };
        let style = Style::new().fg_color(Some(color.into()));
        // A difference is never rounded away.
        let percent = if share < 1.0 { (share * 1000.0).floor() / 10.0 } else { 100.0 };
        let word = if score.category == obblet::compare::Category::Text { "words" } else { score.category.word() };
        writeln!(out, "{word:<10}{:>9}{:>9}{:>9}{style}{percent:>9.1} %{style:#}", score.first, score.second, score.same)?;
    }
    let count = comparison.differences.len();
    match count {
        0 => writeln!(out, "\nno difference")?,
        1 => writeln!(out, "\n1 difference\n")?,
        _ => writeln!(out, "\n{count} differences, worst first\n")?,
    }
    let shown = if all { count } else { count.min(MOST_SHOWN) };
    for difference in &comparison.differences[..shown] {
        show_difference(&mut out, difference)?;
    }
    if shown < count {
        writeln!(out, "and {} more; --verbose shows them", count - shown)?;
    }
    out.flush()
}

fn show_difference(out: &mut impl Write, difference: &Difference) -> std::io::Result<()> {
    let bold = Style::new().bold();
    let place = |side: &Option<Side>| match side.as_ref().map(|side| side.place) {
        Some(Place::Unknown) | None => String::new(),
        Some(place) => place.to_string(),
    };
    let places = match (place(&difference.first), place(&difference.second)) {
        (first, second) if first.is_empty() && second.is_empty() => String::new(),
        (first, second) if second.is_empty() => format!(" at {first}"),
        (first, second) if first.is_empty() => format!(" at {second} of the second"),
        (first, second) => format!(" at {first} and {second}"),
    };
    let what = match (&difference.first, &difference.second) {
        (Some(_), Some(_)) => "changed",
        (Some(_), None) => "only in the first",
        _ => "only in the second",
    };
    writeln!(out, "{bold}{}{bold:#}, {what}{places}", difference.category.word())?;
    let sides = [(&difference.first, "first: ", AnsiColor::Red), (&difference.second, "second:", AnsiColor::Green)];
    for (side, sign, color) in sides {
        if let Some(side) = side {
            let style = Style::new().fg_color(Some(color.into()));
            let text: String = shown(&side.text).chars().take(LONGEST).collect();
            let more = if side.text.chars().count() > LONGEST { "\u{2026}" } else { "" };
            writeln!(out, "  {style}{sign}{style:#} {text}{more}")?;
        }
    }
    Ok(())
}
