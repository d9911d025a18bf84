//! PostgreSQL clusters of the project's own, from Debian's programs: a durable one that the start command serves
//! from, throw-away ones for tests. Both listen on 127.0.0.1 only. As root the server runs as user `postgres`.
//!
//! A cluster stops when it is dropped, and also when the process dies: the server is told to stop when its parent
//! thread ends, and that thread waits as long as the process lives. A durable server that dies is started again.

use std::{
    fs, io,
    net::TcpListener,
    os::unix::fs::PermissionsExt,
    path::{Path, PathBuf},
    process::{Child, Command, Stdio},
    sync::{
        Arc, OnceLock,
        atomic::{AtomicU32, Ordering},
        mpsc::{self, RecvTimeoutError},
    },
    thread,
    time::{Duration, Instant},
};

/// Whether data must survive.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Kind {
    /// Every acknowledged write is on the disk.
    Durable,
    /// Fast, and gone with the folder.
    ThrowAway,
}

/// A running PostgreSQL server.
#[derive(Debug)]
pub struct Cluster {
    folder: PathBuf,
    kind: Kind,
    port: u16,
    password: String,
    /// The process of the moment.
    pid: Arc<AtomicU32>,
    /// Gone where it is to stop.
    stop: Option<mpsc::Sender<()>>,
}

/// How often it is looked whether a durable server lives.
const LOOK: Duration = Duration::from_millis(500);

/// What to install where PostgreSQL's programs are missing.
pub const PACKAGE: &str = "postgresql";

/// The folder of PostgreSQL's server programs, the newest version, if they are installed.
pub fn programs() -> Option<PathBuf> {
    let versions = fs::read_dir("/usr/lib/postgresql").ok()?.flatten();
    let mut found: Vec<_> =
        versions.map(|v| v.path().join("bin")).filter(|b| b.join("postgres").is_file()).collect();
    found.sort_by_key(|bin| version(bin));
    found.pop()
}

fn version(bin: &Path) -> u32 {
    let name = bin.parent().and_then(Path::file_name).and_then(|n| n.to_str());
    name.and_then(|n| n.parse().ok()).unwrap_or(0)
}

/// Whether this process runs as root, which PostgreSQL refuses to.
pub fn is_root() -> bool {
    Command::new("id").arg("-u").output().is_ok_and(|o| o.stdout.starts_with(b"0\n"))
}

fn failed(what: &str) -> io::Error {
    io::Error::other(what.to_owned())
}

impl Cluster {
    /// Starts a cluster in a folder, making it first where there is none.
    ///
    /// # Errors
    /// Missing programs, a folder that cannot be used, or a server that does not come up.
    pub fn start(folder: &Path, kind: Kind) -> io::Result<Cluster> {
        let bin =
            programs().ok_or_else(|| failed("PostgreSQL is not installed: apt-get install postgresql"))?;
        fs::create_dir_all(folder)?;
        give_to_postgres(folder)?;
        let password = password(folder)?;
        if !folder.join("cluster/PG_VERSION").is_file() {
            init(&bin, folder, kind)?;
        }
        let port = free_port()?;
        let (pid, stop) = run(&bin, folder, kind, port)?;
        let cluster = Cluster { folder: folder.to_owned(), kind, port, password, pid, stop: Some(stop) };
        cluster.wait(&bin)?;
        Ok(cluster)
    }

    /// Starts a throw-away cluster in a new temporary folder.
    ///
    /// # Errors
    /// As [`Cluster::start`].
    pub fn throw_away() -> io::Result<Cluster> {
        remove_abandoned();
        let folder = std::env::temp_dir().join(format!("hembo-test-{}", std::process::id()));
        Cluster::start(&folder, Kind::ThrowAway)
    }

    /// The address of a database of this cluster.
    pub fn url(&self, database: &str) -> String {
        format!("postgres://hembo:{}@127.0.0.1:{}/{database}", self.password, self.port)
    }

    /// Makes a database where there is none of that name.
    ///
    /// # Errors
    /// What PostgreSQL says.
    pub fn create(&self, database: &str) -> io::Result<()> {
        let found = self.query(&format!("select 1 from pg_database where datname = '{database}'"))?;
        if found.trim().is_empty() {
            self.query(&format!("create database {database}"))?;
        }
        Ok(())
    }

