//! What there is to know of a bay on a date.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::words::Why;
use crate::day::air::BayAir;
use crate::day::cell_light::EmptyLight;
use crate::day::closed_air::ClosedAir;
use crate::day::detail::Detail;
use crate::day::fits::BayFit;
use crate::day::hang::Hang;
use crate::day::light::{BayLight, LightWhy};
use crate::day::load::DeckLoad;
use crate::day::root_zones::TrayRoots;
use crate::day::sill::SillYear;
use crate::day::trays::TrayOnDay;
use crate::lamps::start::Start;
use crate::light::colour::Colour;
use crate::power::Power;
use crate::power::draw::Draw;
use crate::room::BayRef;

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
    /// The trays that stand here; `None` when they were not asked for.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub trays: Option<Vec<TrayOnDay>>,
    /// From the top of the tallest tray, its dome or leaves, to the lowest lamp or the deck above;
    /// `None` while nothing stands here.
    pub headroom_mm: Option<f64>,
    /// What the trays weigh.
    pub load: DeckLoad,
    /// The light on them while the lamps burn; `None` without lamps or trays.
    pub light: Option<BayLight>,
    /// How the lamps would hang best; `None` while no seedling stands here or none fits under.
    pub hang: Option<Hang>,
    /// The root zones of the trays here, of those that germinate alone where the rest was not asked
    /// for, and none outdoors; `None` when they were not asked for at all.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub roots: Option<Vec<TrayRoots>>,
    /// The hours in which the lamps burn while something here wants light.
    pub burns: Start,
    /// What lamps, mats and fans draw together.
    pub power: Power,
    /// What each of them draws.
    #[serde(skip)]
    pub draws: Vec<Draw>,
    /// What its own sheet shows besides; `None` when it was not asked for.
    pub detail: Option<Box<BayDetail>>,
}

impl BayOnDay {
    /// The trays that stand here, as far as they were asked for.
    pub fn trays(&self) -> &[TrayOnDay] {
        self.trays.as_deref().unwrap_or_default()
    }

    /// The root zones of the trays here, as far as they were asked for.
    pub fn roots(&self) -> &[TrayRoots] {
        self.roots.as_deref().unwrap_or_default()
    }

    /// Leaves out what `detail` does not want. Judgements have seen it by then.
    pub(crate) fn keep_asked_for(&mut self, detail: &Detail) {
        if !detail.wants_trays() {
            (self.trays, self.roots) = (None, None);
        }
    }
}

/// What only a bay's own sheet shows.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayDetail {
    /// What fits here, a row for each format of the plan.
    pub fits: Vec<BayFit>,
    /// The air over the trays; `None` outdoors.
    pub air: Option<BayAir>,
    /// The closed air that this bay shares: a chamber's, a shut closet's, or its own behind film;
    /// `None` in the open.
    pub chamber: Option<ClosedAir>,
    /// What the lamps' colour means; `None` without lamps.
    pub colour: Option<Colour>,
    /// A window's daylight through the year; `None` elsewhere.
    pub sill: Option<SillYear>,
    /// What light it would give; `None` while something stands there, or it has none.
    pub empty: Option<EmptyLight>,
    /// How the light is reckoned; `None` while there is none.
    pub light_why: Option<LightWhy>,
    /// How power, energy and cost are reckoned.
    pub power_why: Why,
}
