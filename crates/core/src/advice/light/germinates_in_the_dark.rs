//! Triggers when seed that germinates in light lies in the dark, or cuttings stand there.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::crops::{GerminatesIn, GrownFrom};
use crate::day::view::BayView;
use crate::plan::Stage;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let bay = &view.bay;
    if bay.place.has_daylight() || bay.place.outdoors() {
        return None;
    }
    let lit = view.is_lit();
    let (standing, part) = view
        .parts()
        .filter(|(s, part)| part.stage == Some(Stage::Germinate) && (s.covered || !lit))
        .find(|(_, part)| {
            let crop = view.plan.crop(part.sowing);
            // What is covered with mix, such as lettuce, comes up in a chamber all the same.
            let on_top = crop.germinates_in == GerminatesIn::Light && crop.sow_depth_mm <= 0.0;
            on_top || crop.grown_from == GrownFrom::Cuttings
        })?;
    let cut = view.plan.crop(part.sowing).grown_from == GrownFrom::Cuttings;
    Some(Finding {
        trays: vec![standing.tray.id.clone()],
        source: crate::crops::library().source("germinates_in"),
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            say!(
                "Give {tray} light from sowing on",
                tray = &standing.tray.name
            ),
            if cut {
                say!(
                    "{crop} root in the light: in the dark they drop their leaves and rot. Put them under a lamp or by a window.",
                    crop = &part.dates.name,
                )
            } else {
                say!(
                    "Seed of {crop} is sown on the surface and germinates in light; in the dark little of it comes up. Put it under a lamp or by a window.",
                    crop = &part.dates.name,
                )
            },
        )
    })
}
