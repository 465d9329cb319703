//! The room as it is built: racks, their tiers, and the lamps that hang in them.
//!
//! Coordinates of a bay (the space above a tier's deck): x along the shelf from the left, y from
//! the front to the back, z up from the top of the deck, all in mm.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fault::{Faults, Pointer};
use crate::say;
use crate::units::Quantity;

/// Something that holds trays, written `{"rack": {…}}`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Place {
    /// A shelving rack.
    Rack(Rack),
}

impl Place {
    /// The place's identifier.
    pub fn id(&self) -> &str {
        match self {
            Self::Rack(rack) => &rack.id,
        }
    }
}

/// Shelving with decks at chosen heights.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rack {
    /// Identifier, unique among the places.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Width of a deck along the front.
    pub width_mm: f64,
    /// Depth of a deck from front to back.
    pub depth_mm: f64,
    /// Height of the posts.
    pub height_mm: f64,
    /// What the decks are made of.
    pub deck: Deck,
    /// Thickness of a deck.
    pub deck_thickness_mm: f64,
    /// The tiers from the lowest up.
    pub tiers: Vec<Tier>,
}

/// What a deck is made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Deck {
    /// Wires: light and drips fall through, hooks go anywhere.
    Wire,
    /// A closed board.
    Solid,
}

/// A deck and the bay above it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tier {
    /// Identifier, unique in the rack.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Top of the deck above the floor.
    pub deck_height_mm: f64,
    /// Kept for pots and mix: no trays stand here.
    pub storage: bool,
    /// Hours a day that the lamps burn while something here needs light.
    pub photoperiod_h: f64,
    /// The lamps that hang in the bay.
    pub lamps: Vec<Lamp>,
}

/// How a lamp's white is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LampFamily {
    /// Blue-pumped phosphor LED.
    WhiteLed,
    /// Three-band fluorescent tube, as sold in the last decades.
    FluorescentTriBand,
    /// Standard (halophosphate) fluorescent tube, found in old fixtures.
    FluorescentStandard,
}

/// A lamp: one or more flat emitters that face down from one body.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lamp {
    /// Identifier, unique in the tier.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// How its white is made, which decides the photons in a lumen.
    pub family: LampFamily,
    /// Correlated colour temperature.
    pub cct_k: f64,
    /// Luminous flux of all its emitters together, all of it downwards.
    pub flux_lm: f64,
    /// Photons per second as the maker states them; wins over the lumens' conversion.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ppf_umol_s: Option<f64>,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Full angle at which the intensity has fallen to half; 120 for a bare Lambertian strip.
    pub beam_deg: f64,
    /// Which way the emitters' length runs.
    pub along: Axis,
    /// Centre of the lamp along the shelf.
    pub x_mm: f64,
    /// Centre of the lamp from the front.
    pub y_mm: f64,
    /// The emitting face above the deck.
    pub height_mm: f64,
    /// How far the body reaches up from the emitting face.
    pub body_height_mm: f64,
    /// Least gap to the leaves by the lamp's heat.
    pub least_gap_mm: f64,
    /// The emitting rectangles, which share the flux by area.
    pub emitters: Vec<Face>,
}

/// An emitting rectangle of a lamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Face {
    /// Its length, along the lamp.
    pub length_mm: f64,
    /// Its width, across the lamp.
    pub width_mm: f64,
    /// How far its centre lies across from the lamp's centre.
    pub across_mm: f64,
}

/// A direction in the deck's plane.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Axis {
    /// Along the front.
    X,
    /// From front to back.
    Y,
}

/// Names a bay: a tier of a rack.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BayRef {
    /// The rack.
    pub place: String,
    /// The tier.
    pub tier: String,
}

/// A bay with its rack, where it stands in the document.
#[derive(Debug, Clone, Copy)]
pub struct Bay<'a> {
    /// The rack.
    pub rack: &'a Rack,
    /// Index of the rack among the places.
    pub place_index: usize,
    /// The tier.
    pub tier: &'a Tier,
    /// Index of the tier in the rack.
    pub tier_index: usize,
}

