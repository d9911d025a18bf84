//! A practice under load: `cargo bench -p hembo --bench load`, some minutes with nothing else running. The server and its
//! durable database are processes of their own; who edits is in this one, on the same cores.
#![allow(missing_docs, clippy::unwrap_used, clippy::cast_precision_loss, clippy::float_arithmetic)]

#[path = "../tests/practice/mod.rs"]
mod practice;

use practice::{Person, Practice};
use serde_json::{Value, json};
use sqlx::{PgPool, postgres::PgPoolOptions};
use std::{
    future::Future,
    time::{Duration, Instant},
};
use uuid::Uuid;

const HOUSEHOLDS: usize = 2_000;
const CLIENTS: usize = 8;
const EDITORS: usize = 500;
const SPELL: Duration = Duration::from_secs(15);
const MINUTE: Duration = Duration::from_secs(60);

fn main() {
    tokio::runtime::Builder::new_multi_thread().enable_all().build().unwrap().block_on(async {
        let practice = Practice::start("load").await;
        let person = Person::signed_in(&practice.address()).await;
        println!("memory of the server with the demo data: {} MB", practice.memory() / 1_000_000);
        let ids = copied(&person).await;
        println!("memory with {HOUSEHOLDS} households: {} MB", practice.memory() / 1_000_000);

        let mut times = vec![];
        for n in 0..200 {
            times.push(timed(person.get(&format!("/api/households?from={}", n * 10 % HOUSEHOLDS))).await.0);
        }
        told("a page of the list of 2,000", &mut times, None);
        let mut times = vec![];
        for id in ids.iter().take(200) {
            times.push(timed(person.get(&format!("/api/households/{id}"))).await.0);
        }
        told("opening a household", &mut times, None);

        let edits = together(CLIENTS, SPELL, Duration::ZERO, &person, &ids).await;
        let bare = bare(&practice.database()).await;
        println!("an edit beside a bare update, insert and commit of its rows: {:.1} times", edits / bare);

        together(EDITORS, MINUTE, Duration::from_secs(4), &person, &ids).await;
        println!("memory after all of it: {} MB", practice.memory() / 1_000_000);
    });
}

async fn timed<T>(what: impl Future<Output = T>) -> (Duration, T) {
    let begun = Instant::now();
    let done = what.await;
    (begun.elapsed(), done)
}

/// Tells the times of a thing; the median in seconds.
fn told(what: &str, times: &mut [Duration], over: Option<Duration>) -> f64 {
    times.sort_unstable();
    let at = |part: usize| times[(times.len() * part / 1000).min(times.len() - 1)].as_secs_f64();
    let rate = over.map(|over| format!(", {:.0} a second", times.len() as f64 / over.as_secs_f64()));
    println!(
        "{what}: {} times{}; median {:.1} ms, 99 of 100 {:.1} ms, all {:.1} ms",
        times.len(),
        rate.unwrap_or_default(),
        at(500) * 1e3,
        at(990) * 1e3,
        at(1000) * 1e3
    );
    at(500)
}

/// The demo data again and again.
async fn copied(person: &Person) -> Vec<String> {
    let demo = person.households().await;
    let mut ids = demo.clone();
    while ids.len() < HOUSEHOLDS {
        let id = &demo[ids.len() % demo.len()];
        let (_, copy) = person.post(&format!("/api/households/{id}/copy"), &json!({})).await.unwrap();
        ids.push(copy["id"].as_str().unwrap().to_owned());
    }
    ids
}

/// So many people at once, each in a household of the own that they opened before; the median of an edit in seconds.
async fn together(people: usize, over: Duration, think: Duration, person: &Person, ids: &[String]) -> f64 {
    let mut opened = vec![];
    for id in ids.iter().take(people) {
        opened.push((id.clone(), person.get(&format!("/api/households/{id}")).await));
    }
    let each = opened.into_iter().enumerate();
    let all: Vec<_> = each.map(|(n, of)| tokio::spawn(works(person.clone(), of, over, think, n))).collect();
    let mut times = vec![];
    for one in all {
        times.extend(one.await.unwrap());
    }
    told(&format!("edits of {people} people, {} s to think", think.as_secs()), &mut times, Some(over))
}

