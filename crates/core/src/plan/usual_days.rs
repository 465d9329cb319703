//! When a sowing goes out in an ordinary year: counted from the last frost, or back from the first one.

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::DAYS_PER_WEEK;
use crate::basis::words::say;
use crate::crops::Crop;
use crate::plan::document::Plan;
use crate::plan::sowing::Sowing;

/// The days of autumn are short: what is raised for it takes so much longer than in spring (growers' usual
/// practice: a fortnight is added).
const SHORT_DAYS: i32 = 14;
/// What bears no frost is to be ready so long before the first one, to be picked for a while (our own
/// estimate).
const PICKED_DAYS: i32 = 14;

fn days(weeks: f64) -> i32 {
    (weeks * DAYS_PER_WEEK).round() as i32
}

impl Plan {
    /// The day on which `sowing` of `crop` goes out in an ordinary year.
    pub fn usually_out(&self, sowing: &Sowing, crop: &Crop) -> Date {
        if !sowing.autumn {
            return plus_days(self.site.last_frost, days(crop.weeks_after_last_frost));
        }
        plus_days(self.ready_by(crop), -ready_days(crop))
    }

    /// The day by which `crop` is to be ready that is raised for the autumn: the first frost, or a while before
    /// it where it bears none.
    pub fn ready_by(&self, crop: &Crop) -> Date {
        let before = if bears_frost(crop) { 0 } else { PICKED_DAYS };
        plus_days(self.site.first_frost_day().day, -before)
    }

    pub(super) fn check_first_frost(&self, root: &Pointer, faults: &mut Faults) {
        /// Days after the last frost between which the first one comes.
        const AFTER_DAYS: [i32; 2] = [50, 350];
        let Some(day) = self.site.first_frost else {
            return;
        };
        let [first, last] = AFTER_DAYS.map(|days| plus_days(self.site.last_frost, days));
        if !(first..=last).contains(&day) {
            faults.add(
                &root.at("site").at("first_frost"),
                day,
                say!(
                    "a first frost on {day} is not of the autumn after this spring",
                    day = day
                ),
                say!(
                    "give a day from {first} to {last}",
                    first = first,
                    last = last
                ),
            );
        }
    }
}

/// Days from planting out until `crop` is ready in autumn.
pub fn ready_days(crop: &Crop) -> i32 {
    days(crop.ready_weeks) + SHORT_DAYS
}

/// Whether it stands in the bed through frosts once it is grown.
pub fn bears_frost(crop: &Crop) -> bool {
    crop.least_air_c <= 0.0 && crop.weeks_after_last_frost < 0.0
}

#[cfg(test)]
mod tests {
    use crate::basis::dates::days_between;
    use crate::testing::{dates_of, kettle_fen, reckoned};
    use jiff::civil::date;

    #[test]
    fn autumn_is_counted_back_from_the_first_frost() {
        let plan = kettle_fen(|plan| {
            plan.site.first_frost = Some(date(2027, 10, 12));
            let mut kale = crate::plan::Sowing::plain("autumn-kale", "kale", "", 12);
            kale.autumn = true;
            let mut beans = kale.clone();
            (beans.id, beans.crop) = ("beans".into(), "runner-and-french-bean".into());
            plan.sowings.extend([kale, beans]);
            plan.season.to = date(2027, 10, 31);
        });
        let all = reckoned(&plan);
        let (kale, beans) = (dates_of(&all, "autumn-kale"), dates_of(&all, "beans"));
        let crop = plan.find_crop("kale").unwrap();
        let ready = (crop.ready_weeks * 7.0) as i32 + 14;
        assert_eq!(days_between(kale.out, date(2027, 10, 12)), ready);
        assert!(kale.sow > date(2027, 6, 1) && kale.sow < kale.out);
        // Beans bear no frost: they are picked before it.
        let crop = plan.find_crop("runner-and-french-bean").unwrap();
        let ready = (crop.ready_weeks * 7.0) as i32 + 28;
        assert_eq!(days_between(beans.out, date(2027, 10, 12)), ready);
        // What is raised for the summer goes by the last frost as ever.
        let spring = kettle_fen(|_| ());
        assert_eq!(
            dates_of(&reckoned(&spring), "tomato").out,
            dates_of(&all, "tomato").out
        );
    }
}
