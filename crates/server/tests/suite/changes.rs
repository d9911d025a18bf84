//! Changes at once, in two windows, against old revisions; the history; what must not be lost.

use crate::common::Client;
use serde_json::{Value, json};
use std::collections::BTreeSet;

fn set(field: &str, value: &str) -> Value {
    json!([{ "do": "set_box", "paper": "w2-isolde", "field": field, "value": value }])
}

async fn boxes(client: &Client, id: &str) -> Value {
    client.get(&format!("/api/households/{id}")).await.ok(200)["household"]["papers"][0]["boxes"].clone()
}

/// Thirty edits at once: of different boxes all are stored, of one box the first is and the others are told both values.
#[tokio::test(flavor = "multi_thread")]
async fn thirty_edits_at_once() {
    let client = Client::signed_in("thirty").await;
    let id = client.household("Okonjo-Farrell").await;
    let at_once = async |edits: Vec<(i64, Value)>| {
        let send = edits.into_iter().map(|(base, commands)| {
            let (client, id) = (client.clone(), id.clone());
            tokio::spawn(async move { client.edit(&id, base, commands).await })
        });
        let mut answers = Vec::new();
        for answer in send.collect::<Vec<_>>() {
            answers.push(answer.await.unwrap());
        }
        answers
    };
    let row = |i: usize| json!([{ "do": "add_person", "person": { "id": format!("p{i}"), "name": format!("Person {i}"), "role": "dependent" } }]);
    let fields = ["2", "3", "4", "5", "6", "7", "8", "10", "11", "14", "16", "17", "18", "19"];
    let different = fields.iter().map(|f| (1, set(f, "77"))).chain((0..16).map(|i| (1, row(i)))).collect();
    for answer in at_once(different).await {
        answer.ok(200);
    }
    let now = boxes(&client, &id).await;
    assert!(fields.iter().all(|f| now[f] == "77"), "{now}");
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!(opened["household"]["people"].as_array().unwrap().len(), 3 + 16);
    assert_eq!(opened["revision"], 31);

    let same = (0..30).map(|i| (31, set("1", &(50_000 + i).to_string()))).collect();
    let answers = at_once(same).await;
    let stored: Vec<_> = answers.iter().filter(|a| a.status == 200).collect();
    assert_eq!(stored.len(), 1);
    let kept = boxes(&client, &id).await["1"].clone();
    for refused in answers.iter().filter(|a| a.status != 200) {
        assert_eq!((refused.status.as_u16(), &refused.body["type"]), (409, &json!("urn:hembo:conflict")));
        let conflict = &refused.body["conflicts"][0];
        assert_eq!(conflict["theirs"], kept, "{}", refused.body);
        assert!(conflict["mine"].as_str().unwrap().starts_with("500"));
    }
}

/// A second window that did not see the first one's edits: what touches something else is put on top of them.
#[tokio::test]
async fn two_windows_on_one_household() {
    let client = Client::signed_in("windows").await;
    let id = client.household("Okonjo-Farrell").await;
    client.edit(&id, 1, set("1", "70000")).await.ok(200);
    client.edit(&id, 2, set("2", "6000")).await.ok(200);
    let merged = client.edit(&id, 1, set("17", "3333")).await.ok(200);
    assert_eq!(merged["revision"], 4);
    let now = boxes(&client, &id).await;
    assert_eq!((&now["1"], &now["2"], &now["17"]), (&json!("70000"), &json!("6000"), &json!("3333")));
    // The same box: both values are told, nothing is stored; chosen again against the newest, it is.
    let refused = client.edit(&id, 1, set("1", "80000")).await.ok(409);
    assert_eq!(
        refused["conflicts"],
        json!([{ "place": { "person": null, "paper": "w2-isolde", "field": "1", "row": null, "decision": null },
                 "by": "N. Ostrava", "theirs": "70000", "mine": "80000" }])
    );
    assert!(
        refused["changed"][0]
            .as_str()
            .unwrap()
            .contains("Box 1 of W-2 Kiln Lane Glassworks: 78,400 → 70,000")
    );
    client.edit(&id, 4, set("1", "80000")).await.ok(200);
    // A paper that was removed meanwhile.
    client.edit(&id, 5, json!([{ "do": "remove_paper", "paper": "w2-isolde" }])).await.ok(200);
    let gone = client.edit(&id, 5, set("2", "1")).await.ok(409);
    assert_eq!(gone["conflicts"][0]["mine"], "1");
    // A revision that never was.
    client.edit(&id, 99, set("2", "1")).await.ok(404);
}

