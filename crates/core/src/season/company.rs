//! Who stands where on a day: the one owner of it for dates, sheets and comparisons.

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::plane::Footprint;
use crate::plan::{Part, SoundPlan, Stage, Stand, Tray};
use crate::room::container::TrayFormat;
use crate::room::{Bay, BayRef};
use crate::season::moments::{PartSpan, TrayMoments, in_light};
use crate::season::sowing_dates::SowingDates;
use crate::warmth::occupant::Occupant;

/// A tray that stands in a bay.
#[derive(Debug, Clone)]
pub struct Present<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// Its kind.
    pub format: &'a TrayFormat,
    /// Its stage as a whole.
    pub stage: Stage,
    /// Where it stands.
    pub stand: &'a Stand,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// Whether not all of it is up: it wants warmth and damp.
    pub coming_up: bool,
    /// Whether its dome is on: where it germinates, and on what grows where domes stay on, unless the place, or
    /// a tray stacked on it, keeps the damp in already.
    pub domed: bool,
    /// Whether others are stacked on it, so that it lies dark.
    pub covered: bool,
    /// What is sown in it, part by part.
    pub parts: Vec<PresentPart>,
}

/// A part of such a tray.
#[derive(Debug, Clone, Copy)]
pub struct PresentPart {
    /// Its own stage; `None` while the rest of the tray is sown and it is not.
    pub stage: Option<Stage>,
    /// Whether it is in the tray.
    pub there: bool,
    /// Whether its lamps are to burn.
    pub wants_light: bool,
}

/// Whether a tray of `format` wears its dome in `bay`: while it germinates, and on what grows where domes
/// stay on; not where the place keeps the damp in already.
pub fn wears_dome(format: &TrayFormat, bay: &Bay<'_>, stage: Stage) -> bool {
    let worn = match stage {
        Stage::Germinate => true,
        Stage::Grow => bay.tier.domes_growing,
        Stage::Harden | Stage::Out => false,
    };
    worn && format.dome_height_mm.is_some() && !bay.place.keeps_damp_in()
}

impl<'a> Present<'a> {
    fn new(
        plan: &'a SoundPlan,
        tray: &'a Tray,
        (stage, stand): (Stage, &'a Stand),
        coming_up: bool,
        bay: &Bay<'_>,
    ) -> Self {
        let format = plan.format(tray);
        Self {
            tray,
            format,
            stage,
            stand,
            footprint: stand.footprint(format),
            coming_up,
            domed: wears_dome(format, bay, stage),
            covered: false,
            parts: Vec::new(),
        }
    }

    /// The same as warmth and damp know it.
    pub fn occupant(&self) -> Occupant<'a> {
        let grows = |part: &PresentPart| part.stage == Some(Stage::Grow);
        Occupant {
            tray: &self.tray.id,
            format: self.format,
            footprint: self.footprint,
            coming_up: self.coming_up,
            up: self.parts.iter().any(grows),
            domed: self.domed,
            covered: self.covered,
            wants_lamps: self.parts.iter().any(|part| part.wants_light),
        }
    }
}

/// When everything of a plan happens, as far as it is known.
#[derive(Debug, Clone, Copy)]
pub(super) struct Known<'a> {
    /// The dates of every sowing, in the plan's order.
    pub(super) dates: &'a [SowingDates],
    /// The moments of every tray, in the plan's order.
    pub(super) moments: &'a [TrayMoments],
}

impl Known<'_> {
    /// Whether everybody stands where they do in `other` on every day.
    pub(super) fn alike(&self, other: &Known<'_>) -> bool {
        let mut sowings = 0..self.dates.len();
        self.moments == other.moments && sowings.all(|sowing| self.turns_alike(other, sowing))
    }

    /// Whether the stages of the sowing at `sowing` begin on the days that they do in `other`.
    pub(super) fn turns_alike(&self, other: &Known<'_>, sowing: usize) -> bool {
        let turns = |d: &SowingDates| (d.sow, d.emerge, d.lamps_on, d.harden, d.out);
        let [own, theirs] = [self.dates, other.dates].map(|dates| &dates[sowing]);
        turns(own) == turns(theirs) && own.potting == theirs.potting
    }
}

