//! Two servers on one database: what one of them does, the other knows; nothing is done twice.

use crate::common::Client;
use hembo_server::{demo, metrics, rules};
use serde_json::{Value, json};
use tower::ServiceExt;

fn set(field: &str, value: &str) -> Value {
    json!([{ "do": "set_box", "paper": "w2-isolde", "field": field, "value": value }])
}

#[tokio::test(flavor = "multi_thread")]
async fn edits_meet_whichever_server_takes_them() {
    let here = Client::signed_in("two_servers").await;
    let there = here.at(&here.second_server().await);
    let id = here.household("Okonjo-Farrell").await;
    let fields = ["2", "3", "4", "5", "6", "7", "8", "10", "11", "14", "16", "17", "18", "19"];
    let send = fields.iter().enumerate().map(|(n, field)| {
        let (client, id) = (if n % 2 == 0 { here.clone() } else { there.clone() }, id.clone());
        let edit = set(field, "77");
        tokio::spawn(async move { client.edit(&id, 1, edit).await })
    });
    for answer in send.collect::<Vec<_>>() {
        answer.await.unwrap().ok(200);
    }
    let opened = there.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!(opened["revision"], 15);
    assert!(fields.iter().all(|field| opened["household"]["papers"][0]["boxes"][field] == "77"));
    // Of one box, at both at once, one edit is stored, and the other is told.
    let (one, other) =
        tokio::join!(here.edit(&id, 15, set("1", "50000")), there.edit(&id, 15, set("1", "60000")));
    let mut status = [one.status.as_u16(), other.status.as_u16()];
    status.sort_unstable();
    assert_eq!(status, [200, 409]);
    // The same edit, sent to the other server after an answer that was lost, is made once.
    let edit = json!({ "base_revision": 16, "commands": set("1", "70000"), "key": uuid::Uuid::new_v4() });
    let path = format!("/api/households/{id}/edits");
    here.post(&path, edit.clone()).await.ok(200);
    assert_eq!(there.post(&path, edit).await.ok(200)["revision"], 17);
    // A trail of a revision that the other one made, and an undo of it.
    assert!(!there.lines(&id, 17).await.is_empty());
    let undone =
        there.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 17 })).await.ok(200);
    assert_eq!(undone["revision"], 18);
    assert_eq!(here.get(&format!("/api/households/{id}")).await.ok(200)["revision"], 18);
}

#[tokio::test]
async fn a_session_holds_at_both_and_ends_at_both() {
    let here = Client::signed_in("two_sessions").await;
    let there = here.at(&here.second_server().await);
    there.get("/api/session").await.ok(200);
    there.delete("/api/session").await.ok(204);
    here.get("/api/session").await.ok(401);
}

#[tokio::test]
async fn figures_that_one_replaces_the_other_reckons_with() {
    let office = Client::new("two_figures").await.other(demo::OFFICE).await;
    let there = office.at(&office.second_server().await);
    let id = office.household("Pellerin").await;
    let total = async |client: &Client| {
        client.get(&format!("/api/households/{id}")).await.ok(200)["outcome"]["total"].clone()
    };
    let before = total(&there).await;
    let figure = json!({ "year": 2024, "table": "standard_deduction", "figure": "basic.single", "was": "14600",
        "value": "100", "source": "Tried", "why": "Tried" });
    office.post("/api/packs/us/figures", figure).await.ok(200);
    let after = total(&there).await;
    assert_ne!(before, after);
    assert_eq!(total(&office).await, after);
}

/// How many households a server has reckoned.
async fn reckoned(client: &Client) -> usize {
    let request = axum::http::Request::get("/metrics").body(axum::body::Body::empty()).unwrap();
    let answer = metrics::router(client.app.clone()).oneshot(request).await.unwrap();
    let text = axum::body::to_bytes(answer.into_body(), usize::MAX).await.unwrap();
    let text = String::from_utf8(text.to_vec()).unwrap();
    let count = text.lines().find_map(|line| line.strip_prefix("hembo_reckoning_seconds_count "));
    count.unwrap().parse().unwrap()
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_reckoned_anew_one_of_them_reckons() {
    let here = Client::new("two_renew").await;
    let there = here.second_server().await;
    let database = &here.app.database;
    sqlx::query("update households set rules = 'of before'").execute(database).await.unwrap();
    // One that another server had in work when it ended, and its minute is over.
    let left = "update households set renewed_until = now() - interval '1 second' where name = 'Fennimore'";
    sqlx::query(left).execute(database).await.unwrap();
    let (before_here, before_there) = (reckoned(&here).await, reckoned(&there).await);
    tokio::join!(rules::renew(here.app.clone()), rules::renew(there.app.clone()));
    let old = "select count(*) from households where rules = 'of before' or renewed_until is not null";
    let old: i64 = sqlx::query_scalar(old).fetch_one(database).await.unwrap();
    assert_eq!(old, 0);
    let done = [reckoned(&here).await - before_here, reckoned(&there).await - before_there];
    assert_eq!(done.iter().sum::<usize>(), crate::common::demo_households(), "{done:?}");
    assert!(done.iter().all(|&one| one > 0), "{done:?}");
}
