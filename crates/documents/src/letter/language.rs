//! In which language a letter is: how its amounts and days are written, and the few words that are merged into it. The names of
//! lines, papers and ways stay those of the law's own forms.

use crate::pack::size;
use hembo_core::pack::About;
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use time::{Date, format_description::BorrowedFormatItem, macros::format_description};
use utoipa::ToSchema;

/// A language of letters.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[schema(as = LetterLanguage)]
#[allow(missing_docs)]
pub enum Language {
    #[default]
    #[serde(rename = "en")]
    English,
    #[serde(rename = "es")]
    Spanish,
    #[serde(rename = "fr")]
    French,
    #[serde(rename = "de")]
    German,
    #[serde(rename = "af")]
    Afrikaans,
}

/// Its words: "and", what an amount is more or less by, and the months.
struct Spoken {
    and: &'static str,
    more: &'static str,
    less: &'static str,
    family: &'static str,
    months: [&'static str; 12],
}

/// A day as it is handed over: "3 March 2026".
pub const DAY: &[BorrowedFormatItem<'_>] = format_description!("[day padding:none] [month repr:long] [year]");

const ENGLISH: Spoken = Spoken {
    and: "and",
    more: "more",
    less: "less",
    family: "the household",
    months: [
        "January",
        "February",
        "March",
        "April",
        "May",
        "June",
        "July",
        "August",
        "September",
        "October",
        "November",
        "December",
    ],
};

const SPANISH: Spoken = Spoken {
    and: "y",
    more: "más",
    less: "menos",
    family: "la familia",
    months: [
        "enero",
        "febrero",
        "marzo",
        "abril",
        "mayo",
        "junio",
        "julio",
        "agosto",
        "septiembre",
        "octubre",
        "noviembre",
        "diciembre",
    ],
};

const FRENCH: Spoken = Spoken {
    and: "et",
    more: "de plus",
    less: "de moins",
    family: "la famille",
    months: [
        "janvier",
        "février",
        "mars",
        "avril",
        "mai",
        "juin",
        "juillet",
        "août",
        "septembre",
        "octobre",
        "novembre",
        "décembre",
    ],
};

const GERMAN: Spoken = Spoken {
    and: "und",
    more: "mehr",
    less: "weniger",
    family: "die Familie",
    months: [
        "Januar",
        "Februar",
        "März",
        "April",
        "Mai",
        "Juni",
        "Juli",
        "August",
        "September",
        "Oktober",
        "November",
        "Dezember",
    ],
};

const AFRIKAANS: Spoken = Spoken {
    and: "en",
    more: "meer",
    less: "minder",
    family: "die gesin",
    months: [
        "Januarie",
        "Februarie",
        "Maart",
        "April",
        "Mei",
        "Junie",
        "Julie",
        "Augustus",
        "September",
        "Oktober",
        "November",
        "Desember",
    ],
};

impl Language {
    /// All of them.
    pub const ALL: [Language; 5] =
        [Language::English, Language::Spanish, Language::French, Language::German, Language::Afrikaans];

    /// Its code, as documents name it: "fr".
    pub const fn code(self) -> &'static str {
        match self {
            Language::English => "en",
            Language::Spanish => "es",
            Language::French => "fr",
            Language::German => "de",
            Language::Afrikaans => "af",
        }
    }

    /// The language with this code.
    pub fn named(code: &str) -> Option<Language> {
        Language::ALL.into_iter().find(|language| language.code() == code)
    }

    const fn spoken(self) -> &'static Spoken {
        match self {
            Language::English => &ENGLISH,
            Language::Spanish => &SPANISH,
            Language::French => &FRENCH,
            Language::German => &GERMAN,
            Language::Afrikaans => &AFRIKAANS,
        }
    }

    /// A day that was written in English, in this language; any other words stay as they are.
    pub(super) fn day(self, written: &str) -> String {
        let Ok(day) = Date::parse(written, DAY) else { return written.to_owned() };
        let month = self.spoken().months[usize::from(u8::from(day.month())) - 1];
        let (number, year) = (day.day(), day.year());
        match self {
            Language::English | Language::Afrikaans => format!("{number} {month} {year}"),
            Language::Spanish => format!("{number} de {month} de {year}"),
            Language::French if number == 1 => format!("1er {month} {year}"),
            Language::French => format!("{number} {month} {year}"),
            Language::German => format!("{number}. {month} {year}"),
        }
    }

