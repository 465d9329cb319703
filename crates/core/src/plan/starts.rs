//! What fields begin with, until people give their own.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::clock::ClockSpan;
use crate::room::{Ageing, Boxes, Chain, Dimmer};
use crate::seeds::{Packet, SeedSource, Want};

/// Starting values.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Starts {
    /// Hours in which lamps are to be off, and those in which a kWh is cheaper.
    pub night: ClockSpan,
    /// What a cheap kWh costs of the usual price.
    pub cheap_share: f64,
    /// Chains that lamps hang on.
    pub chain: Chain,
    /// Boxes under trays.
    pub boxes: Boxes,
    /// Dimmers to choose from, fully turned up.
    pub dimmers: Vec<Dimmer>,
    /// The age of a lamp.
    pub ageing: Ageing,
    /// A packet bought for the season; its crop, variety and year are its own.
    pub packet: Packet,
    /// Plants wanted, of seed that nobody tested.
    pub want: Want,
}

impl Starts {
    /// What a gardener begins with: quiet at night, short-link chain, three flat boxes (common
    /// practice, no source; the age from memory of makers' figures for LEDs).
    pub fn usual() -> Self {
        let dimmer = |steps: u32| Dimmer {
            steps: (1..=steps)
                .map(|step| f64::from(step) / f64::from(steps))
                .collect(),
            at: steps as usize - 1,
        };
        Self {
            night: ClockSpan {
                from_h: 22.0,
                to_h: 6.0,
            },
            cheap_share: 0.5,
            chain: Chain { link_mm: 25.0 },
            boxes: Boxes {
                heights_mm: vec![30.0, 60.0, 120.0],
                stacked_mm: 0.0,
            },
            dimmers: [3, 4, 10].map(dimmer).into(),
            ageing: Ageing {
                burnt_h: 0.0,
                l70_h: 30_000.0,
            },
            packet: Packet {
                id: String::new(),
                crop: String::new(),
                variety: String::new(),
                lot: None,
                year: 0,
                seeds: None,
                source: SeedSource::Bought,
                cold: false,
                stated: None,
                test: None,
                counted: None,
            },
            want: Want::usual(),
        }
    }
}
