//! Which bays suit a tray in a stage, and how well: the one owner of what speaks for a spot and against
//! it, until placement weighs all trays at once.

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::plane::Footprint;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::GerminatesIn;
use crate::growth::height::usual_mm;
use crate::plan::{SoundPlan, Stage, Tray};
use crate::room::container::TrayFormat;
use crate::room::{Bay, bays};
use crate::season::company::wears_dome;
use crate::season::moments::PartSpan;
use crate::season::sowing_dates::SowingDates;
use crate::space::spots::DeckSpot;
use crate::warmth::mat::mat_under;

/// What speaks against `tray` in `bay`: the gravest first.
pub fn against(
    bay: &Bay<'_>,
    tray: &Tray,
    format: &TrayFormat,
    stage: Stage,
    spots: &[DeckSpot],
) -> Option<Statement> {
    let mm = |mm: f64| Quantity::LengthMm.of(mm);
    if bay.tier.storage {
        return Some(say!("used for storage"));
    }
    if spots.is_empty() {
        return Some(say!("no free spot on those days"));
    }
    let over_mm = bay.lowest_overhead_mm() - bay.tier.lift_mm() - format.height_mm;
    if over_mm < 0.0 {
        return Some(say!(
            "too low: the tray's rim is {mm} too high",
            mm = mm(-over_mm)
        ));
    }
    let domed = wears_dome(format, bay, stage);
    match format.dome_height_mm.filter(|_| domed) {
        Some(dome) if dome > over_mm => {
            return Some(say!("the dome is {mm} too high", mm = mm(dome - over_mm)));
        }
        _ => {}
    }
    if stage == Stage::Grow && bay.is_dark() {
        return Some(say!("no light to grow in"));
    }
    if stage == Stage::Germinate && bay.place.outdoors() && !tray.potted {
        return Some(say!("outdoors: nobody knows how warm the mix is"));
    }
    if stage == Stage::Harden && !bay.place.outdoors() {
        return Some(say!("indoors: nothing hardens off there"));
    }
    spots
        .iter()
        .all(|spot| spot.y_mm < -0.5)
        .then(|| say!("sticks out at the front"))
}

/// What the plants of a tray ask of their spot.
#[derive(Debug, Clone, Copy)]
pub struct Needs {
    /// The root zone that the warmest of its kinds germinates at, in °C.
    root_zone_c: f64,
    /// Whether seed of one of its kinds wants light.
    light: bool,
    /// How tall the tallest stands over the rim when it leaves the tray.
    tall_mm: f64,
    /// Daily light that the kind that wants most is content with.
    dli: f64,
}

impl Needs {
    /// Of what is in `tray`, whose sowings have their `dates` in the plan's order.
    pub fn of(plan: &SoundPlan, tray: &Tray, dates: &[SowingDates]) -> Self {
        let nothing = Self {
            root_zone_c: 0.0,
            light: false,
            tall_mm: 0.0,
            dli: 0.0,
        };
        tray.parts.iter().fold(nothing, |needs, part| {
            let index = plan.sowing_index(&part.sowing);
            let (sowing, dates) = (&plan.sowings[index], &dates[index]);
            let crop = plan.crop(sowing);
            let leaves = PartSpan::of(plan, tray, dates).harden;
            let up = dates.emerge.unwrap_or(dates.harden);
            let tall_mm = usual_mm(crop, f64::from(days_between(up, leaves)));
            Self {
                root_zone_c: needs.root_zone_c.max(crop.root_zone_c),
                light: needs.light || crop.germinates_in == GerminatesIn::Light,
                tall_mm: needs.tall_mm.max(tall_mm),
                dli: needs
                    .dli
                    .max((crop.dli_low_mol_m2_d + crop.dli_high_mol_m2_d) / 2.0),
            }
        })
    }

    /// How tall the tallest stands over the rim when it leaves the tray, in mm.
    pub fn tall_mm(&self) -> f64 {
        self.tall_mm
    }

    /// Daily light that it is content with, in mol/m²/d.
    pub fn dli_mol_m2_d(&self) -> f64 {
        self.dli
    }

    /// Seed that gains from a heat mat in a lived-in room (common practice, no source).
    const WARM_C: f64 = 22.0;

    /// Whether seed of one of its kinds germinates in light alone.
    pub fn wants_light(&self) -> bool {
        self.light
    }

    /// Whether it germinates better on a mat or in a chamber than in a lived-in room.
    pub fn wants_warmth(&self) -> bool {
        self.root_zone_c >= Self::WARM_C
    }

