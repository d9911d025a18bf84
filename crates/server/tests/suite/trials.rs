//! Trials: begun, changed, laid beside the return, followed, applied as one edit, thrown away; what is not for a trial.

use crate::common::Client;
use serde_json::{Value, json};

const HOSPITAL: &str = "medical";

async fn begin(client: &Client, id: &str, body: Value) -> String {
    let made = client.post(&format!("/api/households/{id}/trials"), body).await.ok(201);
    made["id"].as_str().unwrap().to_owned()
}

async fn opened(client: &Client, id: &str) -> Value {
    client.get(&format!("/api/households/{id}")).await.ok(200)
}

async fn beside(client: &Client, trial: &str) -> Value {
    client.get(&format!("/api/households/{trial}/trial")).await.ok(200)
}

/// The id of the paper of medical bills.
fn medical(opened: &Value) -> String {
    let papers = opened["household"]["papers"].as_array().unwrap();
    let found = papers.iter().find(|paper| paper["kind"] == "Medical").expect(HOSPITAL);
    found["id"].as_str().unwrap().to_owned()
}

fn row<'a>(beside: &'a Value, label: &str) -> &'a Value {
    let sections = beside["sections"].as_array().unwrap();
    let mut rows = sections.iter().flat_map(|section| section["rows"].as_array().unwrap());
    rows.find(|row| row["label"] == label).unwrap()
}

/// Without the bills: the return stays, both stand side by side, and applying makes one edit that undo takes back.
#[tokio::test]
async fn a_trial_is_laid_beside_the_return_and_applied_as_one_edit() {
    let client = Client::signed_in("trial").await;
    let id = client.household("Okonjo-Farrell").await;
    let before = opened(&client, &id).await;
    let count = client.count().await;
    let without =
        json!({ "name": " no hospital ", "quick": { "move": "without", "paper": medical(&before) } });
    let trial = begin(&client, &id, without).await;
    assert_eq!(client.count().await, count, "no list shows it");
    assert_eq!(opened(&client, &id).await["household"], before["household"]);
    let now = opened(&client, &trial).await;
    assert_eq!(now["trial"], json!({ "of": id, "name": "no hospital" }));

    // Pinned and dearer, in the trial alone.
    let pin = json!([{ "do": "pin", "decision": "us.status", "option": "joint" }]);
    client.edit(&trial, 2, pin).await.ok(200);
    let look = beside(&client, &trial).await;
    assert_eq!(look["changes"].as_array().unwrap().len(), 2, "{}", look["changes"]);
    assert_eq!((&look["was"]["total"], &look["other_year"]), (&before["outcome"]["total"], &json!(false)));
    let medical = row(&look, "Medical above the floor");
    assert_eq!([&medical["was"], &medical["difference"]], [&json!("21413.00"), &json!("21413.00")]);
    let total = row(&look, "Total tax");
    assert_eq!([&total["now"], &total["difference"]], [&look["now"]["total"], &look["more"]]);
    let listed = client.get(&format!("/api/households/{id}/trials")).await.ok(200);
    assert_eq!(
        [&listed[0]["name"], &listed[0]["more"], &listed[0]["thrown_away"]],
        [&json!("no hospital"), &look["more"], &json!(false)]
    );

    // Something else came to the return meanwhile: the trial is told, and is put on top of it.
    client.edit(&id, 1, json!([{ "do": "refer", "reference": "17/4" }])).await.ok(200);
    let look = beside(&client, &trial).await;
    assert_eq!(look["since"].as_array().unwrap().len(), 1);
    let apply = format!("/api/households/{trial}/trial/apply");
    client.post(&apply, json!({ "revision": 1 })).await.ok(409);
    let applied = client.post(&apply, json!({ "revision": look["revision"] })).await.ok(200);
    assert_eq!(applied["revision"], 3);
    assert_eq!(applied["did"].as_array().unwrap().len(), 2);
    assert_eq!(applied["household"]["reference"], "17/4");
    assert_eq!(applied["outcome"]["total"], look["now"]["total"]);
    client.get(&format!("/api/households/{trial}")).await.ok(404);
    let undone =
        client.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 3 })).await.ok(200);
    assert_eq!(undone["outcome"]["total"], before["outcome"]["total"]);
    assert_eq!(undone["household"]["papers"], before["household"]["papers"]);
}

