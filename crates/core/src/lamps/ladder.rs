//! The outcome of one place of the lamps for every number of hours at once.

use crate::basis::units::dli_mol_m2_d;
use crate::lamps::bands::{LightBand, STRETCHES_UNDER_MOL_M2_D};
use crate::lamps::outcome::Outcome;

/// A count of cells and two sums over them: of an amount that stays and of one that comes with every
/// hour.
type Sums = [f64; 3];

/// The outcomes of cells over a list of hours, step by step. A cell leaves or joins each group at one
/// step, so that it is looked at once and not for every step.
#[derive(Debug, Clone)]
pub(super) struct Ladder {
    first_h: f64,
    step_h: f64,
    /// All cells: their daily light from elsewhere, and an hour's from the lamps.
    all: Sums,
    /// At each step, the cells that leave the group of those that stretch; of what they lack.
    stretched: Vec<Sums>,
    /// At each step, the cells that leave the group under their band; of what they lack.
    under: Vec<Sums>,
    /// At each step, the cells that join the group over the comfortable top; of what lies over it.
    unused: Vec<Sums>,
    /// At each step, the cells that come to more than does any good.
    over: Vec<f64>,
    /// At each step, the cells that come to harm.
    harmed: Vec<f64>,
}

fn add(to: &mut Sums, cell: Sums) {
    to.iter_mut().zip(cell).for_each(|(sum, part)| *sum += part);
}

impl Ladder {
    /// Of no cells yet, for `steps` numbers of hours from `first_h`, each `step_h` more.
    pub(super) fn new(first_h: f64, step_h: f64, steps: usize) -> Self {
        let none = vec![[0.0; 3]; steps + 1];
        Self {
            first_h,
            step_h,
            all: [0.0; 3],
            stretched: none.clone(),
            under: none.clone(),
            unused: none,
            over: vec![0.0; steps + 1],
            harmed: vec![0.0; steps + 1],
        }
    }

    /// Takes in cells that get `ppfd` µmol/m²/s each, times `brightness`, and what is in `besides`
    /// from elsewhere (nothing where that is empty), in mol/m²/d.
    pub(super) fn take(
        &mut self,
        ppfd: &[f64],
        brightness: f64,
        besides: &[f64],
        band: &LightBand,
    ) {
        let last = self.harmed.len() - 1;
        for (i, &ppfd) in ppfd.iter().enumerate() {
            let ppfd = ppfd * brightness;
            let besides = besides.get(i).copied().unwrap_or(0.0);
            let an_hour = dli_mol_m2_d(ppfd, 1.0).max(1e-12);
            // Steps until the daily light comes to an amount; beyond the last when it never does.
            let steps_to = |daily: f64| {
                let hours = (daily - besides) / an_hour - self.first_h;
                (hours / self.step_h).clamp(-1.0, last as f64 + 1.0)
            };
            let reached = |daily: f64| (steps_to(daily).ceil().max(0.0) as usize).min(last);
            let passed = |daily: f64| ((steps_to(daily).floor() + 1.0).max(0.0) as usize).min(last);
            let lacks = |of: f64| [1.0, 1.0 - besides / of, an_hour / of];
            let bleaches = ppfd > band.bleaches_over;
            let harmed = if bleaches {
                0
            } else {
                passed(band.harms_over())
            };
            add(&mut self.all, [1.0, besides, an_hour]);
            add(
                &mut self.stretched[reached(STRETCHES_UNDER_MOL_M2_D)],
                lacks(STRETCHES_UNDER_MOL_M2_D),
            );
            add(&mut self.under[reached(band.low)], lacks(band.low));
            self.over[passed(band.useful_to())] += 1.0;
            add(
                &mut self.unused[passed(band.high)],
                [1.0, besides - band.high, an_hour],
            );
            self.harmed[harmed] += 1.0;
        }
    }

    /// The outcome at each number of hours, from the first.
    pub(super) fn outcomes(&self) -> Vec<(f64, Outcome)> {
        let whole = |list: &[Sums]| {
            let mut sum = [0.0; 3];
            list.iter().for_each(|part| add(&mut sum, *part));
            sum
        };
        let (mut stretched, mut under) = (whole(&self.stretched), whole(&self.under));
        let (mut unused, mut over, mut harmed) = ([0.0; 3], 0.0, 0.0);
        let less = |from: &mut Sums, part: Sums| add(from, part.map(|amount| -amount));
        (0..self.harmed.len() - 1)
            .map(|step| {
                let hours = self.first_h + self.step_h * step as f64;
                less(&mut stretched, self.stretched[step]);
                less(&mut under, self.under[step]);
                add(&mut unused, self.unused[step]);
                over += self.over[step];
                harmed += self.harmed[step];
                let lacks = |[cells, stays, hourly]: Sums| {
                    if cells < 0.5 {
                        0.0
                    } else {
                        stays - hourly * hours
                    }
                };
                let outcome = Outcome {
                    cells: self.all[0],
                    harmed,
                    stretched: stretched[0],
                    under: under[0],
                    over,
                    lacks_to_stretch: lacks(stretched).max(0.0),
                    lacks: lacks(under).max(0.0),
                    daily: self.all[1] + self.all[2] * hours,
                    unused: (unused[1] + unused[2] * hours).max(0.0),
                };
                (hours, outcome)
            })
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_step_is_what_it_is_by_itself() {
        let band = LightBand {
            low: 8.0,
            high: 14.0,
            bleaches_over: 500.0,
        };
        let ppfd: Vec<f64> = (0..120).map(|i| f64::from(i) * 5.3).collect();
        let besides: Vec<f64> = (0..120).map(|i| f64::from(i % 7)).collect();
        for brightness in [1.0, 0.4] {
            let mut ladder = Ladder::new(4.0, 0.5, 29);
            ladder.take(&ppfd, brightness, &besides, &band);
            let dimmed: Vec<f64> = ppfd.iter().map(|ppfd| ppfd * brightness).collect();
            for (hours, outcome) in ladder.outcomes() {
                let alone = Outcome::of(&dimmed, hours, &besides, &band);
                let figures = |o: Outcome| {
                    [
                        o.cells,
                        o.harmed,
                        o.stretched,
                        o.under,
                        o.over,
                        o.lacks_to_stretch,
                        o.lacks,
                        o.daily,
                        o.unused,
                    ]
                };
                for (a, b) in figures(outcome).into_iter().zip(figures(alone)) {
                    assert!((a - b).abs() < 1e-6, "{hours} h: {outcome:?} {alone:?}");
                }
            }
        }
    }
}
