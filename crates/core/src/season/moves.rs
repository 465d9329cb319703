//! Which trays are carried from one spot to another, and when.

use std::collections::BTreeMap;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::room::BayRef;
use crate::season::reckoned::Reckoned;
use crate::season::stays::spots;

/// Trays that are carried from one bay to another on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Moves {
    /// The day.
    pub date: Date,
    /// The trays.
    pub trays: Vec<String>,
    /// What their labels say.
    pub labels: Vec<String>,
    /// From this bay.
    pub from: BayRef,
    /// To this one.
    pub to: BayRef,
    /// The same in words.
    pub headline: Statement,
}

/// All moves from one bay to another by the spots that trays have, in order; those of a day that go the
/// same way are one.
pub fn moves(reckoned: &Reckoned<'_>) -> Vec<Moves> {
    let plan = reckoned.plan;
    let mut together: BTreeMap<(Date, BayRef, BayRef), Vec<usize>> = BTreeMap::new();
    for (i, tray) in plan.trays.iter().enumerate() {
        let moments = reckoned.moments_of(tray);
        for pair in spots(tray, &moments).windows(2) {
            let (from, to) = (&pair[0].0.bay, &pair[1].0.bay);
            if from != to {
                let way = (pair[1].1.from, from.clone(), to.clone());
                together.entry(way).or_default().push(i);
            }
        }
    }
    let name = |bay: &BayRef| plan.bay(bay).map_or_else(String::new, |bay| bay.name());
    let moves = together.into_iter().map(|((date, from, to), trays)| {
        let of = |field: fn(&crate::plan::Tray) -> &String| {
            let trays = trays.iter().map(|&i| field(&plan.trays[i]).clone());
            trays.collect::<Vec<String>>()
        };
        let labels = of(|tray| &tray.name);
        let headline = match &labels[..] {
            [one] => say!(
                "{tray} from {from} to {to}",
                tray = one,
                from = name(&from),
                to = name(&to)
            ),
            all => say!(
                "{n} trays ({trays}) from {from} to {to}",
                n = Quantity::Count.of(all.len() as f64),
                trays = all.join(", "),
                from = name(&from),
                to = name(&to)
            ),
        };
        Moves {
            date,
            trays: of(|tray| &tray.id),
            labels,
            from,
            to,
            headline,
        }
    });
    moves.collect()
}

#[cfg(test)]
mod tests {
    use super::moves;
    use crate::plan::Stage;
    use crate::testing::{kettle_fen, reckoned};

    #[test]
    fn trays_that_go_the_same_way_on_a_day_are_one_move() {
        let plan = kettle_fen(|_| ());
        let all = moves(&reckoned(&plan));
        assert!(all.iter().any(|own| own.trays.len() > 1));
        assert!(all.is_sorted_by_key(|own| own.date));
        for own in &all {
            assert_ne!(own.from, own.to);
            let stands = |id: &String| plan.trays.iter().find(|tray| tray.id == *id).unwrap();
            let there = |id| stands(id).stands.iter().any(|stand| stand.bay == own.to);
            assert!(own.trays.iter().all(there));
        }
        // Who stays where it came up is not carried.
        let stays = kettle_fen(|plan| {
            for tray in &mut plan.trays {
                tray.stands.retain(|stand| stand.stage == Stage::Germinate);
            }
        });
        assert_eq!(moves(&reckoned(&stays)), []);
    }
}
