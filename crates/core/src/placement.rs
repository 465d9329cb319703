//! Which trays stand where on a date, and which want the same spot.

use jiff::civil::Date;

use crate::growth::height_mm;
use crate::light::bay::Footprint;
use crate::plan::{DateSpan, SoundPlan, Sowing, Stage, Tray};
use crate::room::{Bay, BayRef};
use crate::season::SowingDates;
use crate::site::plus_days;

/// A tray as it stands in a bay on a date.
#[derive(Debug, Clone)]
pub struct Standing<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// Its sowing.
    pub sowing: &'a Sowing,
    /// The sowing's dates.
    pub dates: &'a SowingDates,
    /// The stage on the date.
    pub stage: Stage,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// Columns and rows of cells along x and y.
    pub grid: (u32, u32),
    /// How tall the plants are over the rim.
    pub plant_height_mm: f64,
    /// Height of the leaves, or of the bare mix, over the deck.
    pub canopy_mm: f64,
}

impl Standing<'_> {
    /// Whether it wants light: seedlings do, and seeds of crops that germinate in light.
    pub fn wants_light(&self, plan: &SoundPlan) -> bool {
        self.stage == Stage::Grow || plan.crop(self.sowing).light_to_germinate
    }
}

/// The trays in `bay` on `date`, in the plan's order.
pub fn standing_in<'a>(
    plan: &'a SoundPlan,
    dates: &'a [SowingDates],
    bay: &Bay<'_>,
    date: Date,
) -> Vec<Standing<'a>> {
    let reference = bay.reference();
    plan.trays
        .iter()
        .filter_map(|tray| {
            let index = plan.sowings.iter().position(|s| s.id == tray.sowing)?;
            let (sowing, dates) = (&plan.sowings[index], &dates[index]);
            let stage = dates.stage_on(date)?;
            let stand = tray.stand_in(stage).filter(|s| s.bay == reference)?;
            let format = plan.format(tray);
            let plant_height_mm = dates
                .days_up(date)
                .map_or(0.0, |days| height_mm(plan.crop(sowing), f64::from(days)));
            Some(Standing {
                tray,
                sowing,
                dates,
                stage,
                footprint: stand.footprint(format),
                grid: stand.grid(format),
                plant_height_mm,
                canopy_mm: format.height_mm + plant_height_mm,
            })
        })
        .collect()
}

/// The last day on which a tray stands where it does, in its stage and the next if it stays put.
pub fn leaves_on(standing: &Standing<'_>) -> Date {
    let dates = standing.dates;
    let stays = standing.stage == Stage::Germinate
        && standing.tray.stand_in(Stage::Grow) == standing.tray.stand_in(Stage::Germinate);
    let end = match (standing.stage, dates.emerge) {
        (Stage::Germinate, Some(emerge)) if !stays => emerge,
        _ => dates.harden,
    };
    plus_days(end, -1)
}

/// A standard tray, outer length and width in mm: the "10 x 20 inch" of the trade (common
/// practice, no source).
pub const STANDARD_TRAY_MM: [f64; 2] = [540.0, 280.0];

/// How many standard trays the lit tiers of the room hold.
pub fn places_held(plan: &SoundPlan) -> u32 {
    crate::room::bays(&plan.places)
        .filter(|bay| !bay.tier.storage)
        .map(|bay| {
            bay.rack
                .trays_per_deck(STANDARD_TRAY_MM[0], STANDARD_TRAY_MM[1])
        })
        .sum()
}

/// Two trays that want the same spot.
#[derive(Debug, Clone, PartialEq)]
pub struct Clash<'a> {
    /// The tray named first in the plan.
    pub first: &'a Tray,
    /// The other.
    pub second: &'a Tray,
    /// The bay.
    pub bay: &'a BayRef,
    /// The days on which both would stand there.
    pub days: DateSpan,
}

/// Every pair of trays that want the same spot, with the days.
pub fn clashes<'a>(plan: &'a SoundPlan, dates: &[SowingDates]) -> Vec<Clash<'a>> {
    struct Stay<'a> {
        tray: &'a Tray,
        bay: &'a BayRef,
        footprint: Footprint,
        days: DateSpan,
    }
    let mut stays: Vec<Stay<'_>> = Vec::new();
    for tray in &plan.trays {
        let Some(dates) = dates.iter().find(|d| d.sowing == tray.sowing) else {
            continue;
        };
        let up = dates.emerge.unwrap_or(dates.harden);
        for (stage, from, until) in [
            (Stage::Germinate, dates.sow, up),
            (Stage::Grow, up, dates.harden),
        ] {
            let Some(stand) = tray.stand_in(stage).filter(|_| from < until) else {
                continue;
            };
            let footprint = stand.footprint(plan.format(tray));
            let to = plus_days(until, -1);
            match stays.last_mut() {
                // A tray that stays put stands there once, not once a stage.
                Some(last)
                    if std::ptr::eq(last.tray, tray)
                        && last.bay == &stand.bay
                        && last.footprint == footprint =>
                {
                    last.days.to = to;
                }
                _ => stays.push(Stay {
                    tray,
                    bay: &stand.bay,
                    footprint,
                    days: DateSpan { from, to },
                }),
            }
        }
    }
    let mut clashes = Vec::new();
    for (i, first) in stays.iter().enumerate() {
        for second in &stays[i + 1..] {
            let days = DateSpan {
                from: first.days.from.max(second.days.from),
                to: first.days.to.min(second.days.to),
            };
            if days.from <= days.to
                && first.bay == second.bay
                && !std::ptr::eq(first.tray, second.tray)
                && first.footprint.overlaps(&second.footprint)
            {
                clashes.push(Clash {
                    first: first.tray,
                    second: second.tray,
                    bay: first.bay,
                    days,
                });
            }
        }
    }
    clashes
}
