//! The log in short: what of it dates and jobs follow from.

use jiff::civil::Date;

use crate::log::detail::Dome;
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::happened::{Count, Happened, TrayPast};

impl Told {
    /// What happened, as far as dates and jobs follow from it.
    pub fn happened(&self) -> Happened {
        let mut happened = Happened::default();
        for entry in self.all() {
            take(&mut happened, entry);
        }
        happened
    }
}

/// The earlier of two days: what is done twice was done on the first.
fn first(known: &mut Option<Date>, day: Date) {
    *known = Some(known.map_or(day, |known| known.min(day)));
}

/// Adds one entry; they come in the order in which they happened.
fn take(happened: &mut Happened, entry: &Entry) {
    let on = entry.on;
    let Some(fact) = &entry.fact else { return };
    let into = |past: &mut TrayPast, plants: u32| {
        first(&mut past.potted_into, on);
        past.plants = Some(past.plants.unwrap_or(0) + plants);
    };
    match fact {
        Fact::Sown { tray } => first(&mut happened.tray_mut(tray).sown, on),
        Fact::Shown {
            tray,
            sowing,
            count,
            of,
        } => happened.tray_mut(tray).counts.push(Count {
            on,
            sowing: sowing.clone(),
            count: *count,
            of: *of,
        }),
        Fact::Thinned { tray, left } => {
            let past = happened.tray_mut(tray);
            first(&mut past.thinned, on);
            (past.plants, past.lost) = (Some(*left), 0);
        }
        Fact::PrickedOut {
            tray,
            into: pots,
            plants,
        } => {
            first(&mut happened.tray_mut(tray).pricked_out, on);
            into(happened.tray_mut(pots), *plants);
        }
        Fact::PottedOn {
            tray,
            into: pots,
            plants,
        } => {
            first(&mut happened.tray_mut(tray).potted_on, on);
            into(happened.tray_mut(pots), *plants);
        }
        Fact::Moved { tray, bay } => happened.tray_mut(tray).moved.push((on, bay.clone())),
        Fact::Watered { tray, water_ml } => {
            happened.tray_mut(tray).watered = Some((on, *water_ml));
        }
        Fact::Fed { tray, .. } => happened.tray_mut(tray).fed = Some(on),
        Fact::MatSwitched { bay, on: running } => {
            happened.bay_mut(bay).mats = Some((on, *running));
        }
        Fact::Dome { tray, dome } => {
            let past = happened.tray_mut(tray);
            match dome {
                // Back on it may have to come off once more.
                Dome::On => (past.vented, past.dome_off) = (None, None),
                Dome::Vented => first(&mut past.vented, on),
                Dome::Off => first(&mut past.dome_off, on),
            }
        }
        Fact::Hardening { tray, outdoors } => {
            let past = happened.tray_mut(tray);
            if *outdoors {
                first(&mut past.hardened_from, on);
                if past.outdoors.is_none_or(|(last, _)| last != on) {
                    past.hardened_days += 1;
                }
            }
            past.outdoors = Some((on, *outdoors));
        }
        Fact::PlantedOut { tray, .. } => first(&mut happened.tray_mut(tray).planted_out, on),
        Fact::Lost { tray, plants, .. } => happened.tray_mut(tray).lost += plants,
        Fact::Done { job } => happened.job_mut(job).done = Some(on),
        Fact::PutOff { job, until } => happened.job_mut(job).put_off = Some(*until),
        Fact::Skipped { job } => happened.job_mut(job).skipped = Some(on),
        Fact::LampSet { bay, .. } => happened.bay_mut(bay).lamps_set = Some(on),
        Fact::Measured { .. } | Fact::Noted { .. } => (),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::testing::{bay, noted};
    use jiff::civil::date;

    #[test]
    fn the_first_day_of_what_is_done_once_and_the_last_of_what_comes_again() {
        let tray = || "t".to_owned();
        let day = |day| date(2027, 4, day);
        let told = Told::of([
            noted(day(3), Fact::Sown { tray: tray() }),
            noted(day(1), Fact::Sown { tray: tray() }),
            noted(
                day(9),
                Fact::Watered {
                    tray: tray(),
                    water_ml: Some(300.0),
                },
            ),
            noted(
                day(5),
                Fact::Watered {
                    tray: tray(),
                    water_ml: None,
                },
            ),
            noted(
                day(6),
                Fact::Moved {
                    tray: tray(),
                    bay: bay("door", "t1"),
                },
            ),
            noted(
                day(7),
                Fact::Thinned {
                    tray: tray(),
                    left: 40,
                },
            ),
            noted(
                day(8),
                Fact::Lost {
                    tray: tray(),
                    plants: 3,
                    why: crate::log::detail::Loss::Dry,
                },
            ),
        ]);
        let happened = told.happened();
        let past = happened.tray("t").expect("it has a past");
        assert_eq!(past.sown, Some(day(1)));
        assert_eq!(past.watered, Some((day(9), Some(300.0))));
        assert_eq!(past.moved, [(day(6), bay("door", "t1"))]);
        assert_eq!((past.plants, past.lost), (Some(40), 3));
        assert_eq!(happened.tray("other"), None);
    }

    #[test]
    fn a_day_out_and_back_in_is_one_day_of_hardening() {
        let out = |day, outdoors| {
            let tray = "t".to_owned();
            noted(date(2027, 5, day), Fact::Hardening { tray, outdoors })
        };
        let told = Told::of([out(1, true), out(1, false), out(2, true), out(2, false)]);
        let happened = told.happened();
        let past = happened.tray("t").expect("it has a past");
        assert_eq!(past.hardened_days, 2);
        assert_eq!(past.hardened_from, Some(date(2027, 5, 1)));
        assert_eq!(past.outdoors, Some((date(2027, 5, 2), false)));
    }

    #[test]
    fn jobs_and_mats_keep_their_last_word() {
        let job = || "clean/room".to_owned();
        let told = Told::of([
            noted(date(2027, 4, 1), Fact::Done { job: job() }),
            noted(
                date(2027, 4, 2),
                Fact::PutOff {
                    job: job(),
                    until: date(2027, 4, 5),
                },
            ),
            noted(date(2027, 4, 3), Fact::Skipped { job: job() }),
            noted(
                date(2027, 4, 3),
                Fact::MatSwitched {
                    bay: bay("door", "t3"),
                    on: false,
                },
            ),
        ]);
        let happened = told.happened();
        let own = happened.job("clean/room");
        assert_eq!(own.done, Some(date(2027, 4, 1)));
        assert_eq!(own.put_off, Some(date(2027, 4, 5)));
        assert_eq!(own.skipped, Some(date(2027, 4, 3)));
        let mats = happened.bay(&bay("door", "t3")).mats;
        assert_eq!(mats, Some((date(2027, 4, 3), false)));
    }
}
