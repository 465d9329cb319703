//! Triggers when a heat mat without a thermostat lies in a bay that film closes on all sides.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::room::Side;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let tier = view.bay.tier;
    let sides = tier.sides;
    let around = [sides.left, sides.right, sides.front, sides.back];
    let film = |side: &Side| matches!(side, Side::Foil | Side::Curtain);
    let mat = tier.mats.iter().find(|mat| mat.thermostat_c.is_none())?;
    if !around.iter().all(film) {
        return None;
    }
    // What the box comes to is computed while something germinates in it.
    let air_c = view.shelf_air()?.most_c;
    let on_mat = view
        .computed
        .roots()
        .iter()
        .filter(|roots| roots.mat.is_some());
    let mix_c = on_mat.map(|roots| roots.day.most_c).reduce(f64::max)?;
    if air_c < CLOSE_C && mix_c < COOKS_C {
        return None;
    }
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    Some(Finding::of_bay(
        view,
        if mix_c >= COOKS_C {
            Severity::Harm
        } else {
            Severity::Advice
        },
        say!("Put a thermostat on {mat}, or open a side", mat = &mat.name),
        say!(
            "With film on every side and no thermostat the air reaches {air} and the mix {mix}; on a warm day both go higher. Cut vents top and bottom as well.",
            air = celsius(air_c),
            mix = celsius(mix_c),
        ),
    ))
}

/// Mix this warm cooks most seed (our own estimate).
const COOKS_C: f64 = 35.0;
/// Air this warm has little left to the 30 °C that seedlings stand (our own estimate).
const CLOSE_C: f64 = 28.0;

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen, tier};
    use crate::room::Side;
    use jiff::civil::date;

    #[test]
    fn a_thermostat_or_an_open_side_settles_it() {
        let day = date(2027, 3, 20);
        let boxed = |thermostat_c, front| {
            let plan = kettle_fen(|plan| {
                let tier = &mut tier(plan, "door", "t3");
                for side in [
                    &mut tier.sides.left,
                    &mut tier.sides.right,
                    &mut tier.sides.back,
                ] {
                    *side = Side::Foil;
                }
                tier.sides.front = front;
                tier.mats
                    .iter_mut()
                    .for_each(|mat| mat.thermostat_c = thermostat_c);
            });
            judged(&plan, "t3", day, judge)
        };
        assert!(boxed(None, Side::Foil).is_some());
        assert_eq!(boxed(Some(24.0), Side::Foil), None);
        assert_eq!(boxed(None, Side::Open), None);
    }
}
