//! A correction of a crop is kept with the plan's own figures of it.

use crate::basis::fault::Pointer;
use crate::crops::Crop;
use crate::plan::SoundPlan;
use crate::plan::patch::PatchStep;

/// The patch that makes the plan's own `crop` as `change` has it: the one that the plan has, or a copy of the
/// library's.
pub(super) fn set_on_crop(
    plan: &SoundPlan,
    crop: &Crop,
    change: impl FnOnce(&mut Crop),
) -> Vec<PatchStep> {
    let mut own = crop.clone();
    change(&mut own);
    let crops = Pointer::default().at("crops");
    let known = plan.crops.iter().position(|known| known.id == crop.id);
    let step = match known {
        Some(i) => PatchStep::replace(&crops.at(i), own),
        // An empty list is left out of the document.
        None if plan.crops.is_empty() => PatchStep::set(&crops, [own]),
        None => PatchStep::append(&crops, own),
    };
    vec![step]
}
