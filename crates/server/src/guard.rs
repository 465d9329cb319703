//! Who may ask: this machine's own pages, by a name that is this machine's.

use axum::extract::Request;
use axum::http::uri::Authority;
use axum::http::{HeaderMap, HeaderName, HeaderValue, Method, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};
use serde_json::Value;
use sunrise_core::basis::fault::{Fault, shortened};
use sunrise_core::basis::words::say;

use crate::pages;
use crate::problem::Problem;

/// Refuses names that a foreign page could have pointed at this machine (DNS rebinding), and
/// changes that another page asks for.
pub async fn own_pages_only(request: Request, next: Next) -> Response {
    let host = match host_of(request.headers()) {
        Ok(host) => host,
        Err(problem) => return problem.into_response(),
    };
    let asks_only = [Method::GET, Method::HEAD, Method::OPTIONS].contains(request.method());
    if !asks_only && let Some(origin) = foreign_origin(request.headers(), &host) {
        return Problem::fault(
            StatusCode::FORBIDDEN,
            Fault {
                path: String::new(),
                value: Value::from(shortened(&origin)),
                problem: say!(
                    "a page of {origin} may change nothing here",
                    origin = shortened(&origin)
                ),
                remedy: say!("open the application itself and do it there"),
            },
        )
        .into_response();
    }
    next.run(request).await
}

/// The name and port that the request was sent to: an address in digits, or `localhost`.
fn host_of(headers: &HeaderMap) -> Result<String, Problem> {
    let host = headers.get(header::HOST);
    let host = host.and_then(|h| h.to_str().ok()).unwrap_or("localhost");
    let name = host.parse::<Authority>().ok();
    let name = name.as_ref().map_or("", |authority| authority.host());
    let digits = name.trim_matches(['[', ']']);
    if name.eq_ignore_ascii_case("localhost") || digits.parse::<std::net::IpAddr>().is_ok() {
        return Ok(host.to_owned());
    }
    Err(Problem::fault(
        StatusCode::FORBIDDEN,
        Fault {
            path: String::new(),
            value: Value::from(shortened(host)),
            problem: say!(
                "this server does not go by the name {name}",
                name = shortened(host)
            ),
            remedy: say!("use localhost or its address in digits"),
        },
    ))
}

/// The page that asks, when it is another's. A program that is no browser sends no origin.
fn foreign_origin(headers: &HeaderMap, host: &str) -> Option<String> {
    let text = |name| -> Option<&str> { headers.get(name)?.to_str().ok() };
    if let Some(origin) = headers.get(header::ORIGIN) {
        let origin = origin.to_str().unwrap_or("an unreadable origin");
        let own = origin
            .strip_prefix("http://")
            .or_else(|| origin.strip_prefix("https://"));
        return (!own.is_some_and(|own| own.eq_ignore_ascii_case(host))).then(|| origin.to_owned());
    }
    let site = text(HeaderName::from_static("sec-fetch-site"))?;
    (!["same-origin", "none"].contains(&site)).then(|| site.to_owned())
}

/// What every answer carries.
pub async fn guarded(request: Request, next: Next) -> Response {
    let mut response = next.run(request).await;
    let headers = response.headers_mut();
    for (name, value) in [
        ("content-security-policy", pages::content_policy()),
        (
            "x-content-type-options",
            &HeaderValue::from_static("nosniff"),
        ),
        ("referrer-policy", &HeaderValue::from_static("no-referrer")),
        (
            "cross-origin-resource-policy",
            &HeaderValue::from_static("same-origin"),
        ),
        (
            "cross-origin-opener-policy",
            &HeaderValue::from_static("same-origin"),
        ),
    ] {
        headers.insert(HeaderName::from_static(name), value.clone());
    }
    response
}

#[cfg(test)]
mod tests {
    use super::*;

    fn headers(pairs: &[(&'static str, &'static str)]) -> HeaderMap {
        let pairs = pairs.iter();
        pairs
            .map(|(name, value)| {
                (
                    HeaderName::from_static(name),
                    HeaderValue::from_static(value),
                )
            })
            .collect()
    }

    #[test]
    fn this_machine_goes_by_digits_and_localhost_however_it_is_written() {
        for host in [
            "localhost",
            "LOCALHOST:7420",
            "127.0.0.1:80",
            "[::1]:7420",
            "10.0.0.7",
        ] {
            assert!(host_of(&headers(&[("host", host)])).is_ok(), "{host}");
        }
        for host in [
            "example.test",
            "localhost.example.test",
            "127.0.0.1.nip.test",
            "",
            "a b",
        ] {
            assert!(host_of(&headers(&[("host", host)])).is_err(), "{host}");
        }
    }

    #[test]
    fn another_pages_origin_is_foreign_and_none_is_not() {
        let host = "localhost:7420";
        let foreign =
            |pairs: &[(&'static str, &'static str)]| foreign_origin(&headers(pairs), host);
        assert_eq!(foreign(&[]), None);
        assert_eq!(foreign(&[("origin", "http://localhost:7420")]), None);
        assert_eq!(foreign(&[("origin", "http://LOCALHOST:7420")]), None);
        assert_eq!(foreign(&[("sec-fetch-site", "same-origin")]), None);
        for origin in [
            "null",
            "http://localhost:7421",
            "http://example.test",
            "localhost:7420",
        ] {
            assert!(foreign(&[("origin", origin)]).is_some(), "{origin}");
        }
        assert!(foreign(&[("sec-fetch-site", "cross-site")]).is_some());
    }
}
