//! A luminaire from its photometric file, whichever form it has.

// A fault is made once for a file that cannot be read at all: its size does not matter.
#![expect(clippy::result_large_err)]

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Pointer};
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::light::photometry::Photometry;
use crate::room::Distribution;

/// A luminaire as its file describes it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Luminaire {
    /// What the file calls it; empty when it does not say.
    pub name: String,
    /// Luminous flux, by summing up its intensities.
    pub flux_lm: f64,
    /// Power at the plug; 0 when the file leaves it out.
    pub watts: f64,
    /// Length and width of the luminous opening; `None` where the file gives a point or another
    /// shape than a rectangle or a disc.
    pub opening_mm: Option<[f64; 2]>,
    /// Its intensities in cd.
    pub distribution: Distribution,
}

/// Most angles in a direction, and most of both together, that a file may have.
pub(super) const MOST_ANGLES: f64 = 1000.0;
pub(super) const MOST_VALUES: usize = 100_000;

/// A number of the file and the line that it stands on.
pub(super) struct Numbers<'a> {
    pub(super) tokens: Vec<(usize, &'a str)>,
    pub(super) next: usize,
    pub(super) last_line: usize,
}

pub(super) fn fault(
    line: usize,
    value: &str,
    problem: crate::basis::words::Statement,
    remedy: crate::basis::words::Statement,
) -> Fault {
    let shown: String = value.chars().take(40).collect();
    Fault {
        path: Pointer::default().at("lines").at(line).to_string(),
        value: shown.into(),
        problem,
        remedy,
    }
}

pub(super) fn count(n: usize) -> crate::basis::words::Figure {
    Quantity::Count.of(n as f64)
}

impl Numbers<'_> {
    pub(super) fn number(&mut self, what: &str, least: f64, most: f64) -> Result<f64, Fault> {
        let Some(&(line, token)) = self.tokens.get(self.next) else {
            return Err(fault(
                self.last_line,
                "",
                say!(
                    "the file ends at line {line} before {what}",
                    line = count(self.last_line),
                    what = what
                ),
                say!("take the whole file as the maker gives it"),
            ));
        };
        self.next += 1;
        match token.parse::<f64>() {
            Ok(value) if value.is_finite() && (least..=most).contains(&value) => Ok(value),
            _ => {
                let shown: String = token.chars().take(40).collect();
                Err(fault(
                    line,
                    token,
                    say!(
                        "line {line}: \"{token}\" cannot be {what}",
                        line = count(line),
                        token = shown,
                        what = what
                    ),
                    say!(
                        "a number from {least} to {most} belongs there",
                        least = Quantity::Plain.of(least),
                        most = Quantity::Plain.of(most)
                    ),
                ))
            }
        }
    }

    pub(super) fn whole(&mut self, what: &str, least: f64, most: f64) -> Result<usize, Fault> {
        let value = self.number(what, least, most)?;
        if value.fract() == 0.0 {
            return Ok(value as usize);
        }
        let (line, token) = self.tokens[self.next - 1];
        Err(fault(
            line,
            token,
            say!(
                "line {line}: {what} must be a whole number",
                line = count(line),
                what = what
            ),
            say!("write it without a fraction"),
        ))
    }

    /// `n` angles, each above the one before.
    pub(super) fn angles(
        &mut self,
        what: &str,
        n: usize,
        least: f64,
        most: f64,
    ) -> Result<Vec<f64>, Fault> {
        let mut angles: Vec<f64> = Vec::with_capacity(n);
        for _ in 0..n {
            let angle = self.number(what, least, most)?;
            if angles.last().is_some_and(|&before| angle <= before) {
                let (line, token) = self.tokens[self.next - 1];
                return Err(fault(
                    line,
                    token,
                    say!(
                        "line {line}: {what} do not rise",
                        line = count(line),
                        what = what
                    ),
                    say!("list each angle once, from the smallest up"),
                ));
            }
            angles.push(angle);
        }
        Ok(angles)
    }
}

/// A rectangle as it is; a disc (negative in both) as the square of its area.
pub(super) fn opening(length_mm: f64, width_mm: f64) -> Option<[f64; 2]> {
    if length_mm > 0.0 && width_mm > 0.0 {
        Some([length_mm, width_mm])
    } else if length_mm < 0.0 && width_mm < 0.0 {
        let round = (std::f64::consts::PI / 4.0).sqrt();
        Some([-length_mm * round, -width_mm * round])
    } else if length_mm.max(width_mm) > 0.0 {
        // A line: as thick as a tube.
        Some([length_mm.max(26.0), width_mm.max(26.0)])
    } else {
        None
    }
}

/// All light of a distribution in lm, by summing up its intensities.
///
/// # Errors
/// When there is none, or more than any lamp has.
pub(super) fn flux_of(distribution: &Distribution, last_line: usize) -> Result<f64, Fault> {
    let flux_lm = Photometry::new(distribution, Axis::X).flux();
    if (1e-3..=1e9).contains(&flux_lm) {
        return Ok(flux_lm);
    }
    Err(fault(
        last_line,
        "",
        say!(
            "its intensities add up to {flux}: that is no lamp",
            flux = Quantity::FluxLm.of(flux_lm)
        ),
        say!("take the whole file as the maker gives it"),
    ))
}

/// A name from a file as it may be shown.
pub(super) fn name_shown(name: &str) -> String {
    name.chars().filter(|c| !c.is_control()).take(100).collect()
}
