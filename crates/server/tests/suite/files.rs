//! Slips as files: looked at without a trace, kept sealed, shown, taken back, in the pack; and what is refused.

use crate::common::Client;
use axum::body::Body;
use serde_json::{Value, json};

/// A slip of Delphine Fennimore's employer, a word a line.
const SLIP: &str = "%PDF-1.7\n500 500 W-2\n1500 500 2025\n500 900 Employer\n500 1100 Clover\n900 1100 Ridge\n\
    1250 1100 Apiaries\n500 1500 831-26-3358\n5000 900 b\n5100 900 Employer's\n5750 900 EIN\n5000 1100 03-2218840\n\
    500 2000 1\n650 2000 Wages,\n1100 2000 tips,\n1500 2000 other\n1900 2000 pay\n500 2200 19,421.00\n\
    5000 2000 2\n5150 2000 Federal\n5650 2000 tax\n5900 2000 withheld\n5000 2200 2,04\n";

async fn look(client: &Client, id: &str, file: impl Into<Body>) -> crate::common::Answer {
    client.send("POST", &format!("/api/households/{id}/files"), file.into()).await
}

async fn keep(client: &Client, id: &str, file: &'static str) -> Value {
    client.send("PUT", &format!("/api/households/{id}/files?name=wages.pdf"), Body::from(file)).await.ok(200)
}

async fn revision(client: &Client, id: &str) -> i64 {
    client.get(&format!("/api/households/{id}")).await.ok(200)["revision"].as_i64().unwrap()
}

#[tokio::test]
async fn a_slip_is_looked_at_with_its_places_and_nothing_is_stored() {
    let client = Client::signed_in("slip_look").await;
    let id = client.household("Fennimore").await;
    let before = revision(&client, &id).await;
    let seen = look(&client, &id, SLIP).await.ok(200);
    let proposal = &seen["proposal"];
    assert_eq!(seen["pages"], json!([crate::common::DOT]));
    assert_eq!(proposal["kind"]["words"], "W-2");
    assert_eq!(proposal["owner"]["words"], "delphine");
    assert_eq!(proposal["title"]["words"], "Clover Ridge Apiaries");
    assert_eq!(proposal["other_year"], Value::Null);
    let boxes = proposal["boxes"].as_array().unwrap();
    let of = |field: &str| boxes.iter().find(|one| one["field"] == field).unwrap();
    assert_eq!(of("1")["entry"], "19421.00");
    assert_eq!(of("1")["read"]["at"], json!({ "left": 500, "top": 2200, "width": 540, "height": 120 }));
    // What cannot stand in the box is told and never guessed.
    assert_eq!((&of("2")["entry"], &of("2")["read"]["words"]), (&Value::Null, &json!("2,04")));
    assert!(of("2")["fault"].as_str().unwrap().starts_with("2.04 or 204?"), "{}", of("2"));
    // It is the paper that was keyed.
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    let papers = opened["household"]["papers"].as_array().unwrap();
    let keyed = papers.iter().find(|paper| paper["kind"] == "W-2").unwrap();
    assert_eq!(proposal["paper"], keyed["id"]);

    // As another kind, of another year, of nobody.
    let other = SLIP.replace("2025", "2024").replace("831-26-3358", "999-99-9999");
    let path = format!("/api/households/{id}/files?kind=1099-INT");
    let seen = client.send("POST", &path, Body::from(other)).await.ok(200);
    assert_eq!(seen["proposal"]["kind"]["words"], "1099-INT");
    assert_eq!(seen["proposal"]["other_year"]["words"], "2024");
    assert_eq!((&seen["proposal"]["owner"], &seen["proposal"]["paper"]), (&Value::Null, &Value::Null));
    assert_eq!(revision(&client, &id).await, before);
    let kept: i64 =
        sqlx::query_scalar("select count(*) from files").fetch_one(&client.app.database).await.unwrap();
    assert_eq!(kept, 0);
}

