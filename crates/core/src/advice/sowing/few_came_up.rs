//! Triggers when no more of a sowing comes up, by what was counted, and that is too few for the plants wanted.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::season::how_many::viability;

/// So long after the last count a second sowing still catches up (our own estimate).
const CATCHES_UP_DAYS: i32 = 21;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let seen = view.dates.seen.filter(|seen| seen.all)?;
    let each = f64::from(view.crop.plants_per_cell.max(1));
    let plants = f64::from(seen.count) * each * (1.0 - view.crop.losses);
    let wanted = f64::from(view.sowing.wanted);
    if plants + 0.5 >= wanted {
        return None;
    }
    let count = |n: f64| Quantity::Count.of(n.round());
    let share = f64::from(seen.count) / f64::from(seen.of.max(1));
    // As many cells more as give the plants that are missing, at what came up this time.
    let cells = ((wanted - plants) / (each * share.max(0.05))).ceil();
    let expected = viability(view.plan, view.sowing).share;
    let days = DateSpan {
        from: seen.on,
        to: plus_days(seen.on, CATCHES_UP_DAYS),
    };
    Some(view.finding(
        Severity::Conflict,
        days,
        say!(
            "Sow {cells} more cells of {name} at once",
            cells = count(cells),
            name = &view.dates.name
        ),
        say!(
            "You counted {up} of {of} cells up, and no more came: about {plants} plants of the {wanted} that you want. Its seed was taken to be {alive} alive.",
            up = count(f64::from(seen.count)),
            of = count(f64::from(seen.of)),
            plants = count(plants),
            wanted = count(wanted),
            alive = Quantity::Share.of(expected),
        ),
    ))
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{after, kettle_fen, noted, of_sowing, reckoned};
    use crate::basis::dates::plus_days;
    use crate::log::fact::Fact;

    #[test]
    fn a_count_that_stays_low_asks_for_a_second_sowing() {
        let plan = kettle_fen(|_| ());
        let up = crate::testing::dates_of(&reckoned(&plan), "tomato")
            .last
            .unwrap();
        let judged = |count: u32, later: i32| {
            let counted = plan.sown_in("tomato").flat_map(|tray| {
                let of = plan.cells_in(tray, "tomato");
                [0, later].map(|days| {
                    let fact = Fact::Shown {
                        tray: tray.id.clone(),
                        sowing: None,
                        count: count.min(of),
                        of,
                    };
                    noted(plus_days(up, days), fact)
                })
            });
            of_sowing(&after(plan.clone(), counted), "tomato", "few_came_up")
        };
        let found = judged(5, 5).expect("too few");
        assert!(
            found.headline.text.starts_with("Sow "),
            "{}",
            found.headline
        );
        assert_eq!(found.days.from, plus_days(up, 5));
        // All of them are up; or it is too soon to tell.
        assert_eq!(judged(1000, 5), None);
        assert_eq!(judged(5, 1), None);
    }
}
