//! What can be had for one shelf, and what it costs.

use std::collections::BTreeMap;

use crate::basis::words::Statement;
use crate::plan::SoundPlan;
use crate::room::{Bay, Mat, Tier};

/// What a shelf can have for its light, or for its warmth.
pub(super) struct Item<'a> {
    pub(super) bay: Bay<'a>,
    /// Whether this is its warmth.
    pub(super) is_warmth: bool,
    /// The cells that want it.
    pub(super) cells: f64,
    /// What can be had: what is there first, where it has a price.
    pub(super) offers: Vec<Offer>,
    /// Kinds that nobody said the price of.
    pub(super) unpriced: Vec<String>,
}

/// A way to equip a shelf.
pub(super) struct Offer {
    pub(super) what: Statement,
    /// Whether it is what is there.
    pub(super) yours: bool,
    /// What its gear is worth, in the site's currency.
    pub(super) worth: f64,
    /// What of that is to be bought.
    pub(super) to_buy: f64,
    /// What its current costs over the season.
    pub(super) current: f64,
    /// A season's share of the worth, and the current.
    pub(super) cost: f64,
    /// The cells that get what they want.
    pub(super) well: f64,
    pub(super) change: Change,
}

/// What becomes of a tier.
pub(super) enum Change {
    /// It gets the lamps, walls and hours of another.
    Light(Box<Tier>),
    /// It gets other mats.
    Mats(Vec<Mat>),
}

impl Change {
    pub(super) fn apply(&self, tier: &mut Tier) {
        match self {
            Self::Light(with) => {
                tier.lamps.clone_from(&with.lamps);
                tier.sides = with.sides;
                tier.adjust.clone_from(&with.adjust);
                (tier.photoperiod_h, tier.lights_on_h) = (with.photoperiod_h, with.lights_on_h);
            }
            Self::Mats(mats) => tier.mats.clone_from(mats),
        }
    }
}

/// Prices, and what is owned and not yet given to a shelf.
pub(super) struct Owned<'a> {
    plan: &'a SoundPlan,
    left: BTreeMap<&'a str, u32>,
}

/// What gear is worth, and what of it is to be bought.
pub(super) struct Worth {
    pub(super) worth: f64,
    pub(super) to_buy: f64,
}

impl<'a> Owned<'a> {
    pub(super) fn of(plan: &'a SoundPlan) -> Self {
        let goods = plan.prices.goods.iter();
        Self {
            plan,
            left: goods.map(|good| (good.name.as_str(), good.owned)).collect(),
        }
    }

    pub(super) fn price(&self, name: &str) -> Option<f64> {
        self.plan.prices.good(name)?.price
    }

    /// What a season has of something worth so much.
    pub(super) fn a_season(&self, worth: f64) -> f64 {
        worth / self.plan.prices.lasts()
    }

    /// What of the gear called `names`, which is on a shelf, is owned: it is the shelf's from now on.
    pub(super) fn had<'n>(
        &mut self,
        names: impl Iterator<Item = &'n str>,
    ) -> BTreeMap<String, u32> {
        let mut had = BTreeMap::new();
        for name in names {
            if let Some(left) = self.left.get_mut(name).filter(|left| **left > 0) {
                *left -= 1;
                *had.entry(name.to_owned()).or_default() += 1;
            }
        }
        had
    }

    /// What the gear called `names` comes to for a shelf that has `had`; `None` where something has no price.
    pub(super) fn worth<'n>(
        &self,
        names: impl Iterator<Item = &'n str>,
        had: &BTreeMap<String, u32>,
    ) -> Option<Worth> {
        let mut left = had.clone();
        let mut sum = Worth {
            worth: 0.0,
            to_buy: 0.0,
        };
        for name in names {
            let price = self.price(name)?;
            sum.worth += price;
            match left.get_mut(name).filter(|left| **left > 0) {
                Some(left) => *left -= 1,
                None => sum.to_buy += price,
            }
        }
        Some(sum)
    }
}
