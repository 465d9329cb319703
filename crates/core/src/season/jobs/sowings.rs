//! The jobs of a sowing as a whole.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::{Crop, GerminatesIn, GrownFrom};
use crate::plan::{SoundPlan, Sowing, Tray};
use crate::season::how_many::SowingCells;
use crate::season::jobs::event::{Event, EventKind};
use crate::season::reckoned::Reckoned;
use crate::season::sowing_dates::SowingDates;

/// The jobs of every sowing that is raised from seed, cuttings or slips.
pub(super) fn of_sowings(reckoned: &Reckoned<'_>) -> Vec<Event> {
    let plan = reckoned.plan;
    let mut events = Vec::new();
    for (sowing, dates) in plan.sowings.iter().zip(reckoned.dates.iter()) {
        // Stock that passes through has no jobs of its own.
        if sowing.stays.is_some() {
            continue;
        }
        let cells = reckoned.how_many.iter().find(|c| c.sowing == sowing.id);
        let mut trays = plan.sown_in(&sowing.id);
        let shut_in = trays.any(|tray| reckoned.moments_of(tray).shut_in);
        let mut own = plan.sown_in(&sowing.id).peekable();
        let in_flats = own.peek().is_some() && own.all(|tray| tray.sown_together);
        let of = Sown {
            crop: plan.crop(sowing),
            dates,
            cells,
        };
        let jobs = [
            of.chill(),
            // A flat that is shared is sown as one.
            of.sow().filter(|_| !in_flats),
            of.show(shut_in),
            of.thin(),
            of.feed(),
            of.cut_back(first_cut(reckoned, sowing)),
            of.harden(),
            of.plant_out(),
        ];
        let event = |trays: Vec<String>, (what, date, [headline, note]): AJob| Event {
            id: String::new(),
            date,
            what,
            sowing: sowing.id.clone(),
            tray: None,
            trays,
            done: None,
            name: dates.name.clone(),
            headline,
            note,
        };
        for job in jobs.into_iter().flatten() {
            events.push(event(trays_of(plan, dates, job.0), job));
        }
        let cells: Vec<&Tray> = plan.sown_in(&sowing.id).collect();
        for (tray, trays, job) in of.pot_on(&cells) {
            let tray = tray.map(|tray| tray.id.clone());
            let trays = trays.iter().map(|tray| tray.id.clone());
            events.push(Event {
                tray,
                ..event(trays.collect(), job)
            });
        }
    }
    events
}

/// The trays that a job of the sowing with `dates` is done to.
fn trays_of(plan: &SoundPlan, dates: &SowingDates, what: EventKind) -> Vec<String> {
    let id = &dates.sowing;
    let pots = plan.potted_into(id).next().is_some();
    let stays = |tray: &Tray| tray.potted || !pots || dates.pot_on_of(tray).is_none();
    let is_one = |tray: &&Tray| match what {
        EventKind::Chill => false,
        EventKind::Sow => !tray.potted && !tray.sown_together,
        EventKind::CutBack => true,
        EventKind::Harden | EventKind::PlantOut => stays(tray),
        _ => !tray.potted,
    };
    let trays = plan.trays_of(id).filter(is_one);
    trays.map(|tray| tray.id.clone()).collect()
}

/// A job: what it is, its day, and its headline and note.
type AJob = (EventKind, Date, [Statement; 2]);
/// One that a sowing may have.
type Job = Option<AJob>;

/// A sowing with what its jobs speak of.
struct Sown<'a> {
    crop: &'a Crop,
    dates: &'a SowingDates,
    cells: Option<&'a SowingCells>,
}

