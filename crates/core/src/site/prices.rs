//! What things cost where the plan is carried out: the user's own figures, in the site's currency.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;

/// Prices, and what is there already. What has no price here is listed without one.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Prices {
    /// What gear and trays cost, by what they are.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub goods: Vec<Good>,
    /// A litre of mix.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mix_per_litre: Option<f64>,
    /// A thousand litres of water.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub water_per_m3: Option<f64>,
    /// A packet of seed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub packet: Option<f64>,
    /// A plant as it is sold, ready to plant out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bought_plant: Option<f64>,
    /// Seasons that gear serves; five when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lasts_seasons: Option<f64>,
    /// What is to be spent on the stand at the most.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub budget: Option<f64>,
}

/// What a kind of thing costs, and how many are there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Good {
    /// What it is, in the words that the plan has for it.
    pub name: String,
    /// What one costs; left out where nobody looked.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<f64>,
    /// How many are there already.
    #[serde(default)]
    pub owned: u32,
}

/// Seasons that gear serves where nobody said (our own estimate).
const LASTS_SEASONS: f64 = 5.0;

impl Prices {
    /// Whether nothing is known.
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }

    /// What is known of the things called `name`.
    pub fn good(&self, name: &str) -> Option<&Good> {
        self.goods.iter().find(|good| good.name == name)
    }

    /// Seasons that gear serves.
    pub fn lasts(&self) -> f64 {
        self.lasts_seasons.unwrap_or(LASTS_SEASONS)
    }

    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        let goods = at.at("goods");
        let money = |faults: &mut Faults, at: Pointer, price: Option<f64>| {
            if let Some(price) = price {
                faults.number(&at, price, 0.0..=1e7, Quantity::Money);
            }
        };
        faults.unique(&goods, self.goods.iter().map(|good| good.name.as_str()));
        for (i, good) in faults.list(&goods, &self.goods, 0..=500) {
            let at = goods.at(i);
            faults.name(&at.at("name"), &good.name);
            money(faults, at.at("price"), good.price);
            let owned = f64::from(good.owned);
            faults.number(&at.at("owned"), owned, 0.0..=100_000.0, Quantity::Count);
        }
        for (name, price) in [
            ("mix_per_litre", self.mix_per_litre),
            ("water_per_m3", self.water_per_m3),
            ("packet", self.packet),
            ("bought_plant", self.bought_plant),
            ("budget", self.budget),
        ] {
            money(faults, at.at(name), price);
        }
        if let Some(seasons) = self.lasts_seasons {
            faults.number(
                &at.at("lasts_seasons"),
                seasons,
                1.0..=50.0,
                Quantity::Count,
            );
        }
    }
}