/// Changes an amount of a household's papers again and again; how long each edit took.
async fn works(
    person: Person,
    (id, opened): (String, Value),
    over: Duration,
    think: Duration,
    n: usize,
) -> Vec<Duration> {
    let mut revision = opened["revision"].as_i64().unwrap();
    let at = amount(&opened);
    let mut times = vec![];
    let begun = Instant::now();
    // Nobody begins in the same moment.
    tokio::time::sleep(think * u32::try_from(n % 97).unwrap() / 97).await;
    while begun.elapsed() < over {
        let edit = at(times.len());
        let (took, done) = timed(person.edit(&id, revision, &edit, Uuid::new_v4())).await;
        revision = done.unwrap()["revision"].as_i64().unwrap();
        times.push(took);
        let odd = u32::try_from((times.len() * 37 + n * 61) % 100).unwrap();
        tokio::time::sleep(think / 2 + think * odd / 100).await;
    }
    times
}

/// The edits of one amount in a household's papers, its name where there is none.
fn amount(opened: &Value) -> impl Fn(usize) -> Value + use<> {
    let papers = opened["household"]["papers"].as_array().cloned().unwrap_or_default();
    let found = papers.iter().find_map(|paper| {
        let boxes = paper["boxes"].as_object()?;
        let is_amount = |value: &Value| value.as_str().is_some_and(|text| text.ends_with(".00"));
        let field = boxes.iter().find(|(_, value)| is_amount(value))?.0;
        Some((paper["id"].clone(), field.clone()))
    });
    move |n| match &found {
        Some((paper, field)) => {
            json!([{ "do": "set_box", "paper": paper, "field": field, "value": format!("{}.00", 20_000 + n) }])
        }
        None => json!([{ "do": "rename", "name": format!("Household {n}") }]),
    }
}

/// The rows of edits written bare: their household's row updated, their revision inserted, committed. The median in seconds.
async fn bare(database: &str) -> f64 {
    let pool = PgPoolOptions::new().max_connections(8).connect(database).await.unwrap();
    for table in ["households", "revisions"] {
        let like = format!("create table bare_{table} (like {table} including defaults including indexes)");
        sqlx::raw_sql(sqlx::AssertSqlSafe(like)).execute(&pool).await.unwrap();
    }
    sqlx::query("insert into bare_households select * from households").execute(&pool).await.unwrap();
    let newest = "select r.household, r.state, r.totals, h.search from revisions r
        join households h on h.id = r.household and h.revision = r.revision order by h.touched_at desc limit $1";
    let rows: Vec<(Uuid, Value, Value, String)> =
        sqlx::query_as(newest).bind(i64::try_from(CLIENTS).unwrap()).fetch_all(&pool).await.unwrap();
    let all: Vec<_> = rows.into_iter().map(|row| tokio::spawn(writes(pool.clone(), row))).collect();
    let mut times = vec![];
    for one in all {
        times.extend(one.await.unwrap());
    }
    told(&format!("bare edits of {CLIENTS} clients"), &mut times, Some(SPELL))
}

async fn writes(pool: PgPool, (id, state, totals, search): (Uuid, Value, Value, String)) -> Vec<Duration> {
    let mut times = vec![];
    let begun = Instant::now();
    for revision in 1_000_i64.. {
        if begun.elapsed() > SPELL {
            break;
        }
        let write = async {
            let mut transaction = pool.begin().await.unwrap();
            let update = "update bare_households set revision = $2, summary = $3, search = $4 where id = $1";
            let update = sqlx::query(update).bind(id).bind(revision).bind(&totals).bind(&search);
            update.execute(&mut *transaction).await.unwrap();
            let insert = "insert into bare_revisions (household, revision, kind, commands, state, totals, by_user, sealed_with)
                select $1, $2, 'edited', '[]', $3, $4, id, 'bare' from users limit 1";
            let insert = sqlx::query(insert).bind(id).bind(revision).bind(&state).bind(&totals);
            insert.execute(&mut *transaction).await.unwrap();
            transaction.commit().await.unwrap();
        };
        times.push(timed(write).await.0);
    }
    times
}
