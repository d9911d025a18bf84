//! The API against a real PostgreSQL.

use crate::common::Client;
use axum::body::Body;
use serde_json::{Value, json};

#[tokio::test]
async fn only_the_right_password_signs_in_and_tries_are_limited() {
    let mut client = Client::new("sign_in").await;
    assert_eq!(client.get("/api/session").await.ok(401)["type"], "urn:hembo:signed-out");
    assert_eq!(client.get("/api/households").await.ok(401)["title"], "Not signed in");
    assert_eq!(client.sign_in("wrong").await.ok(401)["type"], "urn:hembo:refused");
    let answer = client.sign_in(hembo_server::demo::PASSWORD).await;
    let cookie = answer.headers["set-cookie"].to_str().unwrap().to_owned();
    assert!(cookie.contains("HttpOnly") && cookie.contains("SameSite=Strict"), "{cookie}");
    assert_eq!(answer.ok(200)["role"], "preparer");
    assert_eq!(client.get("/api/session").await.ok(200)["name"], "N. Ostrava");

    assert_eq!(client.without_token().delete("/api/session").await.ok(403)["type"], "urn:hembo:forged");
    client.delete("/api/session").await.ok(204);
    client.get("/api/session").await.ok(401);

    let mut refused = 0;
    for _ in 0..14 {
        refused += u32::from(client.sign_in("wrong").await.status == 429);
    }
    assert!(refused > 0, "sign-in is not limited");
}

#[tokio::test]
async fn every_answer_carries_security_headers() {
    let client = Client::new("headers").await;
    for path in ["/", "/api/session", "/api/health", "/h/anything/spread"] {
        let headers = client.get(path).await.headers;
        let policy = headers["content-security-policy"].to_str().unwrap();
        assert!(policy.contains("default-src 'none'") && !policy.contains("unsafe-eval"));
        assert_eq!(headers["x-content-type-options"], "nosniff");
        assert!(headers.contains_key("x-request-id"));
    }
    assert_eq!(client.get("/api/health").await.ok(200), "ok");
    assert_eq!(client.get("/api/nothing").await.ok(404)["type"], "urn:hembo:not-found");
    assert!(client.get("/h/anything/spread").await.ok(200).as_str().unwrap().contains("site"));
}

#[tokio::test]
async fn a_household_is_made_edited_undone_and_redone() {
    let client = Client::signed_in("edit").await;
    let new = json!({ "name": "Marsh", "country": "us", "year": 2025, "filers": [{ "name": "Kit Marsh", "born": "1990-01-01" }] });
    let id = client.post("/api/households", new).await.ok(201)["id"].as_str().unwrap().to_owned();
    let paper = json!({ "id": "w2", "kind": "W-2", "owners": [{ "person": "filer1", "percent": "100" }] });
    let opened = client.edit(&id, 1, json!([{ "do": "add_paper", "paper": paper }])).await.ok(200);
    assert_eq!((&opened["revision"], &opened["outcome"]["total"]), (&json!(2), &json!("0.00")));
    let wages = |amount: &str| json!([{ "do": "set_box", "paper": "w2", "field": "1", "value": amount }]);
    // 60,000 − 15,750 = 44,250: 1,192.50 + 12 % × (44,275 − 11,925).
    let opened = client.edit(&id, 2, wages("60000")).await.ok(200);
    assert_eq!(opened["outcome"]["total"], "5075.00");
    client.edit(&id, 3, wages("70000")).await.ok(200);

    let step = async |what: &str, base: i64| {
        client.post(&format!("/api/households/{id}/{what}"), json!({ "base_revision": base })).await
    };
    let box_1 = |opened: &Value| opened["household"]["papers"][0]["boxes"]["1"].clone();
    assert_eq!(box_1(&step("undo", 4).await.ok(200)), "60000");
    assert_eq!(box_1(&step("undo", 5).await.ok(200)), Value::Null);
    assert_eq!(step("undo", 6).await.ok(200)["household"]["papers"], json!([]));
    assert_eq!(step("undo", 7).await.ok(409)["type"], "urn:hembo:nothing");
    for (base, expected) in [(7, Value::Null), (8, json!("60000")), (9, json!("70000"))] {
        assert_eq!(box_1(&step("redo", base).await.ok(200)), expected);
    }
    assert_eq!(step("redo", 10).await.ok(409)["type"], "urn:hembo:nothing");
    // Undo, then another edit: the redo is gone, undo leads back through it.
    step("undo", 10).await.ok(200);
    let opened = client.edit(&id, 11, wages("65000")).await.ok(200);
    assert_eq!((&opened["can_redo"], &opened["can_undo"]), (&json!(false), &json!(true)));
    assert_eq!(box_1(&step("undo", 12).await.ok(200)), "60000");

    let history = client.get(&format!("/api/households/{id}/history")).await.ok(200);
    let kinds: Vec<_> = history.as_array().unwrap().iter().map(|e| e["kind"].as_str().unwrap()).collect();
    let oldest: Vec<_> = kinds.iter().rev().take(5).copied().collect();
    assert_eq!(oldest, ["created", "edited", "edited", "edited", "undone"]);
    let third = &history[kinds.len() - 3];
    assert_eq!(third["what"][0], "Box 1 of W-2: 60,000");
    assert_eq!((&third["by"], &third["revision"]), (&json!("N. Ostrava"), &json!(3)));
    assert_eq!(history[kinds.len() - 5]["what"], json!(["Box 1 of W-2: 60,000 → 70,000"]));
}

