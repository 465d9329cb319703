//! What a judgement says: what to do, where, when, by how much and why.

use rustc_hash::FxHashMap;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::DateSpan;
use crate::basis::words::{COMMON_PRACTICE, Statement};
use crate::day::measures::Cell;
use crate::day::view::BayView;
use crate::plan::patch::Fix;
use crate::room::{BayRef, Place};

/// Something to do, with its reason.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// Its own name within an assessment: no two findings share one, and the same finding keeps it
    /// from one assessment to the next.
    pub id: String,
    /// Which judgement speaks: its file's name, put there by the list.
    pub code: &'static str,
    /// What it is about: light, warmth, air, space, sowing or power; put there by the list.
    pub topic: &'static str,
    /// How much it matters.
    pub severity: Severity,
    /// The place it is about, if any.
    pub place: Option<String>,
    /// The bay it is about, if any.
    pub bay: Option<BayRef>,
    /// The sowing it is about, if it is about one alone.
    pub sowing: Option<String>,
    /// The trays it is about.
    pub trays: Vec<String>,
    /// The cells it is about, where it is not about whole trays.
    pub cells: Vec<Cell>,
    /// The days it is about.
    pub days: DateSpan,
    /// What to do, by how much.
    pub headline: Statement,
    /// Why.
    pub reason: Statement,
    /// Where the rule comes from.
    pub source: &'static str,
    /// Edits that would settle it.
    pub fixes: Vec<Fix>,
}

/// How much a finding matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Plants or people come to harm.
    Harm,
    /// The plan does not work as it stands.
    Conflict,
    /// It could be better.
    Advice,
}

impl Finding {
    /// A finding on a bay on its date, of common practice and without fixes.
    pub(super) fn of_bay(
        view: &BayView<'_>,
        severity: Severity,
        headline: Statement,
        reason: Statement,
    ) -> Self {
        let days = DateSpan::day(view.date);
        Self {
            bay: Some(view.bay.reference()),
            ..Self::of_place(view.bay.place, days, severity, headline, reason)
        }
    }

    /// A finding on the plan as a whole, of common practice and without fixes.
    pub(super) fn of_plan(
        days: DateSpan,
        severity: Severity,
        headline: Statement,
        reason: Statement,
    ) -> Self {
        Self {
            id: String::new(),
            code: "",
            topic: "",
            severity,
            place: None,
            bay: None,
            sowing: None,
            trays: Vec::new(),
            cells: Vec::new(),
            days,
            headline,
            reason,
            source: COMMON_PRACTICE,
            fixes: Vec::new(),
        }
    }

    /// A finding on a place on `days`, of common practice and without fixes.
    pub(super) fn of_place(
        place: &Place,
        days: DateSpan,
        severity: Severity,
        headline: Statement,
        reason: Statement,
    ) -> Self {
        Self {
            place: Some(place.id.clone()),
            ..Self::of_plan(days, severity, headline, reason)
        }
    }
}

/// Gives each of `findings` its own name: what it is about, and a number where that leaves two
/// alike.
pub fn name_each(findings: &mut [Finding]) {
    let mut seen: FxHashMap<String, u32> = FxHashMap::default();
    for finding in findings {
        // In one string: a season has thousands.
        let mut about = String::with_capacity(80);
        about.push_str(finding.code);
        let mut add = |parts: &[&str]| {
            about.push(':');
            parts.iter().for_each(|part| about.push_str(part));
        };
        match (&finding.bay, &finding.place) {
            (Some(bay), _) => add(&[&bay.place, "/", &bay.tier]),
            (None, Some(place)) => add(&[place]),
            (None, None) => {}
        }
        if let Some(sowing) = &finding.sowing {
            add(&[sowing]);
        }
        add(&[&finding.days.from.to_string()]);
        let times = seen.entry(about.clone()).or_default();
        *times += 1;
        finding.id = if *times == 1 {
            about
        } else {
            format!("{about}:{times}")
        };
    }
}
