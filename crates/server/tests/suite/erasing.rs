//! Households erased for good: only what is away, only when the law lets go, all of it, and nothing else.

use crate::common::{Client, demo_households};
use serde_json::{Value, json};

/// How many rows of all tables name a household, but for the certificate and the audit, which tell nothing that stood in it.
async fn rows(client: &Client, id: &str) -> i64 {
    let columns: Vec<(String, String)> = sqlx::query_as(
        "select table_name::text, column_name::text from information_schema.columns
         where table_schema = 'public' and data_type = 'uuid' and table_name not in ('users', 'erased', 'audit')",
    )
    .fetch_all(&client.app.database)
    .await
    .unwrap();
    let mut found = 0;
    for (table, column) in columns {
        let count: i64 = sqlx::query_scalar(sqlx::AssertSqlSafe(format!(
            "select count(*) from {table} where {column} = $1::uuid"
        )))
        .bind(id)
        .fetch_one(&client.app.database)
        .await
        .unwrap();
        found += count;
    }
    found
}

#[tokio::test]
async fn a_household_is_erased_with_all_that_hangs_on_it_and_nothing_else() {
    let demo = Client::signed_in("erase").await;
    let office = demo.other("office").await;
    let id = demo.household("Fennimore").await;
    let at = |path: &str| format!("/api/households/{id}/{path}");
    // It has two revisions, a trial, numbers shown, and a return of the next year made from it.
    demo.edit(&id, 1, json!([{ "do": "rename", "name": "Fennimore-Quay" }])).await.ok(200);
    demo.post(&at("trials"), json!({ "name": "With more" })).await.ok(201);
    demo.get(&at("file?numbers=true")).await.ok(200);
    demo.post(&at("carry-forward"), json!({})).await.ok(201);
    assert!(rows(&office, &id).await > 4);

    let refused = office.post(&at("erase"), json!({ "name": "Fennimore-Quay" })).await.ok(403);
    assert!(refused["detail"].as_str().unwrap().contains("put it away"), "{refused}");
    demo.post(&at("archive"), json!({})).await.ok(204);
    demo.post(&at("erase"), json!({ "name": "Fennimore-Quay" })).await.ok(403);
    let look = office.get(&at("erasing")).await.ok(200);
    assert_eq!((&look["refused"], &look["counts"]["files"]), (&Value::Null, &json!(0)));
    assert_eq!((&look["counts"]["revisions"], &look["counts"]["trials"]), (&json!(3), &json!(1)));
    office.post(&at("erase"), json!({ "name": "Fennimore" })).await.ok(422);
    let erased = office.post(&at("erase"), json!({ "name": "Fennimore-Quay" })).await.ok(200);
    assert_eq!((&erased[0]["household"], &erased[0]["counts"]), (&json!(id), &look["counts"]));
    assert!(!erased.to_string().contains("Fennimore"), "the certificate names nobody");
    assert_eq!(rows(&office, &id).await, 0);
    let audit = "select string_agg(what || ' ' || detail, ', ') from audit where household = $1::uuid";
    let audit: String = sqlx::query_scalar(audit).bind(&id).fetch_one(&office.app.database).await.unwrap();
    assert!(audit.contains("erased") && audit.contains("revealed"), "{audit}");
    assert!(!audit.to_lowercase().contains("fennimore") && !audit.contains("delphine"), "{audit}");
    office.get(&format!("/api/households/{id}")).await.ok(404);
    office.post(&at("erase"), json!({ "name": "Fennimore-Quay" })).await.ok(404);
    assert_eq!(demo.count().await, demo_households() as u64, "one is gone, the one of the next year stays");
    assert_eq!(office.get("/api/erased").await.ok(200), erased);
}

#[tokio::test]
async fn what_was_handed_over_is_kept_as_long_as_the_law_says() {
    let office = Client::new("keeping").await.other("office").await;
    let id = office.household("Rosenow").await;
    let at = |path: &str| format!("/api/households/{id}/{path}");
    let set = async |sql: &'static str| {
        sqlx::query(sql).bind(&id).execute(&office.app.database).await.unwrap();
    };
    set("update households set stage = 'handed_over', archived_at = now() where id = $1::uuid").await;
    let look = office.get(&at("erasing")).await.ok(200);
    assert_eq!(look["refused"], "It was handed over: the law says keep until 2030-12-31 (§§169, 170 AO).");
    office.post(&at("erase"), json!({ "name": "Rosenow" })).await.ok(403);
    // Of 2015 the law let go at the end of 2020.
    set("update households set year = 2015 where id = $1::uuid").await;
    assert_eq!(office.get(&at("erasing")).await.ok(200)["refused"], Value::Null);
    office.post(&at("erase"), json!({ "name": "Rosenow" })).await.ok(200);
    assert_eq!(rows(&office, &id).await, 0);
}
