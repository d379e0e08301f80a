//! Names of styles and the classes that stand for them: which names are found again from their class.

/// The property with the name of a style where its class does not say it (CSS Custom Properties, section 2).
pub(crate) const STYLE_NAME: &str = "--style-name";

/// The name of a style, as its class says it: words with capitals.
pub(crate) fn style_name_of_class(class: &str) -> String {
    let mut name = String::with_capacity(class.len());
    for (index, word) in class.split('-').enumerate() {
        if index > 0 {
            name.push(' ');
        }
        let mut characters = word.chars();
        name.extend(characters.next().map(|first| first.to_ascii_uppercase()));
        name.push_str(characters.as_str());
    }
    name
}

/// Whether the name of a style has to be said beside its class. Names without capitals are those that word processors have built in;
/// these are found whatever their capitals are.
pub(crate) fn needs_name(name: &str, class: &str) -> bool {
    let by_class = style_name_of_class(class);
    name != by_class && (!name.eq_ignore_ascii_case(&by_class) || name.bytes().any(|byte| byte.is_ascii_uppercase()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_said_where_classes_do_not_say_them() {
        assert_eq!(style_name_of_class("body-text-2"), "Body Text 2");
        for (name, class, needed) in [
            ("Body Text", "body-text", false),
            ("heading 1", "heading-1", false),
            ("HTML Code", "html-code", true),
            ("\u{DC}berschrift", "berschrift", true),
            ("Quote", "quote-2", true),
        ] {
            assert_eq!(needs_name(name, class), needed, "{name}");
        }
    }
}
