//! How much of each sowing to sow: cells, seeds in each, and what its packet has.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::{Crop, GrownFrom};
use crate::plan::{SoundPlan, Sowing, Tray};
use crate::season::sowing_dates::SowingDates;
use crate::seeds::{SeedSource, ToSow, Viability, Want};

/// What to sow of a sowing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SowingCells {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// What it begins from.
    pub grown_from: GrownFrom,
    /// The packet; `None` when the sowing names none: then fresh bought seed is taken for granted.
    pub packet: Option<String>,
    /// Mix in the cells that suit it, in ml.
    pub cell_ml: f64,
    /// Mix in the pot that it goes into later; `None` when it stays where it was sown.
    pub pot_on_ml: Option<f64>,
    /// Cells that the plan's trays have for it.
    pub cells_there: u32,
    /// Pots that the plants wanted take, those to spare too; `None` when it stays where it was sown.
    pub pots: Option<u32>,
    /// Pots that the plan has for it.
    pub pots_there: u32,
    /// What to sow; `None` for stock that passes through, and for seed too poor to sow.
    pub to_sow: Option<ToSow>,
    /// Why it is to be warmed rather than sown more thickly: few would come up where it lies. What is to
    /// be sown counts on that.
    pub warm_first: Option<Statement>,
    /// Why nothing can be sown of it.
    pub problem: Option<Statement>,
    /// Seeds that the packet has left after this sowing and those before it; negative when it has
    /// too few, `None` when nobody counted.
    pub seeds_left: Option<i64>,
}

/// Each sowing's cells and seeds, in the order of sowing.
pub fn all(plan: &SoundPlan, dates: &[SowingDates]) -> Vec<SowingCells> {
    let mut order: Vec<usize> = (0..plan.sowings.len()).collect();
    order.sort_by_key(|&i| dates[i].sow);
    let mut used: std::collections::BTreeMap<&str, i64> = std::collections::BTreeMap::new();
    order
        .into_iter()
        .map(|i| {
            let (sowing, dates) = (&plan.sowings[i], &dates[i]);
            let mut cells = of(plan, sowing, dates);
            if let (Some(packet), Some(to_sow)) = (plan.packet(sowing), &cells.to_sow) {
                let used = used.entry(packet.id.as_str()).or_default();
                *used += i64::from(to_sow.seeds);
                cells.seeds_left = packet.seeds.map(|have| i64::from(have) - *used);
            }
            cells
        })
        .collect()
}

fn of(plan: &SoundPlan, sowing: &Sowing, dates: &SowingDates) -> SowingCells {
    let crop = plan.crop(sowing);
    let packet = plan.packet(sowing);
    let cells_of = |tray: &Tray| plan.cells_in(tray, &sowing.id);
    // Those in large cells stay there.
    let cells_there: u32 = plan.sown_in(&sowing.id).map(cells_of).sum();
    let leave = plan
        .sown_in(&sowing.id)
        .filter(|tray| dates.pot_on_of(tray).is_some());
    let potted = match leave.map(cells_of).sum::<u32>() {
        0 => 1.0,
        leave => f64::from(leave) / f64::from(cells_there),
    };
    let (want, warm_first) = want(plan, sowing, dates);
    let (plants, plants_per_cell) = (want.wanted, want.plants_per_cell);
    let asked = sowing.stays.is_none();
    let asked = asked.then(|| want.of_viability(viability(plan, sowing)));
    let (to_sow, problem) = match asked {
        None => (None, None),
        Some(Ok(to_sow)) => (Some(in_its_words(crop, plants, to_sow)), None),
        Some(Err(faults)) => (None, faults.into_iter().next().map(|fault| fault.problem)),
    };
    SowingCells {
        sowing: sowing.id.clone(),
        name: dates.name.clone(),
        grown_from: crop.grown_from,
        packet: packet.map(|packet| packet.id.clone()),
        // Sown in its final pot it needs no smaller cell.
        cell_ml: if crop.pot_on_ml > 0.0 && sowing.pots_on == Some(false) {
            crop.pot_on_ml
        } else {
            crop.cell_ml
        },
        pot_on_ml: dates.pot_on.map(|_| crop.pot_ml()),
        cells_there,
        pots: dates
            .pot_on
            .map(|_| (f64::from(plants.div_ceil(plants_per_cell.max(1))) * potted).ceil() as u32),
        pots_there: plan.potted_into(&sowing.id).map(cells_of).sum(),
        to_sow,
        warm_first,
        problem,
        seeds_left: None,
    }
}

