//! Edits that several judgements offer.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::Adjust;

/// The fix that hangs every lamp of the bay at its best height and sets the hours.
pub(super) fn hang_here(view: &BayView<'_>) -> Option<Fix> {
    let hang = view.computed.hang.as_ref()?;
    let setting = hang.setting;
    let tier = view.bay.pointer();
    let mut patch = Vec::new();
    for (i, lamp) in view.bay.tier.lamps.iter().enumerate() {
        let at = tier.at("lamps").at(i);
        patch.push(PatchStep::replace(&at.at("height_mm"), setting.height_mm));
        let Some(dimmer) = &lamp.dimmer else { continue };
        let wanted = lamp.dimmed() * setting.brightness;
        let off = |share: &f64| (share - wanted).abs();
        let steps = dimmer.steps.iter().enumerate();
        if let Some((step, _)) = steps.min_by(|a, b| off(a.1).total_cmp(&off(b.1))) {
            patch.push(PatchStep::replace(&at.at("dimmer").at("at"), step));
        }
    }
    if let Some(Adjust::Boxes(_)) = view.bay.tier.adjust {
        let at = tier.at("adjust").at("boxes").at("stacked_mm");
        patch.push(PatchStep::replace(&at, setting.lift_mm));
    }
    patch.push(PatchStep::replace(
        &tier.at("photoperiod_h"),
        setting.hours_h,
    ));
    patch.extend(go_on_at(view, hang.start.from_h));
    Some(Fix {
        label: say!("Hang here"),
        word: say!(
            "hung {bay} at {height}, {hours} a day from {start}",
            bay = view.bay.name(),
            height = Quantity::LengthMm.of(setting.height_mm),
            hours = Quantity::Hours.of(setting.hours_h),
            start = Quantity::ClockH.of(hang.start.from_h),
        ),
        patch,
    })
}

/// The edit that has the lamps of a bay go on at `from_h`; none when they do already.
pub(super) fn go_on_at(view: &BayView<'_>, from_h: f64) -> Option<PatchStep> {
    let tier = view.bay.tier;
    let at = view.bay.pointer().at("lights_on_h");
    (tier.burning().from_h != from_h).then(|| PatchStep::set(&at, from_h))
}