#[tokio::test]
async fn a_stale_edit_is_refused_with_what_changed() {
    let client = Client::signed_in("stale").await;
    let id = client.household("Fennimore").await;
    let rename = |name: &str| json!([{ "do": "rename", "name": name }]);
    client.edit(&id, 1, rename("Fennimore-Quay")).await.ok(200);
    let refused = client.edit(&id, 1, rename("Other")).await.ok(409);
    assert_eq!((&refused["type"], &refused["revision"]), (&json!("urn:hembo:conflict"), &json!(2)));
    let what = "N. Ostrava: Name of the household: Fennimore → Fennimore-Quay";
    assert_eq!(refused["changed"], json!([what]));
    let conflict = &refused["conflicts"][0];
    assert_eq!((&conflict["theirs"], &conflict["mine"]), (&json!("Fennimore-Quay"), &json!("Other")));
    assert_eq!(conflict["place"]["field"], "name");
    client.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 1 })).await.ok(409);
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!((&opened["household"]["name"], &opened["revision"]), (&json!("Fennimore-Quay"), &json!(2)));

    // Of many edits against one revision exactly one is stored.
    let edits: Vec<_> = (0..8)
        .map(|i| {
            let (client, id, name) = (client.clone(), id.clone(), format!("Racer {i}"));
            tokio::spawn(async move {
                client.edit(&id, 2, json!([{ "do": "rename", "name": name }])).await.status
            })
        })
        .collect();
    let mut stored = 0;
    for edit in edits {
        stored += u32::from(edit.await.unwrap() == 200);
    }
    assert_eq!(stored, 1);
}

