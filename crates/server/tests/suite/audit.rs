//! The audit: what was done is in it, whoever did it and by whichever way; nothing in it changes.

use crate::common::Client;
use hembo_server::{demo, store::audit};
use serde_json::{Value, json};
use sqlx::postgres::PgPoolOptions;

async fn told(office: &Client, query: &str) -> Vec<(String, String, String)> {
    let page = office.get(&format!("/api/audit{query}")).await.ok(200);
    let text = |value: &Value| value.as_str().unwrap_or_default().to_owned();
    page["rows"]
        .as_array()
        .unwrap()
        .iter()
        .map(|row| (text(&row["by"]), text(&row["what"]), text(&row["detail"])))
        .collect()
}

fn row(by: &str, what: &str, detail: &str) -> (String, String, String) {
    (by.into(), what.into(), detail.into())
}

#[tokio::test]
async fn who_did_what_is_told_whichever_way_it_went() {
    let preparer = Client::signed_in("audit").await;
    let office = preparer.other(demo::OFFICE).await;
    let id = preparer.household("Okonjo-Farrell").await;
    let at = |path: &str| format!("/api/households/{id}{path}");
    preparer.get(&at("")).await.ok(200);
    preparer.get(&at("")).await.ok(200);
    let change = json!([{ "do": "set_box", "paper": "w2-isolde", "field": "2", "value": "77" }]);
    preparer.edit(&id, 1, change).await.ok(200);
    preparer.post(&at("/reveal"), json!({ "person": "isolde" })).await.ok(200);
    preparer.get(&at("/file?numbers=false")).await.ok(200);
    preparer.get(&at("/sheets.xlsx")).await;
    let step = json!({ "base_revision": 2, "from": "in_work", "to": "ready" });
    preparer.post(&at("/progress"), step).await.ok(200);
    for held in ["2030-01-01", "2030-01-02"] {
        let hands = json!({ "worked_by": null, "reviewer": null, "held_until": held });
        preparer.put(&at("/hands"), hands).await.ok(200);
    }
    preparer.delete(&at("")).await.ok(204);
    preparer.post(&at("/restore"), json!({})).await.ok(204);
    let of_family = told(&office, "?household=okonjo").await;
    let newest: Vec<_> = of_family.iter().take(9).cloned().collect();
    let me = "N. Ostrava";
    assert_eq!(
        newest,
        [
            row(me, "restored", ""),
            row(me, "deleted", ""),
            row(me, "hands", "works on it: nobody; asked to review: nobody"),
            row(me, "moved", "in_work → ready"),
            row(me, "exported", "sheets.xlsx"),
            row(me, "exported", "file"),
            row(me, "revealed", "an identification number"),
            row(me, "edited", "revision 2"),
            row(me, "opened", ""),
        ]
    );
    // Once an hour.
    assert_eq!(of_family.iter().filter(|(_, what, _)| what == "opened").count(), 1);

    // Narrowed; as a file; and to administrators alone.
    let reading = told(&office, "?household=okonjo&kind=reading").await;
    assert!(reading.iter().all(|(_, what, _)| ["opened", "revealed", "exported"].contains(&what.as_str())));
    let whose = preparer.get("/api/session").await.ok(200)["id"].as_str().unwrap().to_owned();
    assert!(told(&office, &format!("?who={whose}")).await.iter().all(|(by, ..)| by == me));
    assert!(told(&office, "?until=2020-01-01").await.is_empty());
    office.get("/api/audit?from=yesterday").await.ok(400);
    let file = office.get("/api/audit/file?household=okonjo").await.ok(200);
    assert_eq!(file.as_str().unwrap().lines().count(), of_family.len() + 1);
    preparer.get("/api/audit").await.ok(403);
    for n in 0..120 {
        audit::note(&office.app.database, "practice", None, None, &n.to_string()).await.unwrap();
    }
    let page = office.get("/api/audit").await.ok(200);
    assert_eq!((page["rows"].as_array().unwrap().len(), &page["more"]), (100, &json!(true)));
    let last = page["rows"][99]["id"].as_i64().unwrap();
    let before = office.get(&format!("/api/audit?before={last}")).await.ok(200);
    assert!(before["rows"][0]["id"].as_i64().unwrap() < last);
}

