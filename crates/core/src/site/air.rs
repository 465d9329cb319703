//! The air of rooms: the one that the plan draws, and others in which trays stand.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::site::room_size::RoomSize;

/// The air of a room, as a thermometer between the shelves shows it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Air {
    /// Temperature by day in °C.
    pub day_c: f64,
    /// Temperature by night in °C.
    pub night_c: f64,
    /// Relative humidity, 0 to 1; half when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub humidity: Option<f64>,
}

/// What the air of a room is from a date on: the heating goes off, or summer comes.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AirFrom {
    /// From this date on.
    pub from: Date,
    /// The air.
    pub air: Air,
}

/// Another room in which trays stand: a kitchen, an attic, a heated greenhouse.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OtherRoom {
    /// Identifier, unique among the rooms.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Its air.
    pub air: Air,
    /// What that is from later dates on; empty where it stays as it is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub air_from: Vec<AirFrom>,
    /// How large it is and what is around it: with it the air above is the air without its lamps, and they
    /// warm it; left out, the air is taken as it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub size: Option<RoomSize>,
    /// Its air with its lamps, as it is reckoned for a sound plan; empty where they are not.
    #[serde(skip)]
    pub(crate) lit: Vec<AirFrom>,
}

/// So many other rooms, and changes of a room's air, a plan may have.
const MOST: usize = 24;

impl Air {
    /// Its mean through the day and night, in °C.
    pub fn mean_c(&self) -> f64 {
        (self.day_c + self.night_c) / 2.0
    }

    fn check(&self, at: &Pointer, faults: &mut Faults) {
        for (name, c) in [("day_c", self.day_c), ("night_c", self.night_c)] {
            faults.number(&at.at(name), c, -10.0..=45.0, Quantity::TemperatureC);
        }
        if let Some(share) = self.humidity {
            faults.number(&at.at("humidity"), share, 0.05..=1.0, Quantity::Share);
        }
    }
}

/// The air of a room through the season.
#[derive(Debug, Clone, Copy)]
pub(super) struct RoomAirs<'a> {
    pub(super) first: &'a Air,
    pub(super) from: &'a [AirFrom],
}

impl<'a> RoomAirs<'a> {
    /// The air on `date`.
    pub(super) fn on(self, date: Date) -> &'a Air {
        self.begun(date).map_or(self.first, |change| &change.air)
    }

    /// The change that it comes from on `date`; `None` while it is as at first.
    pub(super) fn begun(self, date: Date) -> Option<&'a AirFrom> {
        let begun = self.from.iter().filter(|change| change.from <= date);
        begun.max_by_key(|change| change.from)
    }

    pub(super) fn check(self, at: &Pointer, faults: &mut Faults) {
        self.first.check(&at.at("air"), faults);
        let from = at.at("air_from");
        for (i, change) in faults.list(&from, self.from, 0..=MOST) {
            change.air.check(&from.at(i).at("air"), faults);
        }
    }
}

impl OtherRoom {
    /// Its air without lamps that warm it.
    pub(super) fn unlit(&self) -> RoomAirs<'_> {
        RoomAirs {
            first: &self.air,
            from: &self.air_from,
        }
    }
}

/// Checks the other rooms of a site.
pub(super) fn check_rooms(rooms: &[OtherRoom], at: &Pointer, faults: &mut Faults) {
    for (i, room) in faults.list(at, rooms, 0..=MOST) {
        let at = at.at(i);
        faults.id(&at.at("id"), &room.id);
        faults.name(&at.at("name"), &room.name);
        room.unlit().check(&at, faults);
        if let Some(size) = &room.size {
            size.check(&at.at("size"), faults);
        }
    }
    faults.unique(at, rooms.iter().map(|room| room.id.as_str()));
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    fn air(day_c: f64) -> Air {
        Air {
            day_c,
            night_c: day_c - 3.0,
            humidity: None,
        }
    }

    #[test]
    fn air_is_what_it_was_set_to_last() {
        let (first, change) = (air(19.0), |month, c| AirFrom {
            from: date(2027, month, 1),
            air: air(c),
        });
        // In whatever order they stand in the plan.
        let from = [change(6, 24.0), change(4, 15.0)];
        let airs = RoomAirs {
            first: &first,
            from: &from,
        };
        let on = |month, day| airs.on(date(2027, month, day)).day_c;
        assert_eq!(
            [on(1, 1), on(3, 31), on(4, 1), on(5, 31), on(8, 1)],
            [19.0, 19.0, 15.0, 15.0, 24.0]
        );
        assert_eq!(air(19.0).mean_c(), 17.5);
    }
}
