//! Which sowings deserve a heat mat, and how few mats serve the season by turns: a mat is passed on
//! as soon as all on it are up (common practice, no source).

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::{Quantity, area_m2};
use crate::basis::words::{Statement, say};
use crate::crops::Crop;
use crate::crops::showing::Outcome;
use crate::plan::{SoundPlan, Sowing, Stage};
use crate::season::moments::TrayMoments;
use crate::season::reckoned::Reckoned;
use crate::season::root_zone::Beds;
use crate::season::sowing_dates::SowingDates;

/// The mats of a season.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MatSeason {
    /// What a mat does for each sowing, what gains most first.
    pub sowings: Vec<MatWorth>,
    /// Standard trays that find room on the mats that there are, outside chambers.
    pub places: u32,
    /// The most trays that want a mat on one day: so many places on mats serve them all by turns.
    pub needed: u32,
    /// The trays that want a mat at all.
    pub trays: u32,
    /// A line for each place on a mat, with the trays that have it in turn.
    pub turns: Vec<Vec<MatTurn>>,
    /// What to make of it.
    pub verdict: Statement,
}

/// What a mat does for a sowing.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MatWorth {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// Mean root-zone temperature without a mat, in °C.
    pub without_c: f64,
    /// Days until half show without one; `None` when none come up.
    pub without_days: Option<f64>,
    /// The share of good seeds that come up without one.
    pub without_share: f64,
    /// What suits it, and what a mat with a thermostat would hold, in °C.
    pub with_c: f64,
    /// Days until half show on it.
    pub with_days: Option<f64>,
    /// The share of good seeds that come up on it.
    pub with_share: f64,
    /// Whether it is worth one.
    pub deserves: bool,
    /// In words.
    pub verdict: Statement,
}

/// A tray's turn on a mat.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MatTurn {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// What grows in it.
    pub name: String,
    /// It goes on the mat.
    pub from: Date,
    /// All of it is up: the mat is free.
    pub until: Date,
}

/// So many days sooner are worth a mat, and so much of the seed (our own estimates).
const WORTH_DAYS: f64 = 4.0;
const WORTH_SHARE: f64 = 0.15;
/// A mat of this size carries one tray.
const TRAY_MM: [f64; 2] = [540.0, 280.0];

impl MatSeason {
    /// The mats of `plan`, whose sowings have `dates`.
    pub fn of(reckoned: &Reckoned<'_>) -> Self {
        let (plan, dates) = (reckoned.plan, &reckoned.dates);
        let mut beds = reckoned.beds();
        let mut sowings: Vec<MatWorth> = plan
            .sowings
            .iter()
            .zip(dates.iter())
            .map(|(sowing, dates)| MatWorth::of(plan, sowing, dates, &mut beds))
            .collect();
        let deserves = |id: &str| sowings.iter().any(|s| s.sowing == id && s.deserves);
        let mut turns: Vec<MatTurn> = plan
            .trays
            .iter()
            .filter(|tray| !tray.potted)
            .filter(|tray| tray.parts.iter().any(|part| deserves(&part.sowing)))
            .filter(|tray| {
                let stand = tray.stand_in(Stage::Germinate);
                let bay = stand.and_then(|stand| plan.bay(&stand.bay));
                // A chamber warms its own.
                bay.is_none_or(|bay| bay.place.chamber().is_none() && !bay.place.outdoors())
            })
            .map(|tray| {
                let moments = TrayMoments::of(plan, tray, dates);
                let first = &dates[plan.sowing_index(&tray.parts[0].sowing)];
                MatTurn {
                    tray: tray.id.clone(),
                    label: tray.name.clone(),
                    name: first.name.clone(),
                    from: moments.sow,
                    until: moments.leaves_mat(tray),
                }
            })
            .collect();
        turns.sort_by(|a, b| (a.from, a.until, &a.tray).cmp(&(b.from, b.until, &b.tray)));
        let trays = turns.len() as u32;
        let turns = by_turns(turns);
        let (needed, places) = (turns.len() as u32, places(plan));
        sowings.sort_by(|a, b| b.gain().total_cmp(&a.gain()));
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        let verdict = if trays == 0 {
            say!("No sowing here gains from a mat: leave the mats unplugged")
        } else if needed <= places {
            say!(
                "{trays} trays gain from a mat, never more than {needed} at once; your mats have room for {places}, so pass them on",
                trays = count(trays),
                needed = count(needed),
                places = count(places),
            )
        } else {
            say!(
                "{trays} trays gain from a mat, up to {needed} at once; your mats have room for {places}: get one more, or sow some a few days apart",
                trays = count(trays),
                needed = count(needed),
                places = count(places),
            )
        };
        Self {
            sowings,
            places,
            needed,
            trays,
            turns,
            verdict,
        }
    }
}

