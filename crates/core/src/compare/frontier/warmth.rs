//! Mats that a shelf can have for what comes up there.

use crate::basis::clock::{Burning, DAY_H};
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::compare::frontier::offer::{Change, Item, Offer, Owned};
use crate::compare::frontier::shelf::Shelf;
use crate::day::root_zones::{Here, SownRoots, Whose, deck_light};
use crate::day::standing::{Standing, standing_in};
use crate::room::{Bay, Mat, Tier, shelf};
use crate::season::Reckoned;
use crate::season::mats::is_warm_enough;
use crate::site::air::Air;
use crate::warmth::around::air_around;
use crate::warmth::mat::cover;

/// Kinds of heat mat, by their names on the shelf of kinds.
const KINDS: [&str; 3] = ["mat-small", "mat-middle", "mat-large"];
/// A tray with so much of it on mats has one.
const ON_A_MAT: f64 = 0.8;

/// What `shelf` can have on the day on which most trays come up there; `None` where none do, in closed air,
/// which is warmed as a whole, and outdoors.
pub(super) fn offers<'a>(
    reckoned: &Reckoned<'_>,
    shelf: &Shelf<'a>,
    owned: &mut Owned<'_>,
) -> Option<Item<'a>> {
    let plan = reckoned.plan;
    let here = plan.bay_on(&shelf.bay.reference(), shelf.warm_on?)?;
    if here.place.outdoors() || here.place.shares_air(here.tier_index).is_some() {
        return None;
    }
    let standing = standing_in(reckoned, &here, shelf.warm_on?);
    let around = air_around(&plan.site, here.place, shelf.warm_on?);
    let had = owned.had(here.tier.mats.iter().map(|mat| mat.name.as_str()));
    let set_c = usual_wish(&sown(reckoned, &here, here.tier, &standing, &around))?;
    let coming_up = standing.iter().filter(|s| s.coming_up);
    let cells: f64 = coming_up.map(cells_of).sum();
    let offer = |what: Statement, mats: Vec<Mat>, yours: bool| -> Option<Offer> {
        let worth = owned.worth(mats.iter().map(|mat| mat.name.as_str()), &had)?;
        let tier = Tier {
            mats,
            ..here.tier.clone()
        };
        let bay = Bay {
            tier: &tier,
            ..here
        };
        let with = room(reckoned, &bay, &standing, &around);
        let on = with.mats_on();
        let watts: f64 = on.iter().map(|(i, duty)| tier.mats[*i].watts * duty).sum();
        let a_day = plan.site.cost_on(None, watts, Burning::new(0.0, DAY_H));
        let current = a_day * f64::from(shelf.warm_days);
        let warm = with.trays(Whose::ComingUp);
        let warm = warm.iter().filter(|roots| {
            let each = roots.sown.iter();
            each.clone().all(|sown| is_warm(reckoned, sown))
        });
        let well = warm.filter_map(|roots| standing.iter().find(|s| s.tray.id == roots.tray));
        Some(Offer {
            what,
            yours,
            cost: current + owned.a_season(worth.worth),
            worth: worth.worth,
            to_buy: worth.to_buy,
            current,
            well: well.map(cells_of).sum(),
            change: Change::Mats(tier.mats),
        })
    };
    let mut offers: Vec<Offer> = Vec::new();
    let mut unpriced = Vec::new();
    if here.tier.mats.is_empty() {
        offers.extend(offer(say!("No mats"), Vec::new(), true));
    } else {
        offers.extend(offer(say!("Your mats"), here.tier.mats.clone(), true));
        offers.extend(offer(say!("No mats"), Vec::new(), false));
    }
    let kinds = &shelf::library_in(plan.site.units).mats;
    for kind in KINDS
        .iter()
        .filter_map(|id| kinds.iter().find(|mat| mat.id == *id))
    {
        if owned.price(&kind.name).is_none() {
            unpriced.push(kind.name.clone());
            continue;
        }
        let most = laid(kind, &here, &standing, set_c);
        for n in 1..=most.len() {
            let what = say!(
                "{n} × {mat}, with a thermostat at {set}",
                n = Quantity::Count.of(n as f64),
                mat = &kind.name,
                set = Quantity::TemperatureC.of(set_c)
            );
            offers.extend(offer(what, most[..n].to_vec(), false));
        }
    }
    Some(Item {
        bay: shelf.bay,
        is_warmth: true,
        cells,
        offers,
        unpriced,
    })
}

