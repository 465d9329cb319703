//! The front end, embedded in the binary.

use std::borrow::Cow;
use std::sync::{LazyLock, OnceLock};

use axum::http::{HeaderMap, HeaderValue, StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use base64::Engine;
use base64::prelude::BASE64_STANDARD;
use sha2::{Digest, Sha256};

use crate::problem::Problem;

/// A file of the front end.
pub struct Page {
    /// Its media type.
    pub kind: String,
    /// What is in it.
    pub bytes: Cow<'static, [u8]>,
}

/// Gives the front end's file at a path, without a slash before it.
pub type FrontEnd = fn(&str) -> Option<Page>;

/// The front end that this server shows.
static FRONT_END: OnceLock<FrontEnd> = OnceLock::new();

/// Shows `front_end` from now on; the first one counts.
pub fn show(front_end: FrontEnd) {
    let _ = FRONT_END.set(front_end);
}

fn page(path: &str) -> Option<Page> {
    FRONT_END.get()?(path)
}

/// What a page may load and run (Content-Security-Policy): this server's files, and of scripts in
/// the page itself the one that the build put there, named by its hash. Styles are set on single
/// elements all over a drawing.
pub fn content_policy() -> &'static HeaderValue {
    static POLICY: LazyLock<HeaderValue> = LazyLock::new(|| {
        let index = page("index.html").map(|file| file.bytes.into_owned());
        let index = String::from_utf8(index.unwrap_or_default()).unwrap_or_default();
        let hashes: String = inline_scripts(&index)
            .map(|script| {
                format!(
                    " 'sha256-{}'",
                    BASE64_STANDARD.encode(Sha256::digest(script))
                )
            })
            .collect();
        let policy = format!(
            "default-src 'self'; script-src 'self'{hashes}; style-src 'self' 'unsafe-inline'; \
             img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; form-action 'self'; \
             frame-ancestors 'none'"
        );
        HeaderValue::from_str(&policy).unwrap_or(HeaderValue::from_static("default-src 'self'"))
    });
    &POLICY
}

/// What stands between `<script>` and its end; scripts with a source of their own have attributes.
fn inline_scripts(page: &str) -> impl Iterator<Item = &str> {
    let scripts = page.split("<script>").skip(1);
    scripts.filter_map(|rest| rest.split("</script>").next())
}

/// A file of the front end; the page itself for any address that a person may have bookmarked.
pub async fn serve(uri: Uri, headers: HeaderMap) -> Response {
    let path = uri.path().trim_start_matches('/');
    if let Some(response) = answer(path, &headers) {
        return response;
    }
    // A page's own files must fail loudly: HTML in place of a script only hides the loss.
    let last = path.rsplit('/').next().unwrap_or_default();
    if path.starts_with("_app/") || path.starts_with("api/") || last.contains('.') {
        return Problem::not_here(uri.path()).into_response();
    }
    answer("index.html", &headers).unwrap_or_else(|| {
        (
            StatusCode::NOT_FOUND,
            "This binary was built without its front end: run `cargo xtask demo`.\n",
        )
            .into_response()
    })
}

/// The file at `path`, compressed when the build made it so and the browser takes it.
fn answer(path: &str, headers: &HeaderMap) -> Option<Response> {
    let file = page(path)?;
    let caching = if path.starts_with("_app/immutable/") {
        "public, max-age=31536000, immutable"
    } else {
        "no-cache"
    };
    let kind = match file.kind.as_str() {
        "text/html" => "text/html; charset=utf-8",
        kind => kind,
    };
    let plain = [
        (header::CONTENT_TYPE, kind.to_owned()),
        (header::CACHE_CONTROL, caching.to_owned()),
        (header::VARY, "accept-encoding".to_owned()),
    ];
    let accepted = headers.get(header::ACCEPT_ENCODING);
    let gzip = accepted.is_some_and(|v| v.to_str().is_ok_and(|v| v.contains("gzip")));
    Some(match page(&format!("{path}.gz")).filter(|_| gzip) {
        Some(packed) => (
            plain,
            [(header::CONTENT_ENCODING, "gzip")],
            packed.bytes.into_owned(),
        )
            .into_response(),
        None => (plain, file.bytes.into_owned()).into_response(),
    })
}
