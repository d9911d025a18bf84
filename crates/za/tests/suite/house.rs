//! The modules of the pack can be read from the leaves up, and what they declare fits together.

use hembo_core::Pack;
use hembo_za::SouthAfrica;
use std::path::Path;

#[test]
fn no_modules_import_each_other_in_a_circle() {
    let sources = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    assert_eq!(hembo_testing::modules::circles(&sources).unwrap(), Vec::<String>::new());
}

#[test]
fn the_declarations_fit_together() {
    let rules: Vec<&str> = hembo_za::forms::ids().collect();
    assert_eq!(hembo_testing::declarations::faults(&SouthAfrica::COMMITTED, &rules), Vec::<String>::new());
}

#[test]
fn provisions_declare_the_figures_that_they_read() {
    let pack = SouthAfrica::COMMITTED;
    let tables = hembo_core::figures::tables(pack.rules(), pack.declared()).unwrap();
    let ids: Vec<String> = tables.into_iter().map(|table| table.id).collect();
    let sources = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    assert_eq!(hembo_testing::modules::undeclared_figures(&sources, &ids).unwrap(), Vec::<String>::new());
}
