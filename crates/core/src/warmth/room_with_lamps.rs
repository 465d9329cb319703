//! A room that its own lamps warm: their watts against what its walls and its fresh air lose.

use crate::air::USUAL_HUMIDITY;
use crate::air::vapour::saturated_kg_m3;
use crate::basis::clock::DAY_H;
use crate::site::air::Air;
use crate::site::room_size::RoomSize;
use crate::warmth::enclosed::{EnclosedAir, EnclosedDay, WarmingLamp};
use crate::warmth::remembered::Remembered;

/// What a m³ of air stores, in Wh/K, at 20 °C.
const AIR_WH_M3K: f64 = 1206.0 / 3600.0;

/// What lamps make of a room.
#[derive(Debug, Clone, PartialEq)]
pub struct LitRoom {
    /// Its air with them.
    pub air: Air,
    /// How much warmer it is for them, in the mean of the day, in K.
    pub rise_k: f64,
    /// What a humidifier gives off in a day to hold what it is set to, in litres.
    pub humidify_l_d: f64,
}

impl RoomSize {
    /// Heat that the room loses for each degree, fresh air included, in W/K.
    pub fn loses_w_k(&self) -> f64 {
        self.walls_w_k() + AIR_WH_M3K * self.leak_m3_h()
    }

    /// The share of the lamps' watts that warms it above its `air`: where a thermostat keeps that, heating
    /// makes way first, of which it needs the more the colder it is `outdoors_c`.
    fn over_heating(&self, air: &Air, outdoors_c: f64, lamps: &[WarmingLamp]) -> f64 {
        let all_w: f64 = lamps.iter().map(|lamp| lamp.watts).sum();
        if !self.envelope.heated || all_w <= 0.0 {
            return 1.0;
        }
        let heating_w = self.loses_w_k() * (air.mean_c() - outdoors_c).max(0.0);
        (1.0 - heating_w / all_w).max(0.0)
    }

    /// The room as the solver takes it: around it is its own `air` as that is without lamps.
    pub fn enclosed(&self, air: &Air, outdoors_c: f64, lamps: &[WarmingLamp]) -> EnclosedAir {
        let share = self.over_heating(air, outdoors_c, lamps);
        let over = |lamp: &WarmingLamp| WarmingLamp {
            watts: lamp.watts * share,
            ..*lamp
        };
        EnclosedAir {
            volume_m3: self.volume_m3(),
            cover_w_k: self.walls_w_k(),
            sky_k: 0.0,
            night_cover: None,
            leak_m3_h: self.leak_m3_h(),
            opening: None,
            ground_w_k: 0.0,
            ground_c: 0.0,
            store_j_k: self.stores_j_k(),
            store_w_k: self.to_walls_w_k(),
            sun: None,
            day_c: air.day_c,
            night_c: air.night_c,
            humidity: air.humidity.unwrap_or(USUAL_HUMIDITY),
            heating: None,
            lamps: lamps.iter().map(over).collect(),
            // What its trays give off is in the humidity that somebody read there.
            wet_m2: 0.0,
            dew_m2: 0.0,
            dew_share: 0.0,
        }
    }

    /// What `lamps` make of the room, whose `air` is what it is without them; `None` where the figures are
    /// none that physics allows.
    pub fn lit(&self, air: &Air, outdoors_c: f64, lamps: &[WarmingLamp]) -> Option<LitRoom> {
        static KNOWN: Remembered<EnclosedAir, Option<EnclosedDay>> = Remembered::new();
        let day = |lamps: &[WarmingLamp]| {
            let asked = self.enclosed(air, outdoors_c, lamps);
            KNOWN.ask(asked, |asked| asked.day().ok())
        };
        let (lit, dark) = (day(lamps)?, day(&[])?);
        let rise_k = lit.mean_c - dark.mean_c;
        let (day_k, night_k) = (lit.most_c - dark.most_c, lit.least_c - dark.least_c);
        let alone = lit.humidity.iter().sum::<f64>() / lit.humidity.len() as f64;
        let held = self.envelope.humidified.unwrap_or(0.0);
        let lacks = (held - alone).max(0.0);
        Some(LitRoom {
            air: Air {
                day_c: air.day_c + day_k,
                night_c: air.night_c + night_k,
                humidity: Some(alone + lacks),
            },
            rise_k,
            // Fresh air takes the vapour out again; a kilogram of water is a litre.
            humidify_l_d: lacks * saturated_kg_m3(lit.mean_c) * self.leak_m3_h() * DAY_H,
        })
    }
}
