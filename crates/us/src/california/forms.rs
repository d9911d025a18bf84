//! When the forms of California are filed.

use super::{
    adjustments, code_credits, cover, credits, earned_income, form_540::is_prepared, form_540nr, itemized,
    kiddie, minimum_tax, payments,
};
use crate::unit::Filed;
use hembo_core::forms::Required;

/// A form of this state: of another place where the return is not prepared.
pub fn here(filed: Filed<'_>, so: bool, why_not: &'static str) -> Required {
    if is_prepared(filed.on) { Required::if_so(so, why_not) } else { Required::Elsewhere }
}

/// Form 540.
pub fn form_540(filed: Filed<'_>) -> Required {
    here(filed, !form_540nr::is_filed(filed.on), "not everyone lived in California all year")
}

/// Form 540NR, with column E of its Schedule CA.
pub fn form_540nr(filed: Filed<'_>) -> Required {
    here(filed, form_540nr::is_filed(filed.on), "everyone lived in California all year")
}

/// Schedule CA (540).
pub fn schedule_ca(filed: Filed<'_>) -> Required {
    let any = filed.has(adjustments::L14) || filed.has(adjustments::L16) || filed.on.unit.of_state.itemizes;
    here(filed, any, "nothing differs from the federal return")
}

/// Schedule P (540).
pub fn schedule_p(filed: Filed<'_>) -> Required {
    here(filed, filed.has(minimum_tax::L61), "no minimum tax")
}

/// FTB 3506.
pub fn form_3506(filed: Filed<'_>) -> Required {
    here(filed, filed.has(credits::L40), "no care credit")
}

/// FTB 3514.
pub fn form_3514(filed: Filed<'_>) -> Required {
    let lines = [earned_income::L75, earned_income::L76, earned_income::L77];
    here(filed, lines.into_iter().any(|line| filed.has(line)), "nothing is paid out")
}

/// FTB 3800: where it makes the tax.
pub fn form_3800(filed: Filed<'_>) -> Required {
    here(filed, filed.has(kiddie::L18), "no unearned income above the limit, or no child")
}

/// FTB 3805P.
pub fn form_3805p(filed: Filed<'_>) -> Required {
    here(filed, filed.has(payments::L63), "no early distribution")
}

/// FTB 3853: where someone was not covered in every month.
pub fn form_3853(filed: Filed<'_>) -> Required {
    let covered = filed.on.facts.of_state.as_ref().is_none_or(|of| of.cover.is_empty());
    here(filed, !covered || filed.has(cover::L92), "everyone was covered in every month")
}

/// The worksheets of lines 29, 32 and 43 to 46.
pub fn worksheets(filed: Filed<'_>) -> Required {
    let lines = [credits::L46, code_credits::L43, itemized::L29];
    here(filed, lines.into_iter().any(|line| filed.has(line)), "no such credit or limit")
}