/// A window that lost the answer sends its edit again; typing goes on in one edit; what changes nothing makes no revision.
#[tokio::test]
async fn an_edit_is_made_once_and_taken_back_as_one() {
    let client = Client::signed_in("once").await;
    let id = client.household("Okonjo-Farrell").await;
    let send = async |base: i64, commands: Value, more: Value| {
        let mut body = json!({ "base_revision": base, "commands": commands });
        body.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        client.post(&format!("/api/households/{id}/edits"), body).await.ok(200)
    };
    let key = json!({ "key": "5a0d1b1e-7d0c-4a55-9c52-0e6b2f1f6c11" });
    let first = send(1, set("1", "7"), key.clone()).await;
    assert_eq!(
        (&first["revision"], &first["did"][0]),
        (&json!(2), &json!("Box 1 of W-2 Kiln Lane Glassworks: 78,400 → 7"))
    );
    assert_eq!(send(1, set("1", "7"), key).await["revision"], 2);
    assert_eq!(send(2, set("1", "7"), json!({})).await["revision"], 2);
    // Typing went on: one undo takes back all of it, and tells so.
    let whole = send(2, set("1", "70000"), json!({ "continues": 2 })).await;
    let told = json!(["Box 1 of W-2 Kiln Lane Glassworks: 78,400 → 70,000"]);
    assert_eq!((&whole["revision"], &whole["did"]), (&json!(3), &told));
    send(3, set("2", "1"), json!({})).await;
    let back = async |what: &str, base: i64| {
        client.post(&format!("/api/households/{id}/{what}"), json!({ "base_revision": base })).await.ok(200)
    };
    assert!(back("undo", 4).await["did"][0].as_str().unwrap().starts_with("Box 2 of W-2"));
    let undone = back("undo", 5).await;
    assert_eq!(
        (&undone["household"]["papers"][0]["boxes"]["1"], &undone["did"]),
        (&json!("78400.00"), &told)
    );
    let redone = back("redo", 6).await;
    assert_eq!((&redone["household"]["papers"][0]["boxes"]["1"], &redone["did"]), (&json!("70000"), &told));
    assert_eq!(back("undo", 7).await["did"], told);
    let since = client.get(&format!("/api/households/{id}/revisions/6/since")).await.ok(200);
    let kinds: Vec<_> = since.as_array().unwrap().iter().map(|e| &e["kind"]).collect();
    assert_eq!(kinds, ["redone", "undone"]);
}

