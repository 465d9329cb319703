//! Trays to be placed, as many as one likes: a chamber, racks with mats, a bench and a frame outdoors.

use std::collections::BTreeMap;

use fastrand::Rng;

use crate::placement::solver::{Instance, PlaceOf, StageOf, TrayOf};

/// A season of `sowings` over so many `days`, for a chamber and so many `racks`; what is potted on takes
/// up to three trays. The same `seed` makes the same.
pub fn crowded(seed: u64, racks: usize, sowings: usize, days: u32) -> Instance {
    let mut random = Rng::with_seed(seed);
    let mut places: Vec<PlaceOf> = Vec::new();
    let mut add = |id: String, capacity: u32| {
        places.push(PlaceOf {
            id: id.clone(),
            capacity,
        });
        id
    };
    let shelves: Vec<String> = (1..=4)
        .map(|shelf| add(format!("chamber/s{shelf}"), random.u32(2..=3)))
        .collect();
    let (mut mats, mut tiers) = (Vec::new(), Vec::new());
    for rack in 1..=racks {
        for tier in 1..=random.usize(3..=5) {
            let mut capacity = random.u32(2..=4);
            if random.bool() {
                let warm = random.u32(1..capacity);
                mats.push(add(format!("rack{rack}/t{tier}/mat"), warm));
                capacity -= warm;
            }
            tiers.push(add(format!("rack{rack}/t{tier}"), capacity));
        }
    }
    let bench = add("bench".into(), 3 + racks as u32 / 2);
    let frame = add("frame".into(), 4 + 2 * racks as u32);
    let mut trays = Vec::new();
    for sowing in 1..=sowings {
        let warm = random.bool();
        let weight = [12, 12, 18, 24, 72][random.usize(0..5)];
        let weeks = |random: &mut Rng| 7 * random.u32(2..=4);
        let lengths = [
            random.u32(4..=12),
            weeks(&mut random),
            weeks(&mut random),
            [7, 10][random.usize(0..2)],
        ];
        // Most in the first half of the season.
        let last = days - lengths.iter().sum::<u32>();
        let sown = (0..3).map(|_| random.u32(0..=last)).min().unwrap_or(0);
        let mut germinate: BTreeMap<String, u32> = BTreeMap::new();
        germinate.extend(shelves.iter().map(|id| (id.clone(), random.u32(0..2))));
        germinate.extend(mats.iter().map(|id| (id.clone(), if warm { 0 } else { 2 })));
        if !warm {
            germinate.extend(tiers.iter().map(|id| (id.clone(), 1)));
        }
        let tall = random.f64();
        let lit = || {
            mats.iter()
                .map(|id| (id, true))
                .chain(tiers.iter().map(|id| (id, false)))
        };
        let mut grow: BTreeMap<String, u32> = BTreeMap::from([(bench.clone(), 2)]);
        let mut potted: BTreeMap<String, u32> = BTreeMap::from([(bench.clone(), 0)]);
        for (id, mat) in lit() {
            if random.f64() < 0.75 {
                grow.insert(id.clone(), if mat { 1 } else { 0 } + random.u32(0..2));
            }
            if random.f64() < 0.4 + 0.6 * tall {
                potted.insert(id.clone(), 0);
            }
        }
        let harden = BTreeMap::from([(frame.clone(), 0)]);
        let mut from = sown;
        let mut stages: Vec<StageOf> = Vec::new();
        let all = [
            (germinate, false),
            (grow, true),
            (potted, true),
            (harden, false),
        ];
        for ((places, needs_light), length) in all.into_iter().zip(lengths) {
            stages.push(StageOf {
                from,
                to: from + length,
                needs_light,
                places,
                pinned: None,
                was: None,
            });
            from += length;
        }
        for more in 0..=[0, 0, 1, 2][random.usize(0..4)] {
            let own = if more == 0 { &stages[..] } else { &stages[2..] };
            trays.push(TrayOf {
                id: format!("t{sowing}.{more}"),
                weight,
                stages: own.to_vec(),
            });
        }
    }
    Instance {
        days,
        places,
        trays,
        keep: false,
    }
}