#[tokio::test]
async fn a_kept_slip_is_sealed_shown_undone_copied_and_goes_into_the_pack() {
    let client = Client::signed_in("slip_keep").await;
    let id = client.household("Fennimore").await;
    let file = keep(&client, &id, SLIP).await;
    assert_eq!(keep(&client, &id, SLIP).await, file, "the same file is kept once");
    let name = file["id"].as_str().unwrap();
    let page = format!("/api/households/{id}/files/{name}/pages/0");
    client.get(&page).await.ok(404);
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    let papers = opened["household"]["papers"].as_array().unwrap();
    let paper = papers.iter().find(|paper| paper["kind"] == "W-2").unwrap()["id"].clone();
    let base = opened["revision"].as_i64().unwrap();
    let add = json!([{ "do": "add_file", "paper": paper, "file": file }]);
    let after = client.edit(&id, base, add.clone()).await.ok(200);
    assert_eq!(after["outcome"]["total"], opened["outcome"]["total"]);

    let shown = client.get(&page).await;
    assert_eq!(shown.headers["content-type"], "image/png");
    assert_eq!(shown.headers["cache-control"], "no-store");
    assert!(shown.status.is_success());
    client.get(&page.replace("/pages/0", "/pages/1")).await.ok(404);
    let came = client.get(&format!("/api/households/{id}/files/{name}")).await;
    assert_eq!(came.body, SLIP);
    assert_eq!(came.headers["content-disposition"], "attachment; filename=\"slip.pdf\"");
    let stored: Vec<u8> =
        sqlx::query_scalar("select bytes from files").fetch_one(&client.app.database).await.unwrap();
    assert!(!stored.windows(6).any(|part| part == b"Clover"), "it is sealed");

    let part = client.get(&format!("/api/households/{id}/pack-part?part=slips")).await.ok(200);
    assert_eq!(part[0]["is"], "picture");
    assert_eq!(part[0]["of"]["words"], "W-2 Clover Ridge Apiaries: wages.pdf, page 1 of 1");
    let now = revision(&client, &id).await;
    let wanted = json!({ "base_revision": now, "parts": ["papers", "slips"] });
    let made = client.post(&format!("/api/households/{id}/packs"), wanted).await.ok(201);
    assert_eq!(made["made"][0]["parts"], json!(["papers", "slips"]));

    let copy = client.post(&format!("/api/households/{id}/copy"), json!({})).await.ok(201);
    let copied = copy["id"].as_str().unwrap();
    assert!(client.get(&page.replace(&id, copied)).await.status.is_success());
    let path = format!("/api/households/{id}/undo");
    client.post(&path, json!({ "base_revision": now })).await.ok(200);
    client.get(&page).await.ok(404);
    client.post(&path.replace("undo", "redo"), json!({ "base_revision": now + 1 })).await.ok(200);
    assert!(client.get(&page).await.status.is_success());
    let gone = json!([{ "do": "remove_file", "paper": paper, "file": name }]);
    client.edit(&id, now + 2, gone.clone()).await.ok(200);
    client.edit(&id, now + 3, gone).await.ok(422);
}

#[tokio::test]
async fn what_is_no_slip_is_refused_with_the_reason_and_stores_nothing() {
    let client = Client::signed_in("slip_bad").await;
    let id = client.household("Fennimore").await;
    let before = revision(&client, &id).await;
    let large = |bytes: usize| [b"%PDF-".as_slice(), &vec![b' '; bytes - 5]].concat();
    for (file, says) in [
        (Vec::new(), "empty"),
        (b"PK\x03\x04 word/vbaProject.bin".to_vec(), "macros"),
        (b"<html>".to_vec(), "neither a PDF nor a picture"),
        (b"%PDF-1.7 broken".to_vec(), "damaged"),
        (large(10 * 1024 * 1024 + 1), "larger than 10 MB"),
        (large(12 * 1024 * 1024), "larger than 10 MB"),
    ] {
        for (method, path) in [("POST", "files"), ("PUT", "files?name=x.pdf")] {
            let path = format!("/api/households/{id}/{path}");
            let problem = client.send(method, &path, Body::from(file.clone())).await.ok(422);
            assert!(problem["detail"].as_str().unwrap().contains(says), "{problem:#}");
        }
    }
    // One that is larger than a household's file may be, and not too large for a slip, is read.
    for bytes in [6 * 1024 * 1024, 10 * 1024 * 1024] {
        look(&client, &id, large(bytes)).await.ok(200);
    }
    // A file that was never kept can be added to no paper, not even to a new one.
    let file = json!({ "id": "ab".repeat(32), "name": "a.pdf", "pages": 1 });
    let owners = json!([{ "person": "delphine", "percent": "100" }]);
    for command in [
        json!({ "do": "add_file", "paper": "w2-delphine", "file": file }),
        json!({ "do": "add_paper", "paper": { "id": "new", "kind": "W-2", "owners": owners, "files": [file] } }),
    ] {
        let problem = client.edit(&id, before, json!([command])).await.ok(422);
        let told = problem["detail"].as_str().unwrap();
        assert!(told.contains("add it again") || told.contains("no paper"), "{told}");
    }
    let nameless = json!({ "id": "AB", "name": " ", "pages": 1 });
    client
        .edit(&id, before, json!([{ "do": "add_file", "paper": "w2-delphine", "file": nameless }]))
        .await
        .ok(422);
    assert_eq!(revision(&client, &id).await, before);
    Client::new("slip_stranger").await.get(&format!("/api/households/{id}/files/x")).await.ok(401);
}

#[tokio::test]
async fn a_picture_without_a_scanner_or_without_text_is_typed_beside_it() {
    let picture = b"\x89PNG\r\n\x1a\n".as_slice();
    let client = Client::signed_in("slip_no_scanner").await;
    let id = client.household("Fennimore").await;
    let seen = look(&client, &id, picture).await.ok(200);
    assert!(seen["no_words"].as_str().unwrap().contains("type its boxes beside it"), "{seen:#}");
    assert_eq!(seen["proposal"]["kind"], Value::Null);
    let (client, _) = Client::with_authority("slip_scanner").await;
    let id = client.household("Fennimore").await;
    let seen = look(&client, &id, picture).await.ok(200);
    let told = seen["no_words"].as_str().unwrap();
    assert!(told.contains("finds no text") && told.contains("Type its boxes beside it"), "{told}");
}
