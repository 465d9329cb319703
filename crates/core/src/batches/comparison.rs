//! Two batches compared.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::batches::batch::{Batch, Fared};
use crate::batches::differs::{Condition, ConditionOf, Difference, DifferenceOf, ToldApart};
use crate::batches::figures::{Apart, holm, means_apart, shares_apart};
use crate::batches::reason::reason;
use crate::log::told::Told;
use crate::season::Reckoned;

/// Two batches compared.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Comparison {
    /// What the first is called.
    pub a: String,
    /// What the second is called.
    pub b: String,
    /// Their trays.
    pub trays: [Vec<String>; 2],
    /// What they had.
    pub conditions: Vec<Condition>,
    /// What became of them.
    pub differences: Vec<Difference>,
    /// In a sentence.
    pub verdict: Statement,
    /// What it is probably down to; `None` where they are not told apart.
    pub probably: Option<Statement>,
    /// What makes the comparison worth less.
    pub but: Vec<Statement>,
}

/// A batch with the season that it is of.
#[derive(Debug, Clone, Copy)]
pub struct InSeason<'a, 'r> {
    /// The season's plan, reckoned after its log.
    pub reckoned: &'a Reckoned<'r>,
    /// The season's log.
    pub told: &'a Told,
    /// The batch.
    pub batch: &'a Batch,
}

impl Comparison {
    /// Of `a` and `b`.
    ///
    /// # Errors
    /// A tray, sowing, bay or place that the plan lacks; two batches that have nothing to compare.
    pub fn of(a: InSeason<'_, '_>, b: InSeason<'_, '_>) -> Result<Self, Vec<Fault>> {
        let (root, mut faults) = (Pointer::default(), Faults::default());
        a.batch.check(a.reckoned, &root.at("a"), &mut faults);
        b.batch.check(b.reckoned, &root.at("b"), &mut faults);
        faults.verdict()?;
        let fared =
            |of: InSeason<'_, '_>, crop: Option<&str>| of.batch.fared(of.reckoned, of.told, crop);
        let (mut one, mut two) = (fared(a, None), fared(b, None));
        // Places are compared by what grew in both.
        let mut shared = one.crops.iter().filter(|crop| two.crops.contains(crop));
        let crop = shared.next().cloned();
        if let Some(crop) = crop
            .as_deref()
            .filter(|_| one.crops.len() + two.crops.len() > 2)
        {
            (one, two) = (fared(a, Some(crop)), fared(b, Some(crop)));
        }
        let alike = crop.is_some();
        // Of places with several crops one is compared.
        let only = one.crops.len() == 1 && crop.is_some();
        let several = a.batch.is_a_place() || b.batch.is_a_place();
        let only = crop.as_deref().filter(|_| only && several);
        let only = only.and_then(|id| a.reckoned.plan.find_crop(id));
        let conditions = conditions(&one, &two);
        let mut differences = differences(&one, &two, alike);
        let raised = holm(&differences.iter().map(|d| d.p).collect::<Vec<_>>());
        for (own, p) in differences.iter_mut().zip(raised) {
            (own.p, own.told_apart) = (p, ToldApart::of(p));
        }
        // What tells most comes first.
        differences.sort_by(|x, y| x.p.total_cmp(&y.p));
        let most = differences.first();
        let verdict = match most {
            None => say!("Nobody counted or measured both: there is nothing to compare yet"),
            Some(most) if most.told_apart == ToldApart::Not => say!(
                "Chance makes differences as large as these: {a} and {b} are not told apart",
                a = &one.name,
                b = &two.name
            ),
            Some(most) => most.words.clone(),
        };
        let told_apart = most.filter(|most| most.told_apart != ToldApart::Not);
        let probably = told_apart.map(|most| reason(most, &conditions, &one, &two));
        let mut buts = but(&one, &two, alike);
        if let Some(crop) = only {
            buts.insert(
                0,
                say!("Compared is {crop}, which both have", crop = &crop.name),
            );
        }
        Ok(Self {
            but: buts,
            trays: [one.trays, two.trays],
            a: one.name,
            b: two.name,
            conditions,
            differences,
            verdict,
            probably,
        })
    }
}

