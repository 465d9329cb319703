//! Triggers when seed is to germinate in mix so warm that much of it sleeps: lettuce in August.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::crops::GrownFrom;

/// Less than this share of good seed coming up is too little to sow for (our own estimate).
const TOO_FEW: f64 = 0.6;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let (dates, crop) = (view.dates, view.crop);
    let warm = dates.root_zone_c > crop.root_zone_c;
    // A bed that is chosen by a thermometer is told where that stands.
    let skip =
        view.sowing.stays.is_some() || view.sowing.sown || crop.grown_from != GrownFrom::Seed;
    if skip || !warm || dates.comes_up >= TOO_FEW {
        return None;
    }
    let here = Quantity::TemperatureC.of(dates.root_zone_c);
    let best = Quantity::TemperatureC.of(crop.root_zone_c);
    Some(Finding {
        source: crop.source("emergence"),
        ..view.finding(
            Severity::Conflict,
            DateSpan {
                from: dates.sow,
                to: dates.harden,
            },
            say!(
                "Germinate {name} somewhere cooler than {here}",
                name = &dates.name,
                here = here.clone()
            ),
            say!(
                "So warm only {share} of good seed comes up; the rest sleeps. At {best} nearly all does: a cellar, the north side of the house, sown in the evening and watered with cold water; once up they may stand warm.",
                share = Quantity::Share.of(dates.comes_up),
                best = best,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing};
    use jiff::civil::date;

    #[test]
    fn lettuce_for_the_autumn_sleeps_in_a_hot_room_and_comes_up_in_a_cool_one() {
        let code = "too_warm_for_seed";
        let august = |day_c: f64| {
            kettle_fen(|plan| {
                plan.season.to = date(2027, 10, 31);
                let mut own = crate::plan::Sowing::plain("late", "lettuce", "", 12);
                own.autumn = true;
                plan.sowings.push(own);
                plan.site.air_from.push(
                    serde_json::from_value(serde_json::json!({
                        "from": "2027-07-01", "air": { "day_c": day_c, "night_c": day_c - 2.0 }
                    }))
                    .expect("air"),
                );
            })
        };
        assert!(of_sowing(&august(31.0), "late", code).is_some());
        assert_eq!(of_sowing(&august(20.0), "late", code), None);
        assert_eq!(of_sowing(&august(31.0), "lettuce", code), None);
    }
}
