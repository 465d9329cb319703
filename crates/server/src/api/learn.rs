//! What a season teaches: corrections, two batches, causes of what is seen, and what the next year takes over.

use axum::extract::rejection::QueryRejection;
use axum::extract::{Query, State};
use axum::http::StatusCode;
use jiff::Timestamp;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use sunrise_core::ask::{
    self, Batch, Comparison, Diagnosis, Entry, HandedOn, Lesson, LessonEffect, Meaning, SeasonTold,
    SoundPlan, Symptom,
};
use sunrise_core::basis::fault::{Faults, Pointer};
use sunrise_core::basis::words::{Statement, say};
use utoipa::{IntoParams, ToSchema};

use super::App;
use super::address::{PlanId, Within};
use super::past::{Past, today};
use super::plans::PlanView;
use crate::body;
use crate::effort::Reply;
use crate::logs::Log;
use crate::problem::Problem;

/// Which readings count that stand out.
#[derive(Debug, Default, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PutIn {
    /// Entries that count though they stand out, by their names, with commas between; none when left out.
    #[serde(default)]
    put_in: String,
}

/// Which lesson.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct OfLesson {
    /// The lesson, by its name.
    lesson: String,
    /// As for the lessons.
    #[serde(default)]
    put_in: String,
}

/// What is seen.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Seen {
    /// What is seen.
    symptom: Symptom,
    /// The day; today when left out.
    on: Option<Date>,
}

/// What the next year takes over.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct Takes {
    /// What is taken over, by its names, with commas between; what usually is when left out.
    takes: Option<String>,
}

/// Two batches to compare.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToCompareBatches {
    /// The first.
    a: Batch,
    /// The second.
    b: Batch,
    /// The number of the plan that the second is of; the same when left out.
    #[serde(default)]
    b_plan: Option<i64>,
}

/// Names with commas between.
fn names(text: &str) -> Vec<String> {
    let names = text.split(',').map(str::trim);
    let names = names.filter(|name| !name.is_empty());
    names.map(str::to_owned).collect()
}

fn asked<T>(query: Result<Query<T>, QueryRejection>, remedy: Statement) -> Result<T, Problem> {
    let Query(asked) = query.map_err(|error| {
        let mut faults = Faults::default();
        faults.add(
            &Pointer::default(),
            error.body_text(),
            say!("that is no such question"),
            remedy,
        );
        Problem::unfit(faults.verdict().err().unwrap_or_default())
    })?;
    Ok(asked)
}

/// A kept plan after its log, with that log.
struct Kept {
    plan: SoundPlan,
    log: Log,
}

impl Kept {
    fn told(&self) -> SeasonTold<'_> {
        SeasonTold {
            plan: &self.plan,
            told: &self.log.told,
        }
    }
}

impl App {
    async fn season(&self, id: i64) -> Result<Kept, Problem> {
        let log = self.log(id).await?;
        let plan = self.store(move |store| store.plan(id)).await?.plan;
        let plan = Past::from(&log).sound(plan)?;
        Ok(Kept { plan, log })
    }

    /// Answers with what `compute` makes of a season.
    async fn of_season<T: Serialize + Send + 'static>(
        &self,
        season: Kept,
        compute: impl FnOnce(&Kept, &ask::Fields) -> Result<T, Problem> + Send + 'static,
    ) -> Result<Reply, Problem> {
        let fields = self.fields.clone();
        let compute = move || compute(&season, &fields);
        self.effort
            .answer(say!("divide the plan in two"), compute)
            .await
    }
}