impl Bay<'_> {
    /// Clear height above the deck: up to the deck above, or to the top of the posts.
    pub fn clear_height_mm(&self) -> f64 {
        self.rack.clear_height_mm(self.tier_index)
    }

    /// How it is named in the document.
    pub fn reference(&self) -> BayRef {
        BayRef {
            place: self.rack.id.clone(),
            tier: self.tier.id.clone(),
        }
    }

    /// Rack and tier in words.
    pub fn name(&self) -> String {
        format!("{}, {}", self.rack.name, self.tier.name.to_lowercase())
    }

    /// Where the tier stands in the document.
    pub fn pointer(&self) -> Pointer {
        Pointer::default()
            .at("places")
            .at(self.place_index)
            .at("rack")
            .at("tiers")
            .at(self.tier_index)
    }

    /// The highest a lamp's face may hang: its body must stay under the deck above.
    pub fn highest_face_mm(&self) -> f64 {
        let body = self
            .tier
            .lamps
            .iter()
            .map(|lamp| lamp.body_height_mm)
            .fold(0.0, f64::max);
        self.clear_height_mm() - body
    }
}

/// Every bay of the room, rack by rack and from the lowest tier up.
pub fn bays(places: &[Place]) -> impl Iterator<Item = Bay<'_>> {
    places
        .iter()
        .enumerate()
        .flat_map(|(place_index, place)| match place {
            Place::Rack(rack) => rack
                .tiers
                .iter()
                .enumerate()
                .map(move |(tier_index, tier)| Bay {
                    rack,
                    place_index,
                    tier,
                    tier_index,
                }),
        })
}

/// The bay that `reference` names.
pub fn find_bay<'a>(places: &'a [Place], reference: &BayRef) -> Option<Bay<'a>> {
    bays(places).find(|bay| bay.rack.id == reference.place && bay.tier.id == reference.tier)
}

impl Rack {
    /// Clear height of the bay above tier `index`.
    pub fn clear_height_mm(&self, index: usize) -> f64 {
        let ceiling = self.tiers.get(index + 1).map_or(self.height_mm, |above| {
            above.deck_height_mm - self.deck_thickness_mm
        });
        ceiling - self.tiers[index].deck_height_mm
    }

    /// How many rectangles of `length_mm` x `width_mm` stand on a deck in rows that all lie the
    /// same way: the better of lengthwise and crosswise.
    pub fn trays_per_deck(&self, length_mm: f64, width_mm: f64) -> u32 {
        let fit = |x: f64, y: f64| (self.width_mm / x).floor() * (self.depth_mm / y).floor();
        fit(length_mm, width_mm).max(fit(width_mm, length_mm)) as u32
    }

    fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        let mut fine = true;
        for (name, mm, range) in [
            ("width_mm", self.width_mm, 200.0..=5000.0),
            ("depth_mm", self.depth_mm, 150.0..=2000.0),
            ("height_mm", self.height_mm, 200.0..=3500.0),
            ("deck_thickness_mm", self.deck_thickness_mm, 1.0..=100.0),
        ] {
            fine &= faults.number(&at.at(name), mm, range, Quantity::LengthMm);
        }
        let tiers = at.at("tiers");
        faults.count(&tiers, self.tiers.len(), 1..=20);
        faults.unique(&tiers, self.tiers.iter().map(|tier| tier.id.as_str()));
        let mut lowest = self.deck_thickness_mm;
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
                lowest = tier.deck_height_mm + LEAST_BAY_MM + self.deck_thickness_mm;
            }
        }
        for (i, tier) in self.tiers.iter().enumerate() {
            // Without sound decks there is no ceiling to hold the lamps against.
            let clear_mm = fine.then(|| self.clear_height_mm(i));
            tier.check(&tiers.at(i), self, clear_mm, faults);
        }
    }
}

/// The least clear height a bay can have: a tray and a hand.
const LEAST_BAY_MM: f64 = 80.0;
/// How far a lamp or a tray may stick out over the edge of a deck.
pub const MOST_OVERHANG_MM: f64 = 120.0;

impl Tier {
    fn check(&self, at: &Pointer, rack: &Rack, clear_mm: Option<f64>, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        faults.number(
            &at.at("photoperiod_h"),
            self.photoperiod_h,
            0.0..=24.0,
            Quantity::Hours,
        );
        let lamps = at.at("lamps");
        faults.count(&lamps, self.lamps.len(), 0..=24);
        faults.unique(&lamps, self.lamps.iter().map(|lamp| lamp.id.as_str()));
        for (i, lamp) in self.lamps.iter().enumerate() {
            lamp.check(&lamps.at(i), rack, clear_mm, faults);
        }
    }
}