    /// Names one after the other.
    pub(crate) fn and(self, names: &[&str]) -> String {
        let Spoken { and, family, .. } = self.spoken();
        match names {
            [] => (*family).into(),
            [one] => (*one).into(),
            [first @ .., last] => {
                let and = if self == Language::Spanish && sounds_as_y(last) { "e" } else { and };
                format!("{} {and} {last}", first.join(", "))
            }
        }
    }

    /// An amount with the mark of its currency; the two stay on one line.
    pub(super) fn money(self, amount: Money, about: &About) -> String {
        let number = self.number(size(amount), about);
        let sign = if amount.is_negative() { "−" } else { "" };
        match self {
            Language::French | Language::German => format!("{sign}{number}\u{a0}{}", about.symbol),
            _ => format!("{sign}{}\u{a0}{number}", about.symbol),
        }
    }

    /// By how much something is more or less.
    pub(super) fn apart(self, by: Money, about: &About) -> String {
        let Spoken { more, less, .. } = self.spoken();
        format!("{} {}", self.number(size(by), about), if by.is_negative() { less } else { more })
    }

    /// An amount without sign, its cents where it has any: in English and Spanish as the country of the law writes it.
    fn number(self, amount: Money, about: &About) -> String {
        let grouped = |thousands: &str| {
            format!("{amount:#}").replace(',', "\u{1}").replace('.', ",").replace('\u{1}', thousands)
        };
        match self {
            Language::English | Language::Spanish => about.numbers.amount(amount),
            Language::German => grouped("."),
            Language::French | Language::Afrikaans => grouped("\u{a0}"),
        }
    }
}

/// Whether a name begins with the sound of "i", before which "y" becomes "e".
fn sounds_as_y(name: &str) -> bool {
    let name = name.to_lowercase();
    let begins = |with: &str| name.starts_with(with);
    (begins("i") || begins("hi") || begins("í")) && !begins("hie") && !begins("ia") && !begins("io")
}

#[cfg(test)]
mod tests {
    use super::*;
    use hembo_testing::laws::every_law;

    #[test]
    fn amounts_days_and_names_are_written_as_the_language_has_them() {
        let registry = every_law();
        let about = |law: &str| registry.pack(law).map(|pack| pack.about());
        let (us, de) = (about("us").unwrap(), about("de").unwrap());
        let amount = Money::from_cents(-123_456_789);
        let written = |language: Language, of: &About| language.money(amount, of).replace('\u{a0}', "_");
        assert_eq!(written(Language::English, &us), "−$_1,234,567.89");
        assert_eq!(written(Language::Spanish, &us), "−$_1,234,567.89");
        assert_eq!(written(Language::French, &us), "−1_234_567,89_$");
        assert_eq!(written(Language::German, &de), "−1.234.567,89_€");
        assert_eq!(written(Language::Afrikaans, &us), "−$_1_234_567,89");
        assert_eq!(written(Language::English, &de), "−€_1.234.567,89");
        assert_eq!(Language::French.apart(Money::whole(12), &us), "12 de plus");
        assert_eq!(Language::German.apart(Money::whole(-1_200), &de), "1.200 weniger");
        for (language, first, last) in [
            (Language::English, "1 March 2026", "31 December 2025"),
            (Language::Spanish, "1 de marzo de 2026", "31 de diciembre de 2025"),
            (Language::French, "1er mars 2026", "31 décembre 2025"),
            (Language::German, "1. März 2026", "31. Dezember 2025"),
            (Language::Afrikaans, "1 Maart 2026", "31 Desember 2025"),
        ] {
            assert_eq!([language.day("1 March 2026"), language.day("31 December 2025")], [first, last]);
            assert_eq!(language.day("soon"), "soon");
            assert_eq!(Language::named(language.code()), Some(language));
        }
        assert_eq!(Language::Spanish.and(&["Tamsin", "Osric"]), "Tamsin y Osric");
        assert_eq!(Language::Spanish.and(&["Tamsin", "Ingrid"]), "Tamsin e Ingrid");
        assert_eq!(Language::German.and(&["A", "B", "C"]), "A, B und C");
        assert_eq!(Language::French.and(&[]), "la famille");
    }
}
