//! Where a tray could stand, and which kinds share a flat: asked before it is done.

use axum::extract::State;
use serde::Deserialize;
use sunrise_core::ask;
use sunrise_core::ask::{BaySpots, Held, Plan, Share, Sharing};
use sunrise_core::basis::words::say;
use utoipa::ToSchema;

use super::App;
use super::past::{LogOf, Past};
use crate::body;
use crate::effort::Reply;
use crate::problem::Problem;

/// A document and the tray that is held.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToStand {
    /// The plan; it is not kept.
    plan: Plan,
    /// The tray.
    held: Held,
}

/// The free spots of every bay for a tray, and what speaks against each bay
#[utoipa::path(
    post,
    path = "/api/spots",
    params(LogOf),
    request_body = ToStand,
    responses(
        (status = 200, body = Vec<BaySpots>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn spots(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(ToStand { plan, held }): body::Json<ToStand>,
) -> Result<Reply, Problem> {
    let compute = move || ask::spots(&past.sound(plan)?, &held, &fields).map_err(Problem::unfit);
    let smaller = say!("ask of a plan with fewer trays");
    effort.answer(smaller, compute).await
}

/// A document and the kinds that are to share a flat.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToShare {
    /// The plan; it is not kept.
    plan: Plan,
    /// How.
    share: Share,
}

/// Which kinds share a flat well, and how many of each fill it
#[utoipa::path(
    post,
    path = "/api/sharing",
    params(LogOf),
    request_body = ToShare,
    responses(
        (status = 200, body = Sharing),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn sharing(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(ToShare { plan, share }): body::Json<ToShare>,
) -> Result<Reply, Problem> {
    let compute = move || ask::sharing(&past.sound(plan)?, &share, &fields).map_err(Problem::unfit);
    let smaller = say!("ask of fewer kinds");
    effort.answer(smaller, compute).await
}
