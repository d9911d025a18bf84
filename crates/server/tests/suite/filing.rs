//! Filing: what it needs, refusals and their places, receipts, assessments, amended returns.

use crate::common::{Answer, Client};
use axum::body::Body;
use hembo_authority::wire::{Fault, TryFault};
use hembo_server::demo;
use serde_json::{Value, json};

struct Family {
    client: Client,
    reviewer: Client,
    id: String,
    authority: String,
}

impl Family {
    async fn of(test: &str, name: &str) -> Family {
        let (client, authority) = Client::with_authority(test).await;
        let reviewer = client.other(demo::REVIEWER).await;
        let id = client.household(name).await;
        Family { client, reviewer, id, authority }
    }

    fn at(&self, path: &str) -> String {
        format!("/api/households/{}/{path}", self.id)
    }

    async fn revision(&self) -> i64 {
        self.client.get(&format!("/api/households/{}", self.id)).await.ok(200)["revision"].as_i64().unwrap()
    }

    async fn consents(&self, people: &[&str]) {
        let body = json!({ "people": people, "scope": ["papers", "filing"], "until": "2099-12-31" });
        self.client.post(&self.at("consents"), body).await.ok(200);
    }

    /// From in work to handed over, through a reviewer's hands.
    async fn hands_over(&self) {
        let steps = [
            ("in_work", "ready"),
            ("ready", "in_review"),
            ("in_review", "cleared"),
            ("cleared", "handed_over"),
        ];
        for (from, to) in steps {
            let body = json!({ "base_revision": self.revision().await, "from": from, "to": to });
            let by = if to == "ready" { &self.client } else { &self.reviewer };
            assert_eq!(by.post(&self.at("progress"), body).await.ok(200)["stage"], to);
        }
    }

    /// Keeps a file with a paper; its id.
    async fn keeps_file(&self, paper: &str) -> Value {
        let body = Body::from("%PDF-1.7\n500 500 Receipts\n");
        let file = self.client.send("PUT", &self.at("files?name=receipts.pdf"), body).await.ok(200);
        self.edits(json!([{ "do": "add_file", "paper": paper, "file": file }])).await;
        file["id"].clone()
    }

    async fn stage(&self) -> Value {
        self.client.get(&self.at("progress")).await.ok(200)["stage"].clone()
    }

    async fn file(&self) -> Answer {
        let body = json!({ "base_revision": self.revision().await });
        self.client.post(&self.at("filings"), body).await
    }

    async fn looks(&self, filing: &Value) -> Value {
        let path = self.at(&format!("filings/{}", filing["id"].as_str().unwrap()));
        self.client.post(&path, json!({})).await.ok(200)
    }

    async fn edits(&self, commands: Value) -> Value {
        self.client.edit(&self.id, self.revision().await, commands).await.ok(200)
    }

    async fn tries(&self, fault: Option<Fault>) {
        let body = TryFault { household: self.id.parse().unwrap(), fault };
        let client = reqwest::Client::builder().no_proxy().build().unwrap();
        client.put(format!("{}/faults", self.authority)).json(&body).send().await.unwrap();
    }
}

fn need<'v>(view: &'v Value, what: &str) -> &'v Value {
    view["needs"].as_array().unwrap().iter().find(|need| need["what"] == what).unwrap()
}

#[tokio::test]
async fn a_return_is_refused_at_its_box_mended_filed_again_and_assessed() {
    let family = Family::of("refused", "Fennimore").await;
    let view = family.client.get(&family.at("filings")).await.ok(200);
    assert_eq!(need(&view, "Consent to file")["ready"], false);
    assert_eq!(need(&view, "Signatures")["ready"], true);
    assert_eq!(
        (&view["returns"][0]["sending"], view["returns"].as_array().unwrap().len()),
        (&json!("new"), 1)
    );
    // Nothing goes out before the consent and before it is handed over.
    family.file().await.ok(409);
    family.consents(&["delphine"]).await;
    assert!(family.file().await.ok(403)["detail"].as_str().unwrap().contains("handed over"));
    family.hands_over().await;
    let view = family.file().await.ok(200);
    let filing = view["filings"][0].clone();
    assert_eq!((&filing["state"], family.stage().await), (&json!("received"), json!("sent")));
    assert!(filing["number"].as_str().unwrap().starts_with("R-"));
    assert_eq!(view["returns"][0]["sending"], "as_filed");

    // The employer sent in less than was claimed: refused, at the box.
    let view = family.looks(&filing).await;
    let refusal = &view["filings"][0]["refusals"][0];
    assert_eq!((&refusal["place"]["paper"], &refusal["place"]["field"]), (&json!("w2"), &json!("2")));
    let progress = family.client.get(&family.at("progress")).await.ok(200);
    assert_eq!(
        (&progress["stage"], &progress["refusals"][0]["place"]["paper"]),
        (&json!("refused"), &json!("w2"))
    );

    // Mended: back in work, through the review again, and filed anew: not as an amended one, for none was taken.
    family.edits(json!([{ "do": "set_box", "paper": "w2", "field": "2", "value": "204.00" }])).await;
    assert_eq!(family.stage().await, "in_work");
    family.hands_over().await;
    let view = family.file().await.ok(200);
    assert_eq!((view["filings"].as_array().unwrap().len(), &view["filings"][0]["amends"]), (2, &Value::Null));
    let second = view["filings"][0].clone();
    let view = family.looks(&second).await;
    assert_eq!((&view["filings"][0]["state"], family.stage().await), (&json!("accepted"), json!("accepted")));
    let view = family.looks(&second).await;
    let assessed = &view["filings"][0]["assessment"];
    assert_eq!((&assessed["total"], &assessed["lines"]), (&assessed["filed_total"], &json!([])));
    assert_eq!(family.stage().await, "assessed");

    // The receipt is a PDF; the family's numbers stand open nowhere in the table.
    let path = family.at(&format!("filings/{}/receipt", second["id"].as_str().unwrap()));
    let receipt = family.client.send("GET", &path, Body::empty()).await;
    assert!(receipt.body.as_str().unwrap().starts_with("%PDF-"));
    let stored: Vec<String> = sqlx::query_scalar("select filings::text from filings")
        .fetch_all(&family.client.app.database)
        .await
        .unwrap();
    assert!(stored.iter().all(|row| !row.contains("831-26-3358") && !row.contains("831263358")));
}

