//! The arguments of the command line.

use clap::builder::{PossibleValue, PossibleValuesParser, TypedValueParser};
use clap::{Args, Parser, Subcommand, ValueEnum};
use obblet::Format;
use obblet::document::{Finding, Weight};
use std::path::PathBuf;

/// Turns documents into clean, standards-valid HTML, and says what was lost on the way.
#[derive(Debug, Parser)]
#[command(name = "obblet", version, max_term_width = 100)]
pub(crate) struct Arguments {
    #[command(subcommand)]
    pub(crate) command: Command,
}

/// Formats by their names, or by an extension of their files.
fn formats(fits: fn(Format) -> bool) -> impl TypedValueParser<Value = Format> {
    let value = |format: Format| {
        let others = format.extensions().iter().filter(move |extension| **extension != format.name());
        PossibleValue::new(format.name()).aliases(others.copied())
    };
    PossibleValuesParser::new(Format::all().filter(move |format| fits(*format)).map(value))
        .try_map(|name| Format::from_name(&name).or_else(|| Format::from_extension(&name)).ok_or("there is no such format"))
}

fn readable() -> impl TypedValueParser<Value = Format> {
    formats(Format::is_read)
}

fn writable() -> impl TypedValueParser<Value = Format> {
    formats(Format::is_written)
}

/// What to do.
#[derive(Debug, Subcommand)]
pub(crate) enum Command {
    /// Converts documents: one file to another, standard input to standard output, or several files into a folder.
    Convert(Convert),
    /// Publishes a folder: what has changed since the last time, with links, images, and a site around it if you like.
    Publish(Publish),
    /// Says what is in documents: outline, counts, links, sizes, what will be found, and for HTML the faults in it; of folders,
    /// all that is wrong, by problem.
    Inspect(Inspect),
    /// Says what differs between two documents of any formats, between two folders of them, or between one document and itself
    /// after a trip through a format.
    Compare(Compare),
    /// Lists profiles, shows every setting with its meaning, or starts a profile of your own.
    Profile(Profile),
    /// Writes the demo documents into a folder, and converts them into a small site.
    Demo(Demo),
}

/// Settings that many commands take.
#[derive(Debug, Args)]
pub(crate) struct Settings {
    /// A built-in profile, or a file of settings. May be given more than once; later ones win.
    #[arg(long, value_name = "NAME OR FILE")]
    pub(crate) profile: Vec<String>,
    /// A single setting, as in --set html.indent=2; `obblet profile show` lists them all. Values of a list stand between
    /// commas, or in TOML, as in --set 'clean.replace=["a, b => c", "d => e"]'.
    #[arg(long = "set", value_name = "KEY=VALUE")]
    pub(crate) assignments: Vec<String>,
    /// Uses no settings files that are found in the folders of documents.
    #[arg(long)]
    pub(crate) no_config: bool,
    /// The same as --set shape=...: page or fragment.
    #[arg(long)]
    pub(crate) shape: Option<String>,
    /// The same as --set page.look=...: chart, folio, beacon or none.
    #[arg(long)]
    pub(crate) look: Option<String>,
}

/// How much is said.
#[derive(Debug, Args)]
pub(crate) struct Verbosity {
    /// Says nothing but errors.
    #[arg(long, short)]
    pub(crate) quiet: bool,
    /// Shows advice as well as losses and changes, all of each, and which settings files were used.
    #[arg(long, short, conflicts_with = "quiet")]
    pub(crate) verbose: bool,
    /// Writes all findings to a file, as JSON; to standard output for `-`.
    #[arg(long, value_name = "FILE")]
    pub(crate) report: Option<PathBuf>,
    /// Ends with exit code 3 where there is a finding of this weight or a heavier one; with limit, where an output takes more
    /// characters than limits.characters says.
    #[arg(long, value_name = "WEIGHT")]
    pub(crate) fail_on: Option<FailOn>,
}

/// What makes a command end with an exit code of its own.
#[derive(Clone, Copy, Debug, ValueEnum)]
pub(crate) enum FailOn {
    Lost,
    Changed,
    Advice,
    Limit,
}

impl FailOn {
    /// Whether a finding is one of those that are asked for.
    pub(crate) fn is_met_by(self, finding: &Finding) -> bool {
        self.is_met(finding.weight, &finding.code)
    }

