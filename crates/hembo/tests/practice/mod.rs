//! A practice at work, for what is tried under load: the server as a process of its own, and people who edit in it.
#![allow(dead_code, missing_docs, clippy::unwrap_used, clippy::unreachable)]

use hembo_cluster::{Cluster, Kind};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use std::{
    fs,
    net::TcpListener,
    path::{Path, PathBuf},
    process::{Child, Command, Stdio},
    time::{Duration, Instant},
};
use uuid::Uuid;

/// A durable database and a server on it, with the demo data, in a folder that goes with them.
pub struct Practice {
    folder: PathBuf,
    cluster: Option<Cluster>,
    server: Child,
    port: u16,
}

impl Practice {
    pub async fn start(name: &str) -> Practice {
        let folder = std::env::temp_dir().join(format!("hembo-practice-{name}-{}", std::process::id()));
        fs::create_dir_all(&folder).unwrap();
        let cluster = Cluster::start(&folder.join("database"), Kind::Durable).unwrap();
        cluster.create("hembo").unwrap();
        let port = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port();
        let server = serve(&cluster.url("hembo"), &folder, port);
        let practice = Practice { folder, cluster: Some(cluster), server, port };
        practice.ready().await;
        practice
    }

    pub fn database(&self) -> String {
        self.cluster.as_ref().unwrap().url("hembo")
    }

    pub fn address(&self) -> String {
        format!("http://127.0.0.1:{}", self.port)
    }

    /// Waits until it answers with its database.
    pub async fn ready(&self) {
        let begun = Instant::now();
        let health = format!("{}/api/health", self.address());
        loop {
            if reqwest::get(&health).await.is_ok_and(|answer| answer.status().is_success()) {
                return;
            }
            assert!(begun.elapsed() < Duration::from_secs(120), "the server does not come up");
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
    }

    /// Kills the server as it stands, and starts another.
    pub fn kill_server(&mut self) {
        self.server.kill().unwrap();
        self.server.wait().unwrap();
        self.server = serve(&self.database(), &self.folder, self.port);
    }

    fn database_process(&self) -> String {
        let pid = fs::read_to_string(self.folder.join("database/cluster/postmaster.pid")).unwrap();
        pid.lines().next().unwrap().trim().to_owned()
    }

    /// Kills the database as it stands; it is started again by who keeps it.
    pub fn kill_database(&self) {
        assert!(Command::new("kill").args(["-KILL", &self.database_process()]).status().unwrap().success());
    }

    /// The database's processes can write nothing more, as on a full disk. It ends, and is started again with room.
    pub fn fill_disk(&self) {
        let first = self.database_process();
        let children = Command::new("pgrep").args(["--parent", &first]).output().unwrap().stdout;
        let children = String::from_utf8(children).unwrap();
        for pid in children.lines().chain([first.as_str()]) {
            // One that ended meanwhile writes nothing anyway.
            let _ = Command::new("prlimit").args(["--pid", pid, "--fsize=0:"]).stderr(Stdio::null()).status();
        }
    }

    /// The memory that the server holds now, in bytes.
    pub fn memory(&self) -> u64 {
        let status = fs::read_to_string(format!("/proc/{}/status", self.server.id())).unwrap();
        let line = status.lines().find_map(|line| line.strip_prefix("VmRSS:")).unwrap();
        line.trim().trim_end_matches(" kB").parse::<u64>().unwrap() * 1024
    }
}

impl Drop for Practice {
    fn drop(&mut self) {
        let _ = self.server.kill();
        let _ = self.server.wait();
        self.cluster = None;
        let _ = fs::remove_dir_all(&self.folder);
    }
}

fn serve(database: &str, folder: &Path, port: u16) -> Child {
    let root = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../..");
    let mut command = Command::new(env!("CARGO_BIN_EXE_hembo"));
    command.current_dir(root).args(["serve", "--demo", "demo", "--database", database]);
    command.args(["--listen", &format!("127.0.0.1:{port}"), "--key"]).arg(folder.join("key"));
    command.stdout(Stdio::null()).stderr(Stdio::null()).spawn().unwrap()
}

/// Someone who is signed in.
#[derive(Clone)]
pub struct Person {
    client: Client,
    address: String,
    cookie: String,
    token: String,
}

impl Person {
    pub async fn signed_in(address: &str) -> Person {
        let client = Client::builder().no_proxy().timeout(Duration::from_secs(60)).build().unwrap();
        let body = json!({ "login": "demo", "password": "quay-street-12" });
        let sent = client.post(format!("{address}/api/session")).json(&body).send().await.unwrap();
        let cookie = sent.headers()["set-cookie"].to_str().unwrap().split(';').next().unwrap().to_owned();
        let answer: Value = sent.json().await.unwrap();
        let token = answer["token"].as_str().unwrap().to_owned();
        Person { client, address: address.to_owned(), cookie, token }
    }

    pub async fn get(&self, path: &str) -> Value {
        let request = self.client.get(format!("{}{path}", self.address)).header("cookie", &self.cookie);
        let answer = request.send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::OK, "{path}");
        answer.json().await.unwrap()
    }

    /// The status and the answer, unless nobody answered.
    pub async fn post(&self, path: &str, body: &Value) -> Option<(StatusCode, Value)> {
        let request = self.client.post(format!("{}{path}", self.address)).json(body);
        let request = request.header("cookie", &self.cookie).header("x-hembo-token", &self.token);
        let answer = request.send().await.ok()?;
        let status = answer.status();
        Some((status, answer.json().await.ok()?))
    }

    /// The ids of the households in the list's first page.
    pub async fn households(&self) -> Vec<String> {
        let list = self.get("/api/households").await;
        list["rows"].as_array().unwrap().iter().map(|row| row["id"].as_str().unwrap().to_owned()).collect()
    }

    /// Sends an edit; nothing where nobody answered or nobody could.
    pub async fn edit(&self, id: &str, base: i64, commands: &Value, key: Uuid) -> Option<Value> {
        let body = json!({ "base_revision": base, "commands": commands, "key": key });
        match self.post(&format!("/api/households/{id}/edits"), &body).await? {
            (StatusCode::OK, opened) => Some(opened),
            (status, problem) if status.is_server_error() => {
                assert!(problem["detail"].is_string(), "{status} without a word of why: {problem}");
                None
            }
            (status, problem) => unreachable!("{status}: {problem:#}"),
        }
    }
}
