//! Carrying an edit out.

use crate::basis::fault::Fault;
use crate::edit::change::{Edit, Edited};
use crate::edit::editor::Editor;
use crate::plan::SoundPlan;

/// The plan that `edit` makes of `plan`.
///
/// # Errors
/// What the edit names and the plan lacks, by its path within the edit; or no room for what it
/// adds.
pub fn apply(plan: &SoundPlan, edit: &Edit) -> Result<Edited, Vec<Fault>> {
    let mut editor = Editor {
        plan: (**plan).clone(),
        made: Vec::new(),
    };
    let word = match edit {
        Edit::AddPlace { kind } => editor.add_place(kind),
        Edit::AddTier { place } => editor.add_tier(place),
        Edit::AddLamp { bay, kind } => editor.add_lamp(bay, kind),
        Edit::AddMat { bay, kind } => editor.add_mat(bay, kind),
        Edit::AddFan { bay, kind } => editor.add_fan(bay, kind),
        Edit::AddFormat { kind } => editor.add_format(kind),
        Edit::Again { things } => editor.again(things),
        Edit::Remove { things } => editor.remove(things),
        Edit::MovePlace { place, to } => editor.move_place(place, *to),
        Edit::MoveTray {
            tray,
            stage,
            from,
            bay,
        } => editor.move_tray(plan, tray, (*stage, *from), bay),
        Edit::TurnTray { tray, on } => editor.turn_tray(plan, tray, *on),
        Edit::SwapTrays { tray, with, on } => editor.swap_trays(plan, tray, with, *on),
        Edit::AddSowing {
            crop,
            variety,
            wanted,
        } => editor.add_sowing(crop, variety, *wanted),
        Edit::RepeatSowing {
            sowing,
            times,
            every_days,
        } => editor.repeat_sowing(sowing, *times, *every_days),
        Edit::PotOn { sowing, format } => editor.pot_on(plan, sowing, format.as_deref()),
        Edit::RemoveSowing { sowing } => editor.remove_sowing(sowing),
    }?;
    let Editor { plan, made } = editor;
    let plan = plan.check()?.into_inner();
    Ok(Edited { plan, word, made })
}
