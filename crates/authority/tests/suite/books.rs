//! The stand-in keeps what it was told: consents and returns outlive it, and a return is filed once.

use axum::{
    Router,
    body::{Body, to_bytes},
    http::{Request, StatusCode},
};
use hembo_authority::{data::Data, stand_in::StandIn, wire::checksum};
use hembo_core::Registry;
use serde_json::{Value, json};
use std::{path::Path, sync::Arc};
use tower::ServiceExt;

fn stand_in(books: &Path) -> Router {
    let registry = Registry::of([Arc::new(hembo_us::UnitedStates::COMMITTED)]);
    let data = Data::read(&Path::new(env!("CARGO_MANIFEST_DIR")).join("data")).unwrap();
    StandIn::new(data, registry, Some(books.to_owned())).unwrap().router()
}

async fn ask(router: &Router, method: &str, path: &str, body: Value) -> (StatusCode, Value) {
    let request = Request::builder().method(method).uri(path).header("content-type", "application/json");
    let answer = router.clone().oneshot(request.body(Body::from(body.to_string())).unwrap()).await.unwrap();
    let status = answer.status();
    let bytes = to_bytes(answer.into_body(), 4_000_000).await.unwrap();
    (status, serde_json::from_slice(&bytes).unwrap_or_default())
}

#[tokio::test]
async fn what_it_was_told_outlives_it_and_a_return_sent_twice_is_one() {
    let books = std::env::temp_dir().join(format!("hembo-books-{}.json", uuid::Uuid::new_v4()));
    let before = stand_in(&books);
    let household = uuid::Uuid::new_v4();
    let people = json!([{ "name": "Delphine Fennimore", "number": "831263358" }]);
    let asked = json!({ "household": household, "law": "us", "people": people, "scope": ["papers", "filing"],
        "from": "2026-01-01", "until": "2099-12-31" });
    let (_, consent) = ask(&before, "POST", "/consents", asked).await;
    assert_eq!(consent["state"], "granted");
    let number = consent["number"].as_str().unwrap();

    let package = json!({ "scope": "return/0", "filers": people, "amends": null, "total": "0", "balance": "0", "forms": [],
        "way": {}, "household": serde_json::from_str::<Value>(include_str!("../../../../demo/us/fennimore.json")).unwrap() })
    .to_string();
    let filing =
        |sum: String| json!({ "key": household, "consent": number, "package": package, "checksum": sum });
    let (damaged, why) = ask(&before, "POST", "/returns", filing(checksum("something else"))).await;
    assert_eq!(
        (damaged, why["why"].as_str().unwrap().contains("checksum")),
        (StatusCode::UNPROCESSABLE_ENTITY, true)
    );
    let (_, receipt) = ask(&before, "POST", "/returns", filing(checksum(&package))).await;
    drop(before);
    // A file with a document comes in whole and can be read, or nothing does.
    let documents = format!("/returns/{}/documents", receipt["number"].as_str().unwrap());
    for (bytes, sum, why_not) in [
        ("JVBERi0xLjcK", checksum("another"), "came in damaged"),
        ("no base64!", checksum(""), "came in damaged"),
        ("aGVsbG8=", checksum("hello"), "a.pdf: "),
    ] {
        let file = json!({ "name": "a.pdf", "bytes": bytes, "checksum": sum });
        let sent = json!({ "id": "any", "words": "", "files": [file] });
        let (status, why) = ask(&stand_in(&books), "POST", &documents, sent).await;
        let why = why["why"].as_str().unwrap().to_owned();
        assert_eq!((status, why.contains(why_not)), (StatusCode::UNPROCESSABLE_ENTITY, true), "{why}");
    }

    let after = stand_in(&books);
    let (_, again) = ask(&after, "POST", "/returns", filing(checksum(&package))).await;
    assert_eq!(again["number"], receipt["number"]);
    let (_, looked) = ask(&after, "GET", &format!("/consents/{number}"), Value::Null).await;
    assert_eq!(looked["state"], "granted");
    // Under another name it is a second return of the year.
    let mut second = filing(checksum(&package));
    second["key"] = json!(uuid::Uuid::new_v4());
    let (status, why) = ask(&after, "POST", "/returns", second).await;
    assert_eq!((status, why["why"].as_str().unwrap().contains("amended")), (StatusCode::CONFLICT, true));
    std::fs::remove_file(books).unwrap();
}
