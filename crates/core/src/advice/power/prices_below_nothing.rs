//! Triggers when a kWh costs less than nothing in some hour: that may be so, or a slip.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let below = plan
        .site
        .by_hour
        .as_ref()
        .is_some_and(|prices| prices.has_negative());
    let finding = below.then(|| Finding {
        source: OWN_ESTIMATE,
        ..Finding::of_plan(
            plan.season,
            Severity::Advice,
            say!("Check the price of electricity: some hours pay you"),
            say!("A kWh costs less than nothing in some hours. A few tariffs do that; else a minus sign slipped in."),
        )
    });
    finding.into_iter().collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_a_negative_price_alone() {
        let with = |price: f64| {
            wired(230.0, 16.0, |plan| {
                plan.site.by_hour = Some(crate::site::tariff::HourPrices {
                    workday: vec![price; 24],
                    weekend: None,
                });
            })
        };
        assert_eq!(plan_judged(&with(-0.01), judge).len(), 1);
        assert!(plan_judged(&with(0.2), judge).is_empty());
    }
}
