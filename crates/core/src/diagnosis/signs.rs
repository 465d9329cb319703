//! The figures and the history of a tray that causes are judged by.

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::dli_mol_m2_d;
use crate::crops::GerminatesIn;
use crate::day::detail::Detail;
use crate::day::spot::spot_light;
use crate::day::view::{BayView, Looker};
use crate::learning::alive;
use crate::learning::estimate::median;
use crate::log::detail::{About, Measurement};
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::Tray;
use crate::season::how_many::viability;
use crate::season::{Reckoned, SowingDates};
use crate::warmth::mat::mat_under;

/// What is known of a tray on a day. What nobody reckoned or noted is `None`.
#[derive(Debug, Clone, PartialEq)]
pub struct Signs {
    /// Crop and variety in words.
    pub name: String,
    /// Days since half of it showed; `None` before.
    pub days_up: Option<f64>,
    /// Days since it was sown.
    pub sown_days: f64,
    /// Days from today until the first is due; negative once that day is past; `None` where none ever is.
    pub first_in_days: Option<f64>,
    /// Days since nine tenths were due; `None` before, and where they never are.
    pub overdue_days: Option<f64>,
    /// Daily light on it, in mol/m²/d.
    pub dli: Option<f64>,
    /// The least daily light that the crop wants.
    pub dli_low: f64,
    /// The most that it gains by.
    pub dli_high: f64,
    /// From the lamps to its leaves.
    pub gap_mm: Option<f64>,
    /// The least that the lamps' heat allows.
    pub least_gap_mm: f64,
    /// Whether a window alone lights it.
    pub window_only: bool,
    /// Days that it stood in the dark after the first showed.
    pub dark_days: f64,
    /// The mean of the air where it stands, in °C: as measured if it was, else as reckoned.
    pub air_c: f64,
    /// The coldest of the air, in °C.
    pub coldest_c: f64,
    /// The warmest that stands in the log or is reckoned, in °C.
    pub warmest_c: f64,
    /// The coldest air that the crop stands, in °C.
    pub least_air_c: f64,
    /// Relative humidity over it, 0 to 1.
    pub humidity: f64,
    /// The air's speed over it, in m/s.
    pub air_m_s: f64,
    /// The mix, in °C: as measured if it was, else as reckoned; the air's where nothing warms it.
    pub mix_c: f64,
    /// Whether a thermometer said so.
    pub mix_measured: bool,
    /// What suits the crop to germinate.
    pub wants_c: f64,
    /// The share of good seed that comes up at that mix.
    pub comes_up: f64,
    /// How far its leaves overlap its neighbours': over 1 they do.
    pub crowding: Option<f64>,
    /// The share of its cell that roots fill.
    pub cell_filled: Option<f64>,
    /// Days since it was watered; `None` where nobody noted it.
    pub watered_days: Option<f64>,
    /// Days that a watering lasts.
    pub lasts_days: Option<f64>,
    /// Waterings against what it uses, over a fortnight: over 1 is more than it dries; `None` where none was noted.
    pub watered_over: Option<f64>,
    /// Days since it was fed, or since its first true leaves where it never was; `None` before those.
    pub unfed_days: Option<f64>,
    /// The strongest feed, as a share of the label's; `None` where none was noted.
    pub strongest_feed: Option<f64>,
    /// Feeds in the last fortnight.
    pub feeds: u32,
    /// Days that its dome stayed on after a quarter showed.
    pub domed_days: f64,
    /// The share of its seed that is alive.
    pub alive: f64,
    /// Whether that was tested or counted.
    pub alive_known: bool,
    /// Whether its seed wants light, darkness, or neither.
    pub germinates_in: GerminatesIn,
    /// Whether light falls on it while it germinates.
    pub lit: bool,
    /// The darkest of its cells against their mean.
    pub evenness: Option<f64>,
    /// The share of it that its mat lies under; `None` without one.
    pub mat_cover: Option<f64>,
    /// Kinds that grow in it.
    pub kinds: usize,
    /// Days that it stood outdoors so far.
    pub outdoor_days: u32,
    /// Plants that were lost to cold, by the log.
    pub frosted: bool,
}

/// Days of history that count for water and feed.
const LATELY_DAYS: i32 = 14;
/// Days from half of it showing to its first true leaves.
const TRUE_LEAVES_DAYS: f64 = 10.0;

