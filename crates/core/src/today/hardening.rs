//! Hardening off day by day, and a frost at night.

use crate::basis::dates::days_between;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::day::frost_night::FrostNight;
use crate::log::fact::Fact;
use crate::plan::{Stage, Tray};
use crate::season::SowingDates;
use crate::season::moments::PartSpan;
use crate::site::air::Air;
use crate::today::job::{Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where};
use crate::warmth::around::{air_around, outdoors};
use crate::warmth::transfer::{WARMEST_H, air_at, hours_over};

/// Hours out on the first day, and so many more on each that follows (common practice, no source).
const FIRST_HOURS: f64 = 2.0;
const MORE_HOURS: f64 = 1.0;
/// From so many hours on they stay out all day.
const ALL_DAY_HOURS: f64 = 8.0;
/// On so many last days they stay out at night too, if no frost comes (common practice, no source).
const NIGHTS_OUT: i32 = 2;
/// A frost that is less likely than this to come at all is not spoken of.
const LEAST_RISK: f64 = 0.03;

/// What hardens off today, what is to come in tonight, and what a frost would kill.
pub(super) fn jobs(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let mut out: Vec<Group<'_>> = Vec::new();
    let mut back: Vec<Group<'_>> = Vec::new();
    let plan = walk.reckoned.plan;
    for dates in walk.reckoned.dates.iter() {
        for tray in hardening(walk, dates) {
            let crop = plan.crop(&plan.sowings[plan.sowing_index(&dates.sowing)]);
            let at = at(walk, tray);
            let air = air_there(walk, &at);
            let least_air_c = crop.least_air_c.max(0.0);
            let own = Hardens {
                tray,
                name: &dates.name,
                least_air_c,
                warm_hours: hours_over(air.day_c, air.night_c, least_air_c),
                day: days_between(dates.harden, walk.date) + 1,
                of: days_between(dates.harden, dates.out).max(1),
            };
            let past = plan.happened().tray(&tray.id);
            match past.and_then(|past| past.outdoors) {
                // A cold frame is their night quarters already.
                Some((day, true)) if day == walk.date => {
                    if at == Where::Outside && !own.nights_out() {
                        add(&mut back, at, own);
                    }
                }
                Some((day, false)) if day == walk.date => {}
                _ => add(&mut out, at, own),
            }
        }
    }
    let out = out
        .into_iter()
        .map(|(at, trays)| out_today(walk, at, &trays));
    let back = back
        .into_iter()
        .map(|(at, trays)| back_in(walk, at, &trays));
    out.chain(back).chain(frost(walk)).collect()
}

/// A tray on one of its days of hardening off.
struct Hardens<'a> {
    tray: &'a Tray,
    name: &'a str,
    /// The coldest air that it stands, in °C.
    least_air_c: f64,
    /// The hours in which a usual day is warm enough for it.
    warm_hours: f64,
    day: i32,
    of: i32,
}

/// Trays that are in the same place.
type Group<'a> = (Where, Vec<Hardens<'a>>);

fn add<'a>(groups: &mut Vec<Group<'a>>, at: Where, own: Hardens<'a>) {
    match groups.iter_mut().find(|(here, _)| here.same_place(&at)) {
        Some((_, trays)) => trays.push(own),
        None => groups.push((at, vec![own])),
    }
}

/// The trays of a sowing that harden off on the day.
fn hardening<'a>(walk: &Walk<'a, '_>, dates: &'a SowingDates) -> Vec<&'a Tray> {
    let plan = walk.reckoned.plan;
    let is_one = |tray: &&Tray| {
        let span = PartSpan::of(plan, tray, dates);
        span.stage_on(walk.date) == Some(Stage::Harden)
            && tray.parts[0].sowing == dates.sowing
            && walk.is_sown(&tray.id)
    };
    plan.trays_of(&dates.sowing).filter(is_one).collect()
}