    /// Whether findings of a weight and a code are asked for.
    pub(crate) fn is_met(self, weight: Weight, code: &str) -> bool {
        let wanted = match self {
            Self::Lost => Weight::Lost,
            Self::Changed => Weight::Changed,
            Self::Advice => Weight::Advice,
            Self::Limit => return code.starts_with("limit."),
        };
        weight <= wanted
    }
}

/// Arguments of `obblet convert`.
#[derive(Debug, Args)]
pub(crate) struct Convert {
    /// Documents to convert; standard input where there are none, or for `-`.
    #[arg(value_name = "FILE")]
    pub(crate) sources: Vec<PathBuf>,
    /// Where to write: a file, a folder (for several documents, or with a slash at its end), or `-` for standard output.
    #[arg(long, short, value_name = "FILE OR FOLDER")]
    pub(crate) output: Option<PathBuf>,
    /// The format of the source, where its extension does not tell.
    #[arg(long, value_name = "FORMAT", value_parser = readable())]
    pub(crate) reads: Option<Format>,
    /// The format to write, where the extension of the output does not tell.
    #[arg(long, value_name = "FORMAT", value_parser = writable())]
    pub(crate) writes: Option<Format>,
    /// The same as --set page.title=...
    #[arg(long)]
    pub(crate) title: Option<String>,
    #[command(flatten)]
    pub(crate) settings: Settings,
    #[command(flatten)]
    pub(crate) talk: Verbosity,
}

/// Arguments of `obblet publish`.
#[derive(Debug, Args)]
#[expect(clippy::struct_excessive_bools, reason = "each is a flag of the command line")]
pub(crate) struct Publish {
    /// The folder of documents.
    #[arg(value_name = "FOLDER")]
    pub(crate) source: PathBuf,
    /// The folder that the output goes to.
    #[arg(value_name = "OUTPUT")]
    pub(crate) output: PathBuf,
    /// Says exactly what would be done, and does nothing of it.
    #[arg(long)]
    pub(crate) dry_run: bool,
    /// Makes a site: start page, navigation, a page of all pages, a feed. The same as --set publish.site=true.
    #[arg(long)]
    pub(crate) site: bool,
    /// Puts all documents into one page, binder.html, too. The same as --set publish.binder=true.
    #[arg(long)]
    pub(crate) binder: bool,
    /// Makes a page of what the documents say is to be done, agenda.html. The same as --set publish.agenda=true.
    #[arg(long)]
    pub(crate) agenda: bool,
    /// Converts only documents whose paths this pattern fits, as in 'tides/**' or '*.docx'; the others stay as they are.
    #[arg(long, value_name = "PATTERN")]
    pub(crate) only: Vec<String>,
    /// Takes documents of this format only. May be given more than once.
    #[arg(long, value_name = "FORMAT", value_parser = readable())]
    pub(crate) reads: Vec<Format>,
    /// The format to write; html where none is given.
    #[arg(long, value_name = "FORMAT", value_parser = writable())]
    pub(crate) writes: Option<Format>,
    /// Converts everything, changed or not, and overwrites what somebody edited in the output.
    #[arg(long)]
    pub(crate) force: bool,
    /// Removes from the output what was made of documents that are gone.
    #[arg(long)]
    pub(crate) prune: bool,
    /// How many documents are converted at the same time; as many as there are cores where it is not given.
    #[arg(long, value_name = "NUMBER", default_value_t = 0, hide_default_value = true)]
    pub(crate) jobs: usize,
    /// Goes on, and publishes again whenever something changes.
    #[arg(long, conflicts_with_all = ["dry_run", "slice", "join", "archive"])]
    pub(crate) watch: bool,
    /// Packs all that has to be uploaded into a ZIP archive.
    #[arg(long, value_name = "FILE")]
    pub(crate) archive: Option<PathBuf>,
    /// Writes a line of JSON for each file: source, outputs, findings, time; to standard output for `-`.
    #[arg(long, value_name = "FILE")]
    pub(crate) log: Option<PathBuf>,
    /// Converts one part of the folder, as in 2/8, into a file in the output that --join takes.
    #[arg(long, value_name = "PART/PARTS", conflicts_with = "join")]
    pub(crate) slice: Option<String>,
    /// Finishes what slices have begun. Their files are looked for in the output, or in the files and folders given here.
    #[arg(long, value_name = "FILE OR FOLDER", num_args = 0..)]
    pub(crate) join: Option<Vec<PathBuf>>,
    #[command(flatten)]
    pub(crate) settings: Settings,
    #[command(flatten)]
    pub(crate) talk: Verbosity,
}

