//! What people try with a bay, as it would be.

use jiff::civil::Date;

use crate::basis::fault::Pointer;
use crate::basis::ids::free_id;
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::compare::turned::{Restood, turned};
use crate::plan::patch::PatchStep;
use crate::plan::{Plan, SoundPlan};
use crate::room::{Adjust, Bay, Lamp, Side, Tier, shelf};
use crate::season::Reckoned;

/// Another way to set up a bay.
#[derive(Debug, Clone)]
pub(super) struct Idea {
    pub(super) code: &'static str,
    pub(super) name: Statement,
    /// The tier as it would be.
    pub(super) tier: Tier,
    /// Trays that would stand otherwise.
    pub(super) stands: Vec<Restood>,
}

impl Idea {
    /// A tier as it would be, with the trays as they stand.
    pub(super) fn of(name: Statement, tier: Tier) -> Self {
        Self {
            code: "",
            name,
            tier,
            stands: Vec::new(),
        }
    }

    /// The plan with the idea in the place of `bay`.
    pub(super) fn plan(&self, plan: &SoundPlan, bay: &Bay<'_>) -> Option<Plan> {
        let mut plan: Plan = (**plan).clone();
        let place = plan.places.get_mut(bay.place_index)?;
        *place.tiers.get_mut(bay.tier_index)? = self.tier.clone();
        for Restood { tray, stand, to } in &self.stands {
            *plan.trays.get_mut(*tray)?.stands.get_mut(*stand)? = to.clone();
        }
        Some(plan)
    }

    /// How the plan becomes so; empty when it is so already.
    pub(super) fn patch(&self, bay: &Bay<'_>) -> Vec<PatchStep> {
        let mut patch = PatchStep::between(&bay.pointer(), bay.tier, &self.tier);
        for Restood { tray, stand, to } in &self.stands {
            let at = Pointer::default().at("trays").at(*tray).at("stands");
            patch.push(PatchStep::replace(&at.at(*stand), to));
        }
        patch
    }
}

/// What people try with a bay, as its tier would be.
pub(super) fn ideas(bay: &Bay<'_>, reckoned: &Reckoned<'_>, date: Date) -> Vec<Idea> {
    let tier = bay.tier;
    let mut ideas: Vec<Idea> = Vec::new();
    let mut add = |code, name, change: &dyn Fn(&mut Tier)| {
        let mut other = tier.clone();
        change(&mut other);
        ideas.push(Idea {
            code,
            name,
            tier: other,
            stands: Vec::new(),
        });
    };
    add("best_setting", say!("The best height and hours"), &|_| ());
    // A sill may have no lamps at all.
    if (1..12).contains(&tier.lamps.len()) {
        add(
            "one_more_lamp",
            say!("One more lamp like these"),
            &|other| {
                let mut lamp = other.lamps[0].clone();
                lamp.id = free_id("l1", other.lamps.iter().map(|lamp| &lamp.id));
                other.lamps.push(lamp);
                in_rows(&mut other.lamps, bay);
            },
        );
    }
    if tier.lamps.len() > 1 {
        add("one_lamp_less", say!("One lamp less"), &|other| {
            other.lamps.pop();
            in_rows(&mut other.lamps, bay);
        });
    }
    if let Some(lamps) = staggered(bay) {
        add(
            "staggered",
            say!("Lamps staggered left and right"),
            &|other| other.lamps = lamps.clone(),
        );
    }
    if tier.sides.back.is_open() {
        add("white_back", say!("A white board at the back"), &|other| {
            other.sides.back = Side::White;
        });
    }
    add("foil_walls", say!("Foil on all sides"), &line_with_foil);
    let kind = |id: &str| shelf::library().lamps.iter().find(|lamp| lamp.id == id);
    for (id, count, code, name) in [
        (
            "shop-led-36",
            2,
            "close_shop_lights",
            say!("Two shop lights close above the leaves"),
        ),
        (
            "shop-led-36",
            4,
            "four_shop_lights",
            say!("Four shop lights"),
        ),
        (
            "twin-tube-64",
            2,
            "twin_tubes",
            say!("Two older twin-tube fixtures"),
        ),
    ] {
        let Some(kind) = kind(id) else { continue };
        let like_these = tier
            .lamps
            .first()
            .is_some_and(|lamp| lamp.name == kind.name);
        if !like_these || count != tier.lamps.len() {
            add(code, name, &|other| other.lamps = rows_of(kind, count, bay));
        }
    }
    if let Some(bar) = kind("bar-led-14") {
        let name = say!("Three thin bars fixed in a foil box");
        add(
            "four_bars_in_foil",
            say!("Four thin bars in a foil box"),
            &|other| {
                other.lamps = rows_of(bar, 4, bay);
                line_with_foil(other);
            },
        );
        add("bars_in_foil", name, &|other| {
            other.lamps = rows_of(bar, 3, bay);
            let highest = bay.clear_height_mm() - bar.body_height_mm;
            other.lamps.iter_mut().for_each(|l| l.height_mm = highest);
            line_with_foil(other);
            other.adjust = Some(Adjust::Fixed);
        });
    }
    if let Some(light) = kind("shop-led-36") {
        for (n, code, name) in [
            (2, "two_in_foil", say!("Two shop lights in a foil box")),
            (3, "three_in_foil", say!("Three shop lights in a foil box")),
        ] {
            add(code, name, &|other| {
                other.lamps = rows_of(light, n, bay);
                line_with_foil(other);
            });
        }
    }
    if let Some(panel) = kind("panel-led-100") {
        let name = say!("One strong panel high above");
        add("one_panel", name, &|other| {
            other.lamps = rows_of(panel, 1, bay);
        });
    }
    let stands = turned(bay, reckoned, date);
    if !stands.is_empty() {
        ideas.push(Idea {
            code: "turned_trays",
            name: say!("The same trays turned crosswise"),
            tier: tier.clone(),
            stands,
        });
    }
    ideas
}

