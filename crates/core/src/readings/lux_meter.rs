//! From what was measured to corrections: a lux meter held beside the leaves.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::learned::Learned;
use crate::basis::units::{Quantity, dli_mol_m2_d};
use crate::basis::words::{Statement, say};
use crate::day::spot::spot_light;
use crate::light::bay::lux_per_umol_m2_s;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::BayRef;
use crate::season::Reckoned;

/// Where a meter is held, and what it shows.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Probe {
    /// The bay.
    pub bay: BayRef,
    /// The day, which decides how tall the leaves stand.
    pub date: Date,
    /// From the left of the deck.
    pub x_mm: f64,
    /// From the front of the deck.
    pub y_mm: f64,
    /// What the meter shows with this bay's lamps alone; left out to ask what it should.
    #[serde(default)]
    pub lux: Option<f64>,
}

/// The light at the probe.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Probed {
    /// The height that the leaves there have over the deck; the deck itself between trays.
    pub z_mm: f64,
    /// PPFD as reckoned, in µmol/m²/s.
    pub ppfd: f64,
    /// The same through the day, in mol/m²/d.
    pub dli: f64,
    /// What a lux meter should show.
    pub lux: f64,
    /// What the reading says; `None` when none was given.
    pub reading: Option<Reading>,
}

/// What a reading says.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Reading {
    /// PPFD as measured, in µmol/m²/s.
    pub ppfd: f64,
    /// The same through the day, in mol/m²/d.
    pub dli: f64,
    /// Measured against reckoned.
    pub ratio: f64,
    /// The same in words.
    pub verdict: Statement,
    /// Takes the lamps for as bright as they were measured; `None` while they agree, and where
    /// the difference is too large to be the lamps'.
    pub fix: Option<Fix>,
}

/// Phone sensors and hands differ by so much anyway (our own estimate).
const AGREES_WITHIN: f64 = 0.1;
/// One reading alone may be off by so much, as a share (our own estimate).
const ONE_READING: f64 = 0.25;
/// A reading further off than this was not taken of these lamps.
const BELIEVABLE: std::ops::RangeInclusive<f64> = 0.3..=2.5;

/// The light where a meter is held, and what its reading says of the lamps.
///
/// # Errors
/// What the probe names and the plan lacks; a spot off the deck; a reading that no meter shows.
pub fn probe(reckoned: &Reckoned<'_>, asked: &Probe) -> Result<Probed, Vec<Fault>> {
    let plan = reckoned.plan;
    let mut faults = Faults::default();
    let root = Pointer::default();
    let Some(bay) = plan.bay_on(&asked.bay, asked.date) else {
        let bays = crate::room::bays(&plan.places).map(|bay| bay.reference());
        let known = bays.map(|bay| format!("{}/{}", bay.place, bay.tier));
        let named = format!("{}/{}", asked.bay.place, asked.bay.tier);
        faults.unknown(&root.at("bay"), &named, known);
        return Err(faults.verdict().expect_err("a fault was added"));
    };
    let mm = Quantity::LengthMm;
    faults.number(&root.at("x_mm"), asked.x_mm, 0.0..=bay.place.width_mm, mm);
    faults.number(&root.at("y_mm"), asked.y_mm, 0.0..=bay.place.depth_mm, mm);
    if let Some(lux) = asked.lux {
        let range = 1.0..=200_000.0;
        faults.number(&root.at("lux"), lux, range, Quantity::IlluminanceLux);
    }
    if bay.tier.lamps.is_empty() {
        faults.add(
            &root.at("bay"),
            bay.name(),
            say!("no lamp hangs in {bay}", bay = bay.name()),
            say!("measure under lamps"),
        );
    }
    faults.verdict()?;
    let (ppfd, z_mm) = spot_light(reckoned, &bay, asked.date, (asked.x_mm, asked.y_mm));
    let per_umol = lux_per_umol_m2_s(&bay.tier.lamps);
    let hours = bay.tier.photoperiod_h;
    Ok(Probed {
        z_mm,
        ppfd,
        dli: dli_mol_m2_d(ppfd, hours),
        lux: ppfd * per_umol,
        reading: asked
            .lux
            .filter(|_| per_umol > 0.0 && ppfd > 0.0)
            .map(|lux| {
                let measured = lux / per_umol;
                let ratio = measured / ppfd;
                Reading {
                    ppfd: measured,
                    dli: dli_mol_m2_d(measured, hours),
                    ratio,
                    verdict: verdict(ratio),
                    fix: correction(&bay, asked.date, ratio),
                }
            }),
    })
}