    /// An empty database for a test: in the cluster whose address `HEMBO_TEST_CLUSTER` holds, or, where a test runs
    /// on its own, in one that this process starts once.
    ///
    /// # Errors
    /// A cluster that does not start, or what PostgreSQL says.
    pub fn test_database(name: &str) -> io::Result<String> {
        static OWN: OnceLock<io::Result<Cluster>> = OnceLock::new();
        let base = match std::env::var("HEMBO_TEST_CLUSTER") {
            Ok(url) => url,
            Err(_) => match OWN.get_or_init(Cluster::throw_away) {
                Ok(cluster) => cluster.url("postgres"),
                Err(error) => return Err(failed(&error.to_string())),
            },
        };
        let database = format!("{name}_{}", std::process::id());
        psql(&base, &format!("create database {database}"))?;
        let (address, _) = base.rsplit_once('/').unwrap_or((&base, ""));
        Ok(format!("{address}/{database}"))
    }

    fn query(&self, sql: &str) -> io::Result<String> {
        psql(&self.url("postgres"), sql)
    }

    fn wait(&self, bin: &Path) -> io::Result<()> {
        let begun = Instant::now();
        let port = self.port.to_string();
        while begun.elapsed() < Duration::from_secs(30) {
            let mut ready = Command::new(bin.join("pg_isready"));
            ready.args(["-q", "-h", "127.0.0.1", "-p", &port, "-U", "hembo"]);
            if ready.status().is_ok_and(|s| s.success()) {
                return Ok(());
            }
            thread::sleep(Duration::from_millis(40));
        }
        let log = fs::read_to_string(self.folder.join("log")).unwrap_or_default();
        Err(failed(&format!("PostgreSQL did not start:\n{log}")))
    }
}

fn psql(url: &str, sql: &str) -> io::Result<String> {
    let bin = programs().ok_or_else(|| failed("PostgreSQL is not installed"))?;
    let mut psql = Command::new(bin.join("psql"));
    let output = psql.args(["-X", "-q", "-t", "-A", "-v", "ON_ERROR_STOP=1", "-c", sql, url]).output()?;
    if !output.status.success() {
        return Err(failed(&String::from_utf8_lossy(&output.stderr)));
    }
    Ok(String::from_utf8_lossy(&output.stdout).into_owned())
}

impl Drop for Cluster {
    fn drop(&mut self) {
        // Who ends now is not started again. SIGINT is PostgreSQL's fast, clean shutdown.
        self.stop = None;
        let _ = Command::new("kill").args(["-INT", &self.pid.load(Ordering::SeqCst).to_string()]).status();
        let lock = self.folder.join("cluster/postmaster.pid");
        let begun = Instant::now();
        while lock.exists() && begun.elapsed() < Duration::from_secs(20) {
            thread::sleep(Duration::from_millis(20));
        }
        if self.kind == Kind::ThrowAway {
            let _ = fs::remove_dir_all(&self.folder);
        }
    }
}

/// Folders of test runs that were killed.
fn remove_abandoned() {
    let Ok(entries) = fs::read_dir(std::env::temp_dir()) else { return };
    for entry in entries.flatten() {
        let name = entry.file_name().to_string_lossy().into_owned();
        let owner = name.strip_prefix("hembo-test-").and_then(|pid| pid.parse::<u32>().ok());
        if owner.is_some_and(|pid| !Path::new(&format!("/proc/{pid}")).exists()) {
            let _ = fs::remove_dir_all(entry.path());
        }
    }
}

fn give_to_postgres(path: &Path) -> io::Result<()> {
    if is_root() {
        let status = Command::new("chown").arg("postgres:postgres").arg(path).status()?;
        if !status.success() {
            return Err(failed("There is no user postgres: apt-get install postgresql"));
        }
    }
    fs::set_permissions(path, fs::Permissions::from_mode(if path.is_dir() { 0o700 } else { 0o600 }))
}

/// The cluster's password, made once from the system's random source.
fn password(folder: &Path) -> io::Result<String> {
    let file = folder.join("password");
    if let Ok(password) = fs::read_to_string(&file) {
        return Ok(password.trim().to_owned());
    }
    let random = fs::read_to_string("/proc/sys/kernel/random/uuid")?;
    let password = random.trim().replace('-', "");
    fs::write(&file, &password)?;
    give_to_postgres(&file)?;
    Ok(password)
}

/// A command that runs as an ordinary user, from a folder which that user may enter.
fn as_postgres(program: &Path) -> Command {
    let mut command = Command::new("setpriv");
    if is_root() {
        command.args(["--reuid=postgres", "--regid=postgres", "--init-groups"]);
    }
    command.args(["--pdeathsig", "INT", "--"]).arg(program).current_dir("/");
    command
}

