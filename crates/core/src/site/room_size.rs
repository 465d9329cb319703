//! How large a room is and what its walls let through: by that its own lamps warm it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::{Quantity, area_m2};

/// How large a room is, and what its walls let through.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RoomSize {
    /// Along one wall.
    pub width_mm: f64,
    /// Along the other.
    pub depth_mm: f64,
    /// From floor to ceiling.
    pub height_mm: f64,
    /// What is around it.
    pub envelope: Envelope,
}

/// What is around a room.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Envelope {
    /// What its walls are like.
    pub walls: RoomWalls,
    /// Whether a thermostat keeps it at its air: lamps save heating first, and warm the room only with what
    /// is over.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub heated: bool,
    /// What a humidifier holds its relative humidity at, 0 to 1; left out where none does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub humidified: Option<f64>,
}

/// What the walls of a room are like.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoomWalls {
    /// A room in the middle of a house: plain inner walls.
    Inner,
    /// Insulated as new houses are.
    Insulated,
    /// As most houses and their cellars are.
    Usual,
    /// Boards or a bare roof: a shed, an attic.
    Thin,
}

impl Envelope {
    pub(super) fn check(&self, at: &Pointer, faults: &mut Faults) {
        if let Some(humidity) = self.humidified {
            faults.number(&at.at("humidified"), humidity, 0.1..=0.95, Quantity::Share);
        }
    }
}

impl RoomWalls {
    /// Heat that a m² of walls, ceiling and floor lets through, in W/(m²·K), windows and doors included (our
    /// own estimate, between the values of EN ISO 6946 for such walls, from memory).
    fn w_m2k(self) -> f64 {
        match self {
            Self::Inner => 1.2,
            Self::Insulated => 0.35,
            Self::Usual => 0.8,
            Self::Thin => 1.8,
        }
    }

    /// How often an hour its air is changed, doors left as people leave them (our own estimate).
    fn changes_per_h(self) -> f64 {
        match self {
            Self::Inner => 1.5,
            Self::Insulated => 0.5,
            Self::Usual => 0.7,
            Self::Thin => 1.5,
        }
    }
}

/// Walls and things of a room store so much for each m² of what surrounds it, in J/(m²·K) (our own
/// estimate: a few centimetres of board, plaster or brick).
const STORES_J_M2K: f64 = 40_000.0;
/// Between them and the air, in W/(m²·K) (ISO 6946: a surface resistance of 0.13 m²·K/W).
const TO_WALLS_W_M2K: f64 = 1.0 / 0.13;

impl RoomSize {
    /// How much air there is.
    pub fn volume_m3(&self) -> f64 {
        area_m2(self.width_mm, self.depth_mm) * self.height_mm / 1000.0
    }

    /// What surrounds it, in m².
    fn surrounds_m2(&self) -> f64 {
        let (w, d, h) = (self.width_mm, self.depth_mm, self.height_mm);
        2.0 * (area_m2(w, d) + area_m2(w, h) + area_m2(d, h))
    }

    /// Heat that walls, floor and ceiling let through, in W/K.
    pub fn walls_w_k(&self) -> f64 {
        self.surrounds_m2() * self.envelope.walls.w_m2k()
    }

    /// Air that is changed.
    pub fn leak_m3_h(&self) -> f64 {
        self.volume_m3() * self.envelope.walls.changes_per_h()
    }

    /// What walls and things store, in J/K.
    pub fn stores_j_k(&self) -> f64 {
        self.surrounds_m2() * STORES_J_M2K
    }

    /// Between them and the air, in W/K.
    pub fn to_walls_w_k(&self) -> f64 {
        self.surrounds_m2() * TO_WALLS_W_M2K
    }

    pub(super) fn check(&self, at: &Pointer, faults: &mut Faults) {
        for (name, mm) in [
            ("width_mm", self.width_mm),
            ("depth_mm", self.depth_mm),
            ("height_mm", self.height_mm),
        ] {
            faults.number(&at.at(name), mm, 500.0..=50_000.0, Quantity::LengthMm);
        }
        self.envelope.check(&at.at("envelope"), faults);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_room_in_an_ordinary_house_wants_about_a_kilowatt_in_frost() {
        // Rule of the heating trade: 60 to 100 W for each m² of an older house at 30 K (from memory).
        let size = RoomSize {
            width_mm: 4000.0,
            depth_mm: 3000.0,
            height_mm: 2400.0,
            envelope: Envelope {
                walls: RoomWalls::Usual,
                heated: true,
                humidified: None,
            },
        };
        let fresh_w_k = size.leak_m3_h() * 0.335;
        let per_m2 = 30.0 * (size.walls_w_k() + fresh_w_k) / 12.0;
        assert!((60.0..=140.0).contains(&per_m2), "{per_m2}");
    }
}
