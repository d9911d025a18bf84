//! What stands around the API: the front end's files, addresses that are none, hosts that are not served.

use crate::common::Client;
use axum::{
    body::Body,
    extract::ConnectInfo,
    http::{Request, header},
};
use hembo_server::{Settings, router};
use std::{net::SocketAddr, path::Path};
use tower::ServiceExt;

#[tokio::test]
async fn files_are_sent_as_they_were_packed_and_kept_by_their_names() {
    let client = Client::new("front").await;
    let asset = client.get("/assets/page-1.js").await;
    assert_eq!(
        (asset.status.as_u16(), &asset.headers["cache-control"]),
        (200, &"public, max-age=31536000, immutable".parse().unwrap())
    );
    let app = router(client.app.clone(), &settings(&[]), false);
    let request = Request::get("/assets/page-1.js").header(header::ACCEPT_ENCODING, "gzip, br");
    let packed = app.oneshot(request.body(Body::empty()).unwrap()).await.unwrap();
    assert_eq!(
        (&packed.headers()["content-encoding"], packed.headers().get("content-length").unwrap()),
        (&"br".parse().unwrap(), &"6".parse().unwrap())
    );
    let missing = client.get("/assets/page-2.js").await;
    assert_eq!(missing.headers["cache-control"], "no-cache");
    assert_eq!(missing.ok(404)["type"], "urn:hembo:not-found");
    // Every other address is a view's, and opens the page.
    for view in ["/", "/h/nothing/ways", "/figures?law=us"] {
        assert!(client.get(view).await.ok(200).as_str().unwrap().contains("<!doctype html>"), "{view}");
    }
}

fn settings(hosts: &[&str]) -> Settings {
    Settings {
        web: Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/site"),
        hosts: hosts.iter().map(|&host| host.to_owned()).collect(),
        ..Settings::of("", Path::new(""))
    }
}

#[tokio::test]
async fn what_cannot_be_read_is_refused_in_words() {
    let client = Client::signed_in("said_in_words").await;
    for (path, status) in [
        ("/api/nothing", 404),
        ("/api/households/none", 400),
        ("/api/households?from=many", 400),
        ("/api/households/00000000-0000-4000-8000-000000000000/curve", 400),
    ] {
        let problem = client.get(path).await.ok(status);
        assert!(problem["detail"].as_str().unwrap().len() > 5, "{path}: {problem}");
    }
    assert_eq!(client.put("/api/households", serde_json::json!({})).await.ok(405)["status"], 405);
    let long = format!("/api/households?search={}", "a".repeat(60_000));
    assert_eq!(client.get(&long).await.ok(414)["status"], 414);
}

/// Named hosts alone are served, whatever the port; by HTTPS browsers are told to come by it.
#[tokio::test]
async fn only_named_hosts_are_served() {
    let client = Client::new("hosts").await;
    let answer = async |hosts: &[&str], host: &str, secure: bool| {
        let request = Request::get("/api/health").header(header::HOST, host);
        let request = request.extension(ConnectInfo::<SocketAddr>("127.0.0.1:9".parse().unwrap()));
        let app = router(client.app.clone(), &settings(hosts), secure);
        app.oneshot(request.body(Body::empty()).unwrap()).await.unwrap()
    };
    let named = ["hembo.example.org", "localhost"];
    for (hosts, host, status) in [
        (&named[..], "hembo.example.org", 200),
        (&named[..], "HEMBO.example.org:8443", 200),
        (&named[..], "elsewhere.example.org", 421),
        (&named[..], "hembo.example.org.elsewhere", 421),
        (&[], "anything", 200),
    ] {
        assert_eq!(answer(hosts, host, true).await.status().as_u16(), status, "{host}");
    }
    assert_eq!(answer(&[], "x", true).await.headers()["strict-transport-security"], "max-age=31536000");
    assert!(!answer(&[], "x", false).await.headers().contains_key("strict-transport-security"));
}