#[tokio::test]
async fn what_cannot_be_right_changes_nothing() {
    let client = Client::signed_in("bad").await;
    let id = client.household("Fennimore").await;
    let set =
        |field: &str, value: Value| json!({ "do": "set_box", "paper": "w2", "field": field, "value": value });
    let owners = json!([{ "person": "delphine", "percent": "60" }]);
    let cases = [
        (set("1", json!("-5")), "/papers/0/boxes/1", "negative"),
        (set("1", json!("9999999999999")), "/papers/0/boxes/1", "exceed"),
        (set("99", json!("5")), "/papers/0/boxes/99", "no box"),
        (json!({ "do": "set_paper", "paper": "w2", "owners": owners }), "/papers/0/owners", "60 %"),
        (
            json!({ "do": "set_person", "person": "delphine", "id_number": "123" }),
            "/people/0/id_number",
            "nine digits",
        ),
        (
            json!({ "do": "set_person", "person": "delphine", "role": "dependent" }),
            "/people",
            "one or two filers",
        ),
        (
            json!({ "do": "set_person", "person": "asa", "born": "2031-01-01" }),
            "/people/1/born",
            "after the return year",
        ),
        (json!({ "do": "set_person", "person": "asa", "born": "2025-02-30" }), "/people", "is not a day"),
        (json!({ "do": "pin", "decision": "us.colour", "option": "red" }), "/pins/us.colour", "no decision"),
        (
            json!({ "do": "pin", "decision": "us.deduction", "option": "both" }),
            "/pins/us.deduction",
            "no option",
        ),
        (
            json!({ "do": "pin", "decision": "us.status", "option": "single" }),
            "/pins/us.status",
            "not lawful",
        ),
        (json!({ "do": "remove_person", "person": "delphine" }), "/people", "still owns 4 papers"),
    ];
    for (command, at, words) in cases {
        // A good command before the bad one is not stored either.
        let problem = client.edit(&id, 1, json!([{ "do": "rename", "name": "Half" }, command])).await.ok(422);
        let fault = &problem["faults"][0];
        assert_eq!(fault["at"], at, "{problem:#}");
        assert!(fault["message"].as_str().unwrap().contains(words), "{problem:#}");
    }
    for body in ["", "{", "[]", r#"{"base_revision":1,"commands":[{"do":"explode"}]}"#] {
        let answer = client.send("POST", &format!("/api/households/{id}/edits"), Body::from(body)).await;
        assert!(
            answer.status.is_client_error() && answer.headers["content-type"] == "application/problem+json",
            "{body}"
        );
    }
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!((&opened["revision"], &opened["household"]["name"]), (&json!(1), &json!("Fennimore")));
    assert_eq!(
        client.get("/api/households/00000000-0000-4000-8000-000000000000").await.ok(404)["type"],
        "urn:hembo:not-found"
    );
}

#[tokio::test]
async fn bad_imports_are_refused_at_their_place() {
    let client = Client::signed_in("import").await;
    let before = client.count().await;
    let import = async |body: Body| client.send("POST", "/api/households/import", body).await;
    let syntax = import(Body::from("{\n \"hembo\": 1,\n !")).await.ok(422);
    assert_eq!(syntax["faults"][0]["at"], "line 3 column 2");
    let mut file =
        client.get(&format!("/api/households/{}/file", client.household("Fennimore").await)).await.ok(200);
    file["papers"][0]["kind"] = json!("W-3");
    let kind = import(Body::from(file.to_string())).await.ok(422);
    assert_eq!(
        kind["faults"][0],
        json!({ "at": "/papers/0/kind", "message": "There is no kind of paper 'W-3'." })
    );
    let huge = import(Body::from(vec![b' '; 100_000_000])).await.ok(413);
    assert!(huge["detail"].as_str().unwrap().contains("at most 4194304 bytes"));
    let new = json!({ "name": "X", "country": "us", "year": 2025, "filers": [] });
    assert_eq!(client.post("/api/households", new).await.ok(422)["faults"][0]["at"], "/people");
    let new = json!({ "name": "X", "country": "xx", "year": 2025, "filers": [{ "name": "Y" }] });
    assert_eq!(client.post("/api/households", new).await.ok(422)["faults"][0]["at"], "/country");
    assert_eq!(client.count().await, before);
}

#[tokio::test]
async fn a_file_goes_out_and_comes_in_as_it_was() {
    let client = Client::signed_in("file").await;
    let id = client.household("Vreeland-Mbeki").await;
    let answer = client.get(&format!("/api/households/{id}/file")).await;
    assert_eq!(answer.headers["content-disposition"], "attachment; filename=\"vreeland-mbeki-2025.json\"");
    let file = answer.ok(200);
    assert_eq!(file["people"][0]["id_number"], "811-34-2207");
    let made = client.send("POST", "/api/households/import", Body::from(file.to_string())).await.ok(201);
    let copy = made["id"].as_str().unwrap();
    // It is told apart from the one that is there; the rest is the same.
    let mut again = client.get(&format!("/api/households/{copy}/file")).await.ok(200);
    assert_eq!(again["name"], "Vreeland-Mbeki (imported)");
    again["name"] = file["name"].clone();
    assert_eq!(again, file);
    let without = client.get(&format!("/api/households/{id}/file?numbers=false")).await.ok(200);
    assert!(without["people"][0].get("id_number").is_none() && !without.to_string().contains("811-34-2207"));
    let demo = format!("{}/../../demo/us/vreeland-mbeki.json", env!("CARGO_MANIFEST_DIR"));
    let original: Value = serde_json::from_slice(&std::fs::read(demo).unwrap()).unwrap();
    assert_eq!(file, original);
}

