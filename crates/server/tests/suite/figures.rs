//! Rule figures replaced for the practice: weighed, kept, taken back, and by whom.

use crate::common::Client;
use hembo_server::{demo, rules};
use serde_json::{Value, json};

const FIGURES: &str = "/api/packs/us/figures";

/// The demo practice with its preparer and its administrator.
async fn practice(name: &str) -> (Client, Client) {
    let mut preparer = Client::new(name).await;
    let mut office = preparer.clone();
    preparer.sign_in(demo::PASSWORD).await.ok(200);
    office.sign_in_as(demo::OFFICE, demo::PASSWORD).await.ok(200);
    (preparer, office)
}

/// The basic standard deduction of a single person of 2025.
fn basic(rest: Value) -> Value {
    let mut body = json!({ "year": 2025, "table": "standard_deduction", "figure": "basic.single" });
    body.as_object_mut().unwrap().extend(rest.as_object().unwrap().clone());
    body
}

fn kept(value: &str) -> Value {
    basic(json!({ "was": "15750", "value": value, "source": "Notice 2026-1", "why": "Announced in March" }))
}

/// What stands for 2025.
fn stands(figures: &Value) -> &str {
    let table =
        figures["tables"].as_array().unwrap().iter().find(|t| t["id"] == "standard_deduction").unwrap();
    let row = table["rows"].as_array().unwrap().iter().find(|r| r["id"] == "basic.single").unwrap();
    let year = figures["years"].as_array().unwrap().iter().position(|y| y == 2025).unwrap();
    row["values"][year].as_str().unwrap()
}

/// What a replacement would change in all households, a few at a time.
async fn weighed(client: &Client, value: &str) -> (u64, Vec<Value>) {
    let (mut after, mut count, mut moved) = (Value::Null, 0, Vec::new());
    loop {
        let body = basic(json!({ "value": value, "after": after }));
        let answer = client.post(&format!("{FIGURES}/weigh"), body).await.ok(200);
        count += answer["weighed"].as_u64().unwrap();
        moved.extend(answer["moved"].as_array().unwrap().clone());
        after = answer["after"].clone();
        if after.is_null() {
            assert_eq!(answer["reached"], count);
            return (count, moved);
        }
    }
}

#[tokio::test]
async fn what_a_replacement_changes_is_told_before_it_is_kept_and_undone_as_easily() {
    let (preparer, office) = practice("replaced").await;
    let id = preparer.household("Fennimore").await;
    let total = async || {
        let opened = preparer.get(&format!("/api/households/{id}")).await.ok(200);
        (opened["outcome"]["total"].clone(), opened["then"].clone())
    };
    let listed = async || {
        let list = preparer.get("/api/households?search=fennimore").await.ok(200);
        list["rows"][0]["summary"]["total"].clone()
    };
    let (before, _) = total().await;
    let (count, moved) = weighed(&office, "20000").await;
    assert!(count > 5, "more than one answer has room for");
    assert!(!moved.is_empty() && moved.len() < count as usize, "singles move, couples do not");
    assert!(moved.iter().all(|m| m["before"] != m["after"] && m["name"].is_string()));
    assert_eq!(total().await, (before.clone(), Value::Null), "weighing keeps nothing");

    // This one gets a refundable child tax credit.
    let refundable = json!({ "year": 2025, "table": "child_credit", "figure": "refundable", "was": "1700",
        "value": "$1,000", "source": "Notice 2026-1", "why": "Announced in March" });
    let shown = office.post(FIGURES, refundable).await.ok(200);
    let replaced = &shown["replaced"][0];
    assert_eq!(
        (&replaced["was"], &replaced["value"], &replaced["by"]),
        (&json!("1700"), &json!("1000"), &json!("K. Ravndal"))
    );
    let (raised, then) = total().await;
    assert_ne!(raised, before);
    assert_eq!(then["total"], before, "what came out before is told");
    rules::renew(preparer.app.clone()).await;
    assert_eq!(listed().await, raised);
    let moved = preparer.get("/api/rereckoned").await.ok(200);
    let row = moved["rows"].as_array().unwrap().iter().find(|row| row["household"] == id.as_str()).unwrap();
    assert_eq!((&row["before"]["total"], &row["after"]["total"]), (&before, &raised));
    assert_eq!((&row["name"], &row["year"]), (&json!("Fennimore"), &json!(2025)));
    assert_eq!(moved["moved"].as_u64().unwrap() as usize, moved["rows"].as_array().unwrap().len());
    assert_eq!(moved["waiting"], 0);

    let gone = office.delete(&format!("{FIGURES}/{}", replaced["id"].as_str().unwrap())).await.ok(200);
    assert_eq!(gone["replaced"][0]["ended_by"], "K. Ravndal");
    assert_eq!(total().await, (before.clone(), Value::Null));
    rules::renew(preparer.app.clone()).await;
    assert_eq!(listed().await, before);
    // What moved there and back has not moved since somebody last looked.
    let moved = preparer.get("/api/rereckoned").await.ok(200);
    assert_eq!((&moved["moved"], &moved["rows"]), (&json!(0), &json!([])));
    office.delete(&format!("{FIGURES}/{}", replaced["id"].as_str().unwrap())).await.ok(404);
}

