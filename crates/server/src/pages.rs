//! The front end, embedded in the binary.

use axum::http::{StatusCode, Uri, header};
use axum::response::{IntoResponse, Response};
use rust_embed::RustEmbed;

use crate::problem::Problem;

#[derive(RustEmbed)]
#[folder = "../../web/build"]
struct Pages;

/// A file of the front end; the page itself for any address that a person may have bookmarked.
pub async fn serve(uri: Uri) -> Response {
    let path = uri.path().trim_start_matches('/');
    if let Some(file) = Pages::get(path) {
        let forever = path.starts_with("_app/immutable/");
        return answer(path, file, forever);
    }
    // A page's own files must fail loudly: HTML in place of a script only hides the loss.
    let last = path.rsplit('/').next().unwrap_or_default();
    if path.starts_with("_app/") || path.starts_with("api/") || last.contains('.') {
        return Problem::not_here(uri.path()).into_response();
    }
    match Pages::get("index.html") {
        Some(page) => answer("index.html", page, false),
        None => (
            StatusCode::NOT_FOUND,
            "This binary was built without its front end: run `cargo xtask demo`.\n",
        )
            .into_response(),
    }
}

fn answer(path: &str, file: rust_embed::EmbeddedFile, forever: bool) -> Response {
    let caching = if forever {
        "public, max-age=31536000, immutable"
    } else {
        "no-cache"
    };
    let kind = if path == "index.html" {
        "text/html; charset=utf-8".to_owned()
    } else {
        file.metadata.mimetype().to_owned()
    };
    (
        [
            (header::CONTENT_TYPE, kind),
            (header::CACHE_CONTROL, caching.to_owned()),
        ],
        file.data.into_owned(),
    )
        .into_response()
}
