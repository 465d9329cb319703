//! Rooms that their own lamps warm: whoever asks a sound plan for a room's air has the lamps in it.
//!
//! Which lamps burn when follows from when sowings usually are up (our own estimate), not from their own
//! dates: those depend on the air in turn.

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::units::DAYS_PER_WEEK;
use crate::plan::document::Plan;
use crate::plan::sowing::Sowing;
use crate::plan::tray::{Stage, Tray};
use crate::power::drawn_w;
use crate::site::air::{Air, AirFrom};
use crate::site::room_size::RoomSize;
use crate::warmth::enclosed::WarmingLamp;

/// The air of a room with the lamps that burn in it from a date on.
#[derive(Debug, Clone, PartialEq)]
pub struct LitFrom {
    /// From this date on.
    pub from: Date,
    /// What its lamps draw together while all of them burn, in W.
    pub watts: f64,
    /// Its air as it is without them.
    pub dark: Air,
    /// Its air with them, and with what a humidifier adds.
    pub air: Air,
    /// What a humidifier gives off in a day, in litres; 0 where none is set.
    pub humidify_l_d: f64,
}

/// Air is told anew on these days of a month.
const DAYS_OF_MONTH: [i8; 2] = [1, 16];
/// A change of less nobody feels, in K.
const FELT_K: f64 = 0.25;
/// In summer a room is by night so much cooler than the mean of the day outdoors (our own estimate).
const COOLER_NIGHTS_K: f64 = 2.0;
/// Seed whose table says nothing comes up in so many days.
const USUALLY_UP_DAYS: f64 = 7.0;

impl Plan {
    /// Sets the air of every room whose walls are known to what its lamps make of it.
    pub(super) fn light_rooms(&mut self) {
        self.site.lit = self.air_in_effect(None);
        for i in 0..self.site.rooms.len() {
            let id = self.site.rooms[i].id.clone();
            self.site.rooms[i].lit = self.air_in_effect(Some(&id));
        }
    }

    /// The air of `room` with its lamps, or as warm as summer makes it; empty where it stays as it is.
    fn air_in_effect(&self, room: Option<&str>) -> Vec<AirFrom> {
        if self.room_size(room).is_none() {
            return self.in_summer(room);
        }
        let lit = self.lit_room(room);
        let change = |lit: &LitFrom| AirFrom {
            from: lit.from,
            air: lit.air.clone(),
        };
        lit.iter().map(change).collect()
    }

    /// The air of `room` where summer makes it warmer than somebody typed for the season's beginning: nothing
    /// cools a house. What was typed for later dates is taken as it is.
    fn in_summer(&self, room: Option<&str>) -> Vec<AirFrom> {
        let year = self.site.year_outdoors();
        let first_typed = self.site.unlit_changes(room).min();
        let mut list: Vec<AirFrom> = Vec::new();
        let mut warmer = false;
        for from in self.steps(room) {
            let typed = self.site.unlit_air(room, from);
            let out = year.on(from);
            let mean_c = (out.day_c + out.night_c) / 2.0;
            let mut air = typed.clone();
            if first_typed.is_none_or(|first| from < first) {
                let lifted = |c: f64, by: f64| if by - c > FELT_K { by } else { c };
                air.day_c = lifted(typed.day_c, mean_c);
                air.night_c = lifted(typed.night_c, mean_c - COOLER_NIGHTS_K);
            }
            warmer |= air != *typed;
            if list.last().is_none_or(|last| last.air != air) {
                list.push(AirFrom { from, air });
            }
        }
        if warmer { list } else { Vec::new() }
    }

    /// How large the room called `room` is and what is around it; of the one that is drawn where none is
    /// named. `None` where nobody said.
    pub fn room_size(&self, room: Option<&str>) -> Option<RoomSize> {
        match room {
            None => self.site.envelope.map(|envelope| RoomSize {
                width_mm: self.room.width_mm,
                depth_mm: self.room.depth_mm,
                height_mm: self.room.height_mm,
                envelope,
            }),
            Some(id) => self.site.rooms.iter().find(|own| own.id == id)?.size,
        }
    }

