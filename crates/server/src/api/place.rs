//! Placing, which takes longer than other answers: who accepts server-sent events hears how far it is, may
//! stop it, and then has the best so far. Who does not waits for the answer.

use std::collections::HashMap;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use axum::extract::State;
use axum::http::{HeaderMap, StatusCode, header};
use axum::response::sse::{Event, KeepAlive, Sse};
use axum::response::{IntoResponse, Response};
use futures_util::stream::poll_fn;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use sunrise_core::ask;
use sunrise_core::ask::calc::{Answer, Instance, Progress};
use sunrise_core::ask::{
    Edited, FrostNight, How, LeastGear, Lessening, Overflow, PlacingEffort, Plan, Trying,
};
use sunrise_core::basis::words::say;
use tokio::sync::mpsc::{Sender, channel};
use utoipa::ToSchema;

use super::App;
use super::address::RunId;
use super::past::{LogOf, Past};
use crate::body;
use crate::effort::Reply;
use crate::problem::Problem;

/// The longest that placing may take.
const LONGEST: Duration = Duration::from_secs(20);
/// So often somebody hears how far it is.
const NOW_AND_THEN: Duration = Duration::from_millis(100);
/// Without anybody looking on, the best so far is taken after so much of that; somebody who looks on waits longer.
const IN_TIME: f64 = 0.6;
const WATCHED: f64 = 0.8;

/// What is being placed, to be stopped by its number.
#[derive(Debug, Default)]
pub struct Runs {
    next: AtomicU64,
    running: Mutex<HashMap<u64, Arc<AtomicBool>>>,
}

/// One of them, until it is dropped.
struct Run {
    id: u64,
    stop: Arc<AtomicBool>,
    runs: Arc<Runs>,
}

impl Runs {
    fn begin(runs: &Arc<Self>) -> Run {
        let id = runs.next.fetch_add(1, Ordering::Relaxed) + 1;
        let stop = Arc::<AtomicBool>::default();
        let mut running = runs.running.lock().unwrap_or_else(PoisonError::into_inner);
        running.insert(id, stop.clone());
        Run {
            id,
            stop,
            runs: runs.clone(),
        }
    }

    fn stop(&self, id: u64) -> bool {
        let running = self.running.lock().unwrap_or_else(PoisonError::into_inner);
        let run = running.get(&id);
        run.inspect(|stop| stop.store(true, Ordering::Relaxed))
            .is_some()
    }
}

impl Drop for Run {
    fn drop(&mut self) {
        let running = self.runs.running.lock();
        running
            .unwrap_or_else(PoisonError::into_inner)
            .remove(&self.id);
    }
}

/// A tick of placing.
#[derive(Debug, Serialize, ToSchema)]
pub struct Tick<P> {
    /// The number to stop it by.
    run: u64,
    /// How far it is.
    #[serde(flatten)]
    progress: P,
}

/// Who hears how far it is.
pub(super) type Tell<'t, P> = &'t mut dyn FnMut(P) -> bool;

