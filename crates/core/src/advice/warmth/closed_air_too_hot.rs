//! Triggers when the air of a chamber, a shut closet or a bay behind film passes its limit.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let air = view.closed.as_ref().filter(|air| air.day.overheats)?;
    // Said once, of the hottest shelf.
    let shelves = air.day.shelves.iter().enumerate();
    let (hottest, shelf) = shelves.max_by(|a, b| a.1.most_c.total_cmp(&b.1.most_c))?;
    if air.first_tier + hottest != view.bay.tier_index {
        return None;
    }
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    let (headline, then) = match air.day.helps.first() {
        Some(help) => (help.what.clone(), help.most_c),
        None => (
            say!("Open {place}", place = &view.bay.place.name),
            shelf.least_c,
        ),
    };
    Some(Finding {
        source: OWN_ESTIMATE,
        ..Finding::of_bay(
            view,
            Severity::Harm,
            headline,
            say!(
                "The air inside reaches {most}, past the limit of {limit}, and cooks seed and seedlings. This brings it down to {then}.",
                most = celsius(shelf.most_c),
                limit = celsius(air.limit_c),
                then = celsius(then),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen, tier};
    use crate::basis::dates::plus_days;
    use crate::room::Side;
    use crate::season;
    use jiff::civil::date;

    #[test]
    fn foil_all_round_mats_without_a_thermostat_overheats() {
        let boxed = |thermostat_c, watts| {
            let plan = kettle_fen(|plan| {
                plan.site.air.day_c = 22.0;
                plan.site.air.night_c = 20.0;
                let tier = &mut tier(plan, "door", "t3");
                for side in [
                    &mut tier.sides.left,
                    &mut tier.sides.right,
                    &mut tier.sides.back,
                    &mut tier.sides.front,
                ] {
                    *side = Side::Foil;
                }
                for mat in &mut tier.mats {
                    mat.thermostat_c = thermostat_c;
                    mat.watts = watts;
                }
            });
            // A warm room hurries all: peppers germinate later then.
            let dates = season::dates(&plan);
            let pepper = dates.iter().find(|d| d.sowing == "pepper").unwrap();
            judged(&plan, "t3", plus_days(pepper.sow, 2), judge)
        };
        let finding = boxed(None, 250.0).expect("it overheats");
        assert!(
            finding.headline.to_string().contains("vent")
                || finding.headline.to_string().contains("thermostat"),
            "{}",
            finding.headline
        );
        assert_eq!(boxed(Some(24.0), 250.0), None);
        let day = date(2027, 3, 20);
        assert_eq!(judged(&kettle_fen(|_| ()), "t3", day, judge), None);
    }
}
