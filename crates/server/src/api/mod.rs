//! The HTTP interface. A handler extracts, calls core or the store, and answers; it decides
//! nothing.

mod assess;
mod calc;
mod facts;
mod plans;

use std::sync::{Arc, Mutex};

use axum::extract::Request;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use axum::routing::get;
use axum::{Router, middleware};
use serde_json::Value;
use sunrise_core::fault::Fault;
use sunrise_core::light::bay::Fields;
use sunrise_core::plan::Plan;
use sunrise_core::say;
use sunrise_store::{Store, StoreError};
use tower_http::CompressionLevel;
use tower_http::compression::CompressionLayer;
use tower_http::set_header::SetResponseHeaderLayer;
use tower_http::trace::TraceLayer;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::pages;
use crate::problem::Problem;

pub use assess::check_days;
pub use facts::demo_plan;

#[derive(OpenApi)]
#[openapi(info(
    title = "Faint Sunrise",
    description = "Plans light, warmth, space and time for seedlings raised indoors."
))]
struct Document;

/// What handlers share.
#[derive(Clone)]
struct App {
    store: Arc<Mutex<Store>>,
    /// Light reckoned for earlier requests: most of a room stays as it was from one to the next.
    fields: Arc<Fields>,
}

impl App {
    /// Runs `work` on the store, off the threads that serve requests.
    async fn store<T: Send + 'static>(
        &self,
        work: impl FnOnce(&mut Store) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, Problem> {
        let store = self.store.clone();
        off_thread(move || {
            // A panic while the lock was held rolled its transaction back: the store is sound.
            let mut store = store.lock().unwrap_or_else(|poison| poison.into_inner());
            work(&mut store).map_err(Problem::from)
        })
        .await
    }
}

/// Runs `work` where it may take its time.
async fn off_thread<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, Problem> + Send + 'static,
) -> Result<T, Problem> {
    tokio::task::spawn_blocking(work)
        .await
        .unwrap_or_else(|error| Err(Problem::internal(&error)))
}

fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Document::openapi())
        .routes(routes!(facts::health))
        .routes(routes!(facts::units))
        .routes(routes!(facts::crops))
        .routes(routes!(facts::kinds))
        .routes(routes!(facts::demo))
        .routes(routes!(plans::list, plans::create))
        .routes(routes!(plans::show))
        .routes(routes!(plans::file))
        .routes(routes!(plans::history, plans::save))
        .routes(routes!(plans::step))
        .routes(routes!(plans::calendar))
        .routes(routes!(assess::what_if))
        .routes(routes!(assess::edit))
        .routes(routes!(assess::compare))
        .routes(routes!(assess::compare_warmth))
        .routes(routes!(assess::compare_chamber))
        .routes(routes!(assess::mats))
        .routes(routes!(assess::probe))
        .routes(routes!(calc::light))
        .routes(routes!(calc::packing))
        .routes(routes!(calc::photometry))
        .routes(routes!(calc::emergence))
        .routes(routes!(calc::root_zone))
        .routes(routes!(calc::chamber))
        .routes(routes!(calc::seeds))
        .routes(routes!(calc::frost))
}

/// The OpenAPI document.
pub fn document() -> utoipa::openapi::OpenApi {
    routes().into_openapi()
}

/// The whole application over `store`.
pub fn router(store: Store) -> Router {
    let (router, document) = routes().split_for_parts();
    let app = App {
        store: Arc::new(Mutex::new(store)),
        fields: Arc::default(),
    };
    router
        .route("/api/openapi.json", get(|| async { axum::Json(document) }))
        .fallback(pages::serve)
        .method_not_allowed_fallback(wrong_method)
        .with_state(app)
        .layer(middleware::from_fn(local_host_only))
        .layer(SetResponseHeaderLayer::if_not_present(
            header::X_CONTENT_TYPE_OPTIONS,
            HeaderValue::from_static("nosniff"),
        ))
        .layer(CompressionLayer::new().quality(CompressionLevel::Fastest))
        .layer(TraceLayer::new_for_http())
}

async fn wrong_method(request: Request) -> Problem {
    Problem::fault(
        StatusCode::METHOD_NOT_ALLOWED,
        Fault {
            path: String::new(),
            value: request.method().as_str().into(),
            problem: say!(
                "{method} is not understood at {path}",
                method = request.method().as_str(),
                path = request.uri().path()
            ),
            remedy: say!("the methods stand in /api/openapi.json"),
        },
    )
}

/// Refuses names that a foreign page could have pointed at this machine (DNS rebinding): an
/// address is written in digits or is `localhost`.
async fn local_host_only(request: Request, next: middleware::Next) -> Response {
    let host = request.headers().get(header::HOST);
    let host = host.and_then(|h| h.to_str().ok()).unwrap_or("localhost");
    let name = match host.rsplit_once(':') {
        Some((name, port)) if port.bytes().all(|b| b.is_ascii_digit()) => name,
        _ => host,
    };
    let digits = name.trim_matches(['[', ']']);
    if name == "localhost" || digits.parse::<std::net::IpAddr>().is_ok() {
        return next.run(request).await;
    }
    Problem::fault(
        StatusCode::FORBIDDEN,
        Fault {
            path: String::new(),
            value: Value::from(name),
            problem: say!("this server does not go by the name {name}", name = name),
            remedy: say!("use localhost or its address in digits"),
        },
    )
    .into_response()
}

/// A plan without fault, or the problem to answer with.
fn sound(plan: Plan) -> Result<sunrise_core::plan::SoundPlan, Problem> {
    plan.check().map_err(Problem::unfit)
}
