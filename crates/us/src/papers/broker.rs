//! A broker's statement of the year: several official forms on one paper.

use hembo_core::{
    gathered::{Gathered, Part},
    paper::subject,
    provision::Provision,
};

/// What this paper declares.
pub static PROVISION: Provision = Provision { gathered: &[STATEMENT], ..Provision::NONE };

const STATEMENT: Gathered = Gathered {
    id: "Broker",
    subject: subject::INVESTMENTS,
    name: "Broker's statement of the year",
    words: "consolidated 1099 composite brokerage dividends interest sales shares funds",
    title: "Broker",
    headline: "div.1a",
    parts: &[
        Part { prefix: "div", kind: "1099-DIV" },
        Part { prefix: "int", kind: "1099-INT" },
        Part { prefix: "oid", kind: "1099-OID" },
        Part { prefix: "b", kind: "1099-B" },
    ],
    once: &["separate"],
};
