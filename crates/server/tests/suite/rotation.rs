//! A new key for the practice: everything is sealed anew while people work, ended runs go on, and nothing is ever lost.

use crate::common::{Client, REGISTRY, demo_households};
use axum::body::Body;
use hembo_server::{
    demo,
    keys::{at_start, renew, rotated},
    seal::{self, Sealer},
    store::keys,
};
use serde_json::{Value, json};
use std::{fs, path::PathBuf, time::Duration};
use totp_rs::{Builder, Secret};
use uuid::Uuid;

const SLIP: &str = "%PDF-1.7\n500 500 W-2\n1500 500 2025\n";
/// Longer than a server takes to look at its keys.
const WAIT: Duration = Duration::from_secs(3);

struct Practice {
    client: Client,
    key: PathBuf,
}

impl Drop for Practice {
    fn drop(&mut self) {
        let _ = fs::remove_file(&self.key);
    }
}

impl Practice {
    async fn new(name: &str) -> Practice {
        let key = std::env::temp_dir().join(format!("hembo-rotated-{name}-{}", std::process::id()));
        let mut client = Client::with_key(name, &key, None).await;
        client.sign_in(demo::PASSWORD).await.ok(200);
        Practice { client, key }
    }

    async fn rotated(&self, wait: Duration) -> Result<(), String> {
        let done = rotated(&self.key, &self.client.app.database, &REGISTRY, wait).await;
        done.map_err(|error| error.to_string())
    }

    async fn known(&self) -> Vec<String> {
        keys::known(&self.client.app.database).await.unwrap().into_iter().map(|key| key.name).collect()
    }

    /// A server that starts now.
    async fn started(&self) -> Client {
        let sealer = at_start(&self.key, &self.client.app.database, &REGISTRY).await.unwrap();
        self.client.at(&self.client.second_server_by(sealer).await)
    }

    /// How many rows of the database name a key, or hold a seal of it.
    async fn naming(&self, key: &str) -> i64 {
        let count = "select (select count(*) from revisions where sealed_with = $1 or strpos(state::text, 'sealed:' || $1) > 0)
             + (select count(*) from filings where sealed_with = $1 or strpos(package, 'sealed:' || $1) > 0)
             + (select count(*) from files where sealed_with = $1 or encode(substr(bytes, 1, 9), 'base64') = $1)
             + (select count(*) from file_pages where sealed_with = $1 or encode(substr(picture, 1, 9), 'base64') = $1)
             + (select count(*) from users where second_sealed_with = $1 or strpos(second_secret, 'sealed:' || $1) > 0)";
        sqlx::query_scalar(count).bind(key).fetch_one(&self.client.app.database).await.unwrap()
    }
}

fn number(number: &str) -> Value {
    json!([{ "do": "set_person", "person": "asa", "id_number": number }])
}

/// A return on its way, sealed with the present key.
async fn filing(client: &Client, household: Uuid) -> Uuid {
    let (id, database) = (Uuid::new_v4(), &client.app.database);
    let consent = "insert into consents (id, household, number, people, scope, from_day, until_day, state, by_user)
        select $1, $2, 'C-1', '{asa}', '{filing}', now(), now(), 'granted', id from users where login = 'demo'";
    sqlx::query(consent).bind(id).bind(household).execute(database).await.unwrap();
    let package = client.app.sealer.seal_text(&format!("{household}/filings/{id}"), "{\"line\": 1}");
    let filing = "insert into filings (id, household, revision, scope, whose, consent, package, checksum, state, by_user,
            sealed_with)
        select $1, $2, 1, 'us', 'both', $1, $3, '', 'sending', id, $4 from users where login = 'demo'";
    let filing =
        sqlx::query(filing).bind(id).bind(household).bind(&package).bind(seal::key_of_text(&package));
    filing.execute(database).await.unwrap();
    id
}