/// The trays in `bay` on `date`, in the plan's order, of sowings with their `dates`.
pub fn present<'a>(
    plan: &'a SoundPlan,
    dates: &[SowingDates],
    moments_of: impl Fn(&Tray) -> TrayMoments,
    bay: &Bay<'_>,
    date: Date,
) -> Vec<Present<'a>> {
    present_as_on(plan, dates, moments_of, bay, |_| date)
}

/// The same with each tray as it is on a date of its own.
fn present_as_on<'a>(
    plan: &'a SoundPlan,
    dates: &[SowingDates],
    moments_of: impl Fn(&Tray) -> TrayMoments,
    bay: &Bay<'_>,
    date_of: impl Fn(&Tray) -> Date,
) -> Vec<Present<'a>> {
    let trays = plan.trays_in(bay);
    let there = |tray: &'a Tray| {
        let (moments, date) = (moments_of(tray), date_of(tray));
        let stage = moments.stage_on(date)?;
        let here = |stand: &&Stand| is_in(&stand.bay, bay);
        let stand = tray.stand_on(stage, date).filter(here)?;
        let coming_up = moments.coming_up(date);
        Some(Present {
            parts: parts(plan, dates, tray, bay, (stage, date)),
            ..Present::new(plan, tray, (stage, stand), coming_up, bay)
        })
    };
    let mut all: Vec<Present<'a>> = trays.filter_map(there).collect();
    cover(&mut all);
    all
}

fn is_in(stand: &BayRef, bay: &Bay<'_>) -> bool {
    stand.place == bay.place.id && stand.tier == bay.tier.id
}

/// The parts of `tray`, which is in `stage` in `bay` on `date`.
fn parts(
    plan: &SoundPlan,
    dates: &[SowingDates],
    tray: &Tray,
    bay: &Bay<'_>,
    (stage, date): (Stage, Date),
) -> Vec<PresentPart> {
    let wants_lamps = bay.tier.lamps_germinating && stage == Stage::Germinate;
    let part = |part: &Part| {
        let dates = &dates[plan.sowing_index(&part.sowing)];
        let span = PartSpan::of(plan, tray, dates);
        let there = span.is_there(date);
        PresentPart {
            stage: span.stage_on(date),
            there,
            wants_light: there && (wants_lamps || dates.wants_lamps_on(date)),
        }
    };
    tray.parts.iter().map(part).collect()
}

/// What others are stacked on lies dark, and needs no dome.
fn cover(all: &mut [Present<'_>]) {
    for upper in 0..all.len() {
        if !all[upper].stand.stacked {
            continue;
        }
        let footprint = all[upper].footprint;
        let below = all.iter_mut().filter(|s| !s.stand.stacked);
        for lower in below.filter(|s| s.footprint.overlaps(&footprint)) {
            (lower.covered, lower.domed) = (true, false);
            lower
                .parts
                .iter_mut()
                .for_each(|part| part.wants_light = false);
        }
    }
}

/// A tray whose sowing is looked at, maybe sown on another day than was known: it and others with the same
/// in them are so much later in all.
#[derive(Debug, Clone, Copy)]
pub(super) struct Sown<'a> {
    pub(super) tray: &'a Tray,
    sowing: &'a str,
    pub(super) later_days: i32,
}

impl Sown<'_> {
    /// The day on which `tray` was known to be as far as it is on `date`.
    fn known_day(&self, tray: &Tray, date: Date) -> Date {
        let moves = tray.parts.iter().any(|part| part.sowing == self.sowing);
        if moves {
            plus_days(date, -self.later_days)
        } else {
            date
        }
    }
}

/// `tray` while it comes up in `bay` and nobody knows who stands there with it.
fn alone_in<'a>(
    plan: &'a SoundPlan,
    tray: &'a Tray,
    bay: &Bay<'_>,
    date: Date,
) -> Option<Occupant<'a>> {
    let stand = tray.stand_on(Stage::Germinate, date);
    let stand = stand.filter(|stand| is_in(&stand.bay, bay))?;
    let part = |part: &Part| {
        let crop = plan.crop(&plan.sowings[plan.sowing_index(&part.sowing)]);
        PresentPart {
            stage: Some(Stage::Germinate),
            there: true,
            wants_light: bay.tier.lamps_germinating || in_light(crop),
        }
    };
    let present = Present {
        parts: tray.parts.iter().map(part).collect(),
        ..Present::new(plan, tray, (Stage::Germinate, stand), true, bay)
    };
    Some(present.occupant())
}

