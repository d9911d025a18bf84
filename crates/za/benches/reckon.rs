//! How long the demo households take, as ratios within one run: reading the JSON, one silent way, the whole search.
#![allow(missing_docs)]

use hembo_testing::{bench::ratios, za::REGISTRY};

fn main() {
    for name in ["nortjie-dube", "mokoena-vlok", "abrahamse"] {
        let path = format!("{}/../../demo/za/{name}.json", env!("CARGO_MANIFEST_DIR"));
        ratios(name, &std::fs::read(path).expect("the demo household is there"), &REGISTRY);
    }
}
