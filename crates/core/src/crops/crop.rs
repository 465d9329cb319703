//! What a kind of crop needs.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::learned::Learned;
use crate::crops::emergence::Emergence;

/// One kind of plant and its needs indoors. Where each figure comes from: [`Library::source`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Crop {
    /// Identifier that sowings name.
    pub id: String,
    /// Common name.
    pub name: String,
    /// What else people call it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also_called: Vec<String>,
    /// How days to emergence follow from temperature.
    pub emergence: Emergence,
    /// Weeks from sowing to planting out.
    pub weeks_indoors: f64,
    /// Weeks from the last frost to planting out, negative for hardy crops.
    pub weeks_after_last_frost: f64,
    /// Weeks from planting out until it is ready to pick, in spring's light; 0 where it is not raised for the
    /// autumn.
    #[serde(default)]
    pub ready_weeks: f64,
    /// Days of hardening off before planting out.
    pub hardening_days: i32,
    /// Root-zone temperature to germinate at, in °C.
    pub root_zone_c: f64,
    /// The coldest air that its seedlings stand for a night, in °C; at 0 and below hardy ones stay whole.
    #[serde(default)]
    pub least_air_c: f64,
    /// Its seedlings grow in air warmer than this, in °C.
    #[serde(default = "usual_base_c")]
    pub grows_over_c: f64,
    /// Days on end in air under this, in °C, make it run to seed later; or never.
    #[serde(default)]
    pub bolts_under_c: Bolts,
    /// Least daily light integral that grows a sturdy seedling.
    pub dli_low_mol_m2_d: f64,
    /// Daily light integral past which seedlings gain nothing.
    pub dli_high_mol_m2_d: f64,
    /// Longest photoperiod it bears, in hours.
    pub photoperiod_most_h: f64,
    /// Whether seed wants light or darkness.
    pub germinates_in: GerminatesIn,
    /// What is put into the mix, or into water.
    pub grown_from: GrownFrom,
    /// Height within days of coming up, in mm; of slips and cuttings, how long they are cut.
    #[serde(default = "usual_emerges_mm")]
    pub emerges_mm: f64,
    /// Height at planting out in mm.
    pub height_out_mm: f64,
    /// Height that its tops are cut back to whenever they flop over, in mm; 0 when they are left.
    #[serde(default)]
    pub cut_back_mm: f64,
    /// How deep it is sown or stuck; 0 on the surface.
    pub sow_depth_mm: f64,
    /// Hours in water before sowing; 0 for none.
    pub soak_h: f64,
    /// Weeks cold and moist before it is sown warm; 0 for none.
    pub cold_weeks: f64,
    /// Days after it shows that it may stay in the dark before it is spoiled.
    pub dark_days: f64,
    /// How fast it fills its cell: strong ones shade slow ones beside them.
    pub vigour: Vigour,
    /// How it grows as a seedling; upright when left out.
    #[serde(default)]
    pub habit: Habit,
    /// How it bears being moved.
    pub transplants: Transplants,
    /// Whether it is started indoors.
    pub start: StartPlace,
    /// Why.
    pub start_reason: StartReason,
    /// Mix in the cell that it is sown in, in ml.
    pub cell_ml: f64,
    /// Mix in the pot that it is moved to; 0 when it stays where it was sown.
    pub pot_on_ml: f64,
    /// Weeks from emergence to that; 0 when it stays.
    pub pot_on_weeks: f64,
    /// Plants that grow in a cell as a clump; 1 for a single one.
    pub plants_per_cell: u32,
    /// From plant to plant in the tray, by the time it goes out.
    pub spacing_mm: f64,
    /// The share of seedlings lost from emergence to planting out.
    pub losses: f64,
    /// Seedlings that one seed gives: clusters hold several.
    #[serde(default = "one_each")]
    pub seedlings_per_seed: f64,
    /// Years in a cool, dry room until half of the seed is dead.
    pub seed_life_years: Known,
    /// How fast it comes up here, as a share of the rate that its figures have, as counts showed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub comes_up_here: Option<Learned>,
    /// How tall it grows here, as a share of the height that its figures have, as rulers showed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tall_here: Option<Learned>,
    /// What else is good to know of it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub note: String,
}

