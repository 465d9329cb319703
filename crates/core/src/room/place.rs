//! Places that hold trays: racks, shelves, closets, benches, chambers, windows and cold frames.

use std::ops::Range;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::gear::Axis;
use super::tier::{LEAST_BAY_MM, Tier};
use crate::fault::{Faults, Pointer};
use crate::units::Quantity;

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
    /// Where it stands on the floor; left out for what hangs on a wall or stands outdoors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spot: Option<Spot>,
    /// The tiers from the lowest up.
    pub tiers: Vec<Tier>,
}

/// What a place is, written `{"rack": {…}}`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kind {
    /// Free-standing shelving.
    Rack(Rack),
    /// Shelves on brackets in wall rails.
    WallShelf(Fittings),
    /// A built-in closet with shelves and doors.
    Closet(Closet),
    /// A table or bench.
    Bench(Bench),
    /// A germination chamber: a cabinet, box or tent that keeps warmth in.
    Chamber(Chamber),
    /// A window with its sill.
    Window(Window),
    /// A cold frame or another spot outdoors for hardening off.
    ColdFrame(ColdFrame),
}

/// What only a rack has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rack {
    /// Distance from one height that a deck can have to the next.
    pub pitch_mm: f64,
    /// Thickness of the corner posts, which take that much of each corner.
    pub post_mm: f64,
    /// Whether crossed braces or a back panel keep it from swaying.
    pub braced: bool,
    /// Whether it is fixed to the wall.
    pub wall_fixed: bool,
    /// What it stands on.
    pub feet: Feet,
}

/// What a rack stands on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Feet {
    /// Bare post ends.
    Plain,
    /// Feet that screw in and out.
    Levelling,
    /// Wheels.
    Castors,
}

/// Shelves on fittings in a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fittings {
    /// Distance from one height that a deck can have to the next.
    pub pitch_mm: f64,
}

/// What only a closet has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Closet {
    /// Distance from one height that a deck can have to the next.
    pub pitch_mm: f64,
    /// Whether its doors are kept shut, so that it holds what warmth its lamps give; open when
    /// left out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub shut: bool,
}

/// What only a bench has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Bench {
    /// Whether it can be carried folded, or with its legs off.
    pub folds: bool,
}

/// What only a germination chamber has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chamber {
    /// Distance from one height that a shelf can have to the next.
    pub pitch_mm: f64,
    /// The layers of its walls from the inside out.
    pub walls: Vec<WallLayer>,
    /// Openings that let warm, damp air out and fresh air in.
    pub vents: Vec<Vent>,
    /// Where its thermostat's probe hangs over its floor; half way up when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub probe_mm: Option<f64>,
    /// What its over-temperature limit is set to, in °C; 30 °C when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub limit_c: Option<f64>,
}

/// A layer of a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WallLayer {
    /// What it is made of.
    pub name: String,
    /// How thick it is.
    pub thickness_mm: f64,
    /// Thermal conductivity in W/(m·K).
    pub conductivity_w_mk: f64,
}

/// An opening in a chamber's wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Vent {
    /// Its width.
    pub width_mm: f64,
    /// Its height.
    pub height_mm: f64,
    /// Its middle above the floor.
    pub at_mm: f64,
}

/// What only a window has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Window {
    /// Where the pane looks: 0 north, 90 east, 180 south, 270 west.
    pub azimuth_deg: f64,
    /// Width of the glass.
    pub pane_width_mm: f64,
    /// Height of the glass.
    pub pane_height_mm: f64,
    /// How high over the horizon trees and houses opposite reach, seen from the sill.
    pub obstruction_deg: f64,
}

