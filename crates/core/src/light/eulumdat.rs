//! Reading a luminaire's measured light from an EULUMDAT file (.ldt).
//!
//! Source of the format: Stockmar, EULUMDAT, ein Leuchtendatenformat für den europäischen
//! Beleuchtungsplaner, Licht 90 (from memory): one value a line, 26 of them about the luminaire,
//! then its lamps, ten ratios, the angles, and intensities in cd per 1000 lm of the lamps.

// A fault is made once for a file that cannot be read at all: its size does not matter.
#![expect(clippy::result_large_err)]

use crate::basis::fault::Fault;
use crate::basis::words::say;
use crate::light::luminaire::{
    Luminaire, MOST_ANGLES, MOST_VALUES, Numbers, count, fault, flux_of, name_shown, opening,
};
use crate::room::{Distribution, PhotometricType};

/// Lines of text among the numbers, counted from 1.
const MAKER: usize = 1;
const LUMINAIRE: usize = 9;
/// Lines about the luminaire before those of its lamps.
const HEADING: usize = 26;
/// Lines of each set of lamps: how many, type, lumens, colour, rendering, watts.
const SET: usize = 6;
/// Direct ratios for ten shapes of room.
const RATIOS: usize = 10;

/// Whether the second and third lines say what an EULUMDAT file's say: a type from 1 to 3 and a
/// symmetry from 0 to 4.
pub(super) fn is_eulumdat(text: &str) -> bool {
    let mut lines = text.lines().skip(1).map(|line| line.trim().parse::<u8>());
    let (kind, symmetry) = (lines.next(), lines.next());
    matches!(kind, Some(Ok(0..=3))) && matches!(symmetry, Some(Ok(0..=4)))
}