fn verdict(ratio: f64) -> Statement {
    let share = Quantity::Share.of((ratio - 1.0).abs());
    if (ratio - 1.0).abs() <= AGREES_WITHIN {
        say!(
            "Your reading agrees within {share}, as near as a phone can measure",
            share = share
        )
    } else if !BELIEVABLE.contains(&ratio) {
        say!(
            "A reading {times} times the expected one is not down to the lamps. Hold the sensor level at the leaves, facing up, with only these lamps on, and check the lamps' figures",
            times = Quantity::Plain.of(ratio)
        )
    } else if ratio < 1.0 {
        say!(
            "{share} less than worked out: the lamps are old, dusty, dimmed or weaker than the label says",
            share = share
        )
    } else {
        say!(
            "{share} more than worked out: daylight or other lamps fall in, or the lamps are stronger than their label",
            share = share
        )
    }
}

fn correction(bay: &crate::room::Bay<'_>, on: Date, ratio: f64) -> Option<Fix> {
    if (ratio - 1.0).abs() <= AGREES_WITHIN || !BELIEVABLE.contains(&ratio) {
        return None;
    }
    // Three digits are more than a phone can say.
    let scaled = |value: f64| (value * ratio * 1000.0).round() / 1000.0;
    let lamps = bay.tier.lamps.iter().enumerate();
    let patch = lamps.map(|(i, lamp)| {
        let share = scaled(Learned::share(lamp.measured));
        let one = Learned {
            value: share,
            low: share * (1.0 - ONE_READING),
            high: share * (1.0 + ONE_READING),
            readings: 1,
            on,
        };
        PatchStep::set(&bay.pointer().at("lamps").at(i).at("measured"), one)
    });
    let share = Quantity::Share.of(ratio * Learned::share(bay.tier.lamps[0].measured));
    Some(Fix {
        label: say!("Correct the lamps to {share}", share = share.clone()),
        word: say!(
            "took the lamps of {bay} at {share}, as measured",
            bay = bay.name(),
            share = share
        ),
        patch: patch.collect(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::SoundPlan;
    use crate::plan::patch::patched;
    use crate::testing::{bay, kettle_fen, reckoned};
    use jiff::civil::date;

    fn probe(plan: &SoundPlan, asked: &Probe) -> Result<Probed, Vec<Fault>> {
        super::probe(&reckoned(plan), asked)
    }

    fn at(lux: Option<f64>) -> Probe {
        Probe {
            bay: bay("door", "t2"),
            date: date(2027, 4, 9),
            x_mm: 500.0,
            y_mm: 250.0,
            lux,
        }
    }

    #[test]
    fn a_reading_corrects_the_lamps_so_that_it_agrees() {
        let plan = kettle_fen(|_| ());
        let reckoned = probe(&plan, &at(None)).unwrap();
        assert!(reckoned.lux > 5000.0 && reckoned.reading.is_none());
        // Between trays or on one, the leaves' own height counts.
        assert!(reckoned.z_mm >= 0.0);
        let lux = 0.8 * reckoned.lux;
        let read = probe(&plan, &at(Some(lux))).unwrap().reading.unwrap();
        assert!((read.ratio - 0.8).abs() < 1e-9);
        assert!(read.verdict.to_string().starts_with("20% less"));
        let fix = read.fix.expect("a correction");
        let corrected = patched(&plan, &fix.patch).unwrap().check().unwrap();
        let again = probe(&corrected, &at(Some(lux))).unwrap().reading.unwrap();
        // Weaker lamps are hung nearer from week to week, and so plants grow a little otherwise.
        assert!((again.ratio - 1.0).abs() < 0.02, "{}", again.ratio);
        assert_eq!(again.fix, None);
    }

    #[test]
    fn a_reading_of_something_else_corrects_nothing() {
        let plan = kettle_fen(|_| ());
        let lux = probe(&plan, &at(None)).unwrap().lux;
        for off in [0.1, 5.0] {
            let read = probe(&plan, &at(Some(off * lux))).unwrap().reading.unwrap();
            assert_eq!(read.fix, None);
        }
    }

    #[test]
    fn a_spot_off_the_deck_and_a_nonsensical_reading_are_refused() {
        let wrong = Probe {
            x_mm: -5.0,
            lux: Some(f64::NAN),
            ..at(None)
        };
        let faults = probe(&kettle_fen(|_| ()), &wrong).unwrap_err();
        let paths: Vec<&str> = faults.iter().map(|f| f.path.as_str()).collect();
        assert_eq!(paths, ["/x_mm", "/lux"]);
        let nowhere = Probe {
            bay: bay("door", "t9"),
            ..at(None)
        };
        assert_eq!(
            probe(&kettle_fen(|_| ()), &nowhere).unwrap_err()[0].path,
            "/bay"
        );
    }
}
