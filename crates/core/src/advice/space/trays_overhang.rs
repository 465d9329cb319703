//! Triggers when a tray sticks out over the edge of its deck.

use crate::advice::finding::{Finding, Severity};
use crate::basis::plane::Footprint;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::place_pointer;

/// Less than this is a rim, in mm.
const FORGIVEN_MM: f64 = 8.0;

/// How far `footprint` sticks out at the left, right, front and back.
fn over_mm(footprint: &Footprint, deck: [f64; 2]) -> [f64; 4] {
    let Footprint { x_mm, y_mm } = footprint;
    [-x_mm[0], x_mm[1] - deck[0], -y_mm[0], y_mm[1] - deck[1]]
}

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let place = view.bay.place;
    if place.overhang_accepted {
        return None;
    }
    let deck = [place.width_mm, place.depth_mm];
    let far = |s: &Standing<'_>| {
        let over = over_mm(&s.footprint, deck);
        over.into_iter().fold(0.0, f64::max)
    };
    let out: Vec<&Standing<'_>> = view
        .standing
        .iter()
        .filter(|s| far(s) > FORGIVEN_MM)
        .collect();
    let worst = out.iter().map(|s| far(s)).reduce(f64::max)?;
    let mm = |value: f64| Quantity::LengthMm.of(value);
    let deep = out
        .iter()
        .map(|s| s.footprint.y_mm[1] - s.footprint.y_mm[0] - deck[1]);
    let total = deep.fold(0.0, f64::max);
    let names: Vec<&str> = out.iter().map(|s| s.tray.name.as_str()).collect();
    let reason = if total > FORGIVEN_MM {
        say!(
            "{trays} are {total} deeper than the shelf and stick out by up to {worst}: easily knocked, and wet rims sag. Split the overhang between front and back.",
            trays = names.join(", "),
            total = mm(total),
            worst = mm(worst),
        )
    } else {
        say!(
            "{trays} stick out by {worst} at the most: easily knocked off.",
            trays = names.join(", "),
            worst = mm(worst),
        )
    };
    let accepted = place_pointer(view.bay.place_index).at("overhang_accepted");
    Some(Finding {
        fixes: vec![Fix {
            label: say!("Let trays stick out here"),
            word: say!("trays of {place} may stick out", place = &place.name),
            patch: vec![PatchStep::set(&accepted, true)],
        }],
        trays: out.iter().map(|s| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Lay a board under the trays of {bay}, or turn them",
                bay = view.bay.name()
            ),
            reason,
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, place};
    use jiff::civil::date;

    #[test]
    fn crosswise_trays_on_a_narrow_deck_overhang_by_83_mm() {
        let day = date(2027, 3, 31);
        assert_eq!(judged(&one_rack(|_| ()), "t4", day, judge), None);
        let plan = one_rack(|plan| {
            place(plan, "door").depth_mm = 457.0;
            for lamp in place(plan, "door")
                .tiers
                .iter_mut()
                .flat_map(|t| &mut t.lamps)
            {
                lamp.y_mm = lamp.y_mm.min(400.0);
            }
            for stand in plan.trays.iter_mut().flat_map(|t| &mut t.stands) {
                stand.y_mm = 0.0;
            }
        });
        let finding = judged(&plan, "t4", day, judge).unwrap();
        assert!(
            finding.reason.to_string().contains("83 mm deeper"),
            "{}",
            finding.reason
        );
    }
}