/// What the return set to something else meanwhile is told with both values, and nothing is applied.
#[tokio::test]
async fn a_trial_that_met_another_change_is_not_applied() {
    let client = Client::signed_in("trialclash").await;
    let id = client.household("Okonjo-Farrell").await;
    let trial = begin(&client, &id, json!({})).await;
    let set = |value: &str| json!([{ "do": "set_box", "paper": "w2-isolde", "field": "2", "value": value }]);
    client.edit(&trial, 1, set("9000")).await.ok(200);
    client.edit(&id, 1, set("9500")).await.ok(200);
    let refused =
        client.post(&format!("/api/households/{trial}/trial/apply"), json!({ "revision": 2 })).await.ok(409);
    assert_eq!([&refused["conflicts"][0]["theirs"], &refused["conflicts"][0]["mine"]], ["9500", "9000"]);
    client.post(&format!("/api/households/{trial}/trial/follow"), json!({})).await.ok(409);
    assert_eq!(opened(&client, &id).await["revision"], 2);
    // Where nothing meets, it follows: what it changes is put on top.
    client.edit(&id, 2, set("8800")).await.ok(200);
    client
        .edit(&trial, 2, json!([{ "do": "set_box", "paper": "w2-isolde", "field": "2", "value": null }]))
        .await
        .ok(200);
    let other = begin(&client, &id, json!({ "name": "other" })).await;
    client.edit(&other, 1, json!([{ "do": "rename", "name": "Okonjo" }])).await.ok(200);
    client.edit(&id, 3, set("8700")).await.ok(200);
    let followed = client.post(&format!("/api/households/{other}/trial/follow"), json!({})).await.ok(200);
    assert_eq!(followed["household"]["papers"][0]["boxes"]["2"], "8700");
    let look = beside(&client, &other).await;
    assert_eq!((look["since"].as_array().unwrap().len(), look["changes"].as_array().unwrap().len()), (0, 1));
}

/// Thrown away and taken back; a name that cannot be read; a step that changes nothing leaves no trial behind.
#[tokio::test]
async fn trials_are_thrown_away_and_taken_back() {
    let client = Client::signed_in("trialaway").await;
    let id = client.household("Okonjo-Farrell").await;
    let path = format!("/api/households/{id}/trials");
    let trial = begin(&client, &id, json!({})).await;
    client.delete(&format!("/api/households/{trial}")).await.ok(204);
    let listed = client.get(&path).await.ok(200);
    assert_eq!([&listed[0]["name"], &listed[0]["thrown_away"]], [&json!("Trial 1"), &json!(true)]);
    client.post(&format!("/api/households/{trial}/restore"), json!({})).await.ok(204);
    assert_eq!(client.get(&path).await.ok(200)[0]["thrown_away"], json!(false));
    client.put(&format!("/api/households/{trial}/trial"), json!({ "name": "again" })).await.ok(204);
    assert_eq!(client.get(&path).await.ok(200)[0]["name"], "again");

    for name in ["\u{200b}", "a\u{7}", &"x".repeat(61)] {
        client.post(&path, json!({ "name": name })).await.ok(422);
    }
    client.post(&path, json!({ "quick": { "move": "without", "paper": "none" } })).await.ok(422);
    client.post(&path, json!({ "year": 1999 })).await.ok(422);
    assert_eq!(client.get(&path).await.ok(200).as_array().unwrap().len(), 1);
    client.get(&format!("/api/households/{id}/trial")).await.ok(404);
}

/// Another year's law is looked at, never applied; and what is for a return alone is refused for a trial.
#[tokio::test]
async fn what_is_not_for_a_trial() {
    let client = Client::signed_in("trialbars").await;
    let id = client.household("Okonjo-Farrell").await;
    let trial = begin(&client, &id, json!({ "year": 2024 })).await;
    assert_eq!(beside(&client, &trial).await["other_year"], true);
    let refused =
        client.post(&format!("/api/households/{trial}/trial/apply"), json!({ "revision": 1 })).await.ok(422);
    assert!(refused["detail"].as_str().unwrap().contains("by the law of 2024"));
    for (path, body) in [
        ("trials", json!({})),
        ("carry-forward", json!({})),
        ("divide", json!({ "base_revision": 1 })),
        ("filings", json!({ "base_revision": 1 })),
        ("fetches", json!({})),
    ] {
        let answer = client.post(&format!("/api/households/{trial}/{path}"), body).await;
        assert_eq!(answer.status.as_u16(), 422, "{path}: {}", answer.body);
        assert!(answer.body["detail"].as_str().unwrap().contains("Apply it to the return first"), "{path}");
    }
}

