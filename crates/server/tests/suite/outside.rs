//! What the authority holds: consent, fetching, and settling what is offered.

use crate::common::Client;
use hembo_authority::wire::{Fault, TryFault};
use hembo_server::demo;
use serde_json::{Value, json};

/// A consent of these people until a day far ahead.
fn consent(people: &[&str]) -> Value {
    json!({ "people": people, "scope": ["papers", "filing"], "until": "2099-12-31" })
}

struct Family {
    client: Client,
    id: String,
    authority: String,
}

impl Family {
    async fn of(test: &str, name: &str) -> Family {
        let (client, authority) = Client::with_authority(test).await;
        let id = client.household(name).await;
        Family { client, id, authority }
    }

    fn at(&self, path: &str) -> String {
        format!("/api/households/{}/{path}", self.id)
    }

    async fn consents(&self, people: &[&str]) -> Value {
        self.client.post(&self.at("consents"), consent(people)).await.ok(200)
    }

    async fn fetch(&self) -> Value {
        self.client.post(&self.at("fetches"), json!({})).await.ok(200)
    }

    async fn opened(&self) -> Value {
        self.client.get(&format!("/api/households/{}", self.id)).await.ok(200)
    }

    async fn settle(&self, slips: &[&str], how: &str, reason: &str) -> crate::common::Answer {
        let revision = self.opened().await["revision"].clone();
        let body = json!({ "base_revision": revision, "slips": slips, "how": how, "reason": reason });
        self.client.post(&self.at("offered"), body).await
    }

    async fn offered(&self, slip: &str) -> Value {
        let view = self.client.get(&self.at("outside")).await.ok(200);
        find(&view, slip).clone()
    }

    async fn tries(&self, fault: Option<Fault>) {
        let body = TryFault { household: self.id.parse().unwrap(), fault };
        let client = reqwest::Client::builder().no_proxy().build().unwrap();
        let sent = client.put(format!("{}/faults", self.authority)).json(&body).send().await.unwrap();
        assert_eq!(sent.status(), 204);
    }
}

fn find<'v>(view: &'v Value, slip: &str) -> &'v Value {
    let all = view["offered"].as_array().unwrap();
    all.iter().find(|one| one["slip"] == slip).unwrap_or_else(|| panic!("{slip} is not offered: {view:#}"))
}

#[tokio::test]
async fn nothing_is_fetched_without_consent_and_a_consent_ends() {
    let family = Family::of("consents", "Pell-Achterberg").await;
    let refused = family.client.post(&family.at("fetches"), json!({})).await.ok(409);
    assert_eq!(refused["type"], "urn:hembo:outside");
    // It waits for an answer, and is given when it is looked at again.
    let view = family.consents(&["marit", "linus"]).await;
    assert_eq!(view["consents"][0]["state"], "pending");
    assert_eq!(view["consents"][0]["people"], json!(["Marit Achterberg", "Linus Pell"]));
    let one = family.at(&format!("consents/{}", view["consents"][0]["id"].as_str().unwrap()));
    assert_eq!(family.client.post(&one, json!({})).await.ok(200)["consents"][0]["state"], "granted");
    assert!(family.fetch().await["fetched"]["at"].is_string());
    assert_eq!(family.client.delete(&one).await.ok(200)["consents"][0]["state"], "ended");
    family.client.post(&family.at("fetches"), json!({})).await.ok(409);

    for wrong in [
        json!({ "people": [], "scope": ["papers"], "until": "2099-12-31" }),
        json!({ "people": ["marit"], "scope": [], "until": "2099-12-31" }),
        json!({ "people": ["marit"], "scope": ["papers"], "until": "2020-12-31" }),
        json!({ "people": ["nobody"], "scope": ["papers"], "until": "2099-12-31" }),
    ] {
        family.client.post(&family.at("consents"), wrong).await.ok(422);
    }
    // A consent for filing alone shows no papers; one that is refused says by whom.
    let filing = json!({ "people": ["marit"], "scope": ["filing"], "until": "2099-12-31" });
    family.client.post(&family.at("consents"), filing).await.ok(200);
    family.client.post(&family.at("fetches"), json!({})).await.ok(409);
    let other = Family { id: family.client.household("Marchbank-Oyelaran").await, ..family };
    let view = other.consents(&["ottilie", "femi"]).await;
    assert_eq!(
        (&view["consents"][0]["state"], &view["consents"][0]["words"]),
        (&json!("refused"), &json!("Femi Oyelaran does not agree."))
    );
}

