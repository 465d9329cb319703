//! The light of a bay in figures: what its cells get, what is too little, and what would do.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::plane::Footprint;
use crate::basis::units::{Quantity, dli_mol_m2_d, ppfd_umol_m2_s};
use crate::basis::words::{Why, say};
use crate::day::cell_light::{PartLight, Sums};
use crate::day::measures::{Band, Cell, Measures};
use crate::day::standing;
use crate::day::standing::{Standing, burns, hour_limits, tallest_leaves};
use crate::day::trays::{PartOnDay, TrayOnDay};
use crate::lamps::outcome::Outcome;
use crate::light::bay::{lux_per_umol_m2_s, ppf_umol_s};
use crate::light::daylight::Sill;
use crate::light::falloff::Spread;
use crate::plan::Stage;
use crate::room::Bay;
use crate::season::Reckoned;

/// The light on all trays of a bay, with the lamps where they hang.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayLight {
    /// PPFD on the leaves while the lamps burn, in µmol/m²/s.
    pub ppfd: Measures,
    /// Daily light integral in mol/m²/d; zeros while the lamps are off.
    pub dli: Measures,
    /// What of the mean PPFD walls and decks send back, in µmol/m²/s.
    pub sent_back: f64,
    /// What of the mean DLI falls through the deck above, in mol/m²/d.
    pub from_above_mol_m2_d: f64,
    /// What of the mean DLI is daylight through the pane of a window, in mol/m²/d.
    pub daylight_mol_m2_d: f64,
    /// On a sill: the day of the year from which daylight alone is enough; `None` when it never is, and
    /// where the bay's own lists are not wanted.
    pub daylight_enough_from: Option<Date>,
    /// What a lux meter beside the leaves shows while the lamps burn.
    pub lux: Measures,
    /// The share of the seedlings' cells whose DLI lies under their own crop's band.
    pub under: f64,
    /// The share of the seedlings' cells whose DLI lies over what their own crop uses.
    pub over: f64,
    /// The hours from which and up to which the mean DLI lies in the target band, as far as the crops
    /// stand so long a day; `None` where no such hours do.
    pub hours_in_band: Option<Band>,
    /// Worst cell against the mean.
    pub evenness: f64,
    /// The darkest cell.
    pub worst: Cell,
    /// The brightest cell.
    pub best: Cell,
    /// The daily light that suits all seedlings here; `None` while nothing has come up.
    pub target: Option<Band>,
    /// The PPFD that gives the target in the hours that the lamps burn; `None` while they are off.
    pub ppfd_target: Option<Band>,
    /// From the tallest leaves (the highest rim while nothing is up) to the lowest emitting face,
    /// or to what closes a bay without lamps at the top; negative when they touch.
    pub gap_mm: f64,
}

impl BayLight {
    /// The light on what stands in a bay.
    pub(super) fn of(
        reckoned: &Reckoned<'_>,
        bay: &Bay<'_>,
        date: Date,
        standing: &[Standing<'_>],
        trays: &[TrayOnDay],
        part_lights: &[PartLight],
        detailed: bool,
    ) -> Self {
        let plan = reckoned.plan;
        let burning = burns(bay, standing);
        let parts = || trays.iter().flat_map(|tray| &tray.parts);
        let values: Vec<f64> = parts().flat_map(PartOnDay::ppfd).copied().collect();
        let ppfd = Spread::of(&values);
        let hours = if burning { bay.tier.photoperiod_h } else { 0.0 };
        let lowest_face = bay.lowest_overhead_mm();
        let gap_mm = lowest_face - tallest_leaves(standing).map_or(0.0, |(_, part)| part.canopy_mm);
        let target = shared_target(trays);
        let mean = |of: fn(&Sums) -> f64| {
            part_lights.iter().map(|l| of(&l.sums)).sum::<f64>() / values.len().max(1) as f64
        };
        let from_above_mol_m2_d = mean(|sums| sums.from_above);
        let daylight_mol_m2_d = mean(|sums| sums.daylight);
        let besides = from_above_mol_m2_d + daylight_mol_m2_d;
        let daily: Vec<f64> = parts().flat_map(PartOnDay::dli).copied().collect();
        let dli = Spread::of(&daily);
        let lux = lux_per_umol_m2_s(&bay.tier.lamps);
        let growing = standing::parts(standing).zip(part_lights);
        let shares = growing
            .filter(|((_, part), _)| part.is_growing())
            .map(|((_, part), light)| {
                let band = part.light_band(plan, date);
                Outcome::of(&light.ppfd, hours, &light.besides, &band)
            })
            .sum::<Outcome>()
            .shares();
        // Which cells are best and worst: by the day's light, while there is any.
        let (of, by): (_, fn(&PartOnDay) -> &[f64]) = if dli.most > 0.0 {
            (dli, PartOnDay::dli)
        } else {
            (ppfd, PartOnDay::ppfd)
        };
        Self {
            ppfd: ppfd.into(),
            dli: dli.into(),
            sent_back: mean(|sums| sums.sent_back),
            from_above_mol_m2_d,
            daylight_mol_m2_d,
            daylight_enough_from: detailed
                .then(|| enough_from(reckoned, bay, date, standing, target))
                .flatten(),
            lux: Measures {
                mean: ppfd.mean * lux,
                worst: ppfd.least * lux,
                best: ppfd.most * lux,
            },
            under: shares.under,
            over: shares.over,
            hours_in_band: target.and_then(|band| {
                let most_h = hour_limits(plan, bay, standing)?.most_h;
                let to = |daily: f64| hours_for(daily - besides, ppfd.mean);
                let (low, high) = (to(band.low), to(band.high).min(most_h));
                (ppfd.mean > 0.0 && low <= high).then_some(Band { low, high })
            }),
            evenness: if of.mean > 0.0 {
                of.least / of.mean
            } else {
                0.0
            },
            worst: cell_with(of.least, trays, by),
            best: cell_with(of.most, trays, by),
            target,
            ppfd_target: target.filter(|_| hours > 0.0).map(|band| Band {
                low: ppfd_umol_m2_s((band.low - besides).max(0.0), hours),
                high: ppfd_umol_m2_s((band.high - besides).max(0.0), hours),
            }),
            gap_mm,
        }
    }
}

/// How the light of a bay is reckoned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LightWhy {
    /// PPFD.
    pub ppfd: Why,
    /// DLI, and the target's source.
    pub dli: Why,
}

