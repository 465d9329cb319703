//! What the season draws and costs, day by day and by kind of device.

use std::collections::BTreeMap;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::work::{go_on, side_by_side_with};
use crate::day::detail::Detail;
use crate::day::standing::Standing;
use crate::day::view::{BayView, Looker};
use crate::power::draw::{Draw, Drawer};
use crate::season::Reckoned;

/// What the season draws and costs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Running {
    /// Each day of the season.
    pub days: Vec<DayEnergy>,
    /// By kind of device, what takes most first.
    pub lines: Vec<EnergyLine>,
    /// Energy of the season in kWh.
    pub kwh: f64,
    /// What it costs, in the site's currency.
    pub cost: f64,
    /// What each sowing has of that cost, in the plan's order: by the room that its trays take where
    /// something draws.
    #[serde(skip)]
    pub by_sowing: Vec<f64>,
    /// For each sowing, the tray-days that it takes, in m² days.
    #[serde(skip)]
    pub m2_days: Vec<f64>,
}

/// A day of the season.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct DayEnergy {
    /// The day.
    pub date: Date,
    /// Energy in kWh.
    pub kwh: f64,
    /// What it costs, in the site's currency.
    pub cost: f64,
}

/// What one kind of device takes over the season.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct EnergyLine {
    /// The kind.
    pub what: Drawer,
    /// How many are ever on.
    pub devices: u32,
    /// Days on which any is on.
    pub days: u32,
    /// The share of the time in which they may be on that they are.
    pub duty: f64,
    /// Energy in kWh.
    pub kwh: f64,
    /// What it costs, in the site's currency.
    pub cost: f64,
}

/// A sowing's share of a bay on a day.
struct Share {
    sowing: usize,
    m2: f64,
}

/// A place on a day: what draws in it, and who stands there, bay by bay.
struct Bays(Vec<(Vec<Draw>, Vec<Share>)>);

/// A kind of device while it is summed.
#[derive(Default)]
struct Sum {
    devices: std::collections::BTreeSet<(String, String, String)>,
    days: u32,
    on_h: f64,
    may_h: f64,
    kwh: f64,
    cost: f64,
}

impl Running {
    /// Of the whole season.
    pub fn of(reckoned: &Reckoned<'_>) -> Self {
        let (plan, site) = (reckoned.plan, &reckoned.plan.site);
        let dates: Vec<Date> = plan.season.days().collect();
        let place = |looker: &mut Looker<'_>, index: usize, date: Date| {
            go_on();
            let views = looker.look(index, date).into_iter();
            Bays(views.map(|view| of_bay(reckoned, view)).collect())
        };
        let looker = || Looker::new(reckoned, Detail::Days);
        let looked = side_by_side_with(&dates, looker, |looker, &date| -> Vec<Bays> {
            let places = 0..plan.places.len();
            places.map(|index| place(looker, index, date)).collect()
        });
        let mut sums: BTreeMap<Drawer, Sum> = BTreeMap::new();
        let mut by_sowing = vec![0.0; plan.sowings.len()];
        let mut m2_days = vec![0.0; plan.sowings.len()];
        let mut days = Vec::with_capacity(dates.len());
        for (&date, places) in dates.iter().zip(looked) {
            let mut day = DayEnergy {
                date,
                kwh: 0.0,
                cost: 0.0,
            };
            let mut seen = Vec::new();
            for Bays(bays) in &places {
                let everybody = bays.iter().flat_map(|(_, shares)| shares);
                for share in everybody.clone() {
                    m2_days[share.sowing] += share.m2;
                }
                for (draws, shares) in bays {
                    let cost: f64 = draws.iter().map(|draw| draw.cost(site, date)).sum();
                    // What warms a shelf without trays warms the others of its place.
                    if shares.is_empty() {
                        split(cost, everybody.clone(), &mut by_sowing);
                    } else {
                        split(cost, shares.iter(), &mut by_sowing);
                    }
                    for draw in draws {
                        let sum = sums.entry(draw.what).or_default();
                        sum.add(draw, draw.cost(site, date));
                        day.kwh += draw.kwh();
                        seen.push(draw.what);
                    }
                    day.cost += cost;
                }
            }
            seen.sort_unstable();
            seen.dedup();
            for what in seen {
                sums.entry(what).or_default().days += 1;
            }
            days.push(day);
        }
        let mut lines: Vec<EnergyLine> =
            sums.into_iter().map(|(what, sum)| sum.line(what)).collect();
        lines.sort_by(|a, b| b.kwh.total_cmp(&a.kwh));
        Self {
            kwh: days.iter().map(|day| day.kwh).sum(),
            cost: days.iter().map(|day| day.cost).sum(),
            days,
            lines,
            by_sowing,
            m2_days,
        }
    }
}

impl Sum {
    fn add(&mut self, draw: &Draw, cost: f64) {
        let hours = draw.burning().hours;
        let bay = draw
            .bay
            .as_ref()
            .map(|bay| (bay.place.clone(), bay.tier.clone()));
        let (place, tier) = bay.unwrap_or_default();
        self.devices.insert((place, tier, draw.id.clone()));
        self.may_h += hours * draw.watts;
        self.on_h += hours * draw.watts * draw.duty;
        self.kwh += draw.kwh();
        self.cost += cost;
    }

    fn line(self, what: Drawer) -> EnergyLine {
        EnergyLine {
            what,
            devices: self.devices.len() as u32,
            days: self.days,
            duty: if self.may_h > 0.0 {
                self.on_h / self.may_h
            } else {
                0.0
            },
            kwh: self.kwh,
            cost: self.cost,
        }
    }
}

fn of_bay(reckoned: &Reckoned<'_>, view: BayView<'_>) -> (Vec<Draw>, Vec<Share>) {
    let shares = view
        .standing
        .iter()
        .flat_map(|standing| shares(reckoned, standing));
    let shares = shares.collect();
    (view.computed.draws, shares)
}

fn shares(reckoned: &Reckoned<'_>, standing: &Standing<'_>) -> Vec<Share> {
    let parts = standing.parts.iter().filter(|part| part.stage.is_some());
    parts
        .map(|part| Share {
            sowing: reckoned.plan.sowing_index(&part.sowing.id),
            m2: part.footprint.area_m2(),
        })
        .collect()
}

/// Adds to each sowing what it has of `cost` by its room among `shares`.
fn split<'a>(cost: f64, shares: impl Iterator<Item = &'a Share> + Clone, by_sowing: &mut [f64]) {
    let all: f64 = shares.clone().map(|share| share.m2).sum();
    if all > 0.0 {
        shares.for_each(|share| by_sowing[share.sowing] += cost * share.m2 / all);
    }
}
