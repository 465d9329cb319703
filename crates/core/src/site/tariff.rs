//! What a kWh costs by the hour, on working days and at weekends.

use jiff::civil::{Date, Weekday};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::{Burning, ClockSpan};
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::{Quantity, energy_kwh};
use crate::basis::words::say;

/// Prices that change by the hour.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HourPrices {
    /// Price of a kWh in each hour of a working day, from midnight on, in the site's currency.
    pub workday: Vec<f64>,
    /// The same at weekends; as on working days when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weekend: Option<Vec<f64>>,
}

/// Hours of a day in a tariff.
const HOURS: usize = 24;
/// Nobody pays more for a kWh in any currency, nor is paid more.
const MOST: f64 = 10_000.0;
/// Working days, and days of a weekend, in a week.
const DAYS: [f64; 2] = [5.0, 2.0];

impl HourPrices {
    fn of(&self, weekend: bool) -> &[f64] {
        match &self.weekend {
            Some(own) if weekend => own,
            _ => &self.workday,
        }
    }

    /// Whether any hour pays rather than costs.
    pub fn has_negative(&self) -> bool {
        let weekend = self.weekend.iter().flatten();
        self.workday.iter().chain(weekend).any(|price| *price < 0.0)
    }

    pub(super) fn check(&self, at: &Pointer, faults: &mut Faults) {
        let lists = [
            ("workday", Some(&self.workday)),
            ("weekend", self.weekend.as_ref()),
        ];
        for (name, list) in lists {
            let Some(list) = list else { continue };
            let at = at.at(name);
            if !faults.count(&at, list.len(), HOURS..=HOURS) {
                continue;
            }
            for (i, price) in list.iter().enumerate() {
                faults.number(&at.at(i), *price, -MOST..=MOST, Quantity::Money);
            }
        }
    }

    /// What a kWh costs at `hour` after midnight.
    pub(super) fn price_at(&self, weekend: bool, hour: f64) -> f64 {
        let at = (hour.max(0.0) as usize).min(HOURS - 1);
        self.of(weekend).get(at).copied().unwrap_or(0.0)
    }

    /// What `watts` cost that are drawn while `burning`, on `date` or on the mean of a week's days.
    pub(super) fn cost_on(&self, date: Option<Date>, watts: f64, burning: Burning) -> f64 {
        let on = |weekend| self.cost(weekend, watts, burning);
        match date {
            Some(date) => on(is_weekend(date)),
            None => (DAYS[0] * on(false) + DAYS[1] * on(true)) / (DAYS[0] + DAYS[1]),
        }
    }

    fn cost(&self, weekend: bool, watts: f64, burning: Burning) -> f64 {
        let prices = self.of(weekend).iter().zip(0..HOURS as u8);
        let each = prices.map(|(price, hour)| {
            let hour = f64::from(hour);
            let span = ClockSpan {
                from_h: hour,
                to_h: hour + 1.0,
            };
            price * energy_kwh(watts, burning.within(span))
        });
        each.sum()
    }
}

/// Whether `date` is a Saturday or a Sunday.
pub fn is_weekend(date: Date) -> bool {
    matches!(date.weekday(), Weekday::Saturday | Weekday::Sunday)
}

/// A row of a tariff in a file.
#[derive(Debug, Deserialize)]
struct Row {
    #[serde(default)]
    days: String,
    from: String,
    to: String,
    price: f64,
}

