//! Triggers when a sowing's packet does not suffice for the plants wanted.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::units::Quantity;
use crate::basis::words::say;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let cells = view.cells?;
    let sow = cells.to_sow.as_ref()?;
    let left = cells.seeds_left.filter(|left| *left < 0)?;
    let count = |n: f64| Quantity::Count.of(n);
    let short = (-left).min(i64::from(sow.seeds));
    Some(view.finding(
        Severity::Conflict,
        view.days(),
        say!(
            "Buy at least {short} more seeds of {name}",
            name = &view.dates.name,
            short = count(short as f64)
        ),
        say!(
            "{wanted} plants need {cells} cells at {each} per cell, {seeds} seeds in all; after earlier sowings the packet has {have}.",
            wanted = count(f64::from(view.sowing.wanted)),
            cells = count(f64::from(sow.cells)),
            each = count(f64::from(sow.seeds_per_cell)),
            seeds = count(f64::from(sow.seeds)),
            have = count((left + i64::from(sow.seeds)).max(0) as f64),
        ),
    ))
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};
    use crate::seeds::{Packet, SeedSource};

    #[test]
    fn a_packet_of_ten_does_not_raise_ninety_onions() {
        let code = "too_few_seeds";
        let with = |seeds| {
            kettle_fen(|plan| {
                plan.packets.push(Packet {
                    id: "few".into(),
                    crop: "onion".into(),
                    variety: "Mill Lane Brown".into(),
                    lot: None,
                    year: 2026,
                    seeds: Some(seeds),
                    source: SeedSource::Bought,
                    cold: true,
                    stated: Some(0.8),
                    test: None,
                    counted: None,
                });
                sowing(plan, "onion").packet = Some("few".into());
            })
        };
        assert!(of_sowing(&with(10), "onion", code).is_some());
        assert_eq!(of_sowing(&with(900), "onion", code), None);
    }
}
