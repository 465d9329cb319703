//! The light that plants grow in at a spot: from its lamps, set as advised for them, through the deck
//! above, and from windows.
//!
//! Lamps are set again and again as plants grow: where they hang on the day somebody looks neither moves
//! dates nor tells how plants have grown. What they give on that day is told with that day.

use rustc_hash::FxHashMap;
use std::rc::Rc;
use std::sync::Arc;

use jiff::civil::Date;

use crate::basis::plane::Footprint;
use crate::basis::units::dli_mol_m2_d;
use crate::basis::work::side_by_side;
use crate::crops::Crop;
use crate::lamps::adjust;
use crate::lamps::adjust::Reach;
use crate::lamps::bands::LightBand;
use crate::lamps::choice::{LightName, Setting, Want, dli_at};
use crate::lamps::chooser::best_anyhow;
use crate::lamps::hours::HourLimits;
use crate::light::bay::BayField;
use crate::light::daylight::{Sill, cloudless_mol_m2_d};
use crate::light::fields::{CellField, Fields};
use crate::light::sill_days::SillDays;
use crate::light::surfaces::{Cover, let_down};
use crate::plan::{SoundPlan, Stand};
use crate::room::container::TrayFormat;
use crate::room::{Bay, BayRef};

/// A few cells tell the mean of all.
const GRID: (u32, u32) = (4, 3);
/// Leaves of half-grown seedlings over the rim.
const HALF_GROWN_MM: f64 = 40.0;
/// Old enough not to bleach as the youngest do.
const SETTLED_DAYS: i32 = 21;
/// As coarse as the mean light minds.
const HEIGHT_STEP_MM: f64 = 20.0;
/// Daylight is reckoned once for so many days, since it changes slowly.
const DAYS_ALIKE: i32 = 10;
/// What glass, and standing low among walls, leave of open daylight (our own estimate).
const IN_A_FRAME: f64 = 0.6;
/// How much of a deck above is covered by trays while it is in use (our own estimate).
const COVERED: f64 = 0.7;

/// The light at the spots of a plan, what they share reckoned once.
#[derive(Clone)]
pub(super) struct SpotLights<'a> {
    plan: &'a SoundPlan,
    fields: &'a Fields,
    /// The field of each bay, with nothing on its deck.
    bays: FxHashMap<BayRef, Arc<BayField>>,
    /// What the deck of each bay lets down, in µmol/m²/s.
    let_down: FxHashMap<BayRef, f64>,
    /// The lamps as advised for a crop in a kind of tray in a bay, on a box; varieties may want another
    /// light than their kind.
    settings: FxHashMap<SettingKey, Setting>,
    /// The days of a year on the sill of a place.
    sills: FxHashMap<(usize, i16), Option<Arc<SillDays>>>,
    /// Daylight outdoors, by tens of days.
    outdoors: FxHashMap<i32, f64>,
}

/// What grows at a spot.
#[derive(Clone, Copy)]
pub(super) struct Spot<'p> {
    pub(super) crop: &'p Crop,
    pub(super) format: &'p TrayFormat,
    pub(super) stand: &'p Stand,
    /// Its outline on the deck.
    pub(super) outline: Footprint,
}

/// See [`SpotLights::settings`].
type SettingKey = (BayRef, String, String, [u64; 4]);

impl Spot<'_> {
    /// How high over its feet leaves stand half way.
    fn over_feet_mm(&self) -> f64 {
        self.stand.box_mm.unwrap_or(0.0) + self.format.height_mm + HALF_GROWN_MM
    }

    fn setting_key(&self) -> SettingKey {
        let crop = self.crop;
        let figures = [
            self.over_feet_mm(),
            crop.dli_low_mol_m2_d,
            crop.dli_high_mol_m2_d,
            crop.photoperiod_most_h,
        ];
        (
            self.stand.bay.clone(),
            crop.id.clone(),
            self.format.id.clone(),
            figures.map(f64::to_bits),
        )
    }
}

/// What grows at `spot` in the light of `field`, and gets so much `daylight` besides.
fn want<'f>(spot: Spot<'_>, field: &'f BayField, daylight: f64) -> Want<'f> {
    let over_feet_mm = spot.over_feet_mm();
    let cells = field.cells(spot.outline, GRID);
    Want {
        light: Rc::new(move |height_mm, lift_mm| {
            field.hung(&cells, over_feet_mm + lift_mm, height_mm)
        }),
        name: Some(LightName {
            field: field.name(),
            outline: spot.outline,
            grid: GRID,
            over_feet_mm,
            through: 1.0,
        }),
        besides: vec![daylight; (GRID.0 * GRID.1) as usize],
        band: LightBand::of(spot.crop, SETTLED_DAYS),
    }
}

