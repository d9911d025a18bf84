//! The routes with their layers, from the outside in: request ids and logs, limits, headers, sessions, the token.

use crate::{
    App, Settings,
    api::{
        audit, certificate, checking, dates, divide, edits, erasing, figures, filed, files, filing, handover,
        health, history, households, letters, lists, outside, own_assessment, packs, payers, people,
        planning, practice, progress, rereckoned, second, supposed, trials, views,
    },
    auth::{self, Administrator, By, Role, sessions::Sessions},
    error::Problem,
    front,
    layers::{Caller, known_host, refused_in_words, short_address},
    metrics,
};
use axum::{
    Router,
    extract::{DefaultBodyLimit, MatchedPath},
    http::{HeaderName, HeaderValue, StatusCode, header},
    middleware::{self, from_extractor_with_state},
    response::IntoResponse,
    routing::any,
};
use hembo_core::check::LARGEST_FILE;
use serde_json::json;
use std::{sync::Arc, time::Duration};
use tower_governor::{GovernorError, GovernorLayer, governor::GovernorConfigBuilder};
use tower_http::{
    CompressionLevel,
    catch_panic::CatchPanicLayer,
    compression::CompressionLayer,
    request_id::{MakeRequestUuid, PropagateRequestIdLayer, SetRequestIdLayer},
    set_header::SetResponseHeaderLayer,
    timeout::{RequestBodyTimeoutLayer, TimeoutLayer},
    trace::TraceLayer,
};
use tower_sessions::{Expiry, SessionManagerLayer, cookie::SameSite};
use utoipa::{OpenApi, openapi::extensions::Extensions};
use utoipa_axum::{
    router::{OpenApiRouter, UtoipaMethodRouterExt},
    routes,
};

/// How many sign-in tries one address has at once, and after how many seconds it gets another.
const TRIES: u32 = 10;
const SECONDS_A_TRY: u64 = 6;
/// A browser that came by HTTPS comes by it for a year.
const HTTPS_FOR_A_YEAR: &str = "max-age=31536000";
const LONGEST_REQUEST: Duration = Duration::from_secs(30);
/// So long nothing may come of a body that has begun.
const LONGEST_SILENCE: Duration = Duration::from_secs(10);

const SECURITY: &str = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; \
    img-src 'self' data:; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'";

#[derive(OpenApi)]
#[openapi(info(title = "Hembo", description = "A desk for someone who prepares a household's income tax."))]
struct Description;

/// What everyone of the practice may call.
fn members() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Description::openapi())
        .routes(routes!(auth::who, auth::sign_out))
        .routes(routes!(packs::known))
        .routes(routes!(figures::rule_figures))
        .routes(routes!(rereckoned::rereckoned))
        .routes(routes!(planning::planning))
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
        .routes(routes!(practice::practice))
        .routes(routes!(people::set_own_password))
        .routes(routes!(people::own_sessions, people::end_other_sessions))
        .routes(routes!(second::second_factor, second::begin_second_factor, second::ask_second_factor))
        .routes(routes!(second::end_second_factor))
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
        .routes(routes!(history::entered))
        .routes(routes!(trials::trials, trials::begin_trial))
        .routes(routes!(trials::trial, trials::rename_trial))
        .routes(routes!(trials::quick_move))
        .routes(routes!(trials::apply_trial))
        .routes(routes!(trials::follow_trial))
        .routes(routes!(views::trail))
        .routes(routes!(views::lines))
        .routes(routes!(views::ways))
        .routes(routes!(views::ways_beside))
        .routes(routes!(views::schedules))
        .routes(routes!(views::schedules_before))
        .routes(routes!(certificate::of))
        .routes(routes!(certificate::file))
        .routes(routes!(views::effect))
        .routes(routes!(views::advice))
        .routes(routes!(views::edges_by_date))
        .routes(routes!(views::withholding))
        .routes(routes!(views::curve))
        .routes(routes!(supposed::suppose))
        .routes(routes!(supposed::stepped))
        .routes(routes!(views::about))
        .routes(routes!(views::questions))
        .routes(routes!(views::reveal))
}

/// What administrators may call.
fn administrators() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(figures::keep))
        .routes(routes!(figures::weigh))
        .routes(routes!(figures::take_back))
        .routes(routes!(practice::set_practice))
        .routes(routes!(audit::audit))
        .routes(routes!(audit::audit_file))
        .routes(routes!(erasing::look_at_erasing))
        .routes(routes!(erasing::erase_household))
        .routes(routes!(erasing::erased_households))
        .routes(routes!(people::people, people::add_person))
        .routes(routes!(people::set_person))
        .routes(routes!(people::invite_person))
        .routes(routes!(people::sign_person_out))
}

