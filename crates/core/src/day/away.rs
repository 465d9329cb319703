//! Days on which nobody is there: what dries first.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::DateSpan;
use crate::day::bay::BayOnDay;
use crate::day::root_zones::TrayRoots;
use crate::plan::SoundPlan;
use crate::room::BayRef;

/// Days away, and how the trays get through them.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Away {
    /// The days.
    pub days: DateSpan,
    /// The trays that stand in the room, the first to dry out first.
    pub trays: Vec<Dries>,
}

/// A tray that nobody waters.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Dries {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// Where it stands.
    pub bay: BayRef,
    /// The same in words.
    pub bay_name: String,
    /// The day on which it wants water again, watered well on leaving; `None` when that is over a
    /// month away.
    pub dries_on: Option<Date>,
    /// The same when it is left filled from below.
    pub filled_until: Option<Date>,
    /// Whether it is dry before somebody is back.
    pub too_soon: bool,
}

impl Away {
    /// How the trays of `bays` get through the days away that `date` is in or shortly before;
    /// `None` on other days.
    pub fn on(plan: &SoundPlan, date: Date, bays: &[BayOnDay]) -> Option<Self> {
        let days = plan.away_near(date)?;
        let each = |bay: &BayOnDay| {
            let (at, name) = (bay.bay.clone(), bay.name.clone());
            let dries = move |roots: &TrayRoots| {
                let dries_on = roots.dries_on(days.from, false);
                Dries {
                    tray: roots.tray.clone(),
                    label: roots.label.clone(),
                    bay: at.clone(),
                    bay_name: name.clone(),
                    dries_on,
                    filled_until: roots.dries_on(days.from, true),
                    too_soon: dries_on.is_some_and(|dry| dry <= days.to),
                }
            };
            bay.roots().iter().map(dries).collect::<Vec<_>>()
        };
        let mut trays: Vec<Dries> = bays.iter().flat_map(each).collect();
        trays.sort_by_key(|dries| dries.dries_on.unwrap_or(Date::MAX));
        Some(Self { days, trays })
    }
}

#[cfg(test)]
mod tests {
    use crate::basis::dates::DateSpan;
    use crate::testing::kettle_fen;
    use jiff::civil::date;

    #[test]
    fn the_first_to_dry_comes_first_and_dry_air_hurries_all() {
        let away = |humidity| {
            let plan = kettle_fen(|plan| {
                plan.site.air.humidity = Some(humidity);
                plan.away = vec![DateSpan {
                    from: date(2027, 4, 9),
                    to: date(2027, 4, 13),
                }];
            });
            let day = DateSpan::day(date(2027, 4, 8));
            let mut assessed = crate::ask::assess(&plan, day, crate::day::detail::Detail::Outline);
            assessed.room.remove(0).away.expect("days away")
        };
        let usual = away(0.45);
        assert!(usual.trays.len() > 5);
        let days: Vec<_> = usual.trays.iter().filter_map(|t| t.dries_on).collect();
        assert!(days.is_sorted());
        for tray in &usual.trays {
            assert!(tray.filled_until >= tray.dries_on || tray.filled_until.is_none());
            assert_eq!(
                tray.too_soon,
                tray.dries_on.is_some_and(|dry| dry <= date(2027, 4, 13))
            );
        }
        let first = |away: &super::Away| away.trays[0].dries_on.unwrap();
        assert!(first(&away(0.29)) <= first(&usual));
        assert!(
            away(0.9).trays.iter().filter(|t| t.too_soon).count()
                <= usual.trays.iter().filter(|t| t.too_soon).count()
        );
    }
}
