//! Notes, lines ticked off, and the pack.

use crate::common::Client;
use axum::body::Body;
use hembo_server::demo;
use serde_json::{Value, json};

#[tokio::test]
async fn a_note_is_answered_settled_removed_and_brought_back() {
    let preparer = Client::signed_in("notes").await;
    let reviewer = preparer.other(demo::REVIEWER).await;
    let id = preparer.household("Fennimore").await;
    let path = format!("/api/households/{id}/notes");
    let place = json!({ "paper": "w2", "field": "1" });
    let new =
        json!({ "place": place, "about": "W-2, box 1", "words": " Is the bonus of June in it?\nAsk her. " });
    let notes = reviewer.post(&path, new).await.ok(200);
    let note = notes[0]["id"].as_str().unwrap().to_owned();
    assert_eq!(
        (&notes[0]["words"], &notes[0]["own"]),
        (&json!("Is the bonus of June in it?\nAsk her."), &json!(true))
    );
    let answer =
        json!({ "place": place, "about": "W-2, box 1", "words": "Yes, see line 3.", "answers": note });
    let notes = preparer.post(&path, answer).await.ok(200);
    assert_eq!((&notes[1]["answers"], &notes[0]["own"]), (&json!(note), &json!(false)));

    let one = format!("{path}/{note}");
    let notes = preparer.post(&one, json!({ "settled": true })).await.ok(200);
    assert_eq!(notes[0]["settled_by"], "N. Ostrava");
    assert_eq!(reviewer.post(&one, json!({ "settled": false })).await.ok(200)[0]["settled_by"], Value::Null);
    // Only who wrote it removes it, and can bring it back.
    preparer.post(&one, json!({ "removed": true })).await.ok(404);
    assert_eq!(reviewer.post(&one, json!({ "removed": true })).await.ok(200).as_array().unwrap().len(), 1);
    assert_eq!(reviewer.post(&one, json!({ "removed": false })).await.ok(200).as_array().unwrap().len(), 2);

    for wrong in [
        json!({ "about": "x", "words": "  " }),
        json!({ "about": "x", "words": "y".repeat(4001) }),
        json!({ "about": "", "words": "y" }),
        json!({ "about": "x", "words": "bell\u{7}" }),
        json!({ "about": "x", "words": "y", "place": { "paper": "p".repeat(201) } }),
    ] {
        preparer.post(&path, wrong).await.ok(422);
    }
    let nobody = json!({ "about": "x", "words": "y", "answers": "00000000-0000-0000-0000-000000000000" });
    preparer.post(&path, nobody).await.ok(404);
}

#[tokio::test]
async fn lines_are_ticked_at_their_amounts_all_or_none() {
    let client = Client::signed_in("ticks").await;
    let id = client.household("Fennimore").await;
    let path = format!("/api/households/{id}/ticks");
    let line = |line: &str, amount: &str| json!({ "line": line, "scope": "return/0", "amount": amount });
    let both = json!({ "lines": [line("us.1a", "64310"), line("us.agi", "-3.50")], "right": true });
    assert_eq!(client.put(&path, both).await.ok(200).as_array().unwrap().len(), 2);
    // Ticked again at another amount: one tick stands.
    let again = json!({ "lines": [line("us.1a", "64320")], "right": true });
    let ticks = client.put(&path, again).await.ok(200);
    let of = |ticks: &Value, line: &str| {
        ticks.as_array().unwrap().iter().find(|t| t["line"] == line).map(|t| t["amount"].clone())
    };
    assert_eq!((of(&ticks, "us.1a"), of(&ticks, "us.agi")), (Some(json!("64320.00")), Some(json!("-3.50"))));
    let twice = json!({ "lines": [line("us.1a", "1"), line("us.1a", "2")], "right": true });
    client.put(&path, twice).await.ok(422);
    let back = json!({ "lines": [line("us.1a", "0"), line("us.agi", "0")], "right": false });
    assert_eq!(client.put(&path, back).await.ok(200), json!([]));
    client
        .put(
            "/api/households/00000000-0000-0000-0000-000000000000/ticks",
            json!({ "lines": [], "right": true }),
        )
        .await
        .ok(404);

    // Many at once: no tick is lost, none stands twice.
    let all: Vec<_> = (0..20)
        .map(|i| {
            let (client, path) = (client.clone(), path.clone());
            let body = json!({ "lines": [line("us.1a", &i.to_string()), line(&format!("us.{i}"), "1")], "right": true });
            tokio::spawn(async move { client.put(&path, body).await.status })
        })
        .collect();
    for one in all {
        assert_eq!(one.await.unwrap(), 200);
    }
    assert_eq!(client.get(&path).await.ok(200).as_array().unwrap().len(), 21);
}

