//! What whoever begins wants to know: towns to live in, an empty plan, and when each crop is sown.

use axum::Json;
use axum::extract::State;
use jiff::civil::Date;
use jiff::{Timestamp, tz::TimeZone};
use serde::Deserialize;
use sunrise_core::ask::{self, CropStart, Home, Plan};
use sunrise_core::basis::words::say;
use utoipa::ToSchema;

use super::{App, sound};
use crate::body;
use crate::effort::Reply;
use crate::problem::Problem;

/// Towns to live in, with what is usual there
#[utoipa::path(get, path = "/api/homes", responses((status = 200, body = [Home])))]
pub async fn homes() -> Json<&'static [Home]> {
    Json(ask::homes())
}

/// A plan with nothing in it, for whoever begins today
#[utoipa::path(get, path = "/api/blank-plan", responses((status = 200, body = Plan)))]
pub async fn blank_plan() -> Json<Plan> {
    let today = Timestamp::now().to_zoned(TimeZone::UTC).date();
    Json(Plan::blank(today, None))
}

/// A document, and the day on which somebody chooses what to grow.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToGrow {
    /// The plan; it is not kept.
    plan: Plan,
    /// The day.
    today: Date,
}

/// When each crop would be sown here, the first first
#[utoipa::path(
    post,
    path = "/api/when",
    request_body = ToGrow,
    responses(
        (status = 200, body = Vec<CropStart>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn when(
    State(App { effort, fields, .. }): State<App>,
    body::Json(ToGrow { plan, today }): body::Json<ToGrow>,
) -> Result<Reply, Problem> {
    let compute = move || Ok(ask::when(&sound(plan)?, today, &fields));
    effort
        .answer(say!("ask of a plan with fewer crops"), compute)
        .await
}
