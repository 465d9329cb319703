//! The Kettle Fen demo: its plan, and what happened in it.

use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use jiff::Timestamp;
use sunrise_core::ask::{self, Entry, Plan};
use sunrise_store::{Snapshot, Store, StoreError};

use super::App;
use super::plans::PlanView;
use crate::effort::Reply;
use crate::problem::Problem;

/// Begin with the demo, and what happened in it so far
#[utoipa::path(
    post,
    path = "/api/demo-plan",
    responses(
        (status = 201, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn begin_demo(State(app): State<App>) -> Result<Reply, Problem> {
    let snapshot = app.store(|store| begun_with_demo(store, Timestamp::now()));
    let snapshot = snapshot.await?;
    app.view(snapshot, StatusCode::CREATED).await
}

/// Keeps the demo, with what happened in it so far.
///
/// # Errors
/// When SQLite refuses.
pub fn begun_with_demo(store: &mut Store, now: Timestamp) -> Result<Snapshot, StoreError> {
    let plan = demo_plan().check().expect("the demo plan is without fault");
    let snapshot = store.create(&plan, "began with the Kettle Fen demo", now)?;
    store.note(snapshot.id, &demo_log(), now)?;
    Ok(snapshot)
}

/// The demo plan, to begin with
#[utoipa::path(get, path = "/api/demo-plan", responses((status = 200, body = Plan)))]
pub async fn demo() -> Json<Plan> {
    Json(demo_plan())
}

/// What happened in the Kettle Fen demo.
fn demo_log() -> Vec<Entry> {
    let table = include_str!("../../../../demo/kettle-fen-log.csv");
    let rows = ask::read_log(table, |_, nth| format!("row-{nth}")).expect("the demo's log reads");
    let entries = rows.into_iter().map(|row| row.entry);
    entries
        .collect::<Result<_, _>>()
        .expect("the demo's log is without fault")
}

/// The Kettle Fen demo.
fn demo_plan() -> Plan {
    serde_json::from_str(include_str!("../../../../demo/kettle-fen.json"))
        .expect("the demo plan reads")
}