#[tokio::test]
async fn a_pack_is_made_kept_and_fetched_again() {
    let client = Client::signed_in("packs").await;
    let id = client.household("Fennimore").await;
    let path = format!("/api/households/{id}/packs");
    let before = client.get(&path).await.ok(200);
    assert_eq!((&before["made"], &before["sets"][0]["name"]), (&json!([]), &json!("For the family")));
    let make = |base: i64, parts: Value| json!({ "base_revision": base, "parts": parts });
    client.post(&path, make(1, json!([]))).await.ok(422);
    client.post(&path, make(1, json!(["summary", "summary"]))).await.ok(422);
    client.post(&path, make(1, json!(["everything"]))).await.ok(422);
    assert_eq!(client.post(&path, make(9, json!(["summary"]))).await.ok(409)["type"], "urn:hembo:moved");
    let packs = client.post(&path, make(1, json!(["forms", "summary"]))).await.ok(201);
    let made = &packs["made"][0];
    assert_eq!(
        (&made["parts"], &made["revision"], &made["unsettled"]),
        (&json!(["forms", "summary"]), &json!(1), &json!(false))
    );

    let file = format!("{path}/{}", made["id"].as_str().unwrap());
    let answer = client.get(&file).await;
    assert_eq!(answer.headers["content-type"], "application/pdf");
    assert!(answer.ok(200).as_str().unwrap().starts_with("%PDF-"));
    // It stays as it was made, and is not another household's.
    client.edit(&id, 1, json!([{ "do": "rename", "name": "Fennimore-Quay" }])).await.ok(200);
    client.get(&file).await.ok(200);
    let other = client.household("Pellerin").await;
    client.get(&file.replace(&id, &other)).await.ok(404);
}

#[tokio::test]
async fn a_part_is_looked_at_and_numbers_stay_hidden() {
    let client = Client::signed_in("pack_part").await;
    let id = client.household("Vreeland-Mbeki").await;
    let summary = client.get(&format!("/api/households/{id}/pack-part?part=summary")).await.ok(200);
    assert!(summary[0]["of"][1]["words"].as_str().unwrap().starts_with("$\u{a0}"), "{summary}");
    client.get(&format!("/api/households/{id}/pack-part?part=nothing")).await.ok(400);
    let household = client.get(&format!("/api/households/{id}/file")).await.ok(200);
    let numbers: Vec<String> = household["people"]
        .as_array()
        .unwrap()
        .iter()
        .filter_map(|person| Some(person["id_number"].as_str()?.to_owned()))
        .collect();
    assert!(!numbers.is_empty());
    for part in [
        "summary",
        "forms",
        "ways",
        "certificate",
        "limits",
        "papers",
        "carried",
        "letter",
        "worksheets",
        "points",
        "notes",
    ] {
        let told =
            client.get(&format!("/api/households/{id}/pack-part?part={part}")).await.ok(200).to_string();
        assert!(numbers.iter().all(|number| !told.contains(number)), "{part}");
    }
}

