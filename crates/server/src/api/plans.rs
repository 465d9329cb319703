//! Plans, their edits and their history.

use axum::Json;
use axum::extract::{Path, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use jiff::civil::Date;
use jiff::{Timestamp, tz::TimeZone};
use serde::{Deserialize, Serialize};
use sunrise_core::assess::opening_day;
use sunrise_core::fault::{Faults, Pointer};
use sunrise_core::plan::Plan;
use sunrise_store::{PlanSummary, Revision, Snapshot, Step};
use utoipa::ToSchema;

use super::{App, sound};
use crate::body;
use crate::calendar;
use crate::problem::Problem;

/// A plan at its current revision.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlanView {
    /// The plan's number.
    id: i64,
    /// The revision that an edit must be based on.
    revision: i64,
    /// The document.
    plan: Plan,
    /// Word of the edit that undo would take back.
    undo: Option<String>,
    /// Word of the edit that redo would bring back.
    redo: Option<String>,
    /// Today, at the site.
    today: Date,
    /// The day to open the plan on: today within the season, else the day the room is fullest.
    opening_day: Date,
}

impl PlanView {
    fn of(snapshot: Snapshot) -> Result<Self, Problem> {
        let plan = sound(snapshot.plan)?;
        let zone = TimeZone::get(&plan.site.time_zone).unwrap_or(TimeZone::UTC);
        let today = Timestamp::now().to_zoned(zone).date();
        Ok(Self {
            id: snapshot.id,
            revision: snapshot.revision,
            opening_day: opening_day(&plan, today),
            plan: plan.into_inner(),
            undo: snapshot.undo,
            redo: snapshot.redo,
            today,
        })
    }
}

/// A plan to keep.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPlan {
    /// The document.
    plan: Plan,
    /// Where it comes from, for the history.
    word: String,
}

/// An edit: the whole document as it is to be.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewRevision {
    /// The revision that the edit is based on.
    base_revision: i64,
    /// What was done, for the history.
    word: String,
    /// The document.
    plan: Plan,
}

/// A step along the plan's history.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StepTaken {
    /// The revision that the step starts from.
    base_revision: i64,
    /// Where to.
    step: StepKind,
}

/// Where a step leads.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepKind {
    /// Before the last edit.
    Undo,
    /// After the edit that was undone.
    Redo,
    /// To the revision of this number.
    To(i64),
}

/// All plans, the last edited first
#[utoipa::path(get, path = "/api/plans", responses((status = 200, body = Vec<PlanSummary>)))]
pub async fn list(State(app): State<App>) -> Result<Json<Vec<PlanSummary>>, Problem> {
    Ok(Json(app.store(|store| store.plans()).await?))
}

