//! Moving places along the row, and trays from bay to bay.

use crate::basis::dates::DateSpan;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, unknown};
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Stage, Stand};
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::moments::TrayMoments;
use crate::season::stays::Stay;
use crate::space::decks::post_footprints;
use crate::space::packing;
use crate::space::packing::Size;

impl Editor {
    pub(super) fn move_place(&mut self, place: &str, to: usize) -> Word {
        let from = self.place_index(place)?;
        let last = self.plan.places.len() - 1;
        let place = self.plan.places.remove(from);
        let name = place.name.clone();
        self.plan.places.insert(to.min(last), place);
        Ok(say!("moved {place} along", place = name))
    }

    pub(super) fn move_tray(
        &mut self,
        plan: &SoundPlan,
        tray: &str,
        stage: Stage,
        bay: &BayRef,
    ) -> Word {
        let at = self.tier_at(bay)?;
        let trays = &self.plan.trays;
        let index = trays
            .iter()
            .position(|t| t.id == tray)
            .ok_or_else(|| unknown("tray", tray, trays.iter().map(|t| t.id.clone())))?;
        let tray = &trays[index];
        let format = plan.format(tray);
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let own = TrayMoments::of(plan, tray, &reckoned.dates);
        // Until it is moved again, or planted out.
        let later = |s: &&Stand| s.stage > stage;
        let next = tray.stands.iter().filter(later).map(|s| s.stage).min();
        let stages = [Stage::Germinate, Stage::Grow, Stage::Harden]
            .into_iter()
            .filter(|s| *s >= stage && next.is_none_or(|next| *s < next))
            .filter(|s| stage == Stage::Harden || *s != Stage::Harden);
        let days: Vec<_> = stages.filter_map(|s| own.days_of(s)).collect();
        let busy = |stay: &Stay<'_>| {
            let meets = |d: &DateSpan| stay.days.from <= d.to && d.from <= stay.days.to;
            stay.bay == bay && stay.tray.id != tray.id && days.iter().any(meets)
        };
        let place = &self.plan.places[at[0]];
        let mut taken = post_footprints(place);
        let stays = reckoned.stays.iter();
        taken.extend(stays.filter(|s| busy(s)).map(|s| s.footprint));
        let size = Size {
            length_mm: format.length_mm,
            width_mm: format.width_mm,
            most: Some(1),
        };
        let deck = [place.width_mm, place.depth_mm];
        let found = packing::beside(deck, &taken, &[size]).laid.first().copied();
        let Some(spot) = found else {
            return Err(fault(
                "bay",
                bay,
                say!(
                    "{bay} has no free spot for {tray} in those days",
                    bay = self.bay_name(bay),
                    tray = &tray.name
                ),
                say!("choose another bay, or free a spot there first"),
            ));
        };
        let name = tray.name.clone();
        let stand = Stand {
            stage,
            bay: bay.clone(),
            x_mm: spot.x_mm,
            y_mm: spot.y_mm,
            along: spot.along,
        };
        let stands = &mut self.plan.trays[index].stands;
        match stands.iter_mut().find(|s| s.stage == stage) {
            Some(old) => *old = stand,
            None => stands.push(stand),
        }
        Ok(say!(
            "moved {tray} to {bay}",
            tray = name,
            bay = self.bay_name(bay)
        ))
    }
}