/// What the log teaches of lamps, mats, air, packets and crops: nothing is changed by it
#[utoipa::path(
    get,
    path = "/api/plans/{id}/lessons",
    params(("id" = i64, Path, description = "The plan's number"), PutIn),
    responses(
        (status = 200, body = Vec<Lesson>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn lessons(
    State(app): State<App>,
    PlanId(id): PlanId,
    query: Result<Query<PutIn>, QueryRejection>,
) -> Result<Reply, Problem> {
    let PutIn { put_in } = asked(query, say!("name entries with commas between"))?;
    let season = app.season(id).await?;
    app.of_season(season, move |season, fields| {
        Ok(ask::lessons(season.told(), &names(&put_in), fields))
    })
    .await
}

/// What accepting a lesson would change
#[utoipa::path(
    get,
    path = "/api/plans/{id}/lesson-effect",
    params(("id" = i64, Path, description = "The plan's number"), OfLesson),
    responses(
        (status = 200, body = LessonEffect),
        (status = 404, description = "There is no such lesson, or nothing in it to accept",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn lesson_effect(
    State(app): State<App>,
    PlanId(id): PlanId,
    query: Result<Query<OfLesson>, QueryRejection>,
) -> Result<Reply, Problem> {
    let OfLesson { lesson, put_in } = asked(query, say!("name a lesson in lesson"))?;
    let season = app.season(id).await?;
    app.of_season(season, move |season, fields| {
        let day = today(&season.plan);
        let effect = ask::lesson_effect(season.told(), &lesson, &names(&put_in), day, fields);
        let effect = effect.map_err(Problem::unfit)?;
        effect.ok_or_else(|| Problem::not_here(&format!("/api/plans/{id}/lesson-effect")))
    })
    .await
}

/// What a reading means before it is noted; nothing of what is no reading
#[utoipa::path(
    post,
    path = "/api/plans/{id}/meaning",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = Entry,
    responses(
        (status = 200, body = Option<Meaning>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn meaning(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(entry): body::Json<Entry>,
) -> Result<Reply, Problem> {
    let season = app.season(id).await?;
    app.of_season(season, move |season, fields| {
        let day = today(&season.plan);
        entry
            .check(&season.plan, day, |_| true)
            .map_err(Problem::unfit)?;
        Ok(ask::meaning(season.told(), &entry, fields))
    })
    .await
}

/// Two batches compared: trays, sowings, shelves or places, of one season or of two
#[utoipa::path(
    post,
    path = "/api/plans/{id}/comparison",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = ToCompareBatches,
    responses(
        (status = 200, body = Comparison),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn comparison(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(ToCompareBatches { a, b, b_plan }): body::Json<ToCompareBatches>,
) -> Result<Reply, Problem> {
    let season = app.season(id).await?;
    let other = match b_plan.filter(|other| *other != id) {
        Some(other) => Some(app.season(other).await?),
        None => None,
    };
    app.of_season(season, move |season, fields| {
        let second = other.as_ref().unwrap_or(season);
        let compared = ask::compare_batches((season.told(), &a), (second.told(), &b), fields);
        compared.map_err(Problem::unfit)
    })
    .await
}

/// What something seen in a tray comes from, by its own history and figures
#[utoipa::path(
    get,
    path = "/api/plans/{id}/trays/{tray}/diagnosis",
    params(
        ("id" = i64, Path, description = "The plan's number"),
        ("tray" = String, Path, description = "The tray"),
        Seen,
    ),
    responses(
        (status = 200, body = Diagnosis),
        (status = 404, description = "The plan has no such tray",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn diagnosis(
    State(app): State<App>,
    Within(id, tray): Within,
    query: Result<Query<Seen>, QueryRejection>,
) -> Result<Reply, Problem> {
    let Seen { symptom, on } = asked(query, say!("name what is seen in symptom: leggy, pale, …"))?;
    let season = app.season(id).await?;
    app.of_season(season, move |season, fields| {
        let day = on.unwrap_or_else(|| today(&season.plan));
        let found = ask::diagnose(season.told(), &tray, symptom, day, fields);
        found.ok_or_else(|| Problem::not_here(&format!("/api/plans/{id}/trays/{tray}/diagnosis")))
    })
    .await
}

/// What a season hands on to the next
#[utoipa::path(
    get,
    path = "/api/plans/{id}/handed-on",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, body = Vec<HandedOn>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn handed_on(State(app): State<App>, PlanId(id): PlanId) -> Result<Reply, Problem> {
    let season = app.season(id).await?;
    app.of_season(season, move |season, fields| {
        Ok(ask::handed_on(&season.plan, fields))
    })
    .await
}

/// Copies a plan as the start of the next season: every date moves by a year, and what the season taught is taken over
#[utoipa::path(
    post,
    path = "/api/plans/{id}/next-year",
    params(("id" = i64, Path, description = "The plan's number"), Takes),
    responses(
        (status = 201, body = PlanView),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn next_year(
    State(app): State<App>,
    PlanId(id): PlanId,
    query: Result<Query<Takes>, QueryRejection>,
) -> Result<Reply, Problem> {
    let Takes { takes } = asked(query, say!("name what is taken over with commas between"))?;
    let season = app.season(id).await?;
    let word: String = format!("copied {} for the next season", season.plan.name);
    let word = word.chars().take(120).collect::<String>();
    let fields = app.fields.clone();
    let takes = takes.map(|takes| names(&takes));
    let compute = move || Ok(ask::next_year(&season.plan, takes.as_deref(), &fields));
    let next = app
        .effort
        .compute(say!("divide the plan in two"), compute)
        .await?;
    let plan = app.sound(next).await?;
    let snapshot = app
        .store(move |store| store.create(&plan, &word, Timestamp::now()))
        .await?;
    app.view(snapshot, StatusCode::CREATED).await
}
