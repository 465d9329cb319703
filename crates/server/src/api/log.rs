//! What happened, as it was noted.

use axum::Json;
use axum::extract::rejection::QueryRejection;
use axum::extract::{Query, State};
use jiff::civil::Date;
use jiff::{Timestamp, tz::TimeZone};
use serde::{Deserialize, Serialize};
use sunrise_core::ask::Entry;
use sunrise_core::basis::fault::{Fault, Faults, Pointer};
use sunrise_core::basis::units::Quantity;
use sunrise_core::basis::words::say;
use sunrise_store::{Kept, KeptEntry, LogQuery};
use utoipa::{IntoParams, ToSchema};

use super::address::PlanId;
use super::{App, sound};
use crate::body;
use crate::problem::Problem;

/// Entries for the log, as they were noted on one device.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ToNote {
    /// In the order in which they were noted.
    entries: Vec<Entry>,
}

/// What became of an entry.
#[derive(Debug, Serialize, ToSchema)]
pub struct Noted {
    /// The entry's identifier.
    id: String,
    /// Whether it is kept; left out where it is at fault.
    #[serde(skip_serializing_if = "Option::is_none")]
    kept: Option<Kept>,
    /// What is wrong with it; such an entry is not kept, the others are.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    faults: Vec<Fault>,
}

/// Entries that are sent at once.
const MOST_AT_ONCE: usize = 200;
/// Entries that are given out at once.
const MOST_GIVEN: u32 = 500;

/// Add to a plan's log; what was sent before is kept once, and what is at fault does not hold up the rest
#[utoipa::path(
    post,
    path = "/api/plans/{id}/log",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = ToNote,
    responses(
        (status = 200, body = Vec<Noted>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn note(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(ToNote { entries }): body::Json<ToNote>,
) -> Result<Json<Vec<Noted>>, Problem> {
    let mut faults = Faults::default();
    faults.count(
        &Pointer::default().at("entries"),
        entries.len(),
        1..=MOST_AT_ONCE,
    );
    faults.verdict().map_err(Problem::unfit)?;
    let snapshot = app.store(move |store| store.plan(id)).await?;
    let plan = sound(snapshot.plan)?;
    let zone = TimeZone::get(&plan.site.time_zone).unwrap_or(TimeZone::UTC);
    let now = Timestamp::now();
    let today = now.to_zoned(zone).date();
    let noted = app.store(move |store| {
        let mut noted: Vec<Noted> = Vec::with_capacity(entries.len());
        let mut fine: Vec<Entry> = Vec::new();
        for entry in entries {
            let mut known = Ok(false);
            if let Some(corrected) = &entry.corrects {
                known = store.has_noted(id, corrected);
            }
            let known = known?
                || fine
                    .iter()
                    .any(|own| Some(&own.id) == entry.corrects.as_ref());
            let faults = entry
                .check(&plan, today, |_| known)
                .err()
                .unwrap_or_default();
            noted.push(Noted {
                id: sunrise_core::basis::fault::shortened(&entry.id),
                kept: None,
                faults,
            });
            if noted.last().is_some_and(|noted| noted.faults.is_empty()) {
                fine.push(entry);
            }
        }
        let kept = store.note(id, &fine, now)?;
        let without_fault = noted.iter_mut().filter(|noted| noted.faults.is_empty());
        for (noted, kept) in without_fault.zip(kept) {
            noted.kept = Some(kept);
        }
        Ok(noted)
    });
    Ok(Json(noted.await?))
}

/// Which entries are wanted.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct LogAsked {
    /// What happened to this tray alone.
    tray: Option<String>,
    /// Facts of this kind alone, such as watered.
    kind: Option<String>,
    /// Entries whose text holds this.
    text: Option<String>,
    /// From this day on.
    from: Option<Date>,
    /// To this day.
    to: Option<Date>,
    /// Those that were kept before the one of this number.
    before: Option<i64>,
    /// So many at most: up to 500, 100 when left out.
    limit: Option<u32>,
}

/// A plan's log, the last kept first
#[utoipa::path(
    get,
    path = "/api/plans/{id}/log",
    params(("id" = i64, Path, description = "The plan's number"), LogAsked),
    responses(
        (status = 200, body = Vec<KeptEntry>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn show(
    State(app): State<App>,
    PlanId(id): PlanId,
    asked: Result<Query<LogAsked>, QueryRejection>,
) -> Result<Json<Vec<KeptEntry>>, Problem> {
    let mut faults = Faults::default();
    let asked = asked.map_err(|error| {
        faults.add(
            &Pointer::default(),
            error.body_text(),
            say!("that cannot be looked for"),
            say!("look by tray, kind, text, from, to, before and limit; write days as 2027-04-09"),
        );
    });
    let Ok(Query(asked)) = asked else {
        return Err(Problem::unfit(faults.verdict().err().unwrap_or_default()));
    };
    let limit = asked.limit.unwrap_or(100);
    let most = f64::from(MOST_GIVEN);
    faults.number(
        &Pointer::default().at("limit"),
        f64::from(limit),
        1.0..=most,
        Quantity::Count,
    );
    faults.verdict().map_err(Problem::unfit)?;
    let query = LogQuery {
        tray: asked.tray,
        kind: asked.kind,
        text: asked.text,
        from: asked.from,
        to: asked.to,
        before: asked.before,
        limit,
    };
    Ok(Json(app.store(move |store| store.log(id, &query)).await?))
}
