//! What every province's form 428 has in common: tax by its brackets, its amounts, gifts, dividends.

use crate::{
    alberta,
    figures::Provincial,
    gifts,
    income::cents,
    limits::CREDITS_PROVINCIAL,
    medical, ontario,
    personal::{self, Incomes, Personal},
    plan::On,
    provinces::Province,
    transfers::{self, Offer},
    tuition::{self, Tuition},
};
use hembo_core::{limit, trail::Trail};
use hembo_money::Money;

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
    province: Province,
) -> Own {
    let taxable = incomes[on.person].taxable;
    let tax = limit::by_brackets(trail, taxable, &figures.tops, figures.rates.iter().copied());
    on.made(trail, "ca.428.tax", tax, &[("ca.26000", taxable)], &[]);
    let mut personal = personal::provincial(on, trail, incomes, figures, federal);
    if province == Province::Alberta {
        personal.caregiver = alberta::caregiver(on, trail, incomes, personal.dependant);
    }
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
pub fn reckon(on: On<'_>, trail: &mut impl Trail, province: Province, from: Credits<'_>) -> Money {
    let figures = province.figures(on.facts.figures);
    let income = &from.incomes[on.person];
    let own = from.own.personal;
    let from_partner = transfers::reckon(on, trail, transfers::PROVINCIAL, from.offer);
    let medical = medical::provincial(on, trail, income.net, figures.medical_most);
    let amounts = on.add(
        trail,
        "ca.58800",
        &[
            ("ca.58040", own.basic),
            ("ca.58080", own.age),
            ("ca.58120", own.spouse),
            ("ca.58160", own.dependant),
            ("ca.58400", own.caregiver),
            ("ca.30800", own.cpp),
            ("ca.31200", own.ei),
            ("ca.58360", own.pension),
            ("ca.58560", from.own.tuition),
            ("ca.58640", from_partner),
            ("ca.58769", medical),
        ],
    );
    let credit = cents(amounts, figures.credit_rate);
    on.made(trail, "ca.58840", credit, &[("ca.58800", amounts)], &[("Rate", &figures.credit_rate)]);
    let given = gifts::provincial_credit(on, trail, from.gifts, figures);
    let supplement = match province {
        Province::Alberta => alberta::supplement(on, trail, amounts),
        Province::Ontario => Money::ZERO,
    };
    let credits = on.add(
        trail,
        "ca.61500",
        &[("ca.58840", credit), ("ca.58969", given), ("ca.alberta.supplement", supplement)],
    );
    let taken = limit::cap(trail, CREDITS_PROVINCIAL.at(on.scope), credits, from.own.tax);
    let basic = on.made(
        trail,
        "ca.428.basic",
        from.own.tax - taken,
        &[("ca.428.tax", from.own.tax), ("ca.61500", credits)],
        &[],
    );
    let dividends = cents(income.eligible_dividends, figures.eligible_credit)
        + cents(income.other_dividends, figures.other_credit);
    let taxable = income.eligible_dividends + income.other_dividends;
    on.made(
        trail,
        "ca.61520",
        dividends,
        &[("ca.12000", taxable)],
        &[("Of eligible dividends", &figures.eligible_credit), ("Of the others", &figures.other_credit)],
    );
    match province {
        Province::Ontario => ontario::reckon(on, trail, from.incomes, basic, dividends),
        Province::Alberta => alberta::reckon(on, trail, basic, dividends),
    }
}