/// What only a cold frame has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ColdFrame {
    /// Whether it has a light that can be closed at night.
    pub glazed: bool,
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
    /// Distance from one height that a deck can have to the next; `None` where decks are fixed.
    pub fn pitch_mm(&self) -> Option<f64> {
        match &self.kind {
            Kind::Rack(rack) => Some(rack.pitch_mm),
            Kind::WallShelf(fittings) => Some(fittings.pitch_mm),
            Kind::Closet(closet) => Some(closet.pitch_mm),
            Kind::Chamber(chamber) => Some(chamber.pitch_mm),
            Kind::Bench(_) | Kind::Window(_) | Kind::ColdFrame(_) => None,
        }
    }

    /// Thickness of the posts at the corners of each deck; 0 without any.
    pub fn post_mm(&self) -> f64 {
        match &self.kind {
            Kind::Rack(rack) => rack.post_mm,
            _ => 0.0,
        }
    }

    /// Thickness of the walls around it; 0 without any.
    pub fn wall_mm(&self) -> f64 {
        match &self.kind {
            Kind::Chamber(chamber) => chamber.walls.iter().map(|wall| wall.thickness_mm).sum(),
            _ => 0.0,
        }
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

    /// Whether walls close it at its sides, so that nothing can stick out.
    pub fn is_closed(&self) -> bool {
        matches!(self.kind, Kind::Chamber(_) | Kind::Closet(_))
    }

    /// The tiers that share closed air with tier `index`: all of a chamber and of a closet that is
    /// kept shut, one alone whose bay film, cloth or board closes on all sides; `None` in the open.
    pub fn shares_air(&self, index: usize) -> Option<Range<usize>> {
        match &self.kind {
            Kind::Chamber(_) | Kind::Closet(Closet { shut: true, .. }) => Some(0..self.tiers.len()),
            // Its own walls close a closet's bays but for its doors.
            Kind::ColdFrame(_) | Kind::Closet(_) => None,
            _ => self.tiers[index]
                .sides
                .all_closed()
                .then(|| index..index + 1),
        }
    }

    /// Whether it stands outdoors.
    pub fn outdoors(&self) -> bool {
        matches!(self.kind, Kind::ColdFrame(_))
    }

    /// Whether it is carried into the room rather than built in or left outside.
    pub fn is_furniture(&self) -> bool {
        matches!(self.kind, Kind::Rack(_) | Kind::Bench(_) | Kind::Chamber(_))
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

    pub(super) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        self.kind.check(&at.at("kind"), faults);
        let deck = at.at("deck");
        let mut fine = true;
        for (at, mm, range) in [
            (at.at("width_mm"), self.width_mm, 100.0..=5000.0),
            (at.at("depth_mm"), self.depth_mm, 80.0..=2000.0),
            (at.at("height_mm"), self.height_mm, 150.0..=3500.0),
            (deck.at("thickness_mm"), self.deck.thickness_mm, 0.0..=100.0),
        ] {
            fine &= faults.number(&at, mm, range, Quantity::LengthMm);
        }
        faults.number(
            &at.at("empty_kg"),
            self.empty_kg,
            0.0..=2000.0,
            Quantity::MassKg,
        );
        for (at, rating) in [
            (at.at("rating_kg"), self.rating_kg),
            (deck.at("rating_kg"), self.deck.rating_kg),
        ] {
            if let Some(kg) = rating {
                faults.number(&at, kg, 0.5..=5000.0, Quantity::MassKg);
            }
        }
        if let Some(spot) = self.spot {
            for (name, mm) in [("x_mm", spot.x_mm), ("y_mm", spot.y_mm)] {
                faults.number(
                    &at.at("spot").at(name),
                    mm,
                    0.0..=30_000.0,
                    Quantity::LengthMm,
                );
            }
        }
        let tiers = at.at("tiers");
        faults.count(&tiers, self.tiers.len(), 1..=20);
        faults.unique(&tiers, self.tiers.iter().map(|tier| tier.id.as_str()));
        let mut lowest = 0.0;
        for (i, tier) in self.tiers.iter().enumerate() {
            let at = tiers.at(i);
            // Of two decks that clash the upper is named: it is the one to move up.
            if fine {
                fine &= faults.number(
                    &at.at("deck_height_mm"),
                    tier.deck_height_mm,
                    lowest..=self.height_mm,
                    Quantity::LengthMm,
                );
                lowest = tier.deck_height_mm + LEAST_BAY_MM + self.deck.thickness_mm;
            }
        }
        for (i, tier) in self.tiers.iter().enumerate() {
            // Without sound decks there is no ceiling to hold the lamps against.
            let clear_mm = fine.then(|| self.clear_height_mm(i));
            tier.check(&tiers.at(i), self, clear_mm, faults);
        }
    }
}

