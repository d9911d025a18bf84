//! Who may call what: the description of the API says it of every route, and every route keeps to it.

use crate::common::Client;
use axum::body::Body;
use hembo_server::openapi_json;
use serde_json::Value;

/// Every operation: its method, its path with somebody's or nobody's names in it, and the roles that may call it.
fn operations() -> Vec<(String, String, Vec<String>)> {
    let described: Value = serde_json::from_str(&openapi_json()).unwrap();
    let mut all = Vec::new();
    for (path, methods) in described["paths"].as_object().unwrap() {
        for (method, operation) in methods.as_object().unwrap() {
            let who: Vec<String> = serde_json::from_value(operation["x-may-call"].clone())
                .unwrap_or_else(|_| panic!("{method} {path}: nobody said who may call it"));
            all.push((method.clone(), filled(path), who));
        }
    }
    // What ends the session comes last.
    all.sort_by_key(|(method, path, _)| (path == "/api/session" && method == "delete", path.clone()));
    all
}

/// A path with ids of nothing in the places of its parts.
fn filled(path: &str) -> String {
    let part = |part: &str| match part {
        _ if !part.starts_with('{') => part.to_owned(),
        "{revision}" | "{page}" | "{number}" => "1".to_owned(),
        _ => "00000000-0000-4000-8000-000000000000".to_owned(),
    };
    path.split('/').map(part).collect::<Vec<_>>().join("/")
}

async fn called(client: &Client, method: &str, path: &str) -> (u16, Value) {
    let answer = client.send(&method.to_uppercase(), path, Body::from("{}")).await;
    (answer.status.as_u16(), answer.body)
}

#[tokio::test]
async fn every_route_keeps_to_who_may_call_it() {
    let demo = Client::new("roles").await;
    let all = operations();
    let of_administrators = all.iter().filter(|(.., who)| who == &["administrator"]).count();
    assert!(all.len() > 100 && of_administrators >= 12, "{} {of_administrators}", all.len());
    for (role, login) in [("preparer", "demo"), ("reviewer", "review"), ("administrator", "office")] {
        let client = demo.other(login).await;
        for (method, path, who) in all.iter().filter(|(.., who)| !who.is_empty()) {
            let (status, answer) = called(&client, method, path).await;
            let kind = answer["type"].as_str().unwrap_or_default();
            let refused = (status, kind) == (403, "urn:hembo:not-allowed");
            assert_eq!(
                refused,
                !who.iter().any(|of| of == role),
                "{role}: {method} {path} {status} {answer}"
            );
            assert_ne!(status, 401, "{role}: {method} {path}");
            assert_ne!(status, 500, "{role}: {method} {path}");
        }
    }
    let stranger = demo.stranger();
    for (method, path, _) in all.iter().filter(|(.., who)| !who.is_empty()) {
        let (status, _) = called(&stranger, method, path).await;
        assert_eq!(status, 401, "a stranger: {method} {path}");
    }
}
