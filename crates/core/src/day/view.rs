//! Looking at bays date by date, step by step: who stands there, what reaches them, what comes of it.

use std::cell::OnceCell;
use std::sync::Arc;

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::day::air::{BayAir, FanChoice, bay_air};
use crate::day::bay::{BayDetail, BayOnDay};
use crate::day::cell_light::{CellLight, FromAbove, PartLight};
use crate::day::closed_air::ClosedAir;
use crate::day::detail::Detail;
use crate::day::draws;
use crate::day::fits::bay_fits;
use crate::day::hang::{DAYS_AHEAD, hang};
use crate::day::harm::{Harm, Harmed};
use crate::day::light::{BayLight, LightWhy, enough_from};
use crate::day::load::DeckLoad;
use crate::day::power::power_why;
use crate::day::root_zones::{Here, TrayRoots, Whose};
use crate::day::sill::SillYear;
use crate::day::standing::{Standing, StandingPart, burns, parts, standing_in, tallest_leaves};
use crate::day::trays::{TrayOnDay, mean_ppfd, trays};
use crate::day::water::TrayWater;
use crate::lamps::start::Start;
use crate::light::colour::Colour;
use crate::light::daylight::Sill;
use crate::plan::SoundPlan;
use crate::power::{Power, drawn_w};
use crate::room::{Bay, LOWEST_FACE_MM, Place};
use crate::season::Reckoned;
use crate::season::root_zone::Beds;
use crate::site::air::Air;
use crate::space::decks::Fits;
use crate::warmth::around::air_around;
use crate::warmth::chamber::ShelfDay;
use crate::warmth::root_zone::{Mix, evaporation_kg_m2_d};

/// A bay on a date with all that judgements look at.
#[derive(Debug)]
pub struct BayView<'a> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// The bay.
    pub bay: Bay<'a>,
    /// The day.
    pub date: Date,
    /// The trays there.
    pub standing: Vec<Standing<'a>>,
    /// How many trays stand on the tier above.
    pub trays_above: usize,
    reckoned: &'a Reckoned<'a>,
    /// The cells that stretch, and those that bleach.
    harmed: [Option<Harmed>; 2],
    /// The air around its place.
    pub around: Air,
    /// The closed air that the bay shares; `None` in the open, and while nothing germinates there.
    pub closed: Option<Arc<ClosedAir>>,
    /// See [`Self::air`]: reckoned when somebody asks.
    air: OnceCell<BayAir>,
    /// What was computed.
    pub computed: BayOnDay,
}