/// Answers with what `place` finds, told on the way where that is wanted.
pub(super) async fn answered<P: Serialize + 'static, T: Serialize + Send + 'static>(
    app: App,
    headers: &HeaderMap,
    place: impl FnOnce(Tell<'_, P>) -> Result<T, Problem> + Send + 'static,
) -> Result<Response, Problem> {
    let smaller = say!("place fewer trays at once");
    let accepts = headers
        .get(header::ACCEPT)
        .and_then(|accept| accept.to_str().ok());
    if !accepts.is_some_and(|accept| accept.contains("text/event-stream")) {
        let until = Instant::now() + LONGEST.mul_f64(IN_TIME);
        let compute = move || place(&mut |_| Instant::now() < until);
        let effort = app.effort.lasting(LONGEST);
        return Ok(effort.answer(smaller, compute).await?.into_response());
    }
    let (sender, mut receiver) = channel::<Event>(16);
    let run = Runs::begin(&app.runs);
    let effort = app.effort.lasting(LONGEST);
    tokio::spawn(async move {
        let (ticks, id, stop) = (sender.clone(), run.id, run.stop.clone());
        let mut told: Option<Instant> = None;
        let until = Instant::now() + LONGEST.mul_f64(WATCHED);
        let compute = move || {
            place(&mut |progress| {
                if told.is_none_or(|told| told.elapsed() >= NOW_AND_THEN) {
                    told = Some(Instant::now());
                    tick(&ticks, id, progress);
                }
                !stop.load(Ordering::Relaxed) && Instant::now() < until
            })
        };
        let answering = effort.compute(smaller, compute);
        // Who hangs up wants no answer: placing ends with it.
        tokio::select! {
            outcome = answering => {
                let event = match &outcome {
                    Ok(answer) => Event::default().event("answer").json_data(answer),
                    Err(problem) => Event::default().event("problem").json_data(problem),
                };
                if let Ok(event) = event {
                    let _gone = sender.send(event).await;
                }
            }
            () = sender.closed() => {}
        }
        drop(run);
    });
    let events = poll_fn(move |context| {
        let next = receiver.poll_recv(context);
        next.map(|event| event.map(Ok::<_, std::convert::Infallible>))
    });
    Ok(Sse::new(events)
        .keep_alive(KeepAlive::default())
        .into_response())
}

fn tick<P: Serialize>(ticks: &Sender<Event>, run: u64, progress: P) {
    let tick = Event::default()
        .event("progress")
        .json_data(Tick { run, progress });
    if let Ok(event) = tick {
        // Who reads too slowly misses a tick.
        let _full = ticks.try_send(event);
    }
}

/// Where trays stand through their stages, and how little must stand nowhere
///
/// With `Accept: text/event-stream` the events are `progress`, then `answer` or `problem`.
#[utoipa::path(
    post,
    path = "/api/calc/placement",
    request_body = Instance,
    responses(
        (status = 200, content((Answer = "application/json"), (Tick<Progress> = "text/event-stream"))),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn instance(
    State(app): State<App>,
    headers: HeaderMap,
    body::Json(instance): body::Json<Instance>,
) -> Result<Response, Problem> {
    let place =
        move |tell: Tell<'_, Progress>| ask::calc::place(&instance, tell).map_err(Problem::unfit);
    answered(app, &headers, place).await
}

/// A document whose trays are to be placed.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToPlace {
    /// The plan; it is not kept.
    plan: Plan,
    /// As if no tray stood anywhere yet; else what stands stays, but for what has to make room.
    afresh: bool,
}

/// Place every tray of a plan without keeping it
///
/// With `Accept: text/event-stream` the events are `progress`, then `answer` or `problem`.
#[utoipa::path(
    post,
    path = "/api/place-all",
    params(LogOf),
    request_body = ToPlace,
    responses(
        (status = 200, content((Edited = "application/json"), (Tick<Progress> = "text/event-stream"))),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn all(
    State(app): State<App>,
    headers: HeaderMap,
    past: Past,
    body::Json(ToPlace { plan, afresh }): body::Json<ToPlace>,
) -> Result<Response, Problem> {
    let how = How {
        afresh,
        effort: PlacingEffort::Full,
    };
    let fields = app.fields.clone();
    let place = move |tell: Tell<'_, Progress>| {
        ask::place_all(&past.sound(plan)?, how, &fields, tell).map_err(Problem::unfit)
    };
    answered(app, &headers, place).await
}

/// What a plan has no room for, and ways to make room
///
/// With `Accept: text/event-stream` the events are `progress`, then `answer` or `problem`.
#[utoipa::path(
    post,
    path = "/api/make-room",
    params(LogOf),
    request_body = Plan,
    responses(
        (status = 200, content((Overflow = "application/json"), (Tick<Trying> = "text/event-stream"))),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn make_room(
    State(app): State<App>,
    headers: HeaderMap,
    past: Past,
    body::Json(plan): body::Json<Plan>,
) -> Result<Response, Problem> {
    let fields = app.fields.clone();
    let find = move |tell: Tell<'_, Trying>| Ok(ask::make_room(&past.sound(plan)?, &fields, tell));
    answered(app, &headers, find).await
}

/// How few lit shelves and racks serve the season
///
/// With `Accept: text/event-stream` the events are `progress`, then `answer` or `problem`.
#[utoipa::path(
    post,
    path = "/api/least-gear",
    params(LogOf),
    request_body = Plan,
    responses(
        (status = 200, content((LeastGear = "application/json"), (Tick<Lessening> = "text/event-stream"))),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn least_gear(
    State(app): State<App>,
    headers: HeaderMap,
    past: Past,
    body::Json(plan): body::Json<Plan>,
) -> Result<Response, Problem> {
    let fields = app.fields.clone();
    let find =
        move |tell: Tell<'_, Lessening>| Ok(ask::least_gear(&past.sound(plan)?, &fields, tell));
    answered(app, &headers, find).await
}

/// A plan, and an evening with a forecast of frost.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrostyEvening {
    /// The plan; it is not kept.
    plan: Plan,
    /// The evening.
    date: Date,
}

/// Where all that is outside goes for a night of frost; nothing where nothing is outside
#[utoipa::path(
    post,
    path = "/api/frost-night",
    params(LogOf),
    request_body = FrostyEvening,
    responses(
        (status = 200, body = Option<FrostNight>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn frost_night(
    State(App { effort, fields, .. }): State<App>,
    past: Past,
    body::Json(FrostyEvening { plan, date }): body::Json<FrostyEvening>,
) -> Result<Reply, Problem> {
    let compute = move || Ok(ask::frost_night(&past.sound(plan)?, date, &fields));
    effort
        .answer(say!("ask of a plan with fewer trays"), compute)
        .await
}

/// Stop placing: the best so far is the answer
#[utoipa::path(
    post,
    path = "/api/placing/{run}/stop",
    params(("run" = u64, Path, description = "Its number, from its progress")),
    responses(
        (status = 204, description = "It stops"),
        (status = 404, description = "It is done already",
            body = Problem, content_type = "application/problem+json"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn stop(State(app): State<App>, RunId(run): RunId) -> Result<StatusCode, Problem> {
    if app.runs.stop(run) {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_here(&format!("/api/placing/{run}/stop")))
    }
}
