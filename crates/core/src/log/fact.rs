//! Kinds of facts.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::log::detail::{About, Dome, Loss, Measurement};
use crate::plan::SoundPlan;
use crate::room::BayRef;

/// Something that was done or seen.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Fact {
    /// A tray was sown.
    Sown {
        /// The tray.
        tray: String,
    },
    /// Seedlings were counted.
    Shown {
        /// The tray.
        tray: String,
        /// Which of the sowings in it; all of them when left out.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        sowing: Option<String>,
        /// Cells in which something shows.
        count: u32,
        /// Of so many that were sown.
        of: u32,
    },
    /// Seedlings were thinned.
    Thinned {
        /// The tray.
        tray: String,
        /// Plants that are left.
        left: u32,
    },
    /// Seedlings were pricked out.
    PrickedOut {
        /// The tray that they came from.
        tray: String,
        /// The tray that they went into.
        into: String,
        /// Plants.
        plants: u32,
    },
    /// Plants were potted on.
    PottedOn {
        /// The tray that they came from.
        tray: String,
        /// The tray of pots that they went into.
        into: String,
        /// Plants.
        plants: u32,
    },
    /// A tray was moved.
    Moved {
        /// The tray.
        tray: String,
        /// Where it stands now.
        bay: BayRef,
    },
    /// A tray was watered.
    Watered {
        /// The tray.
        tray: String,
        /// Water in ml; left out where nobody measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        water_ml: Option<f64>,
    },
    /// A tray was fed.
    Fed {
        /// The tray.
        tray: String,
        /// The share of the label's strength, 0.5 for half.
        strength: f64,
    },
    /// Lamps were set.
    LampSet {
        /// The bay.
        bay: BayRef,
        /// The emitting faces above the deck.
        height_mm: f64,
        /// Hours a day.
        hours_h: f64,
        /// When they go on, in hours after midnight; left out where that was not changed.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        from_h: Option<f64>,
        /// The height of the boxes that the trays stand on then; left out where those were not changed.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        lift_mm: Option<f64>,
        /// How bright they burn against before; left out where nobody dimmed them.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        brightness: Option<f64>,
    },
    /// A heat mat was switched.
    MatSwitched {
        /// The bay.
        bay: BayRef,
        /// Whether it is on now.
        on: bool,
    },
    /// A dome was put on, vented or taken off.
    Dome {
        /// The tray.
        tray: String,
        /// How it is now.
        dome: Dome,
    },
    /// A tray was carried out to harden off, or back in.
    Hardening {
        /// The tray.
        tray: String,
        /// Whether it is outdoors now.
        outdoors: bool,
    },
    /// Plants were planted out.
    PlantedOut {
        /// The tray.
        tray: String,
        /// Plants.
        plants: u32,
    },
    /// Plants were lost.
    Lost {
        /// The tray.
        tray: String,
        /// Plants.
        plants: u32,
        /// Why.
        why: Loss,
    },
    /// Something was measured.
    Measured {
        /// Where.
        about: About,
        /// What, and how much.
        reading: Measurement,
    },
    /// A job that has no fact of its own was done: trays were turned, a flat was cleaned.
    Done {
        /// The job, as the list of jobs names it.
        job: String,
    },
    /// A job was put off.
    PutOff {
        /// The job.
        job: String,
        /// Until this day.
        until: Date,
    },
    /// A job was left undone for good; the text says why.
    Skipped {
        /// The job.
        job: String,
    },
    /// Something worth remembering was seen.
    Noted {
        /// What it is about.
        about: About,
    },
}

/// The longest name of a job.
const MOST_JOB: usize = 130;
/// The most plants or cells that one tray of any kind holds, with room for error.
const MOST_PLANTS: f64 = 10_000.0;

