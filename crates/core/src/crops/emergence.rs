//! Days to emergence against root-zone temperature.
//!
//! The table holds mean days at constant temperature; between its nodes the *rate* (1/days) is
//! interpolated, since days run off to infinity where germination ends.

use std::collections::BTreeMap;

/// What the table says at one temperature.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Tested {
    /// Mean days to emergence.
    Days(f64),
    /// Tested: little or no germination.
    None,
    /// Not tested.
    Unknown,
}

/// Days to emergence of one kind of seed.
#[derive(Debug, Clone, PartialEq)]
pub struct EmergenceCurve {
    nodes: Vec<(f64, Tested)>,
    /// Temperature in °C and rate in 1/day, ascending; the rate is a straight line between.
    rate: Vec<(f64, f64)>,
}

impl EmergenceCurve {
    fn new(nodes: Vec<(f64, Tested)>) -> Self {
        let figures: Vec<(f64, f64)> = nodes
            .iter()
            .filter_map(|&(c, tested)| match tested {
                Tested::Days(days) => Some((c, 1.0 / days)),
                _ => None,
            })
            .collect();
        let mut rate = figures.clone();
        if let (Some(&first), Some(&last)) = (figures.first(), figures.last()) {
            let at = |c: f64| nodes.iter().position(|node| node.0 == c).unwrap_or(0);
            if let Some(&(c, tested)) = at(first.0).checked_sub(1).and_then(|i| nodes.get(i)) {
                if tested == Tested::None {
                    rate.insert(0, (c, 0.0));
                } else if let Some(&second) = figures.get(1) {
                    // Untested below: carry the line of the two coldest figures down to zero, as
                    // thermal time does, but never past a node where nothing came up.
                    let slope = (second.1 - first.1) / (second.0 - first.0);
                    let floor = nodes[..at(first.0)]
                        .iter()
                        .rfind(|node| node.1 == Tested::None)
                        .map_or(f64::NEG_INFINITY, |node| node.0);
                    if slope > 0.0 {
                        rate.insert(0, ((first.0 - first.1 / slope).max(floor), 0.0));
                    }
                }
            }
            if let Some(&(c, Tested::None)) = nodes.get(at(last.0) + 1) {
                rate.push((c, 0.0));
            }
        }
        Self { nodes, rate }
    }

    /// The table's own nodes, temperature in °C first.
    pub fn nodes(&self) -> &[(f64, Tested)] {
        &self.nodes
    }

    /// Emergence per day at `root_zone_c` °C: 0 where nothing comes up, and 0 above the warmest
    /// tested temperature, since nobody knows.
    pub fn rate_per_day(&self, root_zone_c: f64) -> f64 {
        let above = self.rate.partition_point(|&(c, _)| c <= root_zone_c);
        match (
            above.checked_sub(1).map(|i| self.rate[i]),
            self.rate.get(above),
        ) {
            (Some((c, rate)), None) if c == root_zone_c => rate,
            (Some((c0, r0)), Some(&(c1, r1))) => r0 + (r1 - r0) * (root_zone_c - c0) / (c1 - c0),
            _ => 0.0,
        }
    }

    /// Mean days to emergence at a constant `root_zone_c`; `None` where nothing comes up.
    ///
    /// ```
    /// let crops = sunrise_core::crops::library();
    /// let tomato = crops.curve(crops.get("tomato").unwrap());
    /// assert_eq!(tomato.days(20.0), Some(8.2));
    /// assert_eq!(tomato.days(5.0), None);
    /// ```
    pub fn days(&self, root_zone_c: f64) -> Option<f64> {
        self.days_over(&[root_zone_c])
    }

    /// Mean days to emergence when the root zone runs through the temperatures of `day_c` (°C,
    /// equal shares of each day), the rate being summed over them; `None` where nothing comes up.
    pub fn days_over(&self, day_c: &[f64]) -> Option<f64> {
        let mean = day_c.iter().map(|&c| self.rate_per_day(c)).sum::<f64>() / day_c.len() as f64;
        // Slower than a year is never: the mix has long since gone sour.
        (mean > 1.0 / 365.0).then(|| 1.0 / mean)
    }
}

/// Reads the table: a column `crop`, then one a temperature in °C; cells hold days, `ng` for
/// little or no germination, nothing for not tested. Lines that start with `#` are remarks.
///
/// # Errors
/// A sentence naming row and column of the first cell that cannot be read.
pub fn read_table(csv: &str) -> Result<BTreeMap<String, EmergenceCurve>, String> {
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
    let mut curves = BTreeMap::new();
    for record in reader.records() {
        let record = record.map_err(|e| e.to_string())?;
        let crop = record.get(0).unwrap_or_default().to_owned();
        let mut nodes = Vec::new();
        for (&c, cell) in temperatures.iter().zip(record.iter().skip(1)) {
            let tested = match cell {
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

#[cfg(test)]
mod tests {
    use super::*;

    fn curves() -> BTreeMap<String, EmergenceCurve> {
        read_table(include_str!("emergence_days.csv")).unwrap()
    }

    #[test]
    fn a_broken_cell_is_named() {
        let error = read_table("crop,10,15\nrye,5,soon\n").unwrap_err();
        assert_eq!(error, "rye at 15 °C: \"soon\" is no number of days");
    }

    #[test]
    fn never_overshoots_the_nodes_on_either_side() {
        for (crop, curve) in curves() {
            for pair in curve.rate.windows(2) {
                let (low, high) = (pair[0].1.min(pair[1].1), pair[0].1.max(pair[1].1));
                for i in 0..=20 {
                    let c = pair[0].0 + (pair[1].0 - pair[0].0) * f64::from(i) / 20.0;
                    let rate = curve.rate_per_day(c);
                    assert!(
                        (low - 1e-12..=high + 1e-12).contains(&rate),
                        "{crop} at {c} °C"
                    );
                }
            }
        }
    }

    #[test]
    fn a_warm_crop_is_not_promised_from_cold_soil_nobody_tested() {
        let curves = curves();
        // Watermelon: nothing at 5 °C, untested at 10 and 15, 11.8 days at 20.
        assert_eq!(curves["watermelon"].days(12.0), None);
        assert!(curves["watermelon"].days(18.0).unwrap() > 11.8);
        // Cabbage was not tested above 30 °C.
        assert_eq!(curves["cabbage"].days(31.0), None);
        assert_eq!(curves["cabbage"].days(30.0), Some(3.5));
    }

    #[test]
    fn warm_days_and_cold_nights_sum_their_rates() {
        let curve = &curves()["tomato"];
        let days = curve.days_over(&[25.0, 15.0]).unwrap();
        assert!((days - 2.0 / (1.0 / 5.9 + 1.0 / 13.6)).abs() < 1e-9);
    }
}
