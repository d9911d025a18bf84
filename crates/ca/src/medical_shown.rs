//! The medical year, drawn: the bills by their days, and the months that are claimed.

use crate::{
    facts::Facts,
    medical_months::shown_period,
    plan::Medical,
    receipts::{Receipt, Window},
};
use hembo_core::{
    drawn::{Bar, Drawn, Part, Picture, Span, Working},
    settled,
};
use hembo_money::Money;
use time::Duration;

/// Months that are claimed.
struct Claimed<'a> {
    window: &'a Window,
    /// Whose claim it is, and how much, where partners claim for different months.
    own: Option<(&'a str, Money)>,
}

/// The family's bills by their days, those of the months that are claimed together, at every paper that has any.
pub fn drawn(facts: &Facts, medical: Option<&Medical>) -> Vec<(usize, Drawn)> {
    let mut papers: Vec<usize> = of_family(facts).map(|receipt| receipt.item.paper).collect();
    papers.sort();
    papers.dedup();
    let claimed = medical.map(|medical| claimed(facts, medical)).unwrap_or_default();
    let drawn = Drawn {
        stands: None,
        columns: Vec::new(),
        workings: claimed.iter().map(|claimed| working(facts, claimed)).collect(),
        picture: Some(picture(facts, &claimed)),
        ..Drawn::default()
    };
    papers.into_iter().map(|paper| (paper, drawn.clone())).collect()
}

/// The months of every claim, in the order of their ends; those of both partners once, where they are the same.
fn claimed<'a>(facts: &'a Facts, medical: &Medical) -> Vec<Claimed<'a>> {
    let own_months = medical.of_own_months();
    let claims = if own_months { &medical.claims[..] } else { &medical.claims[..1] };
    let mut claimed: Vec<Claimed<'_>> = claims
        .iter()
        .map(|claim| {
            let window = &facts.windows[claim.window];
            let paid = settled::lesser(claim.left, window.sum);
            Claimed { window, own: own_months.then(|| (facts.first_name(claim.person), paid)) }
        })
        .collect();
    claimed.sort_by_key(|claimed| claimed.window.end);
    claimed
}

/// All receipts of the filers and their children.
fn of_family(facts: &Facts) -> impl Iterator<Item = &Receipt> {
    facts.medical.iter().chain(facts.medical_of_dead.iter().flatten())
}

fn working(facts: &Facts, claimed: &Claimed<'_>) -> Working {
    let window = claimed.window;
    let of_year = of_family(facts).filter(|r| (facts.year_begin..=facts.year_end).contains(&r.date));
    let calendar: Money = of_year.map(|receipt| receipt.item.amount).sum();
    let earlier = window
        .receipts(&facts.medical, &facts.claimed_of_dead)
        .filter(|receipt| receipt.date < facts.year_begin);
    let before: Money = earlier.map(|receipt| receipt.item.amount).sum();
    let months = shown_period(facts).months();
    let (title, note) = match claimed.own {
        Some((name, paid)) => {
            (format!("The {months} months of {name}"), format!("{name} claims {paid:#} of it."))
        }
        None if calendar == window.sum => (format!("The {months} months that are claimed"), String::new()),
        None => (
            format!("The {months} months that are claimed"),
            format!("The calendar year alone has {calendar:#}."),
        ),
    };
    Working {
        title,
        day: window.end,
        parts: vec![
            Part::new("Of earlier years", before),
            Part::new("From this year on", window.sum - before),
        ],
        result: "Together".into(),
        amount: window.sum,
        note,
    }
}

fn picture(facts: &Facts, claimed: &[Claimed<'_>]) -> Picture {
    let counts = |receipt: &Receipt| {
        claimed.iter().any(|claimed| {
            claimed.window.receipts(&facts.medical, &facts.claimed_of_dead).any(|counted| counted == receipt)
        })
    };
    let bar =
        |receipt: &Receipt| Bar { day: receipt.date, value: receipt.item.amount, counts: counts(receipt) };
    Picture {
        caption: "Bills of the filers and their children under 18, less what was paid back, by the day they were paid.".into(),
        steps: Vec::new(),
        slope: Vec::new(),
        bars: of_family(facts).map(bar).collect(),
        marks: Vec::new(),
        spans: claimed.iter().map(|claimed| span(facts, claimed)).collect(),
    }
}

fn span(facts: &Facts, claimed: &Claimed<'_>) -> Span {
    let (window, period) = (claimed.window, shown_period(facts));
    let (sum, months) = (window.sum, period.months());
    let mixed = !facts.medical.is_empty() && !facts.claimed_of_dead.is_empty();
    let of_dead = 12 * facts.figures.year_of_death.medical_years;
    let label = match claimed.own {
        Some((name, _)) => format!("{sum:#} in the {months} months of {name}"),
        None if mixed => format!("{sum:#} in these {months} months, {of_dead} for who died"),
        None => format!("{sum:#} in these {months} months"),
    };
    Span { from: period.before(window.end) + Duration::DAY, to: window.end, label }
}