#[tokio::test]
async fn numbers_are_sealed_masked_and_every_reveal_is_noted() {
    let client = Client::signed_in("seal").await;
    let id = client.household("Fennimore").await;
    let set = json!([{ "do": "set_person", "person": "asa", "id_number": "834-74-9921" }]);
    let opened = client.edit(&id, 1, set).await.ok(200);
    assert_eq!(opened["household"]["people"][1]["id_number"], "•••-••-9921");
    let stored: Vec<Value> = sqlx::query_scalar("select to_jsonb(r) from revisions r")
        .fetch_all(&client.app.database)
        .await
        .unwrap();
    let text = Value::from(stored).to_string();
    assert!(
        !text.contains("74-9921") && !text.contains("832-74-") && text.contains("sealed:"),
        "a number is stored in the open"
    );
    let reveal = async |place: Value| client.post(&format!("/api/households/{id}/reveal"), place).await;
    assert_eq!(reveal(json!({ "person": "asa" })).await.ok(200)["text"], "834-74-9921");
    client.get(&format!("/api/households/{id}/file")).await.ok(200);
    let noted: Vec<Option<String>> = sqlx::query_scalar("select person from reveals order by id")
        .fetch_all(&client.app.database)
        .await
        .unwrap();
    assert_eq!(noted, [Some("asa".to_owned()), None]);
    // A sealed number moved to another person cannot be opened there.
    let moved = "update revisions set state = jsonb_set(state, '{people,0,id_number}', state #> '{people,1,id_number}') \
        where state #> '{people,1,id_number}' is not null";
    sqlx::query(moved).execute(&client.app.database).await.unwrap();
    client.get(&format!("/api/households/{id}")).await.ok(500);
}

/// A household is made whole: its filers, its dependents with their relationship, the part of the country.
#[tokio::test]
async fn a_household_is_made_with_its_people() {
    let client = Client::signed_in("found_people").await;
    let new = |born: &str, relationship: &str, locality: &str| {
        json!({
            "name": "Plover", "country": "us", "year": 2025, "locality": locality,
            "filers": [{ "name": "Nell Plover", "born": "1984-04-04" }],
            "dependents": [{ "name": "Tarn Plover", "born": born, "relationship": relationship }, { "name": "Ash Plover" }],
        })
    };
    let made = client.post("/api/households", new("2014-05-03", "child", "OR")).await.ok(201);
    let opened = client.get(&format!("/api/households/{}", made["id"].as_str().unwrap())).await.ok(200);
    let household = &opened["household"];
    let people: Vec<_> =
        household["people"].as_array().unwrap().iter().map(|p| (&p["role"], &p["born"])).collect();
    assert_eq!(
        people,
        [
            (&json!("filer"), &json!("1984-04-04")),
            (&json!("dependent"), &json!("2014-05-03")),
            (&json!("dependent"), &Value::Null),
        ]
    );
    assert_eq!(
        (&household["answers"]["state"], &household["people"][1]["answers"]["relationship"]),
        (&json!("OR"), &json!("child"))
    );
    for (bad, at) in [
        (new("2014-15-03", "child", "OR"), "/people/1/born"),
        (new("2014-05-03", "cousin of sorts", "OR"), "/people/1/answers/relationship"),
        (new("2014-05-03", "child", "ZZ"), "/answers/state"),
    ] {
        assert_eq!(client.post("/api/households", bad).await.ok(422)["faults"][0]["at"], at);
    }
}

