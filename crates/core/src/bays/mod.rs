//! A bay on a date: who stands there, what light each cell gets, how the lamps would hang best,
//! and what they draw.

mod adjust;
mod harm;
mod lit;
mod look;
mod sill;

use std::rc::Rc;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::chambers::ClosedAir;
use crate::light::colour::Colour;
use crate::light::falloff::Spread;
use crate::light::hang::{Setting, SweepPoint};
use crate::light::start::Start;
use crate::load::DeckLoad;
use crate::over_trays::{BayAir, FanChoice, bay_air};
use crate::placement::{Standing, StandingPart};
use crate::plan::{SoundPlan, Stage};
use crate::power::{Power, drawn_w};
use crate::room::{Bay, BayRef};
use crate::roots::TrayRoots;
use crate::space::BayFit;
use crate::words::{Statement, Why};

pub use adjust::{Adjustment, Misfit, Step};
pub use harm::{Harm, Harmed};
pub use look::{Looker, spot_light};
pub use sill::{Lookout, MonthLight, SillYear};

/// A bay on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayOnDay {
    /// The bay.
    pub bay: BayRef,
    /// Rack and tier in words.
    pub name: String,
    /// Clear height over the deck.
    pub clear_height_mm: f64,
    /// The heights over the floor that the deck can have while its neighbours stay.
    pub deck_range_mm: [f64; 2],
    /// The lowest that an emitting face may hang.
    pub lowest_face_mm: f64,
    /// The highest that an emitting face may hang.
    pub highest_face_mm: f64,
    /// Whether the lamps burn: something here wants light.
    pub burning: bool,
    /// The trays that stand here.
    pub trays: Vec<TrayOnDay>,
    /// From the top of the tallest tray, its dome or leaves, to the lowest lamp or the deck above;
    /// `None` while nothing stands here.
    pub headroom_mm: Option<f64>,
    /// What the trays weigh.
    pub load: DeckLoad,
    /// What fits here, a row for each format of the plan; empty when it was not asked for.
    pub fits: Vec<BayFit>,
    /// The light on them while the lamps burn; `None` without lamps or trays.
    pub light: Option<BayLight>,
    /// How the lamps would hang best; `None` while no seedling stands here or none fits under.
    pub hang: Option<Hang>,
    /// The root zones of the trays here; of those that germinate alone where the rest was not asked
    /// for, and none outdoors.
    pub roots: Vec<TrayRoots>,
    /// The air over the trays; `None` outdoors, and when it was not asked for.
    pub air: Option<BayAir>,
    /// The closed air that this bay shares: a chamber's, a shut closet's, or its own behind film;
    /// `None` in the open, and when it was not asked for.
    pub chamber: Option<ClosedAir>,
    /// The hours in which the lamps burn while something here wants light.
    pub burns: Start,
    /// What the lamps' colour means; `None` without lamps, and when it was not asked for.
    pub colour: Option<Colour>,
    /// A window's daylight through the year; `None` elsewhere, and when it was not asked for.
    pub sill: Option<SillYear>,
    /// What the lamps draw.
    pub power: Power,
    /// How power, energy and cost are reckoned; `None` when it was not asked for.
    pub power_why: Option<Why>,
}

/// A tray on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrayOnDay {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// Its kind.
    pub format: String,
    /// What it is going through as a whole.
    pub stage: Stage,
    /// Left and right edge on the deck.
    pub x_mm: [f64; 2],
    /// Front and back edge on the deck.
    pub y_mm: [f64; 2],
    /// Height of its rim over the deck.
    pub rim_mm: f64,
    /// What it stands on over the deck: boxes.
    pub lift_mm: f64,
    /// How far its dome reaches over the rim; `None` while it has none on.
    pub dome_mm: Option<f64>,
    /// What is sown in it.
    pub parts: Vec<PartOnDay>,
    /// Last day in this bay.
    pub until: Date,
}