fn init(bin: &Path, folder: &Path, kind: Kind) -> io::Result<()> {
    let mut command = as_postgres(&bin.join("initdb"));
    command.arg("-D").arg(folder.join("cluster")).args(["-U", "hembo", "-E", "UTF8", "--locale=C.UTF-8"]);
    command.args(["-A", "scram-sha-256", "--pwfile"]).arg(folder.join("password"));
    command.arg(if kind == Kind::Durable { "--data-checksums" } else { "--no-sync" });
    let output = command.output()?;
    if output.status.success() { Ok(()) } else { Err(failed(&String::from_utf8_lossy(&output.stderr))) }
}

fn free_port() -> io::Result<u16> {
    Ok(TcpListener::bind(("127.0.0.1", 0))?.local_addr()?.port())
}

/// Runs the server from a thread of its own that waits until the cluster is dropped or the process ends.
fn run(bin: &Path, folder: &Path, kind: Kind, port: u16) -> io::Result<(Arc<AtomicU32>, mpsc::Sender<()>)> {
    let log = fs::File::create(folder.join("log"))?;
    let mut command = as_postgres(&bin.join("postgres"));
    command.arg("-D").arg(folder.join("cluster"));
    let sockets = format!("unix_socket_directories={}", folder.display());
    command.args(["-c", "listen_addresses=127.0.0.1", "-c", &format!("port={port}"), "-c", &sockets]);
    if kind == Kind::ThrowAway {
        for setting in ["fsync=off", "synchronous_commit=off", "full_page_writes=off", "max_connections=300"]
        {
            command.args(["-c", setting]);
        }
    }
    command.stdin(Stdio::null()).stdout(log.try_clone()?).stderr(log);
    let (started, begun) = mpsc::channel::<io::Result<()>>();
    let (stop, stopped) = mpsc::channel::<()>();
    let pid = Arc::new(AtomicU32::new(0));
    let running = Arc::clone(&pid);
    thread::spawn(move || match command.spawn() {
        Err(error) => drop(started.send(Err(error))),
        Ok(server) => {
            running.store(server.id(), Ordering::SeqCst);
            let _ = started.send(Ok(()));
            watch(server, kind, &stopped, |again| {
                let server = command.spawn()?;
                running.store(server.id(), Ordering::SeqCst);
                *again = server;
                Ok(())
            });
        }
    });
    begun.recv().map_err(|_| failed("The thread of the database ended."))??;
    Ok((pid, stop))
}

/// Waits until a server is to stop, and for its end; one that must last and died is started again, as often as it takes: what
/// is left of the dead one may hold its files for a moment.
fn watch(
    mut server: Child,
    kind: Kind,
    stopped: &mpsc::Receiver<()>,
    mut start: impl FnMut(&mut Child) -> io::Result<()>,
) {
    while stopped.recv_timeout(LOOK) == Err(RecvTimeoutError::Timeout) {
        if kind == Kind::Durable
            && matches!(server.try_wait(), Ok(Some(_)))
            && let Err(error) = start(&mut server)
        {
            eprintln!("The database is down and does not start again: {error}");
        }
    }
    let _ = server.wait();
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_durable_server_that_is_killed_comes_back_with_all_that_was_written() {
        let folder = std::env::temp_dir().join(format!("hembo-test-{}", std::process::id()));
        let cluster = Cluster::start(&folder, Kind::Durable).unwrap();
        cluster.query("create table kept (word text)").unwrap();
        cluster.query("insert into kept values ('kept')").unwrap();
        let first = cluster.pid.load(Ordering::SeqCst);
        assert!(Command::new("kill").args(["-KILL", &first.to_string()]).status().unwrap().success());
        let begun = Instant::now();
        let word = loop {
            match cluster.query("select word from kept") {
                Ok(word) => break word,
                Err(error) => assert!(begun.elapsed() < Duration::from_secs(60), "{error}"),
            }
            thread::sleep(Duration::from_millis(100));
        };
        assert_eq!(word.trim(), "kept");
        assert_ne!(cluster.pid.load(Ordering::SeqCst), first);
        // Asked to stop it stops, and stays so.
        drop(cluster);
        assert!(!folder.join("cluster/postmaster.pid").exists());
        thread::sleep(LOOK * 3);
        assert!(!folder.join("cluster/postmaster.pid").exists());
        fs::remove_dir_all(folder).unwrap();
    }
}
