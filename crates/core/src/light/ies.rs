//! Reading a luminaire's measured light from an IES LM-63 file.
//!
//! Versions 1986 (no heading), 1991, 1995, 2002 and 2019; photometric types C, B and A; TILT=NONE
//! and TILT=INCLUDE. Source of the format: ANSI/IES LM-63, from memory.

// A fault is made once for a file that cannot be read at all: its size does not matter.
#![expect(clippy::result_large_err)]

use serde::Serialize;
use utoipa::ToSchema;

use crate::fault::{Fault, Pointer};
use crate::room::{Axis, Distribution, PhotometricType};
use crate::say;
use crate::units::{MM_PER_FOOT, Quantity};

use super::photometry::Photometry;

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
const MOST_ANGLES: f64 = 1000.0;
const MOST_VALUES: usize = 100_000;

/// A number of the file and the line that it stands on.
struct Numbers<'a> {
    tokens: Vec<(usize, &'a str)>,
    next: usize,
    last_line: usize,
}

fn fault(
    line: usize,
    value: &str,
    problem: crate::words::Statement,
    remedy: crate::words::Statement,
) -> Fault {
    let shown: String = value.chars().take(40).collect();
    Fault {
        path: Pointer::default().at("lines").at(line).to_string(),
        value: shown.into(),
        problem,
        remedy,
    }
}

fn count(n: usize) -> crate::words::Figure {
    Quantity::Count.of(n as f64)
}

