//! The share of the seeds in a packet that are alive.

use serde::{Deserialize, Serialize};
use statrs::distribution::{Beta, ContinuousCDF};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::learned::Learned;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::Crop;

/// A packet of seed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Packet {
    /// Identifier that sowings name.
    pub id: String,
    /// The kind, from the crop library.
    pub crop: String,
    /// The variety, as it says.
    pub variety: String,
    /// What its lot is called; left out when it has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lot: Option<String>,
    /// The year in which it was harvested or packed.
    pub year: i16,
    /// Seeds that are left; left out when nobody counted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seeds: Option<u32>,
    /// Where it comes from.
    pub source: SeedSource,
    /// Whether it is kept cold and dry.
    pub cold: bool,
    /// The share that comes up as the packet states it, 0 to 1; left out when it states none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stated: Option<f64>,
    /// The last test on damp paper; left out when there was none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub test: Option<GerminationTest>,
    /// The share that is alive by what came up in trays; wins over all other.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub counted: Option<Learned>,
}

/// Where seed comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SeedSource {
    /// Bought.
    Bought,
    /// Saved from one's own plants.
    Saved,
    /// Swapped or given: nobody knows.
    Given,
}

/// Seeds laid on damp paper.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GerminationTest {
    /// Seeds that sprouted.
    pub sprouted: u32,
    /// Seeds that were laid out.
    pub of: u32,
}

/// How alive seed is, and how sure that is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Viability {
    /// The share of seeds that are alive, 0 to 1.
    pub share: f64,
    /// With 90 % certainty it is at least so much.
    pub low: f64,
    /// With 90 % certainty it is at most so much.
    pub high: f64,
    /// How that is known.
    pub basis: Statement,
}

impl Viability {
    /// Cuttings and slips are alive when they are cut; what does not root is among the crop's losses.
    pub fn of_cuttings() -> Self {
        Self {
            share: 1.0,
            low: 1.0,
            high: 1.0,
            basis: say!("cut fresh"),
        }
    }
}

impl GerminationTest {
    /// What a test says: the posterior Beta(1 + k, 1 + n − k) over a prior that knows nothing, its
    /// mean and the middle 90 % of it.
    ///
    /// Source: Bayes's rule for a binomial count with a uniform prior (any statistics textbook);
    /// checked against SciPy.
    ///
    /// ```
    /// use sunrise_core::seeds::GerminationTest;
    /// let test = GerminationTest { sprouted: 8, of: 10 };
    /// let viability = test.viability();
    /// assert!((viability.share - 9.0 / 12.0).abs() < 1e-12);
    /// assert!(viability.low < 0.55 && viability.high > 0.9);
    /// ```
    pub fn viability(self) -> Viability {
        let (k, n) = (f64::from(self.sprouted.min(self.of)), f64::from(self.of));
        let (a, b) = (1.0 + k, 1.0 + n - k);
        let beta = Beta::new(a, b).expect("both shapes are at least 1");
        Viability {
            share: a / (a + b),
            low: beta.inverse_cdf(0.05),
            high: beta.inverse_cdf(0.95),
            basis: say!(
                "{k} of {n} sprouted on damp paper",
                k = Quantity::Count.of(k),
                n = Quantity::Count.of(n)
            ),
        }
    }

    pub(crate) fn check(self, at: &Pointer, faults: &mut Faults) {
        let of = f64::from(self.of);
        if faults.number(&at.at("of"), of, 1.0..=10_000.0, Quantity::Count) {
            let sprouted = f64::from(self.sprouted);
            faults.number(&at.at("sprouted"), sprouted, 0.0..=of, Quantity::Count);
        }
    }
}

/// Fresh seed: most packets have 65 to 85 %, saved seed less and less evenly (common practice, no
/// source).
const BOUGHT: [f64; 3] = [0.65, 0.78, 0.88];
const SAVED: [f64; 3] = [0.35, 0.65, 0.85];
const GIVEN: [f64; 3] = [0.25, 0.6, 0.85];
/// Cold and dry, seed lives so many times as long (common practice, no source).
const COLD: f64 = 2.5;
/// How long seed lives where the library does not know, in years (our own estimate).
const USUAL_LIFE_Y: f64 = 3.5;

impl SeedSource {
    /// Low, usual and high share of fresh seed that is alive.
    fn shares(self) -> [f64; 3] {
        match self {
            Self::Bought => BOUGHT,
            Self::Saved => SAVED,
            Self::Given => GIVEN,
        }
    }

    /// How alive fresh seed from there is.
    pub fn fresh(self) -> Viability {
        let [low, share, high] = self.shares();
        Viability {
            share,
            low,
            high,
            basis: say!("fresh seed of this kind of source"),
        }
    }
}

