//! Daylight on a sill: the sun and the sky through a pane, hour by hour.

use std::f64::consts::TAU;

use jiff::civil::Date;

use crate::light::angle::angle;
use crate::light::pane::{passes, passes_of_sky};
use crate::room::{Bay, Window};
use crate::site::{Site, declination_rad};

/// Photons of 400-700 nm in a megajoule of daylight, in mol: 45 % of it at 4.57 µmol/J (from
/// memory: Thimijan & Heins 1983).
const MOL_PER_MJ: f64 = 0.45 * 4.57;
/// What an overcast sky leaves of a cloudless one (our own estimate).
const OVERCAST: f64 = 0.3;
/// Steps of the sum over a day.
const STEPS_PER_HOUR: u32 = 6;

/// The sun's path over a place on a day.
struct Sun {
    declination: [f64; 2],
    latitude: [f64; 2],
}

impl Sun {
    fn new(latitude_deg: f64, date: Date) -> Self {
        Self {
            declination: declination_rad(date).sin_cos().into(),
            latitude: latitude_deg.to_radians().sin_cos().into(),
        }
    }

    /// Where it stands at a solar hour: unit vector to the east, to the north and up.
    fn at(&self, solar_hour: f64) -> [f64; 3] {
        let ([sin_d, cos_d], [sin_l, cos_l]) = (self.declination, self.latitude);
        let (sin_h, cos_h) = ((solar_hour - 12.0) * TAU / 24.0).sin_cos();
        [
            -cos_d * sin_h,
            cos_l * sin_d - sin_l * cos_d * cos_h,
            sin_l * sin_d + cos_l * cos_d * cos_h,
        ]
    }
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

/// The sun above the horizon at even steps through a day: where it stands, and the light of a
/// level surface under a cloudless sky in W/m².
fn day_steps(latitude_deg: f64, date: Date) -> impl Iterator<Item = ([f64; 3], f64)> {
    let sun = Sun::new(latitude_deg, date);
    let steps = 24 * STEPS_PER_HOUR;
    (0..steps)
        .map(move |i| sun.at((f64::from(i) + 0.5) / f64::from(STEPS_PER_HOUR)))
        .filter(|sun| sun[2] > 0.0)
        .map(|sun| (sun, cloudless_w_m2(sun[2])))
}

/// Photons of 400-700 nm in mol/m² that a step of so many W/m² brings.
fn step_mol_m2(w_m2: f64) -> f64 {
    w_m2 * 3600.0 / f64::from(STEPS_PER_HOUR) * 1e-6 * MOL_PER_MJ
}

/// Daily light on level ground under a cloudless sky, in mol/m²/d.
///
/// `latitude_deg` from -90 to 90, north positive. The clear-sky irradiance of Haurwitz, B.: Insolation
/// in relation to cloudiness and cloud density, Journal of Meteorology 2, 1945 (from memory), summed
/// over the day in steps of ten minutes; 45 % of it is PAR, at 4.57 µmol/J (Thimijan, R. W., and R. D.
/// Heins: Photometric, radiometric, and quantum light units of measure, HortScience 18, 1983; from
/// memory).
///
/// ```
/// use sunrise_core::light::daylight::cloudless_mol_m2_d;
/// let june = cloudless_mol_m2_d(52.9, jiff::civil::date(2027, 6, 21));
/// assert!((50.0..70.0).contains(&june));
/// ```
pub fn cloudless_mol_m2_d(latitude_deg: f64, date: Date) -> f64 {
    let steps = day_steps(latitude_deg, date);
    steps.map(|(_, w_m2)| step_mol_m2(w_m2)).sum()
}

/// What the sun sends on level ground under a cloudless sky, in kWh/m² a day; see
/// [`cloudless_mol_m2_d`].
pub fn cloudless_kwh_m2_d(latitude_deg: f64, date: Date) -> f64 {
    let steps = day_steps(latitude_deg, date);
    let hours = 1.0 / f64::from(STEPS_PER_HOUR);
    steps.map(|(_, w_m2)| w_m2 * hours / 1000.0).sum()
}

/// A pane and the sky before it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sill {
    /// The window.
    pub window: Window,
    /// Width of the sill, in whose middle the pane stands.
    pub width_mm: f64,
    /// From the front of the sill to the pane.
    pub depth_mm: f64,
    /// Degrees north.
    pub latitude_deg: f64,
    /// What an average day has of a cloudless day's light, 0 to 1.
    pub of_cloudless: f64,
}

/// A sill on a day of average cloud.
#[derive(Debug)]
pub struct SillDay {
    sill: Sill,
    /// Light of the sky on a level surface behind the pane, in mol/m²/d.
    sky: f64,
    /// The steps of the day at which the sun stands before the pane and over what is opposite.
    sunny: Vec<Sunny>,
}

/// The sun as a pane sees it, at a step of a day.
#[derive(Debug)]
struct Sunny {
    /// How far to the right as seen from the room, and up, it stands for each step out through the pane.
    right: f64,
    rise: f64,
    /// Its own light on a level surface behind the pane, and through each m² of it, in mol/m².
    beam: f64,
    through: f64,
}