/// The list shows a law, a year, what is held up; counted the same way.
#[tokio::test]
async fn the_list_is_narrowed() {
    let client = Client::signed_in("narrow").await;
    let all = client.get("/api/households").await.ok(200)["rows"].as_array().unwrap().clone();
    let blocked = |row: &Value| row["summary"]["blocking"].as_u64() > Some(0);
    let narrowed: [(&str, Box<dyn Fn(&Value) -> bool>); 5] = [
        ("country=ca", Box::new(|row| row["country"] == "ca")),
        ("year=2024", Box::new(|row| row["year"] == 2024)),
        ("held_up=true", Box::new(blocked)),
        ("held_up=false&year=2025", Box::new(move |row| !blocked(row) && row["year"] == 2025)),
        ("country=ca&year=2026", Box::new(|_| false)),
    ];
    for (query, is_wanted) in narrowed {
        let page = client.get(&format!("/api/households?{query}")).await.ok(200);
        let wanted: Vec<&Value> = all.iter().filter(|row| is_wanted(row)).collect();
        assert_eq!(page["rows"].as_array().unwrap().iter().collect::<Vec<_>>(), wanted, "{query}");
        assert_eq!(
            (page["count"].as_u64(), wanted.len() < all.len()),
            (Some(wanted.len() as u64), true),
            "{query}"
        );
    }
    client.get("/api/households?year=soon").await.ok(400);
}

/// One action makes next year's household, once however often and by how many it is asked for; numbers stay sealed.
#[tokio::test]
async fn a_household_is_carried_forward_once() {
    let client = Client::signed_in("forward").await;
    let id = client.household("Pellerin").await;
    let path = format!("/api/households/{id}/carry-forward");
    let (one, other) = tokio::join!(client.post(&path, json!({})), client.post(&path, json!({})));
    let mut made = [one.body, other.body];
    made.sort_by_key(|carried| carried["made"] == json!(false));
    assert_eq!((&made[0]["made"], &made[1]["made"]), (&json!(true), &json!(false)));
    assert_eq!((&made[0]["id"], &made[0]["year"]), (&made[1]["id"], &json!(2025)));
    let next = made[0]["id"].as_str().unwrap();
    let opened = client.get(&format!("/api/households/{next}")).await.ok(200);
    assert_eq!(opened["household"]["before"]["year"], json!(2024));
    let history = client.get(&format!("/api/households/{next}/history")).await.ok(200);
    assert_eq!(history[0]["kind"], "carried");
    let [of_id, of_next] = [id.as_str(), next].map(|of| format!("/api/households/{of}/years"));
    assert_eq!(client.get(&of_id).await.ok(200), json!({ "before": null, "after": next }));
    assert_eq!(client.get(&of_next).await.ok(200), json!({ "before": id, "after": null }));
    // The next but one has no figures of a year that is over or planned; a deleted one may be made again.
    let twice = client.post(&format!("/api/households/{next}/carry-forward"), json!({})).await.ok(201);
    let twice = twice["id"].as_str().unwrap();
    let refused = client.post(&format!("/api/households/{twice}/carry-forward"), json!({})).await.ok(422);
    assert_eq!(refused["faults"][0]["at"], "/year");
    client.delete(&format!("/api/households/{next}")).await.ok(204);
    let again = client.post(&path, json!({})).await.ok(201);
    assert_ne!(again["id"], json!(next));
    client
        .post("/api/households/00000000-0000-4000-8000-000000000000/carry-forward", json!({}))
        .await
        .ok(404);
}