    /// The air of the room called `room` through the season with its lamps, from the season's first day on;
    /// empty where nobody said how large it is.
    pub fn lit_room(&self, room: Option<&str>) -> Vec<LitFrom> {
        let Some(size) = self.room_size(room) else {
            return Vec::new();
        };
        let year = self.site.year_outdoors();
        let mut list: Vec<LitFrom> = Vec::new();
        for from in self.steps(room) {
            let lamps = self.lamps_in(room, from);
            let dark = self.site.unlit_air(room, from).clone();
            let out = year.on(from);
            let Some(lit) = size.lit(&dark, (out.day_c + out.night_c) / 2.0, &lamps) else {
                continue;
            };
            let near = |a: f64, b: f64| (a - b).abs() < FELT_K;
            let alike = list.last().is_some_and(|last| {
                last.dark == dark
                    && near(last.air.day_c, lit.air.day_c)
                    && near(last.air.night_c, lit.air.night_c)
            });
            if !alike {
                list.push(LitFrom {
                    from,
                    watts: lamps.iter().map(|lamp| lamp.watts).sum(),
                    dark,
                    air: lit.air,
                    humidify_l_d: lit.humidify_l_d,
                });
            }
        }
        list
    }

    /// The days of the season on which the air of `room` is told anew.
    fn steps(&self, room: Option<&str>) -> Vec<Date> {
        let DateSpan { from, to } = self.season;
        let told = |day: &Date| DAYS_OF_MONTH.contains(&day.day());
        let days = (0..=days_between(from, to)).map(|n| plus_days(from, n));
        let mut steps: Vec<Date> = days.filter(told).chain([from]).collect();
        steps.extend(self.site.unlit_changes(room).filter(|day| *day > from));
        steps.sort_unstable();
        steps.dedup();
        steps
    }

    /// The lamps that usually burn in `room` on `date`: those of one clock together.
    fn lamps_in(&self, room: Option<&str>, date: Date) -> Vec<WarmingLamp> {
        let mut lamps: Vec<WarmingLamp> = Vec::new();
        let places = self.places.iter();
        for place in places.filter(|p| !p.outdoors() && p.in_room.as_deref() == room) {
            for tier in place.tiers.iter().filter(|tier| !tier.lamps.is_empty()) {
                let grows_here = |tray: &&Tray| {
                    let stand = tray.stand_in(Stage::Grow);
                    stand.is_some_and(|s| s.bay.place == place.id && s.bay.tier == tier.id)
                };
                let up = |tray: &Tray| {
                    self.usually_up(tray)
                        .is_some_and(|days| days.contains(date))
                };
                if !self.trays.iter().filter(grows_here).any(up) {
                    continue;
                }
                let (burning, watts) = (tier.burning(), drawn_w(tier));
                let same =
                    |l: &&mut WarmingLamp| (l.from_h, l.hours) == (burning.from_h, burning.hours);
                match lamps.iter_mut().find(same) {
                    Some(lamp) => lamp.watts += watts,
                    None => lamps.push(WarmingLamp {
                        watts,
                        from_h: burning.from_h,
                        hours: burning.hours,
                    }),
                }
            }
        }
        lamps
    }

    /// The days on which something is up in `tray` in an ordinary year.
    fn usually_up(&self, tray: &Tray) -> Option<DateSpan> {
        let each = tray.parts.iter().filter_map(|part| {
            let mut sowings = self.sowings.iter();
            let sowing = sowings.find(|sowing| sowing.id == part.sowing)?;
            self.sowing_usually_up(sowing, tray.potted)
        });
        each.reduce(|a, b| DateSpan {
            from: a.from.min(b.from),
            to: a.to.max(b.to),
        })
    }

    fn sowing_usually_up(&self, sowing: &Sowing, potted: bool) -> Option<DateSpan> {
        if let Some(stays) = sowing.stays {
            return Some(stays);
        }
        let crop = self.find_crop(&sowing.crop)?;
        let out = plus_days(self.usually_out(sowing, crop), sowing.shift_days);
        let out = sowing.out_on.unwrap_or(out);
        let weeks = sowing.packet_weeks.unwrap_or(crop.weeks_indoors);
        let sow = plus_days(out, -((weeks * DAYS_PER_WEEK).round() as i32));
        let sow = sowing.sow_on.unwrap_or(sow);
        let comes_up = crop.curve().days(crop.root_zone_c);
        let up = plus_days(sow, comes_up.unwrap_or(USUALLY_UP_DAYS).round() as i32);
        let harden = plus_days(out, -crop.hardening_days);
        // Pots are filled half way.
        let from = if potted {
            plus_days(up, days_between(up, harden) / 2)
        } else {
            up
        };
        (from < harden).then(|| DateSpan {
            from,
            to: plus_days(harden, -1),
        })
    }
}