#[tokio::test]
async fn an_offered_slip_is_taken_kept_against_or_refused_and_all_of_it_undone() {
    let family = Family::of("offered", "Okonjo-Farrell").await;
    family.consents(&["isolde", "bram"]).await;
    let view = family.fetch().await;
    assert_eq!(view["fetched"]["strangers"], 0);
    let wage = find(&view, "W2-2025-bram-1");
    let withheld = wage["boxes"].as_array().unwrap().iter().find(|of| of["field"] == "2").unwrap();
    assert_eq!((&wage["state"], &wage["settled"]), (&json!("differs"), &json!(false)));
    assert_eq!(
        (&withheld["held"], &withheld["keyed"], &withheld["apart"]),
        (&json!("10210.00"), &json!("10120.00"), &json!("90.00"))
    );
    assert_eq!(withheld["hint"], "Two digits changed places.");
    assert_eq!(find(&view, "W2-2025-isolde-1")["state"], "agrees");
    assert_eq!(find(&view, "1099INT-2025-isolde-9")["state"], "new");

    // What taking it would do, before it is done: 90 more withheld, 90 more back.
    let effect = family.client.get(&family.at("offered/effect?slip=W2-2025-bram-1")).await.ok(200);
    let amount = |of: &Value| of.as_str().unwrap().parse::<f64>().unwrap();
    assert!((amount(&effect["now"]["balance"]) - amount(&effect["then"]["balance"]) - 90.0).abs() < 0.001);
    assert_eq!(effect["now"]["total"], effect["then"]["total"]);

    let taken = family.settle(&["W2-2025-bram-1", "W2-2025-isolde-1"], "take", "").await.ok(200);
    let papers = taken["household"]["papers"].as_array().unwrap().clone();
    let bram = papers.iter().find(|p| p["held"]["slip"] == "W2-2025-bram-1").unwrap();
    assert_eq!(bram["boxes"]["2"], "10210.00");
    assert_eq!(taken["outcome"]["balance"], effect["then"]["balance"]);
    // It is held, and still to be checked against the original: the marks are two.
    assert!(bram["checked"] != true || !bram["changed"].as_array().unwrap().is_empty());
    let now = family.offered("W2-2025-bram-1").await;
    assert_eq!((&now["state"], &now["settled"]), (&json!("agrees"), &json!(true)));

    // A new paper, and a refusal with a reason.
    let with = family.settle(&["1099INT-2025-isolde-9"], "take", "").await.ok(200);
    let new = with["household"]["papers"].as_array().unwrap().last().unwrap();
    assert_eq!(
        (&new["kind"], &new["title"], &new["boxes"]["1"]),
        (&json!("1099-INT"), &json!("Cottonwood Savings"), &json!("212.40"))
    );
    family.settle(&["1098E-2025-isolde-1"], "refuse", " ").await.ok(422);
    family.settle(&["1098E-2025-isolde-1"], "refuse", "Her brother pays this loan").await.ok(200);
    let refused = family.offered("1098E-2025-isolde-1").await;
    assert_eq!(
        (&refused["state"], &refused["reason"]),
        (&json!("refused"), &json!("Her brother pays this loan"))
    );
    family.settle(&["no-such-slip"], "take", "").await.ok(404);

    // Undo takes the refusal back, then the new paper.
    for _ in 0..2 {
        let revision = family.opened().await["revision"].clone();
        family.client.post(&family.at("undo"), json!({ "base_revision": revision })).await.ok(200);
    }
    assert_eq!(family.offered("1098E-2025-isolde-1").await["state"], "new");
    assert_eq!(family.offered("1099INT-2025-isolde-9").await["state"], "new");
}

