//! What every province's form 428 has in common: tax by its brackets, its amounts, gifts, dividends.

use crate::{
    caregivers, cpp_ei, disability, dividends,
    figures::Provincial,
    foreign_tax::Left,
    form_428, gifts,
    income::{self, Incomes},
    loan_interest, medical, minimum_tax, others_medical,
    personal::{self, Personal},
    plan::On,
    province, provincial_adoption, provincial_credits,
    provincial_law::{Shared, Taxed},
    provincial_tuition,
    rounding::share,
    split_income,
    transfers::{self, Offer},
    tuition::{self, Tuition},
    volunteers,
};
use hembo_core::{limit, limits, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &[
        "ontario",
        "ontario_relatives",
        "british_columbia",
        "british_columbia_relatives",
        "alberta",
        "alberta_relatives",
        "saskatchewan",
        "saskatchewan_relatives",
        "manitoba",
        "manitoba_relatives",
        "new_brunswick",
        "new_brunswick_relatives",
        "nova_scotia",
        "nova_scotia_relatives",
        "newfoundland",
        "newfoundland_relatives",
        "prince_edward",
        "prince_edward_relatives",
        "yukon",
        "yukon_relatives",
        "northwest",
        "northwest_relatives",
        "nunavut",
        "nunavut_relatives",
        "volunteers",
    ],
    ..Provision::NONE
};

lines! {
    pub TAX = "ca.428.tax", "Provincial tax on taxable income", "Income tax acts of the provinces; form 428",
        "Each rate of the province on its slice.";
    FOR_AMOUNTS = "ca.58840", "Credit for amounts, province", "Income tax acts of the provinces; form 428",
        "Amounts at the credit rate of the province.";
    pub OF_EARLIER_YEARS = "ca.61540", "Minimum tax of earlier years, province", "Income tax acts of the provinces; form 428",
        "A part of what is taken of it from federal tax.";
    pub CREDIT = "ca.61500", "Non-refundable credits, province", "Income tax acts of the provinces; form 428",
        "Credits for amounts and gifts.";
}

limits! {
    CREDITS_PROVINCIAL = "ca.limit.credits_provincial" on CREDIT, "Provincial credits", "beyond the tax, lost",
        "Income tax acts of the provinces; form 428";
}

/// A return's provincial side before its partner's is known.
#[derive(Debug, Clone)]
pub struct Own {
    /// Tax on taxable income.
    pub tax: Money,
    /// Personal amounts.
    pub personal: Personal,
    /// What the province has beside them, each with its line.
    pub further: Vec<(LineId, Money)>,
    /// Line 58560, and what is handed on.
    pub tuition: Tuition,
    /// Income as an amount that credits cover.
    pub to_cover: Money,
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
    let mut personal = amounts(on, trail, incomes, figures, federal);
    personal.disability = disability::provincial_own(on, trail);
    personal.disability_transferred = disability::provincial_transferred(on, trail, incomes, figures);
    let further = province::further_amounts(on, trail, incomes);
    let mut further: Vec<_> = further.into_iter().map(|(line, amount)| (line, on.by_days(amount))).collect();
    further.push((volunteers::PROVINCIAL, volunteers::provincial(on, trail, volunteers_amount(on, figures))));
    further.push((provincial_adoption::PROVINCIAL, provincial_adoption::reckon(on, trail)));
    personal.further = further.iter().map(|(_, amount)| *amount).sum();
    let to_cover = tuition::to_cover(trail, taxable, &figures.tops, &figures.rates);
    let tuition = provincial_tuition::reckon(on, trail, figures, to_cover - personal.sum());
    Own { tax, personal, further, tuition, to_cover }
}

/// What the province has for a volunteer: the federal amount where all amounts are federal.
fn volunteers_amount(on: On<'_>, figures: &Provincial) -> Option<Money> {
    if province::mirrors(on.facts) { Some(on.facts.figures.volunteers.amount) } else { figures.volunteer }
}

/// Personal amounts without those for a disability: of the province, or the federal ones where it has the same.
fn amounts(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    figures: &Provincial,
    federal: Personal,
) -> Personal {
    if province::mirrors(on.facts) {
        return personal::mirrored(on, trail, federal);
    }
    let changed = province::changed(on, trail, incomes, figures);
    let mut personal = personal::provincial(on, trail, incomes, figures, changed, federal);
    personal.caregiver = caregivers::provincial(on, trail, incomes, personal.dependant);
    personal
}

/// What a province's tax is made of.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Credits<'a> {
    pub incomes: &'a Incomes,
    pub own: &'a Own,
    pub offer: Option<Offer>,
    pub tuition: &'a [Tuition],
    pub gifts: Money,
    /// Foreign tax that the federal credit leaves.
    pub foreign: &'a [Left],
    /// Line 58520, the same as line 31900.
    pub interest: Money,
    /// What the federal minimum tax is above the ordinary one.
    pub minimum: Money,
    /// Line 40427.
    pub of_earlier: Money,
}

