//! Something that holds trays: its decks, its measures and its spot.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::learned::Learned;
use crate::basis::plane::Axis;
use crate::room::place::airing::Airing;
use crate::room::place::kinds::Kind;
use crate::room::place::setting::PlaceSetting;
use crate::room::tier::Tier;
use crate::site::Site;
use crate::site::air::Air;
use jiff::civil::Date;

/// Something that holds trays on one or more decks of one size.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// Identifier, unique among the places.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// What it is, with what only its kind has.
    pub kind: Kind,
    /// Width of a deck along the front.
    pub width_mm: f64,
    /// Depth of a deck from front to back.
    pub depth_mm: f64,
    /// Top of the posts, of the walls inside, or of the hooks for lamps, above the floor.
    pub height_mm: f64,
    /// What the decks are.
    pub deck: Deck,
    /// Mass of the place with nothing on it.
    pub empty_kg: f64,
    /// What all decks together may carry, by the maker; left out when unknown.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rating_kg: Option<f64>,
    /// Whether trays may stick out at its front, as far as they do not tip.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub overhang_accepted: bool,
    /// The room of the site that it stands in; left out for the one that the plan draws, and outdoors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub in_room: Option<String>,
    /// How much warmer than the room's the air around it is by day, as thermometers showed, in K.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_day_k: Option<Learned>,
    /// How much warmer than the room's the air around it is by night, as thermometers showed, in K.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub air_night_k: Option<Learned>,
    /// Where it stands on the floor; left out for what hangs on a wall, or stands outdoors or in another
    /// room.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spot: Option<Spot>,
    /// How fast fans of other places that turn stir the air over it, in m/s; set as a plan is checked.
    #[serde(skip)]
    #[schema(ignore)]
    pub stirred_m_s: f64,
    /// The tiers from the lowest up.
    pub tiers: Vec<Tier>,
    /// How what is closed of it is aired; left out, it stays shut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub airing: Option<Airing>,
    /// What is set otherwise from a date on; empty when nothing is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub settings: Vec<PlaceSetting>,
}

/// What the decks of a place are.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Deck {
    /// Their material.
    pub material: Material,
    /// Their thickness.
    pub thickness_mm: f64,
    /// What one deck may carry, spread evenly, by the maker; left out when unknown.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rating_kg: Option<f64>,
}

/// What a deck is made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Material {
    /// Wires: light and drips fall through, hooks go anywhere.
    Wire,
    /// Bare chipboard, which swells when wet.
    Chipboard,
    /// Chipboard with every face and edge sealed.
    SealedChipboard,
    /// Painted or oiled boards.
    Wood,
    /// Moulded plastic.
    Plastic,
    /// Sheet metal.
    Metal,
    /// A stone or tiled sill, paving, or the ground.
    Stone,
}

impl Material {
    /// Whether light and drips fall through.
    pub fn is_open(self) -> bool {
        self == Self::Wire
    }
}

/// Where a place stands on the floor of the room, seen from above.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Spot {
    /// Left edge of its outline from the room's left wall.
    pub x_mm: f64,
    /// Near edge of its outline from the room's near wall.
    pub y_mm: f64,
    /// The side one works from.
    pub faces: Faces,
}

/// A side of the room, seen from above with the near wall at the bottom.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Faces {
    /// Towards the near wall.
    Near,
    /// Towards the far wall.
    Far,
    /// Towards the left wall.
    Left,
    /// Towards the right wall.
    Right,
}

impl Place {
    /// The air of its room on `date`, as it is around it.
    pub fn room_air(&self, site: &Site, date: Date) -> Air {
        let air = site.room_air(self.in_room.as_deref(), date);
        let warmer = |learned: Option<Learned>| learned.map_or(0.0, |learned| learned.value);
        Air {
            day_c: air.day_c + warmer(self.air_day_k),
            night_c: air.night_c + warmer(self.air_night_k),
            humidity: air.humidity,
        }
    }

    /// Whether it stands in the room that the plan draws.
    pub fn stands_here(&self) -> bool {
        !self.outdoors() && self.in_room.is_none()
    }

    /// Where it stands on the floor of the room that the plan draws; `None` elsewhere, and on a wall.
    pub fn spot_here(&self) -> Option<Spot> {
        self.spot.filter(|_| self.in_room.is_none())
    }

    /// Outer width, depth and height, walls and all.
    pub fn outer_mm(&self) -> [f64; 3] {
        let walls = 2.0 * self.wall_mm();
        [
            self.width_mm + walls,
            self.depth_mm + walls,
            self.height_mm + self.wall_mm(),
        ]
    }

    /// Clear height of the bay above tier `index`: up to the deck above, or to the top.
    pub fn clear_height_mm(&self, index: usize) -> f64 {
        let ceiling = self.tiers.get(index + 1).map_or(self.height_mm, |above| {
            above.deck_height_mm - self.deck.thickness_mm
        });
        ceiling - self.tiers[index].deck_height_mm
    }

    /// The heights that deck `index` can have while its neighbours stay where they are and keep
    /// what hangs in them.
    pub fn deck_range_mm(&self, index: usize) -> [f64; 2] {
        let own = &self.tiers[index];
        let below = index.checked_sub(1).map(|i| &self.tiers[i]);
        let lowest = below.map_or(0.0, |tier| {
            tier.deck_height_mm + tier.needed_mm() + self.deck.thickness_mm
        });
        let ceiling = own.deck_height_mm + self.clear_height_mm(index);
        [lowest, (ceiling - own.needed_mm()).max(lowest)]
    }

    /// The least height that keeps what hangs in the top bay.
    pub fn least_height_mm(&self) -> f64 {
        let top = self.tiers.last();
        top.map_or(0.0, |tier| tier.deck_height_mm + tier.needed_mm())
    }

    /// `height_mm` moved to the nearest height that a deck can have.
    pub fn snapped_mm(&self, height_mm: f64) -> f64 {
        match self.pitch_mm() {
            Some(pitch) => (height_mm / pitch).round() * pitch,
            None => height_mm,
        }
    }
}

impl Faces {
    /// Which way the front of a place runs that faces this way.
    pub fn front_along(self) -> Axis {
        match self {
            Self::Near | Self::Far => Axis::X,
            Self::Left | Self::Right => Axis::Y,
        }
    }
}
