//! The people of a practice: the first administrator, invited, roles, signed out, barred, one's own password.

use crate::common::Client;
use hembo_server::{auth::people, demo};
use serde_json::{Value, json};

/// The secret of a link.
fn token(link: &Value) -> String {
    link["link"].as_str().unwrap().strip_prefix("/welcome#").unwrap().to_owned()
}

async fn person(client: &Client, login: &str) -> Value {
    let all = client.get("/api/people").await.ok(200);
    all.as_array().unwrap().iter().find(|one| one["login"] == login).unwrap().clone()
}

/// Invited by a link that works once, signed in, made a reviewer, signed out, barred and let in again.
#[tokio::test]
async fn someone_is_invited_changed_and_barred() {
    let office = Client::new("people").await.other("office").await;
    let new = json!({ "login": " Wren ", "name": "Wren Marsh", "role": "preparer" });
    let link = office.post("/api/people", new.clone()).await.ok(201);
    let token = token(&link);
    assert_eq!(person(&office, "wren").await["without_password"], true);
    let refused = office.post("/api/people", new).await.ok(422);
    assert!(refused["detail"].as_str().unwrap().contains("there already"));
    for body in [
        json!({ "login": "a b", "name": "A", "role": "preparer" }),
        json!({ "login": "ab", "name": " ", "role": "preparer" }),
        json!({ "login": "ab", "name": "A", "role": "king" }),
    ] {
        office.post("/api/people", body).await.ok(422);
    }

    // An address may try ten times at once: no more are made here.
    let mut wren = office.stranger();
    let look = wren.post("/api/welcome", json!({ "token": token })).await.ok(200);
    assert_eq!([&look["login"], &look["name"]], ["wren", "Wren Marsh"]);
    let set = |password: &str| json!({ "token": token, "password": password });
    wren.put("/api/welcome", set("password1234")).await.ok(422);
    wren.put("/api/welcome", set("quiet harbour")).await.ok(204);
    wren.put("/api/welcome", set("another harbour")).await.ok(404);
    wren.sign_in_as("wren", "quiet harbour").await.ok(200);
    wren.get("/api/people").await.ok(403);
    wren.post("/api/people", json!({ "login": "x", "name": "X", "role": "administrator" })).await.ok(403);

    let one = person(&office, "wren").await;
    let path = format!("/api/people/{}", one["id"].as_str().unwrap());
    assert_eq!(one["sessions"], 1);
    office.put(&path, json!({ "role": "reviewer", "disabled": false })).await.ok(200);
    assert_eq!(wren.get("/api/session").await.ok(200)["role"], "reviewer", "at once");
    office.put(&path, json!({ "role": "king", "disabled": false })).await.ok(422);
    office.post(&format!("{path}/sign-out"), json!({})).await.ok(200);
    wren.get("/api/session").await.ok(401);
    wren.sign_in_as("wren", "quiet harbour").await.ok(200);
    office.put(&path, json!({ "role": "reviewer", "disabled": true })).await.ok(200);
    wren.get("/api/households").await.ok(401);
    wren.sign_in_as("wren", "quiet harbour").await.ok(401);
    office.put(&path, json!({ "role": "reviewer", "disabled": false })).await.ok(200);
    wren.sign_in_as("wren", "quiet harbour").await.ok(200);
    // A new link takes the password and the sessions away.
    office.post(&format!("{path}/invite"), json!({})).await.ok(200);
    wren.get("/api/households").await.ok(401);
    assert_eq!(person(&office, "wren").await["without_password"], true);
}

/// The last administrator stays one; a link that ran out is none.
#[tokio::test]
async fn nobody_locks_the_practice() {
    let office = Client::new("lastadmin").await.other("office").await;
    let one = person(&office, "office").await;
    let path = format!("/api/people/{}", one["id"].as_str().unwrap());
    for body in [
        json!({ "role": "administrator", "disabled": true }),
        json!({ "role": "preparer", "disabled": false }),
    ] {
        let refused = office.put(&path, body).await.ok(422);
        assert!(refused["detail"].as_str().unwrap().contains("Nobody would be left"));
    }
    office.get("/api/people").await.ok(200);
    let id = person(&office, "demo").await["id"].as_str().unwrap().parse().unwrap();
    let link = people::invite(&office.app.database, id).await.unwrap();
    let secret = link.strip_prefix("/welcome#").unwrap();
    let stored: String =
        sqlx::query_scalar("select hash from welcomes").fetch_one(&office.app.database).await.unwrap();
    assert_ne!(stored, secret, "what is stored opens nothing");
    sqlx::query("update welcomes set expires_at = now() - interval '1 second'")
        .execute(&office.app.database)
        .await
        .unwrap();
    office.post("/api/welcome", json!({ "token": secret })).await.ok(404);
    office.put("/api/welcome", json!({ "token": secret, "password": "quiet harbour" })).await.ok(404);
}

/// One's own password: by who knows the one of now; every other session ends.
#[tokio::test]
async fn ones_own_password() {
    let client = Client::signed_in("ownpassword").await;
    let mut other = client.other("demo").await;
    let change = |now: &str, new: &str| json!({ "password": now, "new": new });
    client.put("/api/account/password", change("wrong", "quiet harbour")).await.ok(422);
    client.put("/api/account/password", change(demo::PASSWORD, "short")).await.ok(422);
    client.put("/api/account/password", change(demo::PASSWORD, "quiet harbour")).await.ok(204);
    client.get("/api/session").await.ok(200);
    other.get("/api/session").await.ok(401);
    other.sign_in(demo::PASSWORD).await.ok(401);
    other.sign_in("quiet harbour").await.ok(200);
}
