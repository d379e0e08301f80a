//! How settings are declared: one macro for each sort of value, with the key, the field and the meaning.

/// A setting that is one of several names; the type says which.
macro_rules! choice {
    ($key:literal, $kind:ty, $($field:ident).+, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: $crate::settings::choices::<$kind>,
            get: |section| $crate::settings::Value::text($crate::settings::Choice::name(section.$($field).+)),
            set: |section, value| {
                section.$($field).+ = <$kind as $crate::settings::Choice>::read(value)?;
                Some(())
            },
        }
    };
}

macro_rules! flag {
    ($key:literal, $($field:ident).+, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: || "true, false".to_owned(),
            get: |section| $crate::settings::Value::Flag(bool::from(section.$($field).+)),
            set: |section, value| {
                section.$($field).+ = $crate::settings::parse::flag(value)?.into();
                Some(())
            },
        }
    };
}

/// A flag that is one of a set.
macro_rules! bit {
    ($key:literal, $($field:ident).+, $flag:expr, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: || "true, false".to_owned(),
            get: |section| $crate::settings::Value::Flag(section.$($field).+.contains($flag)),
            set: |section, value| {
                section.$($field).+.set($flag, $crate::settings::parse::flag(value)?);
                Some(())
            },
        }
    };
}

macro_rules! number {
    ($key:literal, $($field:ident).+, $least:literal to $most:literal, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: || format!("a whole number from {} to {}", $least, $most),
            get: |section| $crate::settings::Value::Number(section.$($field).+ as i64),
            set: |section, value| {
                let number = $crate::settings::parse::number(value).filter(|number| ($least..=$most).contains(number))?;
                section.$($field).+ = number.try_into().ok()?;
                Some(())
            },
        }
    };
}

macro_rules! text {
    ($key:literal, $($field:ident).+, $meaning:literal) => {
        text!($key, $($field).+, "text", |_: &str| true, $meaning)
    };
    ($key:literal, $($field:ident).+, $values:literal, $is:expr, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: || $values.to_owned(),
            get: |section| $crate::settings::Value::text(&section.$($field).+),
            set: |section, value| {
                section.$($field).+ = $crate::settings::parse::text(value).filter(|text| $is(text.as_str()))?;
                Some(())
            },
        }
    };
}

macro_rules! list {
    ($key:literal, $($field:ident).+, $values:literal, $meaning:literal) => {
        list!($key, $($field).+, $values, |_: &str| true, $meaning)
    };
    ($key:literal, $($field:ident).+, $values:literal, $holds:expr, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: || $values.to_owned(),
            get: |section| $crate::settings::Value::List(section.$($field).+.clone()),
            set: |section, value| {
                section.$($field).+ = $crate::settings::parse::list(value).filter(|list| list.iter().all(|entry| $holds(entry.as_str())))?;
                Some(())
            },
        }
    };
}

macro_rules! file {
    ($key:literal, $($field:ident).+, $meaning:literal) => {
        $crate::settings::Setting {
            key: $key,
            meaning: $meaning,
            values: || "the path of a file".to_owned(),
            get: |section| $crate::settings::Value::Text(section.$($field).+.as_ref().map(|path| path.display().to_string()).unwrap_or_default()),
            set: |section, value| {
                section.$($field).+ = Some(std::path::PathBuf::from($crate::settings::parse::text(value)?)).filter(|path| !path.as_os_str().is_empty());
                Some(())
            },
        }
    };
}

pub(crate) use {bit, choice, file, flag, list, number, text};