impl Packet {
    /// How alive it is in `year`: by what came up in trays, else by its test, else by what it states or its source, less what
    /// age took.
    ///
    /// The share halves in the crop's seed life at room temperature, slowly at first:
    /// 2^−(age/life)^1.5 (our own estimate of the shape).
    pub fn viability(&self, crop: &Crop, year: i16) -> Viability {
        if let Some(counted) = self.counted {
            return self.since(counted, crop, year);
        }
        self.unsown(crop, year)
    }

    /// What age left of seed that was `counted`.
    fn since(&self, counted: Learned, crop: &Crop, year: i16) -> Viability {
        let left = |year: i16| self.left(crop, year);
        let aged = left(year.max(counted.on.year())) / left(counted.on.year()).max(1e-6);
        Viability {
            share: counted.value * aged,
            low: counted.low * aged,
            high: counted.high * aged,
            basis: counted.words(Quantity::Share),
        }
    }

    /// The share of what was alive when it was fresh that still is.
    fn left(&self, crop: &Crop, year: i16) -> f64 {
        let age = f64::from((year - self.year).max(0));
        (-(age / self.life_years(crop)).powf(1.5)).exp2()
    }

    /// Years until half of it is dead, as it is kept.
    fn life_years(&self, crop: &Crop) -> f64 {
        let life = crop.seed_life_years.known().unwrap_or(USUAL_LIFE_Y);
        if self.cold { life * COLD } else { life }
    }

    /// How alive it is in `year` by all that is known but what came up in trays.
    pub fn unsown(&self, crop: &Crop, year: i16) -> Viability {
        if let Some(test) = self.test {
            return test.viability();
        }
        let [low, share, high] = match self.stated {
            Some(stated) => [stated - 0.15, stated, stated + 0.1],
            None => self.source.shares(),
        };
        let age = f64::from((year - self.year).max(0));
        let (life, left) = (self.life_years(crop), self.left(crop, year));
        // The older, the less sure.
        let unsure = left.sqrt();
        let basis = if age < 1.0 {
            say!("fresh seed of this kind of source")
        } else {
            say!(
                "{age} old, and half of such seed is dead after {life}",
                age = Quantity::Years.of(age),
                life = Quantity::Years.of(life)
            )
        };
        Viability {
            share: (share * left).clamp(0.0, 1.0),
            low: (low * left * unsure).clamp(0.0, 1.0),
            high: (high * unsure).clamp(0.0, 1.0),
            basis,
        }
    }

    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("variety"), &self.variety);
        if let Some(lot) = &self.lot {
            faults.name(&at.at("lot"), lot);
        }
        let year = f64::from(self.year);
        faults.number(&at.at("year"), year, 1950.0..=2200.0, Quantity::Count);
        if let Some(seeds) = self.seeds {
            let range = 0.0..=1e7;
            faults.number(&at.at("seeds"), f64::from(seeds), range, Quantity::Count);
        }
        if let Some(stated) = self.stated {
            faults.number(&at.at("stated"), stated, 0.01..=1.0, Quantity::Share);
        }
        if let Some(test) = self.test {
            test.check(&at.at("test"), faults);
        }
        if let Some(counted) = self.counted {
            counted.check(&at.at("counted"), 0.0..=1.0, Quantity::Share, faults);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn packet(year: i16, cold: bool) -> Packet {
        Packet {
            id: "p".into(),
            crop: "onion".into(),
            variety: "Mill Lane Brown".into(),
            lot: None,
            year,
            seeds: Some(200),
            source: SeedSource::Bought,
            cold,
            stated: None,
            test: None,
            counted: None,
        }
    }

    #[test]
    fn seed_ages_and_lives_longer_in_the_cold() {
        let onion = crate::crops::library().get("onion").unwrap();
        let of = |year, cold| packet(year, cold).viability(onion, 2027).share;
        assert!((of(2027, false) - 0.78).abs() < 1e-9);
        let shares: Vec<f64> = (2020..=2027).rev().map(|year| of(year, false)).collect();
        assert!(shares.is_sorted_by(|a, b| a > b));
        assert!(of(2023, true) > of(2023, false));
        // From next year: not older than fresh.
        assert_eq!(of(2028, false), of(2027, false));
    }

    #[test]
    fn a_test_counts_more_than_age() {
        let onion = crate::crops::library().get("onion").unwrap();
        let tested = Packet {
            test: Some(GerminationTest {
                sprouted: 19,
                of: 20,
            }),
            ..packet(2015, false)
        };
        assert!(tested.viability(onion, 2027).share > 0.85);
    }
}