#[tokio::test]
async fn what_was_keyed_stays_with_a_reason_until_what_is_held_changes() {
    let family = Family::of("kept", "Okonjo-Farrell").await;
    family.consents(&["isolde", "bram"]).await;
    family.fetch().await;
    family.settle(&["W2-2025-bram-1"], "keep", "").await.ok(422);
    family.settle(&["W2-2025-bram-1"], "keep", "The paper in hand says so").await.ok(200);
    let kept = family.offered("W2-2025-bram-1").await;
    assert_eq!((&kept["state"], &kept["settled"]), (&json!("kept"), &json!(true)));
    let opened = family.opened().await;
    let is_about = |point: &Value| point["id"].as_str().unwrap().starts_with("held-differs");
    let points = |opened: &Value| {
        opened["outcome"]["points"].as_array().unwrap().iter().filter(|p| is_about(p)).count()
    };
    assert_eq!(points(&opened), 0);

    // Taken, then keyed over: the point says so, at the box.
    family.settle(&["1099INT-2025-isolde-9"], "take", "").await.ok(200);
    let opened = family.opened().await;
    let paper = opened["household"]["papers"].as_array().unwrap().last().unwrap()["id"].clone();
    let change = json!([{ "do": "set_box", "paper": paper, "field": "1", "value": "200.00" }]);
    let opened = family.client.edit(&family.id, opened["revision"].as_i64().unwrap(), change).await.ok(200);
    assert_eq!(points(&opened), 1);
    let point = opened["outcome"]["points"].as_array().unwrap().iter().find(|p| is_about(p)).unwrap();
    assert_eq!((&point["place"]["paper"], &point["place"]["field"]), (&paper, &json!("1")));

    // The second fetch: one corrected, one new, one gone.
    let view = family.fetch().await;
    let told = |what: &str| view["fetched"][what].clone();
    assert_eq!(told("changed"), json!(["1099-INT Cottonwood Savings"]));
    assert_eq!(told("new"), json!(["1099-G Illinois"]));
    assert_eq!(told("gone"), json!(["1098-E Sandhills Loan Service"]));
    let corrected = find(&view, "1099INT-2025-isolde-9");
    assert_eq!((&corrected["state"], &corrected["issued"]), (&json!("differs"), &json!("2026-03-09")));
}

#[tokio::test]
async fn a_slip_that_is_gone_leaves_its_paper_once_its_mark_is_taken_away() {
    let family = Family::of("gone", "Okonjo-Farrell").await;
    family.consents(&["isolde", "bram"]).await;
    family.fetch().await;
    family.settle(&["1098E-2025-isolde-1"], "take", "").await.ok(200);
    family.fetch().await;
    assert_eq!(family.offered("1098E-2025-isolde-1").await["state"], "gone");
    let opened = family.settle(&["1098E-2025-isolde-1"], "take_up", "").await.ok(200);
    let papers = opened["household"]["papers"].as_array().unwrap();
    let loan = papers.iter().find(|paper| paper["kind"] == "1098-E").unwrap();
    assert_eq!((&loan["boxes"]["1"], &loan["held"]), (&json!("96.00"), &Value::Null));
    let view = family.client.get(&family.at("outside")).await.ok(200);
    assert!(view["offered"].as_array().unwrap().iter().all(|one| one["slip"] != "1098E-2025-isolde-1"));
}

#[tokio::test]
async fn an_outage_nonsense_and_no_service_change_nothing_and_say_so() {
    let family = Family::of("faults", "Fennimore").await;
    family.consents(&["delphine"]).await;
    family.fetch().await;
    let before = family.client.get(&family.at("outside")).await.ok(200);
    for (fault, says) in
        [(Fault::Down, "outage"), (Fault::Nonsense, "cannot be read"), (Fault::Slow, "too long")]
    {
        family.tries(Some(fault)).await;
        let problem = family.client.post(&family.at("fetches"), json!({})).await.ok(502);
        assert_eq!(problem["type"], "urn:hembo:outside-trouble");
        assert!(problem["detail"].as_str().unwrap().contains(says), "{problem:#}");
    }
    family.tries(None).await;
    let after = family.client.get(&family.at("outside")).await.ok(200);
    assert_eq!((&after["offered"], &after["fetched"]["at"]), (&before["offered"], &before["fetched"]["at"]));
    // Again, and it works: nothing has to be mended first.
    assert_eq!(family.fetch().await["fetched"]["again"], true);

    let alone = Client::signed_in("alone").await;
    let id = alone.household("Fennimore").await;
    let view = alone.get(&format!("/api/households/{id}/outside")).await.ok(200);
    assert_eq!(view["connected"], false);
    alone.post(&format!("/api/households/{id}/consents"), consent(&["delphine"])).await.ok(409);
}