/// Line 42800.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    figures: &Provincial,
    from: &Credits<'_>,
    shared: &mut Shared,
) -> Money {
    let income = &from.incomes[on.person];
    let amounts = together(on, trail, figures, from);
    let credit = share(trail, amounts, figures.credit_rate);
    on.made(trail, FOR_AMOUNTS, credit, &[(form_428::AMOUNTS, amounts)], &[("Rate", &figures.credit_rate)]);
    let top = province::gifts_from_the_top(on.facts);
    let given = gifts::provincial_credit(on, trail, from.gifts, figures, income.taxable, top);
    let mut credits = vec![(FOR_AMOUNTS, credit), (gifts::PROVINCIAL_CREDIT, given)];
    credits.extend(province::further_credit(on, trail, amounts));
    let credits = on.add(trail, CREDIT, &credits);
    let split = split_income::provincial(on, trail, figures);
    let taken = limit::cap(trail, CREDITS_PROVINCIAL.at(on.scope), credits, from.own.tax + split);
    let of_earlier = share(trail, from.of_earlier, figures.minimum_part);
    on.made(trail, OF_EARLIER_YEARS, of_earlier, &[(minimum_tax::OF_EARLIER_YEARS, from.of_earlier)], &[]);
    let basic = limit::or_zero(trail, from.own.tax + split - taken - of_earlier);
    on.made(
        trail,
        form_428::BASIC_TAX,
        basic,
        &[
            (TAX, from.own.tax),
            (split_income::PROVINCIAL, split),
            (CREDIT, credits),
            (OF_EARLIER_YEARS, of_earlier),
        ],
        &[],
    );
    let dividends = share(trail, income.eligible_dividends, figures.eligible_credit)
        + share(trail, income.other_dividends, figures.other_credit);
    let taxable_dividends = income.eligible_dividends + income.other_dividends;
    on.made(
        trail,
        form_428::DIVIDENDS,
        dividends,
        &[(dividends::ALL, taxable_dividends)],
        &[("Of eligible dividends", &figures.eligible_credit), ("Of the others", &figures.other_credit)],
    );
    let minimum = share(trail, from.minimum, figures.minimum_part);
    let part = [("Part of the federal one", &figures.minimum_part as &dyn ToString)];
    on.made(trail, form_428::MINIMUM, minimum, &[(minimum_tax::ADDITIONAL, from.minimum)], &part);
    let left = province::tax(
        on,
        trail,
        from.incomes,
        Taxed { basic, dividends, minimum, foreign: from.foreign, of_all_countries: income.of_all_countries },
        shared,
    );
    let parties = provincial_credits::parties(on, trail, left);
    let labour = provincial_credits::labour_funds(on, trail, left - parties);
    let made = [
        (form_428::LEFT, left),
        (provincial_credits::PARTIES, parties),
        (provincial_credits::LABOUR_FUNDS, labour),
    ];
    on.made(trail, form_428::PROVINCIAL_TAX, left - parties - labour, &made, &[])
}

/// Line 58800.
fn together(on: On<'_>, trail: &mut impl Trail, figures: &Provincial, from: &Credits<'_>) -> Money {
    let own = from.own.personal;
    let from_child = tuition::from_child(on, trail, provincial_tuition::LINES_OF_CHILD, from.tuition);
    let from_partner = transfers::reckon(on, trail, transfers::PROVINCIAL, from.offer);
    let own_medical = medical::provincial(on, trail, from.incomes[on.person].net, figures.medical_most);
    let of_others = others_medical::reckon(on, trail, from.incomes, false, figures.medical_most);
    let both = [(medical::PROVINCIAL_ALLOWED, own_medical), (others_medical::PROVINCIAL_ALLOWED, of_others)];
    let medical = on.add(trail, medical::PROVINCIAL_TOGETHER, &both);
    let caregiver = if province::mirrors(on.facts) { caregivers::CAREGIVER } else { form_428::CAREGIVER };
    let mut amounts = vec![
        (personal::PROVINCIAL_BASIC, own.basic),
        (personal::PROVINCIAL_AGE, own.age),
        (personal::PROVINCIAL_SPOUSE, own.spouse),
        (personal::PROVINCIAL_DEPENDANT, own.dependant),
        (caregivers::TOPPED_UP, own.topped_up),
        (caregiver, own.caregiver),
        (caregivers::CHILDREN, own.children),
        (cpp_ei::CPP, own.cpp),
        (cpp_ei::OF_BUSINESS_CREDITED, own.cpp_business),
        (cpp_ei::EI, own.ei),
        (personal::EMPLOYED, own.employment),
        (personal::PROVINCIAL_PENSION, own.pension),
        (disability::PROVINCIAL_OWN, own.disability),
        (disability::PROVINCIAL_TRANSFERRED, own.disability_transferred),
        (loan_interest::CLAIMED, from.interest),
        (form_428::TUITION, from.own.tuition.used),
        (provincial_tuition::FROM_CHILD, from_child),
        (form_428::FROM_PARTNER, from_partner),
        (medical::PROVINCIAL_TOGETHER, medical),
    ];
    amounts.extend(&from.own.further);
    on.add(trail, form_428::AMOUNTS, &amounts)
}
