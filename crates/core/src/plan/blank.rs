//! A plan with nothing in it yet.

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::units::UnitSystem;
use crate::plan::document::{Plan, SCHEMA_VERSION};
use crate::room::wiring::Wiring;
use crate::room::{Door, Room};
use crate::site::Site;
use crate::site::air::Air;
use crate::site::home::{Home, season_around};
use crate::site::prices::Prices;

/// Days from today until plants go out where frost is no guide (our own estimate).
const NO_FROST_DAYS: i32 = 56;

impl Plan {
    /// An empty plan for whoever begins on `today`, in `home` if that is known: a room of the usual
    /// size, lived in, with nothing in it (its figures are our own estimates, to be changed).
    pub fn blank(today: Date, home: Option<&Home>) -> Self {
        const TEMPERATE: &str = "Europe/London";
        let known = home.or_else(|| Home::named(TEMPERATE));
        let last_frost = known
            .and_then(|home| home.last_frost(today))
            .unwrap_or(plus_days(today, NO_FROST_DAYS));
        let mut plan = Self {
            schema_version: SCHEMA_VERSION,
            name: format!("Seedlings {}", last_frost.year()),
            site: Site {
                name: "Home".into(),
                latitude_deg: 50.0,
                time_zone: "UTC".into(),
                mains_v: 230.0,
                price_per_kwh: 0.0,
                cheap: None,
                by_hour: None,
                quiet: None,
                currency: "EUR".into(),
                last_frost,
                last_frost_estimated: true,
                first_frost: None,
                frost: None,
                of_cloudless: None,
                units: UnitSystem::Metric,
                dates: None,
                air: Air {
                    day_c: 19.0,
                    night_c: 16.0,
                    humidity: None,
                },
                air_from: Vec::new(),
                envelope: None,
                lit: Vec::new(),
                rooms: Vec::new(),
                months: Vec::new(),
            },
            season: season_around(last_frost),
            stands_still_on: None,
            away: Vec::new(),
            wiring: Wiring::default(),
            prices: Prices::default(),
            room: Room {
                width_mm: 3000.0,
                depth_mm: 2500.0,
                height_mm: 2400.0,
                door: Door {
                    width_mm: 800.0,
                    height_mm: 2000.0,
                },
            },
            places: Vec::new(),
            tray_formats: Vec::new(),
            crops: Vec::new(),
            packets: Vec::new(),
            sowings: Vec::new(),
            trays: Vec::new(),
        };
        if let Some(home) = home {
            plan.live_at(home, today);
        }
        plan
    }

    /// Sets all that follows from living at `home`: latitude, zone, mains, currency, units, the last
    /// frost by estimate and the season around it.
    pub fn live_at(&mut self, home: &Home, today: Date) {
        let site = &mut self.site;
        site.latitude_deg = home.latitude_deg;
        site.time_zone.clone_from(&home.id);
        site.mains_v = home.mains_v;
        site.price_per_kwh = home.price_per_kwh();
        site.currency.clone_from(&home.currency);
        site.units = home.units;
        site.dates = home.dates;
        // Frosts on record are those of the place before.
        site.frost = None;
        let frost = home.last_frost(today);
        self.anchor(frost.unwrap_or(plus_days(today, NO_FROST_DAYS)));
        self.site.last_frost_estimated = true;
    }

    /// Sets the last frost, and the season around it.
    pub fn anchor(&mut self, last_frost: Date) {
        self.site.last_frost = last_frost;
        self.site.last_frost_estimated = false;
        self.season = season_around(last_frost);
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::site::home::homes;
    use jiff::civil::date;

    #[test]
    fn it_is_sound_wherever_and_whenever_it_begins() {
        for month in 1..=12 {
            let today = date(2027, month, 15);
            assert!(Plan::blank(today, None).check().is_ok());
            for home in homes() {
                let plan = Plan::blank(today, Some(home)).check();
                let plan = plan.unwrap_or_else(|faults| panic!("{}: {faults:?}", home.id));
                assert!(plan.season.to > today, "{}", home.id);
            }
        }
    }
}
