//! `cargo xtask test`: every check and test of the project, and the refreshing of what is committed for them.

use crate::{
    run::{Done, cargo, node, program, root, run},
    setup,
};
use hembo_cluster::Cluster;
use std::{
    fs,
    path::{Path, PathBuf},
    process::Command,
};

/// The variable with the address of the test cluster; the tests make their databases there.
pub const TEST_CLUSTER: &str = "HEMBO_TEST_CLUSTER";

/// Runs everything.
pub fn test() -> Done {
    setup::postgresql()?;
    setup::chromium()?;
    setup::pdftotext()?;
    setup::node_packages("web")?;
    setup::node_packages("tests")?;

    run("Format", cargo().args(["fmt", "--all", "--check"]))?;
    run("Front end: format and lint", node("web", "@biomejs/biome/bin/biome").args(["check", "."]))?;
    run(
        "Browser suite: format and lint",
        node("web", "@biomejs/biome/bin/biome").args(["check", "../tests"]),
    )?;
    run("Front end: types", node("web", "typescript/bin/tsc").arg("--noEmit"))?;
    run("Front end: build", node("web", "vite/bin/vite.js").arg("build"))?;

    let cluster = Cluster::throw_away().map_err(|e| format!("The test database does not start: {e}"))?;
    let lints = ["clippy", "--workspace", "--all-targets", "--", "-D", "warnings"];
    run("Lints", cargo().args(lints))?;
    queries_are_fresh(&cluster)?;
    let mut tests = cargo();
    // All that fails is told at once; a backtrace would bury the browser suite's own report.
    tests
        .args(["test", "--workspace", "--no-fail-fast"])
        .env(TEST_CLUSTER, cluster.url("postgres"))
        .env("RUST_BACKTRACE", "0");
    run("Tests", &mut tests)?;
    println!("\nAll checks and tests passed.");
    Ok(())
}

/// The checked queries compiled against a database of today's migrations.
fn write_queries(cluster: &Cluster, folder: &Path) -> Done {
    cluster.create("queries").map_err(|e| e.to_string())?;
    let url = cluster.url("queries");
    for migration in sorted(&root().join("crates/server/migrations"))? {
        let mut psql = program("psql");
        psql.args(["-X", "-q", "-v", "ON_ERROR_STOP=1", &url, "-f"]).arg(&migration);
        run(&format!("Migration {}", migration.display()), &mut psql)?;
    }
    let _ = fs::remove_dir_all(folder);
    fs::create_dir_all(folder).map_err(|e| e.to_string())?;
    let touched = root().join("crates/server/src/lib.rs");
    run("Touch", Command::new("touch").arg(touched))?;
    let mut check = cargo();
    // As the lints do, so that what they compiled is used again.
    check.args(["clippy", "--quiet", "--package", "hembo-server"]);
    check.env("SQLX_OFFLINE", "false").env("SQLX_OFFLINE_DIR", folder).env("HEMBO_QUERY_DATABASE", url);
    run("Checked queries", &mut check)
}

fn queries_are_fresh(cluster: &Cluster) -> Done {
    let fresh = root().join("target/queries");
    write_queries(cluster, &fresh)?;
    let mut diff = program("diff");
    diff.args(["-r", ".sqlx"]).arg(&fresh);
    run("Checked queries are fresh", &mut diff)
        .map_err(|_| "Run cargo xtask sqlx and commit .sqlx.".to_owned())
}

fn sorted(folder: &Path) -> Done<Vec<PathBuf>> {
    let entries = fs::read_dir(folder).map_err(|e| format!("{}: {e}", folder.display()))?;
    let mut files: Vec<_> = entries.flatten().map(|e| e.path()).collect();
    files.sort();
    Ok(files)
}

/// `cargo xtask sqlx`.
pub fn refresh_queries() -> Done {
    setup::postgresql()?;
    let cluster = Cluster::throw_away().map_err(|e| format!("The database does not start: {e}"))?;
    write_queries(&cluster, &root().join(".sqlx"))
}

/// `cargo xtask api`: the API description, its TypeScript types, the schema of the household file and what is covered.
pub fn refresh_api() -> Done {
    setup::node_packages("web")?;
    let files = [
        ("openapi", "web/openapi.json"),
        ("schema", "docs/household.schema.json"),
        ("coverage", "docs/coverage.md"),
    ];
    for (task, file) in files {
        let mut hembo = cargo();
        hembo.args(["run", "--quiet", "--package", "hembo", "--", task]);
        let output = hembo.output().map_err(|e| e.to_string())?;
        if !output.status.success() {
            return Err(String::from_utf8_lossy(&output.stderr).into_owned());
        }
        fs::write(root().join(file), output.stdout).map_err(|e| format!("{file}: {e}"))?;
    }
    let mut types = node("web", "openapi-typescript/bin/cli.js");
    run("Types of the API", types.args(["openapi.json", "-o", "src/api/schema.d.ts"]))
}