/// Kinds of lamp that give much light for what they draw, and how many of them people hang over a shelf.
const THRIFTY: [(&str, std::ops::RangeInclusive<usize>); 2] =
    [("bar-led-14", 2..=6), ("shop-led-36", 1..=4)];

/// What draws less for the same light, as the tier of `bay` would be.
pub(super) fn thrifty(bay: &Bay<'_>) -> Vec<Idea> {
    let mut ideas = vec![Idea::of(
        say!("The best height and hours"),
        bay.tier.clone(),
    )];
    if bay.tier.lamps.len() > 1 {
        let mut fewer = bay.tier.clone();
        fewer.lamps.pop();
        in_rows(&mut fewer.lamps, bay);
        ideas.push(Idea::of(say!("One lamp less"), fewer));
    }
    let mut in_foil = bay.tier.clone();
    line_with_foil(&mut in_foil);
    ideas.push(Idea::of(say!("Foil on all sides"), in_foil));
    for (id, counts) in THRIFTY {
        let kinds = &shelf::library().lamps;
        let Some(kind) = kinds.iter().find(|lamp| lamp.id == id) else {
            continue;
        };
        ideas.extend(counts.map(|n| in_a_foil_box(kind, n, bay)));
    }
    ideas
}

/// `n` lamps of a kind in a box of foil.
pub(super) fn in_a_foil_box(kind: &Lamp, n: usize, bay: &Bay<'_>) -> Idea {
    let mut tier = bay.tier.clone();
    tier.lamps = rows_of(kind, n, bay);
    line_with_foil(&mut tier);
    let (n, lamp) = (Quantity::Count.of(n as f64), kind.name.as_str());
    Idea::of(
        say!("{n} × {lamp}, foil on all sides", n = n, lamp = lamp),
        tier,
    )
}

pub(super) fn line_with_foil(tier: &mut Tier) {
    let sides = &mut tier.sides;
    let all = [
        &mut sides.left,
        &mut sides.right,
        &mut sides.back,
        &mut sides.front,
        &mut sides.top,
    ];
    all.into_iter().for_each(|side| *side = Side::Foil);
}

/// `count` lamps of a kind in even rows, as low as they may begin.
pub(super) fn rows_of(kind: &Lamp, count: usize, bay: &Bay<'_>) -> Vec<Lamp> {
    let highest = bay.clear_height_mm() - kind.body_height_mm;
    let mut lamps: Vec<Lamp> = (0..count)
        .map(|i| Lamp {
            id: format!("l{}", i + 1),
            height_mm: kind.height_mm.min(highest),
            ..kind.clone()
        })
        .collect();
    in_rows(&mut lamps, bay);
    lamps
}

/// Spreads lamps evenly across their length, in the middle along it.
fn in_rows(lamps: &mut [Lamp], bay: &Bay<'_>) {
    let (w, d) = (bay.place.width_mm, bay.place.depth_mm);
    let n = lamps.len() as f64;
    for (i, lamp) in lamps.iter_mut().enumerate() {
        let share = (i as f64 + 0.5) / n;
        (lamp.x_mm, lamp.y_mm) = match lamp.along {
            Axis::X => (w / 2.0, d * share),
            Axis::Y => (w * share, d / 2.0),
        };
    }
}

/// Lamps shorter than the deck, pushed to its left and right end by turns.
fn staggered(bay: &Bay<'_>) -> Option<Vec<Lamp>> {
    const SHORTER_MM: f64 = 60.0;
    let mut lamps = bay.tier.lamps.clone();
    if lamps.len() < 2 {
        return None;
    }
    for (i, lamp) in lamps.iter_mut().enumerate() {
        let [[from, to], _] = lamp.extent_mm();
        let free = bay.place.width_mm - (to - from);
        if lamp.along == Axis::Y || free < SHORTER_MM {
            return None;
        }
        let half = (to - from) / 2.0;
        lamp.x_mm = if i % 2 == 0 { half } else { half + free };
    }
    (lamps != bay.tier.lamps).then_some(lamps)
}
