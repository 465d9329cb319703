//! The handbook's tables of emergence, read.

use std::collections::BTreeMap;

use crate::crops::emergence::{EmergenceCurve, Tested};

/// A row of a table with a temperature for each column: the crop, and its cells with their °C.
type Row = (String, Vec<(f64, String)>);

/// Reads the table of days (see [`read_table`]) and beside it the table of shares, whose cells hold
/// percent of seeds, or nothing where it was not tested.
///
/// # Errors
/// A sentence naming row and column of the first cell that cannot be read, or a row of shares that
/// the table of days lacks.
pub fn read_tables(
    days_csv: &str,
    share_csv: &str,
) -> Result<BTreeMap<String, EmergenceCurve>, String> {
    let mut curves = read_table(days_csv)?;
    for (crop, cells) in rows(share_csv)? {
        let curve = curves
            .get_mut(&crop)
            .ok_or_else(|| format!("{crop} has shares but no days"))?;
        for (c, cell) in cells.into_iter().filter(|(_, cell)| !cell.is_empty()) {
            match cell.parse::<f64>() {
                Ok(percent) if (0.0..=100.0).contains(&percent) => {
                    curve.shares.push((c, percent / 100.0));
                }
                _ => return Err(format!("{crop} at {c} °C: \"{cell}\" is no percentage")),
            }
        }
    }
    Ok(curves)
}

fn rows(csv: &str) -> Result<Vec<Row>, String> {
    let mut reader = csv::ReaderBuilder::new()
        .comment(Some(b'#'))
        .from_reader(csv.as_bytes());
    let temperatures = reader
        .headers()
        .map_err(|e| e.to_string())?
        .iter()
        .skip(1)
        .map(|h| {
            h.parse::<f64>()
                .map_err(|_| format!("column \"{h}\" is no temperature"))
        })
        .collect::<Result<Vec<_>, _>>()?;
    let mut rows = Vec::new();
    for record in reader.records() {
        let record = record.map_err(|e| e.to_string())?;
        let crop = record.get(0).unwrap_or_default().to_owned();
        let cells = record.iter().skip(1).map(str::to_owned);
        rows.push((crop, temperatures.iter().copied().zip(cells).collect()));
    }
    Ok(rows)
}

/// Reads the table: a column `crop`, then one a temperature in °C; cells hold days, `ng` for
/// little or no germination, nothing for not tested. Lines that start with `#` are remarks.
///
/// # Errors
/// A sentence naming row and column of the first cell that cannot be read.
pub fn read_table(csv: &str) -> Result<BTreeMap<String, EmergenceCurve>, String> {
    let mut curves = BTreeMap::new();
    for (crop, cells) in rows(csv)? {
        let mut nodes = Vec::new();
        for (c, cell) in cells {
            let tested = match cell.as_str() {
                "" => Tested::Unknown,
                "ng" => Tested::None,
                days => match days.parse::<f64>() {
                    Ok(days) if days > 0.0 => Tested::Days(days),
                    _ => return Err(format!("{crop} at {c} °C: \"{cell}\" is no number of days")),
                },
            };
            nodes.push((c, tested));
        }
        curves.insert(crop, EmergenceCurve::new(nodes));
    }
    Ok(curves)
}