/// Who stands in the places of a plan, day by day, as far as it is known.
#[derive(Debug, Clone, Copy)]
pub(super) struct Company<'a> {
    plan: &'a SoundPlan,
    /// `None` while nobody knows when anything happens: everybody is alone then.
    known: Option<Known<'a>>,
}

impl<'a> Company<'a> {
    pub(super) fn of(plan: &'a SoundPlan, known: Option<Known<'a>>) -> Self {
        Self { plan, known }
    }

    /// Who is in `bay` on `date`, with what is `sown` on another day than was known.
    pub(super) fn in_bay(
        &self,
        bay: &Bay<'_>,
        date: Date,
        sown: Option<&Sown<'a>>,
    ) -> Vec<Occupant<'a>> {
        let plan = self.plan;
        let Some(known) = self.known else {
            let alone = sown.and_then(|sown| alone_in(plan, sown.tray, bay, date));
            return alone.into_iter().collect();
        };
        let moments_of = |tray: &Tray| {
            let index = plan.tray_index(&tray.id);
            known.moments[index.expect("a plan's tray is in it")]
        };
        let date_of = |tray: &Tray| sown.map_or(date, |sown| sown.known_day(tray, date));
        let all = present_as_on(plan, known.dates, moments_of, bay, date_of);
        all.iter().map(Present::occupant).collect()
    }

    /// Where the tray of `sown` comes up on `date`, until that is known: where it germinates, from when
    /// half is up where it grows. `None` once all of it is up.
    pub(super) fn bed_of(&self, sown: &Sown<'a>, date: Date) -> Option<&'a Stand> {
        let Some(moments) = self.moments_of(sown.tray) else {
            return sown.tray.stand_on(Stage::Germinate, date);
        };
        let date = sown.known_day(sown.tray, date);
        let stage = moments.stage_on(date).filter(|_| moments.coming_up(date))?;
        sown.tray.stand_on(stage, date)
    }

    /// `tray`, of which `sowing` is sown on `on`.
    pub(super) fn sown(&self, tray: &'a Tray, sowing: &'a str, on: Date) -> Sown<'a> {
        let known = self
            .known
            .map(|known| &known.dates[self.plan.sowing_index(sowing)]);
        Sown {
            tray,
            sowing,
            later_days: known.map_or(0, |known| days_between(known.sow, on)),
        }
    }

    /// What changes from day to day outdoors is reckoned once in so many: while nobody knows how long it
    /// takes, a day differs from the last, but not by much.
    pub(super) fn step_days(&self) -> i32 {
        if self.known.is_some() { 1 } else { 7 }
    }

    fn moments_of(&self, tray: &Tray) -> Option<&'a TrayMoments> {
        Some(&self.known?.moments[self.plan.tray_index(&tray.id)?])
    }

    /// Every day on which somebody comes to the place at `index`, leaves it, or is further on there, in
    /// order.
    pub(super) fn turns(&self, index: usize) -> Vec<Date> {
        let Some(known) = self.known else {
            return Vec::new();
        };
        let plan = self.plan;
        let id = &plan.places[index].id;
        let mut turns = Vec::new();
        for (tray, moments) in plan.trays.iter().zip(known.moments) {
            if tray.stands.iter().all(|stand| stand.bay.place != *id) {
                continue;
            }
            turns.extend([
                moments.sow,
                moments.all_up,
                moments.moves,
                moments.harden,
                moments.out,
            ]);
            turns.extend(tray.stands.iter().filter_map(|stand| stand.from));
            for part in &tray.parts {
                let dates = &known.dates[plan.sowing_index(&part.sowing)];
                let span = PartSpan::of(plan, tray, dates);
                turns.extend([span.from, span.harden, span.until, dates.harden]);
                turns.extend(dates.emerge.into_iter().chain(dates.lamps_on));
            }
        }
        turns.sort_unstable();
        turns.dedup();
        turns
    }
}