/// What is wanted of `sowing`, and why it is to be warmed first.
fn want(plan: &SoundPlan, sowing: &Sowing, dates: &SowingDates) -> (Want, Option<Statement>) {
    let crop = plan.crop(sowing);
    let spare = sowing.spare.filter(|_| !sowing.fewest_seeds).unwrap_or(0.0);
    let seed = crop.grown_from == GrownFrom::Seed;
    let (comes_up, warm_first) = comes_up(crop, dates);
    let want = Want {
        wanted: (f64::from(sowing.wanted) * (1.0 + spare)).ceil() as u32,
        viability: None,
        test: None,
        comes_up,
        losses: crop.losses,
        plants_per_cell: if seed { crop.plants_per_cell } else { 1 },
        seedlings_per_seed: crop.seedlings_per_seed,
        // Cuttings stand one to a place.
        seeds_per_cell: sowing.seeds_per_cell.or((!seed).then_some(1)),
        fewest: sowing.fewest_seeds,
        most_empty: MOST_EMPTY,
        sure: sowing.sure.unwrap_or(SURE),
        seeds: plan.packet(sowing).and_then(|packet| packet.seeds),
    };
    (want, warm_first)
}

/// Seeds in each cell as they were to be sown before any of the packet was counted; `None` in an open tray,
/// where nobody knows.
pub fn sown_per_cell(plan: &SoundPlan, sowing: &Sowing, dates: &SowingDates) -> Option<u32> {
    let packet = plan.packet(sowing)?;
    let unsown = packet.unsown(plan.crop(sowing), plan.season.from.year());
    let (want, _) = want(plan, sowing, dates);
    let to_sow = want.of_viability(unsown).ok()?;
    (!to_sow.open_tray).then_some(to_sow.seeds_per_cell)
}

/// The same with the verdict on cuttings and slips in their own words.
fn in_its_words(crop: &Crop, plants: u32, to_sow: ToSow) -> ToSow {
    let count = |n: u32| Quantity::Count.of(f64::from(n));
    let (n, sure) = (count(to_sow.cells), Quantity::Share.of(to_sow.chance));
    let verdict = match crop.grown_from {
        GrownFrom::Seed => return to_sow,
        GrownFrom::Slips => say!(
            "Root {n} slips, one to a pot: a {sure} chance of at least {plants} plants",
            n = n,
            sure = sure,
            plants = count(plants)
        ),
        GrownFrom::Cuttings => say!(
            "Take {n} cuttings, one to a pot: a {sure} chance of at least {plants} plants",
            n = n,
            sure = sure,
            plants = count(plants)
        ),
    };
    ToSow { verdict, ..to_sow }
}

/// The share of good seed that is reckoned to come up, and why it is to be warmed first: where cold keeps
/// it down, warmth is cheaper than seed.
fn comes_up(crop: &Crop, dates: &SowingDates) -> (f64, Option<Statement>) {
    let warm = crop.curve().share(crop.root_zone_c);
    if !is_kept_down(crop, dates) {
        return (dates.comes_up, None);
    }
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    let why = say!(
        "At {now} only {share} of good seed comes up: warm the mix to {advised}. The seed here is counted for that.",
        now = celsius(dates.root_zone_c),
        share = Quantity::Share.of(dates.comes_up),
        advised = celsius(crop.root_zone_c),
    );
    (warm, Some(why))
}

