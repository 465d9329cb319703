//! Where one more tray could lie on a deck that is partly taken.

use crate::basis::plane::{Axis, Footprint};
use crate::basis::work::go_on;
use crate::space::decks::most_overhang_mm;

/// A spot on a deck, free for a tray of one size.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DeckSpot {
    /// Left edge on the deck.
    pub x_mm: f64,
    /// Front edge on the deck; negative where it sticks out at the front.
    pub y_mm: f64,
    /// Which way its length runs.
    pub along: Axis,
}

impl DeckSpot {
    /// The outline of a tray of `size_mm`, length and width, that lies here.
    pub fn footprint(&self, [length_mm, width_mm]: [f64; 2]) -> Footprint {
        let [x, y] = self.along.lay(length_mm, width_mm);
        Footprint {
            x_mm: [self.x_mm, self.x_mm + x],
            y_mm: [self.y_mm, self.y_mm + y],
        }
    }
}

/// The free spots for a tray of `size_mm` on a deck of `deck_mm`, both ways round, beside what is
/// `taken`: those that touch an edge or a neighbour at two sides, from the back left, those that
/// stick out at the front last. `near_mm`, a left and a front edge, gives the spot there too.
pub fn free_spots(
    deck_mm: [f64; 2],
    taken: &[Footprint],
    size_mm: [f64; 2],
    near_mm: Option<[f64; 2]>,
) -> Vec<DeckSpot> {
    const MOST: usize = 60;
    let mut spots = Vec::new();
    for along in [Axis::X, Axis::Y] {
        let size = along.lay(size_mm[0], size_mm[1]);
        let over_mm = size[1] - deck_mm[1];
        if size[0] > deck_mm[0] || over_mm > most_overhang_mm(size[1]) {
            continue;
        }
        // Against an edge of the deck, or of what lies there already.
        let edges = |axis: usize| {
            let (far, front) = ((deck_mm[axis] - size[axis]), over_mm.min(0.0));
            let lowest = if axis == 0 { 0.0 } else { far.min(0.0) };
            let of = |f: &Footprint| if axis == 0 { f.x_mm } else { f.y_mm };
            let beside = taken.iter().flat_map(|f| [of(f)[1], of(f)[0] - size[axis]]);
            let own = near_mm.map(|near| near[axis].clamp(lowest, far.max(lowest)));
            let all = [far, lowest, front.max(lowest)].into_iter();
            let mut all: Vec<f64> = all.chain(beside).chain(own).collect();
            all.retain(|at| (lowest - 1e-6..=far.max(lowest) + 1e-6).contains(at));
            all.sort_by(f64::total_cmp);
            all.dedup_by(|a, b| (*a - *b).abs() < 0.5);
            all
        };
        let (across, deep) = (edges(0), edges(1));
        for &y_mm in deep.iter().rev() {
            for &x_mm in &across {
                go_on();
                if spots.len() == MOST {
                    break;
                }
                let spot = DeckSpot { x_mm, y_mm, along };
                let outline = spot.footprint(size_mm);
                if !taken.iter().any(|t| t.overlaps(&outline)) {
                    spots.push(spot);
                }
            }
        }
    }
    spots.sort_by_key(|spot| spot.y_mm < -0.5);
    spots
}

#[cfg(test)]
mod tests {
    use super::*;

    const TRAY: [f64; 2] = [540.0, 280.0];

    #[test]
    fn an_empty_deck_offers_its_corners_both_ways_round() {
        let spots = free_spots([1220.0, 610.0], &[], TRAY, None);
        let at = |x: f64, y: f64, along| {
            spots.contains(&DeckSpot {
                x_mm: x,
                y_mm: y,
                along,
            })
        };
        assert!(at(0.0, 330.0, Axis::X) && at(680.0, 0.0, Axis::X));
        assert!(at(0.0, 70.0, Axis::Y) && at(940.0, 0.0, Axis::Y));
    }

    #[test]
    fn beside_three_trays_the_fourth_lies_against_them() {
        let lies = |n: f64| {
            DeckSpot {
                x_mm: n * 280.0,
                y_mm: 0.0,
                along: Axis::Y,
            }
            .footprint(TRAY)
        };
        let taken: Vec<Footprint> = (0..3).map(|n| lies(f64::from(n))).collect();
        let spots = free_spots([1120.0, 540.0], &taken, TRAY, None);
        assert_eq!(
            spots,
            [DeckSpot {
                x_mm: 840.0,
                y_mm: 0.0,
                along: Axis::Y
            }]
        );
        let full: Vec<Footprint> = (0..4).map(|n| lies(f64::from(n))).collect();
        assert_eq!(free_spots([1120.0, 540.0], &full, TRAY, None), []);
    }

    #[test]
    fn on_a_narrow_deck_one_sticks_out_last_and_never_too_far() {
        let narrow = free_spots([1220.0, 457.0], &[], TRAY, None);
        assert_eq!(narrow[0].along, Axis::X);
        let last = narrow.last().unwrap();
        assert_eq!((last.along, last.y_mm), (Axis::Y, -83.0));
        let sill = free_spots([1220.0, 200.0], &[], TRAY, None);
        assert!(sill.iter().all(|spot| spot.along == Axis::X), "{sill:?}");
        assert_eq!(free_spots([250.0, 150.0], &[], TRAY, None), []);
    }

    #[test]
    fn a_hand_in_the_middle_of_a_free_deck_gets_that_very_spot() {
        let spots = free_spots([1220.0, 610.0], &[], TRAY, Some([300.0, 40.0]));
        let here = DeckSpot {
            x_mm: 300.0,
            y_mm: 40.0,
            along: Axis::X,
        };
        assert!(spots.contains(&here), "{spots:?}");
    }
}
