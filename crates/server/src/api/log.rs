//! What happened, as it was noted.

use std::collections::HashSet;
use std::sync::Arc;

use axum::Json;
use axum::extract::rejection::QueryRejection;
use axum::extract::{Query, State};
use jiff::Timestamp;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use sunrise_core::ask::{self, Entry, Plan};
use sunrise_core::basis::fault::{Fault, Faults, Pointer};
use sunrise_core::basis::units::Quantity;
use sunrise_core::basis::words::{Statement, say};
use sunrise_store::{Kept, KeptEntry, LogQuery};
use utoipa::{IntoParams, ToSchema};

use super::App;
use super::address::PlanId;
use super::past::{Past, today};
use crate::body;
use crate::photos::Photos;
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
    pub(super) id: String,
    /// Whether it is kept; left out where it is at fault.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(super) kept: Option<Kept>,
    /// What is wrong with it; such an entry is not kept, the others are.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub(super) faults: Vec<Fault>,
}

/// What became of entries, and of the plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct AllNoted {
    /// Each entry, in the order in which they were sent.
    pub(super) entries: Vec<Noted>,
    /// Whether the plan has a new revision: lamps hang, and trays stand, as they were set.
    pub(super) plan_changed: bool,
    /// Why the plan could not follow what is kept; empty where it did, or need not.
    not_followed: Vec<Fault>,
}

/// Entries that are sent at once.
const MOST_AT_ONCE: usize = 200;
/// Entries that are given out at once.
const MOST_GIVEN: u32 = 500;

/// Add to a plan's log; what was sent before is kept once, and what is at fault does not hold up the rest
///
/// Lamps that were set, and trays that were carried elsewhere than planned, are so in the plan from then on.
#[utoipa::path(
    post,
    path = "/api/plans/{id}/log",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = ToNote,
    responses(
        (status = 200, body = AllNoted),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn note(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(ToNote { entries }): body::Json<ToNote>,
) -> Result<Json<AllNoted>, Problem> {
    let mut faults = Faults::default();
    faults.count(
        &Pointer::default().at("entries"),
        entries.len(),
        1..=MOST_AT_ONCE,
    );
    faults.verdict().map_err(Problem::unfit)?;
    Ok(Json(kept(&app, id, entries, Come::FromADevice).await?))
}

/// How entries come.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Come {
    /// As they were noted: what is at fault does not hold up the rest, and the plan follows.
    FromADevice,
    /// In a table, often of days long ago, which the plan does not follow; whether sound rows are kept where
    /// others are at fault.
    InATable {
        /// They are.
        keep_sound: bool,
    },
}

