//! What circuits, fused plugs, strips, timers and chains may carry.

use serde::Serialize;
use utoipa::ToSchema;

use crate::room::wiring::{Feed, FeedKind};

/// The share of a breaker or a fuse that may be drawn for hours.
///
/// Source: NFPA 70 (NEC), article 210.20(A): a breaker is to be no less than what is drawn for a while and
/// 125 % of what is drawn for three hours or more, which comes to 80 % of it (from memory). Other codes
/// have other rules; the same caution is taken everywhere.
pub const CONTINUOUS_SHARE: f64 = 0.8;

/// The most that a feed carries at once, in VA.
#[derive(Debug, Clone, Copy)]
pub(super) struct Carried {
    /// As it is drawn.
    pub(super) volt_amps: f64,
    /// With what lasts counted at 125 %.
    pub(super) with_lasting: f64,
}

/// By what a feed is limited.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LimitBy {
    /// The breaker of the circuit.
    Breaker,
    /// The fuse in its plug (BS 1363).
    Fuse,
    /// Its maker's label.
    Label,
}

/// What a feed may carry by one rule, and what it carries at most.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Limit {
    /// The rule.
    pub by: LimitBy,
    /// What it lets through, in VA: volts by amperes, or the label's watts.
    pub most_va: f64,
    /// What may be drawn for hours, in VA.
    pub lasting_va: f64,
    /// The most that is carried at once, in VA; behind a breaker or a fuse what is on for hours counts at
    /// 125 %.
    pub carries_va: f64,
    /// Whether that is too much.
    pub over: bool,
}

impl Limit {
    fn amps(by: LimitBy, amps: f64, mains_v: f64, carried: Carried) -> Self {
        let most_va = amps * mains_v;
        let lasting_va = CONTINUOUS_SHARE * most_va;
        Self::new(by, most_va, lasting_va, carried.with_lasting)
    }

    fn new(by: LimitBy, most_va: f64, lasting_va: f64, carries_va: f64) -> Self {
        Self {
            by,
            most_va,
            lasting_va,
            carries_va,
            over: carries_va > most_va + 1e-6,
        }
    }
}

/// The limits of `feed`, which is plugged into `over` and carries `carried` at most.
pub(super) fn limits(
    feed: &Feed,
    over: Option<&Feed>,
    mains_v: f64,
    carried: Carried,
) -> Vec<Limit> {
    let label = |watts: f64| Limit::new(LimitBy::Label, watts, watts, carried.volt_amps);
    let mut limits = Vec::new();
    match feed.kind {
        FeedKind::Circuit(circuit) => {
            limits.push(Limit::amps(
                LimitBy::Breaker,
                circuit.breaker_a,
                mains_v,
                carried,
            ));
        }
        FeedKind::Socket(_) => (),
        FeedKind::Strip(strip) => limits.push(label(strip.rating_w)),
        FeedKind::Timer(timer) => limits.push(label(timer.rating_w)),
        FeedKind::Chain(linked) => limits.extend(linked.most_w.map(label)),
    }
    let fuse_a = over.and_then(|over| match over.kind {
        FeedKind::Socket(socket) => socket.fuse_a,
        _ => None,
    });
    limits.extend(fuse_a.map(|amps| Limit::amps(LimitBy::Fuse, amps, mains_v, carried)));
    limits
}

impl Feed {
    /// The most lamps that may be linked in it; `None` where the label does not say, or it is no chain.
    pub fn most_lamps(&self) -> Option<u32> {
        match self.kind {
            FeedKind::Chain(linked) => linked.most_lamps,
            _ => None,
        }
    }
}
