//! The service around the households: lists, keys, waits, tries, caches.

use crate::common::{Client, REGISTRY, demo_households};
use hembo_cluster::Cluster;
use hembo_core::search::Stop;
use hembo_server::{Settings, store, work::on_a_core};
use serde_json::{Value, json};
use std::fs;

/// A list of two thousand is searched, sorted and paged by the database.
#[tokio::test]
async fn two_thousand_households_are_paged_and_searched() {
    let client = Client::signed_in("two_thousand").await;
    sqlx::query(
        "insert into households (id, revision, name, country, year, search, summary)
         select gen_random_uuid(), 1, 'Beekeeper ' || n, 'us', 2024 + n % 2,
             'beekeeper ' || n || ' united states ' || (2024 + n % 2),
             jsonb_build_object('people', '[]'::jsonb, 'total', n::text || '.00', 'blocking', n % 2, 'looking', 0)
         from generate_series(1, 2000) n",
    )
    .execute(&client.app.database)
    .await
    .unwrap();
    let list = async |query: &str| client.get(&format!("/api/households{query}")).await.ok(200);
    let all = list("").await;
    assert_eq!(
        (&all["count"], all["rows"].as_array().unwrap().len()),
        (&json!(2_000 + demo_households()), 100)
    );
    let last = list("?from=2000").await;
    assert_eq!(last["rows"].as_array().unwrap().len(), demo_households());
    let found = list("?search=BEEKEEPER%201999").await;
    assert_eq!((&found["count"], &found["rows"][0]["name"]), (&json!(1), &json!("Beekeeper 1999")));
    assert_eq!(list("?search=2024%20beekeeper").await["count"], 1_000);
    assert_eq!(list("?search=isolde%20illinois").await["count"], 1);
    // Signs of a pattern are letters like others.
    assert_eq!(list("?search=%25").await["count"], 0);
    assert_eq!(list("?search=_").await["count"], 0);
    let names = |page: &Value| page["rows"][0]["name"].clone();
    assert_eq!(names(&list("?search=beekeeper&order=total&down=true").await), "Beekeeper 2000");
    assert_eq!(names(&list("?search=beekeeper&order=total&down=false").await), "Beekeeper 1");
    assert_eq!(names(&list("?search=beekeeper&order=name&down=true").await), "Beekeeper 999");
    assert_eq!(names(&list("?order=name&down=false").await), "Abernathy-Solis");
    assert_eq!(list("?search=beekeeper").await["blocked"], 1_000);
    for order in
        ["law", "year", "stage", "checked", "points", "ways", "saved", "balance", "touched", "nothing"]
    {
        assert_eq!(
            list(&format!("?order={order}&down=true")).await["rows"].as_array().unwrap().len(),
            100,
            "{order}"
        );
    }
}

#[tokio::test]
async fn one_unreadable_summary_does_not_fail_the_list() {
    let client = Client::signed_in("unreadable").await;
    for summary in ["\"torn\"", "{}", "[1]", "{\"blocking\": \"x\", \"total\": {}, \"papers\": \"y\"}"] {
        sqlx::query("update households set summary = $1::jsonb where name = 'Fennimore'")
            .bind(summary)
            .execute(&client.app.database)
            .await
            .unwrap();
        for order in ["total", "points", "checked", "touched"] {
            let list = client.get(&format!("/api/households?order={order}")).await.ok(200);
            assert_eq!(list["rows"].as_array().unwrap().len(), demo_households(), "{summary} {order}");
        }
    }
    // Opened and changed it is told again.
    let id = client.household("Fennimore").await;
    client.edit(&id, 1, json!([{ "do": "rename", "name": "Fennimore-Quay" }])).await.ok(200);
    let list = client.get("/api/households?search=fennimore").await.ok(200);
    assert_eq!(list["rows"][0]["summary"]["total"], "-9690.00");
}

#[tokio::test]
async fn a_missing_or_wrong_key_stops_the_start() {
    let folder = std::env::temp_dir().join(format!("hembo-keys-{}", std::process::id()));
    fs::create_dir_all(&folder).unwrap();
    let database = Cluster::test_database("keys").unwrap();
    let start = async |key: &str| {
        let settings = Settings::of(&database, &folder.join(key));
        hembo_server::app(&settings, REGISTRY.clone()).await.map(|_| ()).map_err(|error| error.to_string())
    };
    // A new database gets a new key, which fits from then on.
    start("key").await.unwrap();
    start("key").await.unwrap();
    let missing = start("elsewhere").await.unwrap_err();
    assert!(missing.contains("elsewhere is missing") && missing.contains("from your backup"), "{missing}");
    assert!(!folder.join("elsewhere").exists(), "no key is made in silence");
    fs::write(folder.join("wrong"), [7; 32]).unwrap();
    let wrong = start("wrong").await.unwrap_err();
    assert!(wrong.contains("wrong is not the key that this database's numbers are sealed with"), "{wrong}");
    fs::write(folder.join("short"), [7; 31]).unwrap();
    assert!(start("short").await.unwrap_err().contains("does not hold keys of 32 bytes"));
    fs::remove_dir_all(folder).unwrap();
}