impl Sown<'_> {
    fn name(&self) -> &str {
        &self.dates.name
    }

    fn chill(&self) -> Job {
        let headline = say!("Start chilling {name}", name = self.name());
        let note = say!(
            "{weeks} in damp paper or mix in the fridge, then sow in the warm",
            weeks = Quantity::Weeks.of(self.crop.cold_weeks)
        );
        Some((EventKind::Chill, self.dates.chill?, [headline, note]))
    }

    fn sow(&self) -> Job {
        let headline = match self.crop.grown_from {
            GrownFrom::Seed => say!("Sow {name}", name = self.name()),
            GrownFrom::Slips => say!("Start {name}", name = self.name()),
            GrownFrom::Cuttings => say!("Stick {name}", name = self.name()),
        };
        let note = how_to_sow(self.crop, self.cells);
        Some((EventKind::Sow, self.dates.sow, [headline, note]))
    }

    /// Out of the dark or a chamber; or light on, where it germinates under lamps.
    fn show(&self, shut_in: bool) -> Job {
        let dates = self.dates;
        let (date, headline, note) = if shut_in {
            let headline = say!("Move {name} into the light", name = self.name());
            let note = say!(
                "About half should be up; in the dark they go leggy within {days}",
                days = Quantity::Days.of(self.crop.dark_days)
            );
            (dates.into_light?, headline, note)
        } else if self.crop.germinates_in == GerminatesIn::Light {
            let note = say!("In the light since the day of sowing");
            (dates.first?, say!("{name} shows", name = self.name()), note)
        } else {
            let headline = say!("{name} shows: light on", name = self.name());
            let note = say!("The first are up: lamps on from now");
            (dates.lamps_on?, headline, note)
        };
        Some((EventKind::Emerge, date, [headline, note]))
    }

    fn thin(&self) -> Job {
        let headline = if self.crop.plants_per_cell > 1 {
            say!("Check the clumps of {name}", name = self.name())
        } else {
            say!("Thin or prick out {name}", name = self.name())
        };
        let note = match self.cells.and_then(|cells| cells.to_sow.as_ref()) {
            Some(sow) => say!(
                "First true leaves: keep the strongest and remove about {thinnings}",
                thinnings = Quantity::Count.of(sow.thinnings.round())
            ),
            None => say!("The first true leaves are there: keep the strongest"),
        };
        Some((EventKind::Thin, self.dates.thin?, [headline, note]))
    }

    fn feed(&self) -> Job {
        let headline = say!("Feed {name} for the first time", name = self.name());
        let note = say!(
            "First true leaves: a quarter of the strength on the label, then half of it once a week"
        );
        Some((EventKind::Feed, self.dates.thin?, [headline, note]))
    }

    fn cut_back(&self, first: Option<Date>) -> Job {
        let headline = say!("Cut {name} back", name = self.name());
        let note = say!(
            "To {tall}, whenever the tops flop over: they grow on from below. What is cut off is good to eat",
            tall = Quantity::LengthMm.of(self.crop.cut_back_mm)
        );
        Some((EventKind::CutBack, first?, [headline, note]))
    }

    /// Each day on which some of its trays of `cells` are full; a job of one group of several is its first
    /// tray's.
    fn pot_on<'t>(&self, cells: &[&'t Tray]) -> Vec<(Option<&'t Tray>, Vec<&'t Tray>, AJob)> {
        let mut days: BTreeMap<Date, Vec<&Tray>> = BTreeMap::new();
        for tray in cells {
            if let Some(day) = self.dates.pot_on_of(tray) {
                days.entry(day).or_default().push(tray);
            }
        }
        if days.len() < 2 {
            let headline = say!("Pot on {name}", name = self.name());
            let all = days.into_values().flatten().collect();
            let job = |day| {
                (
                    None,
                    all,
                    (EventKind::PotOn, day, [headline, self.which_pots()]),
                )
            };
            return self.dates.pot_on.map(job).into_iter().collect();
        }
        let ml = Quantity::VolumeMl.of(self.crop.pot_ml());
        let group = |(day, trays): (Date, Vec<&'t Tray>)| {
            let names: Vec<&str> = trays.iter().map(|tray| tray.name.as_str()).collect();
            let headline = say!(
                "Pot on {name}: {trays}",
                name = self.name(),
                trays = names.join(", ")
            );
            let note = say!(
                "Its cells are full first to last: these now, into pots of {ml}, before roots circle",
                ml = ml.clone()
            );
            (
                trays.first().copied(),
                trays,
                (EventKind::PotOn, day, [headline, note]),
            )
        };
        days.into_iter().map(group).collect()
    }

    fn which_pots(&self) -> Statement {
        let ml = Quantity::VolumeMl.of(self.crop.pot_ml());
        match self.cells.and_then(|cells| cells.pots) {
            Some(pots) => say!(
                "Into {pots} pots of {ml}, before roots circle; the strongest first",
                pots = Quantity::Count.of(f64::from(pots)),
                ml = ml
            ),
            None => say!("Into pots of {ml}, before roots circle", ml = ml),
        }
    }

    fn harden(&self) -> Job {
        let headline = say!("Start hardening off {name}", name = self.name());
        let note = say!(
            "Out by day, in at night, for {days}; keep in if less than {least} is forecast",
            days = Quantity::Days.of(f64::from(self.crop.hardening_days)),
            least = Quantity::TemperatureC.of(self.crop.least_air_c.max(0.0)),
        );
        Some((EventKind::Harden, self.dates.harden, [headline, note]))
    }

    fn plant_out(&self) -> Job {
        let headline = say!("Plant {name} out", name = self.name());
        let note = say!(
            "The chance of another frost is {risk}",
            risk = Quantity::Share.of(self.dates.frost_risk_out)
        );
        Some((EventKind::PlantOut, self.dates.out, [headline, note]))
    }
}

