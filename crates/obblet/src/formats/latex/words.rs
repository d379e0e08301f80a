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

/// Names of parts of a document by the commands for them, in English, German, French, Spanish and Italian.
const NAMES: [(&str, [&str; 5]); 13] = [
    ("figurename", ["Figure", "Abbildung", "Figure", "Figura", "Figura"]),
    ("tablename", ["Table", "Tabelle", "Table", "Cuadro", "Tabella"]),
    ("contentsname", ["Contents", "Inhaltsverzeichnis", "Table des matières", "Índice", "Indice"]),
    (
        "listfigurename",
        ["List of Figures", "Abbildungsverzeichnis", "Table des figures", "Índice de figuras", "Elenco delle figure"],
    ),
    (
        "listtablename",
        ["List of Tables", "Tabellenverzeichnis", "Liste des tableaux", "Índice de cuadros", "Elenco delle tabelle"],
    ),
    ("abstractname", ["Abstract", "Zusammenfassung", "Résumé", "Resumen", "Sommario"]),
    ("refname", ["References", "Literatur", "Références", "Referencias", "Riferimenti bibliografici"]),
    ("bibname", ["Bibliography", "Literaturverzeichnis", "Bibliographie", "Bibliografía", "Bibliografia"]),
    ("indexname", ["Index", "Index", "Index", "Índice alfabético", "Indice analitico"]),
    ("appendixname", ["Appendix", "Anhang", "Annexe", "Apéndice", "Appendice"]),
    ("chaptername", ["Chapter", "Kapitel", "Chapitre", "Capítulo", "Capitolo"]),
    ("partname", ["Part", "Teil", "Partie", "Parte", "Parte"]),
    ("proofname", ["Proof", "Beweis", "Démonstration", "Demostración", "Dimostrazione"]),
];

/// What a command for the name of a part of a document prints (the documentation of babel, "Captions").
pub(super) fn name_of_part(command: &str, language: Option<&str>) -> Option<&'static str> {
    let (_, words) = NAMES.iter().find(|(known, _)| *known == command)?;
    let language = language.and_then(|language| language.get(..2)).unwrap_or("en");
    let place = ["en", "de", "fr", "es", "it"].iter().position(|known| *known == language).unwrap_or(0);
    Some(words[place])
}

/// The word for a figure or a table in captions, as the languages of babel have it.
pub(super) fn caption_word(language: &str, is_table: bool) -> &'static str {
    match (language.get(..2).unwrap_or_default(), is_table) {
        ("fr", true) => "Table",
        ("es", true) => "Cuadro",
        _ => crate::refine::references::word_for(language, is_table),
    }
}
