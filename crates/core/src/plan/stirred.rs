//! Fans that turn and stir the air over other places than their own.

use crate::air::fan;
use crate::plan::document::Plan;
use crate::room::{Fan, Place};
use crate::space::floor::{FloorArea, outline};

/// What a place that stands between lets through, where air passes its shelves (our own estimate).
const THROUGH_A_PLACE: f64 = 0.5;

/// A fan that turns, and where it stands.
struct Turning<'a> {
    fan: &'a Fan,
    /// The index of its place.
    place: usize,
    at_mm: [f64; 2],
}

impl Plan {
    /// Sets for every place how fast the fans of others that turn stir the air over it.
    pub(super) fn stir_places(&mut self) {
        let areas: Vec<Option<FloorArea>> = self.places.iter().map(outline).collect();
        let speeds: Vec<f64> = (0..self.places.len())
            .map(|i| {
                let all = turning(&self.places, &areas);
                let others = all.iter().filter(|turning| turning.place != i);
                let reach = |turning: &Turning<'_>| stirred_m_s(&self.places, &areas, turning, i);
                others.map(reach).fold(0.0, f64::max)
            })
            .collect();
        for (place, speed) in self.places.iter_mut().zip(speeds) {
            place.stirred_m_s = speed;
        }
    }
}

fn turning<'a>(places: &'a [Place], areas: &[Option<FloorArea>]) -> Vec<Turning<'a>> {
    let mut all = Vec::new();
    for (i, (place, area)) in places.iter().zip(areas).enumerate() {
        let Some(area) = area else { continue };
        for (t, tier) in place.tiers.iter().enumerate() {
            // What is shut in stirs only what is shut in with it.
            let open = place.shares_air(t).is_none();
            for fan in tier.fans.iter().filter(|fan| fan.turns && open) {
                all.push(Turning {
                    fan,
                    place: i,
                    at_mm: area.middle_mm(),
                });
            }
        }
    }
    all
}

fn stirred_m_s(
    places: &[Place],
    areas: &[Option<FloorArea>],
    turning: &Turning<'_>,
    index: usize,
) -> f64 {
    let Some(area) = &areas[index] else {
        return 0.0;
    };
    let [x, y] = area.middle_mm();
    let distance_mm = (x - turning.at_mm[0]).hypot(y - turning.at_mm[1]);
    let Fan {
        diameter_mm,
        flow_m3_h,
        ..
    } = turning.fan;
    let free = fan::speed_m_s(*diameter_mm, *flow_m3_h, distance_mm);
    let between = |i: &usize| {
        let area = areas[*i].filter(|_| *i != index && *i != turning.place);
        area.is_some_and(|area| area.is_crossed_by(turning.at_mm, [x, y]))
    };
    let through = |i: usize| {
        let shut = places[i].shares_air(0).is_some();
        if shut { 0.0 } else { THROUGH_A_PLACE }
    };
    (0..places.len())
        .filter(between)
        .map(through)
        .fold(free, |speed, share| speed * share)
}

#[cfg(test)]
mod tests {
    use crate::plan::SoundPlan;
    use crate::testing::{kettle_fen, one_rack};

    /// The speed over the rack, with a stand fan that moves so much on the floor, and what stands between.
    fn over_rack(flow_m3_h: f64, turns: bool, between: bool) -> f64 {
        let plan: SoundPlan = one_rack(|plan| {
            plan.room.width_mm = 6000.0;
            plan.room.depth_mm = 4000.0;
            let rack = plan.places[0].clone();
            let spot = crate::room::Spot {
                x_mm: 0.0,
                y_mm: 500.0,
                faces: crate::room::Faces::Near,
            };
            let at = |id: &str, x_mm: f64| {
                let mut own = rack.clone();
                own.id = id.into();
                own.name = id.into();
                own.spot = Some(crate::room::Spot { x_mm, ..spot });
                own
            };
            let mut far = at("far", 4400.0);
            let mut fan = crate::room::shelf::library().fans[0].clone();
            (fan.turns, fan.flow_m3_h, fan.diameter_mm) = (turns, flow_m3_h, 300.0);
            far.tiers[0].fans = vec![fan];
            plan.places[0].spot = Some(crate::room::Spot { x_mm: 0.0, ..spot });
            plan.places.push(far);
            if between {
                plan.places.push(at("between", 2200.0));
            }
        });
        plan.places[0].stirred_m_s
    }

    #[test]
    fn a_fan_that_turns_reaches_other_racks_and_what_stands_between_takes_half() {
        assert_eq!(over_rack(2000.0, false, false), 0.0);
        let free = over_rack(2000.0, true, false);
        assert!(free > 0.3, "{free}");
        assert!(over_rack(300.0, true, false) < free);
        assert!((over_rack(2000.0, true, true) - free / 2.0).abs() < 1e-9);
    }

    #[test]
    fn no_fan_of_the_demo_turns() {
        assert!(
            kettle_fen(|_| ())
                .places
                .iter()
                .all(|p| p.stirred_m_s == 0.0)
        );
    }
}