/// Reads a file; `text` may have any line ends, and a comma for the decimal point.
///
/// # Errors
/// The first thing that cannot be, with its line in the path (`/lines/12`) and in words.
pub fn read(text: &str) -> Result<Luminaire, Fault> {
    let lines: Vec<String> = text.lines().map(|l| l.trim().replace(',', ".")).collect();
    // Empty lines stand for empty texts and are counted; behind the last value they are not.
    let mut numbers = Numbers {
        tokens: lines
            .iter()
            .enumerate()
            .map(|(i, l)| (i + 1, l.as_str()))
            .collect(),
        next: 2,
        last_line: lines.len(),
    };
    let symmetry = numbers.whole("the symmetry", 0.0, 4.0)?;
    let planes = numbers.whole("the number of C-planes", 1.0, MOST_ANGLES)?;
    numbers.number("the distance between C-planes", 0.0, 360.0)?;
    let per_plane = numbers.whole("the number of intensities in a plane", 2.0, MOST_ANGLES)?;
    numbers.number("the distance between intensities", 0.0, 180.0)?;
    let divides = match symmetry {
        2 => 2,
        3 | 4 => 4,
        _ => 1,
    };
    if !planes.is_multiple_of(divides) {
        return Err(fault(
            4,
            &planes.to_string(),
            say!(
                "line 4: {planes} C-planes cannot be symmetrical as line 3 says",
                planes = count(planes)
            ),
            say!("take the whole file as the maker gives it"),
        ));
    }
    if planes * per_plane > MOST_VALUES {
        return Err(fault(
            6,
            &per_plane.to_string(),
            say!(
                "line 6: {values} intensities are too many",
                values = count(planes * per_plane)
            ),
            say!("take a file of at most {most}", most = count(MOST_VALUES)),
        ));
    }
    // The body: its length and width stand before those of the opening.
    numbers.next = 15;
    let length_mm = numbers.number("the length of the opening", 0.0, 20_000.0)?;
    let width_mm = numbers.number("the width of the opening", 0.0, 20_000.0)?;
    numbers.next = 22;
    numbers.number("the light output ratio", 0.0, 1000.0)?;
    let factor = numbers.number("the conversion factor", 0.0, 1e6)?;
    numbers.next = HEADING - 1;
    let sets = numbers.whole("the number of sets of lamps", 1.0, 20.0)?;
    let (mut flux_lm, mut watts) = (0.0, 0.0);
    for i in 0..sets {
        numbers.next = HEADING + SET * i;
        let n = numbers.number("the number of lamps", -1e4, 1e4)?;
        numbers.next += 1;
        let lumens = numbers.number("the lumens of the lamps", 0.0, 1e7)?;
        numbers.next += 2;
        let set_watts = numbers.number("the watts of the lamps", 0.0, 1e6)?;
        // One of the sets that may be put in; a negative count says that the whole luminaire was
        // measured, and its lumens are the luminaire's own.
        if i == 0 || n < 0.0 {
            (flux_lm, watts) = (lumens, set_watts);
        }
    }
    numbers.next = HEADING + SET * sets + RATIOS;
    let mut round = numbers.angles("the C-planes", planes, 0.0, 360.0)?;
    let vertical_deg = numbers.angles("the angles in a plane", per_plane, 0.0, 180.0)?;
    let given = match symmetry {
        0 => planes,
        1 => 1,
        4 => planes / 4 + 1,
        _ => planes / 2 + 1,
    };
    let scale = flux_lm / 1000.0 * if factor > 0.0 { factor } else { 1.0 };
    let measured = (0..given)
        .map(|_| {
            (0..per_plane)
                .map(|_| Ok(numbers.number("an intensity", 0.0, 1e9)? * scale))
                .collect()
        })
        .collect::<Result<Vec<Vec<f64>>, Fault>>()?;
    let (horizontal_deg, candela) = if symmetry == 1 || planes == 1 {
        (vec![0.0], measured)
    } else {
        // C0 looks across the luminaire, and our angles are counted from its length.
        let mut all: Vec<(f64, Vec<f64>)> = round
            .drain(..)
            .enumerate()
            .map(|(i, c)| {
                let plane = &measured[given_plane(i, planes, symmetry)];
                ((c - 90.0).rem_euclid(360.0), plane.clone())
            })
            .collect();
        all.sort_by(|a, b| a.0.total_cmp(&b.0));
        close_the_circle(&mut all);
        all.into_iter().unzip()
    };
    let distribution = Distribution {
        kind: PhotometricType::C,
        vertical_deg,
        horizontal_deg,
        candela,
    };
    let summed_lm = flux_of(&distribution, numbers.last_line)?;
    let line = |n: usize| text.lines().nth(n - 1).unwrap_or_default().trim();
    let name = if line(LUMINAIRE).is_empty() {
        line(MAKER)
    } else {
        line(LUMINAIRE)
    };
    Ok(Luminaire {
        name: name_shown(name),
        flux_lm: summed_lm,
        watts,
        opening_mm: if width_mm > 0.0 {
            opening(length_mm, width_mm)
        } else {
            opening(-length_mm, -length_mm)
        },
        distribution,
    })
}

/// Adds the plane at 0° where there is none, between its neighbours, and the same at 360°.
fn close_the_circle(planes: &mut Vec<(f64, Vec<f64>)>) {
    let (first, last) = (&planes[0], &planes[planes.len() - 1]);
    if first.0 > 0.0 {
        let share = (360.0 - last.0) / (first.0 + 360.0 - last.0);
        let each = last.1.iter().zip(&first.1);
        let between = each.map(|(a, b)| a + share * (b - a)).collect();
        planes.insert(0, (0.0, between));
    }
    planes.push((360.0, planes[0].1.clone()));
}

/// Which of the planes that are given stands for plane `i` of `planes`.
fn given_plane(i: usize, planes: usize, symmetry: usize) -> usize {
    let half = planes / 2;
    match symmetry {
        0 => i,
        // Alike on both sides of C0 to C180.
        2 => i.min(planes - i),
        // Alike on both sides of C90 to C270; given from C270 over C0 to C90.
        3 => {
            let from_270 = (i + planes - 3 * planes / 4) % planes;
            from_270.min(planes - from_270)
        }
        // Both.
        4 => {
            let folded = i.min(planes - i);
            folded.min(half - folded)
        }
        _ => 0,
    }
}
