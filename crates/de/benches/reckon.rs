//! How long the demo households take, as ratios within one run: reading the JSON, one silent way, the whole search.
#![allow(missing_docs)]

use hembo_testing::{bench::ratios, de::REGISTRY};

fn main() {
    for name in ["brandvik", "vollmar", "rosenow", "wiegand"] {
        let path = format!("{}/../../demo/de/{name}.json", env!("CARGO_MANIFEST_DIR"));
        ratios(name, &std::fs::read(path).expect("the demo household is there"), &REGISTRY);
    }
}
