//! The routes with their layers, from the outside in: request ids and logs, limits, headers, sessions, the token.

use crate::{
    App,
    api::{
        checking, dates, divide, edits, figures, filed, files, filing, handover, health, history, households,
        letters, lists, outside, own_assessment, packs, payers, practice, progress, rereckoned, views,
    },
    auth::{self, sessions::Sessions},
    error::Problem,
};
use axum::{
    Router,
    extract::{DefaultBodyLimit, MatchedPath},
    http::{HeaderName, HeaderValue, StatusCode, header},
    middleware,
    response::IntoResponse,
    routing::any,
};
use hembo_core::check::LARGEST_FILE;
use std::{path::Path, sync::Arc, time::Duration};
use tower_governor::{GovernorLayer, governor::GovernorConfigBuilder};
use tower_http::{
    catch_panic::CatchPanicLayer,
    compression::CompressionLayer,
    request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer},
    services::{ServeDir, ServeFile},
    set_header::SetResponseHeaderLayer,
    timeout::TimeoutLayer,
    trace::TraceLayer,
};
use tower_sessions::{Expiry, SessionManagerLayer, cookie::SameSite};
use utoipa::OpenApi;
use utoipa_axum::{
    router::{OpenApiRouter, UtoipaMethodRouterExt},
    routes,
};

/// How many sign-in tries one address has at once, and after how many seconds it gets another.
const TRIES: u32 = 10;
const SECONDS_A_TRY: u64 = 6;
const HOURS_SIGNED_IN: i64 = 12;
const LONGEST_REQUEST: Duration = Duration::from_secs(30);

const SECURITY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; \
    img-src 'self' data:; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

#[derive(OpenApi)]
#[openapi(info(title = "Hembo", description = "A desk for someone who prepares a household's income tax."))]
struct Description;

fn api() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Description::openapi())
        .routes(routes!(auth::who, auth::sign_out))
        .routes(routes!(packs::known))
        .routes(routes!(figures::rule_figures, figures::keep))
        .routes(routes!(figures::weigh))
        .routes(routes!(figures::take_back))
        .routes(routes!(rereckoned::rereckoned))
        .routes(routes!(rereckoned::see_rereckoned))
        .routes(routes!(households::list, households::make))
        .routes(routes!(households::import))
        .routes(routes!(households::open, households::delete))
        .routes(routes!(households::copy))
        .routes(routes!(households::carry_forward))
        .routes(routes!(divide::dividing, divide::divide_household))
        .routes(routes!(households::years))
        .routes(routes!(households::restore))
        .routes(routes!(households::archive))
        .routes(routes!(households::unarchive))
        .routes(routes!(households::export))
        .routes(routes!(payers::payers))
        .routes(routes!(payers::correct_payer))
        .routes(routes!(practice::practice, practice::set_practice))
        .routes(routes!(progress::progress, progress::take_step, progress::take_step_back))
        .routes(routes!(progress::put_in_hands))
        .routes(routes!(checking::notes, checking::add_note))
        .routes(routes!(checking::change_note))
        .routes(routes!(checking::ticks, checking::tick))
        .routes(routes!(handover::packs, handover::make_pack))
        .routes(routes!(handover::pack_file))
        .routes(routes!(handover::pack_part))
        .routes(routes!(handover::xlsx))
        .routes(routes!(handover::csv))
        .routes(routes!(handover::keep_set))
        .routes(routes!(handover::drop_set))
        .routes(routes!(letters::letter, letters::make_letter, letters::keep_letter))
        .routes(routes!(letters::letter_docx))
        .routes(routes!(letters::letter_pdf))
        .routes(routes!(letters::keep_template))
        .routes(routes!(letters::drop_template))
        .routes(routes!(outside::outside_view))
        .routes(routes!(outside::ask_consent))
        .routes(routes!(outside::look_at_consent, outside::end_consent))
        .routes(routes!(outside::fetch))
        .routes(routes!(own_assessment::own_assessment))
        .routes(routes!(outside::settle_slips))
        .routes(routes!(outside::if_taken))
        .routes(routes!(outside::set_asked))
        .routes(routes!(filing::filings, filing::file_returns))
        .routes(routes!(filing::look_at_filing))
        .routes(routes!(filing::send_document))
        .routes(routes!(filed::receipt_file))
        .routes(routes!(filed::schedules_filed))
        .routes(routes!(lists::look_at_table, lists::table))
        .routes(
            routes!(files::look_at_file, files::keep_file).layer(DefaultBodyLimit::max(files::LARGEST_BODY)),
        )
        .routes(routes!(files::file))
        .routes(routes!(files::file_page))
        .routes(routes!(dates::due_dates))
        .routes(routes!(dates::calendar_file))
        .routes(routes!(edits::edit))
        .routes(routes!(edits::undo))
        .routes(routes!(edits::redo))
        .routes(routes!(edits::bring_back))
        .routes(routes!(history::history))
        .routes(routes!(history::revision))
        .routes(routes!(history::since))
        .routes(routes!(views::trail))
        .routes(routes!(views::lines))
        .routes(routes!(views::ways))
        .routes(routes!(views::schedules))
        .routes(routes!(views::schedules_before))
        .routes(routes!(views::effect))
        .routes(routes!(views::advice))
        .routes(routes!(views::withholding))
        .routes(routes!(views::curve))
        .routes(routes!(views::about))
        .routes(routes!(views::questions))
        .routes(routes!(views::reveal))
}

