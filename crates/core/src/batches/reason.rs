//! What a difference between two batches is probably down to.

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::batches::batch::Fared;
use crate::batches::differs::{Condition, ConditionOf, Difference, DifferenceOf};

/// Mix or air that differ by less explain nothing, in K (our own judgement).
const LEAST_K: f64 = 1.0;
/// Light that differs by less explains nothing, as a ratio (our own judgement).
const LEAST_LIGHT: f64 = 1.2;

/// What `most` is probably down to: what the two batches had so differently that it goes the way of the difference.
pub(super) fn reason(most: &Difference, had: &[Condition], a: &Fared, b: &Fared) -> Statement {
    // The one that did better, or grew taller, against the other.
    let first = match most.what {
        DifferenceOf::Days => most.by < 0.0,
        _ => most.by > 0.0,
    };
    let (better, other) = if first { (a, b) } else { (b, a) };
    let figures = |what: ConditionOf| {
        let own = had.iter().find(|own| own.what == what)?;
        let each = |i: usize| own.measured[i].or(own.reckoned[i]);
        // Both as measured, or both as reckoned: a thermometer beside a model compares the two.
        let both = match own.measured {
            [Some(a), Some(b)] => [a, b],
            _ => match own.reckoned {
                [Some(a), Some(b)] => [a, b],
                _ => [each(0)?, each(1)?],
            },
        };
        Some(if first { both } else { [both[1], both[0]] })
    };
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    let light = figures(ConditionOf::Light);
    match most.what {
        DifferenceOf::CameUp | DifferenceOf::Days => {
            if let Some([warm, cool]) = figures(ConditionOf::Mix).filter(|[w, c]| w - c >= LEAST_K)
            {
                return say!(
                    "Probably the warmer spot: the mix had {warm} in {better} and {cool} in {other}",
                    warm = celsius(warm),
                    better = &better.name,
                    cool = celsius(cool),
                    other = &other.name
                );
            }
            if let Some([cool, hot]) = figures(ConditionOf::Mix).filter(|[c, h]| h - c >= LEAST_K) {
                return say!(
                    "Probably the cooler spot: the mix had {cool} in {better} and {hot} in {other}, too warm for it",
                    cool = celsius(cool),
                    better = &better.name,
                    hot = celsius(hot),
                    other = &other.name
                );
            }
        }
        DifferenceOf::Height => {
            if let Some([dim, bright]) = light.filter(|[d, b]| b / d.max(0.01) >= LEAST_LIGHT) {
                return say!(
                    "Probably dimmer light, which stretches: {dim} a day in {taller} and {bright} in {other}",
                    dim = Quantity::DliMolM2D.of(dim),
                    taller = &better.name,
                    bright = Quantity::DliMolM2D.of(bright),
                    other = &other.name
                );
            }
            if let Some([warm, cool]) =
                figures(ConditionOf::GrowingAir).filter(|[w, c]| w - c >= LEAST_K)
            {
                return say!(
                    "Probably the warmer air: {warm} in {taller} and {cool} in {other}",
                    warm = celsius(warm),
                    taller = &better.name,
                    cool = celsius(cool),
                    other = &other.name
                );
            }
        }
    }
    if a.packets != b.packets {
        return say!(
            "Nothing that they had explains it: the seed may, which is not from one packet"
        );
    }
    say!(
        "Nothing that was reckoned or measured explains it: water, the filling of the cells or the seed may"
    )
}