#[tokio::test]
async fn where_everyone_files_alone_each_return_goes_out_and_an_amended_one_names_the_earlier() {
    let family = Family::of("alone_each", "Pell-Achterberg").await;
    family.consents(&["marit", "linus"]).await;
    let look = family.client.get(&family.at("outside")).await.ok(200);
    let consent = look["consents"][0]["id"].as_str().unwrap().to_owned();
    family.client.post(&family.at(&format!("consents/{consent}")), json!({})).await.ok(200);
    // What the employer sent in, so that nothing is refused.
    family.edits(json!([{ "do": "set_box", "paper": "t4-linus", "field": "22", "value": "4130.00" }])).await;
    family.hands_over().await;
    let view = family.file().await.ok(200);
    let filings = view["filings"].as_array().unwrap().clone();
    assert_eq!((filings.len(), family.stage().await), (2, json!("sent")));

    // One accepted is not all accepted.
    family.looks(&filings[0]).await;
    assert_eq!(family.stage().await, "sent");
    let view = family.looks(&filings[1]).await;
    assert_eq!(family.stage().await, "accepted");
    // A document is asked for: nothing is assessed before it is sent.
    let marit =
        view["filings"].as_array().unwrap().iter().find(|f| !f["documents"].as_array().unwrap().is_empty());
    let marit = marit.unwrap().clone();
    let view = family.looks(&marit).await;
    let now = |view: &Value| {
        view["filings"].as_array().unwrap().iter().find(|f| f["id"] == marit["id"]).unwrap().clone()
    };
    assert_eq!(now(&view)["state"], "accepted");
    let documents = family.at(&format!("filings/{}/documents", marit["id"].as_str().unwrap()));
    let document = marit["documents"][0]["id"].clone();
    assert!(marit["documents"][0]["counted"].as_str().unwrap().starts_with("30 days from "), "{marit}");
    let own = view["returns"].as_array().unwrap().iter().find(|of| of["scope"] == marit["scope"]).unwrap();
    let refund = own["balance"].as_str().unwrap().starts_with('-');
    assert_eq!((&marit["documents"][0]["days_left"], &marit["refund_held"]), (&json!(30), &json!(refund)));
    family.client.post(&documents, json!({ "document": document, "words": " " })).await.ok(422);
    let unknown = json!({ "document": document, "words": "", "files": ["ab".repeat(32)] });
    family.client.post(&documents, unknown).await.ok(404);
    let file = family.keeps_file("medical").await;
    let sent = json!({ "document": document, "words": "Five receipts, by post", "files": [file] });
    let view = family.client.post(&documents, sent).await.ok(200);
    let told = &now(&view)["documents"][0];
    assert_eq!((&told["sent"], &told["files"]), (&json!("Five receipts, by post"), &json!(["receipts.pdf"])));
    // A file with a paper is no amendment of what was filed.
    let own = view["returns"].as_array().unwrap().iter().find(|of| of["scope"] == marit["scope"]).unwrap();
    assert_eq!((&own["sending"], family.stage().await), (&json!("as_filed"), json!("accepted")));
    // Interest that nobody reported: the assessment says so, line by line.
    let view = family.looks(&marit).await;
    let assessed = now(&view)["assessment"].clone();
    assert_eq!(assessed["otherwise"], json!(["T5 Grand River Savings was not filed."]));
    let line =
        |number: &str| assessed["lines"].as_array().unwrap().iter().find(|l| l["number"] == number).cloned();
    assert_eq!(line("12100").unwrap()["assessed"], "66.15");
    assert_ne!(assessed["total"], assessed["filed_total"]);

    // Changed after it was sent: only her return is other than what was filed, and it amends that.
    let paper = json!({ "id": "t5", "kind": "T5", "title": "Grand River Savings", "owners": [{ "person": "marit", "percent": "100" }],
        "boxes": { "13": "66.15" } });
    family.edits(json!([{ "do": "add_paper", "paper": paper }])).await;
    assert_eq!(family.stage().await, "in_work");
    family.hands_over().await;
    let view = family.file().await.ok(200);
    let newest = &view["filings"][0];
    assert_eq!(newest["amends"], marit["number"]);
}