#[tokio::test]
async fn the_history_pages_back_tells_who_and_brings_back() {
    let client = Client::signed_in("history").await;
    let id = client.household("Okonjo-Farrell").await;
    for revision in 1..=60 {
        client.edit(&id, revision, set("1", &(70_000 + revision).to_string())).await.ok(200);
    }
    client.delete(&format!("/api/households/{id}")).await.ok(204);
    client.post(&format!("/api/households/{id}/restore"), json!({})).await.ok(204);
    let page = async |before: &str| {
        client.get(&format!("/api/households/{id}/history{before}")).await.ok(200).as_array().unwrap().clone()
    };
    let newest = page("").await;
    assert_eq!(newest.len(), 50);
    let kinds: Vec<_> = newest[..3].iter().map(|e| (e["kind"].clone(), e["by"].clone())).collect();
    let by = json!("N. Ostrava");
    assert_eq!(
        kinds,
        [(json!("restored"), by.clone()), (json!("deleted"), by.clone()), (json!("edited"), by)]
    );
    assert_eq!(newest[2]["what"], json!(["Box 1 of W-2 Kiln Lane Glassworks: 70,059 → 70,060"]));
    let before = newest[49]["at"].as_str().unwrap().replace('+', "%2B");
    let older = page(&format!("?before={before}")).await;
    assert_eq!(older.len(), 13);
    assert_eq!((&older[12]["kind"], &older[12]["revision"]), (&json!("imported"), &json!(1)));
    // Any revision as it was, its numbers hidden; brought back it is the newest, and that can be undone.
    let then = client.get(&format!("/api/households/{id}/revisions/1")).await.ok(200);
    assert_eq!((&then["revision"], &then["outcome"]["total"]), (&json!(1), &json!("14406.00")));
    assert_eq!(then["household"]["people"][0]["id_number"], "•••-••-7719");
    client.get(&format!("/api/households/{id}/revisions/99")).await.ok(404);
    let path = format!("/api/households/{id}/bring-back");
    let stale = json!({ "base_revision": 60, "revision": 1 });
    assert_eq!(client.post(&path, stale).await.ok(409)["type"], "urn:hembo:stale");
    let brought = client.post(&path, json!({ "base_revision": 61, "revision": 1 })).await.ok(200);
    assert_eq!((&brought["revision"], &brought["outcome"]["total"]), (&json!(62), &json!("14406.00")));
    let undo = json!({ "base_revision": 62 });
    let undone = client.post(&format!("/api/households/{id}/undo"), undo).await.ok(200);
    assert_eq!(undone["household"]["papers"][0]["boxes"]["1"], "70060");
    assert_eq!(page("").await[1]["kind"], "brought_back");
}

/// A secret is a property of a field: sealed, masked, hidden in the history.
#[tokio::test]
async fn a_secret_field_is_treated_like_a_number() {
    let client = Client::signed_in("secrets").await;
    let id = client.household("Okonjo-Farrell").await;
    let account = json!([{ "do": "answer", "field": "refund_account", "value": "021000021 5561-9034" }]);
    let opened = client.edit(&id, 1, account).await.ok(200);
    assert_eq!(opened["household"]["answers"]["refund_account"], "••••••••• ••••-9034");
    let stored: Vec<Value> = sqlx::query_scalar("select to_jsonb(r) from revisions r where revision = 2")
        .fetch_all(&client.app.database)
        .await
        .unwrap();
    assert!(!Value::from(stored).to_string().contains("5561"));
    let path = format!("/api/households/{id}/reveal");
    let shown = client.post(&path, json!({ "field": "refund_account" })).await.ok(200);
    assert_eq!(shown["text"], "021000021 5561-9034");
    for nowhere in [json!({ "field": "state" }), json!({ "paper": "w2-isolde", "field": "1" }), json!({})] {
        client.post(&path, nowhere).await.ok(404);
    }
    let file = client.get(&format!("/api/households/{id}/file")).await.ok(200);
    assert_eq!(file["answers"]["refund_account"], "021000021 5561-9034");
    // An earlier state seals and opens it again.
    client.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 2 })).await.ok(200);
    let again =
        client.post(&format!("/api/households/{id}/redo"), json!({ "base_revision": 3 })).await.ok(200);
    assert_eq!(again["household"]["answers"]["refund_account"], "••••••••• ••••-9034");
}

/// A revision keeps the version of its rules and its totals: a change of rules is found, yesterday's figure is told.
#[tokio::test]
async fn a_change_of_rules_is_told() {
    let client = Client::signed_in("rules").await;
    let id = client.household("Okonjo-Farrell").await;
    let open = async || client.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!(open().await["then"], Value::Null);
    let other = "update revisions set rules = 'other', totals = jsonb_set(totals, '{total}', '\"14500.00\"')";
    sqlx::query(other).execute(&client.app.database).await.unwrap();
    let opened = open().await;
    assert_eq!(
        (&opened["then"]["total"], &opened["outcome"]["total"]),
        (&json!("14500.00"), &json!("14406.00"))
    );
    // Other rules that come to the same are no news.
    sqlx::query("update revisions set totals = jsonb_set(totals, '{total}', '\"14406.00\"')")
        .execute(&client.app.database)
        .await
        .unwrap();
    assert_eq!(open().await["then"], Value::Null);
}

