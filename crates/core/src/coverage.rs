//! What a pack covers and what not, as its declarations say: a page for people, made from them and from nothing else.

use crate::{
    pack::{Pack, Registry},
    point::PointDef,
};
use std::fmt::Write;

/// The page for every pack of a registry, as Markdown.
pub fn page(registry: &Registry) -> String {
    let mut text = String::from(
        "# What is covered\n\nMade from the packs' own declarations by `cargo xtask api`. What stands under *not computed* blocks a \
         household that has it; what stands under *told, not weighed* is said at the result.\n",
    );
    for pack in registry.packs() {
        let _ = of_pack(&mut text, pack);
    }
    text
}

fn of_pack(text: &mut String, pack: &dyn Pack) -> std::fmt::Result {
    let told =
        |&year: &i32| if pack.is_planning(year) { format!("{year} for planning") } else { year.to_string() };
    let years: Vec<String> = pack.years().iter().rev().map(told).collect();
    let declared = pack.declared();
    writeln!(text, "\n## {} ({})\n\n### Papers that are read\n", pack.about().name, years.join(", "))?;
    for paper in &declared.papers {
        writeln!(text, "- {} · {}", paper.id, paper.name)?;
    }
    writeln!(text, "\n### Not computed\n")?;
    for asked in pack.not_computed() {
        writeln!(text, "- {} ({}) {}", asked.field.label, asked.cite, asked.field.help)?;
    }
    let of = |kind: fn(&PointDef) -> bool| declared.points.iter().filter(move |point| kind(point));
    for point in of(|point| point.not_covered) {
        writeln!(text, "- `{}` ({})", point.code, point.cite)?;
    }
    writeln!(text, "\n### Told, not weighed\n")?;
    for point in of(|point| point.unweighed) {
        writeln!(text, "- `{}` ({}) {}", point.code, point.cite, point.remedy)?;
    }
    if !pack.elections().is_empty() {
        writeln!(text, "\n### Chosen beside the return, not weighed for anyone\n")?;
        for election in pack.elections() {
            writeln!(text, "- {} ({})", election.what, election.cite)?;
        }
    }
    writeln!(text, "\n### To be done beside the return\n")?;
    for point in of(|point| point.beside) {
        writeln!(text, "- `{}` ({}) {}", point.code, point.cite, point.remedy)?;
    }
    Ok(())
}
