//! What is drawn when, what the season costs, and tariffs from a file.

use axum::extract::State;
use axum::http::HeaderMap;
use axum::response::Response;
use jiff::civil::Date;
use serde::Deserialize;
use sunrise_core::ask;
use sunrise_core::ask::{BayRef, Electricity, Frontier, HourPrices, Lessening, Plan, Savings};
use sunrise_core::basis::words::say;
use utoipa::ToSchema;

use super::App;
use super::past::{LogOf, Past};
use super::place::{Tell, Tick, answered};
use crate::body;
use crate::effort::Reply;
use crate::problem::Problem;

/// A document and a day.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToPower {
    /// The plan; it is not kept.
    plan: Plan,
    /// The day to look at by the hour.
    date: Date,
}

/// The load of a day on every circuit, and what the season and its plants cost
#[utoipa::path(
    post,
    path = "/api/power",
    params(LogOf),
    request_body = ToPower,
    responses(
        (status = 200, body = Electricity),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn power(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(ToPower { plan, date }): body::Json<ToPower>,
) -> Result<Reply, Problem> {
    let compute = move || Ok(ask::power(&past.sound(plan)?, date, &fields));
    let smaller = say!("ask of a plan with fewer trays");
    effort.answer(smaller, compute).await
}

/// What the lamps cost on a day, and what gives the same light for less
#[utoipa::path(
    post,
    path = "/api/savings",
    params(LogOf),
    request_body = ToPower,
    responses(
        (status = 200, content((Savings = "application/json"), (Tick<Lessening> = "text/event-stream"))),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn savings(
    State(app): State<App>,
    headers: HeaderMap,
    past: Past,
    body::Json(ToPower { plan, date }): body::Json<ToPower>,
) -> Result<Response, Problem> {
    let fields = app.fields.clone();
    let find =
        move |tell: Tell<'_, Lessening>| Ok(ask::savings(&past.sound(plan)?, date, &fields, tell));
    answered(app, &headers, find).await
}

/// A document, a bay or the whole stand, and a day.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToEquip {
    /// The plan; it is not kept.
    plan: Plan,
    /// The bay; every lit shelf together when left out.
    #[serde(default)]
    bay: Option<BayRef>,
    /// The day.
    date: Date,
}

/// Set-ups of a shelf, or of the whole stand, by what they cost and what they raise
///
/// Nothing where nothing grows under lamps that day.
#[utoipa::path(
    post,
    path = "/api/frontier",
    params(LogOf),
    request_body = ToEquip,
    responses(
        (status = 200, content((Option<Frontier> = "application/json"), (Tick<Lessening> = "text/event-stream"))),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn frontier(
    State(app): State<App>,
    headers: HeaderMap,
    past: Past,
    body::Json(ToEquip { plan, bay, date }): body::Json<ToEquip>,
) -> Result<Response, Problem> {
    let fields = app.fields.clone();
    let find = move |tell: Tell<'_, Lessening>| {
        let bay = bay.as_ref();
        Ok(ask::frontier(&past.sound(plan)?, bay, date, &fields, tell))
    };
    answered(app, &headers, find).await
}

/// A tariff in a file.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToRead {
    /// The file's text: CSV with days, from, to and price.
    text: String,
}

/// Reads a tariff from CSV
#[utoipa::path(
    post,
    path = "/api/tariff",
    request_body = ToRead,
    responses(
        (status = 200, body = HourPrices),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn tariff(
    State(App { effort, .. }): State<App>,
    body::Json(ToRead { text }): body::Json<ToRead>,
) -> Result<Reply, Problem> {
    let compute = move || ask::read_tariff(&text).map_err(Problem::unfit);
    effort.answer(say!("give a shorter file"), compute).await
}
