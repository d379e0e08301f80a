//! Errors of the system in words.

/// What an error of the system means to a person: in words, without its number.
#[must_use]
pub fn describe(error: &std::io::Error) -> String {
    match error.kind() {
        std::io::ErrorKind::NotFound => "there is no such file".to_owned(),
        std::io::ErrorKind::PermissionDenied => "permission denied".to_owned(),
        std::io::ErrorKind::StorageFull => "there is no space left on the disk".to_owned(),
        std::io::ErrorKind::IsADirectory => "it is a folder".to_owned(),
        std::io::ErrorKind::NotADirectory | std::io::ErrorKind::AlreadyExists => "a part of its path is no folder".to_owned(),
        _ => error.to_string().split(" (os error").next().unwrap_or_default().to_lowercase(),
    }
}
