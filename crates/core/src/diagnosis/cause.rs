//! A cause: what speaks for it, what to do now and what next time.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Figure, Statement, say};

/// What something seen may come from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cause {
    /// Its name, which stays.
    pub code: &'static str,
    /// What it is.
    pub what: Statement,
    /// How far the tray's figures speak for it.
    pub speaks: Speaks,
    /// Which figures.
    pub why: Statement,
    /// What to do now.
    pub now: Statement,
    /// What to do next time.
    pub next_time: Statement,
    /// How strongly, against others of which the figures speak as much.
    #[serde(skip)]
    pub strength: f64,
}

/// How far figures speak for a cause.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Speaks {
    /// They show it.
    Strongly,
    /// They fit it.
    Somewhat,
    /// There are none.
    Unknown,
    /// They speak against it.
    Against,
}

/// How far a figure speaks for a cause, and how strongly.
pub(super) type Weight = (Speaks, f64);

/// Speaks for it from `some` up, and strongly from `much`; unknown where there is no figure.
pub(super) fn above(figure: Option<f64>, some: f64, much: f64) -> Weight {
    let Some(figure) = figure else {
        return (Speaks::Unknown, 0.0);
    };
    let way = (figure - some) / (much - some);
    match figure {
        figure if figure >= much => (Speaks::Strongly, way),
        figure if figure >= some => (Speaks::Somewhat, way),
        _ => (Speaks::Against, way),
    }
}

/// Speaks for it from `some` down, and strongly from `little`; unknown where there is no figure.
pub(super) fn below(figure: Option<f64>, some: f64, little: f64) -> Weight {
    above(figure.map(|figure| -figure), -some, -little)
}

/// As `weight`, but only while `also` holds; else the figures speak against it.
pub(super) fn only_if(also: bool, weight: Weight) -> Weight {
    if also {
        weight
    } else {
        (Speaks::Against, weight.1)
    }
}

/// The weaker of two that must both hold.
pub(super) fn both(a: Weight, b: Weight) -> Weight {
    (a.0.max(b.0), a.1.min(b.1))
}

impl Cause {
    pub(super) fn of(
        code: &'static str,
        what: Statement,
        (speaks, strength): Weight,
        why: Statement,
        now: Statement,
        next_time: Statement,
    ) -> Self {
        let missing = |figure: &Figure| *figure == Figure::from(NOT_KNOWN);
        let why = match (speaks, why.figures.values().any(missing)) {
            (Speaks::Against, true) => say!("that is not so here"),
            (Speaks::Unknown, true) => say!("nothing that was noted or reckoned tells"),
            _ => why,
        };
        Self {
            code,
            what,
            speaks,
            why,
            now,
            next_time,
            strength,
        }
    }
}

/// What stands for a figure that nobody knows.
const NOT_KNOWN: &str = "not known";

/// `figure`, or that nobody knows it.
pub(super) fn known(figure: Option<f64>, quantity: Quantity) -> Figure {
    figure.map_or_else(|| NOT_KNOWN.into(), |value| quantity.of(value))
}

pub(super) fn celsius(c: f64) -> Figure {
    Quantity::TemperatureC.of(c)
}

pub(super) fn days(days: f64) -> Figure {
    Quantity::Days.of(days)
}

pub(super) fn share(share: f64) -> Figure {
    Quantity::Share.of(share)
}

pub(super) fn dli(mol: f64) -> Figure {
    Quantity::DliMolM2D.of(mol)
}

pub(super) fn mm(mm: f64) -> Figure {
    Quantity::LengthMm.of(mm)
}
