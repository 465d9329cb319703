//! A few stages at a time are taken out and put back in another order.

use fastrand::Rng;

use crate::placement::solver::filling::Filling;
use crate::placement::solver::prices::Prices;
use crate::placement::solver::problem::{Placed, Problem, Stage, StageAt};
use crate::placement::solver::rivals::{Proof, Rivals};
use crate::placement::solver::watch::Watch;

/// Takes out what stands where a stage without a place could stand, and puts it back in another order:
/// what is worse is kept for a while, at first more of it (simulated annealing).
pub(super) fn ruin(
    filling: &mut Filling<'_>,
    proof: &Proof,
    random: &mut Rng,
    work: u64,
    watch: &mut Watch<'_>,
) {
    let problem = filling.problem;
    let rivals = Rivals::of(problem).open;
    let shelf: Shelf<'_> = Shelf::of(problem, &rivals, &proof.prices);
    let mean = rivals.iter().map(|at| problem.stage(*at).penalty as f64);
    let mean = mean.sum::<f64>() / rivals.len().max(1) as f64;
    let mut without: Vec<StageAt> = filling.without();
    without.retain(|at| shelf.may(*at).is_some_and(|may| !may.is_empty()));
    let mut best: (i64, Placed) = (filling.score().0, filling.placed().clone());
    let mut done = 0;
    while done < work && !without.is_empty() && best.0 > proof.bound {
        let heat = 0.05 * mean * 0.02f64.powf(done as f64 / work as f64);
        if !watch.goes_on((best.0, filling.score().1)) {
            break;
        }
        let at = without[random.usize(0..without.len())];
        let before = filling.score().0;
        let (out, looked) = shelf.clear_for(filling, at, random);
        let (put, looked_more) = shelf.put_back(filling, at, &out, &without, random);
        done += 40 + looked + looked_more;
        let worse = (filling.score().0 - before) as f64;
        if worse > 0.0 && random.f64() >= (-worse / heat).exp() {
            put.iter().for_each(|at| filling.take(*at));
            out.iter().for_each(|(at, place)| filling.put(*at, *place));
            continue;
        }
        without.retain(|at| filling.place_of(*at).is_none());
        for (at, _) in &out {
            if filling.place_of(*at).is_none() && !without.contains(at) {
                without.push(*at);
            }
        }
        if filling.score().0 < best.0 {
            best = (filling.score().0, filling.placed().clone());
        }
    }
    filling.restore(&best.1);
}

/// Places to try, and what a stage pays in each.
type Tries = Vec<(usize, f64)>;

/// The stages that compete, with the places worth a try and what they pay there.
struct Shelf<'p> {
    problem: &'p Problem,
    may: Vec<Vec<Option<Tries>>>,
}

impl<'p> Shelf<'p> {
    fn of(problem: &'p Problem, rivals: &[StageAt], prices: &Prices) -> Self {
        let none = |stages: &Vec<Stage>| vec![None; stages.len()];
        let mut may: Vec<Vec<Option<Tries>>> = problem.trays.iter().map(none).collect();
        for at in rivals {
            let stage = problem.stage(*at);
            let pays = stage
                .options
                .iter()
                .map(|(place, _)| (*place, prices.of(*place, stage)));
            let pays: Tries = pays.collect();
            may[at.0][at.1] = Some(pays);
        }
        Self { problem, may }
    }

    fn may(&self, at: StageAt) -> Option<&[(usize, f64)]> {
        self.may[at.0][at.1].as_deref()
    }

    /// Takes out some of what stands in a few of the places of the stage at `at` around its days.
    fn clear_for(
        &self,
        filling: &mut Filling<'_>,
        at: StageAt,
        random: &mut Rng,
    ) -> (Vec<(StageAt, usize)>, u64) {
        const MOST_OUT: usize = 14;
        let may = self.may(at).unwrap_or_default();
        let stage = self.problem.stage(at);
        let from = stage.from.saturating_sub(random.usize(0..8));
        let to = stage.to + random.usize(0..8);
        let mut out: Vec<(StageAt, usize)> = Vec::new();
        let mut looked = 0;
        for _ in 0..1 + random.usize(0..may.len().clamp(1, 3)) {
            let (place, _) = may[random.usize(0..may.len())];
            let all = random.u8(0..4) == 0;
            looked += filling.inside(place).len() as u64;
            let near = filling.inside(place).iter().filter(|other| {
                let other = self.problem.stage(**other);
                other.from < to && from < other.to && !other.pinned
            });
            let mut near: Vec<StageAt> = near.copied().collect();
            near.retain(|_| all || random.u8(0..4) > 0);
            random.shuffle(&mut near);
            near.truncate(MOST_OUT);
            for at in near {
                filling.take(at);
                out.push((at, place));
            }
        }
        (out, looked)
    }

    /// Puts the stage at `at`, what was taken out, and a few more of those `without` a place into the
    /// cheapest places that have room, the dearest to leave out first.
    fn put_back(
        &self,
        filling: &mut Filling<'_>,
        at: StageAt,
        out: &[(StageAt, usize)],
        without: &[StageAt],
        random: &mut Rng,
    ) -> (Vec<StageAt>, u64) {
        let by = random.u8(0..3);
        let stage = self.problem.stage(at);
        let mut queue: Vec<(f64, StageAt)> = Vec::new();
        let mut add = |at: StageAt, random: &mut Rng| {
            let stage = self.problem.stage(at);
            let penalty = stage.penalty as f64;
            let pays = self
                .may(at)
                .unwrap_or_default()
                .iter()
                .map(|(_, pays)| *pays);
            let dear = match by {
                0 => penalty,
                1 => penalty / stage.days() as f64,
                _ => penalty - pays.fold(f64::MAX, f64::min),
            };
            if !queue.iter().any(|(_, other)| *other == at) {
                queue.push((dear * (0.8 + 0.4 * random.f64()), at));
            }
        };
        add(at, random);
        out.iter().for_each(|(at, _)| add(*at, random));
        for _ in 0..4 {
            let other = without[random.usize(0..without.len())];
            if self.problem.stage(other).meets(stage) {
                add(other, random);
            }
        }
        queue.sort_by(|a, b| b.0.total_cmp(&a.0));
        let (mut put, mut looked) = (Vec::new(), 0);
        for (_, at) in queue {
            let stage = self.problem.stage(at);
            let may = self.may(at).unwrap_or_default();
            looked += may.len() as u64;
            let fits = may.iter().filter(|(place, _)| filling.fits(*place, stage));
            let tried =
                fits.map(|(place, pays)| ((1.0 + pays) * (0.7 + 0.6 * random.f64()), *place));
            if let Some((_, place)) = tried.min_by(|a, b| a.0.total_cmp(&b.0)) {
                filling.put(at, place);
                put.push(at);
            }
        }
        (put, looked)
    }
}
