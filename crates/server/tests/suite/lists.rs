//! Lists as tables: CSV in, looked at first, and out.

use crate::common::Client;
use axum::body::Body;
use serde_json::{Value, json};

/// The path of a list of a demo household.
async fn list(client: &Client, name: &str, kind: &str) -> (String, String) {
    let id = client.household(name).await;
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    let papers = opened["household"]["papers"].as_array().unwrap().clone();
    let paper = papers.iter().find(|paper| paper["kind"] == kind).unwrap()["id"].as_str().unwrap().to_owned();
    (id.clone(), format!("/api/households/{id}/papers/{paper}/table"))
}

#[tokio::test]
async fn a_table_is_matched_read_and_its_faults_told_by_line() {
    let client = Client::signed_in("tables").await;
    let (_, path) = list(&client, "Pell-Achterberg", "Medical").await;
    let text = "Date;Whose ;what;Amount;Remark\n2025-03-04;Linus;Drops;1,240.50;x\n;;;;\n2025-04-31;Nobody;;12,5;\n5 May 2025;marit;Lenses;(20);\n";
    let read = client
        .post(&path, json!({ "text": text, "columns": ["date", "patient", "what", "amount", null] }))
        .await
        .ok(200);
    assert_eq!(
        read["rows"],
        json!([{ "date": "2025-03-04", "patient": "linus", "what": "Drops", "amount": "1240.50" }])
    );
    assert_eq!((&read["sum"], &read["faulty"]), (&json!("1240.50"), &json!(2)));
    let faults: Vec<(u64, &str)> = read["faults"]
        .as_array()
        .unwrap()
        .iter()
        .map(|f| (f["line"].as_u64().unwrap(), f["heading"].as_str().unwrap()))
        .collect();
    assert_eq!(faults, [(4, "Date"), (4, "Whose"), (4, "Amount"), (5, "Amount")]);

    // Matched by headings: the words, the id; what is unknown is left out.
    let by_words =
        client.post(&path, json!({ "text": "date,AMOUNT,Colour\n2025-01-02,3,blue\n" })).await.ok(200);
    assert_eq!(
        by_words["columns"],
        json!([
        { "heading": "date", "column": "date" }, { "heading": "AMOUNT", "column": "amount" }, { "heading": "Colour", "column": null }])
    );
    assert_eq!(by_words["rows"], json!([{ "date": "2025-01-02", "amount": "3" }]));
}

#[tokio::test]
async fn what_is_no_table_is_refused_with_the_reason_and_nothing_is_stored() {
    let client = Client::signed_in("no_tables").await;
    let (id, path) = list(&client, "Pell-Achterberg", "Medical").await;
    let before = client.get(&format!("/api/households/{id}")).await.ok(200)["revision"].clone();
    for (text, says) in [
        ("PK\u{3}\u{4}\0\0xl/vbaProject.bin", "no CSV"),
        ("hello", "No heading"),
        ("%PDF-1.7\n\0\u{1}", "no CSV"),
    ] {
        let problem = client.post(&path, json!({ "text": text })).await.ok(422);
        assert!(problem["detail"].as_str().unwrap().contains(says), "{problem:#}");
    }
    let many = format!("date,amount\n{}", "2025-01-02,1\n".repeat(2_001));
    assert!(
        client.post(&path, json!({ "text": many })).await.ok(422)["detail"]
            .as_str()
            .unwrap()
            .contains("2000")
    );
    let huge = json!({ "text": format!("date,amount\n{}", "2025-01-02,1\n".repeat(2_400_000)) });
    client.post(&path, huge).await.ok(413);
    assert_eq!(client.get(&format!("/api/households/{id}")).await.ok(200)["revision"], before);
    client.post(&path.replace("medical", "t4-linus"), json!({ "text": "a,b" })).await.ok(404);
}

#[tokio::test]
async fn a_list_goes_out_and_comes_in_again_as_it_is() {
    let client = Client::signed_in("round").await;
    let (id, path) = list(&client, "Pell-Achterberg", "Medical").await;
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    let rows = opened["household"]["papers"]
        .as_array()
        .unwrap()
        .iter()
        .find(|p| p["kind"] == "Medical")
        .unwrap()["rows"]
        .clone();
    let out = client.send("GET", &path, Body::empty()).await;
    let read = client.post(&path, json!({ "text": out.body })).await.ok(200);
    let bare: Vec<Value> = rows
        .as_array()
        .unwrap()
        .iter()
        .cloned()
        .map(|mut row| {
            row.as_object_mut().unwrap().remove("id");
            row
        })
        .collect();
    assert_eq!((read["rows"].clone(), read["there"].as_u64()), (json!(bare), Some(bare.len() as u64)));
}
