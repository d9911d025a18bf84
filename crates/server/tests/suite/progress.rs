//! States of work, whose hands a household is in, and how the list finds it.

use crate::common::Client;
use axum::body::Body;
use hembo_server::demo;
use serde_json::{Value, json};

/// A household without open points of one person who earns wages.
async fn clean(client: &Client) -> String {
    let file = include_str!("../../../../demo/us/fennimore.json");
    let mut household: Value = serde_json::from_str(file).unwrap();
    household["name"] = "Clean".into();
    let answer = client.send("POST", "/api/households/import", Body::from(household.to_string())).await;
    answer.ok(201)["id"].as_str().unwrap().to_owned()
}

async fn step(
    client: &Client,
    id: &str,
    base: i64,
    from: &str,
    to: &str,
    words: &str,
) -> crate::common::Answer {
    let body = json!({ "base_revision": base, "from": from, "to": to, "words": words });
    client.post(&format!("/api/households/{id}/progress"), body).await
}

async fn stage(client: &Client, id: &str) -> Value {
    client.get(&format!("/api/households/{id}/progress")).await.ok(200)["stage"].clone()
}

/// Puts every blocking point out of the way, as far as the file has any.
async fn blocking(client: &Client, id: &str) -> usize {
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    let points = opened["outcome"]["points"].as_array().unwrap().clone();
    points.iter().filter(|p| p["weight"] == "blocks" && p["dismissed"].is_null()).count()
}

#[tokio::test]
async fn a_return_goes_from_work_over_review_to_the_authority() {
    let preparer = Client::signed_in("stages").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let id = clean(&preparer).await;
    assert_eq!(blocking(&preparer, &id).await, 0, "the household of this test has nothing that blocks");
    assert_eq!(stage(&preparer, &id).await, "in_work");

    // A step that is none, a step from elsewhere, and one against a revision that is not the newest.
    step(&preparer, &id, 1, "in_work", "cleared", "").await.ok(422);
    step(&preparer, &id, 1, "ready", "in_work", "").await.ok(409);
    step(&preparer, &id, 7, "in_work", "ready", "").await.ok(409);
    let ready = step(&preparer, &id, 1, "in_work", "ready", "").await.ok(200);
    assert_eq!((&ready["stage"], &ready["can_take_back"]), (&json!("ready"), &json!(true)));

    // A preparer does not review, and nobody reviews their own work.
    assert_eq!(
        step(&preparer, &id, 1, "ready", "in_review", "").await.ok(403)["type"],
        "urn:hembo:cannot-move"
    );
    step(&reviewer, &id, 1, "ready", "in_review", "").await.ok(200);
    assert_eq!(
        step(&reviewer, &id, 1, "in_review", "remarks", " ").await.ok(422)["faults"][0]["at"],
        "words"
    );
    let back = step(&reviewer, &id, 1, "in_review", "remarks", "The bill of June is missing.").await.ok(200);
    assert_eq!(back["moves"][0]["words"], "The bill of June is missing.");
    step(&preparer, &id, 1, "remarks", "ready", "").await.ok(200);
    step(&reviewer, &id, 1, "ready", "in_review", "").await.ok(200);
    step(&reviewer, &id, 1, "in_review", "cleared", "").await.ok(200);

    // A change takes it back into work and says why; undone, it is cleared again.
    preparer.edit(&id, 1, json!([{ "do": "rename", "name": "Cleaner" }])).await.ok(200);
    let now = preparer.get(&format!("/api/households/{id}/progress")).await.ok(200);
    assert_eq!((&now["stage"], &now["moves"][0]["kind"]), (&json!("in_work"), &json!("changed")));
    assert_eq!(now["moves"][0]["words"], "Changed after it was cleared");
    preparer.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 2 })).await.ok(200);
    assert_eq!(stage(&preparer, &id).await, "cleared");

    step(&preparer, &id, 3, "cleared", "handed_over", "").await.ok(200);
    // Held until a day that has not come.
    let hands = json!({ "worked_by": null, "reviewer": null, "held_until": "2999-01-01" });
    preparer.put(&format!("/api/households/{id}/hands"), hands).await.ok(200);
    let held = step(&preparer, &id, 3, "handed_over", "sent", "").await.ok(403);
    assert!(held["detail"].as_str().unwrap().contains("held"));
    let hands = json!({ "worked_by": null, "reviewer": null, "held_until": "2020-01-01" });
    preparer.put(&format!("/api/households/{id}/hands"), hands).await.ok(200);
    let sent = step(&preparer, &id, 3, "handed_over", "sent", "").await.ok(200);
    assert_eq!(sent["filed_revision"], 3);
    step(&preparer, &id, 3, "sent", "accepted", "").await.ok(200);

    // The practice's own number is nothing that was filed. What is changed now is an amended return; the filed revision
    // stays known.
    preparer.edit(&id, 3, json!([{ "do": "refer", "reference": "Q-17" }])).await.ok(200);
    assert_eq!(stage(&preparer, &id).await, "accepted");
    preparer.edit(&id, 4, json!([{ "do": "rename", "name": "Cleanest" }])).await.ok(200);
    let now = preparer.get(&format!("/api/households/{id}/progress")).await.ok(200);
    assert_eq!((&now["stage"], &now["filed_revision"]), (&json!("in_work"), &json!(3)));
    assert!(now["moves"][0]["words"].as_str().unwrap().contains("amended"));

    let history = preparer.get(&format!("/api/households/{id}/history")).await.ok(200);
    let told: Vec<_> = history.as_array().unwrap().iter().map(|e| e["what"][0].clone()).collect();
    assert!(told.contains(&json!("handed over → sent")), "{told:?}");
    assert!(told.contains(&json!("Number of the household: Q-17")), "{told:?}");
}