/// The first day on which its tops are as tall as they are cut back to, in any of its trays.
fn first_cut(reckoned: &Reckoned<'_>, sowing: &Sowing) -> Option<Date> {
    let plan = reckoned.plan;
    let tall = plan.crop(sowing).cut_back_mm;
    if tall <= 0.0 {
        return None;
    }
    let trays = plan.trays_of(&sowing.id);
    let days = trays.flat_map(|tray| {
        let grown = reckoned.growing.of_tray(plan, tray).iter().zip(&tray.parts);
        let own = grown.filter(|(_, part)| part.sowing == sowing.id);
        own.filter_map(|(grown, _)| grown.first_day(|plant| plant.height_mm >= tall))
    });
    days.min()
}

/// Whether seed of `crop` is covered, and wants light or dark.
pub fn covered_how(crop: &Crop) -> &'static str {
    match (crop.grown_from, crop.germinates_in) {
        (GrownFrom::Slips, _) => "set the root in water or damp mix, warm",
        (GrownFrom::Cuttings, _) => "stick them, warm and damp",
        (_, GerminatesIn::Light) => "on the surface, in light",
        (_, GerminatesIn::Dark) => "covered, in the dark",
        (_, GerminatesIn::Either) => "covered",
    }
}

fn how_to_sow(crop: &Crop, cells: Option<&SowingCells>) -> Statement {
    let how = covered_how(crop);
    let depth = Quantity::LengthMm.of(crop.sow_depth_mm);
    let warm = Quantity::TemperatureC.of(crop.root_zone_c);
    let count = |n: u32| Quantity::Count.of(f64::from(n));
    match cells.and_then(|cells| cells.to_sow.as_ref()) {
        Some(sow) if crop.grown_from != GrownFrom::Seed => say!(
            "{cells}, one to a place, {depth} deep, {how}; keep the mix at {warm}",
            cells = count(sow.cells),
            depth = depth,
            how = how,
            warm = warm,
        ),
        Some(sow) if sow.open_tray => say!(
            "{seeds} seeds thickly in an open tray, {depth} deep, {how}; prick out into {cells} cells; keep the mix at {warm}",
            seeds = count(sow.seeds),
            cells = count(sow.cells),
            depth = depth,
            how = how,
            warm = warm,
        ),
        Some(sow) => say!(
            "{cells} cells, {each} per cell, {depth} deep, {how}; keep the mix at {warm}",
            cells = count(sow.cells),
            each = count(sow.seeds_per_cell),
            depth = depth,
            how = how,
            warm = warm,
        ),
        None => say!(
            "{depth} deep, {how}, at {warm}",
            depth = depth,
            how = how,
            warm = warm,
        ),
    }
}
