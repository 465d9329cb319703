//! Moving places along the row, and trays from spot to spot.

use jiff::civil::Date;

use crate::basis::dates::DateSpan;
use crate::basis::fault::Fault;
use crate::basis::plane::{Axis, Footprint};
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, unknown};
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::moments::TrayMoments;
use crate::season::stays::{Stay, spots};
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

    /// Finds a tray a spot in `bay` that is free on all days from `stage` on, or from a date within
    /// it, until it goes elsewhere.
    pub(super) fn move_tray(
        &mut self,
        plan: &SoundPlan,
        tray: &str,
        (stage, from): (Stage, Option<Date>),
        bay: &BayRef,
    ) -> Word {
        let at = self.tier_at(bay)?;
        let index = self.tray_at("tray", tray)?;
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let tray = &plan.trays[index];
        let mut stand = Stand {
            stage,
            from,
            bay: bay.clone(),
            x_mm: 0.0,
            y_mm: 0.0,
            along: Axis::X,
        };
        let days = days_at(&reckoned, &restood(tray, &stand), &stand);
        if days.is_empty() {
            return Err(fault(
                "from",
                from,
                say!("{tray} is past that stage by then", tray = &tray.name),
                say!("choose an earlier date, or a later stage"),
            ));
        }
        let place = &self.plan.places[at[0]];
        let mut taken = post_footprints(place);
        let others = reckoned.stays.iter().filter(|stay| stay.tray.id != tray.id);
        taken.extend(
            others
                .filter(|stay| is_busy(stay, bay, &days))
                .map(|s| s.footprint),
        );
        let format = plan.format(tray);
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
        (stand.x_mm, stand.y_mm, stand.along) = (spot.x_mm, spot.y_mm, spot.along);
        self.plan.trays[index] = restood(tray, &stand);
        let (tray, bay) = (&tray.name, self.bay_name(bay));
        Ok(match from {
            Some(from) => say!(
                "moved {tray} to {bay} from {from} on",
                tray = tray,
                bay = bay,
                from = from
            ),
            None => say!("moved {tray} to {bay}", tray = tray, bay = bay),
        })
    }

    /// Turns a tray a quarter on its corner, for as long as it stands there.
    pub(super) fn turn_tray(&mut self, plan: &SoundPlan, tray: &str, on: Date) -> Word {
        let index = self.tray_at("tray", tray)?;
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let tray = &plan.trays[index];
        let mut stand = stand_on(&reckoned, tray, on)?;
        stand.along = match stand.along {
            Axis::X => Axis::Y,
            Axis::Y => Axis::X,
        };
        let turned = restood(tray, &stand);
        is_free(&reckoned, &turned, &stand, &[])?;
        self.plan.trays[index] = turned;
        Ok(say!("turned {tray}", tray = &tray.name))
    }

    /// Lets two trays change places, each for as long as the other would have stood there.
    pub(super) fn swap_trays(
        &mut self,
        plan: &SoundPlan,
        tray: &str,
        with: &str,
        on: Date,
    ) -> Word {
        let (a, b) = (self.tray_at("tray", tray)?, self.tray_at("with", with)?);
        if a == b {
            return Err(fault(
                "with",
                with,
                say!("a tray cannot change places with itself"),
                say!("choose another tray"),
            ));
        }
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let (first, second) = (&plan.trays[a], &plan.trays[b]);
        let (of_first, of_second) = (
            stand_on(&reckoned, first, on)?,
            stand_on(&reckoned, second, on)?,
        );
        let to = |own: &Stand, other: &Stand| Stand {
            stage: own.stage,
            from: own.from,
            ..other.clone()
        };
        let (there, back) = (to(&of_first, &of_second), to(&of_second, &of_first));
        let changed = [restood(first, &there), restood(second, &back)];
        is_free(&reckoned, &changed[0], &there, &[second])?;
        is_free(&reckoned, &changed[1], &back, &[first])?;
        let words = say!(
            "swapped {first} and {second}",
            first = &first.name,
            second = &second.name
        );
        [self.plan.trays[a], self.plan.trays[b]] = changed;
        Ok(words)
    }

    fn tray_at(&self, field: &str, id: &str) -> Result<usize, Vec<Fault>> {
        let trays = &self.plan.trays;
        let index = trays.iter().position(|tray| tray.id == id);
        index.ok_or_else(|| unknown(field, id, trays.iter().map(|tray| tray.id.clone())))
    }
}

/// `tray` with `stand` in place of the one that begins when it does, or besides.
fn restood(tray: &Tray, stand: &Stand) -> Tray {
    let mut tray = tray.clone();
    let begins = |s: &Stand| (s.stage, s.from);
    match tray.stands.iter_mut().find(|s| begins(s) == begins(stand)) {
        Some(old) => *old = stand.clone(),
        None => tray.stands.push(stand.clone()),
    }
    tray
}

/// The days on which `tray` stands as `stand` says.
fn days_at(reckoned: &Reckoned<'_>, tray: &Tray, stand: &Stand) -> Vec<DateSpan> {
    let moments = TrayMoments::of(reckoned.plan, tray, &reckoned.dates);
    let all = spots(tray, &moments).into_iter();
    all.filter(|(spot, _)| *spot == stand)
        .map(|(_, days)| days)
        .collect()
}

/// The spot that a tray has on a date.
fn stand_on(reckoned: &Reckoned<'_>, tray: &Tray, on: Date) -> Result<Stand, Vec<Fault>> {
    let moments = TrayMoments::of(reckoned.plan, tray, &reckoned.dates);
    let stage = moments.stage_on(on);
    let stand = stage.and_then(|stage| tray.stand_on(stage, on));
    stand.cloned().ok_or_else(|| {
        fault(
            "on",
            on,
            say!("{tray} stands nowhere then", tray = &tray.name),
            say!("choose a day on which it stands in a bay"),
        )
    })
}

fn is_busy(stay: &Stay<'_>, bay: &BayRef, days: &[DateSpan]) -> bool {
    let meets = |d: &DateSpan| stay.days.from <= d.to && d.from <= stay.days.to;
    stay.bay == bay && days.iter().any(meets)
}

/// Whether nothing stands in the way of `tray` at its new spot but what goes away itself.
fn is_free(
    reckoned: &Reckoned<'_>,
    tray: &Tray,
    stand: &Stand,
    goes: &[&Tray],
) -> Result<(), Vec<Fault>> {
    let plan = reckoned.plan;
    let footprint: Footprint = stand.footprint(plan.format(tray));
    let days = days_at(reckoned, tray, stand);
    let stays = |stay: &&Stay<'_>| {
        stay.tray.id != tray.id && goes.iter().all(|other| other.id != stay.tray.id)
    };
    let others = reckoned.stays.iter().filter(stays);
    let mut busy = others.filter(|stay| is_busy(stay, &stand.bay, &days));
    let in_its_way = busy.find(|stay| stay.footprint.overlaps(&footprint));
    match in_its_way {
        None => Ok(()),
        Some(stay) => Err(fault(
            "tray",
            &tray.id,
            say!(
                "{other} stands in the way of {tray} there from {from} to {to}",
                other = &stay.tray.name,
                tray = &tray.name,
                from = stay.days.from,
                to = stay.days.to
            ),
            say!("free that spot first, or choose another"),
        )),
    }
}
