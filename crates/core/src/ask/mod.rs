//! All that may be asked of core: the server calls what stands here, and nothing behind it.

pub mod assess;
pub mod calc;
mod fields;
mod compare;
mod jobs;
mod lately;
mod learn;
mod library;
mod lit_rooms;
mod outdoors;
mod placing;
mod power;
mod season;
mod today;
mod when;

pub use assess::{Assessment, assess, assess_again, assess_lately, opening_day};
pub use compare::{
    chamber_ways, frontier, frost_night, least_gear, make_room, mat_season, probe, savings,
    set_ups, warm_ways,
};
pub use fields::{Forms, forms};
pub use jobs::jobs;
pub use lately::Lately;
pub use learn::{
    LessonEffect, SeasonTold, compare_batches, diagnose, handed_on, lesson_effect, lessons,
    meaning, next_year,
};
pub use library::{crops, homes, kinds, units};
pub use lit_rooms::{LitRoomSeason, lit_rooms};
pub use outdoors::{OutdoorYear, outdoors};

pub use placing::{BaySpots, Held, Sharing, sharing, spots};
pub use power::{DrawOnDay, Electricity, LitShelf, PriceFrom, power};
pub use season::Season;
pub use today::{story, today, trays_called, water_ahead};
pub use when::{CropStart, when};

pub use crate::advice::Finding;
pub use crate::basis::dates::{DateSpan, days_between};
pub use crate::basis::units::{UnitRow, UnitSystem};
pub use crate::batches::batch::Batch;
pub use crate::batches::comparison::Comparison;
pub use crate::compare::SetUp;
pub use crate::compare::chamber::ChamberWay;
pub use crate::compare::frontier::Frontier;
pub use crate::compare::least_gear::{LeastGear, Lessening};
pub use crate::compare::making_room::{Overflow, Trying};
pub use crate::compare::savings::Savings;
pub use crate::compare::warmth::WarmWays;
pub use crate::crops::{Crop, Library};
pub use crate::day::away::Away;
pub use crate::day::bay::BayOnDay;
pub use crate::day::detail::Detail;
pub use crate::day::frost_night::FrostNight;
pub use crate::day::place::PlaceOnDay;
pub use crate::day::room::RoomOnDay;
pub use crate::day::unplaced::UnplacedTray;
pub use crate::diagnosis::Diagnosis;
pub use crate::diagnosis::symptom::Symptom;
pub use crate::edit::{Edit, Edited, Share, apply, follow, place_all};
pub use crate::learning::handed_on::HandedOn;
pub use crate::learning::lesson::Lesson;
pub use crate::learning::meaning::Meaning;
pub use crate::light::fields::Fields;
pub use crate::log::entry::Entry;
pub use crate::log::table::{Row as LogRow, read as read_log, written as written_log};
pub use crate::log::told::Told;
pub use crate::placement::How;
pub use crate::placement::solver::Effort as PlacingEffort;
pub use crate::plan::happened::Happened;
pub use crate::plan::merge::{Clash, Wins};
pub use crate::plan::upgrade::upgraded;
pub use crate::plan::{Plan, SoundPlan};
pub use crate::power::Power;
pub use crate::readings::lux_meter::{Probe, Probed};
pub use crate::readings::story::Story;
pub use crate::room::BayRef;
pub use crate::room::shelf::Kinds;
pub use crate::season::SowingDates;
pub use crate::season::how_many::SowingCells;
pub use crate::season::jobs::{Event, EventKind};
pub use crate::season::mats::MatSeason;
pub use crate::site::home::Home;
pub use crate::site::tariff::{HourPrices, read_csv as read_tariff};
pub use crate::today::{Today, WaterAhead};
