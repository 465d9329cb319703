//! How fast seedlings grow where they stand, against the weeks that the trade counts with.

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::crops::Crop;
use crate::growth::Air;
use crate::growth::pace::{by_light, by_warmth, growing_days};
use crate::plan::{SoundPlan, Sowing, Stage, Stand, Tray};
use crate::room::{Bay, BayRef};
use crate::season::airs::Airs;
use crate::season::pace::Pace;
use crate::season::spot_light::{Spot, SpotLights};

/// The pace of a sowing in the mean, and in each bay that it grows in.
#[derive(Debug)]
pub(super) struct Paces<'a> {
    pub(super) mean: Pace,
    in_bays: Vec<(&'a BayRef, f64)>,
}

impl Paces<'_> {
    /// How fast it grows in `tray`.
    pub(super) fn of_tray(&self, tray: &Tray) -> f64 {
        let stand = tray.stand_in(Stage::Grow);
        let own = |stand: &Stand| self.in_bays.iter().find(|(bay, _)| **bay == stand.bay);
        stand
            .and_then(own)
            .map_or(self.mean.rate, |(_, rate)| *rate)
    }
}

/// Slower or faster than this the estimates carry no further; and a warm, bright room hardly shortens
/// the weeks: the trade counts them for ordinary rooms too.
const RATES: [f64; 2] = [0.7, 1.05];

impl<'a> Paces<'a> {
    /// The pace of `sowing` at the spots in which its trays grow on, with the lamps set there as
    /// advised: where they hang today moves no date.
    pub(super) fn of(
        plan: &'a SoundPlan,
        sowing: &Sowing,
        lights: &mut SpotLights<'_>,
        airs: &mut Airs<'_>,
    ) -> Self {
        let crop = plan.crop(sowing);
        let date = half_grown_on(plan, sowing);
        let here = grows_at(plan, sowing).into_iter().map(|(tray, stand)| {
            let there = spot(plan, sowing, (tray, stand), date, lights);
            let dli = there.map_or(0.0, |(spot, bay, daylight)| {
                lights.by_lamps(spot, &bay, daylight) + daylight
            });
            (&stand.bay, dli, airs.there(&stand.bay, date))
        });
        let here: Vec<(&BayRef, f64, Air)> = here.collect();
        let mean = |of: &dyn Fn(&(&BayRef, f64, Air)) -> f64| {
            let all: Vec<f64> = here.iter().map(of).collect();
            (!all.is_empty()).then(|| all.iter().sum::<f64>() / all.len() as f64)
        };
        let dli = mean(&|(_, dli, _)| *dli);
        let room = airs.of_room(date);
        let mean_c = |mean_c: f64| Air { mean_c, ..room };
        let air = mean_c(mean(&|(_, _, air)| air.mean_c).unwrap_or(room.mean_c));
        let rate = rate(crop, dli, air);
        let in_bays = here.into_iter();
        let in_bays =
            in_bays.map(|(bay, dli, air)| (bay, self::rate(crop, Some(dli), mean_c(air.mean_c))));
        Self {
            in_bays: in_bays.collect(),
            mean: Pace {
                dli,
                air_c: air.mean_c,
                rate,
                lost_days: growing_days(crop) * (1.0 / rate - 1.0),
            },
        }
    }
}

/// Growth of `crop` in so much light, where it has a spot, and `air`.
fn rate(crop: &Crop, dli: Option<f64>, air: Air) -> f64 {
    let by_light = dli.map_or(1.0, |dli| by_light(crop, dli).min(1.0));
    (by_light * by_warmth(crop, air)).clamp(RATES[0], RATES[1])
}

/// Half way from coming up to planting out, in an ordinary year.
fn half_grown_on(plan: &SoundPlan, sowing: &Sowing) -> Date {
    let crop = plan.crop(sowing);
    let half_grown = (growing_days(crop) / 2.0).round() as i32 + crop.hardening_days;
    plus_days(
        plan.usually_out(sowing, crop),
        sowing.shift_days - half_grown,
    )
}

/// Where trays of `sowing` grow on, one in each bay: all in one have much the same.
fn grows_at<'a>(plan: &'a SoundPlan, sowing: &Sowing) -> Vec<(&'a Tray, &'a Stand)> {
    let mut here: Vec<(&Tray, &Stand)> = Vec::new();
    for tray in plan.trays_of(&sowing.id) {
        let Some(stand) = tray.stand_in(Stage::Grow) else {
            continue;
        };
        if here.iter().all(|(_, other)| other.bay != stand.bay) {
            here.push((tray, stand));
        }
    }
    here
}

/// Where `tray` grows `sowing` at `stand`: its bay, and the daylight of `date` there in mol/m²/d.
fn spot<'a>(
    plan: &'a SoundPlan,
    sowing: &'a Sowing,
    (tray, stand): (&'a Tray, &'a Stand),
    date: Date,
    lights: &mut SpotLights<'_>,
) -> Option<(Spot<'a>, Bay<'a>, f64)> {
    let bay = plan.bay_on(&stand.bay, date)?;
    let format = plan.format(tray);
    let outline = stand.footprint(format);
    let rim_mm = bay.tier.lift_mm() + stand.box_mm.unwrap_or(0.0) + format.height_mm;
    let daylight = lights.by_day(&bay, &outline, rim_mm, date);
    let spot = Spot {
        crop: plan.crop(sowing),
        format,
        stand,
        outline,
    };
    Some((spot, bay, daylight))
}

/// Chooses the lamps' settings for all sowings of `plan`, several at once.
pub(super) fn choose_settings(plan: &SoundPlan, lights: &mut SpotLights<'_>) {
    let mut spots = Vec::new();
    for sowing in &plan.sowings {
        let date = half_grown_on(plan, sowing);
        for at in grows_at(plan, sowing) {
            spots.extend(spot(plan, sowing, at, date, lights));
        }
    }
    lights.choose(&spots);
}