#[tokio::test]
async fn households_are_listed_copied_deleted_and_brought_back() {
    let client = Client::signed_in("list").await;
    let id = client.household("Okonjo-Farrell").await;
    let list = client.get("/api/households").await.ok(200);
    let row = list["rows"].as_array().unwrap().iter().find(|h| h["id"] == json!(id)).unwrap().clone();
    let summary = &row["summary"];
    assert_eq!(
        (&summary["total"], &summary["saved"], &summary["locality"]),
        (&json!("14406.00"), &json!("1140.00"), &json!("Illinois"))
    );
    let copy = client.post(&format!("/api/households/{id}/copy"), json!({})).await.ok(201);
    let opened = client.get(&format!("/api/households/{}", copy["id"].as_str().unwrap())).await.ok(200);
    assert_eq!(
        (&opened["household"]["name"], &opened["outcome"]["total"]),
        (&json!("Okonjo-Farrell (copy)"), &json!("14406.00"))
    );
    client.delete(&format!("/api/households/{id}")).await.ok(204);
    for path in ["", "/history", "/file"] {
        let status = client.get(&format!("/api/households/{id}{path}")).await.status;
        assert!(status == 404 || path == "/history", "{path}");
    }
    client.delete(&format!("/api/households/{id}")).await.ok(404);
    let deleted = client.get("/api/households?deleted=true").await.ok(200)["rows"][0].clone();
    assert_eq!((&deleted["id"], &deleted["origin"]), (&json!(id), &json!("imported")));
    assert!(deleted["deleted_at"].is_string());
    client.post(&format!("/api/households/{id}/restore"), json!({})).await.ok(204);
    assert_eq!(client.get(&format!("/api/households/{id}")).await.ok(200)["revision"], 1);
}

#[tokio::test]
async fn a_paper_tells_its_effect_and_a_box_its_curve() {
    let client = Client::signed_in("effect").await;
    let id = client.household("Vreeland-Mbeki").await;
    let effect = client.get(&format!("/api/households/{id}/effect?paper=loan")).await.ok(200);
    assert_eq!(effect["way_without"]["name"], "Joint · standard");
    assert_eq!(effect["without"], "214.00");
    client.get(&format!("/api/households/{id}/effect?paper=none")).await.ok(404);
    // What may still be done, from the pack's advice; a law that advises nothing has an empty list.
    assert_eq!(client.get(&format!("/api/households/{id}/advice")).await.ok(200), json!([]));
    let other = client.household("Nortjie-Dube").await;
    let advice = client.get(&format!("/api/households/{other}/advice")).await.ok(200);
    assert!(advice.as_array().unwrap().iter().any(|one| one["what"] == "More into a retirement annuity"));
    let curve = client.get(&format!("/api/households/{id}/curve?paper=w2-tamsin&field=1")).await.ok(200);
    assert_eq!(curve["points"].as_array().unwrap().len(), 101);
    // Just below 65,819 the spouses' separate returns are lower; at 25,180 (an income of 25,501) a separate return loses
    // half of its saver's credit.
    let turns = curve["turns"].as_array().unwrap();
    assert_eq!(turns.iter().find(|t| t["to"] == "Jointly").unwrap()["amount"], "25180.00");
    let turn = turns.iter().rfind(|t| t["to"] == "Jointly").unwrap().clone();
    assert_eq!((&turn["decision"], &turn["amount"]), (&json!("us.status"), &json!("65819.00")));
    let asked = client.get(&format!("/api/households/{id}/questions?person=wren")).await.ok(200);
    let of = |field: &str| asked.as_array().unwrap().iter().find(|a| a["field"] == field).unwrap().clone();
    // A child of twelve is not asked for a joint return first; whether the number is valid for work decides 1,700.
    assert_eq!(of("files_joint")["decides"], false);
    assert_eq!(of("work_ssn")["answers"][1]["total"], "1700.00");
    let packs = client.get("/api/packs").await.ok(200);
    assert_eq!((&packs[0]["id"], &packs[0]["years"]), (&json!("us"), &json!([2026, 2025, 2024])));
    let figures = client.get("/api/packs/us/figures").await.ok(200);
    let standard = &figures["tables"][0];
    assert_eq!(
        standard["rows"][0],
        json!({ "id": "basic.single", "name": "basic, single", "values": ["16100", "15750", "14600"] })
    );
    assert_eq!(
        standard["used_for"],
        json!([
            "Who need not file",
            "Standard deduction",
            "Additional deductions",
            "Scholarship taken as income"
        ])
    );
    client.get("/api/packs/atlantis/figures").await.ok(404);
}

