//! Sessions, forged requests, concurrent work and what the server keeps to itself.

use crate::common::{Client, demo_households};
use axum::body::Body;
use hembo_server::{
    auth::{Role, password},
    demo,
    store::users,
};
use serde_json::{Value, json};

#[tokio::test]
async fn a_session_that_ran_out_signs_nobody_in() {
    let client = Client::signed_in("expiry").await;
    client.get("/api/households").await.ok(200);
    sqlx::query("update sessions set expires_at = now() - interval '1 second'")
        .execute(&client.app.database)
        .await
        .unwrap();
    client.get("/api/households").await.ok(401);
    // The next start sweeps it away.
    hembo_server::auth::sessions::Sessions(client.app.database.clone()).sweep().await.unwrap();
    let left: i64 =
        sqlx::query_scalar("select count(*) from sessions").fetch_one(&client.app.database).await.unwrap();
    assert_eq!(left, 0);
}

/// The database holds no id that signs in, a session that is used ends later but not for ever, and it ends with the person's access.
#[tokio::test]
async fn sessions_are_hashed_moved_and_ended() {
    let client = Client::signed_in("hashed").await;
    let database = client.app.database.clone();
    let left = || {
        sqlx::query_scalar::<_, f64>(
            "select extract(epoch from expires_at - now())::float8 / 3600 from sessions",
        )
    };
    let id: String = sqlx::query_scalar("select id from sessions").fetch_one(&database).await.unwrap();
    assert!(id.len() == 64 && !client.cookie().contains(&id));
    sqlx::query("update sessions set expires_at = now() + interval '1 hour'")
        .execute(&database)
        .await
        .unwrap();
    client.get("/api/households").await.ok(200);
    assert!(left().fetch_one(&database).await.unwrap() > 11.9, "used, it ends later");
    sqlx::query("update sessions set began_at = now() - interval '6 days 23 hours', expires_at = now() + interval '1 minute'")
        .execute(&database)
        .await
        .unwrap();
    client.get("/api/households").await.ok(200);
    let hours = left().fetch_one(&database).await.unwrap();
    assert!((0.9..=1.0).contains(&hours), "{hours}: seven days at most");
    sqlx::query("update users set disabled_at = now() where login = 'demo'")
        .execute(&database)
        .await
        .unwrap();
    client.get("/api/households").await.ok(401);
    let mut again = client.clone();
    again.sign_in(demo::PASSWORD).await.ok(401);
}

#[tokio::test]
async fn signing_in_gives_a_new_session_and_signing_out_ends_it() {
    let mut first = Client::signed_in("cycle").await;
    let before = first.clone();
    first.sign_in(demo::PASSWORD).await.ok(200);
    first.get("/api/session").await.ok(200);
    before.get("/api/session").await.ok(401);
    first.delete("/api/session").await.ok(204);
    first.get("/api/session").await.ok(401);
}

#[tokio::test]
async fn nothing_changes_without_the_token_of_the_session() {
    let client = Client::signed_in("token").await;
    let forged = client.without_token();
    let id = client.household("Fennimore").await;
    let undo = json!({ "base_revision": 1 });
    let rename = json!({ "base_revision": 1, "commands": [{ "do": "rename", "name": "X" }] });
    for (path, body) in [
        (format!("/api/households/{id}/edits"), rename),
        (format!("/api/households/{id}/undo"), undo.clone()),
        (format!("/api/households/{id}/redo"), undo),
        (format!("/api/households/{id}/copy"), json!({})),
        (format!("/api/households/{id}/carry-forward"), json!({})),
        (format!("/api/households/{id}/restore"), json!({})),
        (format!("/api/households/{id}/reveal"), json!({ "person": "asa" })),
        (format!("/api/households/{id}/bring-back"), json!({ "base_revision": 1, "revision": 1 })),
        ("/api/households".to_owned(), json!({})),
        ("/api/households/import".to_owned(), json!({})),
    ] {
        let problem = forged.post(&path, body).await.ok(403);
        assert_eq!(problem["type"], "urn:hembo:forged", "{path}");
    }
    forged.delete(&format!("/api/households/{id}")).await.ok(403);
    // Reading needs the session alone.
    forged.get(&format!("/api/households/{id}")).await.ok(200);
}

#[tokio::test]
async fn without_a_session_every_door_is_shut() {
    let client = Client::signed_in("shut").await;
    let id = client.household("Fennimore").await;
    let stranger = Client::new("shut_too").await;
    for path in ["", "/file", "/history", "/revisions/1", "/effect?paper=w2", "/curve?paper=w2&field=1"] {
        stranger.get(&format!("/api/households/{id}{path}")).await.ok(401);
    }
    stranger.get("/api/packs").await.ok(401);
    stranger.post("/api/households", json!({})).await.ok(401);
}

