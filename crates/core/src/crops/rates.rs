//! Rates at which seed comes on, hour by hour, summed until it shows.

/// So many hours are a day.
pub(super) const HOURS: usize = 24;

/// The mean of `values`.
pub(super) fn mean(values: &[f64]) -> f64 {
    values.iter().sum::<f64>() / values.len() as f64
}

/// Whether seed with these rates shows at all: slower than a year is never, the mix has long since gone sour.
pub(super) fn comes_up(rates: &[f64]) -> bool {
    mean(rates) > 1.0 / 365.0
}

/// Days until the summed rate has reached `wanted`, with so much of it in each hour, day after day; some of
/// it must be more than 0.
pub(super) fn until(wanted: f64, rate: &[f64]) -> f64 {
    let n = rate.len();
    let (a_day, days) = (n.min(HOURS) as f64, (n as f64 / HOURS as f64).max(1.0));
    let all: f64 = rate.iter().sum::<f64>() / a_day;
    // All that is known over and over, then the hours of the last time.
    let times = (wanted / all).floor();
    let mut left = wanted - times * all;
    for (i, rate) in rate.iter().enumerate() {
        let hour = rate / a_day;
        if left <= hour && hour > 0.0 {
            return times * days + (i as f64 + left / hour) / a_day;
        }
        left -= hour;
    }
    (times + 1.0) * days
}

/// The hours of `bed_c`, one day or many, until seed that takes so many days is up: whole days.
pub fn until_up(bed_c: &[f64], days: Option<f64>) -> &[f64] {
    let days = days.map(|days| days.ceil().max(1.0) as usize);
    let hours = days.map_or(bed_c.len(), |days| days * HOURS);
    &bed_c[..hours.min(bed_c.len())]
}