/// The quick moves: more or less, until a month, without a paper or a line, one child more, born a month earlier.
#[tokio::test]
async fn quick_moves() {
    let client = Client::signed_in("trialmoves").await;
    let id = client.household("Okonjo-Farrell").await;
    let trial = begin(&client, &id, json!({})).await;
    let wages = |opened: &Value| opened["household"]["papers"][0]["boxes"]["1"].as_str().unwrap().to_owned();
    let was = wages(&opened(&client, &id).await);
    let path = format!("/api/households/{trial}/trial/move");
    let step = async |base: i64, quick: Value| {
        client.post(&path, json!({ "base_revision": base, "quick": quick })).await
    };
    let by = |amount: &str| json!({ "move": "by", "paper": "w2-isolde", "field": "1", "amount": amount });
    let more = step(1, by("100.50")).await.ok(200);
    let cents = |text: &str| (text.parse::<f64>().unwrap() * 100.0).round() as i64;
    assert_eq!(cents(&wages(&more)) - cents(&was), 10_050);
    assert_eq!(wages(&step(2, by("-9999999")).await.ok(200)), "0.00", "never below zero");
    step(3, by("-1")).await.ok(422);
    step(3, by("much")).await.ok(422);
    step(2, by("1")).await.ok(409);
    let undone =
        client.post(&format!("/api/households/{trial}/undo"), json!({ "base_revision": 3 })).await.ok(200);
    let until = |month: u8| json!({ "move": "until", "paper": "w2-isolde", "month": month });
    for month in [0, 12] {
        step(4, until(month)).await.ok(422);
    }
    let until_may = step(4, until(5)).await.ok(200);
    assert_eq!(
        cents(&wages(&until_may)),
        (cents(&wages(&undone)) * 5 + 6) / 12,
        "five twelfths, to the cent"
    );
    let child = step(5, json!({ "move": "child" })).await.ok(200);
    let people = child["household"]["people"].as_array().unwrap();
    assert_eq!(
        (people.len(), &people[3]["name"], &people[3]["role"]),
        (4, &json!("One more child"), &json!("dependent"))
    );
    assert_eq!(people[3]["born"], people[2]["born"], "like the youngest");
    let earlier = step(6, json!({ "move": "earlier", "person": "child1" })).await.ok(200);
    assert!(earlier["household"]["people"][3]["born"].as_str() < people[3]["born"].as_str());
    step(7, json!({ "move": "earlier", "person": "nobody" })).await.ok(422);
    let papers = |opened: &Value| opened["household"]["papers"].as_array().unwrap().clone();
    let lists = papers(&earlier);
    let list =
        lists.iter().find(|paper| paper["rows"].as_array().is_some_and(|rows| rows.len() > 1)).unwrap();
    let without = |row: &Value| json!({ "move": "without", "paper": list["id"], "row": row });
    step(7, without(&json!("none of them"))).await.ok(422);
    let gone = step(7, without(&list["rows"][0]["id"])).await.ok(200);
    let left = papers(&gone).into_iter().find(|paper| paper["id"] == list["id"]).unwrap();
    assert_eq!(left["rows"].as_array().unwrap()[..], list["rows"].as_array().unwrap()[1..]);
    let gone = step(8, json!({ "move": "without", "paper": "w2-isolde" })).await.ok(200);
    assert_eq!(papers(&gone).len(), lists.len() - 1);
}

/// Every household of a year by the law of another, ten at once; each as a trial by that law says, and none is changed.
#[tokio::test]
async fn all_households_are_reckoned_by_the_law_of_another_year() {
    let client = Client::signed_in("planning").await;
    let listed = || async { client.get("/api/households?country=us&year=2025&order=name").await.ok(200) };
    let before = listed().await;
    let count = usize::try_from(before["count"].as_i64().unwrap()).unwrap();
    let mut rows: Vec<Value> = Vec::new();
    while rows.len() < count {
        let path = format!("/api/planning?country=us&year=2025&by=2026&from={}", rows.len());
        let page = client.get(&path).await.ok(200);
        let new = page["rows"].as_array().unwrap();
        assert!(page["count"] == count && (1..=10).contains(&new.len()), "{page}");
        rows.extend(new.iter().cloned());
    }
    let all = |of: &[Value], id: &str| of.iter().map(|row| row[id].clone()).collect::<Vec<_>>();
    assert_eq!(all(&rows, "household"), all(before["rows"].as_array().unwrap(), "id"));
    let row = rows.iter().find(|row| row["more"].is_string()).unwrap();
    let trial = begin(&client, row["household"].as_str().unwrap(), json!({ "year": 2026 })).await;
    let beside = beside(&client, &trial).await;
    assert_eq!(
        (&beside["was"]["total"], &beside["now"]["total"]),
        (&row["own"]["total"], &row["other"]["total"])
    );
    assert_eq!(beside["more"], row["more"]);
    assert_eq!(listed().await["rows"], before["rows"]);
    for (query, place) in
        [("country=us&year=2025&by=1999", "by"), ("country=xx&year=2025&by=2026", "country")]
    {
        let refused = client.get(&format!("/api/planning?{query}")).await.ok(422);
        assert_eq!(refused["faults"][0]["at"], place, "{refused}");
    }
    client.get("/api/planning?country=us&year=2025").await.ok(400);
}
