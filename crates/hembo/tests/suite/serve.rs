//! The server as a process: what it can do without.

use hembo_cluster::Cluster;
use std::{
    fs::File,
    io::{Read, Write},
    net::{TcpListener, TcpStream},
    process::{Child, Command, Stdio},
    time::Duration,
};

/// A server whose output and log go nowhere.
fn serve(database: &str, key: &str, log: Stdio, port: u16) -> Child {
    let mut command = Command::new(env!("CARGO_BIN_EXE_hembo"));
    command.args(["serve", "--database", database, "--key", key, "--listen", &format!("127.0.0.1:{port}")]);
    command.stdout(File::options().write(true).open("/dev/full").unwrap()).stderr(log);
    command.spawn().unwrap()
}

fn health(port: u16) -> Option<String> {
    let mut stream = TcpStream::connect(("127.0.0.1", port)).ok()?;
    stream.write_all(b"GET /api/health HTTP/1.0\r\n\r\n").ok()?;
    let mut answer = String::new();
    stream.read_to_string(&mut answer).ok()?;
    Some(answer)
}

/// A log that cannot be written, and nobody who reads the address, stop neither the start nor an answer.
#[test]
fn an_unwritable_log_stops_nothing() {
    let database = Cluster::test_database("unwritable").unwrap();
    let key = std::env::temp_dir().join(format!("hembo-key-serve-{}", std::process::id()));
    let port = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port();
    let full = File::options().write(true).open("/dev/full").unwrap();
    let mut server = serve(&database, key.to_str().unwrap(), full.into(), port);
    let mut answer = None;
    for _ in 0..200 {
        answer = health(port);
        if answer.is_some() {
            break;
        }
        std::thread::sleep(Duration::from_millis(50));
    }
    let again = health(port);
    server.kill().unwrap();
    server.wait().unwrap();
    // The key is missing at the second start: it stops, says why, and makes none.
    std::fs::remove_file(&key).unwrap();
    let second = serve(&database, key.to_str().unwrap(), Stdio::piped(), port);
    let output = second.wait_with_output().unwrap();
    let told = String::from_utf8_lossy(&output.stderr).into_owned();
    assert!(answer.unwrap().contains("200 OK") && again.unwrap().contains("200 OK"));
    assert_eq!(output.status.code(), Some(1));
    assert!(told.contains("is missing") && told.contains("from your backup") && !key.exists(), "{told}");
}
