//! A tier: a deck and the bay above it.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::Burning;
use crate::room::fan::Fan;
use crate::room::lamp::Lamp;
use crate::room::mat::Mat;
use crate::room::vent::Vent;

/// The least clear height a bay can have: a tray and a hand.
pub const LEAST_BAY_MM: f64 = 80.0;

/// A deck and the bay above it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tier {
    /// Identifier, unique in the place.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// Top of the deck above the floor.
    pub deck_height_mm: f64,
    /// Kept for pots and mix: no trays stand here.
    pub storage: bool,
    /// Whether a waterproof sheet or drip tray covers the deck.
    pub liner: bool,
    /// What closes the bay at its sides.
    pub sides: Sides,
    /// Holes in what closes it, their middles over its deck, besides the gaps at its edges.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub vents: Vec<Vent>,
    /// Hours a day that the lamps burn while something here needs light.
    pub photoperiod_h: f64,
    /// When they go on, in hours after midnight; 06:00 when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lights_on_h: Option<f64>,
    /// Whether its lamps burn over what germinates, too; only over what wants light when left out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub lamps_germinating: bool,
    /// Whether its mats stay on under what grows; off once all is up when left out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub mats_growing: bool,
    /// Whether domes stay on over what grows; off once all is up when left out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub domes_growing: bool,
    /// How the gap between lamps and leaves is changed; left out, lamps hang at any height.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub adjust: Option<Adjust>,
    /// The lamps that hang in the bay.
    pub lamps: Vec<Lamp>,
    /// The heat mats that lie on the deck.
    pub mats: Vec<Mat>,
    /// The fans in the bay.
    pub fans: Vec<Fan>,
}

/// A way of changing the gap between lamps and leaves.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Adjust {
    /// Lamps hang by chains from the deck above and move link by link.
    Chain(Chain),
    /// Lamps stay; boxes under the trays lift them.
    Boxes(Boxes),
    /// Neither moves.
    Fixed,
}

/// The chains that lamps hang by.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chain {
    /// How far a lamp moves by a link.
    pub link_mm: f64,
}

/// The boxes that lift trays.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Boxes {
    /// The height of each box, or of each layer of like ones, that is at hand.
    pub heights_mm: Vec<f64>,
    /// What the trays of the tier stand on now, 0 for the bare deck.
    pub stacked_mm: f64,
}

impl Boxes {
    /// Every height that boxes can be stacked to, the bare deck first.
    pub fn stacks_mm(&self) -> Vec<f64> {
        let mut stacks = vec![0.0];
        for &height in &self.heights_mm {
            let higher: Vec<f64> = stacks.iter().map(|stack| stack + height).collect();
            stacks.extend(higher);
        }
        stacks.sort_by(f64::total_cmp);
        stacks.dedup_by(|a, b| (*a - *b).abs() < 0.5);
        stacks
    }
}

/// What closes a bay at each of its sides.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sides {
    /// At the left.
    pub left: Side,
    /// At the right.
    pub right: Side,
    /// At the back.
    pub back: Side,
    /// At the front.
    pub front: Side,
    /// Under the deck above; open leaves that deck bare.
    #[serde(default, skip_serializing_if = "Side::is_open")]
    pub top: Side,
}

impl Sides {
    /// Whether nothing is open from which air could leave: left, right, back and front.
    pub fn all_closed(&self) -> bool {
        let around = [self.left, self.right, self.back, self.front];
        around.iter().all(|side| !side.is_open())
    }
}

/// What closes one side of a bay.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// Nothing: light and air pass.
    #[default]
    Open,
    /// A matt white board.
    White,
    /// Reflecting film.
    Foil,
    /// A cloth or clear sheet that can be drawn.
    Curtain,
}

impl Side {
    /// Whether nothing is there.
    pub fn is_open(&self) -> bool {
        *self == Self::Open
    }
}

/// When lamps go on where nobody said (common practice, no source).
const LIGHTS_ON_H: f64 = 6.0;

impl Tier {
    /// Sets every mat that another's thermostat switches as that thermostat is set.
    pub(crate) fn share_thermostats(&mut self) {
        for i in 0..self.mats.len() {
            let Some(lead) = self.lead_of(&self.mats[i]).cloned() else {
                continue;
            };
            let mat = &mut self.mats[i];
            mat.thermostat_c = lead.thermostat_c;
            mat.hysteresis_k = lead.hysteresis_k;
            mat.dial_error_k = lead.dial_error_k;
            mat.probe = lead.probe;
        }
    }

    /// Passes the thermostat of a mat that is gone on to the first that it switched besides: the others
    /// are switched with that one then, and none is left on for good.
    pub(crate) fn pass_thermostat_on(&mut self, gone: &str) {
        let mut lead: Option<String> = None;
        for mat in &mut self.mats {
            if mat.switched_with.as_deref() == Some(gone) {
                mat.switched_with.clone_from(&lead);
                lead.get_or_insert_with(|| mat.id.clone());
            }
        }
    }

    /// Pulls every plug: what is copied is plugged in nowhere yet.
    pub(crate) fn unplug(&mut self) {
        self.plugs_mut().for_each(|plugged| *plugged = None);
    }

    /// What each lamp, mat and fan is plugged into.
    pub(crate) fn plugs_mut(&mut self) -> impl Iterator<Item = &mut Option<String>> {
        let lamps = self.lamps.iter_mut().map(|lamp| &mut lamp.plugged);
        let mats = self.mats.iter_mut().map(|mat| &mut mat.plugged);
        let fans = self.fans.iter_mut().map(|fan| &mut fan.plugged);
        lamps.chain(mats).chain(fans)
    }

    /// The mat whose thermostat switches `mat` besides its own; `None` for one that stands alone.
    pub fn lead_of(&self, mat: &Mat) -> Option<&Mat> {
        let id = mat.switched_with.as_ref()?;
        self.mats.iter().find(|lead| lead.id == *id)
    }

    /// The hours in which its lamps burn.
    pub fn burning(&self) -> Burning {
        let from_h = self.lights_on_h.unwrap_or(LIGHTS_ON_H);
        Burning::new(from_h, self.photoperiod_h)
    }

    /// What the trays stand on over the deck.
    pub fn lift_mm(&self) -> f64 {
        match &self.adjust {
            Some(Adjust::Boxes(boxes)) => boxes.stacked_mm,
            _ => 0.0,
        }
    }

    /// The clear height that what hangs and stands in the bay takes up.
    pub fn needed_mm(&self) -> f64 {
        let lamps = self.lamps.iter().map(|l| l.height_mm + l.body_height_mm);
        let fans = self.fans.iter().map(|f| f.height_mm + f.diameter_mm / 2.0);
        lamps.chain(fans).fold(LEAST_BAY_MM, f64::max)
    }
}