/// A dismissal ends when what it was about changes, and never falls to another paper.
#[tokio::test]
async fn a_dismissal_ends_with_its_facts() {
    let client = Client::signed_in("dismissal").await;
    let id = client.household("Okonjo-Farrell").await;
    let point = |opened: &Value| {
        let points = opened["outcome"]["points"].as_array().unwrap().clone();
        points.into_iter().find(|p| p["id"] == "K-041:w2-isolde/4")
    };
    let opened = client.edit(&id, 1, set("4", "4000")).await.ok(200);
    let about = point(&opened).unwrap()["about"].clone();
    let aside =
        json!([{ "do": "dismiss", "point": "K-041:w2-isolde/4", "reason": "as printed", "about": about }]);
    let opened = client.edit(&id, 2, aside).await.ok(200);
    assert_eq!(point(&opened).unwrap()["dismissed"], "as printed");
    // Another box of the paper does not matter, this one does.
    let opened = client.edit(&id, 3, set("17", "3601")).await.ok(200);
    assert_eq!(point(&opened).unwrap()["dismissed"], "as printed");
    let opened = client.edit(&id, 4, set("4", "4001")).await.ok(200);
    assert_eq!(point(&opened).unwrap()["dismissed"], Value::Null);
    // The id of a removed paper is not given to another one.
    client.edit(&id, 5, json!([{ "do": "remove_paper", "paper": "w2-isolde" }])).await.ok(200);
    let paper =
        json!({ "id": "w2-isolde", "kind": "W-2", "owners": [{ "person": "isolde", "percent": "100" }] });
    let refused = client.edit(&id, 6, json!([{ "do": "add_paper", "paper": paper }])).await.ok(422);
    assert!(refused["detail"].as_str().unwrap().contains("choose another"));
}

#[tokio::test]
async fn characters_that_cannot_be_seen_are_refused_at_their_box() {
    let client = Client::signed_in("control").await;
    let id = client.household("Okonjo-Farrell").await;
    let cases = [
        (
            json!({ "do": "set_box", "paper": "w2-isolde", "field": "20", "value": "a\u{0}b" }),
            "/papers/0/boxes/20",
        ),
        (json!({ "do": "set_paper", "paper": "w2-isolde", "title": "\u{0}" }), "/papers/0/title"),
        (json!({ "do": "rename", "name": "\u{200b}" }), "/name"),
        (json!({ "do": "dismiss", "point": "x", "reason": "\u{0}" }), "/dismissed/x"),
    ];
    for (command, at) in cases {
        assert_eq!(client.edit(&id, 1, json!([command])).await.ok(422)["faults"][0]["at"], at);
    }
    let new = json!({ "name": "A\u{0}", "country": "us", "year": 2025, "filers": [{ "name": "B" }] });
    client.post("/api/households", new).await.ok(422);
    assert_eq!(client.get("/api/households?search=z%00q").await.ok(200)["count"], 0);
    assert_eq!(client.post("/api/session", json!({ "login": "a\u{0}", "password": "x" })).await.status, 401);
}