    /// How badly `bay` suits a tray of `format` that germinates on the `outline`: 0 where it is
    /// right, more where it is only possible.
    pub fn misfit_germinating(&self, bay: &Bay<'_>, outline: &Footprint) -> f64 {
        let warmed = bay.place.keeps_damp_in() || mat_under(bay.tier, outline).is_some();
        // A mat or a chamber under what needs none is taken from what does.
        let warmth = match (self.wants_warmth(), warmed) {
            (true, true) | (false, false) => 0.0,
            (true, false) => 4.0,
            (false, true) => 3.0,
        };
        warmth
            + if self.light && bay.is_dark() {
                4.0
            } else {
                0.0
            }
    }

    /// How badly `bay` suits a tray of `format` that grows there; `None` where its plants come to
    /// stand in the lamps, or nothing lights them.
    pub fn misfit_growing(&self, bay: &Bay<'_>, format: &TrayFormat) -> Option<f64> {
        if bay.is_dark() || bay.place.outdoors() {
            return None;
        }
        let spare_mm = headroom_mm(bay, format) - self.tall_mm;
        if spare_mm < 0.0 {
            return None;
        }
        // A sill alone is dim; a tall bay is for what grows tall.
        let dim = if bay.tier.lamps.is_empty() { 3.0 } else { 0.0 };
        Some(dim + (spare_mm / 1000.0).min(1.0))
    }
}

/// The height over the rim of a tray of `format` that plants have in `bay` under lamps hung as high as they
/// go, in mm.
fn headroom_mm(bay: &Bay<'_>, format: &TrayFormat) -> f64 {
    bay.highest_face_mm() - bay.tier.lift_mm() - format.height_mm - bay.least_gap_mm()
}

/// From when on the plants of a tray are too tall for a bay, and by how much in the end.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outgrown {
    /// The first day.
    pub from: Date,
    /// On the last day that they grow, in mm.
    pub over_mm: f64,
}

/// When the plants of `tray`, whose sowings have their `dates` in the plan's order, come to stand in the
/// lamps of `bay` hung as high as they go; `None` where they never do.
pub fn outgrows(
    plan: &SoundPlan,
    tray: &Tray,
    dates: &[SowingDates],
    bay: &Bay<'_>,
) -> Option<Outgrown> {
    let room_mm = headroom_mm(bay, plan.format(tray));
    let parts = tray.parts.iter().filter_map(|part| {
        let index = plan.sowing_index(&part.sowing);
        let (crop, dates) = (plan.crop(&plan.sowings[index]), &dates[index]);
        let leaves = PartSpan::of(plan, tray, dates).harden;
        let up = dates.emerge.unwrap_or(dates.harden);
        let days = days_between(up, leaves);
        let over_mm = usual_mm(crop, f64::from(days)) - room_mm;
        let first =
            (0..=days.min(MOST_DAYS)).find(|day| usual_mm(crop, f64::from(*day)) > room_mm)?;
        Some(Outgrown {
            from: plus_days(up, first),
            over_mm,
        })
    });
    parts.min_by_key(|own| own.from)
}

/// No crop is indoors for longer.
const MOST_DAYS: i32 = 400;

/// The bays indoors in which something could grow: lit, and not kept for storage.
pub fn lit_indoors(plan: &SoundPlan) -> impl Iterator<Item = Bay<'_>> {
    let all = bays(&plan.places);
    all.filter(|bay| !bay.is_dark() && !bay.tier.storage && !bay.place.outdoors())
}

/// The same in the lit bay indoors that leaves most height.
pub fn outgrows_all(plan: &SoundPlan, tray: &Tray, dates: &[SowingDates]) -> Option<Outgrown> {
    let format = plan.format(tray);
    let lit = lit_indoors(plan);
    let highest = lit.max_by(|a, b| headroom_mm(a, format).total_cmp(&headroom_mm(b, format)));
    outgrows(plan, tray, dates, &highest?)
}

/// What speaks against `bay` for `tray` in time: its plants grow too tall for it.
pub fn too_low_later(
    plan: &SoundPlan,
    tray: &Tray,
    dates: &[SowingDates],
    bay: &Bay<'_>,
    stage: Stage,
) -> Option<Statement> {
    let stays = tray.stands.iter().all(|stand| stand.stage != Stage::Grow);
    let grows = stage == Stage::Grow || stage == Stage::Germinate && stays;
    let outgrown = outgrows(plan, tray, dates, bay).filter(|_| grows && !bay.place.outdoors())?;
    Some(say!(
        "too low from {from} on: its plants come {over} into the lamps by the end",
        from = outgrown.from,
        over = Quantity::LengthMm.of(outgrown.over_mm)
    ))
}