fn conditions(a: &Fared, b: &Fared) -> Vec<Condition> {
    let of = |what, quantity, one: [Option<f64>; 2], two: [Option<f64>; 2]| Condition {
        what,
        quantity,
        reckoned: [one[0], two[0]],
        measured: [one[1], two[1]],
    };
    let celsius = Quantity::TemperatureC;
    let all = [
        of(ConditionOf::Mix, celsius, a.mix_c, b.mix_c),
        of(ConditionOf::GrowingAir, celsius, a.air_c, b.air_c),
        of(
            ConditionOf::Light,
            Quantity::DliMolM2D,
            [a.dli, None],
            [b.dli, None],
        ),
    ];
    let known = |own: &Condition| {
        own.reckoned
            .iter()
            .chain(&own.measured)
            .any(Option::is_some)
    };
    all.into_iter().filter(known).collect()
}

fn differences(a: &Fared, b: &Fared, alike: bool) -> Vec<Difference> {
    let mut found = Vec::new();
    let (name_a, name_b) = (a.name.as_str(), b.name.as_str());
    if let (Some(up_a), Some(up_b)) = (a.up, b.up) {
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        let words = say!(
            "{count_a} of {of_a} came up in {a} against {count_b} of {of_b} in {b}",
            count_a = count(up_a.count),
            of_a = count(up_a.of),
            a = name_a,
            count_b = count(up_b.count),
            of_b = count(up_b.of),
            b = name_b
        );
        let apart = shares_apart(up_a, up_b);
        const TEST: &str = "Fisher's exact test, two-sided; interval by Newcombe";
        found.push(Difference::of(
            DifferenceOf::CameUp,
            Quantity::Share,
            apart,
            words,
            TEST,
        ));
    }
    if !alike {
        return found;
    }
    const WELCH: &str = "Welch's t test";
    if let Some(apart) = means_apart(&a.days, &b.days) {
        let mean = |all: &[f64]| Quantity::Days.of(all.iter().sum::<f64>() / all.len() as f64);
        let words = say!(
            "{a} took {days_a} to show on the mean, {b} took {days_b}",
            a = name_a,
            days_a = mean(&a.days),
            b = name_b,
            days_b = mean(&b.days)
        );
        found.push(Difference::of(
            DifferenceOf::Days,
            Quantity::Days,
            apart,
            words,
            WELCH,
        ));
    }
    if let Some(apart) = means_apart(&a.heights, &b.heights) {
        // Logarithms of ratios: as a share of the second's height.
        let share = |ln: f64| ln.exp() - 1.0;
        let apart = Apart {
            by: share(apart.by),
            low: share(apart.low),
            high: share(apart.high),
            p: apart.p,
        };
        let by = Quantity::Share.of(apart.by.abs());
        let words = if apart.by >= 0.0 {
            say!(
                "{a} stands {by} taller than {b} at the same age",
                a = name_a,
                by = by,
                b = name_b
            )
        } else {
            say!(
                "{a} stands {by} lower than {b} at the same age",
                a = name_a,
                by = by,
                b = name_b
            )
        };
        found.push(Difference::of(
            DifferenceOf::Height,
            Quantity::Share,
            apart,
            words,
            WELCH,
        ));
    }
    found
}

/// What makes the comparison worth less.
fn but(a: &Fared, b: &Fared, alike: bool) -> Vec<Statement> {
    let mut but = Vec::new();
    if !alike {
        but.push(say!(
            "They are not the same crop: only how much came up is compared"
        ));
    }
    if alike && a.packets != b.packets {
        but.push(say!(
            "They are not from the same packet: the seed may make the difference"
        ));
    }
    if a.trays.iter().any(|tray| b.trays.contains(tray)) {
        but.push(say!("Some trays are in both"));
    }
    if a.trays.len().min(b.trays.len()) == 1 && !a.days.is_empty() {
        but.push(say!(
            "One tray alone may differ by its watering or its filling: two in each spot tell more"
        ));
    }
    but
}
