//! The official forms of a year, and when each is filed.

use crate::{
    additional_deductions, additional_taxes, adoption, business, business_deduction, business_property,
    california, capital_gains, care, child_credit, clean_vehicles, community, earlier_minimum_tax,
    early_distributions, earned_income_credit, education, education_bonds, elderly, foreign_tax, gains_tax,
    health_savings, home_energy, home_office, home_sale, household_employees, income, ira_basis,
    ira_deduction, kiddie, long_term_care, minimum_tax, misclassified_pay, mortgage_credit, moving,
    operating_loss, parents_election, passive_losses, payments, premium_tax_credit, rentals, retirement,
    saver, schedule_1, schedule_a, self_employment, social_security, student_loan, taxed_later, underpayment,
    union_plan, unit::Filed, unreported_tips,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When a form is filed with a return.
type Rule = fn(Filed<'_>) -> Required;

/// When each form is filed, by its id in `forms/YEAR.toml`.
pub static RULES: &[(&str, Rule)] = &[
    ("1040", |_| Required::Yes),
    ("540", california::forms::form_540),
    ("540nr", california::forms::form_540nr),
    ("schedule-ca-540nr", california::forms::form_540nr),
    ("schedule-ca", california::forms::schedule_ca),
    ("schedule-p-540", california::forms::schedule_p),
    ("ftb-3506", california::forms::form_3506),
    ("ftb-3510", california::earlier_minimum_tax::form_3510),
    ("ftb-3514", california::forms::form_3514),
    ("ftb-3800", california::forms::form_3800),
    ("ftb-3803", california::parents_election::form_3803),
    ("ftb-3805p", california::forms::form_3805p),
    ("ftb-3592", california::college_access::form_3592),
    ("ftb-3853", california::forms::form_3853),
    ("ftb-5805", california::underpayment::form_5805),
    ("schedule-s", california::other_state_tax::schedule_s),
    ("code-197", california::adoption_costs::worksheet),
    ("use-tax-worksheet", california::use_tax::worksheet),
    ("540-worksheets", california::forms::worksheets),
    ("schedule-1", schedule_1::required),
    ("schedule-1-a", additional_deductions::schedule_1_a),
    ("schedule-2", additional_taxes::schedule_2),
    ("schedule-3", payments::schedule_3),
    ("schedule-a", schedule_a::required),
    ("schedule-b", income::schedule_b),
    ("schedule-d", capital_gains::schedule_d),
    ("8949", capital_gains::form_8949),
    ("1116", foreign_tax::form_1116),
    ("schedule-c", business::schedule_c),
    ("schedule-e", rentals::schedule_e),
    ("172", operating_loss::form_172),
    ("4797", business_property::form_4797),
    ("8582", passive_losses::form_8582),
    ("schedule-se", self_employment::schedule_se),
    ("7206", self_employment::form_7206),
    ("8815", education_bonds::form_8815),
    ("own-plan", self_employment::worksheet),
    ("8995-a", business_deduction::form_8995_a),
    ("8962", premium_tax_credit::form_8962),
    ("8995", business_deduction::form_8995),
    ("2441", care::form_2441),
    ("4137", unreported_tips::form_4137),
    ("8801", earlier_minimum_tax::form_8801),
    ("8814", parents_election::form_8814),
    ("8615", kiddie::form_8615),
    ("8863", education::form_8863),
    ("8880", saver::form_8880),
    ("schedule-r", elderly::schedule_r),
    ("5695", home_energy::form_5695),
    ("8915-f", taxed_later::form_8915_f),
    ("8919", misclassified_pay::form_8919),
    ("8936", clean_vehicles::form_8936),
    ("8396", mortgage_credit::form_8396),
    ("8839", adoption::form_8839),
    ("8958", community::form_8958),
    ("2210", underpayment::form_2210),
    ("8283", schedule_a::gifts::form_8283),
    ("4952", schedule_a::investment_interest::form_4952),
    ("schedule-h", household_employees::schedule_h),
    ("3903", moving::form_3903),
    ("4684", schedule_a::casualty::form_4684),
    ("union-plan", union_plan::worksheet),
    ("8829", home_office::form_8829),
    ("5329", early_distributions::form_5329),
    ("8853", long_term_care::form_8853),
    ("8606", ira_basis::form_8606),
    ("8889", health_savings::form_8889),
    ("schedule-8812", child_credit::schedule_8812),
    ("schedule-eic", earned_income_credit::schedule_eic),
    ("6251", minimum_tax::form_6251),
    ("8959", additional_taxes::form_8959),
    ("8960", additional_taxes::form_8960),
    ("benefits", social_security::worksheet),
    ("distributions", retirement::worksheet),
    ("ira-deduction", ira_deduction::worksheet),
    ("student-loan", student_loan::worksheet),
    ("home-sale", home_sale::worksheet),
    ("gains-tax", gains_tax::worksheet),
    ("loss-carryover", capital_gains::worksheet),
    ("loan-limit", schedule_a::home_loan::worksheet),
    ("gift-carryover", schedule_a::gifts::worksheet),
    ("summary", |_| Required::Yes),
];

/// The forms of a year.
pub fn of(year: i32) -> &'static Forms {
    static YEARS: LazyLock<Vec<Forms>> = LazyLock::new(|| {
        let latest = concat!(include_str!("../forms/2025.toml"), include_str!("../forms/california.toml"));
        let next = Forms::like(latest, include_str!("../forms/2026.toml"));
        let earlier = concat!(include_str!("../forms/2024.toml"), include_str!("../forms/california.toml"));
        let sources = [latest, earlier];
        let all = std::iter::once(next).chain(sources.iter().map(|text| toml::from_str(text)));
        all.collect::<Result<_, _>>().expect("the committed forms parse (tested)")
    });
    YEARS.iter().find(|f| f.year == year).unwrap_or(&YEARS[0])
}

/// Whether a form is filed with a return.
pub fn required(form: &str, filed: Filed<'_>) -> Required {
    let is_federal =
        || of(filed.on.facts.figures.year).forms.iter().any(|of| of.id == form && of.authority.is_empty());
    if filed.on.unit.of_state.alone && is_federal() {
        return Required::No("the income is on the parents' federal return".into());
    }
    let rule = RULES.iter().find(|(id, _)| *id == form);
    rule.map_or(Required::No("not known".into()), |(_, rule)| rule(filed))
}
