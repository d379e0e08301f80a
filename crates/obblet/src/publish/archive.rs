//! All that has to be uploaded, in one file.

use super::record::Record;
use super::write_whole;
use crate::error::Error;
use std::io::Write;
use std::path::Path;
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, DateTime, ZipWriter};

/// Packs everything that the last run made of a folder into an archive; files that somebody else put beside it stay out. The
/// same files make the same archive, byte for byte.
///
/// # Errors
/// Where a file can't be read, or the archive can't be written.
pub fn archive(output: &Path, path: &Path) -> Result<usize, Error> {
    let record = Record::read(output);
    let documents = record.documents.values().flat_map(|known| known.outputs.iter().map(|output| &output.path));
    let others = record.others.values().filter(|other| !other.gone).map(|other| &other.output.path);
    let mut files: Vec<&String> = documents.chain(others).collect();
    files.sort_unstable();
    files.dedup();
    let fail = |cause: std::io::Error| Error::File { path: path.display().to_string(), cause };
    let options = SimpleFileOptions::default()
        .compression_method(CompressionMethod::Deflated)
        .last_modified_time(DateTime::default())
        .unix_permissions(0o644);
    let mut writer = ZipWriter::new(std::io::Cursor::new(Vec::new()));
    let mut count = 0;
    for file in files {
        let full = output.join(file);
        // What is gone is gone; the next run tells.
        let Ok(bytes) = std::fs::read(&full) else { continue };
        writer.start_file(file.as_str(), options).map_err(|error| fail(std::io::Error::other(error)))?;
        writer.write_all(&bytes).map_err(fail)?;
        count += 1;
    }
    let bytes = writer.finish().map_err(|error| fail(std::io::Error::other(error)))?.into_inner();
    write_whole(path, &bytes)?;
    Ok(count)
}