/// Keep a new plan
#[utoipa::path(
    post,
    path = "/api/plans",
    request_body = NewPlan,
    responses(
        (status = 201, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn create(
    State(app): State<App>,
    body::Json(NewPlan { plan, word }): body::Json<NewPlan>,
) -> Result<(StatusCode, Json<PlanView>), Problem> {
    let word = checked_word(word)?;
    let plan = sound(plan)?;
    let snapshot = app
        .store(move |store| store.create(&plan, &word, Timestamp::now()))
        .await?;
    Ok((StatusCode::CREATED, Json(PlanView::of(snapshot)?)))
}

/// A plan at its current revision
#[utoipa::path(
    get,
    path = "/api/plans/{id}",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn show(
    State(app): State<App>,
    Path(id): Path<String>,
) -> Result<Json<PlanView>, Problem> {
    let id = number(&id)?;
    let snapshot = app.store(move |store| store.plan(id)).await?;
    Ok(Json(PlanView::of(snapshot)?))
}

/// The plan as a file to keep or pass on
#[utoipa::path(
    get,
    path = "/api/plans/{id}/file",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = Plan),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn file(State(app): State<App>, Path(id): Path<String>) -> Result<Response, Problem> {
    let id = number(&id)?;
    let plan = app.store(move |store| store.plan(id)).await?.plan;
    let name: String = plan
        .name
        .chars()
        .map(|c| if c.is_ascii_alphanumeric() { c } else { '-' })
        .collect();
    let text = serde_json::to_string_pretty(&plan).map_err(|e| Problem::internal(&e))? + "\n";
    let disposition = format!("attachment; filename=\"{name}.json\"");
    let mut response = text.into_response();
    let headers = response.headers_mut();
    headers.insert(
        header::CONTENT_TYPE,
        HeaderValue::from_static("application/json"),
    );
    if let Ok(value) = HeaderValue::from_str(&disposition) {
        headers.insert(header::CONTENT_DISPOSITION, value);
    }
    Ok(response)
}

/// The plan's edits, the newest first
#[utoipa::path(
    get,
    path = "/api/plans/{id}/revisions",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = Vec<Revision>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn history(
    State(app): State<App>,
    Path(id): Path<String>,
) -> Result<Json<Vec<Revision>>, Problem> {
    let id = number(&id)?;
    Ok(Json(app.store(move |store| store.history(id)).await?))
}

/// Save an edit
#[utoipa::path(
    post,
    path = "/api/plans/{id}/revisions",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = NewRevision,
    responses(
        (status = 201, body = PlanView),
        (status = 409, description = "The plan has moved on since base_revision; nothing was changed",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn save(
    State(app): State<App>,
    Path(id): Path<String>,
    body::Json(edit): body::Json<NewRevision>,
) -> Result<(StatusCode, Json<PlanView>), Problem> {
    let id = number(&id)?;
    let word = checked_word(edit.word)?;
    let plan = sound(edit.plan)?;
    let snapshot = app
        .store(move |store| store.save(id, edit.base_revision, &plan, &word, Timestamp::now()))
        .await?;
    Ok((StatusCode::CREATED, Json(PlanView::of(snapshot)?)))
}

/// Undo, redo, or go to a revision
#[utoipa::path(
    post,
    path = "/api/plans/{id}/step",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = StepTaken,
    responses(
        (status = 200, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn step(
    State(app): State<App>,
    Path(id): Path<String>,
    body::Json(taken): body::Json<StepTaken>,
) -> Result<Json<PlanView>, Problem> {
    let id = number(&id)?;
    let step = match taken.step {
        StepKind::Undo => Step::Undo,
        StepKind::Redo => Step::Redo,
        StepKind::To(revision) => Step::To(revision),
    };
    let snapshot = app
        .store(move |store| store.step(id, taken.base_revision, step))
        .await?;
    Ok(Json(PlanView::of(snapshot)?))
}

/// A plan's jobs as iCalendar: to download, or to subscribe to
#[utoipa::path(
    get,
    path = "/api/plans/{id}/calendar.ics",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, description = "iCalendar (RFC 5545)", body = String, content_type = "text/calendar"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn calendar(State(app): State<App>, Path(id): Path<String>) -> Result<Response, Problem> {
    let id = number(&id)?;
    let snapshot = app.store(move |store| store.plan(id)).await?;
    let calendar = super::off_thread(move || calendar::of(snapshot)).await?;
    let headers = [
        (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
        (
            header::CONTENT_DISPOSITION,
            "attachment; filename=\"faint-sunrise.ics\"",
        ),
        (header::CACHE_CONTROL, "no-cache"),
    ];
    Ok((headers, calendar).into_response())
}

fn number(id: &str) -> Result<i64, Problem> {
    id.parse()
        .map_err(|_| Problem::not_here(&format!("/api/plans/{id}")))
}

fn checked_word(word: String) -> Result<String, Problem> {
    let mut faults = Faults::default();
    faults.name(&Pointer::default().at("word"), &word);
    faults.verdict().map_err(Problem::unfit)?;
    Ok(word)
}
