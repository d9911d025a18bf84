//! A household divided in two: looked at, made, made again, and not divided twice.

use crate::common::Client;
use serde_json::{Value, json};

#[tokio::test]
async fn a_household_is_divided_linked_replaced_and_its_halves_are_not_divided_again() {
    let client = Client::signed_in("divide").await;
    let id = client.household("Vreeland-Mbeki").await;
    let path = format!("/api/households/{id}/divide");
    let before = client.get(&format!("/api/households/{id}")).await.ok(200);
    let look = client.get(&path).await.ok(200);
    assert_eq!(look["names"], json!(["Vreeland-Mbeki (Tamsin)", "Vreeland-Mbeki (Osric)"]));
    assert_eq!((&look["from"], &look["into"], &look["refused"]), (&Value::Null, &json!([]), &Value::Null));
    let went = look["went"].as_array().unwrap();
    assert!(went.iter().any(|one| one["decide"] == true) && went.iter().any(|one| one["how"] == "half each"));
    let count = client.count().await;

    client.post(&path, json!({ "base_revision": 7 })).await.ok(409);
    let base = look["revision"].clone();
    let made = client.post(&path, json!({ "base_revision": base })).await.ok(201);
    assert_eq!(client.count().await, count + 2);
    let sorted = |into: &Value| {
        let mut ids: Vec<String> = into.as_array().unwrap().iter().map(|one| one["id"].to_string()).collect();
        ids.sort();
        ids
    };
    assert_eq!(sorted(&client.get(&path).await.ok(200)["into"]), sorted(&made));
    // The original is untouched.
    let after = client.get(&format!("/api/households/{id}")).await.ok(200);
    assert_eq!(after["household"], before["household"]);
    assert_eq!(after["revision"], before["revision"]);

    let half = made[1]["id"].as_str().unwrap();
    let of_half = client.get(&format!("/api/households/{half}/divide")).await.ok(200);
    assert_eq!(of_half["from"], json!({ "id": id, "name": "Vreeland-Mbeki" }));
    assert!(of_half["refused"].as_str().unwrap().contains("not divided again"));
    let again = client.post(&format!("/api/households/{half}/divide"), json!({ "base_revision": 1 })).await;
    assert!(again.ok(422)["detail"].as_str().unwrap().contains("not divided again"));
    let opened = client.get(&format!("/api/households/{half}")).await.ok(200);
    assert_eq!(
        opened["household"]["people"].as_array().unwrap().iter().filter(|p| p["role"] == "filer").count(),
        1
    );

    // Done again, the two make new ones beside the earlier, or take their place; those can be brought back.
    client.post(&path, json!({ "base_revision": base })).await.ok(201);
    assert_eq!(client.count().await, count + 4);
    client.post(&path, json!({ "base_revision": base, "replace": true })).await.ok(201);
    assert_eq!(client.count().await, count + 2);
    client.get(&format!("/api/households/{half}")).await.ok(404);
    let noted: i64 = sqlx::query_scalar("select count(*) from marks where kind = 'deleted'")
        .fetch_one(&client.app.database)
        .await
        .unwrap();
    assert_eq!(noted, 4, "who put new ones in their place is noted at each");
    client.post(&format!("/api/households/{half}/restore"), json!({})).await.ok(204);
    assert_eq!(client.get(&path).await.ok(200)["into"].as_array().unwrap().len(), 3);

    let alone = client.household("Fennimore").await;
    let refused = client.get(&format!("/api/households/{alone}/divide")).await.ok(200)["refused"].clone();
    assert!(refused.as_str().unwrap().contains("two people file"), "{refused}");
}