/// Reads a tariff from CSV with the columns `days` (workday, weekend or all; all when empty), `from` and
/// `to` (whole hours by the clock, such as 7:00) and `price` (of a kWh).
///
/// # Errors
/// Each row that cannot be read, each hour that is priced twice and each that is left out, by the row.
pub fn read_csv(text: &str) -> Result<HourPrices, Vec<Fault>> {
    let (root, mut faults) = (Pointer::default(), Faults::default());
    let at = root.at("rows");
    let mut found: [Vec<Option<f64>>; 2] = [vec![None; HOURS], vec![None; HOURS]];
    let mut weekend_named = false;
    let mut reader = csv::ReaderBuilder::new()
        .trim(csv::Trim::All)
        .flexible(true)
        .from_reader(text.as_bytes());
    // A tariff has a few dozen rows; a table of years is none.
    const MOST_ROWS: usize = 400;
    for (i, row) in reader.deserialize::<Row>().take(MOST_ROWS).enumerate() {
        // The first row below the header is the file's second line.
        let at = at.at(i + 2);
        let row = match row {
            Ok(row) => row,
            Err(error) => {
                let problem = error.to_string();
                let remedy = say!("give days, from, to and price, such as all, 23:00, 7:00, 0.19");
                faults.add(
                    &at,
                    "",
                    say!("this row cannot be read: {why}", why = problem),
                    remedy,
                );
                continue;
            }
        };
        let kinds = match row.days.to_lowercase().as_str() {
            "" | "all" => [true, true],
            "workday" | "workdays" | "weekday" | "weekdays" => [true, false],
            "weekend" | "weekends" => [false, true],
            other => {
                let problem = say!(
                    "\"{days}\" are no days that we know",
                    days = other.to_owned()
                );
                faults.add(
                    &at.at("days"),
                    other,
                    problem,
                    say!("say workday, weekend or all"),
                );
                continue;
            }
        };
        weekend_named |= kinds[0] != kinds[1];
        let hours = (whole_hour(&row.from), whole_hour(&row.to));
        let (Some(from), Some(to)) = hours else {
            let (name, value) = if hours.0.is_none() {
                ("from", &row.from)
            } else {
                ("to", &row.to)
            };
            let problem = say!(
                "\"{hour}\" is no whole hour of the day",
                hour = value.clone()
            );
            faults.add(
                &at.at(name),
                value,
                problem,
                say!("give a time such as 7:00 or 23:00"),
            );
            continue;
        };
        if !faults.number(&at.at("price"), row.price, -MOST..=MOST, Quantity::Money) {
            continue;
        }
        let length = if from % HOURS == to % HOURS {
            HOURS
        } else {
            (to + HOURS - from) % HOURS
        };
        for (prices, _) in found.iter_mut().zip(kinds).filter(|(_, meant)| *meant) {
            let mut twice = None;
            for hour in (from..from + length).map(|hour| hour % HOURS) {
                if prices[hour].replace(row.price).is_some() {
                    twice = Some(hour);
                }
            }
            if let Some(hour) = twice {
                let problem = say!(
                    "{hour} is priced twice",
                    hour = Quantity::ClockH.of(hour as f64)
                );
                faults.add(
                    &at,
                    &row.from,
                    problem,
                    say!("let rows begin where others end"),
                );
                break;
            }
        }
    }
    faults.verdict()?;
    let mut faults = Faults::default();
    for (prices, days) in found.iter().zip(["working days", "weekends"]) {
        if let Some(hour) = prices.iter().position(Option::is_none) {
            let problem = say!(
                "no row gives a price at {hour} on {days}",
                hour = Quantity::ClockH.of(hour as f64),
                days = days
            );
            faults.add(
                &at,
                "",
                problem,
                say!("add a row for it, or lengthen the one before"),
            );
            break;
        }
    }
    faults.verdict()?;
    let [workday, weekend] = found.map(|prices| prices.into_iter().flatten().collect());
    Ok(HourPrices {
        workday,
        weekend: weekend_named.then_some(weekend),
    })
}

/// The hour that `text` names: 7, 07:00 or 24:00.
fn whole_hour(text: &str) -> Option<usize> {
    let (hour, minutes) = text.split_once(':').unwrap_or((text, "00"));
    let hour: usize = hour.trim().parse().ok()?;
    (hour <= HOURS && minutes.trim() == "00").then_some(hour)
}

#[cfg(test)]
mod tests {
    use super::*;

    const TWO_RATE: &str =
        "days,from,to,price\nall,23:00,7:00,0.19\nworkday,7:00,23:00,0.31\nweekend,7,23,0.25\n";

    #[test]
    fn a_file_gives_each_hour_its_price() {
        let prices = read_csv(TWO_RATE).unwrap();
        assert_eq!(
            (prices.workday[6], prices.workday[7], prices.workday[23]),
            (0.19, 0.31, 0.19)
        );
        assert_eq!(prices.weekend.as_ref().unwrap()[12], 0.25);
        let flat = read_csv("from,to,price\n0:00,24:00,-0.02\n").unwrap();
        assert_eq!((flat.workday.len(), flat.weekend.clone()), (24, None));
        assert!(flat.has_negative());
    }

    #[test]
    fn gaps_overlaps_and_nonsense_are_named_by_their_row() {
        let paths = |text: &str| -> Vec<String> {
            let faults = read_csv(text).unwrap_err();
            faults.into_iter().map(|fault| fault.path).collect()
        };
        assert_eq!(
            paths("from,to,price\n0:00,7:00,0.2\n8:00,24:00,0.3\n"),
            ["/rows"]
        );
        assert_eq!(
            paths("from,to,price\n0:00,8:00,0.2\n7:00,24:00,0.3\n"),
            ["/rows/3"]
        );
        assert_eq!(paths("from,to,price\n0:30,8:00,0.2\n"), ["/rows/2/from"]);
        assert_eq!(paths("from,to,price\n0:00,24:00,1e9\n"), ["/rows/2/price"]);
        assert_eq!(
            paths("days,from,to,price\nmonday,0:00,24:00,1\n"),
            ["/rows/2/days"]
        );
        assert_eq!(paths("from,to,price\n0:00,24:00,free\n"), ["/rows/2"]);
    }
}
