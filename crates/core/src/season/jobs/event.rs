//! A job, and what it may be.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::words::Statement;

/// Something that a sowing's dates bring.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Event {
    /// The day.
    pub date: Date,
    /// What happens.
    pub what: EventKind,
    /// To which sowing; to the first in a tray that several share.
    pub sowing: String,
    /// To which tray, where it is not to all trays of the sowing alike.
    pub tray: Option<String>,
    /// Crop and variety in words.
    pub name: String,
    /// In short: what to do.
    pub headline: Statement,
    /// How, and with how much.
    pub note: Statement,
}

/// What may happen to a sowing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EventKind {
    /// Put its seed cold and moist.
    Chill,
    /// Sow it.
    Sow,
    /// A quarter shows: vent the dome.
    Vent,
    /// It shows: into light, or lamps on.
    Emerge,
    /// All of it is up: dome off, and mat off.
    Uncover,
    /// All of it is up on a mat without a dome: mat off.
    MatOff,
    /// Thin it, or prick it out.
    Thin,
    /// Cut its tops back.
    CutBack,
    /// Pot it on.
    PotOn,
    /// Carry it to another spot in the middle of its stage.
    Move,
    /// Begin to harden it off.
    Harden,
    /// Plant it out.
    PlantOut,
}