/// Neither a cool crop nor a warm one.
fn usual_base_c() -> f64 {
    6.0
}
fn usual_emerges_mm() -> f64 {
    20.0
}
fn one_each() -> f64 {
    1.0
}

/// How a seedling grows.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Habit {
    /// A stem with pairs of leaves.
    #[default]
    Upright,
    /// Leaves from near the ground.
    Rosette,
    /// Blades.
    Grass,
    /// Many branches.
    Bushy,
    /// A stem that trails or climbs.
    Climbing,
}

/// How fast a seedling fills its cell.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Vigour {
    /// Small for weeks.
    Slow,
    /// Neither.
    Middle,
    /// Shades its neighbours within a week or two.
    Strong,
}

/// How seedlings bear being moved.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Transplants {
    /// At any age.
    Well,
    /// Small, with the root ball whole.
    WithCare,
    /// Hardly: in its final pot from the start, or sown outdoors.
    Badly,
}

/// Where a crop is best sown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StartPlace {
    /// Indoors.
    Indoors,
    /// Either way: indoors it is earlier.
    Either,
    /// Straight into the bed.
    Outdoors,
}

/// Why a crop is sown there.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StartReason {
    /// The frost-free season is too short for it.
    LongSeason,
    /// Started indoors it crops weeks earlier.
    Earlier,
    /// Its seed is too fine, or its seedlings too slow, for a bed.
    SmallSeed,
    /// It grows so fast that it overtakes what was started early.
    FastGrower,
    /// Its root is spoiled by moving.
    DislikesMoving,
    /// It bears cold: the bed is ready for it early.
    BearsCold,
}

/// The air under which a crop, held there for days, runs to seed later, in °C; or that cold never makes
/// it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum Bolts {
    /// Under so many °C.
    Under(f64),
    /// Never.
    Not(Never),
}

/// Written `"never"`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Never {
    /// Never.
    Never,
}

impl Default for Bolts {
    fn default() -> Self {
        Self::Not(Never::Never)
    }
}

impl Bolts {
    /// The air under which it does, in °C; `None` when cold never makes it.
    pub fn under_c(self) -> Option<f64> {
        match self {
            Self::Under(c) => Some(c),
            Self::Not(_) => None,
        }
    }
}

/// A figure, or that nobody knows it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum Known {
    /// It is known.
    Figure(f64),
    /// It is not.
    Not(Unknown),
}

/// Written `"unknown"`.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Unknown {
    /// Nobody knows.
    Unknown,
}

impl Known {
    /// The figure; `None` when nobody knows.
    pub fn known(self) -> Option<f64> {
        match self {
            Self::Figure(figure) => Some(figure),
            Self::Not(_) => None,
        }
    }
}

impl StartReason {
    /// In words.
    pub fn words(self) -> &'static str {
        match self {
            Self::LongSeason => "needs longer than the frost-free season",
            Self::Earlier => "crops weeks earlier from an indoor start",
            Self::SmallSeed => "seed too fine and seedlings too slow for a bed",
            Self::FastGrower => "too quick a grower to gain from an early start",
            Self::DislikesMoving => "resents root disturbance",
            Self::BearsCold => "hardy, so an early sowing outdoors does well",
        }
    }
}

/// Whether seed wants light to germinate.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GerminatesIn {
    /// It lies on the surface, in light.
    Light,
    /// It is covered.
    Dark,
    /// Either does.
    Either,
}

/// What a crop begins from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GrownFrom {
    /// Seed.
    Seed,
    /// Slips off a root in water or mix: what "emerges" are roots.
    Slips,
    /// Cuttings: likewise.
    Cuttings,
}

/// So many times the mix of its cell is in its pot then (our own estimate).
const SELDOM_TIMES: f64 = 6.0;

impl Crop {
    /// Mix in the pot that it is potted on into, in ml.
    pub fn pot_ml(&self) -> f64 {
        if self.pot_on_ml > 0.0 {
            self.pot_on_ml
        } else {
            SELDOM_TIMES * self.cell_ml
        }
    }
}
