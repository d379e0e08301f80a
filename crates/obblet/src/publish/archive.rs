//! All that has to be uploaded, in one file.

use super::record::Record;
use crate::error::Error;
use crate::files::{Kind, Root, Sink};
use std::io::{self, BufWriter};
use std::path::Path;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, DateTime, ZipWriter};

/// Packs everything that the last run made of a folder into an archive; files that somebody else put beside it stay out. The
/// same files make the same archive, byte for byte.
///
/// # Errors
/// Where a file can't be read, or the archive can't be written.
pub fn archive(output: &Path, path: &Path) -> Result<usize, Error> {
    let root = Root::open(output).map_err(|cause| Error::File { path: output.display().to_string(), cause })?;
    let record = Record::read(&root);
    let documents = record.documents.values().flat_map(|known| known.outputs.iter().map(|output| &output.path));
    let others = record.others.values().filter(|other| !other.gone).map(|other| &other.output.path);
    let mut files: Vec<&String> = documents.chain(others).collect();
    files.sort_unstable();
    files.dedup();
    let fail = |cause: io::Error| Error::File { path: path.display().to_string(), cause };
    let options = SimpleFileOptions::default()
        .compression_method(CompressionMethod::Deflated)
        .last_modified_time(DateTime::default())
        .unix_permissions(0o644);
    let mut writer = ZipWriter::new(BufWriter::new(Sink::open(path).map_err(fail)?));
    let mut count = 0;
    for file in files {
        // What is gone is gone, and what is a link is not what a run wrote; the next run tells.
        let Ok((Kind::File, size)) = root.itself(file.as_ref()) else { continue };
        let Ok(mut bytes) = root.open_file(file.as_ref()) else { continue };
        let options = options.large_file(size > u64::from(u32::MAX));
        writer.start_file(file.as_str(), options).map_err(|error| fail(io::Error::other(error)))?;
        io::copy(&mut bytes, &mut writer).map_err(fail)?;
        count += 1;
    }
    let buffer = writer.finish().map_err(|error| fail(io::Error::other(error)))?;
    buffer.into_inner().map_err(|error| fail(error.into_error()))?.end().map_err(fail)?;
    Ok(count)
}
