//! Water for the weeks to come, and when each tray wants it next.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::work;
use crate::day::detail::Detail;
use crate::day::view::{BayView, Looker};
use crate::room::{BayRef, MixKind};
use crate::season::Reckoned;
use crate::today::thirst::Thirst;

/// Half a year is far enough.
const MOST_WEEKS: usize = 26;
/// So many trays times weeks are looked at, at the most.
const MOST_TRAY_WEEKS: usize = 4000;

/// What the trays indoors drink in the weeks to come, and when each wants water next.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WaterAhead {
    /// The day.
    pub date: Date,
    /// The weeks from then on, to the end of the season at the most.
    pub weeks: Vec<WaterWeek>,
    /// The trays that stand indoors on the day, the first to want water first.
    pub trays: Vec<NextWater>,
}

/// What the trays indoors drink in a week.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WaterWeek {
    /// Its first day.
    pub from: Date,
    /// So many trays stand indoors in its middle.
    pub trays: u32,
    /// What they drink in the week, in litres.
    pub litres: f64,
    /// The thirstiest wants water every so many days; `None` when none dries within a month.
    pub every_days: Option<f64>,
}

/// When a tray wants water next.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NextWater {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// Where it stands.
    pub bay: BayRef,
    /// The same in words.
    pub bay_name: String,
    /// What it is filled with.
    pub mix: MixKind,
    /// The day on which it was watered, sown or potted last; `None` where nobody logged it.
    pub last: Option<Date>,
    /// The day on which it wants water next; `None` where nobody logged the last, and when it is over a month
    /// away.
    pub due: Option<Date>,
    /// What it drinks in a day.
    pub uses_ml_d: f64,
    /// Days from well watered until it wants water again; `None` when that is over a month.
    pub lasts_days: Option<f64>,
    /// What it weighs watered through and drained.
    pub wet_kg: f64,
    /// What it weighs when it wants water again.
    pub light_kg: f64,
    /// What its reservoir holds; 0 where it has none.
    pub reservoir_ml: f64,
}

impl WaterAhead {
    /// From `date` on.
    pub fn of(reckoned: &Reckoned<'_>, date: Date) -> Self {
        let trays = each_tray(reckoned, date, |view, i| {
            let (standing, thirst) = (&view.standing[i], Thirst::of(view, &view.standing[i]));
            NextWater {
                tray: standing.tray.id.clone(),
                label: standing.tray.name.clone(),
                bay: view.bay.reference(),
                bay_name: view.bay.name(),
                mix: standing.format.mix,
                last: thirst.last,
                due: thirst.due(),
                uses_ml_d: thirst.water.uses_ml_d,
                lasts_days: thirst.water.lasts_days,
                wet_kg: standing.format.wet_kg,
                light_kg: thirst.water.light_kg,
                reservoir_ml: thirst.water.reservoir_ml,
            }
        });
        let mut trays = trays;
        let soonest = |own: &NextWater| own.lasts_days.unwrap_or(f64::INFINITY);
        trays.sort_by(|a, b| {
            let (due_a, due_b) = (a.due.unwrap_or(Date::MAX), b.due.unwrap_or(Date::MAX));
            due_a.cmp(&due_b).then(soonest(a).total_cmp(&soonest(b)))
        });
        Self {
            date,
            weeks: weeks(reckoned, date),
            trays,
        }
    }
}

fn weeks(reckoned: &Reckoned<'_>, date: Date) -> Vec<WaterWeek> {
    const WEEK: i32 = 7;
    let plan = reckoned.plan;
    let days = days_between(date, plan.season.to) + 1;
    let left = usize::try_from((days + WEEK - 1) / WEEK).unwrap_or(0);
    let bound = MOST_TRAY_WEEKS / plan.trays.len().max(1);
    let count = left.min(bound.max(1)).min(MOST_WEEKS);
    let from: Vec<Date> = (0..count)
        .map(|n| plus_days(date, n as i32 * WEEK))
        .collect();
    let mut weeks = work::side_by_side(&from, |&from| {
        work::go_on();
        let middle = plus_days(from, WEEK / 2).min(plan.season.to);
        let drinks = each_tray(reckoned, middle, |view, i| {
            Thirst::of(view, &view.standing[i]).water
        });
        let ml_d = drinks
            .iter()
            .map(|water| water.uses_ml_d)
            .fold(0.0, |a, b| a + b);
        let lasts = drinks.iter().filter_map(|water| water.lasts_days);
        WaterWeek {
            from,
            trays: drinks.len() as u32,
            litres: ml_d * f64::from(WEEK) / 1000.0,
            every_days: lasts.reduce(f64::min),
        }
    });
    // Once all are out there is nothing to tell.
    while weeks.last().is_some_and(|week| week.trays == 0) {
        weeks.pop();
    }
    weeks
}

/// What `tell` says of each tray that stands indoors on `date`, told by its bay and its index there.
fn each_tray<T>(
    reckoned: &Reckoned<'_>,
    date: Date,
    tell: impl Fn(&BayView<'_>, usize) -> T,
) -> Vec<T> {
    let mut looker = Looker::new(reckoned, Detail::Water);
    let plan = reckoned.plan;
    let mut all = Vec::new();
    for place in (0..plan.places.len()).filter(|&i| !plan.places[i].outdoors()) {
        for view in looker.look(place, date) {
            all.extend((0..view.standing.len()).map(|i| tell(&view, i)));
        }
    }
    all
}
