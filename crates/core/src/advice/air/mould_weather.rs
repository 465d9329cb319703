//! Triggers when seedlings stand in still, damp, mild air: mould and damping-off weather.

use crate::advice::finding::{Finding, Severity};
use crate::air::mould::MouldRisk;
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let up = view.standing.iter().find(|s| s.is_up())?;
    if view.bay.place.outdoors() {
        return None;
    }
    let air = view.air();
    if air.mould != MouldRisk::High {
        return None;
    }
    let place = &view.bay.place.name;
    Some(Finding {
        trays: vec![up.tray.id.clone()],
        source: OWN_ESTIMATE,
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            match view.fans().first() {
                Some(fan) => say!(
                    "Vent {place} and add a {across} fan at one end, moving {flow}",
                    place = place,
                    across = Quantity::LengthMm.of(fan.diameter_mm),
                    flow = Quantity::FlowM3H.of(fan.flow_m3_h)
                ),
                None => say!("Vent {place}", place = place),
            },
            say!(
                "The air is at {humidity} humidity and {at} and hardly moves, just right for grey mould and damping off. Water from below, in the morning.",
                humidity = Quantity::Share.of(air.humidity),
                at = Quantity::TemperatureC.of(air.day_c),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen, tier};
    use crate::room::Fan;
    use jiff::civil::date;

    #[test]
    fn damp_still_air_over_seedlings_is_named_and_a_fan_settles_it() {
        let day = date(2027, 4, 9);
        let said = |humidity, fan: bool| {
            let plan = kettle_fen(|plan| {
                plan.site.air.humidity = Some(humidity);
                let tier = &mut tier(plan, "door", "t1");
                tier.fans.clear();
                if fan {
                    let generic: &Fan = &crate::room::shelf::library().fans[0];
                    tier.fans.push(Fan {
                        flow_m3_h: 200.0,
                        ..generic.clone()
                    });
                }
            });
            judged(&plan, "t1", day, judge)
        };
        let finding = said(0.95, false).expect("mould weather");
        assert!(
            finding.headline.to_string().contains("fan"),
            "{}",
            finding.headline
        );
        assert_eq!(said(0.95, true), None);
        assert_eq!(said(0.45, false), None);
    }
}