#[tokio::test]
async fn the_last_step_is_taken_back_by_who_took_it() {
    let preparer = Client::signed_in("take_back").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let id = clean(&preparer).await;
    let path = format!("/api/households/{id}/progress");
    assert_eq!(preparer.delete(&path).await.ok(409)["type"], "urn:hembo:nothing");
    step(&preparer, &id, 1, "in_work", "ready", "").await.ok(200);
    reviewer.delete(&path).await.ok(409);
    let back = preparer.delete(&path).await.ok(200);
    assert_eq!((&back["stage"], &back["can_take_back"]), (&json!("in_work"), &json!(false)));
    assert_eq!(back["moves"].as_array().unwrap().len(), 2);
}

#[tokio::test]
async fn what_blocks_is_not_cleared_and_a_practice_of_one_reviews_itself() {
    let preparer = Client::signed_in("of_one").await;
    let office = preparer.other(demo::OFFICE).await;
    let alone = json!({ "name": "Quay Street Practice", "own_review": true, "own_sight": false });
    assert_eq!(preparer.put("/api/practice", alone.clone()).await.ok(403)["type"], "urn:hembo:not-allowed");
    let long = json!({ "name": "x".repeat(121), "own_review": true, "own_sight": false });
    office.put("/api/practice", long).await.ok(422);
    office.put("/api/practice", alone).await.ok(200);

    let new = json!({ "name": "Begun", "country": "us", "year": 2025, "filers": [{ "name": "Kit Marsh" }] });
    let id = preparer.post("/api/households", new).await.ok(201)["id"].as_str().unwrap().to_owned();
    assert!(blocking(&preparer, &id).await > 0);
    step(&preparer, &id, 1, "in_work", "ready", "").await.ok(200);
    step(&preparer, &id, 1, "ready", "in_review", "").await.ok(200);
    let refused = step(&preparer, &id, 1, "in_review", "cleared", "").await.ok(403);
    assert!(refused["detail"].as_str().unwrap().contains("not a result"), "{refused}");

    let id = clean(&preparer).await;
    for (from, to) in [("in_work", "ready"), ("ready", "in_review"), ("in_review", "cleared")] {
        step(&preparer, &id, 1, from, to, "").await.ok(200);
    }
}

