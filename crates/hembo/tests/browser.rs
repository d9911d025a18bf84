//! The browser suite: the real server on a free port with its own database, and Playwright in Debian's Chromium.
#![allow(missing_docs, clippy::unwrap_used, clippy::type_complexity)]

use hembo_authority::{data::Data, stand_in::StandIn};
use hembo_cluster::Cluster;
use hembo_server::{Settings, app, demo, reading::Program, run};
use hembo_testing::laws::EVERY_LAW as REGISTRY;
use std::sync::Arc;
use std::{future::pending, path::PathBuf, process::Command};
use tokio::net::TcpListener;

#[tokio::test(flavor = "multi_thread")]
async fn a_preparers_work_through_the_real_interface() {
    let root = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../..");
    let web = root.join("web/dist");
    assert!(web.join("index.html").is_file(), "the front end is not built: run cargo xtask test");
    let stand_in =
        StandIn::new(Data::read(&root.join("crates/authority/data")).unwrap(), REGISTRY.clone(), None);
    let outside = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let authority = format!("http://{}", outside.local_addr().unwrap());
    let stand_in = stand_in.unwrap().with_camera(hembo_reader::picture_of).router();
    let played = tokio::spawn(async move { axum::serve(outside, stand_in).await });
    let key = std::env::temp_dir().join(format!("hembo-key-browser-{}", std::process::id()));
    let database = Cluster::test_database("browser").unwrap();
    let settings = Settings { web, authority: Some(authority.clone()), ..Settings::of(&database, &key) };
    let mut app = app(&settings, REGISTRY.clone()).await.unwrap();
    app.reader = Arc::new(Program(env!("CARGO_BIN_EXE_hembo").into()));
    std::fs::remove_file(key).unwrap();
    demo::load(&app, &root.join("demo")).await.unwrap();
    let listener = TcpListener::bind(settings.listen).await.unwrap();
    let address = format!("http://{}", listener.local_addr().unwrap());
    let server = tokio::spawn(async move { run(app, &settings, listener, pending()).await });

    let mut suite = Command::new("node");
    suite.current_dir(root.join("tests")).env("BASE_URL", address).env("AUTHORITY_URL", authority);
    suite.args(["node_modules/@playwright/test/cli.js", "test"]);
    let status = tokio::task::spawn_blocking(move || suite.status()).await.unwrap().unwrap();
    server.abort();
    played.abort();
    assert!(status.success(), "the browser suite failed; its report stands above");
}
