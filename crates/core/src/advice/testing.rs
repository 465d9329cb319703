//! Plans, changed at will, for the judgements' own tests.

use jiff::civil::Date;

use crate::advice::finding::Finding;
use crate::advice::list;
use crate::day::detail::Detail;
use crate::day::place::{PlaceView, PlaceViews};
use crate::day::view::{BayView, Looker};
use crate::plan::patch::patched;
use crate::plan::{Plan, SoundPlan};
use crate::season::Reckoned;
pub use crate::testing::*;

/// What `code` says of `sowing`.
pub fn of_sowing(plan: &SoundPlan, sowing: &str, code: &str) -> Option<Finding> {
    let mut found = list::on_plan(&reckoned(plan)).into_iter();
    found.find(|f| f.code == code && f.sowing.as_deref() == Some(sowing))
}

/// What `judge` says of the plan as a whole.
pub fn plan_judged(plan: &SoundPlan, judge: fn(&Reckoned<'_>) -> Vec<Finding>) -> Vec<Finding> {
    judge(&reckoned(plan))
}

/// What `judge` says of the tier called `id` of the rack by the door on `date`.
pub fn judged(
    plan: &SoundPlan,
    id: &str,
    date: Date,
    judge: fn(&BayView<'_>) -> Option<Finding>,
) -> Option<Finding> {
    let reckoned = reckoned(plan);
    let bay = plan.bay(&bay("door", id)).expect(id);
    let bays = Looker::new(&reckoned, Detail::All).look(bay.place_index, date);
    judge(&bays[bay.tier_index])
}

/// What `judge` says of the first place on `date`.
pub fn place_judged(
    plan: &SoundPlan,
    date: Date,
    judge: fn(&PlaceView<'_, '_>) -> Option<Finding>,
) -> Option<Finding> {
    let reckoned = reckoned(plan);
    let bays = Looker::new(&reckoned, Detail::Outline).look(0, date);
    judge(&PlaceViews::default().of(plan, 0, date, &bays))
}

/// The plan that the finding's first fix makes.
pub fn fixed(plan: &SoundPlan, finding: &Finding) -> SoundPlan {
    let fixed = patched(plan, &finding.fixes[0].patch).unwrap();
    assert_ne!(fixed, **plan, "a fix changes something");
    fixed.check().unwrap()
}

/// The one rack with a circuit of `breaker_a`, a socket, a strip of 2,300 W in it, and something of the
/// household in that.
pub fn wired(mains_v: f64, breaker_a: f64, change: impl FnOnce(&mut Plan)) -> SoundPlan {
    let wiring = serde_json::json!({
        "feeds": [
            {"id": "circuit", "name": "Circuit", "kind": {"circuit": {"breaker_a": breaker_a, "rcd": true, "rcd_tested": "2026-12-01"}}},
            {"id": "socket", "name": "Socket", "into": "circuit", "height_mm": 300, "kind": {"socket": {"outlets": 4}}},
            {"id": "strip", "name": "Strip", "into": "socket", "height_mm": 1500, "kind": {"strip": {"rating_w": 2300, "outlets": 40}}},
        ],
        "appliances": [{"id": "load", "name": "Load", "watts": 100, "plugged": "strip"}],
    });
    one_rack(|plan| {
        plan.site.mains_v = mains_v;
        plan.wiring = serde_json::from_value(wiring).expect("it is a wiring");
        change(plan);
    })
}

/// Puts a timer between the strip and its socket.
pub fn through_timer(plan: &mut Plan, rating_w: f64) {
    let timer = serde_json::json!({
        "id": "timer", "name": "Timer", "into": "socket", "height_mm": 1500,
        "kind": {"timer": {"rating_w": rating_w, "outlets": 1, "clock": "dial15"}},
    });
    plan.wiring.feeds[2].into = Some("timer".into());
    plan.wiring
        .feeds
        .push(serde_json::from_value(timer).expect("it is a timer"));
}

/// Links so many lamps in a chain of which the maker allows `most`.
pub fn linked(plan: &mut Plan, lamps: usize, most: u32) {
    let chain = serde_json::json!({
        "id": "chain", "name": "Chain", "into": "strip", "height_mm": 1500,
        "kind": {"chain": {"most_lamps": most}},
    });
    plan.wiring
        .feeds
        .push(serde_json::from_value(chain).expect("it is a chain"));
    let lamp = tier(plan, "door", "t1").lamps[0].clone();
    let all = (0..lamps).map(|i| crate::room::Lamp {
        id: format!("l{i}"),
        plugged: Some("chain".into()),
        ..lamp.clone()
    });
    tier(plan, "door", "t1").lamps = all.collect();
}

/// Plugs all gear into the strip.
pub fn all_in_the_strip(plan: &mut Plan) {
    let tiers = plan.places.iter_mut().flat_map(|place| &mut place.tiers);
    tiers.for_each(|tier| {
        tier.plugs_mut()
            .for_each(|plug| *plug = Some("strip".into()))
    });
}