impl Signs {
    /// A tomato that does well a fortnight after it came up: what tests change.
    pub fn plain() -> Self {
        Self {
            name: "tomato".into(),
            days_up: Some(14.0),
            sown_days: 22.0,
            first_in_days: Some(-16.0),
            overdue_days: Some(10.0),
            dli: Some(14.0),
            dli_low: 12.0,
            dli_high: 20.0,
            gap_mm: Some(120.0),
            least_gap_mm: 50.0,
            window_only: false,
            dark_days: 0.0,
            air_c: 18.0,
            coldest_c: 16.0,
            warmest_c: 21.0,
            least_air_c: 8.0,
            humidity: 0.5,
            air_m_s: 0.3,
            mix_c: 18.0,
            mix_measured: false,
            wants_c: 24.0,
            comes_up: 0.95,
            crowding: Some(0.6),
            cell_filled: Some(0.3),
            watered_days: Some(1.0),
            lasts_days: Some(3.0),
            watered_over: Some(1.0),
            unfed_days: Some(4.0),
            strongest_feed: Some(0.25),
            feeds: 1,
            domed_days: 0.0,
            alive: 0.8,
            alive_known: true,
            germinates_in: GerminatesIn::Either,
            lit: false,
            evenness: Some(0.9),
            mat_cover: None,
            kinds: 1,
            outdoor_days: 0,
            frosted: false,
        }
    }

    /// Of `tray` on a day.
    pub fn of(reckoned: &Reckoned<'_>, told: &Told, tray: &Tray, on: Date) -> Self {
        let plan = reckoned.plan;
        let sowing = &plan.sowings[plan.sowing_index(&tray.parts[0].sowing)];
        let dates = &reckoned.dates[plan.sowing_index(&sowing.id)];
        let crop = plan.crop(sowing);
        let past = plan.happened().tray(&tray.id);
        let days = |from: Date| f64::from(days_between(from, on));
        let air = plan.site.room_air(None, on);
        let seed = viability(plan, sowing);
        let packet = plan.packet(sowing);
        let counted = packet.and_then(|packet| alive(reckoned, told, &packet.id));
        let sown = past.and_then(|past| past.sown).unwrap_or(dates.sow);
        let days_up = dates.emerge.map(days).filter(|days| *days >= 0.0);
        let mut kinds: Vec<&str> = tray.parts.iter().map(|part| part.sowing.as_str()).collect();
        kinds.sort_unstable();
        kinds.dedup();
        let mut signs = Self {
            name: dates.name.clone(),
            days_up,
            sown_days: days(sown),
            first_in_days: dates.first.map(|first| -days(first)),
            overdue_days: dates.last.map(days).filter(|days| *days >= 0.0),
            dli: None,
            dli_low: crop.dli_low_mol_m2_d,
            dli_high: crop.dli_high_mol_m2_d,
            gap_mm: None,
            least_gap_mm: 0.0,
            window_only: false,
            dark_days: 0.0,
            air_c: air.mean_c(),
            coldest_c: air.night_c.min(air.day_c),
            warmest_c: air.day_c.max(air.night_c),
            least_air_c: crop.least_air_c,
            humidity: air.humidity.unwrap_or(crate::air::USUAL_HUMIDITY),
            air_m_s: 0.0,
            mix_c: dates.root_zone_c,
            mix_measured: false,
            wants_c: crop.root_zone_c,
            comes_up: dates.comes_up,
            crowding: None,
            cell_filled: None,
            watered_days: None,
            lasts_days: None,
            watered_over: None,
            unfed_days: None,
            strongest_feed: None,
            feeds: 0,
            domed_days: 0.0,
            alive: counted.unwrap_or(seed.share),
            alive_known: counted.is_some()
                || packet.is_some_and(|p| p.test.is_some() || p.counted.is_some()),
            germinates_in: crop.germinates_in,
            lit: false,
            evenness: None,
            mat_cover: None,
            kinds: kinds.len(),
            outdoor_days: past.map_or(0, |past| past.hardened_days),
            frosted: false,
        };
        signs.stands(reckoned, tray, on);
        signs.lived(told, tray, dates, on);
        if signs.mix_measured {
            signs.comes_up = crop.curve().share(signs.mix_c);
        }
        if days_up.is_some_and(|days| days >= TRUE_LEAVES_DAYS) && signs.unfed_days.is_none() {
            signs.unfed_days = days_up.map(|days| days - TRUE_LEAVES_DAYS);
        }
        signs
    }

