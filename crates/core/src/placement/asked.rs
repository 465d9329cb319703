//! What the solver is asked about a plan: its trays' stages, and the positions that each may use.

use std::collections::{BTreeMap, HashMap};

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::work::go_on;
use crate::placement::hosts::Hosts;
use crate::placement::positions::{Positions, id_of, is_heated, lies_on, positions, usual_format};
use crate::placement::solver::{Answer, Instance, PlaceOf, StageOf, TrayOf};
use crate::plan::{Stage, Stand, Tray};
use crate::room::container::TrayFormat;
use crate::season::Reckoned;
use crate::season::moments::TrayMoments;
use crate::season::suits::{Needs, against};
use crate::space::spots::DeckSpot;

/// What the solver is asked, and what of the room its words mean.
pub(super) struct Asked<'p> {
    pub(super) instance: Instance,
    pub(super) positions: Vec<Positions<'p>>,
    /// For each tray of the plan that is asked about, its stages with their days.
    pub(super) stages: HashMap<String, Vec<(Stage, DateSpan)>>,
    /// The day that it counts as 0.
    pub(super) first: Date,
}

impl<'p> Asked<'p> {
    /// Of all trays that lie on the positions of the room; `None` where there are none.
    pub(super) fn of(reckoned: &Reckoned<'p>, keep: bool, hosts: &Hosts) -> Option<Self> {
        let plan = reckoned.plan;
        let usual = usual_format(plan)?;
        let positions = positions(plan, usual);
        let moments = |tray: &Tray| reckoned.moments_of(tray);
        let first = plan.trays.iter().map(|tray| moments(tray).sow).min()?;
        let last = plan.trays.iter().map(|tray| moments(tray).out).max()?;
        let capacity = positions
            .iter()
            .map(|own| (own.id.clone(), own.spots.len() as u32));
        let mut asked = Self {
            instance: Instance {
                days: u32::try_from(days_between(first, last)).unwrap_or(0).max(1),
                places: capacity
                    .map(|(id, capacity)| PlaceOf { id, capacity })
                    .collect(),
                trays: Vec::new(),
                keep,
            },
            positions,
            stages: HashMap::new(),
            first,
        };
        for tray in &plan.trays {
            go_on();
            let format = plan.format(tray);
            if !lies_on(format, usual) {
                continue;
            }
            if is_fixed(tray) {
                asked.hold(tray, reckoned, first);
                continue;
            }
            let seek = Seek {
                reckoned,
                tray,
                format,
                needs: Needs::of(plan, tray, &reckoned.dates),
                hosts,
                first,
            };
            asked.ask(&seek, &moments(tray));
        }
        asked.hold_what_stands();
        (!asked.instance.trays.is_empty()).then_some(asked)
    }

    /// Where trays were stood by hand, a deck may hold more on one side of a mat than lies there in rows.
    fn hold_what_stands(&mut self) {
        let days = self.instance.days as usize;
        let mut there: HashMap<String, Vec<u32>> = HashMap::new();
        for stage in self.instance.trays.iter().flat_map(|tray| &tray.stages) {
            if let Some(was) = &stage.was {
                let own = there.entry(was.clone()).or_insert_with(|| vec![0; days]);
                own[stage.from as usize..stage.to as usize]
                    .iter_mut()
                    .for_each(|n| *n += 1);
            }
        }
        for place in &mut self.instance.places {
            let most = there.get(&place.id).and_then(|own| own.iter().max());
            place.capacity = place.capacity.max(most.copied().unwrap_or(0));
        }
    }

    /// A tray that stays where it stands takes its place from the others.
    fn hold(&mut self, tray: &Tray, reckoned: &Reckoned<'_>, first: Date) {
        let day = |date: Date| u32::try_from(days_between(first, date)).unwrap_or(0);
        let own = reckoned
            .stays
            .iter()
            .filter(|stay| stay.tray.id == tray.id && !stay.stacked);
        let stages = own.filter_map(|stay| {
            let bay = reckoned.plan.bay(stay.bay)?;
            let id = id_of(stay.bay, is_heated(&bay, &stay.footprint));
            let known = self.positions.iter().any(|own| own.id == id);
            known.then(|| StageOf {
                from: day(stay.days.from),
                to: day(plus_days(stay.days.to, 1)),
                needs_light: false,
                places: BTreeMap::from([(id.clone(), 0)]),
                pinned: Some(id.clone()),
                was: Some(id),
            })
        });
        let mut stages: Vec<StageOf> = stages.collect();
        stages.sort_by_key(|stage| stage.from);
        self.instance.trays.push(TrayOf {
            id: tray.id.clone(),
            weight: 1,
            stages,
        });
    }

