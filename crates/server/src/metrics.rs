//! What the server counts of itself, in the text format of Prometheus: requests by route and status, how long they and the
//! reckonings took, connections to the database, and the process. No name, number or amount is in it.

use crate::{App, api::health};
use axum::{
    Router,
    extract::{MatchedPath, Request, State},
    http::{StatusCode, header},
    middleware::Next,
    response::{IntoResponse, Response},
    routing::get,
};
use prometheus::{
    Encoder, Histogram, HistogramOpts, HistogramVec, IntCounterVec, IntGaugeVec, Opts, Registry, TextEncoder,
    process_collector::ProcessCollector,
};
use std::time::{Duration, Instant};

/// In seconds; what takes longer than the last is counted beyond.
const BUCKETS: [f64; 10] = [0.002, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 1.0, 5.0, 30.0];

/// What is counted.
#[derive(Debug, Clone)]
pub struct Metrics {
    registry: Registry,
    requests: IntCounterVec,
    seconds: HistogramVec,
    reckonings: Histogram,
    connections: IntGaugeVec,
}

impl Metrics {
    /// Nothing is counted yet.
    ///
    /// # Errors
    /// A name that is there twice, which must not happen.
    pub fn new() -> prometheus::Result<Metrics> {
        let registry = Registry::new();
        let times = |name: &str, help: &str| HistogramOpts::new(name, help).buckets(BUCKETS.to_vec());
        let requests = Opts::new("hembo_requests_total", "Requests that were answered.");
        let requests = IntCounterVec::new(requests, &["method", "route", "status"])?;
        let seconds = times("hembo_request_seconds", "How long requests took.");
        let seconds = HistogramVec::new(seconds, &["method", "route"])?;
        let reckonings = times(
            "hembo_reckoning_seconds",
            "How long a household took to be reckoned, the wait for a core included.",
        );
        let reckonings = Histogram::with_opts(reckonings)?;
        let connections = Opts::new("hembo_database_connections", "Connections to the database.");
        let connections = IntGaugeVec::new(connections, &["state"])?;
        registry.register(Box::new(requests.clone()))?;
        registry.register(Box::new(seconds.clone()))?;
        registry.register(Box::new(reckonings.clone()))?;
        registry.register(Box::new(connections.clone()))?;
        registry.register(Box::new(ProcessCollector::for_self()))?;
        Ok(Metrics { registry, requests, seconds, reckonings, connections })
    }

    /// A household was reckoned.
    pub fn reckoned(&self, took: Duration) {
        self.reckonings.observe(took.as_secs_f64());
    }

    /// As text.
    fn written(&self) -> prometheus::Result<String> {
        TextEncoder::new().encode_to_string(&self.registry.gather())
    }
}

/// Counts a request, by its route: a path may hold a name.
pub async fn counted(State(app): State<App>, request: Request, next: Next) -> Response {
    let began = Instant::now();
    let route = request.extensions().get::<MatchedPath>().map_or("file", MatchedPath::as_str).to_owned();
    let method = request.method().as_str().to_owned();
    let response = next.run(request).await;
    let metrics = &app.metrics;
    metrics.seconds.with_label_values(&[&method, &route]).observe(began.elapsed().as_secs_f64());
    metrics.requests.with_label_values(&[&method, &route, response.status().as_str()]).inc();
    response
}

/// What is listened to on a port of its own: the metrics, and whether the server lives and can work.
pub fn router(app: App) -> Router {
    Router::new()
        .route("/metrics", get(metrics))
        .route("/live", get(health::live))
        .route("/ready", get(health::health))
        .with_state(app)
}

async fn metrics(State(app): State<App>) -> Response {
    let (all, idle) = (app.database.size(), app.database.num_idle());
    let idle = i64::try_from(idle).unwrap_or_default();
    let connections = &app.metrics.connections;
    connections.with_label_values(&["idle"]).set(idle);
    connections.with_label_values(&["used"]).set(i64::from(all) - idle);
    match app.metrics.written() {
        Ok(text) => {
            ([(header::CONTENT_TYPE, TextEncoder::new().format_type().to_owned())], text).into_response()
        }
        Err(error) => {
            tracing::error!(%error, "the metrics cannot be written");
            StatusCode::INTERNAL_SERVER_ERROR.into_response()
        }
    }
}
