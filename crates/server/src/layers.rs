//! What every request passes on its way in, and every answer on its way out.

use crate::{
    App,
    error::{Answer, Problem},
};
use axum::{
    RequestPartsExt,
    body::to_bytes,
    extract::{ConnectInfo, FromRequestParts, MatchedPath, RawPathParams, Request, State},
    http::{HeaderMap, StatusCode, header, request::Parts},
    middleware::Next,
    response::{IntoResponse, Response},
};
use std::{
    net::{IpAddr, SocketAddr},
    sync::Arc,
};
use tower_governor::{GovernorError, key_extractor::KeyExtractor};
use uuid::Uuid;

/// So many bytes an address with its query has at most.
const LONGEST_ADDRESS: usize = 8 * 1024;
/// So much of an answer in other words is read, to tell it in ours.
const LONGEST_REFUSAL: usize = 4 * 1024;

/// The household that a request is about, if any, with what follows it in the route.
pub struct About(pub Option<(Uuid, String)>);

impl FromRequestParts<App> for About {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Answer<About> {
        let path: MatchedPath = parts.extract().await.map_err(Problem::internal)?;
        let Some(tail) = path.as_str().strip_prefix("/api/households/{id}") else { return Ok(About(None)) };
        let params: RawPathParams = parts.extract_with_state(app).await.map_err(Problem::internal)?;
        let id = params.iter().find(|(name, _)| *name == "id").and_then(|(_, id)| Uuid::try_parse(id).ok());
        Ok(About(id.map(|id| (id, tail.to_owned()))))
    }
}

/// Refuses an address that is too long to be one of ours.
///
/// # Errors
/// 414.
pub async fn short_address(request: Request, next: Next) -> Result<Response, Problem> {
    let length = request.uri().path_and_query().map_or(0, |address| address.as_str().len());
    if length > LONGEST_ADDRESS {
        let detail = format!("An address has at most {LONGEST_ADDRESS} bytes with its query.");
        return Err(Problem::unreadable(StatusCode::URI_TOO_LONG, detail));
    }
    Ok(next.run(request).await)
}

/// Refuses a request for another host than those that are served; with none named, every one is.
///
/// # Errors
/// 421.
pub async fn known_host(
    State(hosts): State<Arc<[String]>>,
    request: Request,
    next: Next,
) -> Result<Response, Problem> {
    let by_header = request.headers().get(header::HOST).and_then(|host| host.to_str().ok());
    let host = request.uri().host().or(by_header).unwrap_or_default();
    let name = host.rsplit_once(':').filter(|(_, port)| port.bytes().all(|b| b.is_ascii_digit()));
    let name = name.map_or(host, |(name, _)| name);
    if hosts.is_empty() || hosts.iter().any(|known| known.eq_ignore_ascii_case(name)) {
        return Ok(next.run(request).await);
    }
    let detail = "This server does not answer under that name: see --host.";
    Err(Problem::unreadable(StatusCode::MISDIRECTED_REQUEST, detail))
}

/// A refusal that was not made here (a part of an address or a query that cannot be read, a method that is none) as a
/// problem like all others.
pub async fn refused_in_words(response: Response) -> Response {
    let status = response.status();
    let ours =
        response.headers().get(header::CONTENT_TYPE).is_some_and(|kind| kind == "application/problem+json");
    if !status.is_client_error() || ours {
        return response;
    }
    let allowed = response.headers().get(header::ALLOW).cloned();
    let words = to_bytes(response.into_body(), LONGEST_REFUSAL).await.unwrap_or_default();
    let words = String::from_utf8_lossy(&words).into_owned();
    let reason = status.canonical_reason().unwrap_or("Refused").to_owned();
    let mut told = Problem::unreadable(status, if words.is_empty() { reason } else { words }).into_response();
    if let Some(allowed) = allowed {
        told.headers_mut().insert(header::ALLOW, allowed);
    }
    told
}

/// From where a request comes: the address at the other end, or, where that is a proxy that is trusted, the last one that it
/// names; what stands before that anybody can write.
#[derive(Debug, Clone)]
pub struct Caller {
    /// The proxies that are trusted.
    pub proxies: Arc<[IpAddr]>,
}

impl Caller {
    fn of(&self, peer: IpAddr, headers: &HeaderMap) -> IpAddr {
        if !self.proxies.contains(&peer) {
            return peer;
        }
        let named = headers.get_all("x-forwarded-for").iter().filter_map(|value| value.to_str().ok());
        let mut last = named.flat_map(|value| value.split(',')).filter_map(|part| part.trim().parse().ok());
        last.next_back().unwrap_or(peer)
    }
}

impl KeyExtractor for Caller {
    type Key = IpAddr;

    fn extract<T>(&self, request: &axum::http::Request<T>) -> Result<IpAddr, GovernorError> {
        let peer = request.extensions().get::<ConnectInfo<SocketAddr>>();
        let peer = peer.ok_or(GovernorError::UnableToExtractKey)?.0.ip();
        Ok(self.of(peer, request.headers()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_a_trusted_proxy_is_believed_and_only_what_it_saw_itself() {
        let proxy: IpAddr = "10.0.0.2".parse().unwrap();
        let from = Caller { proxies: [proxy].into() };
        let headers = |named: &[&'static str]| {
            named
                .iter()
                .map(|one| (header::HeaderName::from_static("x-forwarded-for"), one.parse().unwrap()))
                .collect()
        };
        let of = |peer: IpAddr, named: &[&'static str]| from.of(peer, &headers(named)).to_string();
        let stranger = "192.0.2.9".parse().unwrap();
        assert_eq!(of(stranger, &["203.0.113.7"]), "192.0.2.9");
        assert_eq!(of(proxy, &["198.51.100.1, 203.0.113.7"]), "203.0.113.7");
        assert_eq!(of(proxy, &["198.51.100.1", "203.0.113.7"]), "203.0.113.7");
        assert_eq!(of(proxy, &[]), "10.0.0.2");
        assert_eq!(of(proxy, &["unknown"]), "10.0.0.2");
    }
}
