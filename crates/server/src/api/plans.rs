//! Plans, their edits and their history.

use axum::Json;
use axum::extract::rejection::QueryRejection;
use axum::extract::{Query, State};
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use jiff::Timestamp;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use sunrise_core::ask::{self, Assessment, DateSpan, Detail, Plan, SoundPlan, opening_day};
use sunrise_core::basis::fault::{Faults, Pointer};
use sunrise_core::basis::words::{Statement, say};
use sunrise_store::{PlanSummary, Saved, Snapshot};
use utoipa::{IntoParams, ToSchema};

use super::address::PlanId;
use super::past::{Past, today};
use super::{App, sound};
use crate::body;
use crate::calendar;
use crate::effort::Reply;
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
    /// The words of edits that others saved meanwhile, and that this one was joined with; empty when
    /// there were none.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    with: Vec<String>,
    /// The plan in outline on the day that was asked for, or on its opening day; only where a plan
    /// is fetched to be opened.
    #[serde(skip_serializing_if = "Option::is_none")]
    assessment: Option<Assessment>,
}

/// The day to open a plan on.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Opening {
    /// The day to assess the plan on; its opening day when left out or outside the season.
    on: Option<Date>,
}

impl PlanView {
    fn of(snapshot: Snapshot, past: &Past, app: &App) -> Result<(Self, SoundPlan), Problem> {
        let plan = past.sound(snapshot.plan)?;
        let today = today(&plan);
        let view = Self {
            id: snapshot.id,
            revision: snapshot.revision,
            opening_day: opening_day(&plan, today, &app.fields, &app.lately),
            plan: (*plan).clone(),
            undo: snapshot.undo,
            redo: snapshot.redo,
            today,
            with: Vec::new(),
            assessment: None,
        };
        Ok((view, plan))
    }

    /// With the assessment that whoever opens it asks for next.
    fn opened(
        snapshot: Snapshot,
        opening: &Opening,
        past: &Past,
        app: &App,
    ) -> Result<Self, Problem> {
        let (mut view, plan) = Self::of(snapshot, past, app)?;
        let asked = opening.on.filter(|day| plan.season.contains(*day));
        let day = DateSpan::day(asked.unwrap_or(view.opening_day));
        let assessment = ask::assess_lately(&plan, day, Detail::Outline, &app.fields, &app.lately);
        view.assessment = Some(assessment);
        Ok(view)
    }
}

impl App {
    /// Answers with a plan as it is kept.
    pub(super) async fn view(
        &self,
        snapshot: Snapshot,
        status: StatusCode,
    ) -> Result<Reply, Problem> {
        let app = self.clone();
        let past = Past::from(&self.log(snapshot.id).await?);
        let view = move || Ok(PlanView::of(snapshot, &past, &app)?.0);
        let reply = self.effort.answer(smaller(), view).await?;
        Ok(reply.with(status))
    }

    /// Answers with a plan after an edit, and what went into it besides.
    pub(super) async fn view_with(
        &self,
        saved: Saved,
        status: StatusCode,
    ) -> Result<Reply, Problem> {
        let app = self.clone();
        let past = Past::from(&self.log(saved.snapshot.id).await?);
        let view = move || {
            let (mut view, _) = PlanView::of(saved.snapshot, &past, &app)?;
            view.with = saved.with;
            Ok(view)
        };
        let reply = self.effort.answer(smaller(), view).await?;
        Ok(reply.with(status))
    }

    /// Answers with a plan that is to be opened.
    async fn open(self, snapshot: Snapshot, opening: Opening) -> Result<Reply, Problem> {
        let effort = self.effort.clone();
        let past = Past::from(&self.log(snapshot.id).await?);
        let view = move || PlanView::opened(snapshot, &opening, &past, &self);
        effort.answer(smaller(), view).await
    }

    /// A plan without fault, checked off the threads that serve requests.
    pub(super) async fn sound(&self, plan: Plan) -> Result<SoundPlan, Problem> {
        self.effort.compute(smaller(), move || sound(plan)).await
    }
}