/// Whether seed that shows after so many days, and of which a share comes up, gains by what it is at its
/// `best`.
fn gains(is: (Option<f64>, f64), best: (Option<f64>, f64)) -> bool {
    let sooner = is.0.zip(best.0).map(|(is, best)| is - best);
    is.0.is_none() || sooner.is_some_and(|days| days >= WORTH_DAYS) || best.1 - is.1 >= WORTH_SHARE
}

/// Whether seed of `crop` that shows as `outcome` says is warm enough, and not too warm.
pub fn is_warm_enough(outcome: &Outcome, crop: &Crop) -> bool {
    let (curve, wants_c) = (crop.curve(), crop.root_zone_c);
    let best = (curve.days(wants_c), curve.share(wants_c));
    !gains((outcome.half_days, outcome.share), best)
}

impl MatWorth {
    fn of<'a>(
        plan: &'a SoundPlan,
        sowing: &'a Sowing,
        dates: &SowingDates,
        beds: &mut Beds<'a>,
    ) -> Self {
        let crop = plan.crop(sowing);
        let curve = crop.curve();
        let bed_c = beds.without_mat_c(sowing, dates.sow);
        let mean = |values: &mut dyn Iterator<Item = f64>| {
            let (sum, n) = values.fold((0.0, 0.0), |(sum, n), v| (sum + v, n + 1.0));
            sum / n
        };
        let without_c = mean(&mut bed_c.iter().copied());
        let without_days = curve.days_over(&bed_c);
        let without_share = match without_days {
            Some(_) => mean(&mut bed_c.iter().map(|&c| curve.share(c))),
            None => 0.0,
        };
        let with_c = crop.root_zone_c;
        let (with_days, with_share) = (curve.days(with_c), curve.share(with_c));
        let sooner = without_days.zip(with_days).map(|(a, b)| a - b);
        let colder = without_c < with_c;
        let best = (with_days, with_share);
        let deserves = colder && gains((without_days, without_share), best);
        let celsius = |c: f64| Quantity::TemperatureC.of(c);
        let days = |d: f64| Quantity::Days.of(d);
        let verdict = match (without_days, sooner) {
            _ if !colder => say!("Warm enough without: {at}", at = celsius(without_c)),
            (None, _) => say!(
                "Without a mat none come up at {at}",
                at = celsius(without_c)
            ),
            (Some(_), Some(sooner)) if with_share - without_share >= WORTH_SHARE => say!(
                "{sooner} sooner, and {with} of good seeds come up instead of {without}",
                sooner = days(sooner.max(0.0)),
                with = Quantity::Share.of(with_share),
                without = Quantity::Share.of(without_share),
            ),
            (Some(_), Some(sooner)) if deserves => say!("{sooner} sooner", sooner = days(sooner)),
            (Some(_), sooner) => say!(
                "{sooner} sooner: not worth a mat",
                sooner = days(sooner.unwrap_or(0.0).max(0.0))
            ),
        };
        Self {
            sowing: sowing.id.clone(),
            name: dates.name.clone(),
            without_c,
            without_days,
            without_share,
            with_c,
            with_days,
            with_share,
            deserves,
            verdict,
        }
    }

    /// What it gains: never coming up counts as a year.
    fn gain(&self) -> f64 {
        let days = |d: Option<f64>| d.unwrap_or(365.0);
        days(self.without_days) - days(self.with_days)
    }
}

