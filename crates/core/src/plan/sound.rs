//! A plan without a fault, its parts found by their ids.

use std::sync::Arc;

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::fault::Fault;
use crate::crops;
use crate::crops::Crop;
use crate::plan::document::Plan;
use crate::plan::happened::Happened;
use crate::plan::ids::Ids;
use crate::plan::sowing::Sowing;
use crate::plan::tray::Tray;
use crate::room::container::TrayFormat;
use crate::room::{Bay, BayRef, Place};
use crate::seeds::Packet;

/// A plan without a fault. Only this can be assessed.
#[derive(Debug, Clone, PartialEq)]
pub struct SoundPlan {
    pub(super) plan: Plan,
    pub(super) ids: Ids,
    /// The crop of each sowing whose variety differs from its kind.
    pub(super) varied: Vec<Option<Crop>>,
    /// Each place as it is set from a date on.
    pub(super) stretches: Vec<Vec<(Date, Place)>>,
    /// What happened so far.
    pub(super) happened: Arc<Happened>,
}

impl std::ops::Deref for SoundPlan {
    type Target = Plan;

    fn deref(&self) -> &Plan {
        &self.plan
    }
}

impl SoundPlan {
    /// The days away that `date` is in, or that begin within three days: time to prepare.
    pub fn away_near(&self, date: Date) -> Option<DateSpan> {
        const AHEAD_DAYS: i32 = 3;
        let near = |span: &&DateSpan| (plus_days(span.from, -AHEAD_DAYS)..=span.to).contains(&date);
        self.away.iter().find(near).copied()
    }

    /// The plan in a season in which so much `happened`: from now on that counts, whatever was planned.
    #[must_use]
    pub fn after(self, happened: Arc<Happened>) -> Self {
        Self { happened, ..self }
    }

    /// What happened so far, for another plan of this season.
    pub(crate) fn happened_so_far(&self) -> Arc<Happened> {
        Arc::clone(&self.happened)
    }

    /// What happened so far.
    pub fn happened(&self) -> &Happened {
        &self.happened
    }

    /// `plan`, which an edit made of this one, in the same season.
    ///
    /// # Errors
    /// Every fault of it, by its path.
    pub fn changed_to(&self, plan: Plan) -> Result<Self, Vec<Fault>> {
        Ok(plan.check()?.after(Arc::clone(&self.happened)))
    }

    /// The plan with all its lamps at one height, and how high they hang, place by place.
    pub fn without_heights(&self) -> (Self, Vec<Vec<f64>>) {
        let mut bare = self.clone();
        let settings = bare.stretches.iter_mut();
        let places = bare.plan.places.iter_mut().zip(settings);
        let heights = places.map(|(place, settings)| {
            let all = std::iter::once(place).chain(settings.iter_mut().map(|(_, place)| place));
            let lamps = all
                .flat_map(|place| &mut place.tiers)
                .flat_map(|tier| &mut tier.lamps);
            lamps
                .map(|lamp| std::mem::take(&mut lamp.height_mm))
                .collect()
        });
        let heights = heights.collect();
        (bare, heights)
    }

    /// The document itself.
    pub fn into_inner(self) -> Plan {
        self.plan
    }

    /// The crop of `sowing`, which a sound plan always has.
    pub fn crop(&self, sowing: &Sowing) -> &Crop {
        let index = self.ids.sowings.get(&sowing.id);
        if let Some(varied) = index.and_then(|&i| self.varied[i].as_ref()) {
            return varied;
        }
        let own = self.ids.crops.get(&sowing.crop);
        own.map(|&i| &self.plan.crops[i])
            .or_else(|| crops::library().get(&sowing.crop))
            .expect("a sound plan names known crops")
    }

    /// The packet that `sowing` is sown from; `None` when it names none.
    pub fn packet(&self, sowing: &Sowing) -> Option<&Packet> {
        let index = self.ids.packets.get(sowing.packet.as_ref()?)?;
        self.plan.packets.get(*index)
    }

    /// The format of `tray`, which a sound plan always has.
    pub fn format(&self, tray: &Tray) -> &TrayFormat {
        let index = self.ids.formats.get(&tray.format);
        let format = index.and_then(|&i| self.plan.tray_formats.get(i));
        format.expect("a sound plan names known tray formats")
    }

