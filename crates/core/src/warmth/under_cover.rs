//! The air under what covers a spot outdoors, by the day of the year.

use jiff::civil::Date;

use crate::basis::clock::DAY_H;
use crate::basis::dates::{days_between, plus_days};
use crate::light::daylight::cloudless_kwh_m2_d;
use crate::room::{Cover, CoverShape, Glazing, Opens, Place};
use crate::site::Site;
use crate::site::outdoors::{MonthAir, Year};
use crate::warmth::enclosed::{EnclosedAir, EnclosedDay, Heating, NightCover, Opening, Sun};
use crate::warmth::remembered::Remembered;
use crate::warmth::transfer::SURFACE_ACROSS_M2K_W;

/// What the weather is like.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Weather {
    /// As on the mean of days.
    Usual,
    /// Without a cloud, by day and by night.
    Clear,
    /// The same, and it freezes at night whatever is usual.
    Frost,
}

/// Air under a cover on a day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct UnderCover {
    /// Coolest of the day, in °C.
    pub least_c: f64,
    /// Mean of day and night, in °C.
    pub mean_c: f64,
    /// Warmest of the day, in °C.
    pub most_c: f64,
    /// Mean relative humidity, 0 to 1.
    pub humidity: f64,
    /// What its heater draws, in kWh a day.
    pub heating_kwh: f64,
}

/// What shapes a cover's heat: glass over each m² of ground, what its boards lose there in W/K, air that
/// leaks in an hour and passes when it is wide open, as changes of all of it, and how much of the sun on
/// level ground its ground gets.
struct Shape {
    glass: f64,
    boards_w_k: f64,
    leaks_per_h: f64,
    wide_per_h: f64,
    sun: f64,
}

/// Boards of 25 mm, dug in or banked up a third of the way, let so much through, in W/(m²·K) (ISO 6946,
/// wood of 0.13 W/(m·K): 2.8 of the rest).
const BOARDS_W_M2K: f64 = 1.9;
/// The sky that a cover looks at is colder than the air: so much of it counts, in K, as if all its air
/// were (ISO 13790, 11.3.5: R_se of 0.04 m²K/W times 5 W/(m²·K) times 11 K; from memory).
const SKY_K: f64 = 2.2;
/// A clear sky is so much colder than a usual one: twice as far below the air.
const CLEAR_SKY_K: f64 = 4.4;
/// A clear day is so much warmer than a usual one, and its night so much colder, in K (our own estimate).
const CLEAR_SWING_K: f64 = 3.0;
/// A night of frost is so cold at least.
const FROST_C: f64 = -1.0;
/// Moist soil stores so much down to where a day's warmth reaches, in J/(m²·K): 100 mm of 2.0 MJ/(m³·K)
/// (our own estimate).
const SOIL_J_M2K: f64 = 200_000.0;
/// And conducts so much from half a metre down, in W/(m²·K) (our own estimate: 1.2 W/(m·K)).
const GROUND_W_M2K: f64 = 2.4;
/// Half a metre down, the soil is as it was so many days ago (our own estimate).
const GROUND_LAGS_DAYS: i32 = 14;
/// Water stores so much, in J/(l·K), and its drums offer the air so many m² a litre.
const WATER_J_LK: f64 = 4186.0;
const WATER_M2_L: f64 = 0.01;
/// The share of the sun inside that stays there as heat (our own estimate).
const KEPT: f64 = 0.85;
/// And of that the share that falls on soil, trays and water.
const ON_STORE: f64 = 0.75;
/// So much of the ground gives off water as a wet surface would: half of it is mix and leaves, half as
/// wet (our own estimate).
const WET: f64 = 0.25;
/// A gardener, or an opener of wax, opens a cover from so much on, and wide so much later (common
/// practice, no source).
const OPENS_C: f64 = 18.0;
const OPENS_OVER_K: f64 = 6.0;
/// A cover that is open by day is open in these hours.
const BY_DAY: [f64; 2] = [9.0, 8.0];
/// A mat of straw is laid on at five and taken off at eight; straw of 40 mm (0.06 W/(m·K), our own
/// estimate).
const MAT: [f64; 2] = [17.0, 15.0];
const MAT_M2K_W: f64 = 0.67;
/// What a heater is made for: so much more than outdoors.
const HEATED_K: f64 = 25.0;

