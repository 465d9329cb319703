//! What is to be done on a day, and what happened to a tray.

use std::sync::Arc;

use jiff::civil::Date;

use crate::day::detail::Detail;
use crate::day::view::{BayView, Looker};
use crate::light::fields::Fields;
use crate::log::told::Told;
use crate::plan::{Plan, SoundPlan, Tray};
use crate::readings::story::Story;
use crate::season::Reckoned;
use crate::today::{Today, WaterAhead};

/// What is to be done on `date`, by the plan and by what happened so far; light that `fields` remembers is not
/// reckoned anew.
pub fn today(plan: &SoundPlan, date: Date, fields: &Fields) -> Today {
    let reckoned = Reckoned::of(plan, fields);
    let mut looker = Looker::new(&reckoned, Detail::Water);
    let places = 0..plan.places.len();
    let views: Vec<BayView<'_>> = places.flat_map(|place| looker.look(place, date)).collect();
    Today::of(&reckoned, date, &views)
}

/// What the trays indoors drink from `date` on; light that `fields` remembers is not reckoned anew.
pub fn water_ahead(plan: &SoundPlan, date: Date, fields: &Fields) -> WaterAhead {
    WaterAhead::of(&Reckoned::of(plan, fields), date)
}

/// The life of the tray called `id`, by the plan and by what is `told`; `None` where the plan has no such tray.
pub fn story(plan: &SoundPlan, told: &Told, id: &str, fields: &Fields) -> Option<Story> {
    let planned = plan.clone().after(Arc::default());
    let planned = Reckoned::of(&planned, fields);
    Story::of(&Reckoned::of(plan, fields), &planned, told, id)
}

/// The trays whose label, crop or variety holds `text`, whatever its case.
pub fn trays_called(plan: &Plan, text: &str) -> Vec<String> {
    let text = text.to_lowercase();
    let holds = |name: &str| name.to_lowercase().contains(&text);
    let sowings = plan.sowings.iter().filter(|sowing| {
        let crop = plan.find_crop(&sowing.crop);
        crop.is_some_and(|crop| holds(&sowing.called(&crop.name)))
    });
    let sowings: Vec<&str> = sowings.map(|sowing| sowing.id.as_str()).collect();
    let is_one = |tray: &&Tray| {
        let mut parts = tray.parts.iter();
        holds(&tray.name) || parts.any(|part| sowings.contains(&part.sowing.as_str()))
    };
    let trays = plan.trays.iter().filter(is_one);
    trays.map(|tray| tray.id.clone()).collect()
}