#[tokio::test]
async fn roles_are_known_and_logins_unique() {
    let client = Client::new("routes_told").await;
    let database = &client.app.database;
    let hash = password::hash("a long enough word");
    users::add(database, "Rosa", "R. Quay", Role::Reviewer, &hash).await.unwrap();
    let found = users::by_login(database, "rosa").await.unwrap().unwrap();
    assert_eq!((found.name.as_str(), found.role), ("R. Quay", Role::Reviewer));
    assert!(
        users::add(database, "rosa", "Other", Role::Preparer, &hash).await.is_err(),
        "a login is taken once"
    );
    assert!("captain".parse::<Role>().is_err(), "there is no such role");
    assert!(users::any(database).await.unwrap());
}

#[tokio::test]
async fn the_demo_data_is_loaded_once() {
    let client = Client::signed_in("demo_once").await;
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    demo::load(&client.app, folder.as_ref()).await.unwrap();
    assert_eq!(client.count().await, demo_households() as u64);
}

#[tokio::test]
async fn many_people_edit_many_households_at_once() {
    let client = Client::signed_in("many").await;
    let mut ids = Vec::new();
    for _ in 0..6 {
        let source = client.household("Okonjo-Farrell").await;
        let made = client.post(&format!("/api/households/{source}/copy"), json!({})).await.ok(201);
        ids.push(made["id"].as_str().unwrap().to_owned());
    }
    let work = ids.into_iter().map(|id| {
        let client = client.clone();
        tokio::spawn(async move {
            for revision in 1..=8 {
                let value = (70_000 + revision * 100).to_string();
                let set = json!([{ "do": "set_box", "paper": "w2-isolde", "field": "1", "value": value }]);
                client.edit(&id, revision, set).await.ok(200);
            }
            let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
            (opened["revision"].clone(), opened["household"]["papers"][0]["boxes"]["1"].clone())
        })
    });
    for done in work.collect::<Vec<_>>() {
        assert_eq!(done.await.unwrap(), (json!(9), json!("70800")));
    }
}

#[tokio::test]
async fn answers_are_problem_documents_and_tell_nothing_of_the_inside() {
    let client = Client::signed_in("problems").await;
    let id = client.household("Fennimore").await;
    let path = format!("/api/households/{id}/edits");
    let send = async |body: &'static str| client.send("POST", &path, Body::from(body)).await;
    for (body, status) in [("", 400), ("{", 400), ("7", 422), (r#"{"base_revision":"x","commands":[]}"#, 422)]
    {
        let answer = send(body).await;
        assert_eq!(answer.headers["content-type"], "application/problem+json", "{body}");
        let problem = answer.ok(status);
        for part in ["type", "title", "status", "detail"] {
            assert!(problem.get(part).is_some(), "{body}: no {part}");
        }
    }
    client.get("/api/households/not-an-id").await.ok(400);
    client.send("PUT", "/api/households", Body::empty()).await.ok(405);
    // A broken database is told as a server error, without its words.
    sqlx::query("alter table households rename to hidden").execute(&client.app.database).await.unwrap();
    let problem = client.get("/api/households").await.ok(500);
    assert_eq!(problem["type"], "urn:hembo:internal");
    assert!(!problem.to_string().contains("relation"), "{problem}");
}

#[tokio::test]
async fn what_changes_nothing_is_no_revision_and_unknown_households_stay_unknown() {
    let client = Client::signed_in("empty").await;
    let id = client.household("Fennimore").await;
    assert_eq!(client.edit(&id, 1, json!([])).await.ok(200)["revision"], 1);
    let nowhere = "00000000-0000-4000-8000-000000000000";
    assert_eq!(client.edit(nowhere, 1, json!([])).await.ok(404)["type"], "urn:hembo:not-found");
    for (method, tail) in [("DELETE", ""), ("POST", "/copy"), ("POST", "/restore")] {
        let answer = client.send(method, &format!("/api/households/{nowhere}{tail}"), Body::empty()).await;
        assert_eq!(answer.status, 404, "{method} {tail}");
    }
    assert_eq!(
        client.post(&format!("/api/households/{id}/reveal"), json!({ "person": "nobody" })).await.ok(404)["detail"],
        "There is no such person, or it was deleted."
    );
    let history: Value = client.get(&format!("/api/households/{id}/history")).await.ok(200);
    assert_eq!(history.as_array().unwrap().len(), 1);
}