#[tokio::test]
async fn two_people_at_once_take_the_same_slip_once() {
    let family = Family::of("at_once", "Okonjo-Farrell").await;
    family.consents(&["isolde", "bram"]).await;
    family.fetch().await;
    let revision = family.opened().await["revision"].clone();
    let body = json!({ "base_revision": revision, "slips": ["1099INT-2025-isolde-9"], "how": "take" });
    let reviewer = family.client.other(demo::REVIEWER).await;
    let path = family.at("offered");
    let (one, other) =
        tokio::join!(family.client.post(&path, body.clone()), reviewer.post(&path, body.clone()));
    let statuses = [one.status.as_u16(), other.status.as_u16()];
    assert!(statuses.contains(&200), "{statuses:?}");
    let opened = family.opened().await;
    let papers = opened["household"]["papers"].as_array().unwrap();
    assert_eq!(papers.iter().filter(|p| p["held"]["slip"] == "1099INT-2025-isolde-9").count(), 1);
}

#[tokio::test]
async fn what_only_the_family_has_is_listed_and_asked_for() {
    let family = Family::of("asked", "Vreeland-Mbeki").await;
    let view = family.client.get(&family.at("outside")).await.ok(200);
    let of = |view: &Value, kind: &str| {
        view["ask"].as_array().unwrap().iter().find(|ask| ask["kind"] == kind).cloned()
    };
    assert!(of(&view, "W-2").is_none(), "the employer sends that in");
    assert_eq!(of(&view, "Medical").unwrap()["papers"], 1);
    let body = json!({ "kind": "Gifts", "asked": true });
    let view = family.client.put(&family.at("asked"), body).await.ok(200);
    assert_eq!(of(&view, "Gifts").unwrap()["asked_by"], "N. Ostrava");
    let view =
        family.client.put(&family.at("asked"), json!({ "kind": "Gifts", "asked": false })).await.ok(200);
    assert_eq!(of(&view, "Gifts").unwrap()["asked_by"], Value::Null);
    family.client.put(&family.at("asked"), json!({ "kind": "Nothing", "asked": true })).await.ok(422);
}