#[tokio::test(flavor = "multi_thread")]
async fn everything_is_sealed_anew_while_people_edit() {
    let practice = Practice::new("rotation").await;
    let client = practice.client.clone();
    let id = client.household("Fennimore").await;
    let household: Uuid = id.parse().unwrap();
    client.edit(&id, 1, number("834-74-9921")).await.ok(200);
    let path = format!("/api/households/{id}/files?name=wages.pdf");
    let file = client.send("PUT", &path, Body::from(SLIP)).await.ok(200);
    client.edit(&id, 2, json!([{ "do": "add_file", "paper": "w2", "file": file }])).await.ok(200);
    let filing = filing(&client, household).await;
    let secret = client.post("/api/account/second", Value::Null).await.ok(200)["secret"].clone();
    let old = practice.known().await;
    let came = i64::try_from(demo_households()).unwrap() + 6;
    assert_eq!(
        practice.naming(&old[0]).await,
        came,
        "the demo data, two revisions, a file with its page, a return, a secret"
    );

    tokio::spawn(renew(client.app.sealer.clone(), practice.key.clone(), client.app.database.clone()));
    let (editor, edited) = (client.clone(), id.clone());
    let editing = tokio::spawn(async move {
        for revision in 3.. {
            let title = json!([{ "do": "rename", "name": format!("Fennimore {revision}") }]);
            editor.edit(&edited, revision, title).await.ok(200);
            if seal::key_of_text(&editor.app.sealer.seal_text("", "")) != old[0] && revision > 30 {
                return (revision + 1, old);
            }
        }
        unreachable!("it ends once the new key seals")
    });
    practice.rotated(WAIT).await.unwrap();
    let (last, old) = editing.await.unwrap();

    let new = practice.known().await;
    assert!(new.len() == 1 && new != old && fs::read(&practice.key).unwrap().len() == seal::KEY);
    assert_eq!(practice.naming(&old[0]).await, 0);
    // Every revision, number, file, return and second factor opens with the new key alone.
    let now = practice.started().await;
    for revision in 1..=last {
        now.get(&format!("/api/households/{id}/revisions/{revision}")).await.ok(200);
    }
    let reveal = now.post(&format!("/api/households/{id}/reveal"), json!({ "person": "asa" })).await.ok(200);
    assert_eq!(reveal["text"], "834-74-9921");
    let found = now.get("/api/households?search=9921").await.ok(200);
    assert_eq!(found["rows"][0]["id"], id.as_str(), "found by the last digits");
    let name = file["id"].as_str().unwrap();
    assert_eq!(now.get(&format!("/api/households/{id}/files/{name}")).await.ok(200), SLIP);
    now.get(&format!("/api/households/{id}/files/{name}/pages/0")).await.ok(200);
    let package: String = sqlx::query_scalar("select package from filings where id = $1")
        .bind(filing)
        .fetch_one(&now.app.database)
        .await
        .unwrap();
    let package = now.app.sealer.open_text(&format!("{household}/filings/{filing}"), &package).unwrap();
    assert_eq!(package, "{\"line\": 1}");
    let secret = Secret::try_from_base32(secret.as_str().unwrap()).unwrap();
    let authenticator = Builder::new().with_secret(secret).with_account_name("demo").build().unwrap();
    let code = authenticator.generate(time::OffsetDateTime::now_utc().unix_timestamp().try_into().unwrap());
    now.put("/api/account/second", json!({ "code": code.to_string() })).await.ok(200);
    let noted: Vec<String> = sqlx::query_scalar("select detail from audit where what = 'key' order by id")
        .fetch_all(&now.app.database)
        .await
        .unwrap();
    assert!(noted[1].starts_with(&new[0]) && noted[2].starts_with(&old[0]), "{noted:?}");
}

