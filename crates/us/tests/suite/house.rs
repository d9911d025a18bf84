//! The modules of the pack can be read from the leaves up, and what they declare fits together.

use std::path::Path;

#[test]
fn no_modules_import_each_other_in_a_circle() {
    let sources = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    assert_eq!(hembo_testing::modules::circles(&sources).unwrap(), Vec::<String>::new());
}

#[test]
fn the_declarations_fit_together() {
    let rules: Vec<&str> = hembo_us::forms::RULES.iter().map(|(id, _)| *id).collect();
    assert_eq!(
        hembo_testing::declarations::faults(&hembo_us::UnitedStates::COMMITTED, &rules),
        Vec::<String>::new()
    );
}

#[test]
fn provisions_declare_the_figures_that_they_read() {
    let pack = hembo_us::UnitedStates::COMMITTED;
    let tables =
        hembo_core::figures::tables(hembo_core::Pack::rules(&pack), hembo_core::Pack::declared(&pack))
            .unwrap();
    let ids: Vec<String> = tables.into_iter().map(|table| table.id).collect();
    let sources = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    assert_eq!(hembo_testing::modules::undeclared_figures(&sources, &ids).unwrap(), Vec::<String>::new());
}