#[test]
fn the_committed_api_description_is_that_of_the_code() {
    let committed =
        std::fs::read_to_string(concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/openapi.json")).unwrap();
    assert_eq!(committed.trim(), hembo_server::openapi_json().trim(), "run cargo xtask api");
    let mut types = std::process::Command::new("node");
    types.current_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/../../web"));
    types.args([
        "node_modules/openapi-typescript/bin/cli.js",
        "openapi.json",
        "--check",
        "-o",
        "src/api/schema.d.ts",
    ]);
    assert!(types.output().unwrap().status.success(), "the types are stale: run cargo xtask api");
}

/// A reason is kept with what is held: in the outcome, the certificate and the history; let go it goes, undone it is back.
#[tokio::test]
async fn a_way_is_held_against_the_lowest_with_a_reason() {
    let client = Client::signed_in("reasons").await;
    let id = client.household("Marchbank-Oyelaran").await;
    let why = "They split as in the year before";
    let reason = json!({ "do": "give_reason", "decision": "ca.split.amount", "reason": format!(" {why} ") });
    let early = client.edit(&id, 1, json!([reason])).await.ok(422);
    assert_eq!(early["faults"][0]["at"], "/pin_reasons");
    let pin = json!({ "do": "pin", "decision": "ca.split.amount", "option": "40000" });
    let of = |opened: &Value| {
        let all = opened["outcome"]["decisions"].as_array().unwrap();
        all.iter().find(|one| one["id"] == "ca.split.amount").unwrap()["reason"].clone()
    };
    let held = client.edit(&id, 1, json!([pin, reason])).await.ok(200);
    assert_eq!(of(&held), why);
    let certificate = client.get(&format!("/api/households/{id}/certificate")).await.ok(200).to_string();
    assert!(certificate.contains(&format!("({why})")), "{certificate}");
    let history = client.get(&format!("/api/households/{id}/history")).await.ok(200).to_string();
    assert!(history.contains("Said why") && history.contains(why), "{history}");
    let free = json!([{ "do": "pin", "decision": "ca.split.amount", "option": null }]);
    assert_eq!(of(&client.edit(&id, 2, free).await.ok(200)), Value::Null);
    let back =
        client.post(&format!("/api/households/{id}/undo"), json!({ "base_revision": 3 })).await.ok(200);
    assert_eq!(of(&back), why);
}

#[tokio::test]
async fn an_amount_is_pinned_at_any_value_and_refused_beyond_its_range() {
    let client = Client::signed_in("amount").await;
    let id = client.household("Marchbank-Oyelaran").await;
    let pin = |option: Value| json!([{ "do": "pin", "decision": "ca.split.amount", "option": option }]);
    let amount = |opened: &Value| {
        let decisions = opened["outcome"]["decisions"].as_array().unwrap().clone();
        decisions.into_iter().find(|d| d["id"] == "ca.split.amount").unwrap()["amount"].clone()
    };
    let held = client.edit(&id, 1, pin(json!("40000"))).await.ok(200);
    assert_eq!((&amount(&held)["taken"], &amount(&held)["free"]), (&json!("40000.00"), &json!("39171.84")));
    for (wrong, words) in [
        ("70500.01", "an amount from 0 to 70,500 can"),
        ("-1", "an amount from 0 to 70,500 can"),
        ("half", "an amount is written as digits"),
    ] {
        let refused = client.edit(&id, 2, pin(json!(wrong))).await.ok(422);
        assert_eq!(refused["faults"][0]["at"], "/pins/ca.split.amount");
        assert!(refused["faults"][0]["message"].as_str().unwrap().contains(words), "{refused}");
    }
    let free = client.edit(&id, 2, pin(Value::Null)).await.ok(200);
    assert_eq!(
        (&free["outcome"]["total"], &amount(&free)["taken"]),
        (&json!("39171.84"), &json!("69494.00"))
    );
    // The kinks of the curve begin at nothing and end at the most.
    let revision = &free["revision"];
    let ways = client.get(&format!("/api/households/{id}/revisions/{revision}/ways")).await.ok(200);
    let split = ways["decisions"].as_array().unwrap().iter().find(|d| d["id"] == "ca.split.amount").unwrap();
    let curve = split["amount"]["curve"].as_array().unwrap().clone();
    assert_eq!((&curve[0]["amount"], &curve[0]["total"]), (&json!("0.00"), &json!("53138.58")));
    assert_eq!(curve.last().unwrap()["amount"], "70500.00");
}

#[tokio::test]
async fn what_is_not_covered_says_so_and_comes_to_no_tax() {
    let client = Client::signed_in("quebec").await;
    let id = client.household("Pell-Achterberg").await;
    let answer = json!([{ "do": "answer", "field": "province", "value": "QC" }]);
    let opened = client.edit(&id, 1, answer).await.ok(200);
    let outcome = &opened["outcome"];
    assert_eq!(outcome["covered"], false);
    let points = outcome["points"].as_array().unwrap();
    let told = |p: &Value| {
        p["message"].as_str().unwrap().contains("Quebec is not covered") && p["weight"] == "blocks"
    };
    assert!(points.iter().any(told));
    let lines = client.lines(&id, 2).await;
    assert!(lines.iter().any(|l| l["id"] == "ca.26000"));
    assert!(!lines.iter().any(|l| l["id"] == "ca.42900" || l["id"] == "ca.43500" || l["id"] == "ca.balance"));
}

#[tokio::test]
async fn trails_ways_and_forms_are_asked_for_when_they_are_opened() {
    let client = Client::signed_in("opened").await;
    let id = client.household("Vreeland-Mbeki").await;
    let opened = client.get(&format!("/api/households/{id}")).await.ok(200);
    for part in ["lines", "compared", "schedules"] {
        assert!(opened["outcome"].get(part).is_none(), "{part} was not asked for");
    }
    let at = |part: &str| format!("/api/households/{id}/revisions/1/{part}");
    let trail = client.get(&at("trail?line=us.12e&scopes=return/0")).await.ok(200);
    let ids: Vec<_> = trail.as_array().unwrap().iter().map(|l| l["id"].as_str().unwrap()).collect();
    assert!(
        ["us.12e", "us.sched_a.17", "us.sched_a.14", "us.14"].iter().all(|id| ids.contains(id)),
        "{ids:?}"
    );
    assert!(!ids.contains(&"us.1a"));
    let lines = client.lines(&id, 1).await;
    assert!(lines.len() > ids.len() && lines.iter().all(|l| l.get("inputs").is_none()));
    let ways = client.get(&at("ways")).await.ok(200);
    assert!(ways["compared"]["rows"].as_array().unwrap().len() > 2);
    let beside = |ways: &str| at(&format!("ways/beside?ways={ways}&all_rows=true"));
    let chosen =
        client.get(&beside("us.deduction=standard,us.status=joint;us.status=separate")).await.ok(200);
    let standings: Vec<_> = chosen["ways"].as_array().unwrap().iter().map(|way| &way["standing"]).collect();
    assert_eq!(standings, ["lowest", "beside", "beside"]);
    assert_eq!(chosen["ways"][1]["more"], "214.00");
    assert!(chosen["rows"].as_array().unwrap().len() > ways["compared"]["rows"].as_array().unwrap().len());
    let forms = client.get(&at("schedules")).await.ok(200);
    assert_eq!(forms[0]["forms"][0]["name"], "Form 1040");

    // An earlier revision keeps its own; one that is not there has none.
    let pin = json!([{ "do": "pin", "decision": "us.deduction", "option": "standard" }]);
    client.edit(&id, 1, pin).await.ok(200);
    let chosen = |lines: &[Value]| lines.iter().find(|l| l["id"] == "us.12e").unwrap()["amount"].clone();
    assert_ne!(chosen(&client.lines(&id, 1).await), chosen(&client.lines(&id, 2).await));
    assert_eq!(client.get(&at("trail")).await.status, 400);
    let missing = format!("/api/households/{id}/revisions/9/lines");
    assert_eq!(client.get(&missing).await.ok(404)["type"], "urn:hembo:not-found");

    // Of a deleted household nothing is told, though its lines are still at hand.
    client.delete(&format!("/api/households/{id}")).await.ok(204);
    for part in ["lines", "trail?line=us.12e&scopes=return/0", "ways", "schedules"] {
        assert_eq!(client.get(&at(part)).await.status, 404, "{part}");
    }
}
