//! Plans, changed at will, for the judgements' own tests.

use jiff::civil::Date;

use crate::advice::finding::Finding;
use crate::advice::list;
use crate::day::detail::Detail;
use crate::day::place::PlaceView;
use crate::day::view::{BayView, Looker};
use crate::plan::SoundPlan;
use crate::plan::patch::patched;
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
    judge(&PlaceView::new(plan, 0, date, &bays))
}

/// The plan that the finding's first fix makes.
pub fn fixed(plan: &SoundPlan, finding: &Finding) -> SoundPlan {
    let fixed = patched(plan, &finding.fixes[0].patch).unwrap();
    assert_ne!(fixed, **plan, "a fix changes something");
    fixed.check().unwrap()
}