/// Turns in the order of their first days, each on the first line that is free by then: no fewer
/// lines would do, since every line but the new one is taken when a line is added.
fn by_turns(turns: Vec<MatTurn>) -> Vec<Vec<MatTurn>> {
    let mut lines: Vec<Vec<MatTurn>> = Vec::new();
    for turn in turns {
        let free = lines
            .iter_mut()
            .find(|line| line.last().is_none_or(|last| last.until <= turn.from));
        match free {
            Some(line) => line.push(turn),
            None => lines.push(vec![turn]),
        }
    }
    lines
}

/// Standard trays that find room on the mats outside chambers.
fn places(plan: &SoundPlan) -> u32 {
    let open = plan.places.iter().filter(|place| place.chamber().is_none());
    let mats = open.flat_map(|place| &place.tiers).flat_map(|t| &t.mats);
    let trays = mats.map(|mat| {
        let ratio = area_m2(mat.length_mm, mat.width_mm) / area_m2(TRAY_MM[0], TRAY_MM[1]);
        ratio.round().max(1.0) as u32
    });
    trays.sum()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::Plan;
    use crate::testing::{bay, kettle_fen, reckoned, tray};
    use jiff::civil::date;

    fn of(change: impl FnOnce(&mut Plan)) -> MatSeason {
        MatSeason::of(&reckoned(&kettle_fen(change)))
    }

    #[test]
    fn peppers_deserve_a_mat_and_lettuce_and_peas_do_not() {
        let season = of(|_| ());
        let worth = |crop: &str| {
            let of = season.sowings.iter().find(|s| s.sowing.starts_with(crop));
            of.unwrap_or_else(|| panic!("no {crop}"))
        };
        assert!(worth("pepper").deserves, "{}", worth("pepper").verdict);
        assert!(!worth("lettuce").deserves, "{}", worth("lettuce").verdict);
        // What gains most comes first.
        let gains: Vec<f64> = season.sowings.iter().map(MatWorth::gain).collect();
        assert!(gains.is_sorted_by(|a, b| a >= b));
        // In a warm room none does.
        let warm = of(|plan| {
            plan.site.air.day_c = 28.0;
            plan.site.air.night_c = 27.0;
        });
        assert!(warm.sowings.iter().all(|s| !s.deserves));
        assert_eq!((warm.trays, warm.needed), (0, 0));
    }

    #[test]
    fn a_mat_is_passed_on_when_all_are_up() {
        let turn = |tray: &str, from: i8, until: i8| MatTurn {
            tray: tray.into(),
            label: tray.into(),
            name: tray.into(),
            from: date(2027, 3, from),
            until: date(2027, 3, until),
        };
        let lines = by_turns(vec![
            turn("a", 1, 10),
            turn("b", 5, 14),
            turn("c", 10, 20),
            turn("d", 12, 20),
            turn("e", 14, 20),
        ]);
        let trays: Vec<Vec<&str>> = lines
            .iter()
            .map(|line| line.iter().map(|t| t.tray.as_str()).collect())
            .collect();
        assert_eq!(trays, [vec!["a", "c"], vec!["b", "e"], vec!["d"]]);
    }

    #[test]
    fn so_many_places_as_trays_want_one_on_the_fullest_day() {
        let season = of(|plan| {
            (plan.site.air.day_c, plan.site.air.night_c) = (16.0, 14.0);
            for id in ["tc1", "tc2"] {
                tray(plan, id).stands[0].bay = bay("coat", "t2");
            }
        });
        let turns = || season.turns.iter().flatten();
        let most = turns()
            .map(|t| {
                turns()
                    .filter(|o| o.from <= t.from && t.from < o.until)
                    .count()
            })
            .max();
        assert_eq!(most.unwrap_or(0), season.needed as usize);
        assert!(season.needed < season.trays, "{}", season.verdict);
    }
}
