//! Triggers when a bay has a fan and the leaves at its far end do not stir.

use crate::advice::finding::{Finding, Severity};
use crate::air::fan;
use crate::air::mould::STILL_UNDER_M_S;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let grows = view.standing.iter().any(Standing::is_up);
    let fan = view.bay.tier.fans.first().filter(|_| grows)?;
    let air = view.air();
    if air.far_end_m_s >= STILL_UNDER_M_S {
        return None;
    }
    let choices = view.fans();
    let choice = choices.first()?;
    let mm = |mm: f64| Quantity::LengthMm.of(mm);
    Some(Finding {
        source: fan::SOURCE,
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Put a {across} fan moving {flow} at one end of {bay}",
                bay = view.bay.name(),
                across = mm(choice.diameter_mm),
                flow = Quantity::FlowM3H.of(choice.flow_m3_h)
            ),
            say!(
                "{fan} reaches {reach}. At the far end the air moves at {speed}, too little for dry leaves and sturdy stems.",
                fan = &fan.name,
                reach = mm(fan::reach_mm(
                    fan.diameter_mm,
                    fan.flow_m3_h,
                    STILL_UNDER_M_S
                )),
                speed = Quantity::SpeedMS.of(air.far_end_m_s),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen, tier};
    use jiff::civil::date;

    #[test]
    fn a_weak_fan_is_named_and_no_fan_at_all_is_not() {
        let day = date(2027, 4, 9);
        let said = |flow: Option<f64>| {
            let plan = kettle_fen(|plan| {
                let fans = &mut tier(plan, "door", "t1").fans;
                fans.clear();
                if let Some(flow_m3_h) = flow {
                    let generic = crate::room::shelf::library().fans[0].clone();
                    fans.push(crate::room::Fan {
                        flow_m3_h,
                        ..generic
                    });
                }
            });
            judged(&plan, "t1", day, judge)
        };
        assert!(said(Some(15.0)).is_some());
        assert_eq!(said(Some(300.0)), None);
        assert_eq!(said(None), None);
    }
}