impl Kind {
    fn check(&self, at: &Pointer, faults: &mut Faults) {
        let mm = |faults: &mut Faults, at: Pointer, value, range| {
            faults.number(&at, value, range, Quantity::LengthMm);
        };
        let pitch = 1.0..=500.0;
        match self {
            Self::Rack(rack) => {
                let at = at.at("rack");
                mm(faults, at.at("pitch_mm"), rack.pitch_mm, pitch);
                mm(faults, at.at("post_mm"), rack.post_mm, 0.0..=100.0);
            }
            Self::WallShelf(fittings) => {
                let at = at.at("wall_shelf");
                mm(faults, at.at("pitch_mm"), fittings.pitch_mm, pitch);
            }
            Self::Closet(closet) => {
                let at = at.at("closet");
                mm(faults, at.at("pitch_mm"), closet.pitch_mm, pitch);
            }
            Self::Bench(_) | Self::ColdFrame(_) => {}
            Self::Chamber(chamber) => {
                let at = at.at("chamber");
                mm(faults, at.at("pitch_mm"), chamber.pitch_mm, pitch);
                chamber.check(&at, faults);
            }
            Self::Window(window) => {
                let at = at.at("window");
                for (name, deg, range) in [
                    ("azimuth_deg", window.azimuth_deg, 0.0..=360.0),
                    ("obstruction_deg", window.obstruction_deg, 0.0..=89.0),
                ] {
                    faults.number(&at.at(name), deg, range, Quantity::AngleDeg);
                }
                for (name, value) in [
                    ("pane_width_mm", window.pane_width_mm),
                    ("pane_height_mm", window.pane_height_mm),
                ] {
                    mm(faults, at.at(name), value, 50.0..=6000.0);
                }
            }
        }
    }
}

impl Chamber {
    fn check(&self, at: &Pointer, faults: &mut Faults) {
        let walls = at.at("walls");
        for (i, wall) in faults.list(&walls, &self.walls, 1..=10) {
            let at = walls.at(i);
            faults.name(&at.at("name"), &wall.name);
            faults.number(
                &at.at("thickness_mm"),
                wall.thickness_mm,
                0.01..=300.0,
                Quantity::LengthMm,
            );
            faults.number(
                &at.at("conductivity_w_mk"),
                wall.conductivity_w_mk,
                0.005..=500.0,
                Quantity::ConductivityWMk,
            );
        }
        if let Some(mm) = self.probe_mm {
            let at = at.at("probe_mm");
            faults.number(&at, mm, 0.0..=3500.0, Quantity::LengthMm);
        }
        if let Some(c) = self.limit_c {
            let at = at.at("limit_c");
            faults.number(&at, c, 15.0..=60.0, Quantity::TemperatureC);
        }
        let vents = at.at("vents");
        for (i, vent) in faults.list(&vents, &self.vents, 0..=20) {
            for (name, mm, range) in [
                ("width_mm", vent.width_mm, 1.0..=2000.0),
                ("height_mm", vent.height_mm, 1.0..=2000.0),
                ("at_mm", vent.at_mm, 0.0..=3500.0),
            ] {
                faults.number(&vents.at(i).at(name), mm, range, Quantity::LengthMm);
            }
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
