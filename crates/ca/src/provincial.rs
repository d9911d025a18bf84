//! What every province's form 428 has in common: tax by its brackets, its amounts, gifts, dividends.

use crate::{
    cpp_ei, dividends,
    figures::Provincial,
    form_428, gifts, income, medical,
    personal::{self, Incomes, Personal},
    plan::On,
    province,
    rounding::share,
    transfers::{self, Offer},
    tuition::{self, Tuition},
};
use hembo_core::{limit, limits, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    pub TAX = "ca.428.tax", "Provincial tax on taxable income", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Each rate of the province on its slice.";
    FOR_AMOUNTS = "ca.58840", "Credit for amounts, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Amounts at the credit rate of the province.";
    pub CREDIT = "ca.61500", "Non-refundable credits, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Credits for amounts and gifts.";
}

limits! {
    CREDITS_PROVINCIAL = "ca.limit.credits_provincial" on CREDIT, "Provincial credits", "beyond the tax, lost",
        "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act";
}

/// A return's provincial side before its partner's is known.
#[derive(Debug, Clone, Copy)]
pub struct Own {
    /// Tax on taxable income.
    pub tax: Money,
    /// Personal amounts.
    pub personal: Personal,
    /// Line 58560.
    pub tuition: Money,
    /// Income as an amount that credits cover.
    pub to_cover: Money,
}

impl Own {
    /// What the partner may take over.
    pub fn offer(self) -> Offer {
        let tuition = Tuition { used: self.tuition, handed_on: Money::ZERO };
        Offer { personal: self.personal, tuition, to_cover: self.to_cover }
    }
}

/// Tax, personal amounts and own tuition.
pub fn own(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    figures: &Provincial,
    federal: Personal,
) -> Own {
    let taxable = incomes[on.person].taxable;
    let tax = limit::by_brackets(trail, taxable, &figures.tops, figures.rates.iter().copied());
    on.made(trail, TAX, tax, &[(income::TAXABLE, taxable)], &[]);
    let mut personal = personal::provincial(on, trail, incomes, figures, federal);
    personal.caregiver = province::caregiver(on, trail, incomes, personal.dependant);
    let to_cover = tuition::to_cover(trail, taxable, &figures.tops, &figures.rates);
    let tuition = tuition::provincial(on, trail, to_cover - personal.sum());
    Own { tax, personal, tuition, to_cover }
}

/// What a province's tax is made of.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Credits<'a> {
    pub incomes: &'a Incomes,
    pub own: Own,
    pub offer: Option<Offer>,
    pub gifts: Money,
}

/// Line 42800.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, figures: &Provincial, from: Credits<'_>) -> Money {
    let income = &from.incomes[on.person];
    let own = from.own.personal;
    let from_partner = transfers::reckon(on, trail, transfers::PROVINCIAL, from.offer);
    let medical = medical::provincial(on, trail, income.net, figures.medical_most);
    let amounts = on.add(
        trail,
        form_428::AMOUNTS,
        &[
            (personal::PROVINCIAL_BASIC, own.basic),
            (personal::PROVINCIAL_AGE, own.age),
            (personal::PROVINCIAL_SPOUSE, own.spouse),
            (personal::PROVINCIAL_DEPENDANT, own.dependant),
            (form_428::CAREGIVER, own.caregiver),
            (cpp_ei::CPP, own.cpp),
            (cpp_ei::EI, own.ei),
            (personal::PROVINCIAL_PENSION, own.pension),
            (tuition::PROVINCIAL, from.own.tuition),
            (transfers::PROVINCIAL_FROM_PARTNER, from_partner),
            (medical::PROVINCIAL_ALLOWED, medical),
        ],
    );
    let credit = share(trail, amounts, figures.credit_rate);
    on.made(trail, FOR_AMOUNTS, credit, &[(form_428::AMOUNTS, amounts)], &[("Rate", &figures.credit_rate)]);
    let given = gifts::provincial_credit(on, trail, from.gifts, figures);
    let mut credits = vec![(FOR_AMOUNTS, credit), (gifts::PROVINCIAL_CREDIT, given)];
    credits.extend(province::further_credit(on, trail, amounts));
    let credits = on.add(trail, CREDIT, &credits);
    let taken = limit::cap(trail, CREDITS_PROVINCIAL.at(on.scope), credits, from.own.tax);
    let basic = on.made(
        trail,
        form_428::BASIC_TAX,
        from.own.tax - taken,
        &[(TAX, from.own.tax), (CREDIT, credits)],
        &[],
    );
    let dividends = share(trail, income.eligible_dividends, figures.eligible_credit)
        + share(trail, income.other_dividends, figures.other_credit);
    let taxable = income.eligible_dividends + income.other_dividends;
    on.made(
        trail,
        form_428::DIVIDENDS,
        dividends,
        &[(dividends::ALL, taxable)],
        &[("Of eligible dividends", &figures.eligible_credit), ("Of the others", &figures.other_credit)],
    );
    province::tax(on, trail, from.incomes, basic, dividends)
}
