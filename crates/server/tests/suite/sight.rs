//! Who sees which households, where the practice wants them seen by those in whose hands they lie.

use crate::common::Client;
use axum::body::Body;
use hembo_server::{demo, openapi_json};
use serde_json::{Value, json};

async fn own_sight(office: &Client, on: bool) {
    let practice = json!({ "name": "Quay Street Practice", "own_review": false, "own_sight": on });
    office.put("/api/practice", practice).await.ok(200);
}

async fn begun(client: &Client, name: &str) -> String {
    let new = json!({ "name": name, "country": "us", "year": 2025, "filers": [{ "name": "Kit Marsh" }] });
    client.post("/api/households", new).await.ok(201)["id"].as_str().unwrap().to_owned()
}

async fn found(client: &Client, name: &str) -> Value {
    client.get(&format!("/api/households?search={name}")).await.ok(200)["count"].clone()
}

async fn called(client: &Client, method: &str, path: &str) -> (u16, Value) {
    let answer = client.send(&method.to_uppercase(), path, Body::from("{}")).await;
    (answer.status.as_u16(), answer.body)
}

/// Every operation on a household that members may call, with its id in place.
fn operations(id: &str) -> Vec<(String, String)> {
    let described: Value = serde_json::from_str(&openapi_json()).unwrap();
    let mut all = Vec::new();
    for (path, methods) in described["paths"].as_object().unwrap() {
        let of_member = |operation: &Value| operation["x-may-call"].as_array().unwrap().len() > 1;
        let part = |part: &str| match part {
            "{id}" => id.to_owned(),
            "{revision}" | "{page}" | "{number}" => "1".to_owned(),
            _ if part.starts_with('{') => id.to_owned(),
            _ => part.to_owned(),
        };
        let filled = path.split('/').map(part).collect::<Vec<_>>().join("/");
        let methods = methods.as_object().unwrap().iter().filter(|(_, operation)| of_member(operation));
        if path.starts_with("/api/households/{id}") {
            all.extend(methods.map(|(method, _)| (method.clone(), filled.clone())));
        }
    }
    all
}

#[tokio::test]
async fn a_household_in_other_hands_is_not_there_by_any_route() {
    let preparer = Client::signed_in("sight").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let office = preparer.other(demo::OFFICE).await;
    let id = begun(&preparer, "Lampwright").await;
    assert_eq!(found(&reviewer, "Lampwright").await, 1);
    own_sight(&office, true).await;

    let all = operations(&id);
    assert!(all.len() > 70, "{}", all.len());
    for (method, path) in &all {
        let (status, answer) = called(&reviewer, method, path).await;
        assert_eq!((status, &answer["type"]), (404, &json!("urn:hembo:not-found")), "{method} {path}");
    }
    // Nor is its id another way in: a letter of it written as a number, or a trial of it.
    let coded = id.replacen(&id[..1], &format!("%{:02X}", id.as_bytes()[0]), 1);
    assert_eq!(called(&reviewer, "GET", &format!("/api/households/{coded}")).await.0, 404);
    let trials = format!("/api/households/{id}/trials");
    let trial = preparer.post(&trials, json!({ "name": "A smaller bill" })).await.ok(201);
    let trial = trial["id"].as_str().unwrap_or_else(|| panic!("{trial}")).to_owned();
    assert_eq!(called(&reviewer, "GET", &format!("/api/households/{trial}")).await.0, 404);
    preparer.get(&format!("/api/households/{trial}")).await.ok(200);

    assert_eq!(
        (found(&reviewer, "Lampwright").await, found(&preparer, "Lampwright").await),
        (json!(0), json!(1))
    );
    assert_eq!(found(&office, "Lampwright").await, 1);
    office.get(&format!("/api/households/{id}")).await.ok(200);

    // Whoever is asked to review sees it; and all do again where the practice wants that.
    let me = reviewer.get("/api/session").await.ok(200)["id"].clone();
    let worker = preparer.get("/api/session").await.ok(200)["id"].clone();
    let hands = json!({ "worked_by": worker, "reviewer": me, "held_until": null });
    office.put(&format!("/api/households/{id}/hands"), hands).await.ok(200);
    reviewer.get(&format!("/api/households/{id}")).await.ok(200);
    reviewer.get(&format!("/api/households/{trial}")).await.ok(200);
    assert_eq!(found(&reviewer, "Lampwright").await, 1);
    let other = begun(&office, "Netmender").await;
    assert_eq!(called(&preparer, "GET", &format!("/api/households/{other}")).await.0, 404);
    own_sight(&office, false).await;
    preparer.get(&format!("/api/households/{other}")).await.ok(200);
}

#[tokio::test]
async fn what_moved_is_told_and_ticked_off_among_the_own_households() {
    let preparer = Client::signed_in("sight_moved").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let office = preparer.other(demo::OFFICE).await;
    let id = begun(&preparer, "Lampwright").await;
    let summary = json!({ "total": "1", "balance": "1", "ways": 1, "covered": true });
    let moved =
        "insert into rereckoned (id, household, was, came) values (gen_random_uuid(), $1::uuid, $2, $2)";
    let write = sqlx::query(moved).bind(&id).bind(&summary);
    write.execute(&preparer.app.database).await.unwrap();
    own_sight(&office, true).await;
    let told = async |client: &Client| client.get("/api/rereckoned").await.ok(200)["moved"].clone();
    assert_eq!(
        (told(&preparer).await, told(&reviewer).await, told(&office).await),
        (json!(1), json!(0), json!(1))
    );
    let seen = json!({ "from": "2000-01-01T00:00:00Z", "until": "2999-01-01T00:00:00Z" });
    reviewer.post("/api/rereckoned/seen", seen.clone()).await.ok(204);
    assert_eq!(told(&preparer).await, 1);
    preparer.post("/api/rereckoned/seen", seen).await.ok(204);
    assert_eq!(told(&office).await, 0);
}

#[tokio::test]
async fn one_sees_where_one_is_signed_in_and_ends_it_there() {
    let here = Client::signed_in("own_sessions").await;
    let elsewhere = here.other("demo").await;
    let sessions = here.get("/api/account/sessions").await.ok(200);
    let of_here: Vec<bool> =
        sessions.as_array().unwrap().iter().map(|one| one["here"].as_bool().unwrap()).collect();
    assert_eq!(of_here.iter().filter(|here| **here).count(), 1);
    assert_eq!(of_here.len(), 2, "{sessions}");
    let left = here.delete("/api/account/sessions").await.ok(200);
    assert_eq!((left.as_array().unwrap().len(), &left[0]["here"]), (1, &json!(true)));
    elsewhere.get("/api/session").await.ok(401);
    here.get("/api/session").await.ok(200);
}
