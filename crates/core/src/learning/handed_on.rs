//! What a season hands on to the next: corrections, what is left of the seed, what was late, lost or too much.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::days_between;
use crate::basis::learned::Learned;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::learning::packets::called;
use crate::plan::{Plan, Sowing};
use crate::room::bays;
use crate::season::{Reckoned, SowingDates};

/// Something that a season hands on to the next.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HandedOn {
    /// Its name, by which it is taken or left.
    pub id: String,
    /// What it is about.
    pub of: HandedOf,
    /// What happened.
    pub words: Statement,
    /// What is taken over.
    pub takes: Statement,
    /// Whether it is taken over where nobody says.
    pub taken: bool,
    /// How the next season's plan has it.
    #[serde(skip)]
    change: Change,
}

/// What it is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HandedOf {
    /// A correction that was accepted.
    Correction,
    /// What is left of a packet.
    Seed,
    /// Something was late.
    Late,
    /// Plants were lost.
    Lost,
    /// There was more than was wanted.
    TooMuch,
}

/// What is changed in the next season's plan, by index: as it is taken, or as it is left.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Change {
    Lamps {
        place: usize,
        tier: usize,
    },
    Mat {
        place: usize,
        tier: usize,
        mat: usize,
    },
    Air {
        place: usize,
        by_day: bool,
    },
    Packet {
        packet: usize,
    },
    ComesUp {
        crop: usize,
    },
    Tall {
        crop: usize,
    },
    SeedsLeft {
        packet: usize,
        left: u32,
    },
    Later {
        sowing: usize,
        days: i32,
    },
    Spare {
        sowing: usize,
        spare: f64,
    },
}

/// Later than planned by fewer days is no habit (our own judgement).
const LATE_DAYS: i32 = 4;
/// More plants than reckoned were lost, or left over, by so many of those wanted (our own judgement).
const MORE_LOST: f64 = 0.1;
const TOO_MUCH: f64 = 0.25;

/// What the season that is `reckoned` after its log hands on, when its plan alone had the dates `planned`.
pub fn handed_on(reckoned: &Reckoned<'_>, planned: &[SowingDates]) -> Vec<HandedOn> {
    let mut all = corrections(reckoned.plan);
    all.extend(seeds(reckoned));
    for dates in reckoned.dates.iter() {
        let index = reckoned.plan.sowing_index(&dates.sowing);
        all.extend(late(reckoned, dates, planned[index].sow, index));
        all.extend(numbers(reckoned, dates, index));
    }
    all
}

/// `plan` a year later, with what is `handed_on` taken over where `takes` says so of its name, and left out elsewhere.
pub fn next_year(plan: Plan, handed_on: &[HandedOn], takes: impl Fn(&HandedOn) -> bool) -> Plan {
    let mut next = plan.next_year();
    for own in handed_on {
        own.change.apply(&mut next, takes(own));
    }
    next
}

impl Change {
    /// A correction stays unless it is left out; all else is as it was unless it is taken.
    fn apply(self, plan: &mut Plan, taken: bool) {
        match (self, taken) {
            (Self::Lamps { place, tier }, false) => {
                let lamps = plan.places[place].tiers[tier].lamps.iter_mut();
                lamps.for_each(|lamp| lamp.measured = None);
            }
            (Self::Mat { place, tier, mat }, false) => {
                plan.places[place].tiers[tier].mats[mat].measured = None;
            }
            (Self::Air { place, by_day }, false) => {
                let place = &mut plan.places[place];
                let air = if by_day {
                    &mut place.air_day_k
                } else {
                    &mut place.air_night_k
                };
                *air = None;
            }
            (Self::Packet { packet }, false) => plan.packets[packet].counted = None,
            (Self::ComesUp { crop }, false) => plan.crops[crop].comes_up_here = None,
            (Self::Tall { crop }, false) => plan.crops[crop].tall_here = None,
            (Self::SeedsLeft { packet, left }, true) => plan.packets[packet].seeds = Some(left),
            (Self::Later { sowing, days }, true) => plan.sowings[sowing].shift_days += days,
            (Self::Spare { sowing, spare }, true) => {
                plan.sowings[sowing].spare = (spare > 0.0).then_some(spare);
            }
            _ => (),
        }
    }
}

fn corrections(plan: &Plan) -> Vec<HandedOn> {
    let mut all = Vec::new();
    let mut add = |id: String, what: String, learned: Option<Learned>, quantity, change| {
        let Some(learned) = learned else { return };
        all.push(HandedOn {
            id,
            of: HandedOf::Correction,
            words: say!(
                "{what}: {learned}",
                what = what,
                learned = learned.words(quantity).to_string()
            ),
            takes: say!("The correction stays"),
            taken: true,
            change,
        });
    };
    for bay in bays(&plan.places) {
        let (place, tier) = (bay.place_index, bay.tier_index);
        let at = format!("{}/{}", bay.place.id, bay.tier.id);
        let lamps = bay.tier.lamps.first().and_then(|lamp| lamp.measured);
        let name = format!("Lamps of {}", bay.name());
        add(
            format!("lamps/{at}"),
            name,
            lamps,
            Quantity::Share,
            Change::Lamps { place, tier },
        );
        for (mat, own) in bay.tier.mats.iter().enumerate() {
            let name = format!("{}, {}", own.name, bay.name());
            let id = format!("mat/{at}/{}", own.id);
            add(
                id,
                name,
                own.measured,
                Quantity::Share,
                Change::Mat { place, tier, mat },
            );
        }
    }
    for (i, place) in plan.places.iter().enumerate() {
        for (by_day, learned, when) in [
            (true, place.air_day_k, "day"),
            (false, place.air_night_k, "night"),
        ] {
            let name = format!("Air around {} by {when}", place.name);
            let change = Change::Air { place: i, by_day };
            add(
                format!("air_{when}/{}", place.id),
                name,
                learned,
                Quantity::DifferenceK,
                change,
            );
        }
    }
    for (i, packet) in plan.packets.iter().enumerate() {
        let crop = plan.find_crop(&packet.crop).map_or("", |crop| &crop.name);
        let id = format!("packet/{}", packet.id);
        let change = Change::Packet { packet: i };
        add(
            id,
            called(packet, crop),
            packet.counted,
            Quantity::Share,
            change,
        );
    }
    for (i, crop) in plan.crops.iter().enumerate() {
        let (up, tall) = (Change::ComesUp { crop: i }, Change::Tall { crop: i });
        let name = |what: &str| format!("{what} {}", crop.name);
        let id = |what: &str| format!("{what}/{}", crop.id);
        add(
            id("comes_up"),
            name("How fast comes up"),
            crop.comes_up_here,
            Quantity::Share,
            up,
        );
        add(
            id("height"),
            name("How tall grows"),
            crop.tall_here,
            Quantity::Share,
            tall,
        );
    }
    all
}

