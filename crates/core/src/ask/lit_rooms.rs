//! Rooms that their own lamps warm, through the season.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, Why, say};
use crate::plan::SoundPlan;
use crate::site::air::Air;

/// A room with its lamps, through the season.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LitRoomSeason {
    /// The room; `None` for the one that is drawn.
    pub room: Option<String>,
    /// Its air from each day on which it is another.
    pub from: Vec<LitRoomFrom>,
    /// How it is reckoned.
    pub why: Why,
}

/// The air of a room with the lamps that burn in it from a date on.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LitRoomFrom {
    /// From this date on.
    pub from: Date,
    /// What its lamps draw while all of them burn, in W.
    pub lamps_w: f64,
    /// Its air without them.
    pub dark: Air,
    /// Its air with them, and with what a humidifier adds.
    pub air: Air,
    /// What a humidifier gives off in a day, in litres; 0 where none is set.
    pub humidify_l_d: f64,
}

/// The rooms of `plan` whose size and walls are known, the one that is drawn first.
pub fn lit_rooms(plan: &SoundPlan) -> Vec<LitRoomSeason> {
    let others = plan.site.rooms.iter().map(|room| Some(room.id.as_str()));
    let all = std::iter::once(None).chain(others);
    let season = |room: Option<&str>| {
        let size = plan.room_size(room)?;
        let from = plan.lit_room(room).into_iter().map(|lit| LitRoomFrom {
            from: lit.from,
            lamps_w: lit.watts,
            dark: lit.dark,
            air: lit.air,
            humidify_l_d: lit.humidify_l_d,
        });
        let heating = if size.envelope.heated {
            "; heating makes way for its lamps first"
        } else {
            ""
        };
        Some(LitRoomSeason {
            room: room.map(str::to_owned),
            from: from.collect(),
            why: Why {
                rule: say!(
                    "all that lamps draw ends as heat; the room loses {loses} W for each degree through its walls and with its air{heating}; which lamps burn follows from when sowings usually are up",
                    loses = Quantity::Plain.of(size.loses_w_k().round()),
                    heating = heating,
                ),
                source: OWN_ESTIMATE,
            },
        })
    };
    all.filter_map(season).collect()
}
