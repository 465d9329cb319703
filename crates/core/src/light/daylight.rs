//! Daylight on a sill: the sun and the sky through a pane, hour by hour.

use std::f64::consts::TAU;

use jiff::civil::Date;

use super::angle::angle;
use crate::room::Window;
use crate::site::declination_rad;

/// Photons of 400-700 nm in a megajoule of daylight, in mol: 45 % of it at 4.57 µmol/J (from
/// memory: Thimijan & Heins 1983).
const MOL_PER_MJ: f64 = 0.45 * 4.57;
/// What double glazing lets through, frame and dust included (our own estimate).
const THROUGH_PANE: f64 = 0.7;
/// What an overcast sky leaves of a cloudless one (our own estimate).
const OVERCAST: f64 = 0.3;
/// Steps of the sum over a day.
const STEPS_PER_HOUR: u32 = 6;

/// The sun at a moment: unit vector to the east, to the north and up.
fn sun(latitude_deg: f64, date: Date, solar_hour: f64) -> [f64; 3] {
    let declination = declination_rad(date);
    let latitude = latitude_deg.to_radians();
    let hour_angle = (solar_hour - 12.0) * TAU / 24.0;
    let (sin_d, cos_d) = declination.sin_cos();
    let (sin_l, cos_l) = latitude.sin_cos();
    [
        -cos_d * hour_angle.sin(),
        cos_l * sin_d - sin_l * cos_d * hour_angle.cos(),
        sin_l * sin_d + cos_l * cos_d * hour_angle.cos(),
    ]
}

/// Irradiance of a level surface under a cloudless sky in W/m², the sun's altitude given by its
/// sine; 0 at night.
///
/// Source: Haurwitz 1945 (from memory), as general solar libraries have it.
fn cloudless_w_m2(sin_altitude: f64) -> f64 {
    if sin_altitude <= 0.0 {
        return 0.0;
    }
    1098.0 * sin_altitude * (-0.059 / sin_altitude).exp()
}

/// The sum over the steps of a day, `f` at solar hours, in its unit times seconds.
fn over_day(mut f: impl FnMut(f64) -> f64) -> f64 {
    let steps = 24 * STEPS_PER_HOUR;
    let seconds = 3600.0 / f64::from(STEPS_PER_HOUR);
    (0..steps)
        .map(|i| f((f64::from(i) + 0.5) / f64::from(STEPS_PER_HOUR)) * seconds)
        .sum()
}

/// Daily light on level ground under a cloudless sky, in mol/m²/d.
///
/// ```
/// use sunrise_core::light::daylight::cloudless_mol_m2_d;
/// let june = cloudless_mol_m2_d(52.9, jiff::civil::date(2027, 6, 21));
/// assert!((50.0..70.0).contains(&june));
/// ```
pub fn cloudless_mol_m2_d(latitude_deg: f64, date: Date) -> f64 {
    let joules = over_day(|hour| cloudless_w_m2(sun(latitude_deg, date, hour)[2]));
    joules * 1e-6 * MOL_PER_MJ
}

/// A pane and the sky before it.
#[derive(Debug, Clone, Copy)]
pub struct Sill<'a> {
    /// The window.
    pub window: &'a Window,
    /// Width of the sill, in whose middle the pane stands.
    pub width_mm: f64,
    /// From the front of the sill to the pane.
    pub depth_mm: f64,
    /// Degrees north.
    pub latitude_deg: f64,
    /// What an average day has of a cloudless day's light, 0 to 1.
    pub of_cloudless: f64,
}

impl Sill<'_> {
    /// Daily light in mol/m²/d on a leaf at (`x_mm`, `y_mm`) over the sill and `z_mm` above it, on
    /// a day of average cloud.
    ///
    /// Clear and overcast hours are mixed so that level ground outside gets its share of a
    /// cloudless day; the sky is evenly bright above what stands opposite.
    pub fn daily_mol_m2_d(&self, (x_mm, y_mm): (f64, f64), z_mm: f64, date: Date) -> f64 {
        let pane = self.window;
        let edges =
            [-1.0, 1.0].map(|side| (self.width_mm + side * pane.pane_width_mm) / 2.0 - x_mm);
        let away = (self.depth_mm - y_mm).max(1.0);
        let top = pane.pane_height_mm - z_mm;
        let horizon = pane.obstruction_deg.to_radians().tan();
        if top <= 0.0 {
            return 0.0;
        }
        let sky_share = sky_through(edges, [(away * horizon).min(top), top], away);
        let clear = ((self.of_cloudless - OVERCAST) / (1.0 - OVERCAST)).clamp(0.0, 1.0);
        let overcast = (1.0 - clear) * OVERCAST.min(self.of_cloudless);
        let azimuth = pane.azimuth_deg.to_radians();
        let joules = over_day(|hour| {
            let [east, north, up] = sun(self.latitude_deg, date, hour);
            if up <= 0.0 {
                return 0.0;
            }
            let all = cloudless_w_m2(up);
            // Of clear daylight an eighth comes from the sky, more as the sun sinks (estimate).
            let from_sky = all * (0.12 + 0.2 * (1.0 - up));
            // Out through the pane, and to the right as seen from the room.
            let out = east * azimuth.sin() + north * azimuth.cos();
            let right = east * azimuth.cos() - north * azimuth.sin();
            let mut light = (clear * from_sky + overcast * all) * sky_share;
            if out > 1e-6 {
                let (across, rise) = (away * right / out, away * up / out);
                let in_pane = (edges[0]..edges[1]).contains(&across) && rise < top;
                if in_pane && up / (1.0 - up * up).sqrt() > horizon {
                    light += clear * (all - from_sky);
                }
            }
            light
        });
        joules * 1e-6 * MOL_PER_MJ * THROUGH_PANE
    }

    /// The first day of the year of `date` from which the mean light over `points` stays at
    /// `wanted` mol/m²/d up to midsummer; `None` when it never is enough.
    pub fn enough_from(
        &self,
        points: &[(f64, f64)],
        z_mm: f64,
        wanted: f64,
        date: Date,
    ) -> Option<Date> {
        let south = self.latitude_deg < 0.0;
        let (first, last) = if south { (181, 364) } else { (0, 171) };
        let start = jiff::civil::date(date.year(), 1, 1);
        let day = |i: i32| crate::site::plus_days(start, i);
        let n = points.len().max(1) as f64;
        let enough = |i: i32| {
            let sum: f64 = points
                .iter()
                .map(|&point| self.daily_mol_m2_d(point, z_mm, day(i)))
                .sum();
            sum / n >= wanted
        };
        // A high sun misses the back of a sill: what counts is the rise out of winter.
        (first..=last).find(|&i| enough(i)).map(day)
    }
}