#[tokio::test]
async fn an_outage_while_filing_loses_nothing_and_files_once() {
    let family = Family::of("outage", "Halvorsen-Achebe").await;
    family.consents(&["ragnhild", "chidi"]).await;
    let look = family.client.get(&family.at("outside")).await.ok(200);
    let consent = look["consents"][0]["id"].as_str().unwrap().to_owned();
    family.client.post(&family.at(&format!("consents/{consent}")), json!({})).await.ok(200);
    family.hands_over().await;
    family.tries(Some(Fault::Down)).await;
    assert_eq!(family.file().await.ok(502)["type"], "urn:hembo:outside-trouble");
    assert_eq!(family.stage().await, "handed_over");
    family.tries(None).await;
    // An older revision is not filed.
    let stale = json!({ "base_revision": family.revision().await - 1 });
    family.client.post(&family.at("filings"), stale).await.ok(409);
    let view = family.file().await.ok(200);
    assert_eq!((view["filings"].as_array().unwrap().len(), family.stage().await), (1, json!("sent")));
    // Two at once: nothing goes out twice.
    let (one, other) = tokio::join!(family.file(), family.file());
    assert!(one.status != 200 && other.status != 200);
    let view = family.client.get(&family.at("filings")).await.ok(200);
    assert_eq!(view["filings"].as_array().unwrap().len(), 1);
}

/// The return of a state waits for its own points alone, and goes out after the federal one.
#[tokio::test]
async fn what_a_state_leaves_open_holds_up_its_own_return_alone() {
    let family = Family::of("of_state", "Sorrel-Okafor").await;
    family.consents(&["juniper", "tobin"]).await;
    let look = family.client.get(&family.at("outside")).await.ok(200);
    let consent = look["consents"][0]["id"].as_str().unwrap().to_owned();
    family.client.post(&family.at(&format!("consents/{consent}")), json!({})).await.ok(200);
    let other = |yes: bool| json!([{ "do": "answer", "field": "ca_other", "value": yes }]);
    let owners = ["juniper", "tobin"].map(|person| json!({ "person": person, "percent": "50" }));
    let boxes = json!({ "how": "preparer", "signed": "2026-02-18", "signed.spouse": "2026-02-18", "pin": "39951", "pin.spouse": "39952",
        "ptin": "P01748236", "signed.state": "2026-02-18", "paid_by": "debit" });
    let paper = json!({ "id": "signed", "kind": "8879", "title": "", "owners": owners, "boxes": boxes });
    let pin = json!({ "do": "pin", "decision": "us.status", "option": "joint" });
    family.edits(json!([{ "do": "add_paper", "paper": paper }, pin])).await;
    family.edits(other(true)).await;
    let view = family.client.get(&family.at("filings")).await.ok(200);
    assert_eq!(need(&view, "Open points")["ready"], true, "{}", need(&view, "Open points"));
    let own = need(&view, "Open points of California");
    assert_eq!((&own["ready"], &own["authority"]), (&json!(false), &json!("California")));
    family.hands_over().await;
    let view = family.file().await.ok(200);
    let of = |view: &Value| -> Vec<(Value, bool, Value)> {
        let all = view["returns"].as_array().unwrap().iter();
        all.map(|one| (one["authority"].clone(), one["held_by"].is_string(), one["sending"].clone()))
            .collect()
    };
    assert_eq!(of(&view), [(json!(""), false, json!("as_filed")), (json!("California"), true, json!("new"))]);
    assert_eq!((view["filings"].as_array().unwrap().len(), family.stage().await), (1, json!("handed_over")));

    // Once it is settled the state's return goes out, too, and the federal one stays as it was filed.
    family.edits(other(false)).await;
    family.hands_over().await;
    let view = family.file().await.ok(200);
    let sending: Vec<Value> = of(&view).into_iter().map(|one| one.2).collect();
    assert_eq!(sending, [json!("as_filed"), json!("as_filed")]);
    assert_eq!((view["filings"].as_array().unwrap().len(), family.stage().await), (2, json!("sent")));
    assert_eq!(view["filings"][0]["scope"], "return/0/California");
}
