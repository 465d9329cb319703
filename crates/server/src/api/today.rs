//! What is to be done on a day, the life of a tray, and the code on its label.

use axum::extract::rejection::QueryRejection;
use axum::extract::{Query, State};
use axum::http::{HeaderMap, header};
use axum::response::{IntoResponse, Response};
use jiff::civil::Date;
use qrcode::QrCode;
use qrcode::render::svg;
use serde::{Deserialize, Serialize};
use sunrise_core::ask::{self, Fields, SoundPlan, Story, Today, WaterAhead};
use sunrise_core::basis::fault::{Faults, Pointer};
use sunrise_core::basis::words::say;
use utoipa::IntoParams;

use super::App;
use super::address::{PlanId, Within};
use super::past::{Past, today as today_of};
use crate::effort::Reply;
use crate::problem::Problem;

/// Which day.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct OnDay {
    /// The day; today when left out.
    on: Option<Date>,
}

/// What is to be done on a day, as a walk round the room
#[utoipa::path(
    get,
    path = "/api/plans/{id}/today",
    params(("id" = i64, Path, description = "The plan's number"), OnDay),
    responses(
        (status = 200, body = Today),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn today(
    State(app): State<App>,
    PlanId(id): PlanId,
    asked: Result<Query<OnDay>, QueryRejection>,
) -> Result<Reply, Problem> {
    on_day(&app, id, asked, ask::today).await
}

/// What the trays indoors drink from a day on, and when each wants water next
#[utoipa::path(
    get,
    path = "/api/plans/{id}/water",
    params(("id" = i64, Path, description = "The plan's number"), OnDay),
    responses(
        (status = 200, body = WaterAhead),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn water_ahead(
    State(app): State<App>,
    PlanId(id): PlanId,
    asked: Result<Query<OnDay>, QueryRejection>,
) -> Result<Reply, Problem> {
    on_day(&app, id, asked, ask::water_ahead).await
}

/// What `about` says of plan `id`, with its log, on the day that is `asked` for, or today.
async fn on_day<T: Serialize + Send + 'static>(
    app: &App,
    id: i64,
    asked: Result<Query<OnDay>, QueryRejection>,
    about: impl FnOnce(&SoundPlan, Date, &Fields) -> T + Send + 'static,
) -> Result<Reply, Problem> {
    let on = the_day(asked)?;
    let past = Past::from(&app.log(id).await?);
    let snapshot = app.store(move |store| store.plan(id)).await?;
    let fields = app.fields.clone();
    let compute = move || {
        let plan = past.sound(snapshot.plan)?;
        // Far from the season nothing is to be done, and nothing is reckoned.
        let day = on.unwrap_or_else(|| today_of(&plan));
        Ok(about(&plan, day, &fields))
    };
    app.effort
        .answer(say!("divide the plan in two"), compute)
        .await
}

/// The day that is `asked` for, if any is.
fn the_day(asked: Result<Query<OnDay>, QueryRejection>) -> Result<Option<Date>, Problem> {
    let Query(OnDay { on }) = asked.map_err(|error| {
        let mut faults = Faults::default();
        faults.add(
            &Pointer::default().at("on"),
            error.body_text(),
            say!("that is no day"),
            say!("write a day as 2027-04-09, or leave it out"),
        );
        Problem::unfit(faults.verdict().err().unwrap_or_default())
    })?;
    Ok(on)
}

/// The life of a tray: what was planned beside what happened
#[utoipa::path(
    get,
    path = "/api/plans/{id}/trays/{tray}/story",
    params(
        ("id" = i64, Path, description = "The plan's number"),
        ("tray" = String, Path, description = "The tray"),
    ),
    responses(
        (status = 200, body = Story),
        (status = 404, description = "The plan has no such tray",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn story(State(app): State<App>, Within(id, tray): Within) -> Result<Reply, Problem> {
    let log = app.log(id).await?;
    let snapshot = app.store(move |store| store.plan(id)).await?;
    let fields = app.fields.clone();
    let compute = move || {
        let plan = Past::from(&log).sound(snapshot.plan)?;
        let story = ask::story(&plan, &log.told, &tray, &fields);
        story.ok_or_else(|| Problem::not_here(&format!("/api/plans/{id}/trays/{tray}/story")))
    };
    app.effort
        .answer(say!("divide the plan in two"), compute)
        .await
}

/// A QR code that opens a tray, as SVG: for its label
#[utoipa::path(
    get,
    path = "/api/plans/{id}/trays/{tray}/code.svg",
    params(
        ("id" = i64, Path, description = "The plan's number"),
        ("tray" = String, Path, description = "The tray"),
    ),
    responses(
        (status = 200, description = "A drawing", body = String, content_type = "image/svg+xml"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn code(
    State(app): State<App>,
    Within(id, tray): Within,
    headers: HeaderMap,
) -> Result<Response, Problem> {
    let plan = app.store(move |store| store.plan(id)).await?.plan;
    let here = format!("/api/plans/{id}/trays/{tray}/code.svg");
    if plan.trays.iter().all(|own| own.id != tray) {
        return Err(Problem::not_here(&here));
    }
    // Whoever prints reaches the server by this name; so does the phone that reads the label, unless it is
    // the computer's own.
    let host = headers
        .get(header::HOST)
        .and_then(|host| host.to_str().ok());
    let address = format!(
        "http://{}/log?plan={id}&tray={tray}",
        host.unwrap_or("localhost")
    );
    let code = QrCode::new(address.as_bytes()).map_err(|_| Problem::not_here(&here))?;
    let drawing = code
        .render::<svg::Color<'_>>()
        .min_dimensions(120, 120)
        .quiet_zone(true)
        .build();
    let headers = [
        (header::CONTENT_TYPE, "image/svg+xml"),
        (header::CACHE_CONTROL, "no-cache"),
    ];
    Ok((headers, drawing).into_response())
}
