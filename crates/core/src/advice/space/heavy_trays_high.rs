//! Triggers when the heaviest load stands high on a rack and a lighter one below it.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::place::PlaceView;

/// A difference that is worth carrying trays for, in kg (our own estimate).
const WORTH_IT_KG: f64 = 8.0;

pub(super) fn judge(view: &PlaceView<'_, '_>) -> Option<Finding> {
    view.place.rack()?;
    let load = &view.computed.load;
    // With the centre in the lower half there is nothing to gain.
    if load.centre_mm <= view.place.height_mm / 2.0 {
        return None;
    }
    let kg = |i: &usize| view.bays[*i].computed.load.watered_kg;
    let usable: Vec<usize> = (0..view.bays.len())
        .filter(|i| !view.bays[*i].bay.tier.storage)
        .collect();
    let heavy = usable
        .iter()
        .copied()
        .max_by(|a, b| kg(a).total_cmp(&kg(b)))?;
    let light = usable
        .iter()
        .copied()
        .filter(|i| *i < heavy)
        .min_by(|a, b| kg(a).total_cmp(&kg(b)))?;
    if kg(&heavy) - kg(&light) < WORTH_IT_KG {
        return None;
    }
    let name = |i: usize| view.bays[i].bay.tier.name.clone();
    Some(Finding::of_place(
        view.place,
        DateSpan::day(view.date),
        Severity::Advice,
        say!(
            "Move heavy trays in {place} from {heavy} down to {light}",
            place = &view.place.name,
            heavy = name(heavy),
            light = name(light),
        ),
        say!(
            "{heavy} carries {heavy_kg} and {light} only {light_kg}. The weight sits {centre} up, and a lean of {lean} tips the rack.",
            heavy = &view.bays[heavy].bay.tier.name,
            heavy_kg = Quantity::MassKg.of(kg(&heavy)),
            light = name(light),
            light_kg = Quantity::MassKg.of(kg(&light)),
            centre = Quantity::LengthMm.of(load.centre_mm),
            lean = Quantity::AngleDeg.of(load.tips_at_deg),
        ),
    ))
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{one_rack, place_judged};
    use jiff::civil::date;

    #[test]
    fn speaks_of_a_rack_that_is_loaded_from_the_top() {
        let day = date(2027, 5, 4);
        assert_eq!(place_judged(&one_rack(|_| ()), day, judge), None);
        let plan = one_rack(|plan| {
            for stand in plan.trays.iter_mut().flat_map(|tray| &mut tray.stands) {
                if stand.bay.place == "door" {
                    stand.bay.tier = "t4".into();
                }
            }
        });
        assert!(place_judged(&plan, day, judge).is_some());
    }
}
