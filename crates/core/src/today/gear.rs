//! Lamps, link by link, and boxes under trays: what the chooser advises for the day.

use crate::advice::{how_to_set, why_set};
use crate::lamps::adjust::Step;
use crate::log::fact::Fact;
use crate::today::job::{JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where};

/// A job for each bay whose lamps had better be set otherwise.
pub(super) fn lamps(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let each = walk.views.iter().filter_map(|view| {
        let hang = view.computed.hang.as_ref()?;
        let reason = why_set(view)?;
        let bay = view.bay.reference();
        let at = Where::At(bay.clone());
        let id = format!("lamps/{}/{}", bay.place, bay.tier);
        let boxes = matches!(hang.step, Step::Boxes { .. });
        let fact = Fact::LampSet {
            bay,
            height_mm: hang.setting.height_mm,
            hours_h: hang.setting.hours_h,
            from_h: Some(hang.start.from_h),
            lift_mm: boxes.then_some(hang.setting.lift_mm),
            brightness: Some(hang.setting.brightness).filter(|share| *share != 1.0),
        };
        let named = (id, JobKind::Lamps, walk.date);
        let notes = vec![JobFact::plain(fact)];
        let job = walk.job(named, [how_to_set(hang), reason], &at, notes);
        Some((at, job))
    });
    each.collect()
}
