//! Languages by the names that packages have for them (the documentation of babel).

/// Languages by the names that packages have for them.
const LANGUAGES: [(&str, &str); 43] = [
    ("american", "en-US"),
    ("arabic", "ar"),
    ("australian", "en-AU"),
    ("brazil", "pt-BR"),
    ("brazilian", "pt-BR"),
    ("british", "en-GB"),
    ("bulgarian", "bg"),
    ("catalan", "ca"),
    ("chinese", "zh"),
    ("croatian", "hr"),
    ("czech", "cs"),
    ("danish", "da"),
    ("dutch", "nl"),
    ("english", "en"),
    ("finnish", "fi"),
    ("french", "fr"),
    ("francais", "fr"),
    ("frenchb", "fr"),
    ("german", "de"),
    ("germanb", "de"),
    ("naustrian", "de-AT"),
    ("ngerman", "de"),
    ("greek", "el"),
    ("hebrew", "he"),
    ("hungarian", "hu"),
    ("icelandic", "is"),
    ("italian", "it"),
    ("japanese", "ja"),
    ("korean", "ko"),
    ("latin", "la"),
    ("lithuanian", "lt"),
    ("norsk", "nb"),
    ("persian", "fa"),
    ("polish", "pl"),
    ("portuguese", "pt"),
    ("romanian", "ro"),
    ("russian", "ru"),
    ("slovak", "sk"),
    ("slovene", "sl"),
    ("spanish", "es"),
    ("swedish", "sv"),
    ("turkish", "tr"),
    ("ukrainian", "uk"),
];

/// The tag of a language.
pub(super) fn language_of(name: &str) -> Option<&'static str> {
    LANGUAGES.iter().find(|(known, _)| *known == name).map(|(_, tag)| *tag)
}

/// The name of a language, by its tag (BCP 47): that of the whole tag, or of the language alone.
pub(super) fn name_of(tag: &str) -> Option<&'static str> {
    let named = |wanted: &str| NAMES.iter().find(|(_, tag)| tag.eq_ignore_ascii_case(wanted)).map(|(name, _)| *name);
    named(tag).or_else(|| named(tag.split('-').next().unwrap_or(tag)))
}

/// The names that the writer uses: those of babel's own files.
const NAMES: [(&str, &str); 38] = [
    ("american", "en-US"),
    ("arabic", "ar"),
    ("australian", "en-AU"),
    ("brazilian", "pt-BR"),
    ("british", "en-GB"),
    ("bulgarian", "bg"),
    ("catalan", "ca"),
    ("chinese", "zh"),
    ("croatian", "hr"),
    ("czech", "cs"),
    ("danish", "da"),
    ("dutch", "nl"),
    ("english", "en"),
    ("finnish", "fi"),
    ("french", "fr"),
    ("german", "de"),
    ("greek", "el"),
    ("hebrew", "he"),
    ("hungarian", "hu"),
    ("icelandic", "is"),
    ("italian", "it"),
    ("japanese", "ja"),
    ("korean", "ko"),
    ("latin", "la"),
    ("lithuanian", "lt"),
    ("norsk", "nb"),
    ("persian", "fa"),
    ("polish", "pl"),
    ("portuguese", "pt"),
    ("romanian", "ro"),
    ("russian", "ru"),
    ("slovak", "sk"),
    ("slovene", "sl"),
    ("spanish", "es"),
    ("swedish", "sv"),
    ("turkish", "tr"),
    ("ukrainian", "uk"),
    ("vietnamese", "vi"),
];
