//! Whether what a pack declares fits together.

use hembo_core::{
    Pack,
    field::{Field, FieldKind},
    figures,
    paper::{PaperKind, subject},
};
use std::collections::HashSet;

/// What is wrong with a pack's declarations, in words; nothing where they fit together. `rules` are the ids of the
/// forms of which the pack tells when they are filed.
pub fn faults(pack: &dyn Pack, rules: &[&str]) -> Vec<String> {
    let declared = pack.declared();
    let mut faults = declared.faults();
    faults.extend(declared.papers.iter().flat_map(of_paper));
    faults.extend(of_figures(pack));
    let kinds = || pack.paper_kinds().iter();
    let astray = kinds().filter(|kind| !subject::ALL.contains(&kind.subject));
    faults.extend(astray.map(|kind| format!("{} stands under no heading", kind.id)));
    let opened = pack.household_questions().iter().flat_map(|field| field.opens);
    let astray = opened.filter(|id| !kinds().any(|kind| kind.id == **id));
    faults.extend(astray.map(|id| format!("a question opens {id}, which is no paper")));
    let called =
        pack.household_questions().iter().chain(kinds().flat_map(|kind| kind.boxes)).filter_map(|f| f.only);
    let asked = |id: &str| pack.household_questions().iter().any(|field| field.id == id);
    let astray = called.filter(|only| !asked(only.question));
    faults.extend(astray.map(|only| format!("nobody asks {}", only.question)));
    let bare = declared.lines.iter().filter(|l| l.cite.is_empty() || l.how.is_empty() || l.label.is_empty());
    faults.extend(bare.map(|l| format!("line {} says not what it is", l.id)));
    let bare = declared.points.iter().filter(|p| p.cite.is_empty() || p.remedy.is_empty());
    faults.extend(bare.map(|p| format!("point {} says not what asks for it, or what to do", p.code)));
    let rows = || pack.spread().iter().flat_map(|s| s.rows);
    let shown = rows().flat_map(|r| [Some(r.total), r.person]).flatten();
    let astray = shown.filter(|id| declared.line(id).is_none());
    faults.extend(astray.map(|id| format!("the Spread shows {id}, which is no line")));
    let stands = |line: &str, year: i32| pack.forms(year).home(line, |_| true).is_some();
    let of_returns = || pack.totals().iter().flat_map(|t| [t.tax, t.paid, t.balance]);
    for year in pack.years() {
        let forms = pack.forms(year);
        if forms.year != year {
            faults.push(format!("{year} has no forms"));
        }
        // What stands on the forms of another year only is a line of that year.
        let other_year = |line: &&str| pack.years().into_iter().any(|y| y != year && stands(line, y));
        let wanted = rows().map(|r| r.total).chain(of_returns()).filter(|line| !other_year(line));
        faults.extend(forms.faults(declared, wanted));
        let unknown = forms.forms.iter().filter(|form| !rules.contains(&form.id.as_str()));
        faults.extend(unknown.map(|form| format!("{year}: nobody tells when {} is filed", form.id)));
    }
    let has = |id: &str| pack.years().into_iter().any(|y| pack.forms(y).forms.iter().any(|f| f.id == id));
    faults.extend(rules.iter().filter(|id| !has(id)).map(|id| format!("no year has the form {id}")));
    faults
}

/// Tables of rule figures that nobody reads, and tables that are not there.
fn of_figures(pack: &dyn Pack) -> Vec<String> {
    let tables = match figures::tables(pack.rules(), pack.declared()) {
        Ok(tables) => tables,
        Err(fault) => return vec![fault],
    };
    let idle = tables.iter().filter(|table| table.used_for.is_empty());
    let idle = idle.map(|table| format!("nobody reads the table {}", table.id));
    let astray = pack.declared().tables().filter(|id| !tables.iter().any(|table| table.id == *id));
    idle.chain(astray.map(|id| format!("no year has the table {id}"))).collect()
}

fn of_paper(kind: &PaperKind) -> Vec<String> {
    let mut faults = Vec::new();
    let mut ids = HashSet::new();
    for field in kind.boxes.iter().chain(kind.columns).filter(|f| !ids.insert(f.id)) {
        faults.push(format!("{}: the box {} stands twice", kind.id, field.id));
    }
    let headline = kind.field(kind.headline).or(kind.column(kind.headline));
    let amount = |f: &Field| matches!(f.kind, FieldKind::Amount { .. });
    // The amounts of a list may make no sum.
    let empty = kind.headline.is_empty() && !kind.boxes.iter().any(amount);
    if !empty && !headline.is_some_and(amount) {
        faults.push(format!("{}: the headline is no amount", kind.id));
    }
    if kind.boxes.is_empty() && kind.columns.is_empty() {
        faults.push(format!("{} has neither boxes nor a list", kind.id));
    }
    faults
}