#[tokio::test]
async fn a_wait_for_the_database_ends_in_words() {
    let client = Client::signed_in("busy").await;
    let mut held = Vec::new();
    while let Some(connection) = client.app.database.try_acquire() {
        held.push(connection);
    }
    for _ in held.len()..20 {
        held.push(client.app.database.acquire().await.unwrap());
    }
    let busy = client.get("/api/households").await.ok(503);
    assert_eq!((&busy["type"], &busy["title"]), (&json!("urn:hembo:busy"), &json!("Busy")));
    drop(held);
    client.get("/api/households").await.ok(200);
}

/// A computation whose request is gone, or whose server ends, stops and leaves its core to others.
#[tokio::test(flavor = "multi_thread")]
async fn work_that_nobody_waits_for_is_stopped() {
    let Client { app, .. } = Client::new("stopped").await;
    let (tell, mut told) = tokio::sync::mpsc::unbounded_channel();
    let endless = |tell: tokio::sync::mpsc::UnboundedSender<&'static str>| {
        move |stop: &Stop| {
            tell.send("begun").unwrap();
            while !stop.is_stopped() {
                std::thread::yield_now();
            }
            tell.send("stopped").unwrap();
        }
    };
    tokio::select! {
        _ = on_a_core(&app, endless(tell.clone())) => panic!("it has no end"),
        Some("begun") = told.recv() => {}
    }
    assert_eq!(told.recv().await, Some("stopped"));
    assert_eq!(on_a_core(&app, |_| 7).await.unwrap(), 7);
    let work = tokio::spawn({
        let (app, work) = (app.clone(), endless(tell));
        async move { on_a_core(&app, work).await.map_err(|problem| problem.status) }
    });
    assert_eq!(told.recv().await, Some("begun"));
    app.ending.cancel();
    assert_eq!(work.await.unwrap(), Err(503));
    assert_eq!(told.recv().await, Some("stopped"));
}

#[tokio::test]
async fn data_stays_in_no_cache() {
    let client = Client::signed_in("cache").await;
    let id = client.household("Fennimore").await;
    for path in ["/api/households".to_owned(), format!("/api/households/{id}"), "/api/session".to_owned()] {
        assert_eq!(client.get(&path).await.headers["cache-control"], "no-store", "{path}");
    }
    assert_eq!(client.get("/").await.headers["cache-control"], "no-cache");
}

/// Tries count by account, from wherever they come; a right password after a pause forgets them.
#[tokio::test]
async fn tries_are_limited_by_account() {
    let mut client = Client::new("accounts").await;
    for _ in 0..10 {
        store::tries::note(&client.app.database, "demo").await.unwrap();
    }
    assert_eq!(client.sign_in(hembo_server::demo::PASSWORD).await.ok(429)["type"], "urn:hembo:too-many");
    let other = json!({ "login": "someone", "password": "x" });
    assert_eq!(client.post("/api/session", other).await.status, 401);
    sqlx::query("update tries set at = at - interval '11 minutes'")
        .execute(&client.app.database)
        .await
        .unwrap();
    client.sign_in(hembo_server::demo::PASSWORD).await.ok(200);
    store::tries::sweep(&client.app.database).await.unwrap();
    assert_eq!(store::tries::waiting(&client.app.database, "demo").await.unwrap(), None);
}

/// Five may fail; from then on each failure doubles the wait, which the answer names, up to a quarter of an hour.
#[tokio::test]
async fn waits_grow_with_every_failure() {
    let seconds = |failed| store::tries::wait_after(failed).as_secs();
    assert_eq!([0, 4, 5, 6, 7, 10, 11, 40].map(seconds), [0, 0, 15, 30, 60, 480, 900, 900]);
    let mut client = Client::new("waits").await;
    for _ in 0..5 {
        store::tries::note(&client.app.database, "demo").await.unwrap();
    }
    let refused = client.sign_in(hembo_server::demo::PASSWORD).await;
    let wait: u64 = refused.headers["retry-after"].to_str().unwrap().parse().unwrap();
    assert!((1..=15).contains(&wait));
    assert_eq!(refused.ok(429)["retry_after"], wait);
}

/// What has run out is swept while the server runs.
#[tokio::test]
async fn sessions_are_swept_while_running() {
    let client = Client::signed_in("sweep").await;
    let database = client.app.database.clone();
    sqlx::query("update sessions set expires_at = now() - interval '1 second'")
        .execute(&database)
        .await
        .unwrap();
    let sweeper = tokio::spawn(hembo_server::sweep(database.clone()));
    let mut left = 1_i64;
    for _ in 0..200 {
        left = sqlx::query_scalar("select count(*) from sessions").fetch_one(&database).await.unwrap();
        if left == 0 {
            break;
        }
        tokio::time::sleep(std::time::Duration::from_millis(20)).await;
    }
    sweeper.abort();
    assert_eq!(left, 0);
}
