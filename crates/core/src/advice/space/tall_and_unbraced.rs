//! Triggers when a rack is tall for its depth and not fixed, or sways for want of braces.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::place::PlaceView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::{Feet, place_pointer};

/// Height against depth over which shelving wants to be fixed (common practice, no source; the
/// figure that shelving makers' associations give, from memory).
const SLENDER: f64 = 4.0;
/// The height up to which a rack stands well enough without braces, in mm (common practice, no
/// source).
const LOW_MM: f64 = 1200.0;

pub(super) fn judge(view: &PlaceView<'_, '_>) -> Option<Finding> {
    let rack = view.place.rack()?;
    let load = &view.computed.load;
    let slender = load.slenderness > SLENDER;
    let sways = !rack.braced && view.place.height_mm > LOW_MM;
    if rack.wall_fixed || !(slender || sways) {
        return None;
    }
    let kind = place_pointer(view.index).at("kind").at("rack");
    let done = |label, word, field| Fix {
        label,
        word,
        patch: vec![PatchStep::replace(&kind.at(field), true)],
    };
    let name = &view.place.name;
    let mut fixes = vec![done(
        say!("Done: fixed to the wall"),
        say!("fixed {place} to the wall", place = name),
        "wall_fixed",
    )];
    let ratio = Quantity::Plain.of(load.slenderness);
    let lean = Quantity::AngleDeg.of(load.tips_at_deg);
    let reason = if slender && rack.feet == Feet::Castors {
        say!(
            "This rack is {ratio} times as tall as it is deep, and on wheels; loaded like this, a lean of {lean} tips it over.",
            ratio = ratio,
            lean = lean
        )
    } else if slender {
        say!(
            "This rack is {ratio} times as tall as it is deep; loaded like this, a lean of {lean} tips it over.",
            ratio = ratio,
            lean = lean
        )
    } else {
        fixes.push(done(
            say!("Done: braced"),
            say!("braced {place}", place = name),
            "braced",
        ));
        say!(
            "A rack {height} tall with no brace or back sways under wet trays. Level it first.",
            height = Quantity::LengthMm.of(view.place.height_mm)
        )
    };
    Some(Finding {
        fixes,
        ..Finding::of_place(
            view.place,
            DateSpan::day(view.date),
            Severity::Harm,
            if slender {
                say!("Fix {place} to the wall", place = name)
            } else {
                say!("Brace {place} or fix it to the wall", place = name)
            },
            reason,
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, one_rack, place, place_judged, rack};
    use jiff::civil::date;

    #[test]
    fn speaks_until_a_tall_rack_is_fixed() {
        let day = date(2027, 4, 9);
        let plan = one_rack(|plan| {
            rack(place(plan, "door")).wall_fixed = false;
            rack(place(plan, "door")).braced = false;
        });
        let finding = place_judged(&plan, day, judge).unwrap();
        assert_eq!(
            finding.fixes.len(),
            2,
            "fixing or bracing, 1900 mm on 610 mm"
        );
        assert_eq!(place_judged(&fixed(&plan, &finding), day, judge), None);
        let slender = one_rack(|plan| {
            rack(place(plan, "door")).wall_fixed = false;
            rack(place(plan, "door")).braced = true;
            place(plan, "door").depth_mm = 400.0;
            plan.trays.clear();
        });
        assert!(place_judged(&slender, day, judge).is_some());
    }
}