/// Whether cold keeps so much of the seed down that warming is the cure (our own estimate).
pub fn is_kept_down(crop: &Crop, dates: &SowingDates) -> bool {
    const FEW: f64 = 0.75;
    let warm = crop.curve().share(crop.root_zone_c);
    dates.root_zone_c < crop.root_zone_c && dates.comes_up < FEW * warm
}

/// The share of cells that may stay empty (common practice, no source).
const MOST_EMPTY: f64 = 0.1;
/// How sure a gardener wants to be of the plants wanted who does not say (common practice, no source).
const SURE: f64 = 0.95;

/// How alive the seed of `sowing` is in the year it is sown.
pub fn viability(plan: &SoundPlan, sowing: &Sowing) -> Viability {
    let (crop, year) = (plan.crop(sowing), plan.season.from.year());
    if crop.grown_from != GrownFrom::Seed {
        return Viability::of_cuttings();
    }
    match plan.packet(sowing) {
        Some(packet) => packet.viability(crop, year),
        None => SeedSource::Bought.fresh(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::Plan;
    use crate::seeds::{GerminationTest, Packet};
    use crate::testing::{kettle_fen, reckoned};

    fn of(change: impl FnOnce(&mut Plan)) -> Vec<SowingCells> {
        let plan = kettle_fen(|plan| {
            plan.packets.clear();
            for sowing in &mut plan.sowings {
                sowing.packet = None;
            }
            change(plan);
        });
        reckoned(&plan).how_many.to_vec()
    }

    fn packet(seeds: u32, test: Option<GerminationTest>) -> Packet {
        Packet {
            id: "lettuce-2026".into(),
            crop: "lettuce".into(),
            variety: "Green Quilt".into(),
            lot: None,
            year: 2026,
            seeds: Some(seeds),
            source: SeedSource::Bought,
            cold: false,
            stated: None,
            test,
            counted: None,
        }
    }

    #[test]
    fn they_stand_in_the_order_to_sow() {
        let cells = of(|_| ());
        assert_eq!(cells.len(), 25);
        assert!(cells.iter().all(|c| c.to_sow.is_some()));
        // Onions go first.
        assert!(cells[0].name.starts_with("Onion") || cells[0].name.starts_with("Celery"));
    }

    #[test]
    fn a_packet_that_serves_two_sowings_runs_out() {
        let cells = of(|plan| {
            plan.packets.push(packet(70, None));
            for sowing in plan.sowings.iter_mut().filter(|s| s.crop == "lettuce") {
                sowing.packet = Some("lettuce-2026".into());
            }
        });
        let left: Vec<i64> = cells.iter().filter_map(|c| c.seeds_left).collect();
        assert_eq!(left.len(), 3);
        assert!(left.is_sorted_by(|a, b| a > b) && left[2] < 0, "{left:?}");
    }

    #[test]
    fn who_wants_to_be_surer_sows_more() {
        let cells = |sure| {
            let cells = of(|plan| {
                let sowing = plan.sowings.iter_mut().find(|s| s.id == "lettuce");
                sowing.unwrap().sure = sure;
            });
            let lettuce = cells.into_iter().find(|c| c.sowing == "lettuce").unwrap();
            lettuce.to_sow.unwrap().cells
        };
        assert!(cells(Some(0.6)) < cells(None) && cells(None) < cells(Some(0.999)));
    }

    #[test]
    fn a_poor_test_asks_for_more_seed() {
        let seeds = |test| {
            let cells = of(|plan| {
                plan.packets.push(packet(500, test));
                let sowing = plan.sowings.iter_mut().find(|s| s.id == "lettuce");
                sowing.unwrap().packet = Some("lettuce-2026".into());
            });
            let lettuce = cells.into_iter().find(|c| c.sowing == "lettuce").unwrap();
            lettuce.to_sow.unwrap().seeds
        };
        let poor = GerminationTest {
            sprouted: 3,
            of: 20,
        };
        assert!(seeds(Some(poor)) > 2 * seeds(None));
    }
}
