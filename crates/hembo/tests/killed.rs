//! Server and database killed, and the disk full, in the middle of the work: nothing that was acknowledged is lost, and
//! nothing is made twice.
//! `HEMBO_ROUNDS=100 cargo test -p hembo --test killed` goes on longer.
#![allow(missing_docs, clippy::unwrap_used)]

mod practice;

use practice::{Person, Practice};
use serde_json::json;
use std::{
    sync::{
        Arc,
        atomic::{AtomicBool, Ordering},
    },
    time::Duration,
};
use uuid::Uuid;

const EDITORS: usize = 6;
const ROUNDS: u32 = 6;

/// Renames a household again and again, an unanswered edit until it is answered; the names by their revision.
async fn edits(person: Person, id: String, stop: Arc<AtomicBool>) -> (String, Vec<(i64, String)>) {
    let mut acknowledged = vec![];
    for n in 0.. {
        let (key, name) = (Uuid::new_v4(), format!("Household {n}"));
        let commands = json!([{ "do": "rename", "name": name }]);
        let base = acknowledged.last().map_or(1, |&(revision, _)| revision);
        loop {
            if stop.load(Ordering::SeqCst) {
                return (id, acknowledged);
            }
            if let Some(opened) = person.edit(&id, base, &commands, key).await {
                acknowledged.push((opened["revision"].as_i64().unwrap(), name));
                break;
            }
            tokio::time::sleep(Duration::from_millis(50)).await;
        }
    }
    (id, acknowledged)
}

#[tokio::test(flavor = "multi_thread")]
async fn nothing_acknowledged_is_lost_and_nothing_is_made_twice() {
    let rounds = std::env::var("HEMBO_ROUNDS").map_or(ROUNDS, |rounds| rounds.parse().unwrap());
    let mut practice = Practice::start("killed").await;
    let person = Person::signed_in(&practice.address()).await;
    let stop = Arc::new(AtomicBool::new(false));
    let households = person.households().await.into_iter().take(EDITORS);
    let editors: Vec<_> =
        households.map(|id| tokio::spawn(edits(person.clone(), id, stop.clone()))).collect();
    for round in 0..rounds {
        tokio::time::sleep(Duration::from_millis(1_500 + 130 * u64::from(round % 7))).await;
        match round % 3 {
            0 => practice.kill_server(),
            1 => practice.kill_database(),
            _ => practice.fill_disk(),
        }
        practice.ready().await;
    }
    tokio::time::sleep(Duration::from_millis(1_500)).await;
    stop.store(true, Ordering::SeqCst);
    let mut count = 0;
    for editor in editors {
        let (id, acknowledged) = editor.await.unwrap();
        count += acknowledged.len();
        for ((revision, name), expected) in acknowledged.into_iter().zip(2..) {
            assert_eq!(revision, expected, "an edit was made twice, or is missing");
            let there = person.get(&format!("/api/households/{id}/revisions/{revision}")).await;
            assert_eq!(there["household"]["name"], name.as_str(), "revision {revision} of {id}");
        }
    }
    println!("{rounds} rounds, {count} acknowledged edits, none lost");
    assert!(count > EDITORS * 5, "only {count} edits");
}