/// The share of an even sky that a level element sees through an upright opening at distance `a`,
/// with edges at `x` and from height `z`.
fn sky_through(x: [f64; 2], z: [f64; 2], a: f64) -> f64 {
    let corner = |x: f64, z: f64| {
        let s = (a * a + z * z).sqrt();
        -a / s * angle(x, s) / TAU
    };
    corner(x[1], z[1]) - corner(x[0], z[1]) - corner(x[1], z[0]) + corner(x[0], z[0])
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    fn south() -> Window {
        Window {
            azimuth_deg: 180.0,
            pane_width_mm: 1300.0,
            pane_height_mm: 1050.0,
            obstruction_deg: 12.0,
        }
    }

    fn sill(window: &Window) -> Sill<'_> {
        Sill {
            window,
            width_mm: 1400.0,
            depth_mm: 250.0,
            latitude_deg: 52.9,
            of_cloudless: 0.5,
        }
    }

    #[test]
    fn the_sun_stands_in_the_south_at_noon_and_rises_in_the_east() {
        let day = date(2027, 3, 21);
        let [east, north, up] = sun(52.9, day, 12.0);
        assert!(east.abs() < 1e-9 && north < -0.7);
        assert!((up - (90.0 - 52.9f64).to_radians().sin()).abs() < 0.01);
        let [east, _, up] = sun(52.9, day, 6.0);
        assert!(east > 0.99 && up.abs() < 0.01);
        // South of the equator it stands in the north.
        assert!(sun(-40.0, day, 12.0)[1] > 0.5);
    }

    #[test]
    fn a_south_pane_beats_the_others_and_the_pane_beats_the_room() {
        let day = date(2027, 3, 20);
        let middle = (700.0, 125.0);
        let by = |azimuth_deg: f64| {
            let window = Window {
                azimuth_deg,
                ..south()
            };
            sill(&window).daily_mol_m2_d(middle, 80.0, day)
        };
        assert!(by(180.0) > by(90.0) && by(90.0) > by(0.0));
        assert!((by(90.0) / by(270.0) - 1.0).abs() < 0.02);
        let window = south();
        let near = sill(&window).daily_mol_m2_d((700.0, 240.0), 80.0, day);
        assert!(near > by(180.0));
        let taller = Window {
            obstruction_deg: 40.0,
            ..south()
        };
        assert!(sill(&taller).daily_mol_m2_d(middle, 80.0, day) < 0.6 * by(180.0));
    }

    #[test]
    fn a_sill_never_gets_more_than_the_ground_outside() {
        let window = south();
        for month in 1..=12 {
            let day = date(2027, month, 15);
            let outside = 0.5 * cloudless_mol_m2_d(52.9, day);
            let inside = sill(&window).daily_mol_m2_d((700.0, 200.0), 60.0, day);
            assert!(
                inside > 0.0 && inside < outside * THROUGH_PANE,
                "{month}: {inside}"
            );
        }
    }

    #[test]
    fn it_is_enough_from_a_day_in_spring_or_never() {
        let window = south();
        let points = [(400.0, 125.0), (700.0, 125.0), (1000.0, 125.0)];
        let from = sill(&window).enough_from(&points, 80.0, 5.0, date(2027, 5, 1));
        let from = from.expect("a south sill is bright some day");
        assert!(
            (date(2027, 1, 15)..date(2027, 5, 1)).contains(&from),
            "{from}"
        );
        let never = sill(&window).enough_from(&points, 80.0, 40.0, date(2027, 5, 1));
        assert_eq!(never, None);
    }
}
