//! Triggers when the lamps cannot reach the seedlings' band at any height and hours.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::lamps::bands::STRETCHES_UNDER_MOL_M2_D;
use crate::lamps::chooser::WORTH_OF_MEAN;

/// More lamps than these are not what is wanted, but stronger ones.
const MOST_LAMPS: f64 = 12.0;

/// The mean daily light that the lamps give at their brightest, and what seedlings need at least, where
/// it falls clearly short, in mol/m²/d.
pub(super) fn short_of(view: &BayView<'_>) -> Option<[f64; 2]> {
    let best = view.computed.hang.as_ref()?.brightest_mol_m2_d?;
    let low = view.computed.light.as_ref()?.target?.low;
    (best < (1.0 - WORTH_OF_MEAN) * low).then_some([best, low])
}

/// How grave a mean of `daily` mol/m²/d is: seedlings stretch, or are only slow.
pub(super) fn dark(daily: f64) -> Severity {
    if daily < STRETCHES_UNDER_MOL_M2_D {
        Severity::Conflict
    } else {
        Severity::Advice
    }
}

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let [best, low] = short_of(view)?;
    let light = view.computed.light.as_ref()?;
    let high = light.target?.high;
    let lamps = view.bay.tier.lamps.len() as f64;
    // Light adds up lamp by lamp, so the shortfall says how many of the same kind are missing.
    let own = best - light.daylight_mol_m2_d - light.from_above_mol_m2_d;
    let missing = (lamps * (low - best) / own.max(0.01)).ceil();
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let reason = if view.bay.place.has_daylight() {
        say!(
            "With {day} of daylight on an average day and the lamps at their brightest these seedlings average {best}; they need {low} to {high}.",
            day = dli(light.daylight_mol_m2_d),
            best = dli(best),
            low = dli(low),
            high = dli(high),
        )
    } else {
        say!(
            "At their brightest these lamps average {best}; the seedlings here need {low} to {high}.",
            best = dli(best),
            low = dli(low),
            high = dli(high),
        )
    };
    Some(Finding {
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        source: crate::crops::library().source("dli_low_mol_m2_d"),
        ..Finding::of_bay(
            view,
            dark(best),
            if missing <= 1.0 {
                say!("Add one more lamp like these")
            } else if missing <= MOST_LAMPS {
                say!(
                    "Add {lamps} lamps like these",
                    lamps = Quantity::Count.of(missing)
                )
            } else {
                say!("Fit stronger lamps here")
            },
            reason,
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn weak_lamps_are_told_apart_from_badly_hung_ones() {
        let day = date(2027, 4, 9);
        let plan = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.flux_lm /= 6.0;
            }
        });
        assert!(judged(&plan, "t2", day, judge).is_some());
        let high = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.height_mm = 300.0;
            }
        });
        assert_eq!(judged(&high, "t2", day, judge), None);
    }
}
