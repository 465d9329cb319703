//! Lamps and walls that a shelf can have.

use jiff::civil::Date;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::compare::frontier::offer::{Change, Item, Offer, Owned};
use crate::compare::frontier::shelf::Shelf;
use crate::compare::ideas::{Idea, in_a_foil_box, line_with_foil, rows_of};
use crate::day::detail::Detail;
use crate::day::hang::Hang;
use crate::day::view::Looker;
use crate::power::drawn_w;
use crate::room::{Bay, BayRef, Lamp, Tier, shelf};
use crate::season::Reckoned;

/// Kinds of lamp that people hang over a shelf, by their names on the shelf of kinds, and how many at most.
const KINDS: [(&str, usize); 6] = [
    ("bar-led-14", 6),
    ("shop-led-36", 4),
    ("shop-led-45", 4),
    ("shop-led-dimming", 4),
    ("panel-led-100", 2),
    ("twin-tube-64", 2),
];
/// Plans with more trays than this are tried with fewer set-ups: each is reckoned in the whole plan.
const MANY_TRAYS: usize = 150;

/// What `shelf` can have over the plants of `date`; `tell` hears the share that is done, and ends it.
pub(super) fn offers<'a>(
    reckoned: &Reckoned<'_>,
    shelf: &Shelf<'a>,
    date: Date,
    owned: &mut Owned<'_>,
    tell: &mut dyn FnMut(f64) -> bool,
) -> Item<'a> {
    let plan = reckoned.plan;
    let here = &shelf.bay;
    let had = owned.had(here.tier.lamps.iter().map(|lamp| lamp.name.as_str()));
    let offer = |what: Statement, tier: Tier, yours: bool| -> Option<Offer> {
        go_on();
        let worth = owned.worth(tier.lamps.iter().map(|lamp| lamp.name.as_str()), &had)?;
        let idea = Idea::of(what, tier);
        let changed = plan.changed_to(idea.plan(plan, here)?).ok()?;
        let there = Reckoned::of(&changed, reckoned.fields);
        let hang = hang_of(&there, &here.reference(), date)?;
        let mut tier = idea.tier;
        hang.set(&mut tier);
        let a_day = plan.site.cost_on(None, drawn_w(&tier), tier.burning());
        let current = a_day * f64::from(shelf.lit_days);
        let right = (1.0 - hang.then.under - hang.then.over).clamp(0.0, 1.0);
        Some(Offer {
            what: idea.name,
            yours,
            cost: current + owned.a_season(worth.worth),
            worth: worth.worth,
            to_buy: worth.to_buy,
            current,
            well: right * f64::from(shelf.cells),
            change: Change::Light(Box::new(tier)),
        })
    };
    let mut offers: Vec<Offer> = Vec::new();
    offers.extend(offer(
        say!("Your lamps, hung as advised"),
        here.tier.clone(),
        true,
    ));
    let mut unpriced = Vec::new();
    let mut ideas: Vec<(Statement, Tier)> = Vec::new();
    let mut in_foil = here.tier.clone();
    line_with_foil(&mut in_foil);
    ideas.push((say!("Your lamps, foil on all sides"), in_foil));
    let few = plan.trays.len() > MANY_TRAYS;
    let kinds = &shelf::library_in(plan.site.units).lamps;
    for (id, most) in KINDS {
        let Some(kind) = kinds.iter().find(|lamp| lamp.id == id) else {
            continue;
        };
        if owned.price(&kind.name).is_none() {
            unpriced.push(kind.name.clone());
            continue;
        }
        for n in (1..=most).filter(|n| !few || n.is_multiple_of(2)) {
            ideas.extend(lamps_and_walls(here, kind, n));
        }
    }
    let of = ideas.len() as f64;
    for (i, (what, tier)) in ideas.into_iter().enumerate() {
        if !tell(i as f64 / of) {
            break;
        }
        offers.extend(offer(what, tier, false));
    }
    Item {
        bay: *here,
        is_warmth: false,
        cells: f64::from(shelf.cells),
        offers,
        unpriced,
    }
}

/// `n` lamps of a kind, with the walls as they are and with foil all round.
fn lamps_and_walls(here: &Bay<'_>, kind: &Lamp, n: usize) -> [(Statement, Tier); 2] {
    let mut tier = here.tier.clone();
    tier.lamps = rows_of(kind, n, here);
    let in_foil = in_a_foil_box(kind, n, here);
    let (n, lamp) = (Quantity::Count.of(n as f64), kind.name.as_str());
    [
        (say!("{n} × {lamp}", n = n, lamp = lamp), tier),
        (in_foil.name, in_foil.tier),
    ]
}

fn hang_of(reckoned: &Reckoned<'_>, bay: &BayRef, date: Date) -> Option<Hang> {
    let here = reckoned.plan.bay_on(bay, date)?;
    let place = Looker::new(reckoned, Detail::Outline).look(here.place_index, date);
    place.into_iter().nth(here.tier_index)?.computed.hang
}