impl Glazing {
    /// Heat that it lets through, surfaces included, in W/(m²·K).
    ///
    /// Source: EN 673 for single and double glass (from memory: 5.8 and 2.8); twin wall, film and fleece
    /// our own estimates after what makers and greenhouse handbooks give.
    fn u_w_m2k(self) -> f64 {
        match self {
            Self::SingleGlass => 5.8,
            Self::DoubleGlass => 2.8,
            Self::TwinWall => 3.6,
            Self::Film => 6.5,
            Self::Fleece => 6.5,
        }
    }

    /// The share of the sun that passes, in the mean of all angles, dust and bars included (our own
    /// estimates).
    fn passes(self) -> f64 {
        match self {
            Self::SingleGlass => 0.80,
            Self::Fleece => 0.75,
            Self::DoubleGlass | Self::TwinWall => 0.70,
            Self::Film => 0.75,
        }
    }
}

impl Shape {
    /// Of `cover` on a ground of so many metres, so high; our own estimates after greenhouse handbooks.
    fn of(cover: &Cover, [width_m, depth_m, height_m]: [f64; 3]) -> Self {
        let ground_m2 = width_m * depth_m;
        let walls = 2.0 * (width_m + depth_m) * height_m / ground_m2;
        let shape = match cover.shape {
            CoverShape::Frame => Self {
                glass: 1.0,
                boards_w_k: BOARDS_W_M2K * walls,
                leaks_per_h: 2.0,
                wide_per_h: 40.0,
                sun: 1.0,
            },
            CoverShape::Greenhouse => Self {
                glass: 1.15 + walls,
                boards_w_k: 0.0,
                leaks_per_h: 1.5,
                wide_per_h: 30.0,
                sun: 1.2,
            },
            CoverShape::Tunnel => Self {
                glass: 1.6,
                boards_w_k: 0.0,
                leaks_per_h: 3.0,
                wide_per_h: 40.0,
                sun: 1.1,
            },
            // Shoulder to shoulder, and their caps off.
            CoverShape::Jugs => Self {
                glass: 2.0,
                boards_w_k: 0.0,
                leaks_per_h: 3.0,
                wide_per_h: 3.0,
                sun: 1.2,
            },
        };
        match cover.glazing {
            Glazing::Fleece => Self {
                leaks_per_h: 15.0,
                ..shape
            },
            _ => shape,
        }
    }
}

/// The air under the cover of `place`, as the solver takes it, on `date` of the `year` outdoors.
fn enclosed(
    site: &Site,
    year: &Year,
    (place, cover): (&Place, &Cover),
    date: Date,
    weather: Weather,
) -> EnclosedAir {
    let clear = weather != Weather::Usual;
    let [width_m, depth_m, height_m] =
        [place.width_mm, place.depth_mm, place.height_mm].map(|mm| mm / 1000.0);
    let ground_m2 = width_m * depth_m;
    // What slopes is half as high as its ridge.
    let volume_m3 = (ground_m2 * height_m * 0.8).max(0.01);
    let shape = Shape::of(cover, [width_m, depth_m, height_m]);
    let (u, glass_m2) = (cover.glazing.u_w_m2k(), shape.glass * ground_m2);
    let boards_w_k = shape.boards_w_k * ground_m2;
    let cover_w_k = u * glass_m2 + boards_w_k;
    let outdoors = year.on(date);
    let cloudless = || cloudless_kwh_m2_d(site.latitude_deg, date);
    let sun_kwh_m2 = match outdoors.sun_kwh_m2 {
        _ if clear => cloudless(),
        Some(kwh) => kwh,
        None => cloudless() * site.average_of_cloudless(),
    };
    let swing_k = if clear { CLEAR_SWING_K } else { 0.0 };
    let day_h = site.day_length_h(date);
    let opening = |from_c: f64, [from_h, hours]: [f64; 2]| Opening {
        wide_m3_h: shape.wide_per_h * volume_m3,
        from_c,
        over_k: OPENS_OVER_K,
        from_h,
        hours,
    };
    const NOON_H: f64 = 12.5;
    const ALWAYS_C: f64 = -20.0;
    EnclosedAir {
        volume_m3,
        cover_w_k,
        sky_k: if clear { CLEAR_SKY_K } else { SKY_K },
        night_cover: cover.night_mat.then(|| NightCover {
            cover_w_k: glass_m2 / (1.0 / u + MAT_M2K_W) + boards_w_k,
            from_h: MAT[0],
            hours: MAT[1],
        }),
        leak_m3_h: shape.leaks_per_h * volume_m3,
        opening: match cover.opens {
            Opens::Never => None,
            Opens::ByDay => Some(opening(ALWAYS_C, BY_DAY)),
            Opens::WhenWarm => Some(opening(OPENS_C, [0.0, DAY_H])),
        },
        ground_w_k: GROUND_W_M2K * ground_m2,
        ground_c: year.on(plus_days(date, -GROUND_LAGS_DAYS)).mean_c(),
        store_j_k: SOIL_J_M2K * ground_m2 + WATER_J_LK * cover.water_l,
        store_w_k: (ground_m2 + WATER_M2_L * cover.water_l) / SURFACE_ACROSS_M2K_W,
        sun: (day_h > 0.0).then(|| Sun {
            kwh: sun_kwh_m2
                * ground_m2
                * shape.sun
                * cover.glazing.passes()
                * KEPT
                * cover.sun_share.unwrap_or(1.0),
            rises_h: (NOON_H - day_h / 2.0).max(0.0),
            hours: day_h,
            on_store: ON_STORE,
        }),
        day_c: outdoors.day_c + swing_k,
        night_c: match weather {
            Weather::Frost => (outdoors.night_c - swing_k).min(FROST_C),
            _ => outdoors.night_c - swing_k,
        },
        humidity: outdoors.humidity,
        lamps: Vec::new(),
        heating: cover.heated_c.map(|set_c| Heating {
            set_c,
            under_k: 1.0,
            most_w: cover_w_k * HEATED_K,
        }),
        wet_m2: WET * ground_m2,
        dew_m2: glass_m2,
        dew_share: u * SURFACE_ACROSS_M2K_W,
    }
}