impl Fact {
    /// Its kind, in a word that stays the same.
    pub fn kind(&self) -> &'static str {
        match self {
            Self::Sown { .. } => "sown",
            Self::Shown { .. } => "shown",
            Self::Thinned { .. } => "thinned",
            Self::PrickedOut { .. } => "pricked_out",
            Self::PottedOn { .. } => "potted_on",
            Self::Moved { .. } => "moved",
            Self::Watered { .. } => "watered",
            Self::Fed { .. } => "fed",
            Self::LampSet { .. } => "lamp_set",
            Self::MatSwitched { .. } => "mat_switched",
            Self::Dome { .. } => "dome",
            Self::Hardening { .. } => "hardening",
            Self::PlantedOut { .. } => "planted_out",
            Self::Lost { .. } => "lost",
            Self::Measured { .. } => "measured",
            Self::Done { .. } => "done",
            Self::PutOff { .. } => "put_off",
            Self::Skipped { .. } => "skipped",
            Self::Noted { .. } => "noted",
        }
    }

    /// The trays that it is about: the one that it happened to first.
    pub fn trays(&self) -> Vec<&str> {
        match self {
            Self::PrickedOut { tray, into, .. } | Self::PottedOn { tray, into, .. } => {
                vec![tray, into]
            }
            Self::Sown { tray }
            | Self::Shown { tray, .. }
            | Self::Thinned { tray, .. }
            | Self::Moved { tray, .. }
            | Self::Watered { tray, .. }
            | Self::Fed { tray, .. }
            | Self::Dome { tray, .. }
            | Self::Hardening { tray, .. }
            | Self::PlantedOut { tray, .. }
            | Self::Lost { tray, .. }
            | Self::Measured {
                about: About::Tray(tray),
                ..
            }
            | Self::Noted {
                about: About::Tray(tray),
            } => vec![tray],
            _ => Vec::new(),
        }
    }

    /// The job that it is about.
    fn job(&self) -> Option<&str> {
        match self {
            Self::Done { job } | Self::PutOff { job, .. } | Self::Skipped { job } => Some(job),
            _ => None,
        }
    }

    /// The bay that it is about.
    pub fn bay(&self) -> Option<&BayRef> {
        match self {
            Self::Moved { bay, .. }
            | Self::LampSet { bay, .. }
            | Self::MatSwitched { bay, .. }
            | Self::Measured {
                about: About::Bay(bay),
                ..
            }
            | Self::Noted {
                about: About::Bay(bay),
            } => Some(bay),
            Self::Measured {
                about: About::Spot(spot),
                ..
            }
            | Self::Noted {
                about: About::Spot(spot),
            } => Some(&spot.bay),
            _ => None,
        }
    }

    /// Notes what of it cannot be in `plan`.
    pub(super) fn check(&self, plan: &SoundPlan, at: &Pointer, faults: &mut Faults) {
        let at = at.at(self.kind());
        for tray in self.trays() {
            if plan.trays.iter().all(|own| own.id != tray) {
                let known = plan.trays.iter().map(|own| own.id.clone());
                faults.unknown(&at.at("tray"), tray, known);
            }
        }
        if let Some(bay) = self.bay().filter(|bay| plan.bay(bay).is_none()) {
            let known = crate::room::bays(&plan.places).map(|own| own.reference());
            let known = known.map(|own| format!("{}/{}", own.place, own.tier));
            faults.unknown(&at.at("bay"), &format!("{}/{}", bay.place, bay.tier), known);
        }
        if let Self::Measured {
            about: About::Spot(spot),
            ..
        }
        | Self::Noted {
            about: About::Spot(spot),
        } = self
            && let Some(bay) = plan.bay(&spot.bay)
        {
            let (at, mm) = (at.at("about").at("spot"), Quantity::LengthMm);
            faults.number(&at.at("x_mm"), spot.x_mm, 0.0..=bay.place.width_mm, mm);
            faults.number(&at.at("y_mm"), spot.y_mm, 0.0..=bay.place.depth_mm, mm);
        }
        let mut number = |field: &str, value: f64, least: f64, most: f64, quantity| {
            faults.number(&at.at(field), value, least..=most, quantity);
        };
        let plants = |n: u32| f64::from(n);
        match self {
            Self::Shown { count, of, .. } => {
                number("of", plants(*of), 1.0, MOST_PLANTS, Quantity::Count);
                let most = plants(*of).clamp(1.0, MOST_PLANTS);
                number("count", plants(*count), 0.0, most, Quantity::Count);
            }
            Self::Thinned { left, .. } => {
                number("left", plants(*left), 0.0, MOST_PLANTS, Quantity::Count);
            }
            Self::PrickedOut { plants: n, .. }
            | Self::PottedOn { plants: n, .. }
            | Self::PlantedOut { plants: n, .. }
            | Self::Lost { plants: n, .. } => {
                number("plants", plants(*n), 1.0, MOST_PLANTS, Quantity::Count);
            }
            Self::Watered {
                water_ml: Some(ml), ..
            } => number("water_ml", *ml, 0.0, 50_000.0, Quantity::VolumeMl),
            Self::Fed { strength, .. } => {
                number("strength", *strength, 0.0, 2.0, Quantity::Share);
            }
            Self::LampSet {
                height_mm,
                hours_h,
                from_h,
                lift_mm,
                brightness,
                ..
            } => {
                let bright = brightness.unwrap_or(1.0);
                number("brightness", bright, 0.0, 20.0, Quantity::Share);
                number("height_mm", *height_mm, 0.0, 5000.0, Quantity::LengthMm);
                number("hours_h", *hours_h, 0.0, 24.0, Quantity::Hours);
                number("from_h", from_h.unwrap_or(0.0), 0.0, 24.0, Quantity::ClockH);
                number(
                    "lift_mm",
                    lift_mm.unwrap_or(0.0),
                    0.0,
                    1000.0,
                    Quantity::LengthMm,
                );
            }
            Self::Measured { reading, .. } => {
                let (field, value, range, quantity) = reading.range();
                number(field, value, range[0], range[1], quantity);
            }
            _ => (),
        }
        if let Some(job) = self.job() {
            let sound = (1..=MOST_JOB).contains(&job.len())
                && job
                    .bytes()
                    .all(|b| b.is_ascii_alphanumeric() || b"-/".contains(&b));
            if !sound {
                faults.add(
                    &at.at("job"),
                    job,
                    say!("no job has this name"),
                    say!("name the job as the list of jobs does"),
                );
            }
        }
        if let Self::Shown {
            sowing: Some(sowing),
            ..
        } = self
            && plan.sowings.iter().all(|own| own.id != *sowing)
        {
            let known = plan.sowings.iter().map(|own| own.id.clone());
            faults.unknown(&at.at("sowing"), sowing, known);
        }
    }
}
