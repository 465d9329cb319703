//! Places to live in: towns with their latitude and time zone, and what is usual in their country.
//!
//! Towns are those of the time-zone database (`zone.tab`, public domain); names and currencies of
//! countries come from the Unicode CLDR, mains voltages are from memory of the tables of IEC 60083.

use std::sync::LazyLock;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::manner::DateForm;
use crate::basis::units::{DAYS_PER_WEEK, UnitSystem};

/// A town, and what is usual there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Home {
    /// Identifier: its time zone's IANA name.
    pub id: String,
    /// The town.
    pub town: String,
    /// Its country, in English.
    pub country: String,
    /// The country's two letters (ISO 3166).
    pub code: String,
    /// Latitude in degrees, north positive.
    pub latitude_deg: f64,
    /// Longitude in degrees, east positive.
    pub longitude_deg: f64,
    /// Nominal mains voltage in V.
    pub mains_v: f64,
    /// ISO 4217 code of the currency.
    pub currency: String,
    /// The units that gardeners measure in there.
    pub units: UnitSystem,
    /// How days and times are written there, where that does not go with the units.
    pub dates: Option<DateForm>,
}

#[derive(Deserialize)]
struct Country {
    code: String,
    name: String,
    currency: String,
    mains_v: f64,
    units: UnitSystem,
    dates: Option<DateForm>,
}

#[derive(Deserialize)]
struct Town {
    zone: String,
    country: String,
    latitude_deg: f64,
    longitude_deg: f64,
}

fn rows<T: serde::de::DeserializeOwned>(text: &str) -> Vec<T> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let rows = reader.deserialize().collect::<Result<_, _>>();
    rows.expect("the built-in list reads")
}

static HOMES: LazyLock<Vec<Home>> = LazyLock::new(|| {
    let countries: Vec<Country> = rows(include_str!("home/countries.csv"));
    let towns: Vec<Town> = rows(include_str!("home/places.csv"));
    let homes = towns.into_iter().filter_map(|town| {
        let country = countries.iter().find(|c| c.code == town.country)?;
        let name = town.zone.rsplit('/').next().unwrap_or(&town.zone);
        Some(Home {
            town: name.replace('_', " "),
            id: town.zone,
            country: country.name.clone(),
            code: country.code.clone(),
            latitude_deg: town.latitude_deg,
            longitude_deg: town.longitude_deg,
            mains_v: country.mains_v,
            currency: country.currency.clone(),
            units: country.units,
            dates: country.dates,
        })
    });
    homes.collect()
});

/// All towns.
pub fn homes() -> &'static [Home] {
    &HOMES
}

/// Weeks of a season before and after the last frost: from the earliest sowings until tender crops are
/// out (common practice, no source).
const SEASON_WEEKS: [f64; 2] = [16.0, 8.0];

/// The season around `last_frost`.
pub fn season_around(last_frost: Date) -> DateSpan {
    let [before, after] = SEASON_WEEKS.map(|weeks| (weeks * DAYS_PER_WEEK) as i32);
    DateSpan {
        from: plus_days(last_frost, -before),
        to: plus_days(last_frost, after),
    }
}

