//! The HTTP interface. A handler extracts, calls core or the store, and answers; it decides
//! nothing.

mod address;
mod assess;
mod begin;
mod bounds;
mod calc;
mod demo;
mod facts;
mod learn;
mod log;
mod log_table;
mod outdoors;
mod past;
mod photos;
mod place;
mod placing;
mod power;
mod plans;
mod revisions;
mod today;

use std::sync::{Arc, Mutex};
use std::time::Duration;

use axum::body::Bytes;
use axum::extract::Request;
use axum::http::{StatusCode, header};
use axum::routing::get;
use axum::{Router, middleware};
use jiff::Timestamp;
use sunrise_core::ask::{Fields, Lately, Plan, SoundPlan};
use sunrise_core::basis::fault::{Fault, shortened};
use sunrise_core::basis::words::say;
use sunrise_store::{Store, StoreError, Watch};
use tower_http::CompressionLevel;
use tower_http::compression::CompressionLayer;
use tower_http::trace::TraceLayer;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::changes::Answers;
use crate::effort::Effort;
use crate::logs::Logs;
use crate::photos::Photos;
use crate::problem::Problem;
use crate::{guard, pages};

pub use assess::check_days;
pub use calc::Cases;
pub use demo::begun_with_demo;
pub use past::Past;

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
    /// Whether the plans' file is still there.
    watch: Arc<Watch>,
    /// Where a damaged database was put when the server started.
    set_aside: Option<Arc<str>>,
    /// Light reckoned for earlier requests: most of a room stays as it was from one to the next.
    fields: Arc<Fields>,
    /// Plans that were asked about lately.
    lately: Arc<Lately>,
    /// What the last assessments held.
    answers: Arc<Answers>,
    effort: Effort,
    /// What happened, of the plans that were asked for last.
    logs: Arc<Logs>,
    /// Where photos are kept.
    photos: Arc<Photos>,
    /// What is being placed.
    runs: Arc<place::Runs>,
}

impl App {
    /// Reads the log of the plan that is likely to be opened: a long one takes its time, once.
    async fn look_ahead(self) {
        let logs = Arc::clone(&self.logs);
        let read = self.store(move |store| {
            if let Some(plan) = store.plans()?.first() {
                logs.of(store, plan.id)?;
            }
            Ok(())
        });
        // Whoever asks for it hears what is wrong with it.
        let _ = read.await;
    }

    /// Runs `work` on the store, off the threads that serve requests.
    async fn store<T: Send + 'static>(
        &self,
        work: impl FnOnce(&mut Store) -> Result<T, StoreError> + Send + 'static,
    ) -> Result<T, Problem> {
        let store = self.store.clone();
        let working = tokio::task::spawn_blocking(move || {
            // A panic while the lock was held rolled its transaction back: the store is sound.
            let mut store = store.lock().unwrap_or_else(|poison| poison.into_inner());
            // A day may have passed since the last time; what cannot be tidied now can be later.
            if let Err(error) = store.tidy(Timestamp::now()) {
                tracing::debug!("old revisions stay for now: {error}");
            }
            work(&mut store).map_err(Problem::from)
        });
        working
            .await
            .unwrap_or_else(|error| Err(Problem::internal(&error)))
    }
}

