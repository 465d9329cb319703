//! A job, and what it may be.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::words::Statement;

/// Something that a sowing's dates bring.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Event {
    /// What the job is called in the log: it stays the same while dates move.
    pub id: String,
    /// The day.
    pub date: Date,
    /// What happens.
    pub what: EventKind,
    /// To which sowing; to the first in a tray that several share.
    pub sowing: String,
    /// To which tray, where it is not to all trays of the sowing alike.
    pub tray: Option<String>,
    /// All trays that it is to be done to.
    pub trays: Vec<String>,
    /// The day by which it was done to all of them; `None` while it was not.
    pub done: Option<Date>,
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
    /// Feed it for the first time.
    Feed,
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

impl EventKind {
    /// Whether a tray gets further by it: once a later step is taken, it was, or is idle. Feeding, cutting
    /// back and carrying elsewhere are none.
    pub fn is_a_step(self) -> bool {
        !matches!(self, Self::Feed | Self::CutBack | Self::Move)
    }

    /// The word that tells it from the other jobs of a sowing: it never changes.
    pub fn word(self) -> &'static str {
        match self {
            Self::Chill => "chill",
            Self::Sow => "sow",
            Self::Vent => "vent",
            Self::Emerge => "emerge",
            Self::Uncover => "uncover",
            Self::MatOff => "mat-off",
            Self::Thin => "thin",
            Self::Feed => "feed",
            Self::CutBack => "cut-back",
            Self::PotOn => "pot-on",
            Self::Move => "move",
            Self::Harden => "harden",
            Self::PlantOut => "plant-out",
        }
    }
}

impl Event {
    /// What tells it from all other jobs of the plan: its kind, its sowing, and its tray where that has a day
    /// of its own.
    pub(super) fn own_id(&self) -> String {
        let mut id = format!("{}/{}", self.what.word(), self.sowing);
        if let Some(tray) = &self.tray {
            id = format!("{id}/{tray}");
        }
        // A tray moves more than once.
        if self.what == EventKind::Move {
            id = format!("{id}/{}", self.date);
        }
        id
    }
}