/// Where it stands outdoors, or just outdoors.
fn at(walk: &Walk<'_, '_>, tray: &Tray) -> Where {
    let plan = walk.reckoned.plan;
    match walk.stands(&tray.id, walk.date) {
        Where::At(bay) if plan.place(&bay.place).is_some_and(|place| place.outdoors()) => {
            Where::At(bay)
        }
        _ => Where::Outside,
    }
}

impl Hardens<'_> {
    fn note(&self, outdoors: bool) -> JobFact {
        let fact = Fact::Hardening {
            tray: self.tray.id.clone(),
            outdoors,
        };
        JobFact::of(self.tray, fact)
    }

    fn nights_out(&self) -> bool {
        self.day > self.of - NIGHTS_OUT && self.of > NIGHTS_OUT
    }

    /// The hours that it is out today: an hour more each day, as long as it is warm enough.
    fn hours(&self) -> f64 {
        let hours = FIRST_HOURS + MORE_HOURS * f64::from(self.day - 1);
        hours.min(self.warm_hours.floor())
    }

    /// How long it is out today.
    fn how_long(&self) -> Statement {
        let hours = self.hours();
        match () {
            () if self.warm_hours < 1.0 => say!("in, until a milder day"),
            () if self.nights_out() => say!("day and night"),
            () if hours >= ALL_DAY_HOURS => say!("all day"),
            () => say!("{hours}", hours = Quantity::Hours.of(hours)),
        }
    }
}

