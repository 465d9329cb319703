//! Thermometers in the mix to what a heat mat really warms with.

use std::collections::BTreeMap;

use crate::basis::fault::Pointer;
use crate::basis::learned::Learned;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::closed_air::ClosedAir;
use crate::day::root_zones::{Here, Whose, deck_light};
use crate::day::standing::{Standing, standing_in};
use crate::learning::estimate::{Estimate, median};
use crate::learning::evidence::{Asked, Evidence, learned, so_many};
use crate::learning::lesson::{Lesson, LessonKind, Said};
use crate::log::detail::{About, Measurement};
use crate::log::entry::Entry;
use crate::plan::Tray;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::{Bay, BayRef};
use crate::warmth::around::air_around;
use crate::warmth::mat::mat_under;

/// A probe in the mix is off by so much, by its make and by where it sits, in K (our own estimate).
const USUAL_SCATTER_K: f64 = 0.8;
const LEAST: f64 = 0.08;
const BELIEVABLE: std::ops::RangeInclusive<f64> = 0.15..=2.5;
/// Shares of a mat's watts at which the mix is reckoned.
const NODES: [f64; 9] = [0.1, 0.25, 0.4, 0.6, 0.8, 1.0, 1.3, 1.8, 2.6];
/// So many readings of a mat are looked at: each is reckoned at every node.
const MOST: usize = 20;

/// A reading with the mix at each node.
struct OnMat {
    evidence: Evidence,
    /// What was sown in the tray.
    sowing: String,
    at_nodes: [f64; NODES.len()],
}

impl OnMat {
    /// The mix at the share `of_watts`, in °C.
    fn mix_c(&self, of_watts: f64) -> f64 {
        let above = NODES
            .partition_point(|node| *node < of_watts)
            .clamp(1, NODES.len() - 1);
        let (a, b) = (NODES[above - 1], NODES[above]);
        let way = (of_watts - a) / (b - a);
        self.at_nodes[above - 1] + way * (self.at_nodes[above] - self.at_nodes[above - 1])
    }

    /// The share of its watts at which the mix is as measured, within the nodes.
    fn share(&self) -> f64 {
        let found = grid().into_iter().min_by(|a, b| {
            let off = |share: f64| (self.mix_c(share) - self.evidence.measured).abs();
            off(*a).total_cmp(&off(*b))
        });
        found.unwrap_or(1.0)
    }
}

/// The shares that are tried.
fn grid() -> Vec<f64> {
    const STEPS: usize = 250;
    let (from, to) = (NODES[0], NODES[NODES.len() - 1]);
    let step = (to - from) / STEPS as f64;
    (0..=STEPS).map(|i| from + step * i as f64).collect()
}

/// A lesson for each mat over which the mix was measured while something germinated there.
pub(super) fn lessons(asked: &Asked<'_, '_>) -> Vec<Lesson> {
    let mut by_mat: BTreeMap<(BayRef, String), Vec<OnMat>> = BTreeMap::new();
    for (entry, about, reading) in asked.measured() {
        let (About::Tray(id), Measurement::SoilC(c)) = (about, reading) else {
            continue;
        };
        let Some((tray, stand)) = asked.stood(id, entry.on) else {
            continue;
        };
        let Some(bay) = asked.reckoned.plan.bay_on(&stand.bay, entry.on) else {
            continue;
        };
        let outline = stand.footprint(asked.reckoned.plan.format(tray));
        let Some((mat, _)) = mat_under(bay.tier, &outline) else {
            continue;
        };
        let known = by_mat.entry((bay.reference(), mat.id.clone())).or_default();
        if known.len() < MOST {
            known.extend(on_mat(asked, entry, tray, &bay, &mat.id, c));
        }
    }
    let each = by_mat.into_iter();
    each.filter_map(|((bay, mat), own)| lesson(asked, &bay, &mat, own))
        .collect()
}

fn on_mat(
    asked: &Asked<'_, '_>,
    entry: &Entry,
    tray: &Tray,
    bay: &Bay<'_>,
    mat: &str,
    measured_c: f64,
) -> Option<OnMat> {
    let mut place = bay.place.clone();
    let standing: Vec<Vec<Standing<'_>>> = place
        .bays(bay.place_index)
        .map(|bay| standing_in(asked.reckoned, &bay, entry.on))
        .collect();
    let plan = asked.reckoned.plan;
    let mut at = |share: f64| {
        let mats = &mut place.tiers[bay.tier_index].mats;
        let own = mats.iter_mut().find(|own| own.id == mat)?;
        own.measured = Some(Learned::plain(share, entry.on));
        let around = air_around(&plan.site, &place, entry.on);
        let closed = ClosedAir::around(plan, &place, bay.tier_index, &standing, around.clone());
        let bay = Bay {
            place: &place,
            tier: &place.tiers[bay.tier_index],
            ..*bay
        };
        let standing_here = &standing[bay.tier_index];
        let here = Here {
            reckoned: asked.reckoned,
            deck_ppfd: deck_light(asked.reckoned, &bay, standing_here),
            bay: &bay,
            standing: standing_here,
            ppfd: &[],
            around: &around,
            closed: closed.as_ref(),
            detailed: false,
        };
        let roots = here.trays(Whose::ComingUp).into_iter();
        let day = roots
            .filter(|roots| roots.tray == tray.id)
            .find_map(|roots| roots.mat.and(Some(roots.day)))?;
        Some(match entry.at_h {
            Some(h) => day.root_zone_c()[(h as usize).min(23)],
            None => day.mean_c,
        })
    };
    let mut at_nodes = [0.0; NODES.len()];
    for (node, c) in NODES.iter().zip(&mut at_nodes) {
        *c = at(*node)?;
    }
    let of = plan
        .bay(&bay.reference())?
        .tier
        .mats
        .iter()
        .find(|own| own.id == mat)?;
    let now = Learned::share(of.measured);
    let celsius = Quantity::TemperatureC;
    let evidence = Evidence::by_difference(entry, tray.name.clone(), celsius, measured_c, 0.0);
    let mut own = OnMat {
        evidence,
        sowing: tray.parts[0].sowing.clone(),
        at_nodes,
    };
    own.evidence.reckoned = own.mix_c(now);
    Some(own)
}