/// What was weighed in words, and the file that is verified without the server: other facts, another digest.
#[tokio::test]
async fn a_result_is_certified() {
    let client = Client::signed_in("certificate").await;
    let id = client.household("Vreeland-Mbeki").await;
    let certificate = async || client.get(&format!("/api/households/{id}/certificate")).await.ok(200);
    let first = certificate().await;
    let said = |about: &str| {
        let all = first["statements"].as_array().unwrap();
        all.iter().find(|one| one["about"] == about).unwrap()["words"].as_str().unwrap().to_owned()
    };
    assert_eq!(
        said("The result"),
        "Total tax 11,141 (Joint · itemized) for 2025: the lowest lawful tax of the year."
    );
    assert!(said("What was weighed").starts_with("23 ways are lawful; every one was weighed"));
    let barred = first["barred"].as_array().unwrap();
    assert!(barred.iter().any(|one| one["why"] == "lived together after June"), "{barred:?}");
    let file = client.get(&format!("/api/households/{id}/certificate/file")).await.ok(200);
    let sealed: hembo_core::certificate::Sealed = serde_json::from_value(file).unwrap();
    assert_eq!(sealed.digest, first["digest"].as_str().unwrap());
    assert_eq!(sealed.digest, sealed.certified.digest());

    // Held otherwise it costs more, and says so; the practice's own marks change nothing of it.
    let pin = json!([{ "do": "pin", "decision": "us.status", "option": "separate" }]);
    client.edit(&id, 1, pin).await.ok(200);
    let held = certificate().await;
    assert_ne!(held["digest"], first["digest"]);
    let words = held["statements"].to_string();
    assert!(words.contains("Without it the lowest is 11,141, 1,065 less."), "{words}");
    let let_go = json!([{ "do": "pin", "decision": "us.status", "option": null }]);
    client.edit(&id, 2, let_go).await.ok(200);
    assert_eq!(certificate().await["digest"], first["digest"]);
}

#[tokio::test]
async fn choices_of_parts_are_kept_under_a_name_and_let_go() {
    let client = Client::signed_in("pack_sets").await;
    let id = client.household("Fennimore").await;
    let sets = async || client.get(&format!("/api/households/{id}/packs")).await.ok(200)["sets"].clone();
    client.put("/api/pack-sets", json!({ "name": " ", "parts": ["forms"] })).await.ok(422);
    client.put("/api/pack-sets", json!({ "name": "For court", "parts": ["forms"] })).await.ok(204);
    client.put("/api/pack-sets", json!({ "name": "For court", "parts": ["papers", "forms"] })).await.ok(204);
    let kept = sets().await;
    let court = kept.as_array().unwrap().iter().find(|set| set["name"] == "For court").unwrap();
    assert_eq!(court["parts"], json!(["papers", "forms"]));
    let path = format!("/api/pack-sets/{}", court["id"].as_str().unwrap());
    client.send("DELETE", &path, Body::empty()).await.ok(204);
    client.delete(&path).await.ok(404);
    assert_eq!(sets().await.as_array().unwrap().len(), 3);
}

