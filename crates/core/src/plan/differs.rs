//! In what a variety differs from its kind.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::crops::{Crop, Emergence, GerminatesIn, Habit, Vigour};

/// Figures of a variety that are not its kind's; what is left out is as the crop has it.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Differs {
    /// How days to emergence follow from temperature.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub emergence: Option<Emergence>,
    /// Weeks from sowing to planting out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weeks_indoors: Option<f64>,
    /// Weeks from the last frost to planting out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weeks_after_last_frost: Option<f64>,
    /// Root-zone temperature to germinate at, in °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub root_zone_c: Option<f64>,
    /// The coldest air that its seedlings stand for a night, in °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub least_air_c: Option<f64>,
    /// Its seedlings grow in air warmer than this, in °C.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grows_over_c: Option<f64>,
    /// Least daily light integral that grows a sturdy seedling.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dli_low_mol_m2_d: Option<f64>,
    /// Daily light integral past which seedlings gain nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dli_high_mol_m2_d: Option<f64>,
    /// Longest photoperiod it bears, in hours.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photoperiod_most_h: Option<f64>,
    /// Whether seed wants light or darkness.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub germinates_in: Option<GerminatesIn>,
    /// Height within days of coming up, in mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub emerges_mm: Option<f64>,
    /// Height at planting out in mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height_out_mm: Option<f64>,
    /// How fast it fills its cell.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub vigour: Option<Vigour>,
    /// How it grows as a seedling.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub habit: Option<Habit>,
    /// From plant to plant in the tray, by the time it goes out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spacing_mm: Option<f64>,
    /// Weeks from emergence to potting on; 0 when it stays.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pot_on_weeks: Option<f64>,
    /// Weeks cold and moist before it is sown warm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cold_weeks: Option<f64>,
}

/// One more step of vigour fills a cell in so much of the time (our own estimate).
const PER_STEP_OF_VIGOUR: f64 = 0.85;

impl Differs {
    /// Whether it differs in nothing.
    pub fn is_none(&self) -> bool {
        *self == Self::default()
    }

    /// The crop as this variety of it is.
    pub fn of(&self, crop: &Crop) -> Crop {
        let mut own = crop.clone();
        let set = |field: &mut f64, figure: Option<f64>| *field = figure.unwrap_or(*field);
        set(&mut own.weeks_indoors, self.weeks_indoors);
        set(&mut own.weeks_after_last_frost, self.weeks_after_last_frost);
        set(&mut own.root_zone_c, self.root_zone_c);
        set(&mut own.least_air_c, self.least_air_c);
        set(&mut own.grows_over_c, self.grows_over_c);
        set(&mut own.dli_low_mol_m2_d, self.dli_low_mol_m2_d);
        set(&mut own.dli_high_mol_m2_d, self.dli_high_mol_m2_d);
        set(&mut own.photoperiod_most_h, self.photoperiod_most_h);
        set(&mut own.emerges_mm, self.emerges_mm);
        set(&mut own.height_out_mm, self.height_out_mm);
        set(&mut own.spacing_mm, self.spacing_mm);
        set(&mut own.pot_on_weeks, self.pot_on_weeks);
        set(&mut own.cold_weeks, self.cold_weeks);
        if let Some(emergence) = &self.emergence {
            own.emergence = emergence.clone();
        }
        own.germinates_in = self.germinates_in.unwrap_or(own.germinates_in);
        own.habit = self.habit.unwrap_or(own.habit);
        if let Some(vigour) = self.vigour {
            let steps = vigour as i32 - own.vigour as i32;
            own.vigour = vigour;
            if own.pot_on_weeks > 0.0 && self.pot_on_weeks.is_none() {
                own.pot_on_weeks *= PER_STEP_OF_VIGOUR.powi(steps);
            }
        }
        own
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_dwarf_is_its_kind_but_for_what_is_said() {
        let tomato = crate::crops::library().get("tomato").unwrap();
        assert_eq!(Differs::default().of(tomato), *tomato);
        let dwarf = Differs {
            height_out_mm: Some(90.0),
            vigour: Some(Vigour::Slow),
            ..Differs::default()
        };
        let own = dwarf.of(tomato);
        assert_eq!((own.height_out_mm, own.vigour), (90.0, Vigour::Slow));
        assert!(own.pot_on_weeks > tomato.pot_on_weeks && own.root_zone_c == tomato.root_zone_c);
    }
}
