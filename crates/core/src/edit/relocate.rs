//! Moving places along the row, and trays from spot to spot.

use jiff::civil::Date;

use crate::basis::fault::Fault;
use crate::basis::plane::{Axis, Footprint};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, unknown};
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Stand, Tray};
use crate::season::Reckoned;
use crate::season::stays::{Stay, days_at};
use crate::space::decks::most_overhang_mm;

impl Editor {
    pub(super) fn move_place(&mut self, place: &str, to: usize) -> Word {
        let from = self.place_index(place)?;
        let last = self.plan.places.len() - 1;
        let place = self.plan.places.remove(from);
        let name = place.name.clone();
        self.plan.places.insert(to.min(last), place);
        Ok(say!("moved {place} along", place = name))
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
        // Turned about its corner, and pushed back as far as the deck's edge wants.
        if let Some(bay) = plan.bay(&stand.bay) {
            let format = plan.format(tray);
            let [x, y] = stand.along.lay(format.length_mm, format.width_mm);
            let (deep_mm, over_mm) = (bay.place.depth_mm, y - bay.place.depth_mm);
            if x > bay.place.width_mm || over_mm > most_overhang_mm(y) {
                return Err(fault(
                    "tray",
                    &tray.id,
                    say!(
                        "turned, {tray} does not fit on {bay}",
                        tray = &tray.name,
                        bay = bay.name()
                    ),
                    say!("leave the tray as it lies, or move it to a larger shelf"),
                ));
            }
            stand.x_mm = stand.x_mm.clamp(0.0, bay.place.width_mm - x);
            stand.y_mm = stand
                .y_mm
                .clamp((deep_mm - y).min(0.0), (deep_mm - y).max(0.0));
        }
        let turned = tray.restood(&stand);
        is_free(&reckoned, &turned, &stand, &[])?;
        self.plan.trays[index] = turned;
        Ok(say!("turned {tray}", tray = &tray.name))
    }

    /// Sets a tray on a box of its own where it stands, or takes the box away.
    pub(super) fn box_under(
        &mut self,
        plan: &SoundPlan,
        tray: &str,
        on: Date,
        box_mm: Option<f64>,
    ) -> Word {
        let index = self.tray_at("tray", tray)?;
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let tray = &plan.trays[index];
        let stand = Stand {
            box_mm: box_mm.filter(|&mm| mm > 0.0),
            ..stand_on(&reckoned, tray, on)?
        };
        self.plan.trays[index] = tray.restood(&stand);
        Ok(match stand.box_mm {
            Some(mm) => say!(
                "set {tray} on a box of {height}",
                tray = &tray.name,
                height = Quantity::LengthMm.of(mm)
            ),
            None => say!("took the box from under {tray}", tray = &tray.name),
        })
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
        let changed = [first.restood(&there), second.restood(&back)];
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

    pub(super) fn tray_at(&self, field: &str, id: &str) -> Result<usize, Vec<Fault>> {
        let trays = &self.plan.trays;
        let index = trays.iter().position(|tray| tray.id == id);
        index.ok_or_else(|| unknown(field, id, trays.iter().map(|tray| tray.id.clone())))
    }
}

/// The spot that a tray has on a date.
fn stand_on(reckoned: &Reckoned<'_>, tray: &Tray, on: Date) -> Result<Stand, Vec<Fault>> {
    let moments = reckoned.moments_of(tray);
    let stage = moments.stage_on(on);
    let stand = stage.and_then(|stage| tray.stand_on(stage, on));
    stand.cloned().ok_or_else(|| {
        fault(
            "on",
            on,
            say!("{tray} stands nowhere then", tray = &tray.name),
            say!("choose a day on which the tray stands on a shelf"),
        )
    })
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
    let days = days_at(plan, &reckoned.dates, tray, stand);
    let stays = |stay: &&Stay<'_>| {
        stay.tray.id != tray.id && goes.iter().all(|other| other.id != stay.tray.id)
    };
    let others = reckoned.stays.iter().filter(stays);
    let mut busy =
        others.filter(|stay| stay.stacked == stand.stacked && stay.is_in(&stand.bay, &days));
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
