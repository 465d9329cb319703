//! The year outdoors at a plan's site.

use axum::extract::State;
use sunrise_core::ask::{self, OutdoorYear};
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