impl Home {
    /// The town called `id`.
    pub fn named(id: &str) -> Option<&'static Self> {
        homes().iter().find(|home| home.id == id)
    }

    /// What a kWh costs, roughly, in the home's currency; 0 where we know none (our own estimate).
    pub fn price_per_kwh(&self) -> f64 {
        match self.currency.as_str() {
            "EUR" => 0.30,
            "GBP" => 0.27,
            "USD" => 0.17,
            "CAD" => 0.15,
            "AUD" | "NZD" => 0.33,
            "CHF" => 0.29,
            "JPY" => 31.0,
            "SEK" | "NOK" => 1.7,
            "DKK" => 2.6,
            "PLN" => 1.1,
            "CZK" => 6.5,
            _ => 0.0,
        }
    }

    /// The last frost that matters to whoever plans on `today`: this year's until three weeks after it,
    /// then the next. `None` in the tropics, where frost is no guide.
    ///
    /// Our own estimate from latitude and how far from an ocean's mild side the town lies, fitted by
    /// hand to a dozen towns' usual dates (from memory): it may well be three weeks out, and hollows
    /// and high ground are later.
    pub fn last_frost(&self, today: Date) -> Option<Date> {
        let day = self.last_frost_day()?;
        let in_year = |year: i16| {
            let first = jiff::civil::date(year, 1, 1);
            plus_days(first, day.round() as i32 - 1)
        };
        const STILL_DAYS: i32 = 21;
        let years = [-1, 0, 1, 2].map(|more| in_year(today.year() + more));
        let ahead = |day: &&Date| plus_days(**day, STILL_DAYS) >= today;
        years.iter().find(ahead).copied()
    }

    /// The day of the year on which half of all years have had their last frost.
    fn last_frost_day(&self) -> Option<f64> {
        const TROPIC_DEG: f64 = 23.5;
        let (latitude, east) = (self.latitude_deg, self.longitude_deg);
        if latitude.abs() < TROPIC_DEG {
            return None;
        }
        if latitude < 0.0 {
            // Half a year later than where it is spring in April.
            return Some(257.0 + 4.0 * (-latitude - 38.0));
        }
        let continent = self.id.split('/').next().unwrap_or_default();
        Some(match continent {
            // The further east, the later.
            "Europe" | "Atlantic" | "Africa" | "Arctic" => {
                100.0 + 2.6 * (latitude - 48.0) + 0.6 * (east - 5.0).clamp(0.0, 40.0)
            }
            // The Pacific keeps its coast mild.
            "America" | "Pacific" if east < -115.0 && latitude < 56.0 => {
                86.0 + 4.0 * (latitude - 48.0)
            }
            "America" => 105.0 + 3.2 * (latitude - 38.0),
            _ => 95.0 + 2.8 * (latitude - 38.0),
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::dates::days_between;
    use jiff::civil::date;

    #[test]
    fn every_town_has_a_zone_and_a_country() {
        assert!(homes().len() > 380);
        for home in homes() {
            let zones = jiff::tz::TimeZoneDatabase::bundled();
            assert!(zones.get(&home.id).is_ok(), "{}", home.id);
            assert!((90.0..=260.0).contains(&home.mains_v), "{}", home.id);
            assert_eq!(home.currency.len(), 3, "{}", home.id);
        }
        let home = Home::named("America/Chicago").unwrap();
        assert_eq!((home.units, home.mains_v), (UnitSystem::Us, 120.0));
    }

    /// Usual last frosts of towns, from memory of their weather services' tables; rounded to a week.
    #[test]
    fn the_estimate_is_within_three_weeks_of_usual_last_frosts() {
        let usual = [
            ("Europe/London", 4, 20),
            ("Europe/Paris", 4, 10),
            ("Europe/Berlin", 4, 25),
            ("Europe/Vienna", 4, 15),
            ("Europe/Stockholm", 5, 8),
            ("Europe/Helsinki", 5, 20),
            ("Europe/Moscow", 5, 12),
            ("America/New_York", 4, 8),
            ("America/Chicago", 4, 25),
            ("America/Toronto", 5, 3),
            ("America/Winnipeg", 5, 25),
            ("America/Vancouver", 4, 1),
            ("Asia/Tokyo", 3, 20),
            ("Asia/Seoul", 4, 8),
        ];
        for (id, month, day) in usual {
            let found = Home::named(id).unwrap().last_frost(date(2027, 1, 10));
            let off = days_between(date(2027, month, day), found.unwrap());
            assert!(off.abs() <= 21, "{id}: {off} days");
        }
        let hobart = Home::named("Australia/Hobart").unwrap();
        let spring = hobart.last_frost(date(2027, 1, 10)).unwrap();
        assert!((date(2027, 9, 15)..date(2027, 10, 31)).contains(&spring));
        assert_eq!(
            Home::named("Asia/Singapore")
                .unwrap()
                .last_frost(date(2027, 1, 1)),
            None
        );
    }

    #[test]
    fn a_frost_long_past_makes_way_for_the_next() {
        let home = Home::named("Europe/Vienna").unwrap();
        let this = home.last_frost(date(2027, 1, 10)).unwrap();
        assert_eq!(home.last_frost(plus_days(this, 21)), Some(this));
        let next = home.last_frost(plus_days(this, 22)).unwrap();
        assert_eq!(next.year(), 2028);
    }
}
