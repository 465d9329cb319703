//! A seedling from day to day.

use serde::Serialize;
use utoipa::ToSchema;

use crate::crops::Crop;
use crate::growth::conditions::Conditions;
use crate::growth::usual::Usual;
use crate::growth::{height, leaves, pace, roots};

/// A seedling on a day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Seedling {
    /// °Cd since it came up.
    pub thermal_cd: f64,
    /// Its height over the rim, in mm.
    pub height_mm: f64,
    /// As tall as it would stand in the least light that its crop wants, and with room, in mm.
    pub sturdy_mm: f64,
    /// Usual days of growth that its leaves and roots have made.
    pub grown_days: f64,
    /// Days since it came up.
    pub age_days: f64,
    /// What held it up, in days.
    lost: [f64; 4],
}

/// Less leaf and root than this share of what its age has is small (our own estimate).
pub const SMALL_FOR_ITS_AGE: f64 = 0.6;
/// Taller than a sturdy one by this is stretched (our own estimate).
pub const STRETCHED: f64 = 1.25;

/// What a seedling is behind by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Behind {
    /// Too little light.
    Light,
    /// Cold air.
    Warmth,
    /// A full cell.
    Roots,
    /// Taller plants beside it.
    Shade,
}

impl Behind {
    const ALL: [Self; 4] = [Self::Light, Self::Warmth, Self::Roots, Self::Shade];
}

impl Seedling {
    /// One that comes up.
    pub const UP: Self = Self {
        thermal_cd: 0.0,
        height_mm: 0.0,
        sturdy_mm: 0.0,
        grown_days: 0.0,
        age_days: 0.0,
        lost: [0.0; 4],
    };

    /// A plant that has grown up, and only passes through.
    pub fn stock(crop: &Crop) -> Self {
        Self {
            height_mm: crop.height_out_mm,
            sturdy_mm: crop.height_out_mm,
            ..Self::UP
        }
    }

    /// A cutting or slip as it is stuck.
    pub fn cut(crop: &Crop) -> Self {
        Self {
            height_mm: crop.emerges_mm,
            sturdy_mm: crop.emerges_mm,
            thermal_cd: height::STANDS_AFTER_CD,
            ..Self::UP
        }
    }

    /// The mean of several; `None` of none.
    pub fn mean(all: &[Self]) -> Option<Self> {
        let n = all.len() as f64;
        let of = |field: fn(&Self) -> f64| all.iter().map(field).sum::<f64>() / n;
        let lost = |i: usize| all.iter().map(|one| one.lost[i]).sum::<f64>() / n;
        (!all.is_empty()).then(|| Self {
            thermal_cd: of(|one| one.thermal_cd),
            height_mm: of(|one| one.height_mm),
            sturdy_mm: of(|one| one.sturdy_mm),
            grown_days: of(|one| one.grown_days),
            age_days: of(|one| one.age_days),
            lost: [lost(0), lost(1), lost(2), lost(3)],
        })
    }

    /// The same a day later.
    #[must_use]
    pub fn after(&self, crop: &Crop, day: &Conditions) -> Self {
        self.after_usual(crop, &Usual::of(crop), day)
    }

    /// The same for somebody who knows what is `usual` for `crop`.
    #[must_use]
    pub fn after_usual(&self, crop: &Crop, usual: &Usual, day: &Conditions) -> Self {
        let added = height::added(crop, usual, self.thermal_cd, day, self.spread_mm(crop));
        let light = pace::by_light(crop, day.dli);
        let in_shade = pace::by_light(crop, day.dli * day.unshaded);
        let warmth = pace::by_warmth(crop, day.air);
        let filled_ml = roots::filled_by(crop, usual.per_day, self.grown_days);
        let room = roots::pace(filled_ml, day.cell_ml);
        let short = |of: f64| (1.0 - of).max(0.0);
        let missing = [
            short(light),
            short(warmth),
            short(room),
            (light - in_shade).max(0.0),
        ];
        let mut lost = self.lost;
        lost.iter_mut()
            .zip(missing)
            .for_each(|(sum, part)| *sum += part);
        Self {
            thermal_cd: self.thermal_cd + pace::thermal_cd(crop, day.air),
            height_mm: height::kept_back(crop, self.height_mm, added.mm),
            sturdy_mm: height::kept_back(crop, self.sturdy_mm, added.sturdy_mm),
            grown_days: self.grown_days + in_shade * warmth * room,
            age_days: self.age_days + 1.0,
            lost,
        }
    }

    /// How wide its leaves spread, in mm.
    pub fn spread_mm(&self, crop: &Crop) -> f64 {
        leaves::spread_mm(crop, self.sturdy_mm.min(self.height_mm))
    }

    /// Mix that its roots fill, in ml.
    pub fn filled_ml(&self, crop: &Crop) -> f64 {
        roots::filled_ml(crop, self.grown_days)
    }

    /// The same for somebody who knows what is `usual` for `crop`.
    pub fn filled_usual_ml(&self, crop: &Crop, usual: &Usual) -> f64 {
        roots::filled_by(crop, usual.per_day, self.grown_days)
    }

    /// Its height against a sturdy one's: 1.4 is stretched by 40 %.
    pub fn stretched(&self) -> f64 {
        self.height_mm / self.sturdy_mm.max(1.0)
    }

    /// Its leaves and roots against those of one of its age in usual conditions: 1 is as much, 0.5 half
    /// as much.
    pub fn size(&self, crop: &Crop) -> f64 {
        (roots::per_usual_day(crop) * (self.grown_days - self.age_days)).exp()
    }

