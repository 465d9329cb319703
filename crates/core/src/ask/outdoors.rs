//! The year outdoors at a site, and under what covers its spots there.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::plan::SoundPlan;
use crate::warmth::under_cover::{Weather, under_cover};

/// The year outdoors at a site.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OutdoorYear {
    /// What it goes by.
    pub by: OutdoorsBy,
    /// Where the figures come from, in words.
    pub source: Statement,
    /// The twelve months, January first.
    pub months: Vec<OutdoorMonth>,
    /// The places outdoors that something covers, month by month.
    pub covered: Vec<CoveredYear>,
}

/// What the year outdoors goes by.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OutdoorsBy {
    /// The months that somebody typed.
    Typed,
    /// Those of the record of frosts.
    Record,
    /// Our own estimate from latitude and last frost.
    Estimate,
}

/// The middle of a month outdoors.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct OutdoorMonth {
    /// Which month, 1 to 12.
    pub month: i8,
    /// Coolest of a usual night, in °C.
    pub night_c: f64,
    /// Warmest of a usual day, in °C.
    pub day_c: f64,
    /// Mean relative humidity, 0 to 1.
    pub humidity: f64,
}

/// The year under a cover.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CoveredYear {
    /// The place.
    pub place: String,
    /// The twelve months, January first.
    pub months: Vec<CoveredMonth>,
}

/// The middle of a month under a cover.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct CoveredMonth {
    /// Coolest of a usual night, in °C.
    pub least_c: f64,
    /// Mean of day and night, in °C.
    pub mean_c: f64,
    /// Warmest of a usual day, in °C.
    pub most_c: f64,
    /// Coolest of a clear night, in °C.
    pub clear_least_c: f64,
    /// Warmest of a clear day, in °C.
    pub clear_most_c: f64,
    /// Mean relative humidity, 0 to 1.
    pub humidity: f64,
    /// What its heater draws, in kWh a day.
    pub heating_kwh: f64,
}

/// How far our estimate of a month may be out, in K (our own estimate; see `core/tests/frost.rs`).
const ESTIMATE_OFF_K: f64 = 5.0;

/// The year outdoors at the site of `plan`.
pub fn outdoors(plan: &SoundPlan) -> OutdoorYear {
    let site = &plan.site;
    let year = site.year_outdoors();
    // Which year does not matter: a usual one is like the next.
    let middles: Vec<Date> = (1..=12)
        .filter_map(|month| Date::new(site.last_frost.year(), month, 15).ok())
        .collect();
    let months = middles.iter().map(|date| {
        let air = year.on(*date);
        OutdoorMonth {
            month: date.month(),
            night_c: air.night_c,
            day_c: air.day_c,
            humidity: air.humidity,
        }
    });
    let covered = plan.places.iter().filter_map(|place| {
        let months: Option<Vec<CoveredMonth>> = middles
            .iter()
            .map(|date| {
                let air = under_cover(site, place, *date, Weather::Usual)?;
                let clear = under_cover(site, place, *date, Weather::Clear)?;
                Some(CoveredMonth {
                    least_c: air.least_c,
                    mean_c: air.mean_c,
                    most_c: air.most_c,
                    clear_least_c: clear.least_c,
                    clear_most_c: clear.most_c,
                    humidity: air.humidity,
                    heating_kwh: air.heating_kwh,
                })
            })
            .collect();
        Some(CoveredYear {
            place: place.id.clone(),
            months: months?,
        })
    });
    let by = match &site.frost {
        _ if !site.months.is_empty() => OutdoorsBy::Typed,
        Some(record) if !record.months.is_empty() => OutdoorsBy::Record,
        _ => OutdoorsBy::Estimate,
    };
    OutdoorYear {
        by,
        source: match (by, &site.frost) {
            (OutdoorsBy::Typed, _) => say!("as you typed them"),
            (OutdoorsBy::Record, Some(record)) => say!("by {record}", record = &record.name),
            _ => say!(
                "our own estimate from latitude and last frost: it may well be {off} out",
                off = Quantity::DifferenceK.of(ESTIMATE_OFF_K)
            ),
        },
        months: months.collect(),
        covered: covered.collect(),
    }
}
