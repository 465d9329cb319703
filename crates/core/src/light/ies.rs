//! Reading a luminaire's measured light from an IES LM-63 file.
//!
//! Versions 1986 (no heading), 1991, 1995, 2002 and 2019; photometric types C, B and A; TILT=NONE
//! and TILT=INCLUDE. Source of the format: ANSI/IES LM-63, from memory.

// A fault is made once for a file that cannot be read at all: its size does not matter.
#![expect(clippy::result_large_err)]

use crate::basis::fault::Fault;
use crate::basis::units::MM_PER_FOOT;
use crate::basis::words::say;
use crate::room::{Distribution, PhotometricType};

use crate::light::luminaire::{
    Luminaire, MOST_ANGLES, MOST_VALUES, Numbers, count, fault, flux_of, name_shown, opening,
};

/// Whether some line begins with TILT, as every IES file has it.
pub(super) fn is_ies(text: &str) -> bool {
    text.lines().any(says_tilt)
}

fn says_tilt(line: &str) -> bool {
    let start = line.trim_start().get(..4);
    start.is_some_and(|start| start.eq_ignore_ascii_case("TILT"))
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
        .position(|line| says_tilt(line))
        .ok_or_else(|| {
            fault(
                1,
                lines[0],
                say!("this is neither an IES LM-63 nor an EULUMDAT file: no line begins with TILT="),
                say!("choose the photometric file of the luminaire, which usually ends in .ies or .ldt"),
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
    let flux_lm = flux_of(&distribution, numbers.last_line)?;
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
    name_shown(name)
}
