//! The air outdoors at a plan's site, and in rooms that their lamps warm.

use axum::extract::State;
use sunrise_core::ask::{self, LitRoomSeason, OutdoorYear};
use sunrise_core::basis::words::say;

use super::App;
use super::address::PlanId;
use crate::effort::Reply;
use crate::problem::Problem;

/// The year outdoors, month by month, and under each cover
#[utoipa::path(
    get,
    path = "/api/plans/{id}/outdoors",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = OutdoorYear),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn outdoors(State(app): State<App>, PlanId(id): PlanId) -> Result<Reply, Problem> {
    let plan = app.store(move |store| store.plan(id)).await?.plan;
    let compute = move || Ok(ask::outdoors(&super::sound(plan)?));
    app.effort
        .answer(say!("give fewer covered places"), compute)
        .await
}

/// The rooms that their own lamps warm, through the season
#[utoipa::path(
    get,
    path = "/api/plans/{id}/lit-rooms",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = Vec<LitRoomSeason>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn lit_rooms(State(app): State<App>, PlanId(id): PlanId) -> Result<Reply, Problem> {
    let plan = app.store(move |store| store.plan(id)).await?.plan;
    let compute = move || Ok(ask::lit_rooms(&super::sound(plan)?));
    app.effort.answer(say!("give fewer rooms"), compute).await
}
