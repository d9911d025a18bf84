//! Names the version of the rules.

fn main() -> std::io::Result<()> {
    hembo_fingerprint::of_rules()
}