    /// What it is behind by most; `None` where nothing held it up.
    pub fn behind_by(&self) -> Option<Behind> {
        let most = (0..self.lost.len()).max_by(|&a, &b| self.lost[a].total_cmp(&self.lost[b]))?;
        (self.lost[most] > 0.0).then_some(Behind::ALL[most])
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::crops::library;
    use crate::growth::Air;
    use crate::growth::height::usual_mm;

    fn after(crop: &str, days: usize, day: impl Fn(&Conditions) -> Conditions) -> Seedling {
        let crop = library().get(crop).unwrap();
        let day = day(&Conditions::usual(crop));
        (0..days).fold(Seedling::UP, |seedling, _| seedling.after(crop, &day))
    }

    #[test]
    fn usual_days_bring_it_to_its_height_at_planting_out_and_never_back() {
        for crop in &library().crops {
            let day = Conditions::usual(crop);
            if crop.cut_back_mm > 0.0 {
                let last = (0..90).fold(Seedling::UP, |s, _| s.after(crop, &day));
                assert!(last.height_mm <= crop.cut_back_mm, "{}", crop.id);
                continue;
            }
            let days = pace::growing_days(crop).round() as usize;
            let mut seedling = Seedling::UP;
            for _ in 0..days {
                let next = seedling.after(crop, &day);
                assert!(next.height_mm >= seedling.height_mm, "{}", crop.id);
                assert!(next.grown_days >= seedling.grown_days, "{}", crop.id);
                seedling = next;
            }
            let plain = usual_mm(crop, days as f64);
            assert!(
                (plain / crop.height_out_mm - 1.0).abs() < 0.1,
                "{}",
                crop.id
            );
            let light = height::stretch(crop.dli_low_mol_m2_d);
            assert!(
                (0.95..2.0).contains(&(seedling.height_mm / plain / light)),
                "{}: {} of {plain}",
                crop.id,
                seedling.height_mm
            );
        }
    }

    #[test]
    fn a_dim_one_is_taller_and_lighter_and_never_ahead() {
        for crop in &library().crops {
            let of = |dli: f64| after(&crop.id, 21, |day| Conditions { dli, ..*day });
            let by_light = [0.0, 1.0, 3.0, 5.0, 8.0, 12.0, 17.0].map(of);
            for two in by_light.windows(2) {
                assert!(two[0].grown_days <= two[1].grown_days, "{}", crop.id);
                assert!(two[0].size(crop) <= two[1].size(crop), "{}", crop.id);
            }
            // Where it starves it cannot even stretch; else the dimmer, the taller.
            for two in by_light[2..].windows(2) {
                assert!(two[0].height_mm >= two[1].height_mm, "{}", crop.id);
            }
        }
        let dim = after("tomato", 21, |day| Conditions { dli: 3.0, ..*day });
        assert!(dim.stretched() > 1.4, "{}", dim.stretched());
        assert_eq!(dim.behind_by(), Some(Behind::Light));
    }

    #[test]
    fn cold_and_a_full_cell_and_shade_hold_it_up_by_name() {
        let cold = after("pepper", 28, |day| Conditions {
            air: Air::of(14.0, 11.0),
            ..*day
        });
        assert_eq!(cold.behind_by(), Some(Behind::Warmth));
        let small = after("tomato", 28, |day| Conditions {
            cell_ml: 8.0,
            ..*day
        });
        assert_eq!(small.behind_by(), Some(Behind::Roots));
        let crop = library().get("tomato").unwrap();
        assert!(small.size(crop) < 0.5 && small.filled_ml(crop) > 8.0);
        let shaded = after("tomato", 28, |day| Conditions {
            unshaded: leaves::unshaded(200.0, 40.0),
            ..*day
        });
        assert_eq!(shaded.behind_by(), Some(Behind::Shade));
        assert!(shaded.stretched() > 1.05);
    }

    #[test]
    fn crowded_ones_grow_taller_and_older_ones_fill_more_mix() {
        let crowded = after("tomato", 30, |day| Conditions {
            pitch_mm: 30.0,
            ..*day
        });
        let roomy = after("tomato", 30, |day| Conditions {
            pitch_mm: 150.0,
            ..*day
        });
        assert!(crowded.height_mm > 1.2 * roomy.height_mm);
        let crop = library().get("tomato").unwrap();
        assert!((roots::days_to_fill(crop, 65.0) - 21.0).abs() < 0.5);
        // Common practice, no source: roots come out of a small cell within a week or two of fast
        // growth; kale goes from 11 ml cells into a cup at about ten days.
        let small = roots::days_to_fill(crop, 15.0);
        assert!((5.0..14.0).contains(&small), "{small}");
        let kale = library().get("kale").unwrap();
        let fast = pace::by_warmth(kale, Air::of(21.0, 18.0));
        let cup = roots::days_to_fill(kale, 11.0) / fast;
        assert!((7.0..15.0).contains(&cup), "{cup}");
    }

    #[test]
    fn it_stands_at_its_first_height_within_days() {
        // Common practice, no source: brassicas and tomatoes 30 mm, cucumbers 50, beans 70.
        for (crop, mm) in [
            ("broccoli", 30.0),
            ("tomato", 30.0),
            ("cucumber", 50.0),
            ("runner-and-french-bean", 70.0),
        ] {
            let week = after(crop, 5, |day| *day).height_mm;
            assert!((0.85 * mm..1.6 * mm).contains(&week), "{crop}: {week}");
        }
    }
}
