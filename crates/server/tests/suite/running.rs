//! What keeps the server running: metrics, whether it lives and can work, clients that send half a
//! request, its end, and a database that is reached by TLS.

use crate::common::Client;
use axum::{
    body::{Body, to_bytes},
    http::Request,
};
use hembo_cluster::{Cluster, Kind};
use hembo_server::{Settings, metrics, run, store};
use sqlx::AssertSqlSafe;
use std::{
    fs::{self, Permissions},
    os::unix::fs::PermissionsExt,
    path::Path,
    process::Command,
};
use tokio::{
    io::{AsyncReadExt, AsyncWriteExt},
    net::{TcpListener, TcpStream},
    sync::oneshot,
};
use tower::ServiceExt;

/// What the port of its own answers.
async fn told(client: &Client, path: &str) -> (u16, String) {
    let request = Request::get(path).body(Body::empty()).unwrap();
    let answer = metrics::router(client.app.clone()).oneshot(request).await.unwrap();
    let status = answer.status().as_u16();
    let text = to_bytes(answer.into_body(), usize::MAX).await.unwrap();
    (status, String::from_utf8(text.to_vec()).unwrap())
}

#[tokio::test]
async fn metrics_count_by_route_and_tell_nothing_of_a_family() {
    let client = Client::signed_in("metrics").await;
    let id = client.household("Okonjo-Farrell").await;
    client.get(&format!("/api/households/{id}")).await.ok(200);
    client.get(&format!("/api/households/{id}/nothing")).await.ok(404);
    let (status, text) = told(&client, "/metrics").await;
    assert_eq!(status, 200);
    for line in [
        "hembo_requests_total{method=\"GET\",route=\"/api/households/{id}\",status=\"200\"} 1",
        "hembo_request_seconds_count{method=\"GET\",route=\"/api/households/{id}\"} 1",
        "hembo_database_connections{state=\"used\"}",
    ] {
        assert!(text.contains(line), "{line}\n{text}");
    }
    let reckoned = text.lines().find_map(|line| line.strip_prefix("hembo_reckoning_seconds_count "));
    assert!(reckoned.is_some_and(|count| count.parse::<u64>().unwrap() > 0), "{text}");
    assert!(text.contains("process_resident_memory_bytes"), "{text}");
    for word in [id.as_str(), "Okonjo", "Isolde"] {
        assert!(!text.contains(word), "{word}");
    }
    // The main port tells no metrics: there the front end stands.
    let page = client.get("/metrics").await.ok(200);
    assert!(page.as_str().unwrap().starts_with("<!doctype html>"), "{page}");
}

#[tokio::test]
async fn without_its_database_it_lives_and_cannot_work() {
    let client = Client::new("lives").await;
    assert_eq!((told(&client, "/live").await.0, told(&client, "/ready").await.0), (200, 200));
    client.get("/api/live").await.ok(200);
    client.app.database.close().await;
    assert_eq!((told(&client, "/live").await.0, told(&client, "/ready").await.0), (200, 503));
    client.get("/api/live").await.ok(200);
    client.get("/api/health").await.ok(503);
}

#[tokio::test]
async fn who_sends_half_a_request_is_let_go_and_nobody_holds_up_the_end() {
    let client = Client::new("half").await;
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = listener.local_addr().unwrap();
    let (stop, stopped) = oneshot::channel::<()>();
    let settings = Settings::of("", Path::new(""));
    let app = client.app.clone();
    let server = tokio::spawn(async move {
        run(app, &settings, listener, async {
            let _ = stopped.await;
        })
        .await
    });
    let answered = async |sent: &str| {
        let mut stream = TcpStream::connect(address).await.unwrap();
        stream.write_all(sent.as_bytes()).await.unwrap();
        let mut answer = String::new();
        stream.read_to_string(&mut answer).await.unwrap();
        answer
    };
    let body = "POST /api/session HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: 90\r\n\r\n{\"lo";
    let head = "POST /api/session HTTP/1.1\r\nHost: x\r\nContent-";
    let whole = "GET /api/live HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n";
    let (body, head, nothing, whole) =
        tokio::join!(answered(body), answered(head), answered(""), answered(whole));
    assert!(body.starts_with("HTTP/1.1 400") && body.contains("application/problem+json"), "{body}");
    assert_eq!((head.as_str(), nothing.as_str()), ("", ""));
    assert!(whole.starts_with("HTTP/1.1 200") && whole.ends_with("ok"), "{whole}");

    // One that is in the middle of its head when the server is asked to stop.
    let mut open = TcpStream::connect(address).await.unwrap();
    open.write_all(b"GET /api/live HTTP/1.1\r\nHost").await.unwrap();
    stop.send(()).unwrap();
    server.await.unwrap().unwrap();
    assert!(TcpStream::connect(address).await.is_err());
}

/// A certificate with its key, signed by itself or by an authority.
fn certificate(folder: &Path, name: &str, with: &[&str]) -> (String, String) {
    let at = |ending: &str| folder.join(format!("{name}.{ending}")).to_str().unwrap().to_owned();
    let (certificate, key) = (at("crt"), at("key"));
    let made = Command::new("openssl")
        .args([
            "req",
            "-x509",
            "-newkey",
            "rsa:2048",
            "-nodes",
            "-days",
            "2",
            "-subj",
            &format!("/CN={name}"),
        ])
        .args(["-out", &certificate, "-keyout", &key])
        .args(with)
        .output()
        .unwrap();
    assert!(made.status.success(), "{}", String::from_utf8_lossy(&made.stderr));
    (certificate, key)
}

/// A key for PostgreSQL's eyes alone.
fn give_to_postgres(key: &str) {
    fs::set_permissions(key, Permissions::from_mode(0o600)).unwrap();
    if hembo_cluster::is_root() {
        assert!(Command::new("chown").args(["postgres", key]).status().unwrap().success());
    }
}

#[tokio::test]
async fn a_database_elsewhere_is_reached_by_tls() {
    let folder = std::env::temp_dir().join(format!("hembo-test-tls-{}", std::process::id()));
    let cluster = Cluster::start(&folder, Kind::ThrowAway).unwrap();
    cluster.create("hembo").unwrap();
    let (authority, signs) = certificate(&folder, "authority", &[]);
    let by = ["-CA", &authority, "-CAkey", &signs, "-addext", "basicConstraints=critical,CA:FALSE"];
    let by = [&by[..], &["-addext", "subjectAltName=IP:127.0.0.1"]].concat();
    let (certificate_of_server, key) = certificate(&folder, "server", &by);
    give_to_postgres(&key);
    let plain = store::connect(&cluster.url("hembo")).await.unwrap();
    for set in [
        format!("alter system set ssl_cert_file = '{certificate_of_server}'"),
        format!("alter system set ssl_key_file = '{key}'"),
        "alter system set ssl = on".to_owned(),
        "select pg_reload_conf()".to_owned(),
    ] {
        sqlx::raw_sql(AssertSqlSafe(set)).execute(&plain).await.unwrap();
    }
    plain.close().await;
    let url = |by: &str| format!("{}?sslmode=verify-full&sslrootcert={by}", cluster.url("hembo"));
    let database = store::connect(&url(&authority)).await.unwrap();
    let encrypted = "select ssl from pg_stat_ssl where pid = pg_backend_pid()";
    let encrypted: bool = sqlx::query_scalar(encrypted).fetch_one(&database).await.unwrap();
    assert!(encrypted);
    database.close().await;
    // One that another authority signed is no database of ours.
    let (stranger, _) = certificate(&folder, "stranger", &[]);
    assert!(store::connect(&url(&stranger)).await.is_err());
    drop(cluster);
}
