//! A durable cluster keeps its data over a restart; a throw-away one leaves nothing behind.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_cluster::{Cluster, Kind, programs};
use std::{env, fs, process::Command};

fn query(url: &str, sql: &str) -> String {
    let psql = programs().unwrap().join("psql");
    let output = Command::new(psql).args(["-X", "-q", "-t", "-A", "-c", sql, url]).output().unwrap();
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8_lossy(&output.stdout).trim().to_owned()
}

#[test]
fn data_survives_a_restart_and_a_database_is_made_once() {
    let folder = env::temp_dir().join(format!("hembo-durable-{}", std::process::id()));
    let cluster = Cluster::start(&folder, Kind::Durable).unwrap();
    cluster.create("desk").unwrap();
    query(&cluster.url("desk"), "create table kept (word text); insert into kept values ('lantern')");
    assert_eq!(query(&cluster.url("desk"), "show fsync"), "on");
    assert_eq!(query(&cluster.url("desk"), "show listen_addresses"), "127.0.0.1");
    drop(cluster);
    assert!(!folder.join("cluster/postmaster.pid").exists(), "the server still runs");
    let again = Cluster::start(&folder, Kind::Durable).unwrap();
    again.create("desk").unwrap();
    assert_eq!(query(&again.url("desk"), "select word from kept"), "lantern");
    drop(again);
    fs::remove_dir_all(folder).unwrap();
}

#[test]
fn a_throw_away_cluster_leaves_nothing_behind() {
    let folder = env::temp_dir().join(format!("hembo-gone-{}", std::process::id()));
    let cluster = Cluster::start(&folder, Kind::ThrowAway).unwrap();
    assert_eq!(query(&cluster.url("postgres"), "select 1 + 1"), "2");
    let wrong = cluster.url("postgres").replace(":", ":x");
    let psql = programs().unwrap().join("psql");
    assert!(!Command::new(psql).args(["-c", "select 1", &wrong]).output().unwrap().status.success());
    drop(cluster);
    assert!(!folder.exists());
}
