//! The load of a day by the hour, on every circuit, socket, strip, timer and chain.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::{Burning, DAY_H};
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::{Quantity, energy_kwh};
use crate::power::draw::Draw;
use crate::power::limits::{Carried, Limit, limits};
use crate::room::wiring::Wiring;

/// What is plugged together how, and what it draws: the question of the calculator `load`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoadSetUp {
    /// Nominal mains voltage in V.
    pub mains_v: f64,
    /// Circuits, sockets, strips, timers and chains. Its appliances are taken from `draws` alone.
    pub wiring: Wiring,
    /// What draws.
    pub draws: Vec<Draw>,
}

/// The load of a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DayLoad {
    /// Everything together, the household's own loads too.
    pub all: Load,
    /// Each feed, in the plan's order.
    pub feeds: Vec<FeedLoad>,
    /// What draws and is plugged in nowhere that the plan knows; `None` where all is.
    pub loose: Option<Load>,
}

/// A load over a day.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Load {
    /// From midnight on, each until the next begins.
    pub steps: Vec<LoadStep>,
    /// The most that is drawn at once if every thermostat asks at that moment, in W.
    pub peak_w: f64,
    /// The current of that in A, each device by its power factor.
    pub peak_a: f64,
    /// When that begins: hours after midnight.
    pub peak_h: f64,
    /// The mean over the day, in W.
    pub mean_w: f64,
    /// Energy of the day in kWh.
    pub kwh: f64,
}

/// A stretch of the day over which a load stays the same.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct LoadStep {
    /// When it begins: hours after midnight.
    pub from_h: f64,
    /// What is drawn if every thermostat asks at once, in W.
    pub watts: f64,
    /// What is drawn on average, in W.
    pub mean_w: f64,
}

/// The load of a feed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FeedLoad {
    /// The feed.
    pub feed: String,
    /// What people call it.
    pub name: String,
    /// What it carries.
    #[serde(flatten)]
    pub load: Load,
    /// What it may carry, by each rule that speaks of it.
    pub limits: Vec<Limit>,
    /// How many plugs are in it, or lamps linked.
    pub plugs: u32,
    /// How many plugs go in; `None` where nobody counts them.
    pub outlets: Option<u32>,
    /// The most lamps by the maker; `None` where the label does not say, or it is no chain.
    pub most_lamps: Option<u32>,
}

/// On so long at a stretch, a load counts as continuous.
///
/// Source: NFPA 70 (NEC), article 100 (from memory).
pub const CONTINUOUS_H: f64 = 3.0;

impl LoadSetUp {
    fn check(&self) -> Result<(), Vec<Fault>> {
        let (root, mut faults) = (Pointer::default(), Faults::default());
        let at = root.at("mains_v");
        faults.number(&at, self.mains_v, 90.0..=260.0, Quantity::VoltageV);
        self.wiring.check(&[], &root, &mut faults);
        let at = root.at("draws");
        for (i, draw) in faults.list(&at, &self.draws, 0..=2000) {
            let at = at.at(i);
            faults.number(
                &at.at("watts"),
                draw.watts,
                0.0..=20_000.0,
                Quantity::PowerW,
            );
            faults.number(&at.at("duty"), draw.duty, 0.0..=1.0, Quantity::Share);
            if let Some(factor) = draw.power_factor {
                faults.number(&at.at("power_factor"), factor, 0.1..=1.0, Quantity::Plain);
            }
            if let Some(hours) = draw.hours {
                hours.check(&at.at("hours"), &mut faults);
            }
            if let Some(into) = draw
                .plugged
                .as_ref()
                .filter(|id| self.wiring.feed(id).is_none())
            {
                let known = self.wiring.feeds.iter().map(|feed| feed.id.clone());
                faults.unknown(&at.at("plugged"), into, known);
            }
        }
        faults.verdict()
    }

    /// The load by the hour.
    ///
    /// # Errors
    /// Every fault of the question, by its path.
    pub fn day(&self) -> Result<DayLoad, Vec<Fault>> {
        self.check()?;
        Ok(day_load(&self.wiring, self.mains_v, &self.draws))
    }
}