/// The day under the cover of `place` on `date` in such weather; `None` where nothing covers it.
pub fn day_under(site: &Site, place: &Place, date: Date, weather: Weather) -> Option<EnclosedDay> {
    let cover = place.cover()?;
    let set_up = enclosed(site, &site.year_outdoors(), (place, &cover), date, weather);
    set_up.day().ok()
}

/// All that the air under a cover depends on.
#[derive(PartialEq)]
struct Asked {
    latitude_deg: f64,
    of_cloudless: f64,
    last_frost: Date,
    months: Vec<MonthAir>,
    size_mm: [f64; 3],
    cover: Cover,
    date: Date,
    weather: Weather,
}

/// [`day_under`] in short, as it was reckoned before.
fn remembered(site: &Site, place: &Place, date: Date, weather: Weather) -> Option<UnderCover> {
    static KNOWN: Remembered<Asked, Option<UnderCover>> = Remembered::new();
    let asked = Asked {
        latitude_deg: site.latitude_deg,
        of_cloudless: site.average_of_cloudless(),
        last_frost: site.last_frost,
        months: site.months_outdoors().to_vec(),
        size_mm: [place.width_mm, place.depth_mm, place.height_mm],
        cover: place.cover()?,
        date,
        weather,
    };
    KNOWN.ask(asked, |_| {
        let day = day_under(site, place, date, weather)?;
        Some(UnderCover {
            least_c: day.least_c,
            mean_c: day.mean_c,
            most_c: day.most_c,
            humidity: day.humidity.iter().sum::<f64>() / day.humidity.len() as f64,
            heating_kwh: day.heating_kwh,
        })
    })
}

/// The air under the cover of `place` on `date` in such weather, read between the middles of the months;
/// `None` where nothing covers it.
pub fn under_cover(site: &Site, place: &Place, date: Date, weather: Weather) -> Option<UnderCover> {
    /// The middle of a month.
    const MIDDLE: i8 = 15;
    let own = date.with().day(MIDDLE).build().ok()?;
    let (before, after) = if date < own {
        (middle_of_next(own, -1), own)
    } else {
        (own, middle_of_next(own, 1))
    };
    let share = f64::from(days_between(before, date)) / f64::from(days_between(before, after));
    let on = |date| remembered(site, place, date, weather);
    let (a, b) = (on(before)?, on(after)?);
    let between = |of: fn(&UnderCover) -> f64| of(&a) + share * (of(&b) - of(&a));
    Some(UnderCover {
        least_c: between(|air| air.least_c),
        mean_c: between(|air| air.mean_c),
        most_c: between(|air| air.most_c),
        humidity: between(|air| air.humidity),
        heating_kwh: between(|air| air.heating_kwh),
    })
}

/// The same day of the month before or after.
fn middle_of_next(day: Date, months: i32) -> Date {
    let span = jiff::Span::new().months(months);
    day.checked_add(span).unwrap_or(day)
}
