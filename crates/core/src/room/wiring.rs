//! How the gear of the room is plugged together: circuits, sockets, strips, timers and chains, each
//! plugged into another, and whatever else of the household hangs on them.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::ClockSpan;
use crate::room::tier::Tier;

/// Circuits and all that passes their current on, and the household's own loads.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Wiring {
    /// Circuits, sockets, strips, timers and chains.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub feeds: Vec<Feed>,
    /// What else of the household is plugged in.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub appliances: Vec<Appliance>,
}

/// Something that others get their current from.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Feed {
    /// Identifier, unique among the feeds.
    pub id: String,
    /// What people call it.
    pub name: String,
    /// The feed that it is plugged into, or the circuit that a socket is on; left out for a circuit.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub into: Option<String>,
    /// Where it is along the row of places, from the left.
    #[serde(default)]
    pub x_mm: f64,
    /// Where it is over the floor.
    #[serde(default)]
    pub height_mm: f64,
    /// What it is, and what it may carry.
    pub kind: FeedKind,
}

/// What a feed is, and what it may carry.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FeedKind {
    /// A circuit of the house, behind a breaker.
    Circuit(Circuit),
    /// A socket in the wall.
    Socket(Socket),
    /// A strip of sockets on a cord.
    Strip(Strip),
    /// A timer or a smart plug.
    Timer(Timer),
    /// Lamps that are linked, each plugged into the one before it.
    Chain(Linked),
}

/// A circuit of the house.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Circuit {
    /// What its breaker lets through, in A.
    pub breaker_a: f64,
    /// Whether a residual-current device (RCD, GFCI) guards it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub rcd: bool,
    /// The day on which the test button of that device was last pressed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rcd_tested: Option<Date>,
}

/// A socket in the wall.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Socket {
    /// How many plugs go in.
    pub outlets: u32,
    /// The fuse in each plug, in A, where plugs have one; left out elsewhere.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fuse_a: Option<f64>,
}

/// A strip of sockets.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Strip {
    /// What it may carry by its label.
    pub rating_w: f64,
    /// How many plugs go in.
    pub outlets: u32,
    /// Whether it guards against surges.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub surge: bool,
    /// Whether it has a switch.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub switched: bool,
}

/// A timer or a smart plug. When it switches on and off is said by the shelves whose lamps it switches.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Timer {
    /// What it may switch by its label.
    pub rating_w: f64,
    /// How many plugs go in.
    pub outlets: u32,
    /// How it is set.
    pub clock: TimerClock,
    /// Whether it is made for damp and outdoors.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub weatherproof: bool,
}

/// How a timer is set.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TimerClock {
    /// A dial with a segment for each quarter of an hour.
    Dial15,
    /// A dial with a segment for each half hour.
    Dial30,
    /// To the minute.
    Digital,
    /// To the minute, from a phone.
    SmartPlug,
}

impl TimerClock {
    /// The least step in minutes that it can be set by.
    pub fn step_min(self) -> u32 {
        match self {
            Self::Dial15 => 15,
            Self::Dial30 => 30,
            Self::Digital | Self::SmartPlug => 1,
        }
    }
}

/// How many lamps may be linked.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Linked {
    /// The most lamps by the maker; left out where the label does not say.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most_lamps: Option<u32>,
    /// The most power through the first cord, by the maker, in W.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub most_w: Option<f64>,
}

/// Something of the household on the same circuits: a heater, a dryer, a freezer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Appliance {
    /// Identifier, unique among the appliances.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Power drawn at the plug.
    pub watts: f64,
    /// The feed that it is plugged into.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plugged: Option<String>,
    /// The hours in which it runs; all day when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<ClockSpan>,
    /// The share of those hours in which it draws, 0 to 1; all of them when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub duty: Option<f64>,
    /// Whether it makes heat: a heater, a kettle, a dryer.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub heats: bool,
}

impl Wiring {
    /// Whether nothing is known of it.
    pub fn is_empty(&self) -> bool {
        self.feeds.is_empty() && self.appliances.is_empty()
    }

    /// The feed called `id`.
    pub fn feed(&self, id: &str) -> Option<&Feed> {
        self.feeds.iter().find(|feed| feed.id == id)
    }

    /// The feeds from `id` up to its circuit, it first. A loop, which no sound plan has, ends where it
    /// begins again.
    pub fn path<'a>(&'a self, id: &str) -> Vec<&'a Feed> {
        let mut path: Vec<&Feed> = Vec::new();
        let mut next = self.feed(id);
        while let Some(feed) = next.filter(|_| path.len() <= self.feeds.len()) {
            path.push(feed);
            next = feed.into.as_deref().and_then(|into| self.feed(into));
        }
        path
    }

    /// The first timer on the way from `id` to its circuit.
    pub fn timer_over<'a>(&'a self, id: &str) -> Option<(&'a Feed, &'a Timer)> {
        self.path(id).into_iter().find_map(|feed| match &feed.kind {
            FeedKind::Timer(timer) => Some((feed, timer)),
            _ => None,
        })
    }
}

impl Wiring {
    /// The first timer over any lamp of `tier`.
    pub fn timer_of<'a>(&'a self, tier: &Tier) -> Option<(&'a Feed, &'a Timer)> {
        let plugged = tier.lamps.iter().filter_map(|lamp| lamp.plugged.as_deref());
        plugged.into_iter().find_map(|id| self.timer_over(id))
    }
}

impl Feed {
    /// What its label allows, in W; without an end where it has none.
    pub fn rating_w(&self) -> f64 {
        match self.kind {
            FeedKind::Strip(strip) => strip.rating_w,
            FeedKind::Timer(timer) => timer.rating_w,
            _ => f64::INFINITY,
        }
    }

    /// Whether lamps are linked in it.
    pub fn is_chain(&self) -> bool {
        matches!(self.kind, FeedKind::Chain(_))
    }
}

impl FeedKind {
    /// How many plugs go in; `None` for a circuit, which has no end of sockets, and a chain.
    pub fn outlets(&self) -> Option<u32> {
        match self {
            Self::Circuit(_) | Self::Chain(_) => None,
            Self::Socket(socket) => Some(socket.outlets),
            Self::Strip(strip) => Some(strip.outlets),
            Self::Timer(timer) => Some(timer.outlets),
        }
    }
}
