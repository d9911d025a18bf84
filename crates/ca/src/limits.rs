//! Every limit that this pack applies.

use hembo_core::limit::LimitDef;

/// ITA 180.2(2).
pub static OAS_RECOVERY: LimitDef = LimitDef {
    id: "ca.limit.oas",
    label: "Old age security",
    how: "shrinks with income above the threshold",
    line: "ca.23500",
    cite: "ITA 180.2(2)",
};
/// ITA 146(5).
pub static RRSP_LIMIT: LimitDef = LimitDef {
    id: "ca.limit.rrsp",
    label: "Retirement contributions",
    how: "over the deduction limit, kept for later",
    line: "ca.20800",
    cite: "ITA 146(5)",
};
/// ITA 118(1.1).
pub static BASIC: LimitDef = LimitDef {
    id: "ca.limit.basic",
    label: "Basic personal amount",
    how: "shrinks through the fourth bracket",
    line: "ca.30000",
    cite: "ITA 118(1.1)",
};
/// ITA 118(2).
pub static AGE: LimitDef = LimitDef {
    id: "ca.limit.age",
    label: "Age amount",
    how: "shrinks with net income",
    line: "ca.30100",
    cite: "ITA 118(2)",
};
/// provincial act.
pub static AGE_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.age_provincial",
    label: "Age amount, province",
    how: "shrinks with net income",
    line: "ca.58080",
    cite: "provincial act",
};
/// ITA 118.8, 118.9.
pub static TUITION_TRANSFER: LimitDef = LimitDef {
    id: "ca.limit.tuition",
    label: "Tuition handed on",
    how: "over the most that may be transferred",
    line: "ca.32700",
    cite: "ITA 118.8, 118.9",
};
/// ITA 118.2(1).
pub static MEDICAL: LimitDef = LimitDef {
    id: "ca.limit.medical",
    label: "Medical bills",
    how: "only above the threshold",
    line: "ca.33200",
    cite: "ITA 118.2(1)",
};
/// provincial act.
pub static MEDICAL_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.medical_provincial",
    label: "Medical bills, province",
    how: "only above the threshold",
    line: "ca.58769",
    cite: "provincial act",
};
/// ITA 122.51.
pub static SUPPLEMENT: LimitDef = LimitDef {
    id: "ca.limit.supplement",
    label: "Medical supplement",
    how: "shrinks with family income",
    line: "ca.45200",
    cite: "ITA 122.51",
};
/// ITA 118.1(1).
pub static GIFTS: LimitDef = LimitDef {
    id: "ca.limit.gifts",
    label: "Gifts",
    how: "over the part of net income, kept for later",
    line: "ca.34000",
    cite: "ITA 118.1(1)",
};
/// ITA 118-118.9.
pub static CREDITS: LimitDef = LimitDef {
    id: "ca.limit.credits",
    label: "Federal credits",
    how: "beyond the tax, lost",
    line: "ca.35000",
    cite: "ITA 118-118.9",
};
/// provincial act.
pub static CREDITS_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.credits_provincial",
    label: "Provincial credits",
    how: "beyond the tax, lost",
    line: "ca.61500",
    cite: "provincial act",
};
/// Taxation Act, 2007, s. 21.1.
pub static LIFT: LimitDef = LimitDef {
    id: "ca.limit.lift",
    label: "Low-income workers' credit",
    how: "shrinks with income",
    line: "ca.ontario.lift",
    cite: "Taxation Act, 2007, s. 21.1",
};
/// ITA 122.7.
pub static WORKERS_BENEFIT: LimitDef = LimitDef {
    id: "ca.limit.workers_benefit",
    label: "Workers benefit",
    how: "shrinks with family income",
    line: "ca.45300",
    cite: "ITA 122.7",
};
/// ON479.
pub static SENIORS_CARE: LimitDef = LimitDef {
    id: "ca.limit.seniors_care",
    label: "Seniors' care at home",
    how: "shrinks with family income",
    line: "ca.47900",
    cite: "Taxation Act, 2007; ON479",
};
/// AB428.
pub static CAREGIVER: LimitDef = LimitDef {
    id: "ca.limit.caregiver",
    label: "Caregiver, province",
    how: "shrinks with the relative's net income",
    line: "ca.58400",
    cite: "Alberta Personal Income Tax Act; AB428",
};
