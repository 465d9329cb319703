//! A plan's edits and its history.

use super::App;
use super::address::{PlanId, RevisionId};
use super::plans::{PlanView, checked_word};
use crate::body;
use crate::effort::Reply;
use crate::problem::Problem;
use axum::Json;
use axum::extract::State;
use axum::http::StatusCode;
use jiff::Timestamp;
use serde::Deserialize;
use sunrise_core::ask::Plan;
use sunrise_core::ask::Wins;
use sunrise_store::{Revision, Step};
use utoipa::ToSchema;

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
    /// Whose change stays where this edit and one saved since its base changed the same field; left
    /// out, such an edit is refused.
    #[serde(default)]
    settle: Option<Settle>,
}

/// Whose change stays.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Settle {
    /// The one that was saved first.
    Theirs,
    /// The one of this request.
    Mine,
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

/// The plan's edits, the newest first, with those on branches that were left behind
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
    PlanId(id): PlanId,
) -> Result<Json<Vec<Revision>>, Problem> {
    Ok(Json(app.store(move |store| store.history(id)).await?))
}

/// Save an edit; of two edits of different fields both are kept
#[utoipa::path(
    post,
    path = "/api/plans/{id}/revisions",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = NewRevision,
    responses(
        (status = 201, body = PlanView),
        (status = 409, description = "A field was changed both here and since base_revision; nothing was changed",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn save(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(edit): body::Json<NewRevision>,
) -> Result<Reply, Problem> {
    let word = checked_word(edit.word)?;
    let plan = app.sound(edit.plan).await?;
    let wins = edit.settle.map(|settle| match settle {
        Settle::Theirs => Wins::Theirs,
        Settle::Mine => Wins::Mine,
    });
    let (base, now) = (edit.base_revision, Timestamp::now());
    let saved = app
        .store(move |store| store.save_with_others(id, base, &plan, &word, wins, now))
        .await?;
    app.view_with(saved, StatusCode::CREATED).await
}

/// The plan as it was at a revision, to be looked at
#[utoipa::path(
    get,
    path = "/api/plans/{id}/revisions/{number}",
    params(
        ("id" = i64, Path, description = "The plan's number"),
        ("number" = i64, Path, description = "The revision's number"),
    ),
    responses(
        (status = 200, body = Plan),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn revision(
    State(app): State<App>,
    RevisionId(id, number): RevisionId,
) -> Result<Json<Plan>, Problem> {
    Ok(Json(
        app.store(move |store| store.revision(id, number)).await?,
    ))
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
    PlanId(id): PlanId,
    body::Json(taken): body::Json<StepTaken>,
) -> Result<Reply, Problem> {
    let step = match taken.step {
        StepKind::Undo => Step::Undo,
        StepKind::Redo => Step::Redo,
        StepKind::To(revision) => Step::To(revision),
    };
    let snapshot = app
        .store(move |store| store.step(id, taken.base_revision, step))
        .await?;
    app.view(snapshot, StatusCode::OK).await
}