impl BayView<'_> {
    /// The air over the trays.
    pub fn air(&self) -> &BayAir {
        let reckon = || bay_air(&self.bay, &self.around, self.closed.as_deref());
        self.air.get_or_init(reckon)
    }

    /// Whether light falls here on the day, from lamps or from elsewhere.
    pub fn is_lit(&self) -> bool {
        /// Less daily light than this is dark, in mol/m²/d (our own estimate).
        const DARK_MOL_M2_D: f64 = 0.1;
        let light = self.computed.light.as_ref();
        self.computed.burning || light.is_some_and(|light| light.dli.mean > DARK_MOL_M2_D)
    }

    /// The day of the closed air that it is in; `None` in the open.
    pub fn shelf_air(&self) -> Option<&ShelfDay> {
        self.closed.as_ref()?.shelf_of(self.bay.tier_index)
    }

    /// The mean of the air through the day and night, in °C.
    pub fn mean_air_c(&self) -> f64 {
        self.shelf_air()
            .map_or(self.around.mean_c(), |shelf| shelf.mean_c)
    }

    /// The coldest of the air, in °C.
    pub fn coldest_air_c(&self) -> f64 {
        let air = &self.around;
        self.shelf_air()
            .map_or(air.night_c.min(air.day_c), |shelf| shelf.least_c)
    }

    /// Every part of every tray here.
    pub fn parts(&self) -> impl Iterator<Item = (&Standing<'_>, &StandingPart<'_>)> {
        parts(&self.standing)
    }

    /// The parts in which seedlings are up.
    pub fn growing(&self) -> impl Iterator<Item = (&Standing<'_>, &StandingPart<'_>)> {
        self.parts().filter(|(_, part)| part.is_growing())
    }

    /// What an open tray drinks in this air, with nothing that warms it.
    pub fn water_in_air(&self, s: &Standing<'_>) -> TrayWater {
        let (wetness, air) = (Mix::default().wetness, self.air());
        let gives = evaporation_kg_m2_d(air.vpd_kpa, wetness, air.over_deck_m_s);
        TrayWater::of(s.format, gives)
    }

    /// On a sill: the day of the year from which daylight alone is enough; `None` when it never is.
    pub fn daylight_enough_from(&self) -> Option<Date> {
        let target = self.computed.light.as_ref()?.target;
        enough_from(self.reckoned, &self.bay, self.date, &self.standing, target)
    }

    /// The cells that come to `harm`.
    pub fn harmed(&self, harm: Harm) -> Option<&Harmed> {
        self.harmed[harm as usize].as_ref()
    }

    /// The fans that would stir the leaves at the far end; empty where they are stirred.
    pub fn fans(&self) -> Vec<FanChoice> {
        let closed = self.closed.is_some();
        let air = self.air().clone();
        air.with_fans(self.plan, &self.bay, closed).fans
    }

    /// When the lamps had best go on for the hours that they burn now.
    pub fn best_start(&self) -> Start {
        let (wiring, site) = (&self.plan.wiring, &self.plan.site);
        self.reckoned.starts.best_of(self.bay.tier, wiring, site)
    }

    /// The greatest of the lamps' least gaps.
    pub fn least_gap_mm(&self) -> f64 {
        self.bay.least_gap_mm()
    }

    /// The tray and part whose leaves reach highest; while nothing is up, the highest rim.
    pub fn tallest(&self) -> Option<(&Standing<'_>, &StandingPart<'_>)> {
        tallest_leaves(&self.standing)
    }
}

/// Looks at bays date by date, keeping what does not change from one date to the next.
#[derive(Debug)]
pub struct Looker<'a> {
    pub(super) reckoned: &'a Reckoned<'a>,
    detail: Detail,
    fits: Fits,
    pub(super) light: CellLight<'a>,
    beds: Beds<'a>,
}

/// A bay, who stands there, and what bears on it from outside.
pub(super) struct Scene<'a> {
    pub(super) bay: Bay<'a>,
    date: Date,
    pub(super) standing: Vec<Standing<'a>>,
    /// Whether its lists are wanted.
    detailed: bool,
    /// Hours that its lamps burn that day.
    pub(super) lit_h: f64,
    /// How many trays stand on the tier above.
    trays_above: usize,
    /// The light that the deck above lets down.
    pub(super) from_above: Option<FromAbove>,
    /// The closed air that it is in, when it was asked for.
    closed: Option<Arc<ClosedAir>>,
}

impl<'a> Looker<'a> {
    /// Looks at what is `reckoned`, in so much `detail`.
    pub fn new(reckoned: &'a Reckoned<'a>, detail: Detail) -> Self {
        Self {
            reckoned,
            detail,
            fits: Fits::default(),
            light: CellLight::new(reckoned),
            beds: reckoned.beds(),
        }
    }

