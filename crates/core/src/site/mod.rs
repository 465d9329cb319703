//! The site: where it is, what its mains and its air are like, and when frost ends.

pub mod air;
pub mod frost;
pub mod home;
pub mod minima;
pub mod outdoors;
pub mod prices;
pub mod room_size;
pub mod tariff;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use air::{Air, AirFrom, OtherRoom, RoomAirs, check_rooms};
use frost::{FrostRecord, LAST_FROST_SD_DAYS};
use outdoors::{MonthAir, Year, check_months};
use room_size::Envelope;
use tariff::HourPrices;

use crate::basis::clock::{Burning, ClockSpan, DAY_H};
use crate::basis::dates::days_between;
use crate::basis::fault::{Faults, Pointer};
use crate::basis::manner::{DateForm, Manner};
use crate::basis::units::{Quantity, UnitSystem, energy_kwh};
use crate::basis::words::say;

/// Where the plan is carried out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Site {
    /// What people call the place.
    pub name: String,
    /// Latitude in degrees, north positive.
    pub latitude_deg: f64,
    /// IANA name of the time zone: it decides which day is today.
    pub time_zone: String,
    /// Nominal mains voltage in V.
    pub mains_v: f64,
    /// Price of a kWh in `currency`.
    pub price_per_kwh: f64,
    /// The hours in which a kWh costs less; left out where it always costs the same.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cheap: Option<CheapHours>,
    /// What a kWh costs in each hour, where it changes more often; wins over both prices above.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by_hour: Option<HourPrices>,
    /// The hours in which no lamp should burn, for the sake of sleep; left out where none mind.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quiet: Option<ClockSpan>,
    /// ISO 4217 code of the currency.
    pub currency: String,
    /// The day after which frost is as likely as not to be over.
    pub last_frost: Date,
    /// Whether that day is only our estimate from where it is.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub last_frost_estimated: bool,
    /// Day on which the first frost after summer is as likely as not to have come; left out, the record's, else
    /// an estimate.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub first_frost: Option<Date>,
    /// The frosts on record; left out where only a day is known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub frost: Option<FrostRecord>,
    /// What an average spring day has of a cloudless day's light; half when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub of_cloudless: Option<f64>,
    /// The units people measure in there.
    pub units: UnitSystem,
    /// How people write days and times there; left out where that goes with their units.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dates: Option<DateForm>,
    /// The air of the room.
    pub air: Air,
    /// What it is from later dates on; empty where it stays as it is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub air_from: Vec<AirFrom>,
    /// What is around the room: with it the air above is the air without its lamps, and they warm it; left
    /// out, the air is taken as it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub envelope: Option<Envelope>,
    /// The air of the room with its lamps, as it is reckoned for a sound plan; empty where they are not.
    #[serde(skip)]
    pub(crate) lit: Vec<AirFrom>,
    /// Other rooms in which trays stand; empty where there is one alone.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rooms: Vec<OtherRoom>,
    /// The air outdoors month by month, January first, as somebody typed it; left out to go by the record
    /// of frosts, or by our estimate.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub months: Vec<MonthAir>,
}

/// Hours of the day in which a kWh costs less.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CheapHours {
    /// The hours.
    pub hours: ClockSpan,
    /// Price of a kWh in them, in the site's currency.
    pub price_per_kwh: f64,
}

