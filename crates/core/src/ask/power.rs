//! The Power view's question: the day by the hour, the season's cost, and what a plant comes to.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::compare::few_timers::{TimersToday, few_timers};
use crate::cost::plants::PlantCosts;
use crate::cost::running::Running;
use crate::cost::shopping::{ShoppingLine, shopping};
use crate::day::apart::{Apart, apart};
use crate::day::detail::Detail;
use crate::day::draws::{by_label, of_household};
use crate::day::view::Looker;
use crate::lamps::start::{Start, USUAL_STEP_MIN};
use crate::light::fields::Fields;
use crate::plan::SoundPlan;
use crate::power::draw::Draw;
use crate::power::load::{DayLoad, day_load};
use crate::power::{CAUTION, drawn_w};
use crate::room::shelf::feeds_at;
use crate::room::wiring::{Feed, FeedKind};
use crate::room::{Bay, BayRef, bays};
use crate::season::Reckoned;
use crate::site::tariff::is_weekend;

/// Loads and costs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Electricity {
    /// The day that was asked for.
    pub date: Date,
    /// Its load by the hour on every feed.
    pub load: DayLoad,
    /// What hangs on each feed by the labels, in W, in the plan's order.
    pub labels_w: Vec<f64>,
    /// What draws on it, the household's own things last.
    pub draws: Vec<DrawOnDay>,
    /// The shelves with lamps, and when those burn.
    pub shelves: Vec<LitShelf>,
    /// Circuits on which less would be on at once with on-times set apart.
    pub apart: Vec<Apart>,
    /// How few settings of timers serve all lit shelves, and at what harm; `None` with fewer than two.
    pub few_timers: Option<TimersToday>,
    /// What a kWh costs from which hour on that day.
    pub prices: Vec<PriceFrom>,
    /// The season.
    pub running: Running,
    /// What its plants cost.
    pub plants: PlantCosts,
    /// What the plan takes, and what is to be bought.
    pub shopping: Vec<ShoppingLine>,
    /// What is to be bought costs, as far as it has a price.
    pub to_buy_cost: f64,
    /// The costs of the plants as a table, in CSV.
    pub table_csv: String,
    /// Circuits, sockets, strips, timers and chains as they are usual at these mains.
    pub feed_kinds: &'static [Feed],
    /// What to mind with mains and water.
    pub caution: &'static str,
}

/// Something that draws on a day, and what that comes to.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DrawOnDay {
    /// What it is, and when it is on.
    pub draw: Draw,
    /// The bay in words; empty elsewhere.
    pub at: String,
    /// Energy of the day in kWh.
    pub kwh: f64,
    /// What that costs, in the site's currency.
    pub cost: f64,
}

/// A shelf with lamps.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LitShelf {
    /// The bay.
    pub bay: BayRef,
    /// In words.
    pub name: String,
    /// The timer that switches them; `None` where none is known.
    pub timer: Option<String>,
    /// Whether they burn that day.
    pub burning: bool,
    /// When they go on and off, and what a day of it costs.
    pub now: Start,
    /// The best hour to begin in steps of the timer.
    pub best: Start,
    /// Whether that is worth another routine.
    pub better: bool,
    /// The timer's step in minutes.
    pub step_min: u32,
}

/// A price that holds from an hour on.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PriceFrom {
    /// Hours after midnight.
    pub from_h: f64,
    /// Price of a kWh, in the site's currency.
    pub price: f64,
}

