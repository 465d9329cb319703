//! What a judgement says: what to do, where, when, by how much and why.

use std::collections::HashMap;

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
    let mut seen: HashMap<String, u32> = HashMap::new();
    for finding in findings {
        let mut about = vec![finding.code.to_owned()];
        about.extend(
            finding
                .bay
                .as_ref()
                .map(|bay| format!("{}/{}", bay.place, bay.tier)),
        );
        about.extend(finding.place.clone().filter(|_| finding.bay.is_none()));
        about.extend(finding.sowing.clone());
        about.push(finding.days.from.to_string());
        let about = about.join(":");
        let times = seen.entry(about.clone()).or_default();
        *times += 1;
        finding.id = if *times == 1 {
            about
        } else {
            format!("{about}:{times}")
        };
    }
}
