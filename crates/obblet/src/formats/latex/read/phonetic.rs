//! Signs of the International Phonetic Alphabet (the documentation of tipa, "TIPA: a system for processing phonetic symbols", and its
//! list of symbols): what letters and digits stand for, and the commands for signs.

use super::Reader;
use super::tokens::{Kind as Sign, Token};

/// What characters stand for, each before its sign.
const SIGNS: &str = "AɑBβCɕDðEɛFɸGɣHɦIɪJʝKʁLʎMɱNŋOɔPʔQʕRɾSʃTθUʊVʋWɯXχYʏZʒ0ʉ1ɨ2ʌ3ɜ4ɥ5ɐ6ɒ7ɤ8ɵ9ɘ@ə:ː;ˑ\"ˈ!ꜝgɡ";

/// What letters stand for behind a command: most of them are turned, of small capitals, retroflex, or imploded.
const BEHIND_COMMANDS: [(&str, &str); 4] =
    [("*", "fɟkʞrɹtʇwʍjɟnɲhħlɬzɮ"), (";", "AᴀBʙEᴇGɢHʜJᴊLʟNɴRʀUᴜ"), (":", "dɖlɭnɳrɽsʂtʈzʐRɻ"), ("!", "bɓdɗgɠjʄGʛoʘ")];

/// Commands that put a sign above or below a letter.
const DIACRITICS: &str = "s \u{329} textsyllabic \u{329} textsubring \u{325} r* \u{325} textsubbridge \u{32A} textsubarch \u{32F} \
     textsubwedge \u{32C} textsubumlaut \u{324} textsubtilde \u{330} textsubsquare \u{33B} textseagull \u{33C} textraising \u{31D} \
     textlowering \u{31E} textadvancing \u{31F} textretracting \u{320} textsuperimposetilde \u{334} textsubdot \u{323} textsublhalfring \
     \u{31C} textsubrhalfring \u{339} textovercross \u{33D} texttoptiebar \u{361} textbottomtiebar \u{35C} textinvsubbridge \u{33A} \
     textsubplus \u{31F} textsubminus \u{320}";

/// Commands for signs.
pub(super) const NAMES: &str = "textturna ɐ textscripta ɑ textturnscripta ɒ textbarb ƀ texthtb ɓ textscb ʙ textbeta β textctc ɕ \
     texthtd ɗ textrtaild ɖ textdzlig ʣ textschwa ə textrhookschwa ɚ textreve ɘ textopeno ɔ textrevepsilon ɜ textcloseepsilon ɞ \
     textcloserevepsilon ɞ textrhookrevepsilon ɝ textesh ʃ textctesh ʆ textscriptg ɡ textgamma ɣ textbabygamma ɤ texthtg ɠ textscg ɢ \
     texthtscg ʛ textcrh ħ texthth ɦ texththeng ɧ textturnh ɥ textsch ʜ textbari ɨ textsci ɪ textctj ʝ textbardotlessj ɟ texthtbardotlessj \
     ʄ textturnk ʞ textltilde ɫ textbeltl ɬ textrtaill ɭ textlyoghlig ɮ textscl ʟ textturny ʎ textltailm ɱ textturnm ɯ textturnmrleg ɰ \
     textltailn ɲ textrtailn ɳ textscn ɴ textbullseye ʘ textbaro ɵ textphi ɸ textfishhookr ɾ textlonglegr ɼ textrtailr ɽ textturnr ɹ \
     textturnlonglegr ɺ textturnrrtail ɻ textscr ʀ textinvscr ʁ textrtails ʂ textrtailt ʈ textturnt ʇ texttheta θ textteshlig ʧ textbaru ʉ \
     textupsilon ʊ textscriptv ʋ textturnv ʌ textturnw ʍ textchi χ textscy ʏ textctz ʑ textrtailz ʐ textyogh ʒ textctyogh ʓ textglotstop ʔ \
     textbarglotstop ʡ textrevglotstop ʕ textbarrevglotstop ʢ textraiseglotstop ˀ textpipe ǀ textdoublepipe ǁ textdoublebarpipe ǂ \
     textexclam ǃ textprimstress ˈ textsecstress ˌ textlengthmark ː texthalflength ˑ textvertline | textdoublevertline ‖ textglobrise ↗ \
     textglobfall ↘ textdownstep ꜜ textupstep ꜛ textcorner ˺ textrhoticity ˞ textepsilon ɛ textlambda λ textomega ω textiota ι textscoelig ɶ";

fn behind(pairs: &str, wanted: char) -> Option<char> {
    let mut signs = pairs.chars();
    while let (Some(known), Some(sign)) = (signs.next(), signs.next()) {
        if known == wanted {
            return Some(sign);
        }
    }
    None
}

/// The sign that a command puts above or below a letter.
fn diacritic(name: &str) -> Option<&'static str> {
    let mut words = DIACRITICS.split_ascii_whitespace();
    while let (Some(known), Some(sign)) = (words.next(), words.next()) {
        if known == name {
            return Some(sign);
        }
    }
    None
}

impl Reader<'_> {
    /// `\textipa{…}`, and commands that put signs above and below letters. Whether a command is one of these.
    pub(super) fn phonetic(&mut self, name: &str) -> bool {
        if name == "textipa" {
            let argument = self.input.argument();
            let signs = self.phonetic_signs(&argument);
            self.input.push_all(signs.into_iter());
            return true;
        }
        let Some(sign) = diacritic(name).filter(|_| name.len() > 2) else { return false };
        let argument = self.input.argument();
        let mut letters = self.words(&argument);
        letters.insert_str(letters.chars().next().map_or(0, char::len_utf8), sign);
        self.text(&letters);
        true
    }

    /// What tokens become in the encoding for phonetic signs.
    fn phonetic_signs(&self, tokens: &[Token]) -> Vec<Token> {
        let mut out: Vec<Token> = Vec::with_capacity(tokens.len());
        let sign = |c: char, at: u32| Token { kind: Sign::Char(c), at };
        // What letters stand for behind the command before them, and what is put above or below the next one.
        let (mut table, mut above): (Option<&str>, Option<&str>) = (None, None);
        // Two primes are one below.
        let mut primes = 0;
        for token in tokens {
            let characters = match &token.kind {
                Sign::Command(name) => {
                    if let Some((_, pairs)) = BEHIND_COMMANDS.iter().find(|(known, _)| *known == &**name) {
                        table = Some(pairs);
                    } else if let Some(sign) = diacritic(name) {
                        above = Some(sign);
                    } else if &**name == "textipa" {
                        // They are in that encoding already.
                    } else if &**name == "super" {
                        out.push(Token { kind: Sign::Command("textsuperscript".into()), at: token.at });
                    } else {
                        out.push(token.clone());
                    }
                    continue;
                }
                Sign::Text(..) | Sign::Char(_) => self.input.characters(std::slice::from_ref(token)),
                Sign::Begin | Sign::End if above.is_some() || table.is_some() => continue,
                _ => {
                    out.push(token.clone());
                    continue;
                }
            };
            for c in characters.chars() {
                if c == '"' && primes == 1 {
                    out.pop();
                    out.push(sign('ˌ', token.at));
                    primes = 0;
                    continue;
                }
                primes = u8::from(c == '"');
                let shown = match table.take() {
                    Some(pairs) => behind(pairs, c).unwrap_or(c),
                    None => behind(SIGNS, c).unwrap_or(c),
                };
                out.push(sign(shown, token.at));
                if let Some(mark) = above.take() {
                    out.extend(mark.chars().map(|c| sign(c, token.at)));
                }
            }
        }
        out
    }
}