#[tokio::test]
async fn only_an_administrator_replaces_and_only_what_can_stand_there() {
    let (preparer, office) = practice("replaced_by").await;
    let refused = preparer.post(FIGURES, kept("16000")).await.ok(403);
    assert_eq!(refused["detail"], "Only an administrator may do this.");
    preparer.post(&format!("{FIGURES}/weigh"), basic(json!({ "value": "16000" }))).await.ok(403);
    let bad = office.post(FIGURES, kept("lots")).await.ok(422);
    assert_eq!(bad["faults"][0]["at"], "value");
    assert_eq!(bad["detail"], "'lots' is not a figure such as 15750.");
    assert_eq!(office.post(FIGURES, kept("15,750")).await.ok(422)["detail"], "The figure already is 15750.");
    let unsaid = basic(json!({ "was": "15750", "value": "16000", "source": "", "why": "x" }));
    assert_eq!(office.post(FIGURES, unsaid).await.ok(422)["faults"][0]["at"], "source");
    let nowhere =
        json!({ "year": 2025, "table": "standard_deduction", "figure": "basic.nobody", "value": "1" });
    office.post(&format!("{FIGURES}/weigh"), nowhere).await.ok(404);
    assert_eq!(stands(&preparer.get(FIGURES).await.ok(200)), "15750", "nothing was changed");

    // Who looked at an older figure is told so; a second replacement ends the first, and both stay in the record.
    office.post(FIGURES, kept("16000")).await.ok(200);
    let late = office.post(FIGURES, kept("17000")).await.ok(409);
    assert_eq!(late["detail"], "This figure is 16000 by now, and not 15750. Weigh the change again.");
    let again = basic(json!({ "was": "16000", "value": "17000", "source": "Act", "why": "Corrected" }));
    let shown = office.post(FIGURES, again).await.ok(200);
    assert_eq!(stands(&shown), "17000");
    let record = shown["replaced"].as_array().unwrap();
    assert_eq!(record.len(), 2);
    assert!(record[0]["ended_at"].is_null() && record[1]["ended_at"].is_string());
}

#[tokio::test]
async fn of_two_who_replace_a_figure_at_once_one_is_told_to_weigh_again() {
    let (_, office) = practice("replaced_twice").await;
    let both = [kept("16000"), kept("17000")].map(|body| office.post(FIGURES, body));
    let mut found = futures(both).await;
    found.sort_unstable();
    assert_eq!(found, [200, 409]);
    let record = office.get(FIGURES).await.ok(200)["replaced"].as_array().unwrap().len();
    assert_eq!(record, 1);
}

/// The statuses of two answers that are waited for together.
async fn futures<F: Future<Output = crate::common::Answer>>([one, two]: [F; 2]) -> Vec<u16> {
    let (one, two) = tokio::join!(one, two);
    vec![one.status.as_u16(), two.status.as_u16()]
}

#[tokio::test]
async fn what_no_longer_fits_the_rules_is_left_out() {
    let (preparer, _) = practice("replaced_astray").await;
    let id = preparer.household("Fennimore").await;
    let opened =
        async || preparer.get(&format!("/api/households/{id}")).await.ok(200)["outcome"]["total"].clone();
    let before = opened().await;
    sqlx::query(
        "insert into replaced_figures (id, country, year, in_table, figure, was, value, source, why, by_user)
         select gen_random_uuid(), 'us', 2025, 'abolished', 'most', '1', '2', 'Act', 'Once', id from users limit 1",
    )
    .execute(&preparer.app.database)
    .await
    .unwrap();
    assert_eq!(opened().await, before);
}

#[tokio::test]
async fn what_moved_is_told_until_somebody_has_looked() {
    let (preparer, office) = practice("rereckoned").await;
    assert_eq!(preparer.get("/api/rereckoned").await.ok(200)["moved"], 0);
    office.post(FIGURES, kept("20000")).await.ok(200);
    rules::renew(preparer.app.clone()).await;
    let told = preparer.get("/api/rereckoned").await.ok(200);
    let rows = told["rows"].as_array().unwrap();
    assert!(!rows.is_empty() && rows.iter().all(|row| row["before"] != row["after"]), "{told:#}");
    let (latest, earliest) = (&rows[0]["at"], &rows[rows.len() - 1]["at"]);
    let long_ago = json!({ "from": "2020-01-01T00:00:00Z", "until": "2020-01-02T00:00:00Z" });
    preparer.post("/api/rereckoned/seen", long_ago).await.ok(204);
    assert_eq!(preparer.get("/api/rereckoned").await.ok(200)["moved"], told["moved"]);
    let shown = json!({ "from": earliest, "until": latest });
    preparer.without_token().post("/api/rereckoned/seen", shown.clone()).await.ok(403);
    preparer.post("/api/rereckoned/seen", shown).await.ok(204);
    assert_eq!(preparer.get("/api/rereckoned").await.ok(200)["moved"], 0);
    preparer.post("/api/rereckoned/seen", json!({ "from": "soon", "until": "later" })).await.ok(422);
}