/// That the lamps of `bay` were corrected, if they were, to end a sentence with.
fn as_measured(bay: &Bay<'_>) -> String {
    let measured = bay.tier.lamps.iter().find_map(|lamp| lamp.measured);
    measured.map_or_else(String::new, |measured| {
        format!("; the lamps are {}", measured.words(Quantity::Share))
    })
}

impl LightWhy {
    /// Of `light` in `bay`, whose lamps burn for `hours`.
    pub(super) fn of(bay: &Bay<'_>, light: &BayLight, hours: f64) -> Self {
        let photons: f64 = bay.tier.lamps.iter().map(ppf_umol_s).sum();
        let besides = light.from_above_mol_m2_d + light.daylight_mol_m2_d;
        Self {
            ppfd: Why {
                rule: say!(
                    "{lamps} lamps give {photons}; what reaches the middle of each cell, {gap} below the lowest lamp at the tallest leaves, is added up over all lamps, and {back} of that is reflected light{measured}",
                    lamps = Quantity::Count.of(bay.tier.lamps.len() as f64),
                    photons = Quantity::PpfUmolS.of(photons),
                    gap = Quantity::LengthMm.of(light.gap_mm),
                    back = Quantity::PpfdUmolM2S.of(light.sent_back),
                    measured = as_measured(bay),
                ),
                source: "photons per lumen from the CIE 015 illuminants; direct light by the configuration factor of a parallel rectangle; light sent back by diffuse radiosity",
            },
            dli: Why {
                rule: if besides > 0.0 {
                    say!(
                        "{ppfd} for {hours} a day, times 0.0036, and {besides} from the window or the lamps above",
                        ppfd = Quantity::PpfdUmolM2S.of(light.ppfd.mean),
                        hours = Quantity::Hours.of(hours),
                        besides = Quantity::DliMolM2D.of(besides),
                    )
                } else {
                    say!(
                        "{ppfd} for {hours} a day, times 0.0036",
                        ppfd = Quantity::PpfdUmolM2S.of(light.ppfd.mean),
                        hours = Quantity::Hours.of(hours),
                    )
                },
                source: crate::crops::library().source("dli_low_mol_m2_d"),
            },
        }
    }
}

/// The hours in which `ppfd` adds up to `dli`, from 0 to a day.
fn hours_for(dli: f64, ppfd: f64) -> f64 {
    (dli / dli_mol_m2_d(ppfd, 1.0)).clamp(0.0, 24.0)
}

/// The first cell that gets `light`: the first of equals, so that its mark does not jump about.
fn cell_with(light: f64, trays: &[TrayOnDay], of: fn(&PartOnDay) -> &[f64]) -> Cell {
    trays
        .iter()
        .flat_map(|tray| tray.parts.iter().map(move |part| (tray, part)))
        .find_map(|(tray, part)| {
            let index = of(part).iter().position(|&value| value == light)?;
            let footprint = Footprint {
                x_mm: part.x_mm,
                y_mm: part.y_mm,
            };
            let [columns, rows] = footprint.lines(part.columns, part.rows);
            Some(Cell {
                tray: tray.tray.clone(),
                x_mm: columns[index % columns.len()],
                y_mm: rows[index / columns.len()],
            })
        })
        .expect("the value was found in one of these cells")
}

/// The band that suits every seedling of the bay; where their bands do not meet, from the least
/// to the greatest of them.
fn shared_target(trays: &[TrayOnDay]) -> Option<Band> {
    let bands: Vec<Band> = trays
        .iter()
        .flat_map(|tray| &tray.parts)
        .filter(|part| part.stage == Some(Stage::Grow))
        .map(|part| part.target)
        .collect();
    let most = |f: fn(&Band) -> f64| bands.iter().map(f).reduce(f64::max);
    let least = |f: fn(&Band) -> f64| bands.iter().map(f).reduce(f64::min);
    let shared = Band {
        low: most(|b| b.low)?,
        high: least(|b| b.high)?,
    };
    if shared.low < shared.high {
        return Some(shared);
    }
    Some(Band {
        low: least(|b| b.low)?,
        high: most(|b| b.high)?,
    })
}

/// The day from which daylight alone is enough for the seedlings of a sill.
pub(super) fn enough_from(
    reckoned: &Reckoned<'_>,
    bay: &Bay<'_>,
    date: Date,
    standing: &[Standing<'_>],
    target: Option<Band>,
) -> Option<Date> {
    let sill = Sill::before(bay, &reckoned.plan.site)?;
    let (_, part) = tallest_leaves(standing)?;
    // A few cells tell as much as all of them over half a year.
    let points: Vec<(f64, f64)> = standing
        .iter()
        .flat_map(|s| s.footprint.cells(2, 2))
        .collect();
    let days = reckoned.fields.sill_days(sill, date.year());
    days.enough_from(&points, part.canopy_mm, target?.low)
}
