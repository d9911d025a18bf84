//! The rows of the Spread, in the order in which they add up.

use crate::{
    additional_deductions, additional_taxes, adoption, business, business_deduction, business_property,
    california, capital_gains, care, child_credit, clean_vehicles, earlier_minimum_tax, earned_income_credit,
    education, educators, elderly, excess_deferrals, foreign_tax, government_payments, health_savings,
    home_energy, income, ira_deduction, long_term_care, minimum_tax, misclassified_pay, mortgage_credit,
    moving, operating_loss, other_adjustments, other_income, pass_through, payments, premium_tax_credit,
    refunded_taxes, rentals, repayments, retirement, saver, schedule_1, schedule_a::casualty,
    schedule_a::gifts, schedule_a::home_loan, schedule_a::investment_interest, schedule_a::medical,
    schedule_a::other, schedule_a::taxes, self_employment, social_security, standard_deduction, student_loan,
    tax, taxable_income, total_tax, underpayment, union_plan, unreported_tips, untaxed_pay,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        folds: false,
        rows: &[
            SpreadRow::new("Wages", Some(income::WAGES), income::WAGES).always(),
            SpreadRow::new("Tips not reported", Some(unreported_tips::L1C), unreported_tips::L1C),
            SpreadRow::new("Pay without withholding", Some(misclassified_pay::L1G), misclassified_pay::L1G),
            SpreadRow::new("Medicaid waiver payments", None, untaxed_pay::L1D),
            SpreadRow::new("Moving money above the cost", None, moving::TAXED),
            SpreadRow::new("Care benefits, taxed", None, care::TAXED),
            SpreadRow::new("Excess deferrals", Some(excess_deferrals::EXCESS), excess_deferrals::EXCESS),
            SpreadRow::new("Taxable interest", Some(income::INTEREST), income::INTEREST).always(),
            SpreadRow::new("Dividends", Some(income::DIVIDENDS), income::DIVIDENDS),
            SpreadRow::new("IRA distributions", Some(retirement::IRA_OF), retirement::IRA),
            SpreadRow::new("Pensions and annuities", Some(retirement::PENSION_OF), retirement::PENSION),
            SpreadRow::new("Social security", Some(social_security::L6B), social_security::L6B),
            SpreadRow::new("Capital gain or loss", Some(capital_gains::L7), capital_gains::L7),
            SpreadRow::new(
                "Business property",
                Some(business_property::ORDINARY),
                business_property::ORDINARY,
            ),
            SpreadRow::new("State refund", Some(government_payments::REFUND), government_payments::REFUND),
            SpreadRow::new("Business", Some(business::PROFIT), business::L3),
            SpreadRow::new("Rents and royalties", Some(rentals::L26), rentals::L26),
            SpreadRow::new("Partnerships, S corporations", Some(pass_through::L32), pass_through::L32),
            SpreadRow::new("Estates and trusts", Some(pass_through::L37), pass_through::L37),
            SpreadRow::new(
                "Unemployment",
                Some(government_payments::UNEMPLOYMENT),
                government_payments::UNEMPLOYMENT,
            ),
            SpreadRow::new("Operating losses of earlier years", None, operating_loss::L8A),
            SpreadRow::new("Other income", Some(other_income::OF), other_income::ALL),
            SpreadRow::new("Waiver payments left out", None, untaxed_pay::L8S),
            SpreadRow::new("Long-term care payments", Some(long_term_care::OF), long_term_care::INCOME),
            SpreadRow::new("Health savings, taxed", Some(health_savings::TAKEN), health_savings::INCOME),
        ],
    },
    SpreadSection {
        title: "Taken off first",
        folds: false,
        rows: &[
            SpreadRow::new("Health savings account", Some(health_savings::OF), health_savings::DEDUCTION)
                .minus(),
            SpreadRow::new("IRA contributions", Some(ira_deduction::OF), ira_deduction::L20).minus(),
            SpreadRow::new("Plan under 501(c)(18)(D)", Some(union_plan::OF), union_plan::L24F).minus(),
            SpreadRow::new(
                "Half of self-employment tax",
                Some(self_employment::HALF_OF),
                self_employment::HALF,
            )
            .minus(),
            SpreadRow::new("Own retirement plan", Some(self_employment::PLAN_OF), self_employment::PLANS)
                .minus(),
            SpreadRow::new("Own health insurance", Some(self_employment::HEALTH_OF), self_employment::HEALTH)
                .minus(),
            SpreadRow::new("Moving of the armed forces", Some(moving::OF), moving::L14).minus(),
            SpreadRow::new("Student-loan interest", None, student_loan::L21).minus(),
            SpreadRow::new("Alimony paid", Some(other_income::ALIMONY_PAID), other_income::ALIMONY_PAID)
                .minus(),
            SpreadRow::new("Jury pay given up", Some(other_income::JURY_GIVEN), other_income::JURY_GIVEN)
                .minus(),
            SpreadRow::new("Other adjustments", Some(other_adjustments::OF), other_adjustments::ALL).minus(),
            SpreadRow::new("Educator expenses", Some(educators::L11), educators::L11).minus(),
            SpreadRow::new("Early withdrawal penalty", Some(schedule_1::PENALTY), schedule_1::PENALTY)
                .minus(),
            SpreadRow::new("Adjusted gross income", Some(income::AGI), income::AGI).result(),
        ],
    },
    SpreadSection {
        title: "Taken off next",
        folds: false,
        rows: &[
            SpreadRow::new("Medical above the floor", Some(medical::FOR), medical::L4).minus().always(),
            SpreadRow::new("State and local taxes", Some(taxes::L5D), taxes::L5E).minus().always(),
            SpreadRow::new("Foreign tax deducted", Some(foreign_tax::L6), foreign_tax::L6).minus(),
            SpreadRow::new("Home-loan interest", Some(home_loan::L8A), home_loan::L8E).minus().always(),
            SpreadRow::new("Investment interest", None, investment_interest::L9).minus(),
            SpreadRow::new("Gifts to charity", Some(gifts::L14), gifts::L14).minus().always(),
            SpreadRow::new("Casualty and theft", None, casualty::L15).minus(),
            SpreadRow::new("Qualified disaster loss", None, casualty::QUALIFIED).minus(),
            SpreadRow::new("Other deductions", Some(other::L16), other::L16).minus(),
            SpreadRow::new("Standard deduction", None, standard_deduction::STANDARD).minus().always(),
            SpreadRow::new("Qualified business income", None, business_deduction::L13A).minus(),
            SpreadRow::new("Tips", None, additional_deductions::TIPS).minus(),
            SpreadRow::new("Overtime", None, additional_deductions::OVERTIME).minus(),
            SpreadRow::new("Car-loan interest", None, additional_deductions::CAR).minus(),
            SpreadRow::new(
                "Senior deduction",
                Some(additional_deductions::SENIOR_EACH),
                additional_deductions::SENIORS,
            )
            .minus(),
            SpreadRow::new("Taxable income", None, taxable_income::L15).result(),
        ],
    },
    SpreadSection {
        title: "Tax and credits",
        folds: false,
        rows: &[
            SpreadRow::new("Income tax", None, tax::L16).always(),
            SpreadRow::new("Health cover paid back", None, premium_tax_credit::EXCESS),
            SpreadRow::new("New vehicle paid back", None, clean_vehicles::NEW_REPAID),
            SpreadRow::new("Used vehicle paid back", None, clean_vehicles::USED_REPAID),
            SpreadRow::new("Alternative minimum tax", None, minimum_tax::MINIMUM_TAX),
            SpreadRow::new("Foreign tax credit", None, foreign_tax::CREDIT).minus(),
            SpreadRow::new("Care credit", None, care::CREDIT).minus(),
            SpreadRow::new("Elderly or disabled", None, elderly::CREDIT).minus(),
            SpreadRow::new("Education credits", None, education::CREDIT).minus(),
            SpreadRow::new("Saver's credit", None, saver::CREDIT).minus(),
            SpreadRow::new("Home improvements", None, home_energy::IMPROVEMENTS).minus(),
            SpreadRow::new("New clean vehicle", None, clean_vehicles::NEW).minus(),
            SpreadRow::new("Used clean vehicle", None, clean_vehicles::USED).minus(),
            SpreadRow::new("Child and dependent credits", Some(child_credit::EACH), child_credit::L19)
                .minus()
                .always(),
            SpreadRow::new("Mortgage interest credit", None, mortgage_credit::CREDIT).minus(),
            SpreadRow::new("Adoption credit", None, adoption::CREDIT).minus(),
            SpreadRow::new("Clean energy credit", None, home_energy::CLEAN).minus(),
            SpreadRow::new("Minimum tax of earlier years", None, earlier_minimum_tax::CREDIT).minus(),
            SpreadRow::new("Other taxes", None, additional_taxes::L23),
            SpreadRow::new("Earned income credit", None, earned_income_credit::L27A).minus(),
            SpreadRow::new("Child credit paid out", None, child_credit::L28).minus(),
            SpreadRow::new("American opportunity, paid out", None, education::L29).minus(),
            SpreadRow::new("Adoption credit, paid out", None, adoption::L30).minus(),
            SpreadRow::new("Premium tax credit", None, premium_tax_credit::NET).minus(),
            SpreadRow::new("Income repaid, credited", None, repayments::CREDIT).minus(),
            SpreadRow::new("Tax on fuels", None, refunded_taxes::L12).minus(),
            SpreadRow::new("Tax paid by a fund", None, refunded_taxes::L13A).minus(),
            SpreadRow::new("Total tax", None, total_tax::NET_TAX).result(),
        ],
    },
    SpreadSection {
        title: "Paid",
        folds: false,
        rows: &[
            SpreadRow::new("Withheld", Some(payments::L25D), payments::L25D).minus().always(),
            SpreadRow::new("Estimated payments", None, payments::L26).minus(),
            SpreadRow::new("Paid with the extension", None, payments::L10).minus(),
            SpreadRow::new("Social security tax paid twice", None, payments::EXCESS).minus(),
            SpreadRow::new("Paid", Some(payments::L25D), payments::PAID).minus().subtotal(),
            SpreadRow::new("Addition for underpayment", None, underpayment::PENALTY),
            SpreadRow::new("Balance", None, payments::BALANCE).result(),
        ],
    },
    california::spread::SECTION,
];