/// Loads on `date`, and what the season of `plan` draws and costs.
pub fn power(plan: &SoundPlan, date: Date, fields: &Fields) -> Electricity {
    let reckoned = Reckoned::of(plan, fields);
    let mut looker = Looker::new(&reckoned, Detail::Outline);
    let mut draws = Vec::new();
    let mut burning = Vec::new();
    for index in 0..plan.places.len() {
        for view in looker.look(index, date) {
            let at = view.bay.name();
            burning.push(view.computed.burning);
            let own = view.computed.draws.into_iter();
            draws.extend(own.map(|draw| DrawOnDay::of(plan, date, draw, &at)));
        }
    }
    let household = of_household(plan).into_iter();
    draws.extend(household.map(|draw| DrawOnDay::of(plan, date, draw, "")));
    let shelves = bays(&plan.places).zip(burning);
    let shelves = shelves.filter(|(bay, _)| !bay.tier.lamps.is_empty());
    let running = Running::of(&reckoned);
    let shopping = shopping(plan);
    let plants = PlantCosts::of(&reckoned, &running, &shopping);
    let drawn: Vec<Draw> = draws.iter().map(|draw| draw.draw.clone()).collect();
    Electricity {
        date,
        load: day_load(&plan.wiring, plan.site.mains_v, &drawn),
        labels_w: labels_w(plan),
        apart: circuits_apart(plan, &drawn),
        few_timers: few_timers(&reckoned, date),
        shelves: shelves
            .map(|(bay, burning)| LitShelf::of(&reckoned, &bay, burning))
            .collect(),
        draws,
        prices: prices(plan, date),
        table_csv: plants.to_csv(),
        plants,
        to_buy_cost: shopping.iter().filter_map(|line| line.cost).sum(),
        running,
        feed_kinds: feeds_at(plan.site.mains_v),
        shopping,
        caution: CAUTION,
    }
}

impl DrawOnDay {
    fn of(plan: &SoundPlan, date: Date, draw: Draw, at: &str) -> Self {
        Self {
            at: at.into(),
            kwh: draw.kwh(),
            cost: draw.cost(&plan.site, date),
            draw,
        }
    }
}

impl LitShelf {
    fn of(reckoned: &Reckoned<'_>, bay: &Bay<'_>, burning: bool) -> Self {
        let plan = reckoned.plan;
        let (tier, site) = (bay.tier, &plan.site);
        let timer = plan.wiring.timer_of(tier);
        let now = Start::of(tier.burning(), drawn_w(tier), site);
        let best = reckoned.starts.best_of(tier, &plan.wiring, site);
        Self {
            bay: bay.reference(),
            name: bay.name(),
            timer: timer.map(|(feed, _)| feed.id.clone()),
            burning,
            better: burning && now.is_worth_changing_to(&best),
            now,
            best,
            step_min: timer.map_or(USUAL_STEP_MIN, |(_, timer)| timer.clock.step_min()),
        }
    }
}

/// What hangs on each feed of `plan`, whenever it is on, by the labels.
fn labels_w(plan: &SoundPlan) -> Vec<f64> {
    let wiring = &plan.wiring;
    let mut labels = vec![0.0; wiring.feeds.len()];
    for draw in by_label(plan) {
        for feed in draw.plugged.iter().flat_map(|id| wiring.path(id)) {
            let at = wiring.feeds.iter().position(|other| other.id == feed.id);
            labels[at.expect("a path is made of feeds")] += draw.watts;
        }
    }
    labels
}

/// A peak that falls by less than this share is left alone (our own estimate).
const WORTH_SETTING_APART: f64 = 0.1;

/// The circuits of `plan` on which setting timers apart brings the peak of `draws` down by enough.
fn circuits_apart(plan: &SoundPlan, draws: &[Draw]) -> Vec<Apart> {
    let feeds = plan.wiring.feeds.iter();
    let circuits = feeds.filter(|feed| matches!(feed.kind, FeedKind::Circuit(_)));
    circuits
        .filter_map(|feed| apart(plan, feed, draws))
        .filter(|found| found.peak_then_w <= (1.0 - WORTH_SETTING_APART) * found.peak_w)
        .collect()
}

/// Each price of the day from the hour on that it holds, at the quarter of an hour.
fn prices(plan: &SoundPlan, date: Date) -> Vec<PriceFrom> {
    let mut prices: Vec<PriceFrom> = Vec::new();
    for quarter in 0..96 {
        let from_h = f64::from(quarter) / 4.0;
        let price = plan.site.price_at(is_weekend(date), from_h + 1e-6);
        if prices.last().is_none_or(|last| last.price != price) {
            prices.push(PriceFrom { from_h, price });
        }
    }
    prices
}
