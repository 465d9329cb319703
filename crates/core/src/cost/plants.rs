//! What a plant costs until it is planted out: its seed, its mix, its water, its current, and its share of
//! what the stand is worth.

use serde::Serialize;
use utoipa::ToSchema;

use crate::cost::running::Running;
use crate::cost::shopping::ShoppingLine;
use crate::season::Reckoned;

/// What the plants of a season cost.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlantCosts {
    /// Each sowing, in the plan's order; without those that only pass through.
    pub sowings: Vec<SowingCost>,
    /// All of them.
    pub all: Parts,
    /// What each part comes to for a plant.
    pub of_a_plant: Parts,
    /// Plants wanted in all.
    pub plants: u32,
    /// What a plant costs; `None` without plants.
    pub per_plant: Option<f64>,
    /// What as many bought plants would cost; `None` where nobody said what one costs.
    pub bought: Option<f64>,
    /// Seasons until what the stand cost is saved against bought plants; `None` where it never is, or
    /// nobody knows.
    pub pays_back_seasons: Option<f64>,
    /// Figures that are left out of it since nobody said what the thing costs.
    pub unpriced: Vec<&'static str>,
}

/// What a sowing costs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SowingCost {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// Plants wanted.
    pub plants: u32,
    /// What it is made up of.
    pub parts: Parts,
    /// All of that.
    pub total: f64,
    /// What a plant costs.
    pub per_plant: f64,
}

/// What a cost is made up of, in the site's currency.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, ToSchema)]
pub struct Parts {
    /// Seed.
    pub seed: f64,
    /// Mix in cells and pots.
    pub mix: f64,
    /// Water.
    pub water: f64,
    /// Current.
    pub current: f64,
    /// This season's share of what gear and trays are worth.
    pub stand: f64,
}

impl Parts {
    /// All of it.
    pub fn total(&self) -> f64 {
        self.seed + self.mix + self.water + self.current + self.stand
    }

    fn over(&self, n: f64) -> Self {
        Self {
            seed: self.seed / n,
            mix: self.mix / n,
            water: self.water / n,
            current: self.current / n,
            stand: self.stand / n,
        }
    }

    fn add(&mut self, other: &Self) {
        self.seed += other.seed;
        self.mix += other.mix;
        self.water += other.water;
        self.current += other.current;
        self.stand += other.stand;
    }
}

/// Water that a square metre of trays takes a day, in litres: 2 to 4 mm evaporate indoors (our own
/// estimate).
const WATER_L_M2_D: f64 = 3.0;
/// Seeds in a packet of which nobody knows how many it holds (our own estimate).
const SEEDS_IN_PACKET: f64 = 50.0;

impl PlantCosts {
    /// Of the season that `running` was reckoned for, with what its `shopping` list is worth.
    pub fn of(reckoned: &Reckoned<'_>, running: &Running, shopping: &[ShoppingLine]) -> Self {
        let (plan, prices) = (reckoned.plan, &reckoned.plan.prices);
        let worth: f64 = shopping.iter().filter_map(|line| line.worth).sum();
        let stand = worth / prices.lasts();
        let own = |i: usize| plan.sowings[i].stays.is_none();
        let m2_days: f64 = (0..plan.sowings.len())
            .filter(|i| own(*i))
            .map(|i| running.m2_days[i])
            .sum();
        let mut sowings = Vec::new();
        let mut all = Parts::default();
        for (i, sowing) in plan.sowings.iter().enumerate().filter(|(i, _)| own(*i)) {
            let trays = plan.sown_in(&sowing.id).chain(plan.potted_into(&sowing.id));
            let mix_l: f64 = trays
                .map(|tray| {
                    plan.format(tray).cell_ml / 1000.0 * f64::from(plan.cells_in(tray, &sowing.id))
                })
                .sum();
            let seeds = reckoned
                .cells_of(&sowing.id)
                .and_then(|cells| cells.to_sow.as_ref());
            let packet = plan.packet(sowing);
            let in_packet = packet
                .and_then(|packet| packet.seeds)
                .map_or(SEEDS_IN_PACKET, f64::from);
            let packets = seeds.map_or(0.0, |to_sow| f64::from(to_sow.seeds) / in_packet.max(1.0));
            let m3 = running.m2_days[i] * WATER_L_M2_D / 1000.0;
            let parts = Parts {
                seed: prices.packet.unwrap_or(0.0) * packets,
                mix: prices.mix_per_litre.unwrap_or(0.0) * mix_l,
                water: prices.water_per_m3.unwrap_or(0.0) * m3,
                current: running.by_sowing[i],
                stand: if m2_days > 0.0 {
                    stand * running.m2_days[i] / m2_days
                } else {
                    0.0
                },
            };
            all.add(&parts);
            sowings.push(SowingCost {
                sowing: sowing.id.clone(),
                name: reckoned.dates[i].name.clone(),
                plants: sowing.wanted,
                total: parts.total(),
                per_plant: parts.total() / f64::from(sowing.wanted.max(1)),
                parts,
            });
        }
        let plants: u32 = sowings.iter().map(|sowing| sowing.plants).sum();
        let bought = prices.bought_plant.map(|price| price * f64::from(plants));
        let saved = bought.map(|bought| bought - (all.total() - all.stand));
        let pays_back = saved.filter(|saved| *saved > 0.0 && worth > 0.0);
        let unpriced = [
            (
                "gear and trays",
                shopping.iter().any(|line| line.worth.is_none()),
            ),
            ("seed", prices.packet.is_none()),
            ("mix", prices.mix_per_litre.is_none()),
            ("water", prices.water_per_m3.is_none()),
        ];
        Self {
            per_plant: (plants > 0).then(|| all.total() / f64::from(plants)),
            sowings,
            of_a_plant: all.over(f64::from(plants.max(1))),
            all,
            plants,
            bought,
            pays_back_seasons: pays_back.map(|saved| worth / saved),
            unpriced: unpriced
                .into_iter()
                .filter(|(_, not)| *not)
                .map(|(name, _)| name)
                .collect(),
        }
    }

    /// The costs as a table in CSV: a row for each sowing, and one that sums them up.
    pub fn to_csv(&self) -> String {
        let mut writer = csv::Writer::from_writer(Vec::new());
        let head = [
            "sowing",
            "plants",
            "seed",
            "mix",
            "water",
            "current",
            "stand",
            "total",
            "per plant",
        ];
        let mut rows = vec![head.map(str::to_owned)];
        let row = |name: &str, plants: u32, parts: &Parts, each: f64| {
            let money = [
                parts.seed,
                parts.mix,
                parts.water,
                parts.current,
                parts.stand,
                parts.total(),
                each,
            ];
            let money = money.map(|value| format!("{value:.4}"));
            let [seed, mix, water, current, stand, total, each] = money;
            [
                name.into(),
                plants.to_string(),
                seed,
                mix,
                water,
                current,
                stand,
                total,
                each,
            ]
        };
        let each = self.sowings.iter();
        rows.extend(each.map(|one| row(&one.name, one.plants, &one.parts, one.per_plant)));
        rows.push(row(
            "all",
            self.plants,
            &self.all,
            self.per_plant.unwrap_or(0.0),
        ));
        for row in rows {
            writer
                .write_record(&row)
                .expect("a list in memory takes every row");
        }
        let bytes = writer.into_inner().unwrap_or_default();
        String::from_utf8(bytes).unwrap_or_default()
    }
}
