//! What a form has to know of its fields before anyone types: what they begin with, and what they can
//! be.

use std::sync::LazyLock;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::clock::ClockSpan;
use crate::basis::range::Ranges;
use crate::plan::Plan;
use crate::plan::starts::Starts;
use crate::room::Adjust;
use crate::site::CheapHours;
use crate::site::minima::Understanding;

/// What forms begin with and allow.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Forms {
    /// Starting values.
    pub starts: Starts,
    /// Ranges of the plan's figures by their path; those of the calculators under `/calc/seeds` and
    /// `/calc/frost`.
    pub ranges: Ranges,
}

/// What forms begin with and allow.
pub fn forms() -> &'static Forms {
    static FORMS: LazyLock<Forms> = LazyLock::new(|| {
        let starts = Starts::usual();
        let mut ranges = Ranges::default();
        for adjust in [
            Adjust::Chain(starts.chain),
            Adjust::Boxes(starts.boxes.clone()),
        ] {
            ranges.extend("", one_of_each(&starts, &adjust).ranges());
        }
        ranges.extend("/calc/seeds", starts.want.ranges());
        ranges.extend("/calc/frost", Understanding::default().ranges());
        Forms { starts, ranges }
    });
    &FORMS
}

/// A document that has every figure that one can have: the demo, and what it leaves out.
fn one_of_each(starts: &Starts, adjust: &Adjust) -> Plan {
    let demo = include_str!("../../../../demo/kettle-fen.json");
    let mut plan: Plan = serde_json::from_str(demo).expect("the demo reads");
    let site = &mut plan.site;
    site.air.humidity.get_or_insert(0.5);
    site.of_cloudless.get_or_insert(0.5);
    site.quiet = Some(starts.night);
    site.cheap = Some(CheapHours {
        hours: ClockSpan { ..starts.night },
        price_per_kwh: site.price_per_kwh,
    });
    for tier in plan.places.iter_mut().flat_map(|place| &mut place.tiers) {
        tier.adjust = Some(adjust.clone());
        tier.lights_on_h.get_or_insert(6.0);
        for lamp in &mut tier.lamps {
            lamp.dimmer = starts.dimmers.first().cloned();
            lamp.ageing = Some(starts.ageing);
        }
        for mat in &mut tier.mats {
            mat.thermostat_c.get_or_insert(24.0);
            mat.hysteresis_k.get_or_insert(1.0);
            mat.dial_error_k.get_or_insert(0.5);
            mat.pad_mm.get_or_insert(10.0);
        }
    }
    for sowing in &mut plan.sowings {
        sowing.root_zone_c.get_or_insert(20.0);
        sowing.packet_weeks.get_or_insert(8.0);
        sowing.spare.get_or_insert(0.1);
        sowing.sure.get_or_insert(0.9);
        sowing.seeds_per_cell.get_or_insert(2);
        sowing.pot_on_later_days.get_or_insert(7);
        sowing.differs.height_out_mm.get_or_insert(150.0);
    }
    for format in &mut plan.tray_formats {
        format.dome_height_mm.get_or_insert(60.0);
    }
    let library = crate::crops::library();
    plan.crops.extend(library.crops.first().cloned());
    plan
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ranges_are_those_that_a_plan_is_checked_by() {
        let of = |path: &str| {
            let range = forms().ranges.of(path);
            range.map(|range| (range.least, range.most))
        };
        assert_eq!(of("/site/mains_v"), Some((90.0, 260.0)));
        assert_eq!(of("/places/3/tiers/0/photoperiod_h"), Some((0.0, 24.0)));
        assert_eq!(of("/calc/seeds/losses"), Some((0.0, 0.95)));
        for path in [
            "/site/cheap/price_per_kwh",
            "/places/*/width_mm",
            "/places/*/tiers/*/lamps/*/ageing/l70_h",
            "/places/*/tiers/*/adjust/chain/link_mm",
            "/places/*/tiers/*/mats/*/pad_mm",
            "/calc/frost/threshold_c",
            "/crops/*/losses",
        ] {
            assert!(of(path).is_some(), "{path}");
        }
    }
}