    /// What it has where it stands.
    fn stands(&mut self, reckoned: &Reckoned<'_>, tray: &Tray, on: Date) {
        let plan = reckoned.plan;
        let stage = reckoned.moments_of(tray).stage_on(on);
        let stand = stage.and_then(|stage| tray.stand_on(stage, on));
        let Some((stand, bay)) = stand.and_then(|s| Some((s, plan.bay_on(&s.bay, on)?))) else {
            return;
        };
        let views: Vec<BayView<'_>> =
            Looker::new(reckoned, Detail::Outline).look(bay.place_index, on);
        let Some(view) = views.get(bay.tier_index) else {
            return;
        };
        (self.air_c, self.coldest_c) = (view.mean_air_c(), view.coldest_air_c());
        self.warmest_c = 2.0 * self.air_c - self.coldest_c;
        let air = view.air();
        (self.humidity, self.air_m_s) = (air.humidity, air.far_end_m_s);
        self.least_gap_mm = bay.least_gap_mm();
        self.window_only =
            bay.tier.lamps.is_empty() && bay.place.has_daylight() && !bay.place.outdoors();
        self.lit = view.is_lit();
        let light = view.computed.light.as_ref();
        self.evenness = light.map(|light| light.evenness);
        let outline = stand.footprint(plan.format(tray));
        self.mat_cover = mat_under(bay.tier, &outline).map(|(_, cover)| cover);
        let roots = view
            .computed
            .roots()
            .iter()
            .find(|roots| roots.tray == tray.id);
        let Some(standing) = view.standing.iter().find(|s| s.tray.id == tray.id) else {
            return;
        };
        let water = roots.map_or_else(|| view.water_in_air(standing), |roots| roots.water);
        self.lasts_days = water.lasts_days;
        match roots {
            Some(roots) => self.mix_c = roots.day.mean_c,
            None if self.days_up.is_some() => self.mix_c = self.air_c,
            None => (),
        }
        if let Some(part) = standing.parts.first().filter(|part| part.plant.is_some()) {
            let (footprint, cells) = (&part.footprint, part.grid.0.max(1));
            let pitch = (footprint.x_mm[1] - footprint.x_mm[0]) / f64::from(cells);
            self.crowding = Some(part.spread_mm / pitch.max(1.0));
            let crop = plan.crop(part.sowing);
            let cell_ml = plan.format(tray).cell_ml;
            self.cell_filled = part
                .plant
                .map(|plant| plant.filled_ml(crop) / cell_ml.max(1.0));
            let band = part.light_band(plan, on);
            (self.dli_low, self.dli_high) = (band.low, band.high);
            if !bay.tier.lamps.is_empty() {
                let face = bay.lowest_overhead_mm();
                self.gap_mm = Some(face - part.canopy_mm);
            }
        }
        let middle = |edges: [f64; 2]| (edges[0] + edges[1]) / 2.0;
        let spot = (middle(outline.x_mm), middle(outline.y_mm));
        if bay.place.outdoors() {
            // Out of doors there is light enough.
            self.dli = Some(self.dli_high);
            return;
        }
        self.dli = if bay.tier.lamps.is_empty() || bay.place.has_daylight() {
            light.map(|light| light.dli.mean)
        } else {
            let (ppfd, _) = spot_light(reckoned, &bay, on, spot);
            Some(dli_mol_m2_d(ppfd, bay.tier.photoperiod_h))
        };
    }

    /// What was noted of it.
    fn lived(&mut self, told: &Told, tray: &Tray, dates: &SowingDates, on: Date) {
        let lately = plus_days(on, -LATELY_DAYS);
        let days = |from: Date| f64::from(days_between(from, on));
        let (mut soil, mut air) = (Vec::new(), Vec::new());
        let (mut waterings, mut moved) = (0u32, None);
        let mut dome_off = dates.last;
        for entry in told.of_tray(&tray.id).filter(|entry| entry.on <= on) {
            match &entry.fact {
                Some(Fact::Watered { .. }) => {
                    self.watered_days = Some(days(entry.on));
                    waterings += u32::from(entry.on > lately);
                }
                Some(Fact::Fed { strength, .. }) => {
                    self.unfed_days = Some(days(entry.on));
                    self.strongest_feed = Some(self.strongest_feed.unwrap_or(0.0).max(*strength));
                    self.feeds += u32::from(entry.on > lately);
                }
                Some(Fact::Moved { .. }) if moved.is_none() && Some(entry.on) >= dates.first => {
                    moved = Some(entry.on);
                }
                Some(Fact::Dome { dome, .. }) if *dome != crate::log::detail::Dome::On => {
                    dome_off = Some(entry.on);
                }
                Some(Fact::Lost { why, .. }) => {
                    self.frosted |= *why == crate::log::detail::Loss::Cold;
                }
                Some(Fact::Measured {
                    about: About::Tray(_),
                    reading,
                }) if entry.on > lately => match reading {
                    Measurement::SoilC(c) => soil.push(*c),
                    Measurement::AirC(c) => air.push(*c),
                    Measurement::Humidity(share) => self.humidity = *share,
                    _ => (),
                },
                _ => (),
            }
        }
        if !soil.is_empty() {
            (self.mix_c, self.mix_measured) = (median(soil), true);
        }
        if !air.is_empty() {
            self.warmest_c = air.iter().copied().fold(self.warmest_c, f64::max);
            self.coldest_c = air.iter().copied().fold(self.coldest_c, f64::min);
            self.air_c = median(air);
        }
        let fortnight = f64::from(LATELY_DAYS).min(self.sown_days.max(1.0));
        if let (Some(lasts), true) = (self.lasts_days, waterings > 0) {
            self.watered_over = Some(f64::from(waterings) * lasts / fortnight);
        }
        if let (Some(moved), Some(first)) = (moved, dates.first) {
            let dark = f64::from(days_between(first, moved));
            self.dark_days = dark.max(0.0);
        }
        if let (Some(off), Some(quarter)) = (dome_off, dates.quarter) {
            self.domed_days = f64::from(days_between(quarter, off.min(on))).max(0.0);
        }
    }
}