/// What is left of packets that were sown from, by the log.
fn seeds(reckoned: &Reckoned<'_>) -> Vec<HandedOn> {
    let plan = reckoned.plan;
    let each = plan.packets.iter().enumerate().filter_map(|(packet, own)| {
        let have = own.seeds?;
        let sown = plan.sowings.iter().filter(|sowing| {
            let of_it = sowing.packet.as_ref() == Some(&own.id);
            let dates = &reckoned.dates[plan.sowing_index(&sowing.id)];
            of_it && (dates.sown_logged || sowing.sown)
        });
        let used = sown.filter_map(|sowing| {
            let cells = reckoned.cells_of(&sowing.id)?;
            let seeds = cells.to_sow.as_ref()?;
            // Not every cell need be sown.
            Some((seeds.seeds_per_cell * cells.cells_there.max(1)).min(seeds.seeds))
        });
        let used = used.sum::<u32>().min(have);
        let left = have.saturating_sub(used);
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        let crop = plan.find_crop(&own.crop).map_or("", |crop| &crop.name);
        let name = called(own, crop);
        (used > 0).then(|| HandedOn {
            id: format!("seeds/{}", own.id),
            of: HandedOf::Seed,
            words: say!(
                "{packet}: about {used} of {have} seeds were sown",
                packet = name,
                used = count(used),
                have = count(have)
            ),
            takes: say!("{left} are left, a year older", left = count(left)),
            taken: true,
            change: Change::SeedsLeft { packet, left },
        })
    });
    each.collect()
}

/// A sowing that was sown later than planned.
fn late(
    reckoned: &Reckoned<'_>,
    dates: &SowingDates,
    planned: Date,
    sowing: usize,
) -> Option<HandedOn> {
    let own: &Sowing = &reckoned.plan.sowings[sowing];
    let days = days_between(planned, dates.sow);
    let late = Quantity::Days.of(f64::from(days));
    (dates.sown_logged && days >= LATE_DAYS && own.sow_on.is_none()).then(|| HandedOn {
        id: format!("late/{}", own.id),
        of: HandedOf::Late,
        words: say!(
            "{name} was sown {late} later than planned",
            name = &dates.name,
            late = late.clone()
        ),
        takes: say!(
            "Plan it {late} later: when there was time for it",
            late = late
        ),
        taken: false,
        change: Change::Later { sowing, days },
    })
}

/// Plants that were lost, or too many.
fn numbers(reckoned: &Reckoned<'_>, dates: &SowingDates, sowing: usize) -> Vec<HandedOn> {
    let plan = reckoned.plan;
    let own = &plan.sowings[sowing];
    let (mut lost, mut out) = (0u32, 0u32);
    let mut known = false;
    for tray in plan.trays_of(&own.id) {
        let Some(past) = plan.happened().tray(&tray.id) else {
            continue;
        };
        lost += past.lost;
        if past.planted_out.is_some() {
            known = true;
            out += past.plants.unwrap_or(0).saturating_sub(past.lost);
        }
    }
    let wanted = f64::from(own.wanted.max(1));
    let expected = plan.crop(own).losses;
    let count = |n: u32| Quantity::Count.of(f64::from(n));
    let mut all = Vec::new();
    let share = f64::from(lost) / (wanted + f64::from(lost));
    if share > expected + MORE_LOST {
        let spare = own
            .spare
            .unwrap_or(0.0)
            .max((f64::from(lost) / wanted * 20.0).round() / 20.0)
            .min(2.0);
        all.push(HandedOn {
            id: format!("lost/{}", own.id),
            of: HandedOf::Lost,
            words: say!(
                "{n} plants of {name} were lost",
                n = count(lost),
                name = &dates.name
            ),
            takes: say!("Raise {spare} to spare", spare = Quantity::Share.of(spare)),
            taken: true,
            change: Change::Spare { sowing, spare },
        });
    }
    let over = f64::from(out) - wanted;
    if known && over > TOO_MUCH * wanted && own.spare.is_some_and(|spare| spare > 0.0) {
        all.push(HandedOn {
            id: format!("too_much/{}", own.id),
            of: HandedOf::TooMuch,
            words: say!(
                "{n} plants of {name} went out, and {wanted} were wanted",
                n = count(out),
                name = &dates.name,
                wanted = count(own.wanted)
            ),
            takes: say!("Raise none to spare"),
            taken: true,
            change: Change::Spare { sowing, spare: 0.0 },
        });
    }
    all
}