/// As large as a household may be, it can be taken out and brought in again; larger it cannot get.
#[tokio::test]
async fn a_household_never_outgrows_its_file() {
    let client = Client::signed_in("large").await;
    let id = client.household("Okonjo-Farrell").await;
    let line =
        json!({ "date": "2025-05-05", "what": "x".repeat(80), "sort": "bill", "amount": "9999999999.99" });
    let papers: Vec<Value> = (0..12)
        .map(|i| {
            let rows = vec![line.clone(); 2_000];
            json!({ "do": "add_paper", "paper": { "id": format!("m{i}"), "kind": "Medical",
                "owners": [{ "person": "isolde", "percent": "100" }], "rows": rows } })
        })
        .collect();
    let opened = client.edit(&id, 1, json!(papers)).await.ok(200);
    // 24,000 lines of the largest amount beside 27,300 of bills: nothing overflows.
    let lines = client.lines(&id, opened["revision"].as_i64().unwrap()).await;
    let paid = lines.iter().find(|l| l["id"] == "us.sched_a.1").unwrap();
    assert_eq!(paid["amount"], "240000000027060.00");
    let file = client.get(&format!("/api/households/{id}/file")).await.ok(200);
    client.post("/api/households/import", file).await.ok(201);
    let more: Vec<Value> = papers
        .iter()
        .take(6)
        .cloned()
        .map(|mut p| {
            let other = format!("{}b", p["paper"]["id"].as_str().unwrap());
            p["paper"]["id"] = json!(other);
            p
        })
        .collect();
    let refused = client.edit(&id, 2, json!(more)).await.ok(422);
    assert!(refused["detail"].as_str().unwrap().contains("bytes as a file; at most 4194304"), "{refused}");
}

/// Who put an entry there: the one whose edit it is, not whose was taken back; what came with the household says how.
#[tokio::test]
async fn an_entry_tells_who_put_it_there() {
    let client = Client::signed_in("entered").await;
    let other = client.other(hembo_server::demo::REVIEWER).await;
    let id = client.household("Okonjo-Farrell").await;
    client.edit(&id, 1, set("2", "77")).await.ok(200);
    other.edit(&id, 2, set("1", "61000")).await.ok(200);
    client.edit(&id, 3, set("1", "62000")).await.ok(200);
    client.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 4 })).await.ok(200);
    let path = |revision: i64| format!("/api/households/{id}/revisions/{revision}/entered");
    let told = client.get(&path(5)).await.ok(200);
    let of = |told: &Value, field: &str| {
        let has = |one: &&Value| {
            let wanted = json!({ "paper": "w2-isolde", "row": null, "field": field });
            one["entries"].as_array().unwrap().contains(&wanted)
        };
        let found = told.as_array().unwrap().iter().find(has).unwrap().clone();
        (found["kind"].as_str().unwrap().to_owned(), found["by"].as_str().unwrap().to_owned())
    };
    let edited = |by: &str| ("edited".to_owned(), by.to_owned());
    assert_eq!(of(&told, "1"), edited("M. Tarrow"));
    assert_eq!(of(&told, "2"), edited("N. Ostrava"));
    assert_ne!(of(&told, "3").0, "edited");
    // A line that was added without an id, alone and with its paper.
    let row = json!({ "what": "Harbour Clinic", "amount": "40" });
    let paper = json!({ "id": "more", "kind": "Medical", "title": "", "owners": [{ "person": "isolde", "percent": "100" }],
        "rows": [row] });
    let commands =
        json!([{ "do": "add_paper", "paper": paper }, { "do": "add_row", "paper": "more", "row": row }]);
    other.edit(&id, 5, commands).await.ok(200);
    let told = client.get(&path(6)).await.ok(200);
    let entries = told[0]["entries"].as_array().unwrap().iter();
    let amounts = entries.filter(|entry| entry["paper"] == "more" && entry["field"] == "amount");
    let rows: BTreeSet<&str> = amounts.map(|entry| entry["row"].as_str().unwrap()).collect();
    assert_eq!((rows, &told[0]["by"]), (BTreeSet::from(["r1", "r2"]), &json!("M. Tarrow")));
    // As it was known at an earlier revision; and of a revision that is none.
    let told = client.get(&path(1)).await.ok(200);
    assert_ne!(of(&told, "1").0, "edited");
    client.get(&path(99)).await.ok(404);
}
