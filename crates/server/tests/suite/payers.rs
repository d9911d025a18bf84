//! Payers: learnt from papers, found by first letters or number, corrected in one place and never silently.

use crate::common::Client;
use hembo_server::demo;
use serde_json::{Value, json};

async fn find(client: &Client, text: &str) -> Vec<(String, String)> {
    let found = client.get(&format!("/api/payers?country=us&text={text}")).await.ok(200);
    let pair =
        |payer: &Value| (payer["name"].as_str().unwrap().into(), payer["number"].as_str().unwrap().into());
    found.as_array().unwrap().iter().map(pair).collect()
}

/// A household with a W-2 of that employer: its id and its revision.
async fn with_employer(client: &Client, name: &str, number: Value) -> (String, i64) {
    let new = json!({ "name": "Marsh", "country": "us", "year": 2025, "filers": [{ "name": "Kit Marsh" }] });
    let id = client.post("/api/households", new).await.ok(201)["id"].as_str().unwrap().to_owned();
    let paper = json!({ "id": "w2", "kind": "W-2", "owners": [{ "person": "filer1", "percent": "100" }], "title": name });
    let commands = json!([{ "do": "add_paper", "paper": paper },
        { "do": "set_box", "paper": "w2", "field": "b", "value": number }]);
    client.edit(&id, 1, commands).await.ok(200);
    let wages = json!([{ "do": "set_box", "paper": "w2", "field": "1", "value": "40000" }]);
    let opened = client.edit(&id, 2, wages).await.ok(200);
    (id, opened["revision"].as_i64().unwrap())
}

#[tokio::test]
async fn a_payer_keyed_once_comes_back_by_letters_and_number() {
    let client = Client::signed_in("payers").await;
    with_employer(&client, "Quillwharf Rigging", json!("12-3456789")).await;
    let expected = ("Quillwharf Rigging".to_owned(), "12-3456789".to_owned());
    for text in ["quill", "Rigg", "12-34", "12345", "QUILLWHARF%20R"] {
        assert_eq!(find(&client, text).await, std::slice::from_ref(&expected), "{text}");
    }
    assert_eq!(find(&client, "wharf").await, [], "not within a word");
    assert_eq!(find(&client, "%25").await, [], "a sign stands for itself");
    // The same again is known; a number where none was known is learnt.
    with_employer(&client, "quillwharf rigging", Value::Null).await;
    assert_eq!(find(&client, "quill").await, [expected]);
    with_employer(&client, "Bosun Supply", Value::Null).await;
    with_employer(&client, "Bosun Supply", json!("22-3456789")).await;
    assert_eq!(find(&client, "bosun").await, [("Bosun Supply".to_owned(), "22-3456789".to_owned())]);
}

#[tokio::test]
async fn what_could_be_a_persons_number_is_not_learnt() {
    let client = Client::signed_in("payer_numbers").await;
    let (id, revision) = with_employer(&client, "Quillwharf Rigging", Value::Null).await;
    let paper = json!({ "id": "care", "kind": "Care", "owners": [{ "person": "filer1", "percent": "100" }],
        "title": "Marnie Alder", "boxes": { "number": "412-55-9073" } });
    client.edit(&id, revision, json!([{ "do": "add_paper", "paper": paper }])).await.ok(200);
    assert_eq!(find(&client, "marnie").await, [], "not before one goes on after it");
    client.edit(&id, revision + 1, json!([{ "do": "rename", "name": "Alder" }])).await.ok(200);
    assert_eq!(find(&client, "marnie").await, [("Marnie Alder".to_owned(), String::new())]);
}

#[tokio::test]
async fn a_correction_names_the_households_and_changes_none_of_them() {
    let client = Client::signed_in("correct_payer").await;
    let (id, revision) = with_employer(&client, "Quilwharf Rigging", json!("12-3456789")).await;
    let found = client.get("/api/payers?country=us&text=quilw").await.ok(200);
    let path = format!("/api/payers/{}", found[0]["id"].as_str().unwrap());
    let now = |name: &str, number: &str| json!({ "country": "us", "name": name, "number": number });
    client.put(&path, now(" ", "")).await.ok(422);
    client.put(&path, now("Quillwharf", "412-55-9073")).await.ok(422);
    client.put("/api/payers/00000000-0000-0000-0000-000000000000", now("X", "")).await.ok(404);
    let corrected = client.put(&path, now("Quillwharf Rigging", "12-3456789")).await.ok(200);
    assert_eq!(corrected["was"]["name"], "Quilwharf Rigging");
    let uses = json!([{ "household": id, "name": "Marsh", "year": 2025, "revision": revision,
        "papers": [{ "paper": "w2", "number_box": "b" }] }]);
    assert_eq!(corrected["uses"], uses);
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!(opened["household"]["papers"][0]["title"], "Quilwharf Rigging");
    // Two payers do not become one by a correction.
    with_employer(&client, "Other Rigging", json!("12-3456789")).await;
    let other = client.get("/api/payers?country=us&text=other%20r").await.ok(200);
    let path = format!("/api/payers/{}", other[0]["id"].as_str().unwrap());
    client.put(&path, now("Quillwharf Rigging", "12-3456789")).await.ok(409);
}

#[tokio::test]
async fn many_at_once_learn_the_same_payers() {
    let client = Client::signed_in("learn_at_once").await;
    let all: Vec<_> = (0..12)
        .map(|i| {
            let client = client.clone();
            tokio::spawn(async move {
                with_employer(&client, "Quillwharf Rigging", json!("12-3456789")).await;
                with_employer(&client, &format!("Cooper {i}"), json!("33-4567891")).await;
            })
        })
        .collect();
    for one in all {
        one.await.unwrap();
    }
    assert_eq!(find(&client, "quill").await.len(), 1);
    assert_eq!(find(&client, "cooper").await.len(), 12);
    let reviewer = client.other(demo::REVIEWER).await;
    assert_eq!(find(&reviewer, "quill").await.len(), 1);
}