fn routes() -> OpenApiRouter<App> {
    OpenApiRouter::with_openapi(Document::openapi())
        .routes(routes!(facts::health))
        .routes(routes!(facts::units))
        .routes(routes!(facts::crops))
        .routes(routes!(facts::kinds))
        .routes(routes!(begin::homes))
        .routes(routes!(begin::blank_plan))
        .routes(routes!(begin::when))
        .routes(routes!(facts::forms))
        .routes(routes!(demo::demo, demo::begin_demo))
        .routes(routes!(plans::list, plans::create))
        .routes(routes!(plans::deleted))
        .routes(routes!(plans::last))
        .routes(routes!(plans::show, plans::delete))
        .routes(routes!(plans::restore))
        .routes(routes!(plans::file))
        .routes(routes!(plans::set_aside))
        .routes(routes!(revisions::history, revisions::save))
        .routes(routes!(revisions::revision))
        .routes(routes!(revisions::step))
        .routes(routes!(plans::calendar))
        .routes(routes!(log::entries, log::note))
        .routes(routes!(log_table::log_table))
        .routes(routes!(log_table::read_log_table))
        .routes(routes!(today::today))
        .routes(routes!(today::water_ahead))
        .routes(routes!(today::story))
        .routes(routes!(today::code))
        .routes(routes!(outdoors::outdoors))
        .routes(routes!(outdoors::lit_rooms))
        .routes(routes!(learn::lessons))
        .routes(routes!(learn::lesson_effect))
        .routes(routes!(learn::meaning))
        .routes(routes!(learn::comparison))
        .routes(routes!(learn::diagnosis))
        .routes(routes!(learn::handed_on))
        .routes(routes!(learn::next_year))
        .routes(routes!(photos::photo, photos::keep_photo))
        .routes(routes!(assess::what_if))
        .routes(routes!(assess::what_changes))
        .routes(routes!(assess::edit))
        .routes(routes!(placing::spots))
        .routes(routes!(place::all))
        .routes(routes!(place::stop))
        .routes(routes!(place::make_room))
        .routes(routes!(place::least_gear))
        .routes(routes!(place::frost_night))
        .routes(routes!(place::instance))
        .routes(routes!(placing::sharing))
        .routes(routes!(assess::compare))
        .routes(routes!(assess::compare_warmth))
        .routes(routes!(assess::compare_chamber))
        .routes(routes!(assess::mats))
        .routes(routes!(assess::probe))
        .routes(routes!(power::power))
        .routes(routes!(power::tariff))
        .routes(routes!(power::savings))
        .routes(routes!(power::frontier))
        .routes(routes!(calc::light))
        .routes(routes!(calc::load))
        .routes(routes!(calc::timer))
        .routes(routes!(calc::packing))
        .routes(routes!(calc::photometry))
        .routes(routes!(calc::emergence))
        .routes(routes!(calc::root_zone))
        .routes(routes!(calc::chamber))
        .routes(routes!(calc::enclosed_air))
        .routes(routes!(calc::seeds))
        .routes(routes!(calc::frost))
}

/// The OpenAPI document.
pub fn document() -> serde_json::Value {
    described(&routes().into_openapi())
}

fn described(document: &utoipa::openapi::OpenApi) -> serde_json::Value {
    let mut document = serde_json::to_value(document).unwrap_or_default();
    bounds::state(&mut document);
    document
}

/// The whole application over `store`, each answer worked out in `longest` at the most.
pub fn router(store: Store, photos: Photos, longest: Duration) -> Router {
    let (router, document) = routes().split_for_parts();
    // Written out once: every connection has its own copy of the handlers.
    let document = Bytes::from(described(&document).to_string());
    let json = [(header::CONTENT_TYPE, "application/json")];
    let app = App {
        watch: Arc::new(store.watch().clone()),
        set_aside: store
            .set_aside()
            .map(|path| path.display().to_string().into()),
        store: Arc::new(Mutex::new(store)),
        fields: Arc::default(),
        lately: Arc::default(),
        answers: Arc::default(),
        effort: Effort::new(longest),
        logs: Arc::default(),
        photos: Arc::new(photos),
        runs: Arc::default(),
    };
    tokio::spawn(app.clone().look_ahead());
    router
        .route(
            "/api/openapi.json",
            get(move || async move { (json, document) }),
        )
        .fallback(pages::serve)
        .method_not_allowed_fallback(wrong_method)
        .with_state(app)
        .layer(middleware::from_fn(guard::own_pages_only))
        .layer(middleware::from_fn(guard::guarded))
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
                path = shortened(request.uri().path())
            ),
            remedy: say!("the methods stand in /api/openapi.json"),
        },
    )
}

/// A plan without fault, or the problem to answer with.
fn sound(plan: Plan) -> Result<SoundPlan, Problem> {
    plan.check().map_err(Problem::unfit)
}