/// What to do when a plan is too much.
fn smaller() -> Statement {
    say!("divide the plan in two")
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

/// All plans, the last edited first
#[utoipa::path(get, path = "/api/plans", responses((status = 200, body = Vec<PlanSummary>)))]
pub async fn list(State(app): State<App>) -> Result<Json<Vec<PlanSummary>>, Problem> {
    Ok(Json(app.store(|store| store.plans()).await?))
}

/// Plans that were deleted less than 30 days ago, the last edited first
#[utoipa::path(
    get,
    path = "/api/deleted-plans",
    responses((status = 200, body = Vec<PlanSummary>))
)]
pub async fn deleted(State(app): State<App>) -> Result<Json<Vec<PlanSummary>>, Problem> {
    Ok(Json(app.store(|store| store.deleted_plans()).await?))
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
) -> Result<Reply, Problem> {
    let word = checked_word(word)?;
    let plan = app.sound(plan).await?;
    let snapshot = app
        .store(move |store| store.create(&plan, &word, Timestamp::now()))
        .await?;
    app.view(snapshot, StatusCode::CREATED).await
}

/// The plan that was edited last, with its first assessment
#[utoipa::path(
    get,
    path = "/api/last-plan",
    params(Opening),
    responses(
        (status = 200, body = PlanView),
        (status = 404, description = "There is no plan yet",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn last(
    State(app): State<App>,
    opening: Result<Query<Opening>, QueryRejection>,
) -> Result<Reply, Problem> {
    let opening = asked(opening)?;
    let snapshot = app
        .store(move |store| match store.plans()?.first() {
            Some(plan) => store.plan(plan.id).map(Some),
            None => Ok(None),
        })
        .await?;
    let snapshot = snapshot.ok_or_else(|| Problem::not_here("/api/last-plan"))?;
    app.open(snapshot, opening).await
}

/// A plan at its current revision, with its first assessment
#[utoipa::path(
    get,
    path = "/api/plans/{id}",
    params(("id" = i64, Path, description = "The plan's number"), Opening),
    responses(
        (status = 200, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn show(
    State(app): State<App>,
    PlanId(id): PlanId,
    opening: Result<Query<Opening>, QueryRejection>,
) -> Result<Reply, Problem> {
    let opening = asked(opening)?;
    let snapshot = app.store(move |store| store.plan(id)).await?;
    app.open(snapshot, opening).await
}

/// Delete a plan; for 30 days it can be brought back
#[utoipa::path(
    delete,
    path = "/api/plans/{id}",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 204, description = "It is deleted"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn delete(State(app): State<App>, PlanId(id): PlanId) -> Result<StatusCode, Problem> {
    app.store(move |store| store.delete(id, Timestamp::now()))
        .await?;
    Ok(StatusCode::NO_CONTENT)
}

/// Bring a deleted plan back
#[utoipa::path(
    post,
    path = "/api/plans/{id}/restore",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn restore(State(app): State<App>, PlanId(id): PlanId) -> Result<Reply, Problem> {
    let snapshot = app.store(move |store| store.restore(id)).await?;
    app.view(snapshot, StatusCode::OK).await
}

/// Whether a plan is to hand.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetAside {
    /// Whether it is set aside.
    aside: bool,
}

/// Set a plan aside, or take it back to hand
#[utoipa::path(
    put,
    path = "/api/plans/{id}/aside",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = SetAside,
    responses(
        (status = 204, description = "It is so"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn set_aside(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(SetAside { aside }): body::Json<SetAside>,
) -> Result<StatusCode, Problem> {
    app.store(move |store| store.set_aside_plan(id, aside))
        .await?;
    Ok(StatusCode::NO_CONTENT)
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
pub async fn file(State(app): State<App>, PlanId(id): PlanId) -> Result<Response, Problem> {
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
pub async fn calendar(State(app): State<App>, PlanId(id): PlanId) -> Result<Response, Problem> {
    let snapshot = app.store(move |store| store.plan(id)).await?;
    let fields = app.fields.clone();
    let past = Past::from(&app.log(id).await?);
    let calendar = move || calendar::of(snapshot, &past, &fields);
    let calendar = app.effort.compute(smaller(), calendar).await?;
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

fn asked(opening: Result<Query<Opening>, QueryRejection>) -> Result<Opening, Problem> {
    opening.map(|Query(opening)| opening).map_err(|error| {
        let mut faults = Faults::default();
        faults.add(
            &Pointer::default().at("on"),
            error.body_text(),
            say!("that is no day"),
            say!("write a day as 2027-04-09, or leave it out"),
        );
        match faults.verdict() {
            Err(faults) => Problem::unfit(faults),
            Ok(()) => Problem::not_here(""),
        }
    })
}

pub(super) fn checked_word(word: String) -> Result<String, Problem> {
    let mut faults = Faults::default();
    faults.name(&Pointer::default().at("word"), &word);
    faults.verdict().map_err(Problem::unfit)?;
    Ok(word)
}