#[tokio::test]
async fn a_letter_is_made_edited_and_written_and_tells_what_changed_since() {
    let client = Client::signed_in("letters").await;
    let other = client.other(demo::OFFICE).await;
    let id = client.household("Vreeland-Mbeki").await;
    let path = format!("/api/households/{id}/letter");
    let opened = client.get(&path).await.ok(200);
    assert_eq!(
        (&opened["letter"], &opened["templates"][0]["name"]),
        (&Value::Null, &json!("Covering letter"))
    );
    client.get(&format!("{path}.pdf")).await.ok(404);
    let template = opened["templates"][0]["id"].clone();
    let made = client.post(&path, json!({ "template": template, "base_version": 0 })).await.ok(200);
    assert_eq!(made["letter"]["version"], 1);
    let body = made["letter"]["body"].clone();
    let told = body.to_string();
    assert!(told.contains("Dear Tamsin and Osric,") && told.contains(r#"{"name":"tax"}"#), "{told}");

    // Two edit at once: one is kept, the other is told.
    let keep = |base: i64, body: Value| json!({ "base_version": base, "revision": 1, "body": body });
    client.put(&path, keep(1, body.clone())).await.ok(200);
    let refused = other.put(&path, keep(1, body.clone())).await.ok(409);
    assert!(refused["detail"].as_str().unwrap().contains("N. Ostrava"), "{refused}");
    assert_eq!(other.put(&path, keep(2, body.clone())).await.ok(200)["letter"]["by"], "K. Ravndal");
    client.put(&path, keep(3, json!({ "type": "doc", "content": [{ "type": "image" }] }))).await.ok(422);

    // A figure that moves is another one than that in the letter.
    let commands = json!([{ "do": "pin", "decision": "us.deduction", "option": "standard" }]);
    client.edit(&id, 1, commands).await.ok(200);
    let now = client.get(&path).await.ok(200);
    let told = now["letter"]["body"].to_string();
    assert!(!told.contains(now["figures"]["tax"].as_str().unwrap()), "{}", now["figures"]);
    let pdf = client.get(&format!("{path}.pdf")).await;
    assert_eq!(pdf.headers["content-type"], "application/pdf");
    assert!(client.get(&format!("{path}.docx")).await.ok(200).as_str().unwrap().starts_with("PK"));
    // It is a part of the pack.
    let part = client.get(&format!("/api/households/{id}/pack-part?part=letter")).await.ok(200);
    assert_eq!(part[1]["of"], "Your 2025 return");
}

#[tokio::test]
async fn a_template_that_cannot_be_merged_is_refused_with_its_line() {
    let client = Client::signed_in("templates").await;
    let id = client.household("Fennimore").await;
    let keep = |name: &str, body: &str| json!({ "name": name, "body": body, "try_with": id });
    let refused = client.put("/api/letter-templates", keep("Mine", "Dear\n\n{{ taxx }}")).await.ok(422);
    assert_eq!(refused["faults"][0]["at"], "line 3");
    client.put("/api/letter-templates", keep(" ", "x")).await.ok(422);
    client.put("/api/letter-templates", keep("Mine", " ")).await.ok(422);
    client.put("/api/letter-templates", keep("Mine", "Dear {{ names }},")).await.ok(204);
    let opened = client.get(&format!("/api/households/{id}/letter")).await.ok(200);
    let mine = opened["templates"].as_array().unwrap().iter().find(|t| t["name"] == "Mine").unwrap().clone();
    let wanted = json!({ "template": mine["id"], "base_version": 0 });
    let made = client.post(&format!("/api/households/{id}/letter"), wanted).await.ok(200);
    assert!(made["letter"]["body"].to_string().contains("Dear Delphine"));
    client.delete(&format!("/api/letter-templates/{}", mine["id"].as_str().unwrap())).await.ok(204);
}

/// A letter keeps the language of its template: its amounts and days, and the figures that it is compared with.
#[tokio::test]
async fn a_letter_is_written_in_the_language_of_its_template() {
    let client = Client::signed_in("languages").await;
    let id = client.household("Fennimore").await;
    let path = format!("/api/households/{id}/letter");
    let body = "{{ today }}\n\nPaid {{ paid }}, {{ tax }}.";
    let keep = |language: &str| json!({ "name": "Mine", "body": body, "language": language, "try_with": id });
    client.put("/api/letter-templates", keep("xx")).await.ok(422);
    client.put("/api/letter-templates", keep("fr")).await.ok(204);
    let opened = client.get(&path).await.ok(200);
    assert_eq!(opened["languages"], json!(["en", "es", "fr", "de", "af"]));
    let templates = opened["templates"].as_array().unwrap().clone();
    assert_eq!(templates[0]["language"], "en");
    let wanted = |name: &str| templates.iter().find(|t| t["name"] == name).unwrap()["id"].clone();
    let make = |name: &str, base: i64| json!({ "template": wanted(name), "base_version": base });
    let tax = opened["figures"]["tax"].as_str().unwrap();
    let made = client.post(&path, make("Mine", 0)).await.ok(200);
    let french = made["figures"]["tax"].as_str().unwrap();
    assert!(french.ends_with("\u{a0}$") && french != tax, "{french} {tax}");
    let text = made["letter"]["body"].to_string();
    assert!(text.contains(french), "{text}");
    // Edited, it stays in its language.
    let edited = json!({ "base_version": 1, "revision": 1, "body": made["letter"]["body"] });
    assert_eq!(client.put(&path, edited).await.ok(200)["figures"]["tax"], french);
    let ours = ["Lettre d'accompagnement", "Begleitschreiben", "Carta de presentación", "Dekbrief"];
    for (name, base) in ours.into_iter().zip(2..) {
        let made = client.post(&path, make(name, base)).await.ok(200);
        let (body, figure) =
            (made["letter"]["body"].to_string(), made["figures"]["balance"].as_str().unwrap());
        assert!(body.contains(figure), "{name}: {body}");
    }
}