impl Site {
    /// How people read figures there.
    pub fn manner(&self) -> Manner {
        let goes_with_units = match self.units {
            UnitSystem::Metric => DateForm::DayFirst,
            UnitSystem::Us => DateForm::MonthFirst,
        };
        Manner {
            units: self.units,
            dates: self.dates.unwrap_or(goes_with_units),
        }
    }

    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.name(&at.at("name"), &self.name);
        faults.number(
            &at.at("latitude_deg"),
            self.latitude_deg,
            -90.0..=90.0,
            Quantity::AngleDeg,
        );
        if jiff::tz::TimeZoneDatabase::bundled()
            .get(&self.time_zone)
            .is_err()
        {
            faults.add(
                &at.at("time_zone"),
                &self.time_zone,
                say!("no time zone is called \"{zone}\"", zone = &self.time_zone),
                say!("give an IANA name such as Europe/Vienna or America/Chicago"),
            );
        }
        faults.number(
            &at.at("mains_v"),
            self.mains_v,
            90.0..=260.0,
            Quantity::VoltageV,
        );
        faults.number(
            &at.at("price_per_kwh"),
            self.price_per_kwh,
            0.0..=10_000.0,
            Quantity::Money,
        );
        if let Some(prices) = &self.by_hour {
            prices.check(&at.at("by_hour"), faults);
        }
        if let Some(cheap) = &self.cheap {
            let at = at.at("cheap");
            cheap.hours.check(&at.at("hours"), faults);
            let range = 0.0..=10_000.0;
            let price = at.at("price_per_kwh");
            faults.number(&price, cheap.price_per_kwh, range, Quantity::Money);
        }
        if let Some(quiet) = &self.quiet {
            quiet.check(&at.at("quiet"), faults);
        }
        if self.currency.len() != 3 || !self.currency.bytes().all(|b| b.is_ascii_uppercase()) {
            faults.add(
                &at.at("currency"),
                &self.currency,
                say!("\"{code}\" is not a currency code", code = &self.currency),
                say!("give three capital letters (ISO 4217), such as EUR or USD"),
            );
        }
        if let Some(record) = &self.frost {
            record.check(&at.at("frost"), faults);
        }
        if let Some(share) = self.of_cloudless {
            let at = at.at("of_cloudless");
            faults.number(&at, share, 0.05..=1.0, Quantity::Share);
        }
        if let Some(envelope) = self.envelope {
            envelope.check(&at.at("envelope"), faults);
        }
        self.unlit(None).check(at, faults);
        check_rooms(&self.rooms, &at.at("rooms"), faults);
        check_months(&self.months, &at.at("months"), faults);
    }

    fn airs(&self, room: Option<&str>) -> RoomAirs<'_> {
        let (unlit, lit) = (
            self.unlit(room),
            self.other(room).map_or(&self.lit, |room| &room.lit),
        );
        // With its lamps where they are reckoned.
        if lit.is_empty() {
            unlit
        } else {
            RoomAirs { from: lit, ..unlit }
        }
    }

    fn other(&self, room: Option<&str>) -> Option<&OtherRoom> {
        room.and_then(|id| self.rooms.iter().find(|room| room.id == id))
    }

    fn unlit(&self, room: Option<&str>) -> RoomAirs<'_> {
        let own = RoomAirs {
            first: &self.air,
            from: &self.air_from,
        };
        self.other(room).map_or(own, OtherRoom::unlit)
    }

    /// The same air as it is without lamps that warm it.
    pub(crate) fn unlit_air(&self, room: Option<&str>, date: Date) -> &Air {
        self.unlit(room).on(date)
    }

    /// The dates on which that changes.
    pub(crate) fn unlit_changes(&self, room: Option<&str>) -> impl Iterator<Item = Date> {
        self.unlit(room).from.iter().map(|change| change.from)
    }

    /// The air of the room called `room` on `date`; of the one that the plan draws where none is named.
    pub fn room_air(&self, room: Option<&str>, date: Date) -> &Air {
        self.airs(room).on(date)
    }

    /// The date since which that air is what it is on `date`; `None` where it has been from the first.
    pub fn room_air_since(&self, room: Option<&str>, date: Date) -> Option<Date> {
        self.airs(room).begun(date).map(|change| change.from)
    }

    /// The first date after `date` on which that air is another; `None` where it stays as it is.
    pub fn room_air_changes_after(&self, room: Option<&str>, date: Date) -> Option<Date> {
        let changes = self.airs(room).from.iter().map(|change| change.from);
        changes.filter(|from| *from > date).min()
    }

    /// The year outdoors, by the months that somebody typed, else by those on record, else by our
    /// estimate from latitude and last frost.
    pub fn year_outdoors(&self) -> Year {
        let months = Year::of_months(self.months_outdoors());
        months.unwrap_or_else(|| Year::estimated(self.latitude_deg, self.last_frost))
    }

    /// The months that it goes by; none where it is estimated.
    pub fn months_outdoors(&self) -> &[MonthAir] {
        match &self.frost {
            Some(record) if self.months.is_empty() => &record.months,
            _ => &self.months,
        }
    }

    /// What a kWh costs at `hour` after midnight, on a working day or at a weekend.
    pub fn price_at(&self, weekend: bool, hour: f64) -> f64 {
        if let Some(prices) = &self.by_hour {
            return prices.price_at(weekend, hour);
        }
        let moment = Burning::new(hour, 1e-6);
        let cheap = self.cheap.filter(|cheap| moment.within(cheap.hours) > 0.0);
        cheap.map_or(self.price_per_kwh, |cheap| cheap.price_per_kwh)
    }

    /// What `watts` cost a day that are drawn while `burning`, in the site's currency: on `date`, or on the
    /// mean of a week's days.
    pub fn cost_on(&self, date: Option<Date>, watts: f64, burning: Burning) -> f64 {
        if let Some(prices) = &self.by_hour {
            return prices.cost_on(date, watts, burning);
        }
        let cheap_h = self.cheap.map_or(0.0, |cheap| burning.within(cheap.hours));
        let cheap_price = self.cheap.map_or(0.0, |cheap| cheap.price_per_kwh);
        energy_kwh(watts, burning.hours - cheap_h) * self.price_per_kwh
            + energy_kwh(watts, cheap_h) * cheap_price
    }

    /// The hours of a day in which lamps may burn without waking anybody.
    pub fn free_hours(&self) -> f64 {
        DAY_H - self.quiet.map_or(0.0, ClockSpan::hours)
    }

    /// The first frost after summer: as somebody typed it, else by the record of minima, else estimated.
    pub fn first_frost_day(&self) -> FirstFrost {
        if let Some(day) = self.first_frost {
            let by = FirstFrostBy::Typed;
            return FirstFrost { day, by };
        }
        let year = self.last_frost.year();
        let record = self.frost.as_ref();
        let recorded = record.and_then(|record| record.dates(self.latitude_deg, year)?.first);
        match recorded.filter(|day| *day > self.last_frost) {
            Some(day) => FirstFrost {
                day,
                by: FirstFrostBy::Record,
            },
            None => FirstFrost {
                day: self.year_outdoors().as_cold_again(self.last_frost),
                by: FirstFrostBy::Estimate,
            },
        }
    }

    /// The chance, 0 to 1, of frost about `date`: until the middle of summer that one still comes on or after
    /// it, from then on that the first one has come.
    ///
    /// By the record of minima where there is one. Else frosts are taken as normally distributed around
    /// [`Site::last_frost`] and the first one with [`LAST_FROST_SD_DAYS`]; 0.5 on those days by definition.
    pub fn frost_risk(&self, date: Date) -> f64 {
        let days_after = days_between(self.last_frost, date);
        if days_after > LONG_AFTER_DAYS {
            let first = self.first_frost_day().day;
            let summer = days_between(self.last_frost, first) / 2;
            if days_after > summer {
                let days = f64::from(days_between(first, date));
                return 1.0 - frost::still_comes(days, LAST_FROST_SD_DAYS);
            }
        }
        let record = self.frost.as_ref();
        if let Some(risk) = record.and_then(|record| record.risk(self.latitude_deg, date)) {
            return risk;
        }
        frost::still_comes(f64::from(days_after), LAST_FROST_SD_DAYS)
    }

    /// What an average day has of a cloudless one's light, 0 to 1; half where the site does not say
    /// (our own estimate).
    pub fn average_of_cloudless(&self) -> f64 {
        const USUAL: f64 = 0.5;
        self.of_cloudless.unwrap_or(USUAL)
    }

    /// Hours between sunrise and sunset on `date`; 0 in polar night, 24 in midnight sun.
    pub fn day_length_h(&self, date: Date) -> f64 {
        day_length_h(self.latitude_deg, date)
    }
}

