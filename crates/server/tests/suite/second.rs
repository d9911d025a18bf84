//! The second factor: set up, asked for, each code once, recovery codes, ended, and taken away with the password.

use crate::common::{Answer, Client};
use hembo_server::demo;
use serde_json::{Value, json};
use totp_rs::{Builder, Secret, Totp};

async fn sign_in(client: &Client, code: Option<&str>) -> Answer {
    let body = json!({ "login": "review", "password": demo::PASSWORD, "code": code });
    client.stranger().post("/api/session", body).await
}

/// The code of an authenticator so many steps from now.
fn code(authenticator: &Totp, steps: i64) -> String {
    let now = time::OffsetDateTime::now_utc().unix_timestamp() + 30 * steps;
    authenticator.generate(u64::try_from(now).unwrap()).to_string()
}

#[tokio::test]
async fn a_second_factor_is_set_up_asked_for_and_ended() {
    let demo = Client::new("second").await;
    let mine = demo.other("review").await;
    let elsewhere = demo.other("review").await;
    assert_eq!(mine.get("/api/account/second").await.ok(200), json!({ "asked": false, "recovery": 0 }));
    let begun = mine.post("/api/account/second", Value::Null).await.ok(200);
    let secret = begun["secret"].as_str().unwrap();
    assert!(begun["picture"].as_str().unwrap().starts_with("iVBOR"), "a PNG");
    let stored: String = sqlx::query_scalar("select second_secret from users where login = 'review'")
        .fetch_one(&demo.app.database)
        .await
        .unwrap();
    assert!(!stored.contains(secret), "it is sealed");
    let secret = Secret::try_from_base32(secret).unwrap();
    let authenticator = Builder::new().with_secret(secret).with_account_name("review").build().unwrap();

    // Begun is not asked for; a wrong code changes nothing.
    sign_in(&demo, None).await.ok(200);
    let wrong = mine.put("/api/account/second", json!({ "code": "000" })).await.ok(422);
    assert_eq!(wrong["faults"][0]["at"], "code");
    let codes = mine.put("/api/account/second", json!({ "code": code(&authenticator, 0) })).await.ok(200);
    let codes: Vec<String> = serde_json::from_value(codes["codes"].clone()).unwrap();
    assert_eq!(codes.len(), 10);
    elsewhere.get("/api/session").await.ok(401);
    assert_eq!(mine.get("/api/account/second").await.ok(200), json!({ "asked": true, "recovery": 10 }));
    mine.post("/api/account/second", Value::Null).await.ok(403);

    let asked = sign_in(&demo, None).await.ok(401);
    assert_eq!(asked["type"], "urn:hembo:second-factor");
    // The code of now is used up; the next one is taken already, and were it late by a step, too.
    let now = code(&authenticator, 1);
    sign_in(&demo, Some(&now)).await.ok(200);
    assert_eq!(sign_in(&demo, Some(&now)).await.ok(401)["type"], "urn:hembo:second-factor", "each code once");
    sign_in(&demo, Some(&codes[3].to_uppercase().replace('-', " "))).await.ok(200);
    sign_in(&demo, Some(&codes[3])).await.ok(401);
    assert_eq!(mine.get("/api/account/second").await.ok(200)["recovery"], 9);
    // A wrong password says nothing of a second factor.
    let wrong = json!({ "login": "review", "password": "another password" });
    assert_eq!(demo.stranger().post("/api/session", wrong).await.ok(401)["type"], "urn:hembo:refused");

    mine.post("/api/account/second/end", json!({ "password": "another password" })).await.ok(422);
    mine.post("/api/account/second/end", json!({ "password": demo::PASSWORD })).await.ok(204);
    sign_in(&demo, None).await.ok(200);
}

/// Who lost device and codes gets a new link, and with it neither the old password nor the second factor counts.
#[tokio::test]
async fn a_new_link_takes_the_second_factor_away() {
    let demo = Client::new("second_lost").await;
    let mine = demo.other("review").await;
    let begun = mine.post("/api/account/second", Value::Null).await.ok(200);
    let secret = Secret::try_from_base32(begun["secret"].as_str().unwrap()).unwrap();
    let authenticator = Builder::new().with_secret(secret).with_account_name("review").build().unwrap();
    mine.put("/api/account/second", json!({ "code": code(&authenticator, 0) })).await.ok(200);
    let office = demo.other("office").await;
    let all = office.get("/api/people").await.ok(200);
    let one = all.as_array().unwrap().iter().find(|one| one["login"] == "review").unwrap();
    assert_eq!(one["second_factor"], true);
    let path = format!("/api/people/{}/invite", one["id"].as_str().unwrap());
    let link = office.post(&path, json!({})).await.ok(200)["link"].as_str().unwrap().to_owned();
    let token = link.strip_prefix("/welcome#").unwrap();
    let stranger = demo.stranger();
    stranger.put("/api/welcome", json!({ "token": token, "password": "quiet harbour" })).await.ok(204);
    let body = json!({ "login": "review", "password": "quiet harbour" });
    stranger.post("/api/session", body).await.ok(200);
}