impl Lamp {
    fn check(&self, at: &Pointer, rack: &Rack, clear_mm: Option<f64>, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        let mut number = |name: &str, value, range, quantity| {
            faults.number(&at.at(name), value, range, quantity)
        };
        number(
            "cct_k",
            self.cct_k,
            1500.0..=20_000.0,
            Quantity::ColourTemperatureK,
        );
        number("flux_lm", self.flux_lm, 0.0..=200_000.0, Quantity::FluxLm);
        if let Some(ppf) = self.ppf_umol_s {
            number("ppf_umol_s", ppf, 0.0..=5000.0, Quantity::PpfUmolS);
        }
        number("watts", self.watts, 0.0..=2000.0, Quantity::PowerW);
        number("beam_deg", self.beam_deg, 15.0..=160.0, Quantity::AngleDeg);
        let over = MOST_OVERHANG_MM;
        let (x, y) = (rack.width_mm, rack.depth_mm);
        number(
            "x_mm",
            self.x_mm,
            -over..=x.max(0.0) + over,
            Quantity::LengthMm,
        );
        number(
            "y_mm",
            self.y_mm,
            -over..=y.max(0.0) + over,
            Quantity::LengthMm,
        );
        number(
            "least_gap_mm",
            self.least_gap_mm,
            0.0..=2000.0,
            Quantity::LengthMm,
        );
        let body = number(
            "body_height_mm",
            self.body_height_mm,
            0.0..=500.0,
            Quantity::LengthMm,
        );
        let height = at.at("height_mm");
        match clear_mm {
            Some(clear_mm) if body => {
                let highest = clear_mm - self.body_height_mm;
                if highest < LOWEST_FACE_MM {
                    faults.add(
                        &at.at("body_height_mm"),
                        self.body_height_mm,
                        say!(
                            "a lamp body of {body} does not go into a bay of {clear}",
                            body = Quantity::LengthMm.of(self.body_height_mm),
                            clear = Quantity::LengthMm.of(clear_mm)
                        ),
                        say!("take a flatter lamp or a taller bay"),
                    );
                } else if self.height_mm > highest {
                    faults.add(
                        &height,
                        self.height_mm,
                        say!(
                            "the lamp at {height} would stick through the deck above, {clear} over this one",
                            height = Quantity::LengthMm.of(self.height_mm),
                            clear = Quantity::LengthMm.of(clear_mm)
                        ),
                        say!(
                            "hang its emitting face at {highest} or lower",
                            highest = Quantity::LengthMm.of(highest)
                        ),
                    );
                } else {
                    faults.number(
                        &height,
                        self.height_mm,
                        LOWEST_FACE_MM..=highest,
                        Quantity::LengthMm,
                    );
                }
            }
            _ => {
                faults.number(
                    &height,
                    self.height_mm,
                    LOWEST_FACE_MM..=3500.0,
                    Quantity::LengthMm,
                );
            }
        }
        let emitters = at.at("emitters");
        faults.count(&emitters, self.emitters.len(), 1..=16);
        for (i, face) in self.emitters.iter().enumerate() {
            let at = emitters.at(i);
            for (name, mm, range) in [
                ("length_mm", face.length_mm, 1.0..=5000.0),
                ("width_mm", face.width_mm, 1.0..=2000.0),
                ("across_mm", face.across_mm, -1000.0..=1000.0),
            ] {
                faults.number(&at.at(name), mm, range, Quantity::LengthMm);
            }
        }
    }
}

/// The lowest an emitting face can hang over the deck.
pub const LOWEST_FACE_MM: f64 = 10.0;

/// Checks all places of the room.
pub(crate) fn check(places: &[Place], at: &Pointer, faults: &mut Faults) {
    faults.count(at, places.len(), 0..=100);
    faults.unique(at, places.iter().map(Place::id));
    for (i, place) in places.iter().enumerate() {
        match place {
            Place::Rack(rack) => rack.check(&at.at(i).at("rack"), faults),
        }
    }
}
