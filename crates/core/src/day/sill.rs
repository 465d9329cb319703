//! A window sill through the year: what daylight gives, month by month, and what it is enough for.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::plane::Footprint;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops;
use crate::day::standing::{Standing, tallest_leaves};
use crate::light::daylight::Sill;
use crate::light::sill_days::SillDays;
use crate::room::Window;

/// Daylight on a sill through the year.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SillYear {
    /// The twelve months.
    pub months: Vec<MonthLight>,
    /// What the same sill would get on average days if it faced otherwise.
    pub facing: Vec<Facing>,
    /// What the light is enough for, and from when on.
    pub lookouts: Vec<Lookout>,
    /// Daily light on the day looked at, beside the pane, in mol/m²/d.
    pub near_pane_mol_m2_d: f64,
    /// The same beside the room.
    pub near_room_mol_m2_d: f64,
    /// What each gets of a tray that is turned half round every day.
    pub turned_mol_m2_d: f64,
}

/// Daylight in the middle of a month, mean over the sill, in mol/m²/d.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct MonthLight {
    /// 1 for January.
    pub month: i8,
    /// On an average day.
    pub average: f64,
    /// Without a cloud.
    pub cloudless: f64,
    /// Under an overcast sky.
    pub overcast: f64,
}

/// A sill that faces some way.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Facing {
    /// The way it looks out: degrees from north over east.
    pub azimuth_deg: f64,
    /// Daily light by month on average days, in mol/m²/d.
    pub average: Vec<f64>,
}

/// What daylight is enough for.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Lookout {
    /// The least daily light that such seedlings want, in mol/m²/d.
    pub wants_mol_m2_d: f64,
    /// The first day from which an average day gives as much; `None` when it never does.
    pub enough_from: Option<Date>,
    /// The verdict in words.
    pub words: Statement,
}

/// How high leaves stand where none do, in mm: a tray's rim.
const BARE_MM: f64 = 60.0;

impl SillYear {
    /// The year of `date` on `sill`, at the leaves of `standing`.
    pub(super) fn of(sill: &Sill, standing: &[Standing<'_>], date: Date) -> Self {
        let z_mm = tallest_leaves(standing).map_or(BARE_MM, |(_, part)| part.canopy_mm);
        let deck = Footprint {
            x_mm: [0.0, sill.width_mm],
            y_mm: [0.0, sill.depth_mm],
        };
        let points = deck.cells(1, 2);
        let mean = |sill: &Sill, day: Date| {
            let sill = sill.on(day);
            let each = points.iter().map(|&at| sill.mol_m2_d(at, z_mm));
            each.sum::<f64>() / points.len() as f64
        };
        let middle = |month: i8| jiff::civil::date(date.year(), month, 15);
        let under = |of_cloudless: f64| Sill {
            of_cloudless,
            ..*sill
        };
        let months = (1..=12).map(|month| MonthLight {
            month,
            average: mean(sill, middle(month)),
            cloudless: mean(&under(1.0), middle(month)),
            overcast: mean(&under(0.0), middle(month)),
        });
        let facing = [0.0, 90.0, 180.0, 270.0].map(|azimuth_deg| {
            let turned = Sill {
                window: Window {
                    azimuth_deg,
                    ..sill.window
                },
                ..*sill
            };
            Facing {
                azimuth_deg,
                average: (1..=12).map(|m| mean(&turned, middle(m))).collect(),
            }
        });
        let lows = || crops::library().crops.iter().map(|c| c.dli_low_mol_m2_d);
        let (least, most) = (
            lows().fold(f64::INFINITY, f64::min),
            lows().fold(0.0, f64::max),
        );
        let (today, days) = (sill.on(date), SillDays::new(*sill, date.year()));
        let [room, pane] = [points[0], points[1]].map(|at| today.mol_m2_d(at, z_mm));
        let months: Vec<MonthLight> = months.collect();
        let darkest = months
            .iter()
            .map(|m| m.average)
            .fold(f64::INFINITY, f64::min);
        Self {
            facing: facing.into(),
            lookouts: [("Leafy seedlings", least), ("Fruiting crops", most)]
                .map(|(who, wants)| {
                    let from = days.enough_from(&points, z_mm, wants);
                    Lookout::new(who, wants, from, darkest)
                })
                .into(),
            months,
            near_room_mol_m2_d: room,
            near_pane_mol_m2_d: pane,
            turned_mol_m2_d: (room + pane) / 2.0,
        }
    }
}

impl Lookout {
    fn new(who: &'static str, wants: f64, enough_from: Option<Date>, darkest: f64) -> Self {
        let least = Quantity::DliMolM2D.of(wants);
        let words = match enough_from {
            Some(_) if darkest >= wants => {
                say!(
                    "{who}: enough light all winter ({least})",
                    who = who,
                    least = least
                )
            }
            Some(date) => say!(
                "{who}: enough light from {date} ({least} on an average day)",
                who = who,
                date = date,
                least = least
            ),
            None => say!(
                "{who}: never enough light here without a lamp ({least}), even in summer",
                who = who,
                least = least
            ),
        };
        Self {
            wants_mol_m2_d: wants,
            enough_from,
            words,
        }
    }
}
