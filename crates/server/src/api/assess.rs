//! The assessment of a document, saved or not: "what if" while dragging is this same call.

use axum::extract::State;
use jiff::civil::Date;
use serde::Deserialize;
use sunrise_core::ask::{
    self, Assessment, BayRef, ChamberWay, DateSpan, Detail, Edit, Edited, MatSeason, Plan, Probe,
    Probed, SetUp, WarmWays, days_between,
};
use sunrise_core::basis::fault::{Fault, Faults, Pointer};
use sunrise_core::basis::units::Quantity;
use sunrise_core::basis::words::{Statement, say};
use utoipa::ToSchema;

use super::App;
use super::past::{LogOf, Past};
use crate::body;
use crate::changes::Changes;
use crate::effort::Reply;
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

impl WhatIf {
    /// The assessment, with what `app` remembers of earlier ones.
    fn assess(self, app: &App, past: &Past) -> Result<Assessment, Problem> {
        let Self {
            plan,
            from,
            to,
            detail,
        } = self;
        let days = DateSpan { from, to };
        check_days(days, &detail).map_err(Problem::unfit)?;
        let plan = past.sound(plan)?;
        let (fields, lately) = (&app.fields, &app.lately);
        Ok(ask::assess_lately(&plan, days, detail, fields, lately))
    }
}

/// What to ask for when an assessment is too much.
fn smaller() -> Statement {
    say!("ask for fewer days, for the detail of one shelf, or for the outline")
}

/// Assess a plan without keeping it
#[utoipa::path(
    post,
    path = "/api/assess",
    params(LogOf),
    request_body = WhatIf,
    responses(
        (status = 200, body = Assessment),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn what_if(
    State(app): State<App>,
    past: Past,
    body::Json(asked): body::Json<WhatIf>,
) -> Result<Reply, Problem> {
    let effort = app.effort.clone();
    effort
        .answer(smaller(), move || asked.assess(&app, &past))
        .await
}

/// What to assess, and the answer that is there already.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WhatChanges {
    /// What to assess.
    what: WhatIf,
    /// The name of the answer before; everything is answered when left out, or forgotten since.
    #[serde(default)]
    since: Option<String>,
}

/// Assess a plan without keeping it, and answer what differs from an answer before
#[utoipa::path(
    post,
    path = "/api/assess/changes",
    params(LogOf),
    request_body = WhatChanges,
    responses(
        (status = 200, body = Changes),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn what_changes(
    State(app): State<App>,
    past: Past,
    body::Json(WhatChanges { what, since }): body::Json<WhatChanges>,
) -> Result<Reply, Problem> {
    let effort = app.effort.clone();
    let compute = move || {
        let assessment = what.assess(&app, &past)?;
        let changes = app.answers.changes(&assessment, since.as_deref());
        Reply::of(&changes.map_err(|e| Problem::internal(&e))?, smaller())
    };
    effort.compute(smaller(), compute).await
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
    params(LogOf),
    request_body = ToCompare,
    responses(
        (status = 200, body = Vec<SetUp>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compare(
    State(app): State<App>,
    past: Past,
    body::Json(ToCompare { plan, bay, date }): body::Json<ToCompare>,
) -> Result<Reply, Problem> {
    let effort = app.effort.clone();
    let compute = move || Ok(ask::set_ups(&past.sound(plan)?, &bay, date, &app.fields));
    effort.answer(simpler_bay(), compute).await
}

/// What to ask for when comparing is too much.
fn simpler_bay() -> Statement {
    say!("ask about a plan with fewer lamps or trays on this shelf")
}

/// Compare ways to warm the tray of a bay that lacks most
///
/// Nothing where nothing germinates that day.
#[utoipa::path(
    post,
    path = "/api/compare/warmth",
    params(LogOf),
    request_body = ToCompare,
    responses(
        (status = 200, body = Option<WarmWays>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compare_warmth(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(ToCompare { plan, bay, date }): body::Json<ToCompare>,
) -> Result<Reply, Problem> {
    let compute = move || Ok(ask::warm_ways(&past.sound(plan)?, &bay, date, &fields));
    effort.answer(simpler_bay(), compute).await
}

/// Compare ways to run the chamber, shut closet or film-closed bay that a bay is in
///
/// The first is how it runs; none at all in the open.
#[utoipa::path(
    post,
    path = "/api/compare/chamber",
    params(LogOf),
    request_body = ToCompare,
    responses(
        (status = 200, body = Vec<ChamberWay>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn compare_chamber(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(ToCompare { plan, bay, date }): body::Json<ToCompare>,
) -> Result<Reply, Problem> {
    let compute = move || Ok(ask::chamber_ways(&past.sound(plan)?, &bay, date, &fields));
    effort.answer(simpler_bay(), compute).await
}

/// Which sowings deserve a heat mat, and how few serve the season by turns
#[utoipa::path(
    post,
    path = "/api/mats",
    params(LogOf),
    request_body = Plan,
    responses(
        (status = 200, body = MatSeason),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn mats(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(plan): body::Json<Plan>,
) -> Result<Reply, Problem> {
    let compute = move || Ok(ask::mat_season(&past.sound(plan)?, &fields));
    effort
        .answer(say!("ask of a plan with fewer sowings"), compute)
        .await
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
    params(LogOf),
    request_body = ToProbe,
    responses(
        (status = 200, body = Probed),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn probe(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(ToProbe { plan, probe }): body::Json<ToProbe>,
) -> Result<Reply, Problem> {
    let compute = move || ask::probe(&past.sound(plan)?, &probe, &fields).map_err(Problem::unfit);
    effort.answer(simpler_bay(), compute).await
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
    params(LogOf),
    request_body = ToEdit,
    responses(
        (status = 200, body = Edited),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn edit(
    State(App { effort, .. }): State<App>,
    past: Past,
    body::Json(ToEdit { plan, edit }): body::Json<ToEdit>,
) -> Result<Reply, Problem> {
    let compute = move || ask::apply(&past.sound(plan)?, &edit).map_err(Problem::unfit);
    effort.answer(say!("do it in smaller steps"), compute).await
}

/// The longest season, and so the most days of the room without its trays.
const MOST_DAYS: i32 = 400;
/// The most days with everything that stands there: a month.
const MOST_FULL_DAYS: i32 = 31;

/// Refuses days that run backwards, or are too many for the detail that is asked for.
///
/// # Errors
/// The fault, at `/to`.
pub fn check_days(days: DateSpan, detail: &Detail) -> Result<(), Vec<Fault>> {
    let mut faults = Faults::default();
    let most = match detail {
        Detail::Days => MOST_DAYS,
        _ => MOST_FULL_DAYS,
    };
    if !(0..=most).contains(&days_between(days.from, days.to)) {
        let most = Quantity::Days.of(f64::from(most));
        let remedy = match detail {
            Detail::Days => say!("give a last day 0 to {most} after the first", most = most),
            _ => say!(
                "give a last day 0 to {most} after the first; with the detail \"days\" a whole season can be asked for",
                most = most
            ),
        };
        faults.add(
            &Pointer::default().at("to"),
            days.to,
            say!("days from {from} to {to}", from = days.from, to = days.to),
            remedy,
        );
    }
    faults.verdict()
}