#[tokio::test]
async fn an_ended_run_goes_on_and_what_kept_the_old_key_writes_nothing() {
    let practice = Practice::new("rotation_ended").await;
    let database = practice.client.app.database.clone();
    let stale = practice
        .client
        .at(&practice.client.second_server_by(Sealer::from_file(&practice.key).unwrap()).await);
    let id = practice.client.household("Fennimore").await;
    let old = practice.known().await;
    // Ended once the new key was in the file.
    let first = fs::read(&practice.key).unwrap();
    fs::write(&practice.key, [&first[..], &seal::fresh()].concat()).unwrap();
    let added = Sealer::from_file(&practice.key).unwrap().names();
    let started = practice.started().await;
    let sealed = started.app.sealer.seal_text("", "");
    assert_eq!(seal::key_of_text(&sealed), old[0], "what the database does not know does not seal");
    started.edit(&id, 1, number("834-74-9921")).await.ok(200);
    // Ended in the middle of sealing anew: a revision that no key opens.
    let torn = "update revisions set state = jsonb_set(state, '{people,0,id_number}', '\"sealed:torn\"')
        where household = $1 and revision = 1 returning 1";
    let whole = "select state from revisions where household = $1 and revision = 1";
    let household: Uuid = id.parse().unwrap();
    let state: Value = sqlx::query_scalar(whole).bind(household).fetch_one(&database).await.unwrap();
    sqlx::query(torn).bind(household).execute(&database).await.unwrap();
    let stuck = practice.rotated(Duration::ZERO).await.unwrap_err();
    assert!(stuck.contains(&format!("revision 1 of the household {id}")), "{stuck}");
    assert_eq!(practice.known().await, added, "both keys stay");
    assert_eq!(Sealer::from_file(&practice.key).unwrap().names(), added);
    let mended = sqlx::query("update revisions set state = $2 where household = $1 and revision = 1");
    mended.bind(household).bind(state).execute(&database).await.unwrap();

    practice.rotated(Duration::ZERO).await.unwrap();
    assert_eq!(practice.known().await, added[1..], "with the key that was begun with");
    practice.started().await.edit(&id, 2, number("834-74-9922")).await.ok(200);
    // Who never looked at the file cannot store what nobody could open.
    let other = practice.client.household("Okonjo-Farrell").await;
    stale.edit(&other, 1, json!([{ "do": "rename", "name": "Late" }])).await.ok(500);
    assert_eq!(practice.naming(&old[0]).await, 0);
    let kept = practice.started().await.get(&format!("/api/households/{other}")).await.ok(200);
    assert_eq!(kept["revision"], 1);
    // A file without a key that something is sealed with starts nothing and changes nothing.
    fs::write(&practice.key, first).unwrap();
    let refused = practice.rotated(Duration::ZERO).await.unwrap_err();
    assert!(refused.contains("lacks the key") && refused.contains("Nothing was changed"), "{refused}");
    let refused = at_start(&practice.key, &database, &REGISTRY).await.unwrap_err().to_string();
    assert!(refused.contains("is not the key"), "{refused}");
}

#[tokio::test]
async fn one_rotates_at_a_time() {
    let practice = Practice::new("rotation_twice").await;
    let held = keys::hold(&practice.client.app.database).await.unwrap();
    let refused = practice.rotated(Duration::ZERO).await.unwrap_err();
    assert!(refused.contains("Somebody else rotates"), "{refused}");
    assert_eq!(fs::read(&practice.key).unwrap().len(), seal::KEY);
    keys::release(held.unwrap()).await.unwrap();
    practice.rotated(Duration::ZERO).await.unwrap();
}

#[tokio::test]
async fn what_was_sealed_before_keys_had_names_opens_and_is_sealed_anew() {
    let practice = Practice::new("rotation_unnamed").await;
    let database = practice.client.app.database.clone();
    let id = practice.client.household("Fennimore").await;
    practice.client.edit(&id, 1, number("834-74-9921")).await.ok(200);
    let name = practice.known().await.swap_remove(0);
    // As it stood then: no key has a name, and no seal one before it.
    sqlx::query("update keys set name = $1").bind(keys::UNNAMED).execute(&database).await.unwrap();
    let unnamed = "update revisions set state = replace(state::text, 'sealed:' || $1, 'sealed:')::jsonb";
    sqlx::query(unnamed).bind(&name).execute(&database).await.unwrap();
    assert_eq!(practice.naming(&name).await, 0);
    let now = practice.started().await;
    assert_eq!(practice.known().await, [name]);
    let reveal = async |client: &Client| {
        let path = format!("/api/households/{id}/reveal");
        client.post(&path, json!({ "person": "asa" })).await.ok(200)["text"].clone()
    };
    assert_eq!(reveal(&now).await, "834-74-9921");
    practice.rotated(Duration::ZERO).await.unwrap();
    assert_eq!(reveal(&practice.started().await).await, "834-74-9921");
    // Older still: not even a known text.
    sqlx::query("update keys set name = $1, known = ''")
        .bind(keys::UNNAMED)
        .execute(&database)
        .await
        .unwrap();
    let wrong = std::env::temp_dir().join(format!("hembo-rotated-wrong-{}", std::process::id()));
    Sealer::make(&wrong).unwrap();
    assert!(at_start(&wrong, &database, &REGISTRY).await.is_err());
    fs::remove_file(wrong).unwrap();
    assert_eq!(reveal(&practice.started().await).await, "834-74-9921");
    assert!(keys::known(&database).await.unwrap().iter().all(|key| !key.known.is_empty()));
}
