//! What the plan takes, what is there of it, and what is to be bought.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::SoundPlan;
use crate::room::wiring::FeedKind;

/// A line of the shopping list.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShoppingLine {
    /// What kind of thing it is.
    pub kind: GoodKind,
    /// What it is, in words.
    pub name: String,
    /// How many the plan takes.
    pub needed: u32,
    /// How many are there.
    pub owned: u32,
    /// How many are to be bought.
    pub to_buy: u32,
    /// What one costs; `None` where nobody said.
    pub price: Option<f64>,
    /// What is to be bought of it costs; `None` without a price.
    pub cost: Option<f64>,
    /// What all of it is worth, there or not; `None` without a price.
    pub worth: Option<f64>,
}

/// Kinds of things that are bought, in the order of the list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GoodKind {
    /// Racks, chambers, frames.
    Place,
    /// Lamps.
    Lamp,
    /// Heat mats.
    Mat,
    /// Fans.
    Fan,
    /// Strips and timers.
    Cord,
    /// Trays and pots.
    Tray,
}

/// What `plan` takes, kind by kind and by name.
pub fn shopping(plan: &SoundPlan) -> Vec<ShoppingLine> {
    let mut needed: BTreeMap<(GoodKind, &str), u32> = BTreeMap::new();
    let mut need = |kind: GoodKind, name| *needed.entry((kind, name)).or_default() += 1;
    for place in &plan.places {
        if place.window().is_none() {
            need(GoodKind::Place, place.name.as_str());
        }
        for tier in &place.tiers {
            tier.lamps
                .iter()
                .for_each(|lamp| need(GoodKind::Lamp, &lamp.name));
            tier.mats
                .iter()
                .for_each(|mat| need(GoodKind::Mat, &mat.name));
            tier.fans
                .iter()
                .for_each(|fan| need(GoodKind::Fan, &fan.name));
        }
    }
    for feed in &plan.wiring.feeds {
        if matches!(feed.kind, FeedKind::Strip(_) | FeedKind::Timer(_)) {
            need(GoodKind::Cord, &feed.name);
        }
    }
    // Trays that are sown and those that plants are potted on into are both needed in the end.
    plan.trays
        .iter()
        .for_each(|tray| need(GoodKind::Tray, &plan.format(tray).name));
    let line = |((kind, name), needed): ((GoodKind, &str), u32)| {
        let good = plan.prices.good(name);
        let (price, owned) = (
            good.and_then(|good| good.price),
            good.map_or(0, |good| good.owned),
        );
        let to_buy = needed.saturating_sub(owned);
        ShoppingLine {
            kind,
            name: name.into(),
            needed,
            owned,
            to_buy,
            price,
            cost: price.map(|price| price * f64::from(to_buy)),
            worth: price.map(|price| price * f64::from(needed)),
        }
    };
    needed.into_iter().map(line).collect()
}