/// A part of a tray on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PartOnDay {
    /// Its sowing.
    pub sowing: String,
    /// Its crop, as the library names it.
    pub crop: String,
    /// Crop and variety in words.
    pub name: String,
    /// What it is going through; `None` before it is sown.
    pub stage: Option<Stage>,
    /// Left and right edge on the deck.
    pub x_mm: [f64; 2],
    /// Front and back edge on the deck.
    pub y_mm: [f64; 2],
    /// How tall the plants stand over the rim.
    pub plant_height_mm: f64,
    /// Cells along x.
    pub columns: u32,
    /// Cells along y.
    pub rows: u32,
    /// PPFD in µmol/m²/s of each cell, row by row from the front left; empty without lamps, and
    /// where it was not asked for.
    pub ppfd: Vec<f64>,
    /// DLI in mol/m²/d of each cell in the same order, from lamps and window together.
    pub dli: Vec<f64>,
    /// The daily light that suits the crop.
    pub target: Band,
}

/// A range of light: daily, in mol/m²/d, or PPFD, in µmol/m²/s.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Band {
    /// Less than this stretches.
    pub low: f64,
    /// More than this is wasted or scorches.
    pub high: f64,
}

/// One value each for all cells together, the worst and the best.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Measures {
    /// Mean of all cells.
    pub mean: f64,
    /// The darkest cell.
    pub worst: f64,
    /// The brightest cell.
    pub best: f64,
}

impl From<Spread> for Measures {
    fn from(s: Spread) -> Self {
        Self {
            mean: s.mean,
            worst: s.least,
            best: s.most,
        }
    }
}

/// A cell of a tray, and where it lies on the deck.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cell {
    /// The tray.
    pub tray: String,
    /// Its centre along the shelf.
    pub x_mm: f64,
    /// Its centre from the front.
    pub y_mm: f64,
}

/// The light on all trays of a bay, with the lamps where they hang.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayLight {
    /// PPFD on the leaves while the lamps burn, in µmol/m²/s.
    pub ppfd: Measures,
    /// Daily light integral in mol/m²/d; zeros while the lamps are off.
    pub dli: Measures,
    /// What of the mean PPFD walls and decks send back, in µmol/m²/s.
    pub sent_back: f64,
    /// What of the mean DLI falls through the deck above, in mol/m²/d.
    pub from_above_mol_m2_d: f64,
    /// What of the mean DLI is daylight through the pane of a window, in mol/m²/d.
    pub daylight_mol_m2_d: f64,
    /// On a sill: the day of the year from which daylight alone is enough; `None` when it never is.
    pub daylight_enough_from: Option<Date>,
    /// On a sill with lamps: the hours that they must burn to make up for the rest.
    pub lamp_hours_missing: Option<f64>,
    /// What a lux meter beside the leaves shows while the lamps burn.
    pub lux: Measures,
    /// The share of the seedlings' cells whose DLI lies under their own crop's band.
    pub under: f64,
    /// The share of the seedlings' cells whose DLI lies over their own crop's band.
    pub over: f64,
    /// The hours from which and up to which the mean DLI lies in the target band.
    pub hours_in_band: Option<Band>,
    /// Worst cell against the mean.
    pub evenness: f64,
    /// The darkest cell.
    pub worst: Cell,
    /// The brightest cell.
    pub best: Cell,
    /// The daily light that suits all seedlings here; `None` while nothing has come up.
    pub target: Option<Band>,
    /// The PPFD that gives the target in the hours that the lamps burn; `None` while they are off.
    pub ppfd_target: Option<Band>,
    /// From the tallest leaves (the highest rim while nothing is up) to the lowest emitting face,
    /// or to what closes a bay without lamps at the top; negative when they touch.
    pub gap_mm: f64,
    /// How PPFD is reckoned; `None` when it was not asked for.
    pub ppfd_why: Option<Why>,
    /// How DLI is reckoned, and the target's source; `None` when it was not asked for.
    pub dli_why: Option<Why>,
}

/// The best height and hours, and what they would give.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Hang {
    /// The setting.
    pub setting: Setting,
    /// When the lamps had best go on for so many hours.
    pub start: Start,
    /// How a hand gets there from now.
    pub step: Step,
    /// From the tallest leaves to the emitting faces at that height.
    pub gap_mm: f64,
    /// Daily light then.
    pub dli: Measures,
    /// The lowest height that keeps the lamps' least gap.
    pub lowest_mm: f64,
    /// The light against the height; empty when it was not asked for.
    pub sweep: Vec<SweepPoint>,
    /// What to change on which day from now on, as plants grow; empty when it was not asked for.
    pub adjustments: Vec<Adjustment>,
    /// How well that does until the seedlings leave; `None` when it was not asked for.
    pub outlook: Option<Statement>,
    /// The tray that had better stand elsewhere, when no setting is good for all.
    pub misfit: Option<Misfit>,
    /// How far the setting misses the band (0 = every cell within); see [`crate::light::hang::miss`].
    pub miss: f64,
    /// The same for the lamps as they hang now.
    pub miss_now: f64,
    /// How the setting is chosen; `None` when it was not asked for.
    pub why: Option<Why>,
}

