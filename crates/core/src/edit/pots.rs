//! Potting on: the pots that the plants of a sowing go into.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault};
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Tray};
use crate::season::Reckoned;

impl Editor {
    /// Adds as many pots as the plants of the sowing called `id` still lack, in trays of `format`; they
    /// stand nowhere yet.
    pub(super) fn pot_on(&mut self, plan: &SoundPlan, id: &str, format: Option<&str>) -> Word {
        let index = self.sowing_at(id)?;
        if self.plan.sowings[index].stays.is_some() {
            return Err(fault(
                "sowing",
                id,
                say!("nothing is sown here: these plants are only on the shelf for a while"),
                say!("name a sowing that is raised here"),
            ));
        }
        let sowing = self.plan.sowings[index].clone();
        // Whoever asks for pots pots on.
        self.plan.sowings[index].pots_on = sowing.pots_on.filter(|&pots_on| pots_on);
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let cells = reckoned.cells_of(id);
        let there = cells.map_or(0, |cells| cells.pots_there);
        let plants = cells.and_then(|cells| cells.pots).unwrap_or(sowing.wanted);
        let plants = plants.saturating_sub(there);
        let format = match format {
            None => self.format_for(plan.crop(&sowing).pot_ml(), plants),
            Some(own) => self.own_format(own)?,
        };
        let trays = Tray::more(&self.plan.trays, &sowing, &format, plants, true);
        let word = say!(
            "added {n} × {format} to pot {variety} on into",
            n = Quantity::Count.of(trays.len() as f64),
            format = &format.name,
            variety = sowing.called(&plan.crop(&sowing).name)
        );
        self.plan.trays.extend(trays);
        Ok(word)
    }
}