/// Arguments of `obblet inspect`.
#[derive(Debug, Args)]
pub(crate) struct Inspect {
    /// Documents to look at, or folders of them; standard input where there are none, or for `-`. Of folders, what is wrong is
    /// listed by problem; --report problems.csv writes it as a table.
    #[arg(value_name = "FILE OR FOLDER")]
    pub(crate) sources: Vec<PathBuf>,
    /// The format of the documents, where their extensions do not tell.
    #[arg(long, value_name = "FORMAT", value_parser = readable())]
    pub(crate) reads: Option<Format>,
    /// Shows what was read of each document instead, as a tree: a node a line, with its attributes, and behind it comments,
    /// sections and styles.
    #[arg(long)]
    pub(crate) tree: bool,
    #[command(flatten)]
    pub(crate) settings: Settings,
    #[command(flatten)]
    pub(crate) talk: Verbosity,
}

/// Arguments of `obblet compare`.
#[derive(Debug, Args)]
pub(crate) struct Compare {
    /// The first document, or a folder of documents.
    #[arg(value_name = "FIRST")]
    pub(crate) first: PathBuf,
    /// The second document, or the folder whose documents of the same names are compared, whatever their formats.
    #[arg(value_name = "SECOND")]
    pub(crate) second: Option<PathBuf>,
    /// Compares the first document with itself, written in this format and read again.
    #[arg(long, value_name = "FORMAT", value_parser = writable())]
    pub(crate) through: Option<Format>,
    /// The format of both documents, where their extensions do not tell.
    #[arg(long, value_name = "FORMAT", value_parser = readable())]
    pub(crate) reads: Option<Format>,
    #[command(flatten)]
    pub(crate) settings: Settings,
    /// Says nothing; the exit code tells.
    #[arg(long, short)]
    pub(crate) quiet: bool,
    /// Shows all differences, and which settings files were used.
    #[arg(long, short, conflicts_with = "quiet")]
    pub(crate) verbose: bool,
    /// Writes scores and differences to a file, as JSON; to standard output for `-`, instead of the usual view.
    #[arg(long, value_name = "FILE")]
    pub(crate) report: Option<PathBuf>,
}

/// Arguments of `obblet profile`.
#[derive(Debug, Args)]
pub(crate) struct Profile {
    #[command(subcommand)]
    pub(crate) action: Option<ProfileAction>,
}

/// What to do with profiles.
#[derive(Debug, Subcommand)]
pub(crate) enum ProfileAction {
    /// Lists the built-in profiles.
    List,
    /// Shows every setting of a profile: its value, what it may be, and what it means.
    Show {
        /// A built-in profile or a file.
        #[arg(default_value = "page")]
        profile: String,
        /// Only settings whose name begins so, as in html.
        #[arg(long, value_name = "BEGINNING")]
        only: Option<String>,
        /// The passes instead, in the order in which they run, and which of them do.
        #[arg(long, conflicts_with = "only")]
        passes: bool,
        /// The format of the source that the passes are for.
        #[arg(long, value_name = "FORMAT", value_parser = readable(), default_value = "word", requires = "passes")]
        reads: Format,
        /// The format of the output that the passes are for.
        #[arg(long, value_name = "FORMAT", value_parser = writable(), default_value = "html", requires = "passes")]
        writes: Format,
    },
    /// Writes a new file to begin one's own with: settings, a stylesheet (.css) or the template of pages (.html).
    New {
        /// The file to write. Its extension says what it is: .toml, .css or .html.
        #[arg(default_value = "obblet.toml")]
        file: PathBuf,
        /// The built-in profile to begin with, or the look of a stylesheet: chart, folio or beacon.
        #[arg(long, value_name = "NAME")]
        from: Option<String>,
    },
}

/// Arguments of `obblet demo`.
#[derive(Debug, Args)]
pub(crate) struct Demo {
    /// The folder to write; the documents go into handbook/ in it, and the pages into site/.
    #[arg(default_value = "greywick-sound")]
    pub(crate) folder: PathBuf,
    /// The look of the pages: chart, folio or beacon.
    #[arg(long)]
    pub(crate) look: Option<String>,
}