/// What anyone may call, signed in or not.
fn open_to_all() -> OpenApiRouter<App> {
    OpenApiRouter::new()
        .routes(routes!(auth::sign_in))
        .routes(routes!(people::look_at_link, people::use_link))
}

/// What the machines around the server ask, without a session.
fn of_machines() -> OpenApiRouter<App> {
    OpenApiRouter::new().routes(routes!(health::health)).routes(routes!(health::live))
}

/// The roles of who may call an operation; everyone, where it is empty.
const MAY_CALL: &str = "x-may-call";

/// Says of every route of a router who may call it.
fn told(mut router: OpenApiRouter<App>, roles: &[Role]) -> OpenApiRouter<App> {
    let who = Extensions::builder().add(MAY_CALL, json!(roles)).build();
    for path in router.get_openapi_mut().paths.paths.values_mut() {
        let methods = [&mut path.get, &mut path.put, &mut path.post, &mut path.delete, &mut path.patch];
        for operation in methods.into_iter().flatten() {
            operation.extensions.get_or_insert_default().merge(who.clone());
        }
    }
    router
}

/// The OpenAPI description, as committed in `web/openapi.json`.
pub fn openapi_json() -> String {
    let open = open_to_all().merge(of_machines());
    let mut described = told(members(), &Role::ALL)
        .merge(told(administrators(), &[Role::Administrator]))
        .merge(told(open, &[]));
    let json = described.get_openapi_mut().to_pretty_json();
    json.expect("the description of the API is plain data")
}

/// The whole application: the API below `/api`, the front end's files elsewhere. `secure` where it is reached by HTTPS.
pub fn router(app: App, settings: &Settings, secure: bool) -> Router {
    let sessions = SessionManagerLayer::new(Sessions(app.database.clone()))
        .with_name("hembo")
        .with_same_site(SameSite::Strict)
        .with_http_only(true)
        .with_secure(secure)
        .with_expiry(Expiry::OnSessionEnd);
    let from = Caller { proxies: settings.proxies.as_slice().into() };
    let tries = GovernorConfigBuilder::default()
        .per_second(SECONDS_A_TRY)
        .burst_size(TRIES)
        .key_extractor(from)
        .finish();
    let tries = GovernorLayer::new(Arc::new(tries.expect("the limit on tries is not zero")))
        .error_handler(|refused| too_fast(&refused).into_response());
    // Whatever a handler asks for: a route that stands in a router is of its roles.
    let members = Router::from(members())
        .layer(middleware::from_fn_with_state(app.clone(), audit::noted))
        .layer(middleware::from_fn_with_state(app.clone(), auth::in_sight))
        .layer(from_extractor_with_state::<By, App>(app.clone()));
    let administrators = Router::from(administrators());
    let administrators = administrators.layer(from_extractor_with_state::<Administrator, App>(app.clone()));
    let guarded = members.merge(administrators).layer(middleware::from_fn(auth::guard));
    let sign_in = Router::from(open_to_all()).layer(tries);
    // What is told of a household stays in no cache.
    let no_store = header_layer(header::CACHE_CONTROL, "no-store");
    let hosts: Arc<[String]> = settings.hosts.as_slice().into();
    let router = Router::new()
        .merge(guarded)
        .merge(sign_in)
        .layer(middleware::map_response(refused_in_words))
        .layer(no_store)
        .layer(sessions)
        .merge(Router::from(of_machines()))
        .route("/api/{*rest}", any(async || Problem::not_found("address")))
        .merge(front::files(&settings.web))
        .with_state(app.clone())
        .layer(middleware::from_fn(short_address))
        .layer(middleware::from_fn_with_state(hosts, known_host))
        .layer(DefaultBodyLimit::max(LARGEST_FILE))
        .layer(RequestBodyTimeoutLayer::new(LONGEST_SILENCE))
        .layer(TimeoutLayer::with_status_code(StatusCode::GATEWAY_TIMEOUT, LONGEST_REQUEST))
        .layer(CompressionLayer::new().quality(CompressionLevel::Fastest))
        .layer(CatchPanicLayer::new())
        .layer(middleware::from_fn_with_state(app, metrics::counted))
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
        .layer(SetRequestIdLayer::x_request_id(MakeRequestUuid));
    if secure {
        router.layer(header_layer(header::STRICT_TRANSPORT_SECURITY, HTTPS_FOR_A_YEAR))
    } else {
        router
    }
}

/// One address tries to sign in too often.
fn too_fast(refused: &GovernorError) -> Problem {
    let wait = match refused {
        GovernorError::TooManyRequests { wait_time, .. } => *wait_time,
        _ => SECONDS_A_TRY,
    };
    Problem::too_many(Duration::from_secs(wait.max(1)))
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
