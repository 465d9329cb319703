//! The assessment of a document, saved or not: "what if" while dragging is this same call.

use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use jiff::civil::Date;
use serde::Deserialize;
use sunrise_core::assess::Assessment;
use sunrise_core::bays::Detail;
use sunrise_core::calibrate::{self, Probe, Probed};
use sunrise_core::compare::chamber::{ChamberWay, chamber_ways};
use sunrise_core::compare::warmth::{WarmWays, warm_ways};
use sunrise_core::compare::{SetUp, set_ups};
use sunrise_core::edit::{self, Edit, Edited};
use sunrise_core::fault::{Fault, Faults, Pointer};
use sunrise_core::plan::{DateSpan, Plan};
use sunrise_core::room::BayRef;
use sunrise_core::say;
use sunrise_core::season::dates;
use sunrise_core::season::mats::MatSeason;
use sunrise_core::site::days_between;
use sunrise_core::units::Quantity;
use utoipa::ToSchema;

use super::{App, off_thread, sound};
use crate::body;
use crate::problem::Problem;

/// A document and the days to look at the room on.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WhatIf {
    /// The plan; it is not kept.
    plan: Plan,
    /// First day.
    from: Date,
    /// Last day.
    to: Date,
    /// Whose lists of cells and fits are wanted; everyone's when left out.
    #[serde(default)]
    detail: Detail,
}

/// Assess a plan without keeping it
#[utoipa::path(
    post,
    path = "/api/assess",
    request_body = WhatIf,
    responses(
        (status = 200, body = Assessment),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn what_if(
    State(app): State<App>,
    body::Json(asked): body::Json<WhatIf>,
) -> Result<Json<Assessment>, Problem> {
    let WhatIf {
        plan,
        from,
        to,
        detail,
    } = asked;
    let days = DateSpan { from, to };
    check_days(days).map_err(|faults| Problem::faults(StatusCode::UNPROCESSABLE_ENTITY, faults))?;
    let assessment = off_thread(move || {
        let plan = sound(plan)?;
        Ok(sunrise_core::assess_again(&plan, days, detail, &app.fields))
    });
    Ok(Json(assessment.await?))
}

/// A document and the bay to try other set-ups in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToCompare {
    /// The plan; it is not kept.
    plan: Plan,
    /// The bay.
    bay: BayRef,
    /// The day to look at it on.
    date: Date,
}

/// Compare other set-ups of a bay with the one that is there
///
/// The first is what is there; none at all where nothing grows under lamps that day.
#[utoipa::path(
    post,
    path = "/api/compare",
    request_body = ToCompare,
    responses(
        (status = 200, body = Vec<SetUp>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compare(
    State(app): State<App>,
    body::Json(ToCompare { plan, bay, date }): body::Json<ToCompare>,
) -> Result<Json<Vec<SetUp>>, Problem> {
    let all = off_thread(move || Ok(set_ups(&sound(plan)?, &bay, date, &app.fields)));
    Ok(Json(all.await?))
}

/// Compare ways to warm the tray of a bay that lacks most
///
/// Nothing where nothing germinates that day.
#[utoipa::path(
    post,
    path = "/api/compare/warmth",
    request_body = ToCompare,
    responses(
        (status = 200, body = Option<WarmWays>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compare_warmth(
    body::Json(ToCompare { plan, bay, date }): body::Json<ToCompare>,
) -> Result<Json<Option<WarmWays>>, Problem> {
    let ways = off_thread(move || Ok(warm_ways(&sound(plan)?, &bay, date)));
    Ok(Json(ways.await?))
}

/// Compare ways to run the chamber, shut closet or film-closed bay that a bay is in
///
/// The first is how it runs; none at all in the open.
#[utoipa::path(
    post,
    path = "/api/compare/chamber",
    request_body = ToCompare,
    responses(
        (status = 200, body = Vec<ChamberWay>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compare_chamber(
    body::Json(ToCompare { plan, bay, date }): body::Json<ToCompare>,
) -> Result<Json<Vec<ChamberWay>>, Problem> {
    let ways = off_thread(move || Ok(chamber_ways(&sound(plan)?, &bay, date)));
    Ok(Json(ways.await?))
}

/// Which sowings deserve a heat mat, and how few serve the season by turns
#[utoipa::path(
    post,
    path = "/api/mats",
    request_body = Plan,
    responses(
        (status = 200, body = MatSeason),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn mats(body::Json(plan): body::Json<Plan>) -> Result<Json<MatSeason>, Problem> {
    let season = off_thread(move || {
        let plan = sound(plan)?;
        Ok(MatSeason::of(&plan, &dates(&plan)))
    });
    Ok(Json(season.await?))
}

/// A document and where a lux meter is held.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToProbe {
    /// The plan; it is not kept.
    plan: Plan,
    /// The meter.
    probe: Probe,
}

/// The light where a meter is held, and what its reading says of the lamps
#[utoipa::path(
    post,
    path = "/api/probe",
    request_body = ToProbe,
    responses(
        (status = 200, body = Probed),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn probe(
    body::Json(ToProbe { plan, probe }): body::Json<ToProbe>,
) -> Result<Json<Probed>, Problem> {
    let probed =
        off_thread(move || calibrate::probe(&sound(plan)?, &probe).map_err(Problem::unfit));
    Ok(Json(probed.await?))
}

/// A document and what to do with it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToEdit {
    /// The plan; it is not kept.
    plan: Plan,
    /// The edit.
    edit: Edit,
}

/// Edit a plan's form without keeping it
#[utoipa::path(
    post,
    path = "/api/edit",
    request_body = ToEdit,
    responses(
        (status = 200, body = Edited),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn edit(
    body::Json(ToEdit { plan, edit }): body::Json<ToEdit>,
) -> Result<Json<Edited>, Problem> {
    let edited = off_thread(move || edit::apply(&sound(plan)?, &edit).map_err(Problem::unfit));
    Ok(Json(edited.await?))
}

/// Refuses days that run backwards or for longer than a season.
///
/// # Errors
/// The fault, at `/to`.
pub fn check_days(days: DateSpan) -> Result<(), Vec<Fault>> {
    let mut faults = Faults::default();
    if !(0..=400).contains(&days_between(days.from, days.to)) {
        faults.add(
            &Pointer::default().at("to"),
            days.to,
            say!("days from {from} to {to}", from = days.from, to = days.to),
            say!(
                "give a last day 0 to {most} after the first",
                most = Quantity::Days.of(400.0)
            ),
        );
    }
    faults.verdict()
}
