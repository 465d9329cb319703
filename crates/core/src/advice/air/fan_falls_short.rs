//! Triggers when a bay has a fan and the leaves at its far end do not stir.

use crate::advice::finding::{Finding, Severity};
use crate::air::fan;
use crate::air::mould::STILL_UNDER_M_S;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::bays;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if !view.standing.iter().any(Standing::is_up) {
        return None;
    }
    let air = view.air();
    if air.far_end_m_s >= STILL_UNDER_M_S {
        return None;
    }
    let Some(fan) = view.bay.tier.fans.first() else {
        return out_of_reach(view);
    };
    if let Some(finding) = turn_it_up(view) {
        return Some(finding);
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

/// A faster speed of a fan that is there, where that is enough.
fn turn_it_up(view: &BayView<'_>) -> Option<Finding> {
    let tier = view.bay.tier;
    let width_mm = view.bay.place.width_mm;
    let (i, fan, flow) = tier.fans.iter().enumerate().find_map(|(i, fan)| {
        let enough = |flow: &&f64| fan::at_far_end_m_s(fan, **flow, width_mm) >= STILL_UNDER_M_S;
        let faster = fan.speeds_m3_h.iter().filter(enough);
        Some((i, fan, *faster.min_by(|a, b| a.total_cmp(b))?))
    })?;
    let to = Quantity::FlowM3H.of(flow);
    let at = view.bay.pointer().at("fans").at(i).at("flow_m3_h");
    Some(Finding {
        source: fan::SOURCE,
        fixes: vec![Fix {
            label: say!("Set it to {to}", to = to.clone()),
            word: say!("set {fan} to {to}", fan = &fan.name, to = to.clone()),
            patch: vec![PatchStep::replace(&at, flow)],
        }],
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!("Turn {fan} up to {to}", fan = &fan.name, to = to),
            say!(
                "At the far end the air moves at {speed}, too little for dry leaves and sturdy stems.",
                speed = Quantity::SpeedMS.of(view.air().far_end_m_s),
            ),
        )
    })
}

/// A fan that turns for the whole room and does not reach this part of it. Who has none at all is not told: a
/// draught does in many rooms.
fn out_of_reach(view: &BayView<'_>) -> Option<Finding> {
    let shut = view.closed.is_some() || view.bay.place.outdoors();
    let turning = |bay: &crate::room::Bay<'_>| bay.tier.fans.iter().any(|fan| fan.turns);
    let bay = bays(&view.plan.places).find(turning)?;
    let fan = bay.tier.fans.iter().find(|fan| fan.turns)?;
    let here = view.bay.place;
    if shut || here.stirred_m_s >= STILL_UNDER_M_S || here.spot_here().is_none() {
        return None;
    }
    Some(Finding {
        source: fan::SOURCE,
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Stand {fan} where its air reaches {place}",
                fan = &fan.name,
                place = &here.name
            ),
            say!(
                "From {from} it stirs the air here at {speed}; leaves want {least}. It is too far away, or something stands between.",
                from = &bay.place.name,
                speed = Quantity::SpeedMS.of(here.stirred_m_s),
                least = Quantity::SpeedMS.of(STILL_UNDER_M_S),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, kettle_fen, tier};
    use jiff::civil::date;

    #[test]
    fn a_fan_that_turns_and_does_not_reach_a_rack_is_to_be_moved() {
        let day = date(2027, 4, 9);
        let said = |flow_m3_h: f64| {
            let plan = kettle_fen(|plan| {
                tier(plan, "door", "t1").fans.clear();
                let generic = crate::room::shelf::library().fans[0].clone();
                let bench = plan.places.iter_mut().find(|p| p.id == "bench").unwrap();
                bench.tiers[0].fans = vec![crate::room::Fan {
                    turns: true,
                    flow_m3_h,
                    ..generic
                }];
            });
            judged(&plan, "t1", day, judge)
        };
        let weak = said(30.0).expect("a finding");
        assert!(weak.headline.to_string().starts_with("Stand "));
        assert_eq!(said(4000.0), None);
    }

    #[test]
    fn a_fan_with_a_faster_speed_is_turned_up_and_one_on_two_shelves_counts_half() {
        let day = date(2027, 4, 9);
        let plan = |change: fn(&mut crate::room::Fan)| {
            kettle_fen(|plan| {
                let fans = &mut tier(plan, "door", "t1").fans;
                *fans = vec![crate::room::shelf::library().fans[0].clone()];
                fans[0].flow_m3_h = 15.0;
                change(&mut fans[0]);
            })
        };
        let slow = plan(|fan| fan.speeds_m3_h = vec![20.0, 300.0, 600.0]);
        let finding = judged(&slow, "t1", day, judge).expect("a finding");
        assert!(finding.headline.to_string().starts_with("Turn "));
        assert_eq!(judged(&fixed(&slow, &finding), "t1", day, judge), None);
        let two = plan(|fan| {
            fan.flow_m3_h = 300.0;
            fan.by_turns = vec!["t2".into()];
        });
        let one = plan(|fan| fan.flow_m3_h = 300.0);
        let speed = |plan: &crate::plan::SoundPlan, tier| {
            crate::air::fan::far_end_m_s(&plan.places[0], tier)
        };
        assert!((speed(&two, 0) - speed(&one, 0) / 2.0).abs() < 1e-9);
        assert!(speed(&two, 1) >= speed(&two, 0) - 1e-9);
    }

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
