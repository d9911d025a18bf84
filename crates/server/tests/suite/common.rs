//! A server on a database of its own, and a client that keeps its cookie and token.

use axum::{
    Router,
    body::{Body, to_bytes},
    extract::ConnectInfo,
    http::{HeaderMap, Request, StatusCode, header},
};
use hembo_authority::{data::Data, stand_in::StandIn};
use hembo_cluster::Cluster;
use hembo_core::slip::{
    Area, Word,
    file::{Page, Unreadable},
};
use hembo_server::{
    App, Settings, demo, metrics::Metrics, reading::Reader, router, rules::Rules, seal::Sealer, turns::Turns,
    work::Trails,
};
pub use hembo_testing::laws::EVERY_LAW as REGISTRY;
use serde_json::{Value, json};
use sqlx::postgres::PgPoolOptions;
use std::{
    net::SocketAddr,
    path::{Path, PathBuf},
    sync::Arc,
};
use tokio::net::TcpListener;
use tower::ServiceExt;

/// How many households the demo data has.
pub fn demo_households() -> usize {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let files = |country: std::fs::DirEntry| std::fs::read_dir(country.path()).unwrap().count();
    std::fs::read_dir(folder).unwrap().map(|country| files(country.unwrap())).sum()
}

/// Reads files whose text has a word a line with its place, `1200 400 W-2`; each is one page.
#[derive(Debug)]
struct Lines;

/// A picture of one dot.
pub const DOT: &str =
    "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==";

#[async_trait::async_trait]
impl Reader for Lines {
    async fn read(&self, file: &[u8]) -> Result<Vec<Page>, Unreadable> {
        let text = String::from_utf8_lossy(file);
        if text.contains("broken") {
            return Err(Unreadable("The PDF is damaged.".into()));
        }
        let word = |line: &str| {
            let (left, rest) = line.split_once(' ')?;
            let (top, text) = rest.split_once(' ')?;
            let (left, top) = (left.parse().ok()?, top.parse().ok()?);
            let width = 60 * i32::try_from(text.len()).ok()?;
            Some(Word { text: text.into(), at: Area { left, top, width, height: 120 } })
        };
        Ok(vec![Page { picture: DOT.into(), words: text.lines().filter_map(word).collect() }])
    }
}

/// A server with the demo data, signed in or not.
#[derive(Clone)]
pub struct Client {
    pub app: App,
    router: Router,
    cookie: Option<String>,
    token: String,
}

/// An answer: status, headers, body as JSON (or text).
pub struct Answer {
    pub status: StatusCode,
    pub headers: HeaderMap,
    pub body: Value,
}

impl Answer {
    /// The body of an answer with that status.
    pub fn ok(self, status: u16) -> Value {
        assert_eq!(self.status.as_u16(), status, "{:#}", self.body);
        self.body
    }
}

impl Client {
    pub async fn new(name: &str) -> Client {
        Client::beside(name, None).await
    }

    /// A server beside a stand-in for the authority of its own, signed in, and the stand-in's address.
    pub async fn with_authority(name: &str) -> (Client, String) {
        let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../authority/data");
        let stand_in = StandIn::new(Data::read(&folder).unwrap(), REGISTRY.clone(), None).unwrap();
        let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
        let address = format!("http://{}", listener.local_addr().unwrap());
        tokio::spawn(async move { axum::serve(listener, stand_in.router()).await });
        let mut client = Client::beside(name, Some(address.clone())).await;
        client.sign_in(demo::PASSWORD).await.ok(200);
        (client, address)
    }

    async fn beside(name: &str, authority: Option<String>) -> Client {
        let key = std::env::temp_dir().join(format!("hembo-key-{name}-{}", std::process::id()));
        let client = Client::with_key(name, &key, authority).await;
        std::fs::remove_file(key).unwrap();
        client
    }

    /// A server whose keys lie in a file.
    pub async fn with_key(name: &str, key: &Path, authority: Option<String>) -> Client {
        let settings = Settings {
            web: PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("tests/site"),
            authority,
            ..Settings::of(&Cluster::test_database(name).unwrap(), key)
        };
        let mut app = hembo_server::app(&settings, REGISTRY.clone()).await.unwrap();
        app.reader = Arc::new(Lines);
        let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
        demo::load(&app, &folder).await.unwrap();
        Client { router: router(app.clone(), &settings, false), app, cookie: None, token: String::new() }
    }

    /// Another server on the same database, with nobody signed in.
    pub async fn second_server(&self) -> Client {
        self.second_server_by(self.app.sealer.clone()).await
    }