/// A bay on a date with all that judgements look at.
#[derive(Debug)]
pub struct BayView<'a> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// The bay.
    pub bay: Bay<'a>,
    /// The day.
    pub date: Date,
    /// The trays there.
    pub standing: Vec<Standing<'a>>,
    /// How many trays stand on the tier above.
    pub trays_above: usize,
    /// The cells that stretch, and those that bleach.
    harmed: [Option<Harmed>; 2],
    /// The closed air that the bay shares; `None` in the open, and while nothing germinates there.
    pub closed: Option<Rc<ClosedAir>>,
    /// What was computed.
    pub computed: BayOnDay,
}

impl BayView<'_> {
    /// The air over the trays.
    pub fn air(&self) -> BayAir {
        bay_air(self.plan, &self.bay, self.closed.as_deref())
    }

    /// The cells that come to `harm`.
    pub fn harmed(&self, harm: Harm) -> Option<&Harmed> {
        self.harmed[harm as usize].as_ref()
    }

    /// The fans that would stir the leaves at the far end; empty where they are stirred.
    pub fn fans(&self) -> Vec<FanChoice> {
        let closed = self.closed.is_some();
        self.air().with_fans(self.plan, &self.bay, closed).fans
    }

    /// When the lamps had best go on for the hours that they burn now.
    pub fn best_start(&self) -> Start {
        let tier = self.bay.tier;
        let now_h = tier.burning().from_h;
        Start::best(tier.photoperiod_h, now_h, drawn_w(tier), &self.plan.site)
    }

    /// The greatest of the lamps' least gaps.
    pub fn least_gap_mm(&self) -> f64 {
        least_gap_mm(&self.bay)
    }

    /// The tray and part whose leaves reach highest; while nothing is up, the highest rim.
    pub fn tallest(&self) -> Option<(&Standing<'_>, &StandingPart<'_>)> {
        tallest_leaves(&self.standing)
    }
}

fn least_gap_mm(bay: &Bay<'_>) -> f64 {
    let gaps = bay.tier.lamps.iter().map(|lamp| lamp.least_gap_mm);
    gaps.fold(0.0, f64::max)
}

/// Every part of every tray.
fn parts<'a, 'b>(
    standing: &'b [Standing<'a>],
) -> impl Iterator<Item = (&'b Standing<'a>, &'b StandingPart<'a>)> {
    standing
        .iter()
        .flat_map(|s| s.parts.iter().map(move |part| (s, part)))
}

fn tallest_leaves<'a, 'b>(
    standing: &'b [Standing<'a>],
) -> Option<(&'b Standing<'a>, &'b StandingPart<'a>)> {
    parts(standing).max_by(|(_, a), (_, b)| {
        let up = |part: &StandingPart<'_>| part.is_growing();
        up(a).cmp(&up(b)).then(a.canopy_mm.total_cmp(&b.canopy_mm))
    })
}

/// How much of a bay is wanted beyond its figures: lists that only its own sheet shows.
#[derive(Debug, Clone, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Detail {
    /// Cells and fits of every bay.
    #[default]
    All,
    /// Cells and fits of one bay.
    Bay(BayRef),
    /// Neither.
    Outline,
    /// Neither, but what all sowings want for the whole season: for views of sowings and seeds.
    Sowings,
    /// Not even the trays and how the lamps would hang: for many days at once.
    Days,
}

impl Detail {
    fn wants(&self, bay: &Bay<'_>) -> bool {
        match self {
            Self::All => true,
            Self::Bay(wanted) => wanted.place == bay.place.id && wanted.tier == bay.tier.id,
            Self::Outline | Self::Sowings | Self::Days => false,
        }
    }

    /// Whether each tray is wanted, and how the lamps would hang.
    pub(crate) fn wants_trays(&self) -> bool {
        !matches!(self, Self::Days)
    }

    /// Whether every job of the season is wanted, and how much of each sowing to sow.
    pub(crate) fn wants_season(&self) -> bool {
        matches!(self, Self::All | Self::Sowings)
    }
}