/// All trays of a group by name where they are of one sowing, else their number.
fn named(
    trays: &[Hardens<'_>],
    one: fn(&str) -> Statement,
    all: fn(f64) -> Statement,
) -> Statement {
    match trays {
        [first, rest @ ..] if rest.iter().all(|own| own.name == first.name) => one(first.name),
        _ => all(trays.len() as f64),
    }
}

fn out_today(walk: &Walk<'_, '_>, at: Where, trays: &[Hardens<'_>]) -> Placed {
    let notes = trays.iter().map(|own| JobFact {
        to: Some(own.how_long()),
        ..own.note(true)
    });
    let reason = how(walk, &at, trays);
    let headline = named(
        trays,
        |name| say!("Harden off {name}", name = name),
        |n| say!("Harden off {n} trays", n = Quantity::Count.of(n)),
    );
    let id = format!("out/{}", at.place().unwrap_or("outside"));
    let named = (id, JobKind::Harden, walk.date);
    let job = walk.job(named, [headline, reason], &at, notes.collect());
    (at, job)
}

/// The air of a usual day where they harden off.
fn air_there(walk: &Walk<'_, '_>, at: &Where) -> Air {
    let site = &walk.reckoned.plan.site;
    match at.place().and_then(|id| walk.reckoned.plan.place(id)) {
        Some(place) => air_around(site, place, walk.date),
        None => outdoors(site, walk.date),
    }
}

/// When those that have been out least go out, and what weather brings them in: by the air of a usual day, and
/// what the tenderest stands.
fn how(walk: &Walk<'_, '_>, at: &Where, trays: &[Hardens<'_>]) -> Statement {
    let by_hours = |a: &&Hardens<'_>, b: &&Hardens<'_>| a.hours().total_cmp(&b.hours());
    let Some(least_used) = trays.iter().min_by(by_hours) else {
        return say!("An hour more each day, with a little more sun and wind");
    };
    let air = air_there(walk, at);
    let stands_c = trays.iter().map(|own| own.least_air_c);
    let least_c = stands_c.fold(0.0, f64::max);
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    let least = celsius(least_c);
    if trays.iter().any(|own| own.warm_hours < 1.0) {
        return say!(
            "A usual day is {day} at its warmest now, and they stand no less than {least}: wait for a milder one",
            day = celsius(air.day_c),
            least = least,
        );
    }
    if least_used.nights_out() {
        return say!(
            "Day and night now: a usual night falls to {night}. Bring them in if less than {least} is forecast",
            night = celsius(air.night_c),
            least = least,
        );
    }
    let hours = least_used.hours();
    if hours >= ALL_DAY_HOURS {
        return say!(
            "All day, up to {day} on a usual one, and in at night. Keep them in if less than {least} is forecast for the day",
            day = celsius(air.day_c),
            least = least,
        );
    }
    let [from_h, to_h] = [-0.5, 0.5].map(|half| WARMEST_H + half * hours);
    let clock = |h: f64| Quantity::ClockH.of(h);
    // At both ends it is as cool as it gets while they are out.
    let coolest = celsius(air_at(air.day_c, air.night_c, from_h));
    if least_used.day == 1 {
        say!(
            "The first time, out of wind and full sun, in the warmest hours: from {from} to {to}, {coolest} or more on a usual day. Nights out come last. Keep them in if less than {least} is forecast",
            from = clock(from_h),
            to = clock(to_h),
            coolest = coolest,
            least = least,
        )
    } else {
        say!(
            "An hour more each day, with a little more sun and wind: from {from} to {to}, {coolest} or more on a usual day. Nights out come last. Keep them in if less than {least} is forecast",
            from = clock(from_h),
            to = clock(to_h),
            coolest = coolest,
            least = least,
        )
    }
}

/// What went out today and comes in for the night.
fn back_in(walk: &Walk<'_, '_>, at: Where, trays: &[Hardens<'_>]) -> Placed {
    let notes = trays.iter().map(|own| own.note(false)).collect();
    let headline = named(
        trays,
        |name| say!("Bring {name} back in", name = name),
        |n| say!("Bring {n} trays back in", n = Quantity::Count.of(n)),
    );
    let reason = say!("Before dusk: nights out come on the last days only");
    let named = ("in/outside".to_owned(), JobKind::BackIn, walk.date);
    let job = walk.job(named, [headline, reason], &at, notes);
    (at, job)
}

/// What is carried in where a frost is forecast, and where to.
fn frost(walk: &Walk<'_, '_>) -> Option<Placed> {
    let risk = walk.reckoned.plan.site.frost_risk(walk.date);
    if risk < LEAST_RISK {
        return None;
    }
    let night = FrostNight::on(walk.reckoned, walk.date)?;
    let brought_in = |tray: &str| {
        let past = walk.reckoned.plan.happened().tray(tray);
        past.and_then(|past| past.outdoors) == Some((walk.date, false))
    };
    let inside = |tray: &str| brought_in(tray) || !walk.is_sown(tray);
    let notes = night.carry.iter().filter(|own| !inside(&own.tray));
    let notes = notes.filter_map(|own| {
        let tray = walk.tray(&own.tray)?;
        let fact = Fact::Hardening {
            tray: own.tray.clone(),
            outdoors: false,
        };
        Some(JobFact {
            to: Some(own.to.clone()),
            ..JobFact::of(tray, fact)
        })
    });
    let notes: Vec<JobFact> = notes.collect();
    if notes.is_empty() {
        return None;
    }
    let n = Quantity::Count.of((notes.len() + night.left.len()) as f64);
    let headline = say!("If frost is forecast tonight, bring in {n} trays", n = n);
    let reason = match night.left.len() {
        0 => say!(
            "The chance that a frost still comes this spring is {risk}. Each has a spot inside",
            risk = Quantity::Share.of(risk)
        ),
        left => say!(
            "The chance that a frost still comes this spring is {risk}. {left} find no room: cover them",
            risk = Quantity::Share.of(risk),
            left = Quantity::Count.of(left as f64)
        ),
    };
    let at = Where::Outside;
    let named = ("frost/tonight".to_owned(), JobKind::FrostNight, walk.date);
    let job = walk.job(named, [headline, reason], &at, notes);
    let recurring = true;
    Some((at, Job { recurring, ..job }))
}
