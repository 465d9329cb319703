//! Cells whose light harms what grows there: too little, so that it stretches; so much that it
//! bleaches.

use jiff::civil::Date;

use crate::day::cell_light::PartLight;
use crate::day::measures::Cell;
use crate::day::standing::Standing;
use crate::lamps::bands::{STRETCHES_UNDER_MOL_M2_D, bleaches_over_umol_m2_s};

/// What light does to seedlings that have the wrong amount of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Harm {
    /// They reach for more: thin stems that fall over.
    Stretched,
    /// Their leaves turn pale and dry.
    Bleached,
}

/// The cells of a bay that come to one kind of harm on a day.
#[derive(Debug, Clone, PartialEq)]
pub struct Harmed {
    /// How many they are.
    pub count: usize,
    /// The trays that they are in, each once.
    pub trays: Vec<String>,
    /// The tray, its part and the place of each in that part's grid, row by row from the front.
    at: Vec<[usize; 3]>,
    /// How many cells hold seedlings.
    pub of: usize,
    /// How many would still stretch if every tray were turned end for end every few days.
    pub turned: usize,
    /// The last day in a row on which any cell is harmed so, as far as was looked.
    pub until: Date,
}

impl Harmed {
    /// The seedlings among `standing` that `lights` harm, with the lamps on for `hours`; `None`
    /// when there are none.
    pub(super) fn find(
        harm: Harm,
        standing: &[Standing<'_>],
        lights: &[PartLight],
        hours: f64,
        date: Date,
    ) -> Option<Self> {
        let mut trays: Vec<&str> = Vec::new();
        let (mut at, mut of, mut turned) = (Vec::new(), 0, 0);
        let mut lights = lights.iter();
        for (i, s) in standing.iter().enumerate() {
            for (j, part) in s.parts.iter().enumerate() {
                let light = lights.next()?;
                if !part.is_growing() {
                    continue;
                }
                of += light.ppfd.len();
                let bleaches_over = bleaches_over_umol_m2_s(part.dates.days_up(date).unwrap_or(0));
                let daily = &light.daily;
                let half_round = daily.iter().zip(daily.iter().rev());
                turned += half_round
                    .filter(|(here, there)| (*here + *there) / 2.0 < STRETCHES_UNDER_MOL_M2_D)
                    .count();
                for (k, (&ppfd, &dli)) in light.ppfd.iter().zip(daily).enumerate() {
                    let harmed = match harm {
                        Harm::Stretched => dli < STRETCHES_UNDER_MOL_M2_D,
                        Harm::Bleached => hours > 0.0 && ppfd > bleaches_over,
                    };
                    if harmed {
                        at.push([i, j, k]);
                    }
                }
            }
            if at.last().is_some_and(|[tray, ..]| *tray == i) {
                trays.push(&s.tray.id);
            }
        }
        (!at.is_empty()).then(|| Self {
            count: at.len(),
            trays: trays.into_iter().map(str::to_owned).collect(),
            at,
            of,
            turned,
            until: date,
        })
    }

    /// Forgets which cells they are: a list of every bay's would swell the answer.
    pub(super) fn in_outline(&mut self) {
        self.at.clear();
    }

    /// The cells, where they were asked for.
    pub fn cells(&self, standing: &[Standing<'_>]) -> Vec<Cell> {
        let parts = self.at.chunk_by(|a, b| a[..2] == b[..2]);
        let cells = parts.flat_map(|part| {
            let [i, j, _] = part[0];
            let (s, own) = (&standing[i], &standing[i].parts[j]);
            let points = own.footprint.cells(own.grid.0, own.grid.1);
            part.iter().map(move |[.., k]| Cell {
                tray: s.tray.id.clone(),
                x_mm: points[*k].0,
                y_mm: points[*k].1,
            })
        });
        cells.collect()
    }

    /// The cells in words, by trays and rows counted from the front left; the trays alone where the
    /// cells were not asked for.
    pub fn names(&self, standing: &[Standing<'_>]) -> String {
        if self.at.is_empty() {
            let in_it = |s: &&Standing<'_>| self.trays.contains(&s.tray.id);
            let names = standing.iter().filter(in_it).map(|s| s.tray.name.as_str());
            return names.collect::<Vec<_>>().join(", ");
        }
        let parts = self.at.chunk_by(|a, b| a[..2] == b[..2]);
        let names = parts.map(|part| {
            let s = &standing[part[0][0]];
            let own = &s.parts[part[0][1]];
            let columns = own.grid.0.max(1) as usize;
            let rows = part.chunk_by(|a, b| a[2] / columns == b[2] / columns);
            let rows: Vec<(usize, String)> = rows
                .map(|row| {
                    let in_row: Vec<usize> = row.iter().map(|[.., k]| k % columns + 1).collect();
                    (row[0][2] / columns + 1, runs(&in_row, columns))
                })
                .collect();
            // Rows that follow one another with the same cells are named together.
            let alike = rows.chunk_by(|a, b| a.1 == b.1 && b.0 - a.0 == 1);
            let rows = alike.map(|rows| match rows {
                [(row, cells)] => format!("row {row}: {cells}"),
                [(first, cells), .., (last, _)] => format!("rows {first}-{last}: {cells}"),
                [] => String::new(),
            });
            let rows: Vec<String> = rows.collect();
            let tray = if s.parts.len() > 1 {
                format!("{} ({})", s.tray.name, own.sowing.variety)
            } else {
                s.tray.name.clone()
            };
            if part.len() == columns * own.grid.1 as usize {
                format!("all of {tray}")
            } else {
                format!("{tray}, {}", rows.join(", "))
            }
        });
        names.collect::<Vec<_>>().join("; ")
    }
}

/// Numbers in rising order as runs: "1-3 + 9"; "all" when they are all of `of`.
fn runs(numbers: &[usize], of: usize) -> String {
    if numbers.len() == of {
        return "all".into();
    }
    let runs = numbers.chunk_by(|a, b| b - a == 1).map(|run| match run {
        [one] => one.to_string(),
        [first, .., last] => format!("{first}-{last}"),
        [] => String::new(),
    });
    runs.collect::<Vec<_>>().join(" + ")
}

#[cfg(test)]
mod tests {
    use super::runs;

    #[test]
    fn numbers_read_as_runs() {
        assert_eq!(runs(&[1, 2, 3, 9], 12), "1-3 + 9");
        assert_eq!(runs(&[4], 12), "4");
        assert_eq!(runs(&[1, 2], 2), "all");
    }
}
