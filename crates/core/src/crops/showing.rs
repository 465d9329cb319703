//! When seedlings of a crop show, and how many: the calculator `emergence`.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::crop::Crop;
use crate::crops::emergence::EmergenceCurve;
use crate::crops::library::library;
use crate::crops::rates::until_up;

/// A crop and the root zone that its seeds lie in.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sown {
    /// The crop, as the library names it.
    pub crop: String,
    /// Root-zone temperature through the day in °C, day after day: one figure, or one for each
    /// hour, or any number of equal shares of a day.
    pub root_zone_c: Vec<f64>,
}

/// When and how many show.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Outcome {
    /// Days from sowing until a tenth show; `None` when none do.
    pub first_days: Option<f64>,
    /// Until half show.
    pub half_days: Option<f64>,
    /// Until nine tenths show.
    pub last_days: Option<f64>,
    /// The share of good seeds that come up, 0 to 1.
    pub share: f64,
    /// What to make of it.
    pub verdict: Statement,
    /// Where the figures come from.
    pub source: &'static str,
}

/// Fewer than this is not worth the seed (our own estimate).
const WORTH: f64 = 0.5;

impl Sown {
    /// When and how many show.
    ///
    /// # Errors
    /// A crop that is not in the library; temperatures that no root zone has.
    pub fn outcome(&self) -> Result<Outcome, Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        let library = library();
        let crop = library.get(&self.crop);
        if crop.is_none() {
            let known = library.crops.iter().map(|crop| crop.id.clone());
            faults.unknown(&root.at("crop"), &self.crop, known);
        }
        let at = root.at("root_zone_c");
        for (i, &c) in faults.list(&at, &self.root_zone_c, 1..=1440) {
            faults.number(&at.at(i), c, -20.0..=60.0, Quantity::TemperatureC);
        }
        faults.verdict()?;
        let crop = crop.expect("an unknown crop is a fault");
        Ok(Outcome::of(crop, &crop.curve(), &self.root_zone_c))
    }
}

impl Outcome {
    /// When and how many seeds of `crop` show with the root zone at `day_c` day after day, or hour by hour
    /// from sowing on.
    pub fn of(crop: &Crop, curve: &EmergenceCurve, day_c: &[f64]) -> Self {
        let showing = curve.showing(day_c);
        let own = until_up(day_c, showing.map(|showing| showing.half_days));
        let mean =
            |of: &dyn Fn(f64) -> f64| own.iter().map(|&c| of(c)).sum::<f64>() / own.len() as f64;
        let share = showing.map_or(0.0, |_| mean(&|c| curve.share(c)));
        let mean_c = mean(&|c| c);
        let best_c = curve.best_c();
        let (mean, best) = (
            Quantity::TemperatureC.of(mean_c),
            Quantity::TemperatureC.of(best_c),
        );
        let name = crop.name.as_str();
        let verdict = match showing {
            None if mean_c < best_c => say!(
                "{crop} will not come up at {mean}; warm the mix to about {best}",
                crop = name,
                mean = mean,
                best = best
            ),
            None => say!(
                "{crop} will not come up at {mean}; cool the mix to about {best}",
                crop = name,
                mean = mean,
                best = best
            ),
            Some(_) if share < WORTH && mean_c < best_c => say!(
                "At {mean} only {share} of good seed comes up and the rest rots; warm the mix to about {best}",
                mean = mean,
                share = Quantity::Share.of(share),
                best = best
            ),
            Some(_) if share < WORTH => say!(
                "At {mean} only {share} of good seeds come up, the rest stay asleep; cool the mix to about {best}",
                mean = mean,
                share = Quantity::Share.of(share),
                best = best
            ),
            Some(days) => say!(
                "First up after {first}, half after {half}, all after {last}",
                first = Quantity::Days.of(days.first_days),
                half = Quantity::Days.of(days.half_days),
                last = Quantity::Days.of(days.last_days)
            ),
        };
        Self {
            first_days: showing.map(|s| s.first_days),
            half_days: showing.map(|s| s.half_days),
            last_days: showing.map(|s| s.last_days),
            share,
            verdict,
            source: library().source("emergence"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn sown(crop: &str, root_zone_c: &[f64]) -> Sown {
        Sown {
            crop: crop.into(),
            root_zone_c: root_zone_c.into(),
        }
    }

    #[test]
    fn too_warm_and_too_cold_are_said_before_the_seed_is_wasted() {
        let verdict = |crop, c| sown(crop, &[c]).outcome().unwrap().verdict.to_string();
        assert!(
            verdict("lettuce", 30.0).contains("cool the mix"),
            "{}",
            verdict("lettuce", 30.0)
        );
        assert!(verdict("lettuce", 36.0).contains("will not come up at 36 °C; cool the mix"));
        assert!(verdict("pepper", 12.0).contains("warm the mix"));
        assert!(verdict("pepper", 5.0).contains("will not come up at 5 °C; warm the mix"));
        assert!(verdict("tomato", 24.0).starts_with("First up after"));
    }

    #[test]
    fn an_unknown_crop_and_impossible_temperatures_are_refused() {
        let faults = sown("triffid", &[20.0, 900.0]).outcome().unwrap_err();
        let paths: Vec<&str> = faults.iter().map(|f| f.path.as_str()).collect();
        assert_eq!(paths, ["/crop", "/root_zone_c/1"]);
        assert!(sown("tomato", &[]).outcome().is_err());
    }
}
