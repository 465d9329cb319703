//! Carrying an edit out.

use crate::basis::fault::Fault;
use crate::edit::change::{Edit, Edited};
use crate::edit::editor::Editor;
use crate::edit::stand::From;
use crate::light::fields::Fields;
use crate::placement::How;
use crate::placement::solver::Progress;
use crate::plan::SoundPlan;

/// Places every tray of `plan`, as [`Edit::PlaceAll`] does, but with as much effort as `how` says; `tell`
/// hears how far it is, and stops it by `false`: then the best so far is the answer. `fields` remembers
/// light.
///
/// # Errors
/// That nothing is to be placed, or nothing more fits.
pub fn place_all(
    plan: &SoundPlan,
    how: How,
    fields: &Fields,
    tell: &mut dyn FnMut(Progress) -> bool,
) -> Result<Edited, Vec<Fault>> {
    let mut editor = Editor::of(plan);
    let word = editor.place_all_with(plan, how, fields, tell)?;
    let Editor { plan, made, .. } = editor;
    let plan = plan.check()?.into_inner();
    Ok(Edited { plan, word, made })
}

/// The plan that `edit` makes of `plan`.
///
/// # Errors
/// What the edit names and the plan lacks, by its path within the edit; or no room for what it
/// adds.
pub fn apply(plan: &SoundPlan, edit: &Edit) -> Result<Edited, Vec<Fault>> {
    let mut editor = Editor::of(plan);
    let word = match edit {
        Edit::LiveAt { home, today } => editor.live_at(home, *today),
        Edit::Anchor { last_frost } => editor.anchor(*last_frost),
        Edit::Equip { place, with } => editor.equip(place, with),
        Edit::CopyGear { from, to } => editor.copy_gear(from, to),
        Edit::PlaceAll { afresh } => editor.place_all(plan, *afresh),
        Edit::Want { sowing, wanted } => editor.want(sowing, *wanted),
        Edit::AddPlace { kind } => editor.add_place(kind),
        Edit::AddTier { place } => editor.add_tier(place),
        Edit::AddLamp { bay, kind } => editor.add_lamp(bay, kind),
        Edit::AddMat { bay, kind } => editor.add_mat(bay, kind),
        Edit::AddFan { bay, kind } => editor.add_fan(bay, kind),
        Edit::AddFormat { kind } => editor.add_format(kind),
        Edit::FillWith { format, mix } => editor.fill_with(format, *mix),
        Edit::Again { things } => editor.again(things),
        Edit::Remove { things } => editor.remove(things),
        Edit::MovePlace { place, to } => editor.move_place(place, *to),
        Edit::StandTrays {
            trays,
            stage,
            from,
            bay,
            onto,
        } => {
            let when = From {
                stage: *stage,
                from: *from,
                onto: onto.as_ref(),
            };
            editor.stand_trays(plan, trays, &when, bay)
        }
        Edit::BoxUnder { tray, on, box_mm } => editor.box_under(plan, tray, *on, *box_mm),
        Edit::TurnTray { tray, on } => editor.turn_tray(plan, tray, *on),
        Edit::SwapTrays { tray, with, on } => editor.swap_trays(plan, tray, with, *on),
        Edit::AddSowing {
            crop,
            variety,
            wanted,
            pots,
            autumn,
        } => editor.add_sowing(crop, variety, *wanted, [*pots, *autumn]),
        Edit::RepeatSowing {
            sowing,
            times,
            every_days,
        } => editor.repeat_sowing(sowing, *times, *every_days),
        Edit::ShareFlat(share) => editor.share_flat(plan, share),
        Edit::SetFormat { tray, format } => editor.set_format(plan, tray, format),
        Edit::PotOn { sowing, format } => editor.pot_on(plan, sowing, format.as_deref()),
        Edit::AddFeed { kind, into } => editor.add_feed(kind, into.as_deref()),
        Edit::RemoveFeed { feed } => editor.remove_feed(feed),
        Edit::AddAppliance { name, watts } => editor.add_appliance(name, *watts),
        Edit::RemoveAppliance { appliance } => editor.remove_appliance(appliance),
        Edit::ProposeWiring => editor.propose_wiring(),
        Edit::RemoveSowing { sowing } => editor.remove_sowing(sowing),
    }?;
    let Editor { plan, made, .. } = editor;
    let plan = plan.check()?.into_inner();
    Ok(Edited { plan, word, made })
}
