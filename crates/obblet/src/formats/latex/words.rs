//! Words that classes print by themselves above an abstract and before keywords (the documentation of babel, "Captions").

/// Languages with their words for an abstract and for keywords.
const WORDS: [(&str, &str, &str); 13] = [
    ("en", "Abstract", "Keywords"),
    ("cs", "Abstrakt", "Klíčová slova"),
    ("da", "Resumé", "Nøgleord"),
    ("de", "Zusammenfassung", "Schlüsselwörter"),
    ("es", "Resumen", "Palabras clave"),
    ("fi", "Tiivistelmä", "Avainsanat"),
    ("fr", "Résumé", "Mots-clés"),
    ("it", "Sommario", "Parole chiave"),
    ("nl", "Samenvatting", "Trefwoorden"),
    ("pl", "Streszczenie", "Słowa kluczowe"),
    ("pt", "Resumo", "Palavras-chave"),
    ("ru", "Аннотация", "Ключевые слова"),
    ("sv", "Sammanfattning", "Nyckelord"),
];

fn of(language: Option<&str>) -> &'static (&'static str, &'static str, &'static str) {
    let language = language.and_then(|language| language.get(..2)).unwrap_or_default();
    WORDS.iter().find(|(of, ..)| *of == language).unwrap_or(&WORDS[0])
}

/// What stands above an abstract.
pub(super) fn abstract_word(language: Option<&str>) -> &'static str {
    of(language).1
}

/// What stands before keywords.
pub(super) fn keywords_word(language: Option<&str>) -> &'static str {
    of(language).2
}

/// Whether words are those that stand above an abstract, in whichever language.
pub(super) fn is_abstract_word(words: &str) -> bool {
    WORDS.iter().any(|(_, word, _)| *word == words)
}
