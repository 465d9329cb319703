//! The air around what stands in a place on a date: its room's, the air outdoors, or that under a cover.
//! The one owner of it: dates, sheets, jobs, advice and comparisons read it here. Closed air indoors is
//! another matter, with this around it ([`crate::warmth::closed_space`]).

use jiff::civil::Date;

use crate::room::Place;
use crate::site::Site;
use crate::site::air::Air;
use crate::warmth::under_cover::{Weather, under_cover};

/// The air around what stands in `place` on `date`. Under a cover its night is the coolest there, and its
/// day so warm that the mean of both is right: the sun's peak at noon is short.
pub fn air_around(site: &Site, place: &Place, date: Date) -> Air {
    if !place.outdoors() {
        return place.room_air(site, date);
    }
    match under_cover(site, place, date, Weather::Usual) {
        Some(air) => Air {
            day_c: 2.0 * air.mean_c - air.least_c,
            night_c: air.least_c,
            humidity: Some(air.humidity),
        },
        None => outdoors(site, date),
    }
}

/// The air outdoors in the open on a usual `date`.
pub fn outdoors(site: &Site, date: Date) -> Air {
    let air = site.year_outdoors().on(date);
    Air {
        day_c: air.day_c,
        night_c: air.night_c,
        humidity: Some(air.humidity),
    }
}

/// The first date after `from` on which the air around what stands in `place` is another than on `from`;
/// `None` where it stays for good.
pub fn changes_after(site: &Site, place: &Place, from: Date) -> Option<Date> {
    if place.outdoors() {
        return from.tomorrow().ok();
    }
    site.room_air_changes_after(place.in_room.as_deref(), from)
}