fn room<'r>(
    reckoned: &'r Reckoned<'_>,
    bay: &'r Bay<'r>,
    standing: &'r [Standing<'r>],
    around: &'r Air,
) -> Here<'r> {
    Here {
        reckoned,
        deck_ppfd: deck_light(reckoned, bay, standing),
        bay,
        standing,
        ppfd: &[],
        around,
        closed: None,
        detailed: false,
    }
}

fn sown(
    reckoned: &Reckoned<'_>,
    here: &Bay<'_>,
    tier: &Tier,
    standing: &[Standing<'_>],
    around: &Air,
) -> Vec<SownRoots> {
    let bay = Bay { tier, ..*here };
    let roots = room(reckoned, &bay, standing, around).trays(Whose::ComingUp);
    roots.into_iter().flat_map(|roots| roots.sown).collect()
}

/// The middle of what suits all that is sown: one thermostat serves them together.
fn usual_wish(sown: &[SownRoots]) -> Option<f64> {
    let mut wishes: Vec<f64> = sown.iter().map(|sown| sown.wants_c).collect();
    wishes.sort_by(f64::total_cmp);
    wishes.get(wishes.len() / 2).copied()
}

fn is_warm(reckoned: &Reckoned<'_>, sown: &SownRoots) -> bool {
    let plan = reckoned.plan;
    let sowing = &plan.sowings[plan.sowing_index(&sown.sowing)];
    is_warm_enough(&sown.outcome, plan.crop(sowing))
}

fn cells_of(standing: &Standing<'_>) -> f64 {
    let cells = standing.parts.iter().map(|part| part.grid.0 * part.grid.1);
    f64::from(cells.sum::<u32>())
}

/// Mats like `kind` under the trays that come up, one after another, until all lie on some. The first has the
/// thermostat, which switches the others.
fn laid(kind: &Mat, here: &Bay<'_>, standing: &[Standing<'_>], set_c: f64) -> Vec<Mat> {
    let deck = [here.place.width_mm, here.place.depth_mm];
    let mut mats: Vec<Mat> = Vec::new();
    for s in standing.iter().filter(|s| s.coming_up) {
        let footprint = &s.footprint;
        if mats.iter().map(|mat| cover(mat, footprint)).sum::<f64>() >= ON_A_MAT {
            continue;
        }
        let [x, y] = [footprint.x_mm, footprint.y_mm];
        let mut mat = Mat {
            id: format!("m{}", mats.len() + 1),
            along: if x[1] - x[0] >= y[1] - y[0] {
                Axis::X
            } else {
                Axis::Y
            },
            ..kind.clone()
        };
        let [w, d] = mat.size_mm();
        if w > deck[0] || d > deck[1] {
            continue;
        }
        (mat.x_mm, mat.y_mm) = (x[0].clamp(0.0, deck[0] - w), y[0].clamp(0.0, deck[1] - d));
        if mats.iter().any(|other| overlap(other, &mat)) {
            continue;
        }
        match mats.first() {
            None => mat.thermostat_c = Some(set_c),
            Some(lead) => mat.switched_with = Some(lead.id.clone()),
        }
        mats.push(mat);
    }
    mats
}

fn overlap(a: &Mat, b: &Mat) -> bool {
    let ([aw, ad], [bw, bd]) = (a.size_mm(), b.size_mm());
    let along = |a: f64, aw: f64, b: f64, bw: f64| a + aw > b + 1e-6 && b + bw > a + 1e-6;
    along(a.x_mm, aw, b.x_mm, bw) && along(a.y_mm, ad, b.y_mm, bd)
}