/// Interest that nobody keyed is in its assessment, trade and funds abroad are not: both are told, and the lines that differ.
#[tokio::test]
async fn what_an_authority_assesses_by_itself_stands_beside_ours() {
    let family = Family::of("own", "Penwarden").await;
    family.client.get(&family.at("own-assessment")).await.ok(409);
    family.consents(&["hester"]).await;
    family.fetch().await;
    let own = family.client.get(&family.at("own-assessment")).await.ok(200);
    let of = &own["returns"][0];
    assert_eq!((&of["whose"], &of["scope"]), (&json!("Hester Penwarden · own return"), &json!("return/0")));
    let line = |id: &str| {
        let found = of["lines"].as_array().unwrap().iter().find(|line| line["line"] == id);
        found.map(|line| (line["filed"].clone(), line["assessed"].clone()))
    };
    assert_eq!(line("nz.interest_gross"), Some((json!("0.00"), json!("640.00"))));
    assert_eq!(line("nz.self_employment"), Some((json!("4937.24"), Value::Null)));
    assert_eq!(line("nz.employment_gross"), None, "both have it");
    // 92,640 of pay and interest: 15,650.50 + 14,540 × 33 % = 20,448.70, and 252 of the fund; gifts are claimed by nobody yet.
    assert_eq!(of["own_total"], "21120.70");
    let names = |what: &str| {
        own[what].as_array().unwrap().iter().map(|n| n.as_str().unwrap().to_owned()).collect::<Vec<_>>()
    };
    assert_eq!(names("not_keyed"), ["Interest Tasman Building Society"]);
    assert!(names("not_held").contains(&"Own trade Glass floats".to_owned()));
    assert!(!names("not_held").contains(&"Pay Westland Pilotage".to_owned()));
    // Taken, the interest is on both sides.
    family.settle(&["INT-2026-hester-1"], "take", "").await.ok(200);
    let own = family.client.get(&family.at("own-assessment")).await.ok(200);
    assert_eq!(own["not_keyed"], json!([]));
    // It may be corrected until a day; who accepts it although papers are left out, is told so, and files nothing.
    assert_eq!(
        (&own["returns"][0]["dates"][0]["day"], &own["returns"][0]["taken"]),
        (&json!("2026-07-07"), &Value::Null)
    );
    let accept =
        json!({ "do": "answer_for", "person": "hester", "field": "own_assessment", "value": "accept" });
    let base = family.opened().await["revision"].as_i64().unwrap();
    let opened = family.client.edit(&family.id, base, json!([accept])).await.ok(200);
    let points = opened["outcome"]["points"].as_array().unwrap();
    let told =
        points.iter().find(|point| point["id"].as_str().unwrap().starts_with("own-accepted:")).unwrap();
    assert!(told["message"].as_str().unwrap().contains("Own trade"), "{told}");
    let view = family.client.get(&family.at("filings")).await.ok(200);
    let needs = view["needs"].as_array().unwrap();
    let need = needs.iter().find(|need| need["what"] == "The authority's own assessment").unwrap();
    assert_eq!((&need["ready"], &need["blocks"]), (&json!(false), &json!(true)));
    let own = family.client.get(&family.at("own-assessment")).await.ok(200);
    assert_eq!(own["returns"][0]["taken"], "accept");
    // A law under which nobody is assessed so says it.
    let other = Family { id: family.client.household("Fennimore").await, ..family };
    other.client.get(&other.at("own-assessment")).await.ok(409);
}

/// Receipts of a bank as lines: the third was not keyed, is offered with what it brings, taken as one edit and undone.
#[tokio::test]
async fn a_line_that_was_not_keyed_is_taken_from_a_slip() {
    let family = Family::of("lines", "Kettering-Adebayo").await;
    family.consents(&["ysolde", "corin"]).await;
    family.client.get(&family.at("outside")).await.ok(200);
    let view = family.fetch().await;
    let slip = find(&view, "RRSP-2025-ysolde-1");
    let told: Vec<_> = slip["lines"].as_array().unwrap().iter().map(|line| &line["agrees"]).collect();
    assert_eq!((&slip["state"], told), (&json!("differs"), vec![&json!(true), &json!(true), &json!(false)]));
    let rows = async || {
        let opened = family.opened().await;
        let papers = opened["household"]["papers"].as_array().unwrap();
        papers.iter().find(|paper| paper["kind"] == "RRSP").unwrap()["rows"].as_array().unwrap().len()
    };
    family.settle(&["RRSP-2025-ysolde-1"], "take", "").await.ok(200);
    assert_eq!(rows().await, 3);
    let slip = family.offered("RRSP-2025-ysolde-1").await;
    assert_eq!((&slip["state"], &slip["settled"]), (&json!("agrees"), &json!(true)));
    family
        .client
        .post(&family.at("undo"), json!({ "base_revision": family.opened().await["revision"] }))
        .await
        .ok(200);
    assert_eq!(rows().await, 2);
    // The last assessment comes as papers of its own, and payments without a payer's name are the paper that was keyed.
    let other = Family { id: family.client.household("Fairweather-Ito").await, ..family };
    other.consents(&["juno", "kenji"]).await;
    let view = other.fetch().await;
    assert_eq!(find(&view, "NOA-2024-juno-losses")["state"], "new");
    other.settle(&["NOA-2024-juno-losses", "NOA-2024-kenji-rrsp"], "take", "").await.ok(200);
    let tolliver = Family { id: other.client.household("Tolliver").await, ..other };
    tolliver.consents(&["maren"]).await;
    let view = tolliver.fetch().await;
    let paid = find(&view, "INST-2024-maren");
    let states: Vec<_> =
        paid["lines"].as_array().unwrap().iter().map(|line| line["row"].is_string()).collect();
    assert_eq!((&paid["paper"], states), (&json!("instalments"), vec![true; 4]));
}
