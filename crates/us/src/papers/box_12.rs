//! Box 12 of Form W-2: its codes, each with what it does to a return.

use crate::figures::Figures;
use hembo_core::{Paper, field::Choice};

/// What a code of box 12 does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Does {
    /// Nothing that box 1 does not already hold, or that the return asks for.
    Nothing,
    /// Payroll tax that the employer could not collect.
    Uncollected,
    /// An elective deferral: in boxes 3 and 5, not in box 1; counts for the saver's credit.
    Deferral,
    /// A designated Roth contribution, which is in box 1; counts for the saver's credit.
    RothDeferral,
    /// An excise tax that the return pays (§4999).
    Excise,
    /// Contributions to a health savings account (§106(d)).
    HealthSavings,
    /// Pay of a combat zone (§112).
    CombatPay,
    /// Medicaid waiver payments (Notice 2014-7).
    Waiver,
    /// Moving expenses paid back (§132(g)(2)).
    Moving,
    /// Qualified tips (§224).
    Tips,
    /// Qualified overtime (§225).
    Overtime,
    /// Something that is not computed yet.
    Needs(&'static str),
}

/// A code of box 12.
#[derive(Debug, Clone, Copy)]
pub struct Code {
    /// The letters on the form.
    pub id: &'static str,
    label: &'static str,
    /// What it does.
    pub does: Does,
}

impl Code {
    /// Whether it is a small employer's reimbursement of health premiums (§9831(d)).
    pub fn reimburses_premiums(&self) -> bool {
        self.id == "FF"
    }

    /// Whether it is an elective deferral within the limit of §402(g)(3): not of a plan under 457(b) or 501(c)(18)(D).
    pub fn is_elective(&self) -> bool {
        matches!(self.id, "D" | "E" | "F" | "S" | "AA" | "BB")
    }

    /// Whether a year's Form W-2 has it: those of P.L. 119-21 are on it from 2026.
    pub fn is_of(&self, figures: &Figures) -> bool {
        figures.tips.as_ref().is_some_and(|tips| tips.by_code == Some(true))
            || !matches!(self.id, "TA" | "TP" | "TT")
    }

    /// Whether it is a deferral of a plan under 457(b), which has a limit of its own.
    pub fn is_457(&self) -> bool {
        matches!(self.id, "G" | "EE")
    }
}

/// Every code of box 12 with what it does: the one list.
pub const CODES: &[Code] = &[
    Code { id: "A", label: "A · uncollected social security tax on tips", does: Does::Uncollected },
    Code { id: "B", label: "B · uncollected Medicare tax on tips", does: Does::Uncollected },
    Code { id: "C", label: "C · taxable group-term life insurance", does: Does::Nothing },
    Code { id: "D", label: "D · elective deferrals, 401(k)", does: Does::Deferral },
    Code { id: "E", label: "E · elective deferrals, 403(b)", does: Does::Deferral },
    Code { id: "F", label: "F · elective deferrals, 408(k)(6)", does: Does::Deferral },
    Code { id: "G", label: "G · deferrals, 457(b)", does: Does::Deferral },
    Code { id: "H", label: "H · elective deferrals, 501(c)(18)(D)", does: Does::Deferral },
    Code { id: "J", label: "J · nontaxable sick pay", does: Does::Nothing },
    Code { id: "K", label: "K · excise tax on golden parachute", does: Does::Excise },
    Code { id: "L", label: "L · expense reimbursements", does: Does::Nothing },
    Code {
        id: "M", label: "M · uncollected social security tax on life insurance", does: Does::Uncollected
    },
    Code { id: "N", label: "N · uncollected Medicare tax on life insurance", does: Does::Uncollected },
    Code { id: "P", label: "P · excludable moving reimbursements", does: Does::Moving },
    Code { id: "Q", label: "Q · nontaxable combat pay", does: Does::CombatPay },
    Code { id: "R", label: "R · employer contributions to an Archer MSA", does: Does::Needs("Form 8853") },
    Code { id: "S", label: "S · SIMPLE deferrals, 408(p)", does: Does::Deferral },
    Code { id: "T", label: "T · adoption benefits", does: Does::Needs("Form 8839") },
    Code { id: "V", label: "V · income from nonstatutory options", does: Does::Nothing },
    Code { id: "W", label: "W · contributions to a health savings account", does: Does::HealthSavings },
    Code { id: "Y", label: "Y · deferrals under 409A", does: Does::Nothing },
    Code { id: "Z", label: "Z · income under 409A", does: Does::Needs("an additional tax on Schedule 2") },
    Code { id: "AA", label: "AA · designated Roth, 401(k)", does: Does::RothDeferral },
    Code { id: "BB", label: "BB · designated Roth, 403(b)", does: Does::RothDeferral },
    Code { id: "DD", label: "DD · cost of health cover", does: Does::Nothing },
    Code { id: "EE", label: "EE · designated Roth, 457(b)", does: Does::RothDeferral },
    Code { id: "FF", label: "FF · small-employer health reimbursement", does: Does::Nothing },
    Code { id: "GG", label: "GG · income under 83(i)", does: Does::Nothing },
    Code { id: "HH", label: "HH · deferrals under 83(i)", does: Does::Nothing },
    Code { id: "II", label: "II · excluded Medicaid waiver payments", does: Does::Waiver },
    Code { id: "TA", label: "TA · employer's contributions to a Trump account", does: Does::Nothing },
    Code { id: "TP", label: "TP · qualified tips", does: Does::Tips },
    Code { id: "TT", label: "TT · qualified overtime", does: Does::Overtime },
];

/// The codes as they are chosen.
pub const CHOICES: [Choice; CODES.len()] = {
    let mut choices = [Choice::new("", ""); CODES.len()];
    let mut at = 0;
    while at < CODES.len() {
        choices[at] = Choice::new(CODES[at].id, CODES[at].label);
        at += 1;
    }
    choices
};

/// The four lines of box 12: code box, amount box.
pub const BOX_12: [(&str, &str); 4] =
    [("12a", "12a.amount"), ("12b", "12b.amount"), ("12c", "12c.amount"), ("12d", "12d.amount")];

/// The lines of box 12 that have a code: the code's box, the amount's, and the code.
pub fn coded(paper: &Paper) -> impl Iterator<Item = (&'static str, &'static str, &'static Code)> + '_ {
    BOX_12.into_iter().filter_map(|(field, amount)| {
        let id = paper.text(field)?;
        Some((field, amount, CODES.iter().find(|code| code.id == id)?))
    })
}