/// The first frost after summer, and how it is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct FirstFrost {
    /// The day by which it has come in every other year.
    pub day: Date,
    /// How it is known.
    pub by: FirstFrostBy,
}

/// How the first frost is known.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FirstFrostBy {
    /// Somebody typed it.
    Typed,
    /// From the record of minima.
    Record,
    /// Our own estimate: nights are as cold again as when frost ended.
    Estimate,
}

/// Nobody asks for autumn sooner after the last frost than this.
const LONG_AFTER_DAYS: i32 = 45;

/// The altitude of the sun's centre at sunrise and sunset: refraction 34' and half a disc 16'.
const SUNRISE_ALTITUDE_DEG: f64 = -0.833;

/// Hours between sunrise and sunset at `latitude_deg` on `date`, with refraction.
///
/// Source: the low-accuracy solar coordinates of Meeus, Astronomical Algorithms, chapter 25
/// (0.01 degrees), and the sunrise equation of chapter 15; taken at 12 h UTC.
///
/// ```
/// use sunrise_core::site::day_length_h;
/// let h = day_length_h(0.0, jiff::civil::date(2027, 3, 20));
/// assert!((h - 12.1).abs() < 0.02); // refraction and the sun's disc add seven minutes
/// ```
pub fn day_length_h(latitude_deg: f64, date: Date) -> f64 {
    let declination = declination_rad(date);
    let latitude = latitude_deg.to_radians();
    let cos_hour_angle = (SUNRISE_ALTITUDE_DEG.to_radians().sin()
        - latitude.sin() * declination.sin())
        / (latitude.cos() * declination.cos());
    2.0 * cos_hour_angle.clamp(-1.0, 1.0).acos().to_degrees() / 15.0
}

/// The sun's declination at 12 h UTC of `date`, in radians.
///
/// Source: the low-accuracy solar coordinates of Meeus, Astronomical Algorithms, chapter 25.
pub fn declination_rad(date: Date) -> f64 {
    let j2000 = jiff::civil::date(2000, 1, 1);
    let t = days_between(j2000, date) as f64 / 36_525.0;
    let mean_longitude = (280.46646 + 36_000.769_83 * t).rem_euclid(360.0);
    let mean_anomaly = (357.52911 + 35_999.050_29 * t).to_radians();
    let centre = (1.914602 - 0.004817 * t) * mean_anomaly.sin()
        + 0.019993 * (2.0 * mean_anomaly).sin()
        + 0.000289 * (3.0 * mean_anomaly).sin();
    let longitude = (mean_longitude + centre).to_radians();
    let obliquity = (23.439291 - 0.0130042 * t).to_radians();
    (obliquity.sin() * longitude.sin()).asin()
}
