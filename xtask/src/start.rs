//! `cargo xtask start`: set up, build, start the database and serve.

use crate::{
    run::{Done, cargo, node, root, run},
    setup,
};
use hembo_cluster::{Cluster, Kind, is_root};
use std::{
    env, fs,
    net::TcpListener,
    os::unix::fs::OpenOptionsExt,
    path::{Path, PathBuf},
    process::{Command, Stdio},
};

const PORT: u16 = 4310;
/// In bytes.
const LONGEST_LOG: u64 = 10 * 1024 * 1024;

struct Options {
    fresh: bool,
    port: u16,
    backups: bool,
}

fn options(words: &[&str]) -> Done<Options> {
    let mut options = Options { fresh: false, port: PORT, backups: false };
    let mut words = words.iter();
    while let Some(word) = words.next() {
        match *word {
            "--fresh" => options.fresh = true,
            "--backups" => options.backups = true,
            "--port" => {
                let port = words.next().and_then(|p| p.parse().ok());
                options.port = port.ok_or("--port needs a number, such as --port 4311")?;
            }
            other => {
                return Err(format!("'{other}' is not an option of start: --fresh, --backups, --port N"));
            }
        }
    }
    Ok(options)
}

/// Where the data lies: below the project, or, for root, where the user postgres may enter.
fn data_folder() -> PathBuf {
    if let Ok(folder) = env::var("HEMBO_DATA") {
        return PathBuf::from(folder);
    }
    if is_root() { PathBuf::from("/var/lib/hembo") } else { root().join("data") }
}

/// Serves until Ctrl-C.
pub fn start(words: &[&str]) -> Done {
    let options = options(words)?;
    let port = free_port(options.port)?;
    setup::postgresql()?;
    setup::node_packages("web")?;
    run("Building the front end", node("web", "vite/bin/vite.js").arg("build"))?;
    run("Building the server", cargo().args(["build", "--release", "--package", "hembo"]))?;

    let data = data_folder();
    let database = data.join("database");
    if options.fresh {
        for old in [&database, &data.join("key"), &data.join("authority.json")] {
            remove(old)?;
        }
    }
    let cluster =
        Cluster::start(&database, Kind::Durable).map_err(|e| format!("The database does not start: {e}"))?;
    let outcome = serve(&cluster, &data, port, options.backups);
    drop(cluster);
    outcome
}

/// The built program; it ends with this one.
fn hembo() -> Command {
    let mut command = Command::new("setpriv");
    command.current_dir(root()).args(["--pdeathsig", "TERM", "--"]).arg(root().join("target/release/hembo"));
    command
}

fn remove(path: &Path) -> Done {
    let removed = if path.is_dir() { fs::remove_dir_all(path) } else { fs::remove_file(path) };
    match removed {
        Err(error) if path.exists() => Err(format!("{} cannot be removed: {error}", path.display())),
        _ => Ok(()),
    }
}

/// The port asked for, or the next free one.
fn free_port(wanted: u16) -> Done<u16> {
    let free = |port: &u16| TcpListener::bind(("127.0.0.1", *port)).is_ok();
    let found = (wanted..=wanted.saturating_add(20)).find(free);
    let port = found.ok_or(format!(
        "Ports {wanted} to {} are taken: choose one with --port",
        wanted.saturating_add(20)
    ))?;
    if port != wanted {
        println!("Port {wanted} is taken; using {port}.");
    }
    Ok(port)
}

/// The log goes on where it ended, for its owner's eyes alone; a long one makes room. One that cannot be written holds
/// nothing up.
fn log_to(log: &Path) -> Stdio {
    if fs::metadata(log).is_ok_and(|there| there.len() > LONGEST_LOG) {
        let _ = fs::rename(log, log.with_extension("log.1"));
    }
    let opened = fs::OpenOptions::new().create(true).append(true).mode(0o600).open(log);
    opened.map_or_else(
        |error| {
            println!("Nothing is logged: {}: {error}", log.display());
            Stdio::null()
        },
        Stdio::from,
    )
}

/// Runs the server until Ctrl-C, which reaches it and the database as well as this process: the server finishes the
/// requests at work. Both also stop when this process is killed.
fn serve(cluster: &Cluster, data: &Path, port: u16, backups: bool) -> Done {
    cluster.create("hembo").map_err(|e| format!("The database cannot be made: {e}"))?;
    let log = data.join("server.log");
    let outside = free_port(port + 40)?;
    let mut stand_in = hembo();
    stand_in.args(["authority", "--listen", &format!("127.0.0.1:{outside}"), "--books"]);
    stand_in.arg(data.join("authority.json")).stdout(Stdio::null());
    let mut stand_in =
        stand_in.spawn().map_err(|e| format!("The stand-in for the authority does not start: {e}"))?;
    let mut server = hembo();
    server.env("HEMBO_DATABASE", cluster.url("hembo"));
    server.env("HEMBO_AUTHORITY", format!("http://127.0.0.1:{outside}"));
    server
        .args(["serve", "--listen", &format!("127.0.0.1:{port}"), "--demo", "demo", "--key"])
        .arg(data.join("key"));
    if backups {
        server.arg("--backups").arg(data.join("backups"));
        println!("A checked backup a day lies in {}.", data.join("backups").display());
    }
    server.stderr(log_to(&log));
    println!(
        "\n   Hembo     http://127.0.0.1:{port}\n   sign in   demo, quay-street-12\n   administrator   office, quay-street-12"
    );
    println!(
        "   authority (simulated) http://127.0.0.1:{outside}, slips to drop on the desk: http://127.0.0.1:{outside}/slips"
    );
    println!("   log       {}\n   Ctrl-C stops it.\n", log.display());
    let status = server.status().map_err(|e| format!("The server does not start: {e}"));
    let _ = stand_in.kill().and_then(|()| stand_in.wait());
    let status = status?;
    if status.success() {
        Ok(())
    } else {
        Err(format!("The server ended with {status}; see {}.", log.display()))
    }
}