    /// Every bay of `place` on `date`, from the lowest up.
    pub fn look(&mut self, place_index: usize, date: Date) -> Vec<BayView<'a>> {
        let scenes = self.scenes(place_index, date);
        scenes.into_iter().map(|scene| self.view(scene)).collect()
    }

    /// Every bay of `place` on `date` with what bears on it.
    pub(super) fn scenes(&mut self, place_index: usize, date: Date) -> Vec<Scene<'a>> {
        let place = self.reckoned.plan.place_on(place_index, date);
        // 1. Who stands there.
        let bays: Vec<Bay<'a>> = place.bays(place_index).collect();
        let standing: Vec<Vec<Standing<'a>>> = bays
            .iter()
            .map(|bay| standing_in(self.reckoned, bay, date))
            .collect();
        // 2. What bears on each bay from outside it.
        let from_above: Vec<Option<FromAbove>> = (0..bays.len())
            .map(|i| {
                let (above, there) = (bays.get(i + 1)?, standing.get(i + 1)?);
                (!standing[i].is_empty())
                    .then(|| self.light.through_the_deck_above(above, there))
                    .flatten()
            })
            .collect();
        let closed = self.closed_air(place, &bays, &standing, date);
        let above: Vec<usize> = standing.iter().skip(1).map(Vec::len).chain([0]).collect();
        // 3. Each bay by itself.
        let scenes = bays.into_iter().zip(standing).enumerate();
        scenes
            .map(|(i, (bay, standing))| Scene {
                detailed: self.detail.wants(&bay),
                lit_h: self.lit_h(&bay, &standing),
                trays_above: above[i],
                from_above: from_above[i],
                closed: closed[i].clone(),
                bay,
                date,
                standing,
            })
            .collect()
    }

    /// The closed air that each of `bays` is in, where somebody wants to know.
    fn closed_air(
        &self,
        place: &Place,
        bays: &[Bay<'a>],
        standing: &[Vec<Standing<'a>>],
        date: Date,
    ) -> Vec<Option<Arc<ClosedAir>>> {
        let coming_up = |s: &Standing<'_>| s.coming_up;
        let wanted = bays.iter().any(|bay| self.detail.wants(bay))
            || standing.iter().flatten().any(coming_up);
        let mut closed: Vec<Option<Arc<ClosedAir>>> = vec![None; bays.len()];
        let mut index = 0;
        while wanted && index < bays.len() {
            let shared = place.shares_air(index).unwrap_or(index..index + 1);
            let plan = self.reckoned.plan;
            let around = air_around(&plan.site, place, date);
            let air = ClosedAir::around(plan, place, index, standing, around).map(Arc::new);
            closed[shared.clone()].fill(air);
            index = shared.end;
        }
        closed
    }

    fn lit_h(&self, bay: &Bay<'_>, standing: &[Standing<'_>]) -> f64 {
        if burns(bay, standing) {
            bay.tier.photoperiod_h
        } else {
            0.0
        }
    }

    fn view(&mut self, scene: Scene<'a>) -> BayView<'a> {
        let (reckoned, plan) = (self.reckoned, self.reckoned.plan);
        let (bay, date, standing) = (&scene.bay, scene.date, &scene.standing[..]);
        let detailed = scene.detailed;
        let burning = scene.lit_h > 0.0;
        // 1. The light on each cell, and on all of them.
        let lights = self
            .light
            .part_lights(bay, standing, (scene.from_above, scene.lit_h), date);
        let mut trays = trays(plan, standing, &lights, date);
        let light = (!lights.is_empty())
            .then(|| BayLight::of(reckoned, bay, date, standing, &trays, &lights, detailed));
        // 2. The warmth and water of each root zone.
        let ppfd = mean_ppfd(&trays, burning);
        let around = air_around(&plan.site, bay.place, date);
        let deck_ppfd = if burning {
            self.beds.deck_ppfd(bay, date)
        } else {
            0.0
        };
        let here = Here {
            reckoned,
            deck_ppfd,
            bay,
            standing,
            ppfd: &ppfd,
            around: &around,
            closed: scene.closed.as_deref(),
            detailed,
        };
        let whose = self.whose(&scene);
        let mut roots = here.trays_as_it_goes(whose, &mut self.beds, date);
        let (occupied, mats) = (
            draws::fans_run(reckoned, bay, standing, date),
            here.mats_on(),
        );
        let draws = draws::of_bay(bay, burning, occupied, &mats, here.closed);
        // 3. What harms, and how the lamps would hang best.
        let harmed =
            [Harm::Stretched, Harm::Bleached].map(|harm| self.harmed(harm, &scene, &lights));
        let hang = (!bay.tier.lamps.is_empty() && self.detail.wants_trays())
            .then(|| hang(reckoned, bay, date, standing, &lights, detailed))
            .flatten();
        // 4. What only its own sheet shows.
        let detail = detailed.then(|| Box::new(self.detail(&scene, &around, light.as_ref())));
        // 5. Lists that nobody asked for would swell the answer.
        if !detailed {
            trays.iter_mut().for_each(TrayOnDay::in_outline);
            roots.iter_mut().for_each(TrayRoots::in_outline);
        }
        let top_mm = standing.iter().map(Standing::top_mm).reduce(f64::max);
        let computed = BayOnDay {
            bay: bay.reference(),
            name: bay.name(),
            clear_height_mm: bay.clear_height_mm(),
            deck_range_mm: bay.place.deck_range_mm(bay.tier_index),
            lowest_face_mm: LOWEST_FACE_MM,
            highest_face_mm: bay.highest_face_mm(),
            burning,
            light,
            hang,
            trays: Some(trays),
            headroom_mm: top_mm.map(|top| bay.lowest_overhead_mm() - top),
            load: DeckLoad::of(bay.place, standing),
            roots: Some(roots),
            burns: Start::of(bay.tier.burning(), drawn_w(bay.tier), &plan.site),
            power: Power::of(&draws, &plan.site, date),
            draws,
            detail,
        };
        BayView {
            plan,
            bay: scene.bay,
            date,
            standing: scene.standing,
            trays_above: scene.trays_above,
            reckoned,
            harmed,
            around,
            closed: scene.closed,
            air: OnceCell::new(),
            computed,
        }
    }

    fn detail(&mut self, scene: &Scene<'_>, around: &Air, light: Option<&BayLight>) -> BayDetail {
        let plan = self.reckoned.plan;
        let (bay, standing) = (&scene.bay, &scene.standing[..]);
        let closed = scene.closed.as_deref();
        let mean_ppfd = light.map_or(0.0, |light| light.ppfd.mean);
        BayDetail {
            fits: bay_fits(plan, bay, standing, &mut self.fits),
            air: (!bay.place.is_rained_on())
                .then(|| bay_air(bay, around, closed).with_fans(plan, bay, closed.is_some())),
            chamber: closed.cloned(),
            colour: Colour::of(bay.tier, mean_ppfd),
            sill: Sill::before(bay, &plan.site)
                .map(|sill| SillYear::of(&sill, standing, scene.date)),
            empty: (standing.is_empty() && !bay.tier.storage)
                .then(|| self.light.on_empty(bay, scene.date))
                .flatten(),
            light_why: light.map(|light| LightWhy::of(bay, light, scene.lit_h)),
            power_why: power_why(bay, plan),
        }
    }

    /// Whose root zones are wanted: who goes away wants to know of every tray.
    fn whose(&self, scene: &Scene<'_>) -> Whose {
        let away = self.reckoned.plan.away_near(scene.date).is_some();
        if scene.detailed || away || self.detail.wants_all_roots() {
            Whose::All
        } else {
            Whose::ComingUp
        }
    }

    /// The cells that come to `harm`, and until when where that was asked for.
    fn harmed(&mut self, harm: Harm, scene: &Scene<'_>, lights: &[PartLight]) -> Option<Harmed> {
        let found = Harmed::find(harm, &scene.standing, lights, scene.lit_h, scene.date);
        let mut harmed = found?;
        if !scene.detailed {
            harmed.in_outline();
            return Some(harmed);
        }
        let harms = |day: &Date| {
            let standing = standing_in(self.reckoned, &scene.bay, *day);
            let lit_h = self.lit_h(&scene.bay, &standing);
            let lit = (scene.from_above, lit_h);
            let lights = self.light.part_lights(&scene.bay, &standing, lit, *day);
            Harmed::find(harm, &standing, &lights, lit_h, *day).is_some()
        };
        let days = (1..=DAYS_AHEAD).map(|n| plus_days(scene.date, n));
        harmed.until = days.take_while(harms).last().unwrap_or(scene.date);
        Some(harmed)
    }
}