    /// Index of the sowing called `id`, which a sound plan always has.
    pub fn sowing_index(&self, id: &str) -> usize {
        let index = self.ids.sowings.get(id);
        *index.expect("a sound plan names known sowings")
    }

    /// The trays that the sowing called `id` is sown in, in the plan's order.
    pub fn sown_in(&self, id: &str) -> impl Iterator<Item = &Tray> + Clone {
        let sowing = self.ids.sowings.get(id);
        let trays = sowing.map_or(&[][..], |&i| &self.ids.sown_in[i]);
        trays.iter().map(|&i| &self.plan.trays[i])
    }

    /// The trays that the sowing called `id` is potted on into, in the plan's order.
    pub fn potted_into(&self, id: &str) -> impl Iterator<Item = &Tray> + Clone {
        let sowing = self.ids.sowings.get(id);
        let trays = sowing.map_or(&[][..], |&i| &self.ids.potted_into[i]);
        trays.iter().map(|&i| &self.plan.trays[i])
    }

    /// Every tray that ever holds the sowing called `id`: those it is sown in, then its pots.
    pub fn trays_of(&self, id: &str) -> impl Iterator<Item = &Tray> + Clone {
        self.sown_in(id).chain(self.potted_into(id))
    }

    /// The cells of `tray` that are the sowing's called `id`.
    pub fn cells_in(&self, tray: &Tray, id: &str) -> u32 {
        let format = self.format(tray);
        let own = tray.parts.iter().filter(|part| part.sowing == id);
        own.map(|part| part.block(format).cells()).sum()
    }

    /// The trays that stand in `bay` at any time, in the plan's order.
    pub fn trays_in(&self, bay: &Bay<'_>) -> impl Iterator<Item = &Tray> {
        // A place that was put beside the plan's own to compare has no trays of its own.
        let places = self.ids.trays_in.get(bay.place_index);
        let tiers = places.and_then(|tiers| tiers.get(bay.tier_index));
        let trays = tiers.map_or(&[][..], Vec::as_slice);
        trays.iter().map(|&i| &self.plan.trays[i])
    }

    /// Whether others are stacked on `tray` while it germinates.
    pub fn is_covered(&self, tray: &Tray) -> bool {
        let index = self.tray_index(&tray.id);
        index.is_some_and(|i| self.ids.covered[i])
    }

    /// Index of the tray called `id`.
    pub fn tray_index(&self, id: &str) -> Option<usize> {
        self.ids.trays.get(id).copied()
    }

    /// The place called `id`.
    pub fn place(&self, id: &str) -> Option<&Place> {
        self.plan.places.get(self.ids.place(id)?)
    }

    /// Place `index` as it is set on `date`.
    pub fn place_on(&self, index: usize, date: Date) -> &Place {
        let stretches = self.stretches[index].iter().rev();
        let mut begun = stretches.filter(|(from, _)| *from <= date);
        begun
            .next()
            .map_or(&self.plan.places[index], |(_, place)| place)
    }

    /// Place `index` in all its settings: as it is to begin with, and from each date on.
    pub fn settings(&self, index: usize) -> impl Iterator<Item = &Place> {
        let later = self.stretches[index].iter().map(|(_, place)| place);
        std::iter::once(&self.plan.places[index]).chain(later)
    }

    /// How place `index` is set on `date`: the number of its settings that have begun.
    pub fn setting_on(&self, index: usize, date: Date) -> usize {
        let begun = |(from, _): &&(Date, Place)| *from <= date;
        self.stretches[index].iter().filter(begun).count()
    }

    /// The bay that `reference` names, as it is set on `date`.
    pub fn bay_on(&self, reference: &BayRef, date: Date) -> Option<Bay<'_>> {
        let bay = self.bay(reference)?;
        let place = self.place_on(bay.place_index, date);
        Some(Bay {
            place,
            tier: &place.tiers[bay.tier_index],
            ..bay
        })
    }

    /// The bay that `reference` names, as it is set to begin with.
    pub fn bay(&self, reference: &BayRef) -> Option<Bay<'_>> {
        self.ids.bay(&self.plan, reference)
    }
}
