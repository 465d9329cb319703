//! Which trays stand beside each other, and what the tall leave of the light on the low.

use std::collections::BTreeMap;

use crate::basis::dates::DateSpan;
use crate::basis::plane::Footprint;
use crate::growth::leaves;
use crate::plan::{SoundPlan, Stand};
use crate::room::BayRef;

/// Farther off, what stands there takes no light worth counting.
const NEAR_MM: f64 = 300.0;

/// A tray at one of its spots, beside another.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Neighbour {
    /// The tray in the plan.
    tray: usize,
    /// Which of its spots.
    spot: usize,
    /// From its edge to that of the one it is beside.
    apart_mm: f64,
    /// How deep the one behind that edge is.
    depth_mm: f64,
    /// The share of its side that the other stands along, 0 to 1.
    along: f64,
}

/// What stands beside each tray at each of its spots.
#[derive(Debug, Default)]
pub(super) struct Beside(Vec<Vec<Vec<Neighbour>>>);

impl Beside {
    /// Of all trays, whose `spots` are in the plan's order.
    pub(super) fn all(plan: &SoundPlan, spots: &[&[(&Stand, DateSpan)]]) -> Self {
        let mut in_bays: BTreeMap<&BayRef, Vec<(usize, usize, Footprint, DateSpan)>> =
            BTreeMap::new();
        for (tray, own) in spots.iter().enumerate() {
            let format = plan.format(&plan.trays[tray]);
            for (spot, (stand, days)) in own.iter().enumerate() {
                let here = in_bays.entry(&stand.bay).or_default();
                here.push((tray, spot, stand.footprint(format), *days));
            }
        }
        let none = |own: &&[(&Stand, DateSpan)]| vec![Vec::new(); own.len()];
        let mut all = Self(spots.iter().map(none).collect());
        for here in in_bays.values() {
            for (i, (tray, spot, outline, days)) in here.iter().enumerate() {
                let others = here.iter().enumerate().filter(|(j, _)| *j != i);
                for (_, (other, at, beside, their_days)) in others {
                    let meet = days.meets(*their_days) && tray != other;
                    let near = side(outline, beside).filter(|_| meet);
                    let near = near.map(|[apart_mm, depth_mm, along]| Neighbour {
                        tray: *other,
                        spot: *at,
                        apart_mm,
                        depth_mm,
                        along,
                    });
                    all.0[*tray][*spot].extend(near);
                }
            }
        }
        all
    }

    /// What stands beside the tray at `tray` in the plan at its spot `spot`, some time or other.
    pub(super) fn of(&self, tray: usize, spot: usize) -> &[Neighbour] {
        &self.0[tray][spot]
    }

    /// What the trays `beside` leave of the light on plants whose tops are `top_mm` over the deck and
    /// `own_mm` over the rim, in the mean of their tray, 0 to 1. `tall` says how high over the deck the
    /// plants of a tray stand while it is at a spot.
    pub(super) fn unshaded(
        beside: &[Neighbour],
        tall: impl Fn(usize, usize) -> Option<f64>,
        top_mm: f64,
        own_mm: f64,
    ) -> f64 {
        let taken = beside.iter().filter_map(|near| {
            let over_mm = tall(near.tray, near.spot)? - top_mm;
            let depth = leaves::shaded_mm(over_mm, near.apart_mm).min(near.depth_mm);
            let share = near.along * depth / near.depth_mm.max(1.0);
            Some(share * (1.0 - leaves::unshaded(over_mm, own_mm)))
        });
        (1.0 - taken.sum::<f64>()).max(leaves::LEAST_UNSHADED)
    }
}

/// How far `other` is from the side of `own` that it stands along, how deep `own` is behind that side,
/// and the share of it that `other` stands along; `None` where it stands along none, or far off.
fn side(own: &Footprint, other: &Footprint) -> Option<[f64; 3]> {
    let [x, y] = own.apart_mm(other);
    let long = |edge: [f64; 2]| edge[1] - edge[0];
    let (apart, depth, along) = if x > y {
        (x, long(own.x_mm), -y / long(own.y_mm).max(1.0))
    } else {
        (y, long(own.y_mm), -x / long(own.x_mm).max(1.0))
    };
    let beside = along > 0.0 && apart < NEAR_MM;
    beside.then(|| [apart.max(0.0), depth, along.min(1.0)])
}

#[cfg(test)]
mod tests {
    use super::*;

    fn tray(x: f64, y: f64) -> Footprint {
        Footprint {
            x_mm: [x, x + 280.0],
            y_mm: [y, y + 540.0],
        }
    }

    #[test]
    fn it_stands_along_the_side_that_it_faces_and_nothing_at_a_corner_or_far_off() {
        let own = tray(0.0, 0.0);
        assert_eq!(side(&own, &tray(290.0, 0.0)), Some([10.0, 280.0, 1.0]));
        assert_eq!(side(&own, &tray(-300.0, 270.0)), Some([20.0, 280.0, 0.5]));
        assert_eq!(side(&own, &tray(0.0, 560.0)), Some([20.0, 540.0, 1.0]));
        assert_eq!(side(&own, &tray(300.0, 560.0)), None);
        assert_eq!(side(&own, &tray(600.0, 0.0)), None);
    }

    #[test]
    fn only_what_is_taller_shades_and_the_more_the_nearer_and_the_taller() {
        let near = |apart_mm| Neighbour {
            tray: 0,
            spot: 0,
            apart_mm,
            depth_mm: 280.0,
            along: 1.0,
        };
        let left = |apart, tall| Beside::unshaded(&[near(apart)], |_, _| Some(tall), 100.0, 40.0);
        assert_eq!(left(10.0, 90.0), 1.0);
        assert!(left(10.0, 300.0) < left(10.0, 200.0) && left(10.0, 200.0) < left(60.0, 200.0));
        // Only the nearest rows of it stand in the shade of one a hand taller.
        let hand = left(10.0, 200.0);
        assert!((0.8..0.95).contains(&hand), "{hand}");
        let both = Beside::unshaded(&[near(0.0), near(0.0)], |_, _| Some(900.0), 100.0, 40.0);
        assert!((both - leaves::LEAST_UNSHADED).abs() < 1e-9);
    }
}