fn lesson(asked: &Asked<'_, '_>, bay: &BayRef, mat: &str, mut own: Vec<OnMat>) -> Option<Lesson> {
    let bay = asked.reckoned.plan.bay(bay)?;
    let index = bay.tier.mats.iter().position(|own| own.id == mat)?;
    let mat = &bay.tier.mats[index];
    let now = Learned::share(mat.measured);
    // What stands out does so from the share that most agree on.
    let middle = median(own.iter().map(OnMat::share).collect());
    for own in &mut own {
        own.evidence.off = own.evidence.measured - own.mix_c(middle);
    }
    let evidence = own.iter().map(|own| own.evidence.clone()).collect();
    let all = asked.weighed(evidence, USUAL_SCATTER_K);
    let counting = asked.counting(&all);
    let counted: Vec<&OnMat> = own
        .iter()
        .zip(&all)
        .filter(|(_, e)| asked.counts(e))
        .map(|(own, _)| own)
        .collect();
    let misfit = |share: f64| {
        counted
            .iter()
            .map(|own| own.evidence.measured - own.mix_c(share))
            .collect()
    };
    let estimate = (!counted.is_empty())
        .then(|| Estimate::on_grid(&grid(), misfit, USUAL_SCATTER_K))
        .flatten();
    let said = estimate.map(|e| Said::of(&e, now, LEAST, BELIEVABLE));
    let learned = estimate.and_then(|estimate| learned(estimate, &counting));
    let n = so_many(&counting);
    let watts = |share: f64| Quantity::PowerW.of(share * mat.watts);
    let share = |value: f64| Quantity::Share.of(value);
    let figures = learned.unwrap_or(Learned::plain(now, bay_day(&all)?));
    let (value, low, high) = (
        share(figures.value),
        share(figures.low),
        share(figures.high),
    );
    let name = mat.name.as_str();
    let verdict = match said {
        None => say!(
            "The mix over {mat} does not tell how strong the mat is: its thermostat holds it whichever ({n})",
            mat = name,
            n = n
        ),
        Some(Said::Agrees) => say!(
            "{mat} warms as reckoned ({n}: {low} to {high} of its label)",
            mat = name,
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Corrects) => say!(
            "{mat} warms like one of {watts}: {value} of its label ({n}: {low} to {high})",
            mat = name,
            watts = watts(figures.value),
            value = value.clone(),
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Unsure) => say!(
            "{mat} seems to warm with {value} of its label, but may with anything from {low} to {high} ({n})",
            mat = name,
            value = value.clone(),
            low = low,
            high = high,
            n = n
        ),
        Some(Said::Unbelievable) => say!(
            "{value} of its label is not down to the mat alone ({n})",
            value = value.clone(),
            n = n
        ),
    };
    let first = match said {
        Some(Said::Agrees) => say!("Nothing is to be corrected"),
        Some(Said::Corrects) => say!(
            "See that the mat lies flat under the whole tray, on something that insulates, and that its cable is whole"
        ),
        _ => say!("Measure in the middle of a tray, at root depth, a day after it was watered"),
    };
    let fix = learned
        .filter(|_| said == Some(Said::Corrects))
        .map(|learned| Fix {
            label: say!("Take the mat at {watts}", watts = watts(learned.value)),
            word: say!(
                "took {mat} in {bay} at {value} of its label, as measured",
                mat = name,
                bay = bay.name(),
                value = value
            ),
            patch: patch(asked, &bay, index, learned, &own),
        });
    Some(Lesson {
        id: format!("mat/{}/{}/{}", bay.place.id, bay.tier.id, mat.id),
        kind: LessonKind::Mat,
        about: format!("{}, {}", mat.name, bay.name()),
        quantity: Quantity::Share,
        now,
        learned,
        verdict,
        first,
        fix,
        readings: asked.shown(all),
    })
}

/// The patch that corrects mat `index` of `bay`, and with it what somebody typed as the temperature of the mix over
/// it: it is not that warm.
fn patch(
    asked: &Asked<'_, '_>,
    bay: &Bay<'_>,
    index: usize,
    learned: Learned,
    own: &[OnMat],
) -> Vec<PatchStep> {
    let at = bay.pointer().at("mats").at(index).at("measured");
    let mut patch = vec![PatchStep::set(&at, learned)];
    let plan = asked.reckoned.plan;
    for (i, sowing) in plan.sowings.iter().enumerate() {
        let here = own.iter().find(|own| own.sowing == sowing.id);
        if let (Some(here), Some(_)) = (here, sowing.root_zone_c) {
            let mix_c = (here.mix_c(learned.value) * 2.0).round() / 2.0;
            let at = Pointer::default().at("sowings").at(i).at("root_zone_c");
            patch.push(PatchStep::set(&at, mix_c));
        }
    }
    patch
}

/// The day of the latest reading.
fn bay_day(all: &[Evidence]) -> Option<jiff::civil::Date> {
    all.iter().map(|own| own.on).max()
}