/// Keeps `entries`, and lets the plan follow.
pub(super) async fn kept(
    app: &App,
    id: i64,
    entries: Vec<Entry>,
    come: Come,
) -> Result<AllNoted, Problem> {
    let log = app.log(id).await?;
    let past = Past::from(&log);
    let snapshot = app.store(move |store| store.plan(id)).await?;
    let checking = past.clone();
    let plan = app.effort.clone();
    let plan = plan
        .compute(smaller(), move || checking.sound(snapshot.plan))
        .await?;
    let (now, today) = (Timestamp::now(), today(&plan));
    let (photos, fields) = (Arc::clone(&app.photos), app.fields.clone());
    let noted = app.store(move |store| {
        let mut noted: Vec<Noted> = Vec::with_capacity(entries.len());
        let mut fine: Vec<Entry> = Vec::new();
        let mut sent: HashSet<String> = HashSet::new();
        for entry in entries {
            let mut known = Ok(false);
            if let Some(corrected) = &entry.corrects {
                known = store.has_noted(id, corrected);
            }
            let known = known? || entry.corrects.as_ref().is_some_and(|of| sent.contains(of));
            let checked = entry.check(&plan, today, |_| known);
            let mut faults = checked.err().unwrap_or_default();
            faults.extend(without_photo(&photos, id, &entry));
            noted.push(Noted {
                id: sunrise_core::basis::fault::shortened(&entry.id),
                kept: None,
                faults,
            });
            if noted.last().is_some_and(|noted| noted.faults.is_empty()) {
                sent.insert(entry.id.clone());
                fine.push(entry);
            }
        }
        let mut all = AllNoted {
            plan_changed: false,
            not_followed: Vec::new(),
            entries: noted,
        };
        if come == (Come::InATable { keep_sound: false }) && fine.len() < all.entries.len() {
            return Ok(all);
        }
        let mut not_followed = Vec::new();
        let follow = |document: Plan, fresh: &[Entry]| {
            let plan = plan.changed_to(document).ok();
            let plan = plan.filter(|_| come == Come::FromADevice)?;
            let (edited, faults) = ask::follow(&plan, fresh, &fields);
            not_followed = faults;
            let edited = edited?;
            let word = edited.word.written(plan.site.manner());
            Some((plan.changed_to(edited.plan).ok()?, word))
        };
        let (kept, changed) = store.note_and_follow(id, &fine, now, follow)?;
        let without_fault = all
            .entries
            .iter_mut()
            .filter(|noted| noted.faults.is_empty());
        for (noted, kept) in without_fault.zip(kept) {
            noted.kept = Some(kept);
        }
        (all.plan_changed, all.not_followed) = (changed, not_followed);
        Ok(all)
    });
    noted.await
}

/// What to do when a plan is too much.
pub(super) fn smaller() -> Statement {
    say!("divide the plan in two")
}

/// That the photo which an entry names was not sent before it.
fn without_photo(photos: &Photos, plan: i64, entry: &Entry) -> Option<Fault> {
    let name = entry.photo.as_ref()?;
    let there = photos.read(plan, name).is_ok_and(|photo| photo.is_some());
    (!there).then(|| Fault {
        path: "/photo".into(),
        value: sunrise_core::basis::fault::shortened(name).into(),
        problem: say!("there is no such photo"),
        remedy: say!("send the photo first, under that name"),
    })
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
    /// Entries whose text holds this, or about a tray whose label or crop does.
    text: Option<String>,
    /// From this day on.
    from: Option<Date>,
    /// To this day.
    to: Option<Date>,
    /// Those that come after the entry of this number in the list, which runs backwards.
    before: Option<i64>,
    /// The day of that entry.
    before_on: Option<Date>,
    /// So many at most: up to 500, 100 when left out.
    limit: Option<u32>,
}

/// An entry as it is kept, and whether it counts.
#[derive(Debug, Serialize, ToSchema)]
pub struct Told {
    /// The entry.
    kept: KeptEntry,
    /// Whether it counts as it was kept: it was not corrected, nor taken back.
    counts: bool,
}

/// A plan's log, the last day first
#[utoipa::path(
    get,
    path = "/api/plans/{id}/log",
    params(("id" = i64, Path, description = "The plan's number"), LogAsked),
    responses(
        (status = 200, body = Vec<Told>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn entries(
    State(app): State<App>,
    PlanId(id): PlanId,
    asked: Result<Query<LogAsked>, QueryRejection>,
) -> Result<Json<Vec<Told>>, Problem> {
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
    let log = app.log(id).await?;
    let found = app.store(move |store| {
        let text = asked
            .text
            .map(|text| text.trim().to_owned())
            .filter(|text| !text.is_empty());
        let query = LogQuery {
            tray: asked.tray,
            kind: asked.kind,
            found: match &text {
                Some(text) => ask::trays_called(&store.plan(id)?.plan, text),
                None => Vec::new(),
            },
            text,
            from: asked.from,
            to: asked.to,
            before: asked.before_on.zip(asked.before),
            limit,
        };
        let found = store.log(id, &query)?.into_iter();
        let told = found.map(|kept| Told {
            counts: kept.entry.fact.is_some() && log.told.stands(&kept.entry.id),
            kept,
        });
        Ok(told.collect())
    });
    Ok(Json(found.await?))
}
