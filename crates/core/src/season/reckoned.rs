//! All that follows from a plan whatever day is looked at: made once, and passed down.

use std::sync::Arc;

use crate::basis::dates::DateSpan;
use crate::basis::work::{both, side_by_side};
use crate::lamps::start::Starts;
use crate::light::bay::BayField;
use crate::light::fields::Fields;
use crate::light::surfaces::Cover;
use crate::plan::{SoundPlan, Tray};
use crate::room::Bay;
use crate::season::airs::Airs;
use crate::season::company::Known;
use crate::season::growing::{Before, Growing};
use crate::season::how_many;
use crate::season::how_many::SowingCells;
use crate::season::moments::TrayMoments;
use crate::season::root_zone::Beds;
use crate::season::settled::settled;
use crate::season::sowing_dates::SowingDates;
use crate::season::spot_light::SpotLights;
use crate::season::stays::{Stay, stays};
use crate::season::unplaced::{Unplaced, unplaced};

/// A plan, and what is reckoned of it once.
#[derive(Debug)]
pub struct Reckoned<'a> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// Light that was reckoned before.
    pub fields: &'a Fields,
    /// The dates of every sowing, in the plan's order.
    pub dates: Arc<Vec<SowingDates>>,
    /// The moments of every tray, in the plan's order.
    moments: Arc<Vec<TrayMoments>>,
    /// Where every tray stands and when.
    pub stays: Vec<Stay<'a>>,
    /// The trays that stand nowhere while they germinate or grow.
    pub unplaced: Vec<Unplaced<'a>>,
    /// The plants of every tray, day by day.
    pub growing: Arc<Growing>,
    /// How much of each sowing to sow, in the order of sowing.
    pub how_many: Arc<Vec<SowingCells>>,
    /// When lamps had best go on.
    pub starts: Starts,
}

/// What is reckoned of a plan and costs most, to be kept beside it.
#[derive(Debug, Clone)]
pub struct Outcome {
    dates: Arc<Vec<SowingDates>>,
    moments: Arc<Vec<TrayMoments>>,
    growing: Arc<Growing>,
    how_many: Arc<Vec<SowingCells>>,
}

/// What came of a plan of which only the lamps hung otherwise.
#[derive(Debug, Clone, Copy)]
pub struct HungOtherwise<'o> {
    /// All that came of it.
    pub outcome: &'o Outcome,
    /// Whether the lamps of each place hang as they did.
    pub same: &'o [bool],
}

impl Outcome {
    /// Of `plan`; what came out the same `before` is not reckoned anew.
    pub fn of(plan: &SoundPlan, fields: &Fields, before: Option<HungOtherwise<'_>>) -> Self {
        light_up(plan, fields);
        let mut lights = SpotLights::new(plan, fields);
        let (dates, moments) = settled(plan, fields, &mut lights);
        let known = Known {
            dates: &dates,
            moments: &moments,
        };
        let before = before.map(|before| Before {
            growing: &before.outcome.growing,
            known: before.outcome.known(),
            same: before.same,
        });
        let airs = Airs::new(plan, Some(known));
        let (how_many, growing) = both(
            || how_many::all(plan, &dates),
            || Growing::of(plan, known, airs, lights, before),
        );
        Self {
            growing: growing.into(),
            how_many: how_many.into(),
            moments: moments.into(),
            dates: dates.into(),
        }
    }

    fn known(&self) -> Known<'_> {
        Known {
            dates: &self.dates,
            moments: &self.moments,
        }
    }
}

impl<'a> Reckoned<'a> {
    /// Of `plan`; light that `fields` remembers is not reckoned anew.
    pub fn of(plan: &'a SoundPlan, fields: &'a Fields) -> Self {
        Self::with(plan, fields, Outcome::of(plan, fields, None))
    }

    /// Of `plan`, of which the `outcome` is known.
    pub fn with(plan: &'a SoundPlan, fields: &'a Fields, outcome: Outcome) -> Self {
        let moments = outcome.moments;
        Self {
            stays: stays(plan, &moments),
            unplaced: unplaced(plan, &moments),
            growing: outcome.growing,
            how_many: outcome.how_many,
            starts: Starts::default(),
            dates: outcome.dates,
            plan,
            fields,
            moments,
        }
    }

    /// The moments of `tray`, which is the plan's.
    pub fn moments_of(&self, tray: &Tray) -> TrayMoments {
        let known = self.plan.tray_index(&tray.id).map(|i| self.moments[i]);
        known.unwrap_or_else(|| TrayMoments::of(self.plan, tray, &self.dates))
    }

    /// The root zones in which its seed lies.
    pub fn beds(&self) -> Beds<'_> {
        let known = Known {
            dates: &self.dates,
            moments: &self.moments,
        };
        Beds::new(self.plan, self.fields, Some(known))
    }

    /// How much to sow of the sowing called `id`.
    pub fn cells_of(&self, id: &str) -> Option<&SowingCells> {
        self.how_many.iter().find(|cells| cells.sowing == id)
    }

    /// The days that the tray called `tray` stands in the place called `place`, from its first to its
    /// last there; `None` when it never does.
    pub fn days_in(&self, tray: &str, place: &str) -> Option<DateSpan> {
        let stays = self.stays.iter();
        let here = stays.filter(|stay| stay.tray.id == tray && stay.bay.place == place);
        here.map(|stay| stay.days).reduce(|a, b| DateSpan {
            from: a.from.min(b.from),
            to: a.to.max(b.to),
        })
    }
}

/// Reckons the light of all bays in which trays ever stand, several at once: whoever asks finds it.
fn light_up(plan: &SoundPlan, fields: &Fields) {
    let places = plan.places.iter().enumerate();
    let bays = places.flat_map(|(index, place)| place.bays(index));
    let lit = |bay: &Bay<'_>| !bay.tier.lamps.is_empty() && plan.trays_in(bay).next().is_some();
    let bays: Vec<Bay<'_>> = bays.filter(lit).collect();
    side_by_side(&bays, |bay| {
        BayField::new(bay, Cover::default(), fields);
    });
}