    /// The same, with keys of its own.
    pub async fn second_server_by(&self, sealer: Sealer) -> Client {
        let options = PgPoolOptions::new().max_connections(10);
        let database = options.connect_with((*self.app.database.connect_options()).clone()).await.unwrap();
        let app = App {
            database,
            sealer,
            rules: Rules::of(REGISTRY.clone()),
            turns: Turns::default(),
            trails: Trails::default(),
            metrics: Metrics::new().unwrap(),
            ..self.app.clone()
        };
        let settings = Settings {
            web: PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("tests/site"),
            ..Settings::of("", Path::new(""))
        };
        Client { router: router(app.clone(), &settings, false), app, cookie: None, token: String::new() }
    }

    /// The same person's session, at another server.
    pub fn at(&self, other: &Client) -> Client {
        Client { cookie: self.cookie.clone(), token: self.token.clone(), ..other.clone() }
    }

    /// The cookie of the session.
    pub fn cookie(&self) -> &str {
        self.cookie.as_deref().unwrap_or_default()
    }

    pub async fn signed_in(name: &str) -> Client {
        let mut client = Client::new(name).await;
        client.sign_in(demo::PASSWORD).await.ok(200);
        client
    }

    pub async fn sign_in(&mut self, password: &str) -> Answer {
        self.sign_in_as("Demo", password).await
    }

    pub async fn sign_in_as(&mut self, login: &str, password: &str) -> Answer {
        let answer = self.post("/api/session", json!({ "login": login, "password": password })).await;
        if answer.status == StatusCode::OK {
            let cookie = answer.headers[header::SET_COOKIE].to_str().unwrap();
            self.cookie = Some(cookie.split(';').next().unwrap().to_owned());
            self.token = answer.body["token"].as_str().unwrap().to_owned();
        }
        answer
    }

    pub fn without_token(&self) -> Client {
        Client { token: "guessed".into(), ..self.clone() }
    }

    pub async fn get(&self, path: &str) -> Answer {
        self.send("GET", path, Body::empty()).await
    }

    pub async fn delete(&self, path: &str) -> Answer {
        self.send("DELETE", path, Body::empty()).await
    }

    pub async fn post(&self, path: &str, body: Value) -> Answer {
        self.send("POST", path, Body::from(body.to_string())).await
    }

    pub async fn put(&self, path: &str, body: Value) -> Answer {
        self.send("PUT", path, Body::from(body.to_string())).await
    }

    /// The same server, with nobody signed in.
    pub fn stranger(&self) -> Client {
        Client { cookie: None, token: String::new(), ..self.clone() }
    }

    /// The same server, with somebody else signed in.
    pub async fn other(&self, login: &str) -> Client {
        let mut other = self.stranger();
        other.sign_in_as(login, demo::PASSWORD).await.ok(200);
        other
    }

    pub async fn send(&self, method: &str, path: &str, body: Body) -> Answer {
        let mut request =
            Request::builder().method(method).uri(path).header(header::CONTENT_TYPE, "application/json");
        if let Some(cookie) = &self.cookie {
            request = request.header(header::COOKIE, cookie).header("x-hembo-token", &self.token);
        }
        let address: SocketAddr = "127.0.0.1:9".parse().unwrap();
        let request = request.extension(ConnectInfo(address)).body(body).unwrap();
        let answer = self.router.clone().oneshot(request).await.unwrap();
        let (parts, body) = answer.into_parts();
        let bytes = to_bytes(body, 50_000_000).await.unwrap();
        let text = || Value::String(String::from_utf8_lossy(&bytes).into_owned());
        Answer {
            status: parts.status,
            headers: parts.headers,
            body: serde_json::from_slice(&bytes).unwrap_or_else(|_| text()),
        }
    }

    /// The id of a demo household.
    pub async fn household(&self, name: &str) -> String {
        let list = self.get("/api/households").await.ok(200);
        let found = list["rows"].as_array().unwrap().iter().find(|h| h["name"] == name).unwrap();
        found["id"].as_str().unwrap().to_owned()
    }

    /// How many households the list counts.
    pub async fn count(&self) -> u64 {
        self.get("/api/households").await.ok(200)["count"].as_u64().unwrap()
    }

    /// Every line of a revision.
    pub async fn lines(&self, id: &str, revision: i64) -> Vec<Value> {
        let lines = self.get(&format!("/api/households/{id}/revisions/{revision}/lines")).await.ok(200);
        lines.as_array().unwrap().clone()
    }

    pub async fn edit(&self, id: &str, base: i64, commands: Value) -> Answer {
        let body = json!({ "base_revision": base, "commands": commands });
        self.post(&format!("/api/households/{id}/edits"), body).await
    }
}
