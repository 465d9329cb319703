//! Edits that several judgements offer.

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::day::hang::Hang;
use crate::day::light::BayLight;
use crate::day::measures::Band;
use crate::day::view::BayView;
use crate::lamps::adjust::Step;
use crate::lamps::chooser::Change;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::Adjust;

/// What the chooser advises for the lamps of a bay because of `change`; `None` where it advises
/// nothing, or something for a graver reason.
pub(super) fn advised<'v>(view: &'v BayView<'_>, change: Change) -> Option<&'v Hang> {
    let hang = view.computed.hang.as_ref()?;
    (hang.change == Some(change)).then_some(hang)
}

/// The fix that hangs every lamp of the bay as the chooser advises because of `change`, and sets the
/// hours.
pub(super) fn hang_here(view: &BayView<'_>, change: Change) -> Option<Fix> {
    advised(view, change)?;
    hang_anyhow(view)
}

/// The same, whatever the reason for a change.
pub(super) fn hang_anyhow(view: &BayView<'_>) -> Option<Fix> {
    let hang = view
        .computed
        .hang
        .as_ref()
        .filter(|hang| hang.change.is_some())?;
    let setting = hang.setting;
    let tier = view.bay.pointer();
    let mut then = view.bay.tier.clone();
    setting.set(&mut then);
    let mut patch = Vec::new();
    for (i, lamp) in then.lamps.iter().enumerate() {
        let at = tier.at("lamps").at(i);
        patch.push(PatchStep::replace(&at.at("height_mm"), lamp.height_mm));
        if let Some(dimmer) = &lamp.dimmer {
            patch.push(PatchStep::replace(&at.at("dimmer").at("at"), dimmer.at));
        }
    }
    if let Some(Adjust::Boxes(boxes)) = then.adjust {
        let at = tier.at("adjust").at("boxes").at("stacked_mm");
        patch.push(PatchStep::replace(&at, boxes.stacked_mm));
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

/// Why the lamps of a bay had better be set otherwise; `None` where they are to be left alone.
pub fn why_set(view: &BayView<'_>) -> Option<Statement> {
    let hang = view.computed.hang.as_ref()?;
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let share = |value: f64| Quantity::Share.of(value);
    Some(match hang.change? {
        Change::Harms => {
            let (light, target) = lit(view)?;
            say!(
                "{now} of cells get far more light than does them good, up to {best} where {high} is plenty; this leaves {then}.",
                now = share(hang.now.harmed),
                best = dli(light.dli.best),
                high = dli(target.high),
                then = share(hang.then.harmed),
            )
        }
        Change::TooDark | Change::Stretches if hang.now.under - hang.then.under < 0.01 => say!(
            "On average the leaves get {now} of light and need at least {low}; this gives them {then}.",
            now = dli(hang.now.mean_mol_m2_d),
            low = dli(lit(view)?.1.low),
            then = dli(hang.then.mean_mol_m2_d),
        ),
        Change::TooDark | Change::Stretches => say!(
            "{now} of cells get less than the {low} of light that they need; this leaves {then}.",
            now = share(hang.now.under),
            low = dli(lit(view)?.1.low),
            then = share(hang.then.under),
        ),
        Change::TooLong => say!(
            "The longest day that the crops here stand is {hours}.",
            hours = Quantity::Hours.of(hang.most_hours_h),
        ),
        Change::Wasted => say!(
            "The leaves get {now} of light, more than they use; {then} does.",
            now = dli(hang.now.mean_mol_m2_d),
            then = dli(hang.then.mean_mol_m2_d),
        ),
        Change::TooNear => say!(
            "The tallest leaves need {gap} of air to the lamps.",
            gap = Quantity::LengthMm.of(view.bay.least_gap_mm()),
        ),
    })
}

/// The light in a bay with what suits all seedlings in it.
fn lit<'v>(view: &'v BayView<'_>) -> Option<(&'v BayLight, Band)> {
    let light = view.computed.light.as_ref()?;
    Some((light, light.target?))
}

/// How a hand sets the lamps as advised.
pub fn how_to_set(hang: &Hang) -> Statement {
    let mm = |value: f64| Quantity::LengthMm.of(value);
    let hours = Quantity::Hours.of(hang.setting.hours_h);
    let start = Quantity::ClockH.of(hang.start.from_h);
    let height = mm(hang.setting.height_mm);
    let count = |links: i32| Quantity::Count.of(f64::from(links.abs()));
    match hang.step {
        Step::Anywhere => say!(
            "Hang the lamps {height} above the shelf; run them {hours} from {start}",
            height = height,
            hours = hours,
            start = start
        ),
        Step::Links { change: 0, .. } => {
            say!(
                "Leave the chains; run the lamps {hours} from {start}",
                hours = hours,
                start = start
            )
        }
        Step::Links { links, change } if change > 0 => say!(
            "Lower the lamps to link {links} ({change} down, {height}); run them {hours} from {start}",
            change = count(change),
            height = height,
            links = count(links),
            hours = hours,
            start = start
        ),
        Step::Links { links, change } => say!(
            "Raise the lamps to link {links} ({change} up, {height}); run them {hours} from {start}",
            change = count(change),
            height = height,
            links = count(links),
            hours = hours,
            start = start
        ),
        Step::Boxes { change_mm: 0.0, .. } => {
            say!(
                "Leave the boxes; run the lamps {hours} from {start}",
                hours = hours,
                start = start
            )
        }
        Step::Boxes { lift_mm, .. } => say!(
            "Stack {lift} of boxes under the trays; run the lamps {hours} from {start}",
            lift = mm(lift_mm),
            hours = hours,
            start = start
        ),
        Step::Fixed => say!(
            "Run the lamps {hours} from {start}",
            hours = hours,
            start = start
        ),
    }
}
