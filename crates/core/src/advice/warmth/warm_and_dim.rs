//! Triggers when seedlings stand warm in too little light: that makes them leggy sooner than anything.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// Warmer than this on the mean of a day is warm for seedlings that lack light (common practice, no
/// source).
const WARM_C: f64 = 20.0;
/// What they are kept at until they have more, in °C (common practice, no source).
const COOL_C: [f64; 2] = [14.0, 18.0];
/// So much of what they need at least is little.
const LITTLE: f64 = 0.8;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let light = view.computed.light.as_ref()?;
    let low = light.target?.low;
    let mean_c = view.mean_air_c();
    // Where the lamps only want another setting that comes first.
    let hangs_wrong = view
        .computed
        .hang
        .as_ref()
        .is_some_and(|hang| hang.change.is_some());
    if view.bay.place.outdoors() || hangs_wrong || mean_c < WARM_C || light.dli.mean >= LITTLE * low
    {
        return None;
    }
    let growing = view.standing.iter().filter(|s| s.is_up());
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    Some(Finding {
        trays: growing.map(|s| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Keep {bay} cooler, {least} to {most}, until there is more light",
                bay = view.bay.name(),
                least = celsius(COOL_C[0]),
                most = celsius(COOL_C[1])
            ),
            say!(
                "At {mean} and only {dli} of light a day stems outgrow their light; cool seedlings stay short.",
                mean = celsius(mean_c),
                dli = Quantity::DliMolM2D.of(light.dli.mean),
            ),
        )
    })
}
