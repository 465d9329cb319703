//! What a gardener sees, and what it comes from: causes ranked by the tray's own history and figures.

mod burnt_tips;
pub mod cause;
mod collapsed;
mod flies;
mod leggy;
mod mould;
mod nothing_up;
mod pale;
mod purple;
pub mod signs;
pub mod symptom;
mod uneven;
mod wilting;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::diagnosis::cause::Cause;
use crate::diagnosis::signs::Signs;
use crate::diagnosis::symptom::Symptom;
use crate::log::told::Told;
use crate::season::Reckoned;

/// What is seen in a tray, and what it comes from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Diagnosis {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// What is seen.
    pub symptom: Symptom,
    /// The day.
    pub on: Date,
    /// Causes, the likeliest first.
    pub causes: Vec<Cause>,
}

/// What `symptom` in the tray called `id` comes from on a day; `None` where the plan has no such tray.
pub fn diagnose(
    reckoned: &Reckoned<'_>,
    told: &Told,
    id: &str,
    symptom: Symptom,
    on: Date,
) -> Option<Diagnosis> {
    let plan = reckoned.plan;
    let tray = &plan.trays[plan.tray_index(id)?];
    let signs = Signs::of(reckoned, told, tray, on);
    Some(Diagnosis {
        tray: tray.id.clone(),
        label: tray.name.clone(),
        symptom,
        on,
        causes: causes(symptom, &signs),
    })
}

/// What `symptom` comes from, by the `signs` of a tray: what the figures speak for first, then what is common; what
/// they speak against last.
pub fn causes(symptom: Symptom, signs: &Signs) -> Vec<Cause> {
    let mut causes = match symptom {
        Symptom::Leggy => leggy::causes(signs),
        Symptom::Pale => pale::causes(signs),
        Symptom::Purple => purple::causes(signs),
        Symptom::BurntTips => burnt_tips::causes(signs),
        Symptom::Collapsed => collapsed::causes(signs),
        Symptom::Mould => mould::causes(signs),
        Symptom::Flies => flies::causes(signs),
        Symptom::WiltingWet => wilting::causes(signs),
        Symptom::NothingUp => nothing_up::causes(signs),
        Symptom::Uneven => uneven::causes(signs),
    };
    causes.sort_by(|a, b| {
        let strength = b.strength.total_cmp(&a.strength);
        a.speaks.cmp(&b.speaks).then(strength)
    });
    causes
}