impl Sill {
    /// The pane before `bay`, when it is a window's.
    pub fn before(bay: &Bay<'_>, site: &Site) -> Option<Self> {
        Some(Self {
            window: *bay.place.window()?,
            width_mm: bay.place.width_mm,
            depth_mm: bay.place.depth_mm,
            latitude_deg: site.latitude_deg,
            of_cloudless: site.average_of_cloudless(),
        })
    }

    /// The sill on a day of average cloud.
    ///
    /// Clear and overcast hours are mixed so that level ground outside gets its share of a
    /// cloudless day; the sky is evenly bright above what stands opposite.
    pub fn on(&self, date: Date) -> SillDay {
        let clear = ((self.of_cloudless - OVERCAST) / (1.0 - OVERCAST)).clamp(0.0, 1.0);
        let overcast = (1.0 - clear) * OVERCAST.min(self.of_cloudless);
        let (sin_a, cos_a) = self.window.azimuth_deg.to_radians().sin_cos();
        let horizon = self.window.obstruction_deg.to_radians().tan();
        let from_the_sky = passes_of_sky();
        let (mut sky, mut sunny) = (0.0, Vec::new());
        for ([east, north, up], w_m2) in day_steps(self.latitude_deg, date) {
            let all = step_mol_m2(w_m2);
            // Of clear daylight an eighth comes from the sky, more as the sun sinks (estimate).
            let from_sky = all * (0.12 + 0.2 * (1.0 - up));
            sky += (clear * from_sky + overcast * all) * from_the_sky;
            let out = east * sin_a + north * cos_a;
            if out > 1e-6 && up / (1.0 - up * up).sqrt() > horizon {
                let beam = clear * (all - from_sky) * passes(out);
                sunny.push(Sunny {
                    right: (east * cos_a - north * sin_a) / out,
                    rise: up / out,
                    beam,
                    through: beam * out / up,
                });
            }
        }
        SillDay {
            sill: *self,
            sky,
            sunny,
        }
    }
}

impl SillDay {
    /// Daily light that passes a m² of the pane, in mol/m²/d: the sun's while it stands over what is opposite,
    /// and that of the half of the sky which the pane sees.
    pub fn through_pane_mol_m2_d(&self) -> f64 {
        let through = self.sunny.iter().map(|sunny| sunny.through);
        through.sum::<f64>() + self.sky / 2.0
    }

    /// Daily light in mol/m²/d on a leaf at (`x_mm`, `y_mm`) over the sill and `z_mm` above it.
    ///
    /// The sun's own light counts while it shines through the pane onto the leaf; the sky's by the share
    /// of its half that is seen through the pane, trees and houses opposite taken off.
    pub fn mol_m2_d(&self, (x_mm, y_mm): (f64, f64), z_mm: f64) -> f64 {
        let Sill {
            window: pane,
            width_mm,
            depth_mm,
            ..
        } = self.sill;
        let edges = [-1.0, 1.0].map(|side| (width_mm + side * pane.pane_width_mm) / 2.0 - x_mm);
        let away = (depth_mm - y_mm).max(1.0);
        let top = pane.pane_height_mm - z_mm;
        if top <= 0.0 {
            return 0.0;
        }
        let horizon = pane.obstruction_deg.to_radians().tan();
        let sky_share = sky_through(edges, [(away * horizon).min(top), top], away);
        let reaches = |sunny: &&Sunny| {
            (edges[0]..edges[1]).contains(&(away * sunny.right)) && away * sunny.rise < top
        };
        let sunny = self.sunny.iter().filter(reaches);
        self.sky * sky_share + sunny.map(|sunny| sunny.beam).sum::<f64>()
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

    fn sill(window: Window) -> Sill {
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
        let [east, north, up] = Sun::new(52.9, day).at(12.0);
        assert!(east.abs() < 1e-9 && north < -0.7);
        assert!((up - (90.0 - 52.9f64).to_radians().sin()).abs() < 0.01);
        let [east, _, up] = Sun::new(52.9, day).at(6.0);
        assert!(east > 0.99 && up.abs() < 0.01);
        // South of the equator it stands in the north.
        assert!(Sun::new(-40.0, day).at(12.0)[1] > 0.5);
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
            sill(window).on(day).mol_m2_d(middle, 80.0)
        };
        assert!(by(180.0) > by(90.0) && by(90.0) > by(0.0));
        assert!((by(90.0) / by(270.0) - 1.0).abs() < 0.02);
        let window = south();
        let near = sill(window).on(day).mol_m2_d((700.0, 240.0), 80.0);
        assert!(near > by(180.0));
        let taller = Window {
            obstruction_deg: 40.0,
            ..south()
        };
        assert!(sill(taller).on(day).mol_m2_d(middle, 80.0) < 0.6 * by(180.0));
    }

    #[test]
    fn a_sill_never_gets_more_than_the_ground_outside() {
        let window = south();
        for month in 1..=12 {
            let day = date(2027, month, 15);
            let outside = 0.5 * cloudless_mol_m2_d(52.9, day);
            let inside = sill(window).on(day).mol_m2_d((700.0, 200.0), 60.0);
            assert!(
                inside > 0.0 && inside < outside * passes(1.0),
                "{month}: {inside}"
            );
        }
    }
}