#[tokio::test]
async fn sign_ins_and_what_administrators_do_are_told() {
    let client = Client::new("audit_people").await;
    let mut stranger = client.stranger();
    stranger.sign_in_as("demo", "quay-street-13").await.ok(401);
    stranger.sign_in_as("hunter2-my-password", "x").await.ok(401);
    let office = client.other(demo::OFFICE).await;
    let new = json!({ "login": "wren", "name": "Wren Marsh", "role": "reviewer" });
    let wren = office.post("/api/people", new).await.ok(201)["id"].as_str().unwrap().to_owned();
    office.put(&format!("/api/people/{wren}"), json!({ "role": "preparer", "disabled": true })).await.ok(200);
    let practice = json!({ "name": "Quay Street Practice", "own_review": false, "own_sight": true });
    office.put("/api/practice", practice).await.ok(200);
    let mut all = told(&office, "?kind=practice").await;
    let (_, what, name) = all.pop().unwrap();
    assert!(what == "key" && name.ends_with("seals from now on"), "the first of all: {what} {name}");
    let me = "K. Ravndal";
    assert_eq!(
        all,
        [
            row(me, "practice", "own review off, own households alone on"),
            row(me, "person", "Wren Marsh is preparer, may no longer sign in"),
            row(me, "person", "Wren Marsh added as reviewer"),
        ]
    );
    let sign_ins = told(&office, "?kind=sign_ins").await;
    assert_eq!(
        sign_ins,
        [
            row(me, "signed_in", ""),
            row("", "refused", "nobody of that name"),
            row("N. Ostrava", "refused", "password"),
        ]
    );
}

#[tokio::test]
async fn nothing_in_it_changes_and_the_application_may_lose_the_right_to() {
    let office = Client::new("audit_stays").await.other(demo::OFFICE).await;
    let database = &office.app.database;
    for sql in ["update audit set what = 'nothing'", "delete from audit", "truncate audit"] {
        let refused = sqlx::query(sql).execute(database).await.unwrap_err();
        assert!(refused.to_string().contains("the audit is added to alone"), "{refused}");
    }
    assert!(!audit::is_guarded(database).await.unwrap());
    // As the page on operations says it, with a user of the database that is no master of it.
    let name: String = sqlx::query_scalar("select current_database()").fetch_one(database).await.unwrap();
    let (keeper, user) = (format!("keeper_{name}"), format!("user_{name}"));
    let operations = include_str!("../../../../docs/operations.md");
    let (_, from) = operations.split_once("create role hembo_keeper").unwrap();
    let (said, _) = from.split_once("```").unwrap();
    let said = format!("create role hembo_keeper{said}")
        .replace("hembo_keeper", &keeper)
        .replace(" to hembo;", &format!(" to {user};"))
        .replace(" from hembo;", &format!(" from {user};"));
    let setup = format!(
        "create role {user} login password 'tried';
         grant all on all tables in schema public to {user};
         grant all on all sequences in schema public to {user};
         {said}"
    );
    sqlx::raw_sql(sqlx::AssertSqlSafe(setup)).execute(database).await.unwrap();
    let options = (*database.connect_options()).clone().username(&user).password("tried");
    let own = PgPoolOptions::new().max_connections(2).connect_with(options).await.unwrap();
    assert!(audit::is_guarded(&own).await.unwrap());
    let count = "select count(*) from audit";
    let before: i64 = sqlx::query_scalar(count).fetch_one(&own).await.unwrap();
    audit::note(&own, "practice", None, None, "tried").await.unwrap();
    sqlx::query("insert into marks (household, kind, by_user) select h.id, 'deleted', u.id from households h, users u limit 1")
        .execute(&own)
        .await
        .unwrap();
    let after: i64 = sqlx::query_scalar(count).fetch_one(&own).await.unwrap();
    assert_eq!(after, before + 2);
    for sql in [
        "update audit set what = 'nothing'",
        "delete from audit",
        "insert into audit (what) values ('made up')",
        "alter table audit disable trigger all",
        "drop table audit",
    ] {
        assert!(sqlx::query(sql).execute(&own).await.is_err(), "{sql}");
    }
    own.close().await;
    let away = format!("drop owned by {user}, {keeper} cascade; drop role {user}, {keeper}");
    sqlx::raw_sql(sqlx::AssertSqlSafe(away)).execute(database).await.unwrap();
}