fn open_to_all() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(auth::sign_in))
}

/// The OpenAPI description, as committed in `web/openapi.json`.
pub fn openapi_json() -> String {
    let mut described = api().merge(open_to_all()).routes(routes!(health::health));
    let json = described.get_openapi_mut().to_pretty_json();
    json.expect("the description of the API is plain data")
}

/// The whole application: the API below `/api`, the front end's files elsewhere.
pub fn router(app: App, web: &Path, secure_cookies: bool) -> Router {
    let sessions = SessionManagerLayer::new(Sessions(app.database.clone()))
        .with_name("hembo")
        .with_same_site(SameSite::Strict)
        .with_http_only(true)
        .with_secure(secure_cookies)
        .with_expiry(Expiry::OnInactivity(time::Duration::hours(HOURS_SIGNED_IN)));
    let tries = GovernorConfigBuilder::default().per_second(SECONDS_A_TRY).burst_size(TRIES).finish();
    let tries = GovernorLayer::new(Arc::new(tries.expect("the limit on tries is not zero")))
        .error_handler(|_| Problem::too_many().into_response());
    let guarded = Router::from(api()).layer(middleware::from_fn(auth::guard));
    let sign_in = Router::from(open_to_all()).layer(tries);
    // What is told of a household stays in no cache.
    let no_store = header_layer(header::CACHE_CONTROL, "no-store");
    let files = ServeDir::new(web).fallback(ServeFile::new(web.join("index.html")));
    Router::new()
        .merge(guarded)
        .merge(sign_in)
        .layer(no_store)
        .layer(sessions)
        .merge(Router::from(OpenApiRouter::new().routes(routes!(health::health))))
        .route("/api/{*rest}", any(async || Problem::not_found("address")))
        .fallback_service(files)
        .with_state(app)
        .layer(DefaultBodyLimit::max(LARGEST_FILE))
        .layer(TimeoutLayer::with_status_code(StatusCode::GATEWAY_TIMEOUT, LONGEST_REQUEST))
        .layer(CompressionLayer::new())
        .layer(CatchPanicLayer::new())
        .layer(header_layer(header::CONTENT_SECURITY_POLICY, SECURITY))
        .layer(header_layer(header::X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .layer(header_layer(header::X_FRAME_OPTIONS, "DENY"))
        .layer(header_layer(header::REFERRER_POLICY, "no-referrer"))
        .layer(header_layer(HeaderName::from_static("cross-origin-opener-policy"), "same-origin"))
        .layer(header_layer(
            HeaderName::from_static("permissions-policy"),
            "camera=(), microphone=(), geolocation=()",
        ))
        .layer(SetResponseHeaderLayer::if_not_present(
            header::CACHE_CONTROL,
            HeaderValue::from_static("no-cache"),
        ))
        .layer(PropagateRequestIdLayer::x_request_id())
        .layer(TraceLayer::new_for_http().make_span_with(span))
        .layer(SetRequestIdLayer::x_request_id(MakeRequestUuid))
}

fn header_layer(name: HeaderName, value: &'static str) -> SetResponseHeaderLayer<HeaderValue> {
    SetResponseHeaderLayer::overriding(name, HeaderValue::from_static(value))
}

/// What a log line says about a request: the route, not the path (a person's short name may stand in that), and
/// neither query nor body.
fn span(request: &axum::extract::Request) -> tracing::Span {
    let route = request.extensions().get::<MatchedPath>().map_or("file", MatchedPath::as_str);
    let id = request.headers().get("x-request-id").and_then(|h| h.to_str().ok()).unwrap_or_default();
    tracing::info_span!("request", method = %request.method(), route, id)
}
