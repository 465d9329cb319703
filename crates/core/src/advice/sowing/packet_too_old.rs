//! Triggers when a packet's seed is so old or poor that most of it is dead.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::season::how_many::viability;

/// Fewer live seeds than this make more empty cells than plants (our own estimate).
const POOR: f64 = 0.4;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let packet = view.plan.packet(view.sowing)?;
    let alive = viability(view.plan, view.sowing);
    if alive.share >= POOR {
        return None;
    }
    let share = |value: f64| Quantity::Share.of(value);
    let tested = packet.test.is_some();
    Some(Finding {
        source: view.crop.source("seed_life_years"),
        ..view.finding(
            Severity::Conflict,
            view.days(),
            if tested {
                say!("Buy fresh {name} seed", name = &view.dates.name)
            } else {
                say!(
                    "Test {name} on damp paper, or buy fresh seed",
                    name = &view.dates.name
                )
            },
            say!(
                "About {share} of the {year} packet is alive ({low} to {high}): {basis}.",
                year = packet.year.to_string(),
                share = share(alive.share),
                low = share(alive.low),
                high = share(alive.high),
                basis = alive.basis.to_string(),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};
    use crate::seeds::{GerminationTest, Packet, SeedSource};

    #[test]
    fn old_parsnip_like_seed_is_tested_first() {
        let code = "packet_too_old";
        let with = |year, test| {
            kettle_fen(|plan| {
                plan.packets.push(Packet {
                    id: "old-onion".into(),
                    crop: "onion".into(),
                    variety: "Mill Lane Brown".into(),
                    lot: None,
                    year,
                    seeds: None,
                    source: SeedSource::Bought,
                    cold: false,
                    stated: None,
                    test,
                    counted: None,
                });
                sowing(plan, "onion").packet = Some("old-onion".into());
            })
        };
        let old = of_sowing(&with(2023, None), "onion", code).expect("too old");
        assert!(old.headline.to_string().starts_with("Test "));
        assert_eq!(of_sowing(&with(2026, None), "onion", code), None);
        let good = GerminationTest {
            sprouted: 18,
            of: 20,
        };
        assert_eq!(of_sowing(&with(2023, Some(good)), "onion", code), None);
    }
}