#[tokio::test]
async fn of_two_who_move_a_return_at_once_one_does() {
    let preparer = Client::signed_in("two_move").await;
    let id = clean(&preparer).await;
    let both: Vec<_> = (0..6)
        .map(|_| {
            let (client, id) = (preparer.clone(), id.clone());
            tokio::spawn(async move { step(&client, &id, 1, "in_work", "ready", "").await.status })
        })
        .collect();
    let mut done = 0;
    for one in both {
        done += u32::from(one.await.unwrap() == 200);
    }
    assert_eq!(done, 1);
}

#[tokio::test]
async fn the_list_finds_by_hands_state_number_and_last_digits() {
    let preparer = Client::signed_in("find").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let people = preparer.get("/api/practice").await.ok(200)["people"].clone();
    let of = |role: &str| {
        people.as_array().unwrap().iter().find(|p| p["role"] == role).unwrap()["id"]
            .as_str()
            .unwrap()
            .to_owned()
    };
    let id = clean(&preparer).await;
    let names = async |client: &Client, query: &str| -> Vec<String> {
        let page = client.get(&format!("/api/households?{query}")).await.ok(200);
        page["rows"].as_array().unwrap().iter().map(|row| row["name"].as_str().unwrap().to_owned()).collect()
    };
    let hands = |worked_by: &str, reviewer: &str| json!({ "worked_by": worked_by, "reviewer": reviewer, "held_until": null });
    let path = format!("/api/households/{id}/hands");
    preparer.put(&path, hands(&of("preparer"), &of("preparer"))).await.ok(422);
    preparer.put(&path, hands(&of("administrator"), &of("reviewer"))).await.ok(200);
    let mine = format!("whose={}", of("reviewer"));
    assert_eq!(names(&reviewer, &mine).await, [""; 0], "asked to review, and not ready yet");
    step(&preparer, &id, 1, "in_work", "ready", "").await.ok(200);
    assert_eq!(names(&reviewer, &mine).await, ["Clean"]);
    assert_eq!(names(&preparer, "stage=ready").await, ["Clean"]);
    assert_eq!(names(&preparer, &format!("whose={}", of("administrator"))).await, ["Clean"]);

    // By the last digits of a number, which stand nowhere in the open.
    let digits = "9073";
    let numbers = json!([{ "do": "set_person", "person": "asa", "id_number": format!("412-55-{digits}") },
        { "do": "refer", "reference": "Q-2041" }]);
    preparer.edit(&id, 1, numbers).await.ok(200);
    assert_eq!(names(&preparer, &format!("search={digits}")).await, ["Clean"]);
    assert_eq!(names(&preparer, "search=clean%209073").await, ["Clean"]);
    assert_eq!(names(&preparer, "search=9074").await, [""; 0]);
    assert_eq!(names(&preparer, "search=q-20").await, ["Clean"]);
    // Identifiers and times have digits of their own by chance.
    let open = "select concat_ws(' ', name, search, summary, reference, digits) from households where name = 'Clean'";
    let stored: String = sqlx::query_scalar(open).fetch_one(&preparer.app.database).await.unwrap();
    assert!(!stored.contains(digits), "{stored}");

    // Put away, it is in the list of those alone.
    preparer.post(&format!("/api/households/{id}/archive"), json!({})).await.ok(204);
    preparer.post(&format!("/api/households/{id}/archive"), json!({})).await.ok(404);
    assert_eq!(names(&preparer, "search=q-20").await, [""; 0]);
    assert_eq!(names(&preparer, "search=q-20&archived=true").await, ["Clean"]);
    preparer.post(&format!("/api/households/{id}/unarchive"), json!({})).await.ok(204);
    assert_eq!(names(&preparer, "search=q-20").await, ["Clean"]);
}

#[tokio::test]
async fn a_return_of_a_year_that_is_not_over_is_not_cleared() {
    let preparer = Client::signed_in("not_over").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let id = preparer.household("Thornquist-Abara").await;
    step(&preparer, &id, 1, "in_work", "ready", "").await.ok(200);
    step(&reviewer, &id, 1, "ready", "in_review", "").await.ok(200);
    let refused = step(&reviewer, &id, 1, "in_review", "cleared", "").await.ok(403);
    assert!(refused["detail"].as_str().unwrap().contains("for planning"), "{refused}");
}