/// The lamps of `bay` as advised for what grows at `spot` in it and `wants` light.
fn setting(plan: &SoundPlan, spot: Spot<'_>, bay: &Bay<'_>, wants: &[Want<'_>]) -> Setting {
    let over_feet_mm = spot.over_feet_mm();
    let reach = Reach {
        leaves_mm: over_feet_mm,
        tops_mm: over_feet_mm,
        least_gap_mm: bay.least_gap_mm(),
    };
    let limits = HourLimits::new(
        spot.crop.photoperiod_most_h,
        plan.site.free_hours(),
        bay.place.has_daylight(),
    );
    let choices = adjust::choices(bay, reach, HEIGHT_STEP_MM);
    best_anyhow(wants, &choices, limits).unwrap_or(Setting {
        // Nothing fits under: as near as the lamps come.
        height_mm: bay.highest_face_mm().max(over_feet_mm + bay.tier.lift_mm()),
        ..adjust::now(bay)
    })
}

fn mean(values: &[f64]) -> f64 {
    values.iter().sum::<f64>() / values.len().max(1) as f64
}

fn tens(date: Date) -> i32 {
    i32::from(date.year()) * 1000 + i32::from(date.day_of_year()) / DAYS_ALIKE
}

impl<'a> SpotLights<'a> {
    pub(super) fn new(plan: &'a SoundPlan, fields: &'a Fields) -> Self {
        Self {
            plan,
            fields,
            bays: FxHashMap::default(),
            let_down: FxHashMap::default(),
            settings: FxHashMap::default(),
            sills: FxHashMap::default(),
            outdoors: FxHashMap::default(),
        }
    }

    /// Chooses the lamps' settings over all of `spots`, several at once: whoever asks for one finds it. Each
    /// comes with its bay and the daylight there, in mol/m²/d.
    pub(super) fn choose(&mut self, spots: &[(Spot<'_>, Bay<'_>, f64)]) {
        let mut open: FxHashMap<SettingKey, (usize, Arc<BayField>)> = FxHashMap::default();
        for (i, (spot, bay, _)) in spots.iter().enumerate() {
            if !bay.tier.lamps.is_empty() {
                let key = spot.setting_key();
                open.entry(key).or_insert_with(|| (i, self.field(bay)));
            }
        }
        let mut open: Vec<(SettingKey, (usize, Arc<BayField>))> = open.into_iter().collect();
        open.sort_unstable_by_key(|(_, (i, _))| *i);
        let plan = self.plan;
        let chosen = side_by_side(&open, |(_, (i, field))| {
            let (spot, bay, daylight) = &spots[*i];
            setting(plan, *spot, bay, &[want(*spot, field, *daylight)])
        });
        let keys = open.into_iter().map(|(key, _)| key);
        self.settings.extend(keys.zip(chosen));
    }

    /// The mean daily light of lamps on what grows half grown at `spot` in `bay`, and of what the deck
    /// above lets down, in mol/m²/d; the lamps set with regard to so much `daylight`.
    pub(super) fn by_lamps(&mut self, spot: Spot<'_>, bay: &Bay<'_>, daylight: f64) -> f64 {
        let field = self.field(bay);
        let own = if bay.tier.lamps.is_empty() {
            0.0
        } else {
            let plan = self.plan;
            let wants = [want(spot, &field, daylight)];
            let known = self.settings.entry(spot.setting_key());
            let setting = known.or_insert_with(|| setting(plan, spot, bay, &wants));
            dli_at(&wants, *setting).mean - daylight
        };
        let cells = field.cells(spot.outline, GRID);
        let canopy_mm = spot.over_feet_mm() + bay.tier.lift_mm();
        own + self.through_the_deck_above(bay, &field, &cells, canopy_mm)
    }

    fn field(&mut self, bay: &Bay<'_>) -> Arc<BayField> {
        let fields = self.fields;
        let known = self.bays.entry(bay.reference());
        Arc::clone(known.or_insert_with(|| Arc::new(BayField::new(bay, Cover::default(), fields))))
    }

    /// What the deck above `bay` lets down on `cells` at `canopy_mm`, in mol/m²/d.
    fn through_the_deck_above(
        &mut self,
        bay: &Bay<'_>,
        field: &BayField,
        cells: &CellField,
        canopy_mm: f64,
    ) -> f64 {
        let Some(above) = bay.above().filter(|above| !above.tier.lamps.is_empty()) else {
            return 0.0;
        };
        let exitance = match self.let_down.get(&above.reference()) {
            Some(known) => *known,
            None => {
                let cover = Cover {
                    trays: COVERED,
                    leaves: 0.0,
                };
                let share = let_down(&above, cover);
                let exitance = if share > 0.0 {
                    share * self.field(&above).mean_on_deck()
                } else {
                    0.0
                };
                self.let_down.insert(above.reference(), exitance);
                exitance
            }
        };
        if exitance <= 0.0 {
            return 0.0;
        }
        let light = field.let_down(cells, canopy_mm, exitance);
        dli_mol_m2_d(mean(&light), above.tier.photoperiod_h)
    }

    /// Daylight at `outline` in `bay` on `date`, in mol/m²/d; none away from windows.
    pub(super) fn by_day(
        &mut self,
        bay: &Bay<'_>,
        outline: &Footprint,
        rim_mm: f64,
        date: Date,
    ) -> f64 {
        if !bay.place.has_daylight() {
            return 0.0;
        }
        let (plan, fields) = (self.plan, self.fields);
        let days = self.sills.entry((bay.place_index, date.year()));
        let days = days.or_insert_with(|| {
            let sill = Sill::before(bay, &plan.site)?;
            Some(fields.sill_days(sill, date.year()))
        });
        match days {
            Some(days) => {
                let day = days.on(date);
                let points = outline.cells(1, 2).into_iter();
                let light: Vec<f64> = points.map(|at| day.mol_m2_d(at, rim_mm)).collect();
                mean(&light)
            }
            None => self.outdoors(date),
        }
    }

    /// Daylight in a frame outdoors on `date`, in mol/m²/d.
    pub(super) fn outdoors(&mut self, date: Date) -> f64 {
        let site = &self.plan.site;
        *self.outdoors.entry(tens(date)).or_insert_with(|| {
            cloudless_mol_m2_d(site.latitude_deg, date) * site.average_of_cloudless() * IN_A_FRAME
        })
    }
}