/// The load of a day on which `draws` draw.
pub fn day_load(wiring: &Wiring, mains_v: f64, draws: &[Draw]) -> DayLoad {
    let steps = Steps::of(draws);
    let mut all = steps.nothing();
    let mut loose = steps.nothing();
    let mut on_feeds: Vec<Sums> = wiring.feeds.iter().map(|_| steps.nothing()).collect();
    let mut direct = vec![0; wiring.feeds.len()];
    let index = |id: &str| wiring.feeds.iter().position(|feed| feed.id == id);
    for draw in draws {
        all.add(draw, &steps);
        let path = draw
            .plugged
            .as_deref()
            .map(|id| wiring.path(id))
            .unwrap_or_default();
        if path.is_empty() {
            loose.add(draw, &steps);
        }
        for (i, feed) in path.iter().enumerate() {
            let Some(at) = index(&feed.id) else { continue };
            on_feeds[at].add(draw, &steps);
            direct[at] += u32::from(i == 0);
        }
    }
    let into = |id: &str| {
        wiring
            .feeds
            .iter()
            .filter(|f| f.into.as_deref() == Some(id))
            .count() as u32
    };
    let feeds = wiring.feeds.iter().zip(on_feeds).zip(direct);
    let feeds = feeds.map(|((feed, sums), direct)| {
        let over = feed.into.as_deref().and_then(|id| wiring.feed(id));
        let carried = sums.carried(mains_v);
        FeedLoad {
            limits: limits(feed, over, mains_v, carried),
            feed: feed.id.clone(),
            name: feed.name.clone(),
            plugs: direct + into(&feed.id),
            outlets: feed.kind.outlets(),
            most_lamps: feed.most_lamps(),
            load: sums.load(&steps, mains_v),
        }
    });
    DayLoad {
        feeds: feeds.collect(),
        all: all.load(&steps, mains_v),
        loose: (loose.devices > 0).then(|| loose.load(&steps, mains_v)),
    }
}

/// The hours at which anything is switched.
struct Steps(Vec<f64>);

impl Steps {
    fn of(draws: &[Draw]) -> Self {
        let mut hours = vec![0.0];
        for burning in draws.iter().map(Draw::burning) {
            hours.extend([burning.from_h, burning.to_h()]);
        }
        hours.sort_by(f64::total_cmp);
        hours.dedup_by(|a, b| (*a - *b).abs() < 1e-6);
        hours.retain(|hour| *hour < DAY_H - 1e-6);
        Self(hours)
    }

    fn nothing(&self) -> Sums {
        Sums {
            watts: vec![0.0; self.0.len()],
            mean_w: vec![0.0; self.0.len()],
            volt_amps: vec![0.0; self.0.len()],
            lasting_va: vec![0.0; self.0.len()],
            kwh: 0.0,
            devices: 0,
        }
    }

    fn on(&self, burning: Burning) -> impl Iterator<Item = usize> {
        let middles = self.0.iter().enumerate().map(|(i, from)| {
            let to = self.0.get(i + 1).copied().unwrap_or(DAY_H);
            (i, (from + to) / 2.0)
        });
        middles.filter(move |(_, h)| burning.at(*h)).map(|(i, _)| i)
    }
}

/// What a feed carries over each step.
struct Sums {
    watts: Vec<f64>,
    mean_w: Vec<f64>,
    volt_amps: Vec<f64>,
    /// Of what is on for hours at a stretch.
    lasting_va: Vec<f64>,
    kwh: f64,
    devices: u32,
}

impl Sums {
    fn add(&mut self, draw: &Draw, steps: &Steps) {
        let burning = draw.burning();
        let lasts = burning.hours >= CONTINUOUS_H && draw.watts > 0.0;
        for i in steps.on(burning) {
            self.watts[i] += draw.watts;
            self.mean_w[i] += draw.mean_w();
            self.volt_amps[i] += draw.volt_amps();
            if lasts {
                self.lasting_va[i] += draw.volt_amps();
            }
        }
        self.kwh += draw.kwh();
        self.devices += 1;
    }

    fn carried(&self, mains_v: f64) -> Carried {
        debug_assert!(mains_v > 0.0);
        let each = self.volt_amps.iter().zip(&self.lasting_va);
        Carried {
            volt_amps: self.volt_amps.iter().copied().fold(0.0, f64::max),
            with_lasting: each
                .map(|(all, lasts)| all + 0.25 * lasts)
                .fold(0.0, f64::max),
        }
    }

    fn load(&self, steps: &Steps, mains_v: f64) -> Load {
        let peak = (0..self.watts.len()).reduce(|best, i| {
            if self.watts[i] > self.watts[best] + 1e-9 {
                i
            } else {
                best
            }
        });
        let peak = peak.unwrap_or(0);
        let each = steps.0.iter().zip(self.watts.iter().zip(&self.mean_w));
        Load {
            steps: each
                .map(|(&from_h, (&watts, &mean_w))| LoadStep {
                    from_h,
                    watts,
                    mean_w,
                })
                .collect(),
            peak_w: self.watts[peak],
            peak_a: self.volt_amps[peak] / mains_v,
            peak_h: steps.0[peak],
            mean_w: self.kwh * 1000.0 / DAY_H,
            kwh: self.kwh,
        }
    }
}

impl Load {
    /// Energy of the day as the sum over its steps, in kWh.
    pub fn summed_kwh(&self) -> f64 {
        let ends = self
            .steps
            .iter()
            .skip(1)
            .map(|step| step.from_h)
            .chain([DAY_H]);
        let each = self.steps.iter().zip(ends);
        each.map(|(step, to_h)| energy_kwh(step.mean_w, to_h - step.from_h))
            .sum()
    }
}