    fn ask(&mut self, seek: &Seek<'_, 'p>, moments: &TrayMoments) {
        let mut stages: Vec<(Stage, DateSpan)> = Vec::new();
        let mut of = Vec::new();
        for stage in [Stage::Germinate, Stage::Grow, Stage::Harden] {
            let Some(days) = moments.days_of(stage) else {
                continue;
            };
            let asked = seek.stage(&self.positions, stage, days, self.instance.keep);
            // Hardening off needs no spot of its own: trays may be carried out and in.
            if stage == Stage::Harden && asked.places.is_empty() {
                continue;
            }
            stages.push((stage, days));
            of.push(asked);
        }
        self.instance.trays.push(TrayOf {
            id: seek.tray.id.clone(),
            weight: seek.format.cells().clamp(1, 1000),
            stages: of,
        });
        self.stages.insert(seek.tray.id.clone(), stages);
    }

    /// What grows in each bay by the answer.
    pub(super) fn hosts(&self, reckoned: &Reckoned<'p>, answer: &Answer) -> Hosts {
        let mut hosts = Hosts::default();
        for tray in &reckoned.plan.trays {
            let (Some(stages), Some(places)) =
                (self.stages.get(&tray.id), answer.assignment.get(&tray.id))
            else {
                continue;
            };
            let needs = Needs::of(reckoned.plan, tray, &reckoned.dates);
            for ((stage, days), place) in stages.iter().zip(places) {
                let own = self
                    .positions
                    .iter()
                    .find(|own| Some(&own.id) == place.as_ref());
                if let Some(own) = own.filter(|_| *stage == Stage::Grow) {
                    hosts.add(own.bay.reference(), &needs, *days);
                }
            }
        }
        hosts
    }
}

/// Whether a tray stays exactly as it stands: somebody pinned it, moves it in the middle of a stage,
/// raised it, or stacked it.
fn is_fixed(tray: &Tray) -> bool {
    let own = |stand: &Stand| stand.from.is_some() || stand.box_mm.is_some() || stand.stacked;
    tray.pinned && !tray.stands.is_empty() || tray.stands.iter().any(own)
}

/// A tray that looks for places.
struct Seek<'s, 'p> {
    reckoned: &'s Reckoned<'p>,
    tray: &'s Tray,
    format: &'s TrayFormat,
    needs: Needs,
    hosts: &'s Hosts,
    /// The first day that is looked at.
    first: Date,
}

impl Seek<'_, '_> {
    fn stage(
        &self,
        positions: &[Positions<'_>],
        stage: Stage,
        days: DateSpan,
        keep: bool,
    ) -> StageOf {
        let day = |date: Date| u32::try_from(days_between(self.first, date)).unwrap_or(0);
        let may = positions
            .iter()
            .filter_map(|own| Some((own.id.clone(), self.misfit(own, stage)?)));
        let mut places: BTreeMap<String, u32> = may.collect();
        let now = self.now(stage).filter(|_| keep);
        // Somebody wants it where it stands, whatever speaks against that.
        if let Some(now) = now
            .as_ref()
            .filter(|now| positions.iter().any(|own| own.id == **now))
        {
            places.entry(now.clone()).or_default();
        }
        StageOf {
            from: day(days.from),
            to: day(plus_days(days.to, 1)),
            needs_light: stage == Stage::Grow,
            was: now.filter(|now| places.contains_key(now)),
            places,
            pinned: None,
        }
    }

    /// The positions that it stands on now.
    fn now(&self, stage: Stage) -> Option<String> {
        let stand = self.tray.stand_in(stage)?;
        let bay = self.reckoned.plan.bay(&stand.bay)?;
        let outline = stand.footprint(self.format);
        Some(id_of(&stand.bay, is_heated(&bay, &outline)))
    }

    /// How badly the positions suit it in `stage`; `None` where it cannot stand there.
    fn misfit(&self, own: &Positions<'_>, stage: Stage) -> Option<u32> {
        let (bay, size) = (&own.bay, [self.format.length_mm, self.format.width_mm]);
        let spot = *own.spots.first()?;
        if against(
            bay,
            self.tray,
            self.format,
            stage,
            &[DeckSpot { y_mm: 0.0, ..spot }],
        )
        .is_some()
        {
            return None;
        }
        let misfit = match stage {
            Stage::Germinate if bay.place.outdoors() => return None,
            Stage::Germinate => self.needs.misfit_germinating(bay, &spot.footprint(size)) / 2.0,
            Stage::Grow => {
                let misfit = self.needs.misfit_growing(bay, self.format)?;
                // A mat under what grows lies idle for what germinates.
                let idle = if own.heated { 1.0 } else { 0.0 };
                misfit + idle + self.hosts.misfit(&bay.reference(), &self.needs)
            }
            _ => 0.0,
        };
        Some(misfit.round() as u32)
    }
}