impl Numbers<'_> {
    fn number(&mut self, what: &str, least: f64, most: f64) -> Result<f64, Fault> {
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

    fn whole(&mut self, what: &str, least: f64, most: f64) -> Result<usize, Fault> {
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
    fn angles(&mut self, what: &str, n: usize, least: f64, most: f64) -> Result<Vec<f64>, Fault> {
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

/// Reads a file; `text` may have any line ends.
///
/// # Errors
/// The first thing that cannot be, with its line in the path (`/lines/12`) and in words.
///
/// ```
/// use sunrise_core::light::ies;
/// let file = "IESNA:LM-63-2002\n[LUMINAIRE] test strip\nTILT=NONE\n\
///             1 -1 1 3 1 1 2 0.04 1.15 0\n1 1 36\n0 45 90\n0\n1000 707 0\n";
/// let lamp = ies::read(file).unwrap();
/// assert_eq!(lamp.opening_mm, Some([1150.0, 40.0]));
/// assert_eq!(ies::read("TILT=NONE\n1 x").unwrap_err().path, "/lines/2");
/// ```
pub fn read(text: &str) -> Result<Luminaire, Fault> {
    let lines: Vec<&str> = text.split('\n').map(|l| l.trim_end_matches('\r')).collect();
    let tilt = lines
        .iter()
        .position(|line| line.trim_start().to_ascii_uppercase().starts_with("TILT"))
        .ok_or_else(|| {
            fault(
                1,
                lines[0],
                say!("no line begins with TILT=: this is not an IES LM-63 file"),
                say!("choose the photometric file of the luminaire, which usually ends in .ies"),
            )
        })?;
    let mut numbers = Numbers {
        tokens: lines
            .iter()
            .enumerate()
            .skip(tilt + 1)
            .flat_map(|(i, line)| {
                line.split(|c: char| c.is_whitespace() || c == ',')
                    .filter(|token| !token.is_empty())
                    .map(move |token| (i + 1, token))
            })
            .collect(),
        next: 0,
        last_line: lines.len(),
    };
    let how = lines[tilt]
        .split_once('=')
        .map_or("", |(_, how)| how.trim());
    let tilted = match how.to_ascii_uppercase().as_str() {
        "NONE" => 1.0,
        "INCLUDE" => tilt_factor(&mut numbers)?,
        _ => {
            return Err(fault(
                tilt + 1,
                how,
                say!(
                    "line {line}: the tilt is kept in another file",
                    line = count(tilt + 1)
                ),
                say!("only TILT=NONE and TILT=INCLUDE can be read on their own"),
            ));
        }
    };

    let big = 1e7;
    numbers.number("the number of lamps", 0.0, 1e4)?;
    numbers.number("the lumens of a lamp", -1.0, big)?;
    let multiplier = numbers.number("the candela multiplier", 0.0, 1e6)?;
    let n_vertical = numbers.whole("the number of vertical angles", 2.0, MOST_ANGLES)?;
    let n_horizontal = numbers.whole("the number of horizontal angles", 1.0, MOST_ANGLES)?;
    if n_vertical * n_horizontal > MOST_VALUES {
        let (line, token) = numbers.tokens[numbers.next - 1];
        return Err(fault(
            line,
            token,
            say!(
                "line {line}: {values} intensities are too many",
                line = count(line),
                values = count(n_vertical * n_horizontal)
            ),
            say!("take a file of at most {most}", most = count(MOST_VALUES)),
        ));
    }
    let kind = match numbers.whole("the photometric type", 1.0, 3.0)? {
        1 => PhotometricType::C,
        2 => PhotometricType::B,
        _ => PhotometricType::A,
    };
    let to_mm = match numbers.whole("the unit of length", 1.0, 2.0)? {
        1 => MM_PER_FOOT,
        _ => 1000.0,
    };
    let width = numbers.number("the width of the opening", -100.0, 100.0)?;
    let length = numbers.number("the length of the opening", -100.0, 100.0)?;
    numbers.number("the height of the opening", -100.0, 100.0)?;
    let ballast = numbers.number("the ballast factor", 0.0, 100.0)?;
    // 1986 to 1995 put the ballast-lamp photometric factor here; later it is kept at 1.
    let ballast_lamp = numbers.number("the ballast-lamp factor", 0.0, 100.0)?;
    let watts = numbers.number("the input watts", -1.0, 1e6)?;

    let (v_least, v_most, h_least, h_most) = match kind {
        PhotometricType::C => (0.0, 180.0, 0.0, 360.0),
        _ => (-90.0, 90.0, -90.0, 90.0),
    };
    let vertical_deg = numbers.angles("the vertical angles", n_vertical, v_least, v_most)?;
    let horizontal_deg = numbers.angles("the horizontal angles", n_horizontal, h_least, h_most)?;
    let scale = multiplier * tilted * ballast * ballast_lamp;
    let candela = (0..n_horizontal)
        .map(|_| {
            (0..n_vertical)
                .map(|_| Ok(numbers.number("an intensity", 0.0, 1e9)? * scale))
                .collect()
        })
        .collect::<Result<Vec<Vec<f64>>, Fault>>()?;
    let distribution = Distribution {
        kind,
        vertical_deg,
        horizontal_deg,
        candela,
    };
    let flux_lm = Photometry::new(distribution.clone(), Axis::X).flux();
    if !(1e-3..=1e9).contains(&flux_lm) {
        return Err(fault(
            numbers.last_line,
            "",
            say!(
                "its intensities add up to {flux}: that is no lamp",
                flux = Quantity::FluxLm.of(flux_lm)
            ),
            say!("take the whole file as the maker gives it"),
        ));
    }
    Ok(Luminaire {
        name: name_in(&lines[..tilt]),
        flux_lm,
        watts: watts.max(0.0),
        opening_mm: opening(length * to_mm, width * to_mm),
        distribution,
    })
}

/// The factor that applies to a lamp that hangs level, of the pairs that follow TILT=INCLUDE.
fn tilt_factor(numbers: &mut Numbers<'_>) -> Result<f64, Fault> {
    numbers.whole("the lamp's position in the luminaire", 1.0, 3.0)?;
    let n = numbers.whole("the number of tilt angles", 1.0, MOST_ANGLES)?;
    let angles = numbers.angles("the tilt angles", n, 0.0, 360.0)?;
    let factors = (0..n)
        .map(|_| numbers.number("a tilt factor", 0.0, 100.0))
        .collect::<Result<Vec<f64>, Fault>>()?;
    // Angles are counted from level; the first is 0 in every file that keeps to the standard.
    let level = angles.iter().position(|&angle| angle == 0.0).unwrap_or(0);
    Ok(factors[level])
}

/// A rectangle as it is; a disc (negative in both) as the square of its area.
fn opening(length_mm: f64, width_mm: f64) -> Option<[f64; 2]> {
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

/// What the keyword lines call the luminaire; in a file of 1986, its first line.
fn name_in(heading: &[&str]) -> String {
    let keyword = |word: &str| {
        heading.iter().find_map(|line| {
            let line = line.trim();
            let rest = line
                .get(..word.len())?
                .eq_ignore_ascii_case(word)
                .then(|| &line[word.len()..])?;
            (!rest.trim().is_empty()).then(|| rest.trim())
        })
    };
    let plain = || {
        let line = heading.first()?.trim();
        (!line.is_empty() && !line.starts_with("IES") && !line.starts_with('[')).then_some(line)
    };
    let name = keyword("[LUMINAIRE]")
        .or_else(|| keyword("[LUMCAT]"))
        .or_else(plain)
        .unwrap_or_default();
    name.chars().filter(|c| !c.is_control()).take(100).collect()
}
