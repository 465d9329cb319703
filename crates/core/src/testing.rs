//! The demo and other plans for tests, changed at will, and what is in them by its id.

pub mod instances;

use std::sync::atomic::{AtomicU32, Ordering};
use std::sync::{Arc, LazyLock};

use jiff::civil::Date;

use crate::basis::fault::Fault;
use crate::edit::{Edit, apply};
use crate::light::fields::Fields;
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::upgrade::upgraded;
use crate::plan::{Plan, SoundPlan, Sowing, Tray};
use crate::room::container::TrayFormat;
use crate::room::place::{Kind, Rack};
use crate::room::{BayRef, Place, Tier};
use crate::season::{Reckoned, SowingDates};

/// The Kettle Fen demo as JSON: six places and a whole season.
pub const KETTLE_FEN: &str = include_str!("../../../demo/kettle-fen.json");
/// The Alder Bluff demo: one rack, in the units of North America.
pub const ALDER_BLUFF: &str = include_str!("../../../demo/alder-bluff.json");
/// A wire rack with four lit tiers, a store on top and fifteen trays, in the first form of the
/// document.
pub const ONE_RACK: &str = include_str!("../fixtures/one-rack-v1.json");

/// The demo as it was in the second form of the document.
pub const KETTLE_FEN_V2: &str = include_str!("../fixtures/kettle-fen-v2.json");

/// Reads a document of any version.
pub fn read(json: &str) -> Plan {
    let document = serde_json::from_str(json).expect("a fixture is JSON");
    serde_json::from_value(upgraded(document)).expect("a fixture is a plan")
}

/// `plan`, which has no fault.
pub fn sound(plan: Plan) -> SoundPlan {
    plan.check().unwrap_or_else(|faults| panic!("{faults:#?}"))
}

fn changed(json: &str, change: impl FnOnce(&mut Plan)) -> SoundPlan {
    let mut plan = read(json);
    change(&mut plan);
    sound(plan)
}

/// The demo with all its places.
pub fn kettle_fen(change: impl FnOnce(&mut Plan)) -> SoundPlan {
    changed(KETTLE_FEN, change)
}

/// The smaller demo.
pub fn alder_bluff(change: impl FnOnce(&mut Plan)) -> SoundPlan {
    changed(ALDER_BLUFF, change)
}

/// The rack of the first form of the document.
pub fn one_rack(change: impl FnOnce(&mut Plan)) -> SoundPlan {
    changed(ONE_RACK, change)
}

/// The plan that `edit` makes of `plan`.
pub fn done(plan: &SoundPlan, edit: &Edit) -> SoundPlan {
    let edited = apply(plan, edit).unwrap_or_else(|faults| panic!("{edit:?}: {faults:?}"));
    sound(edited.plan)
}

/// The first reason for which `edit` cannot be done to `plan`.
pub fn refused(plan: &SoundPlan, edit: &Edit) -> Fault {
    apply(plan, edit).expect_err("it cannot be done").remove(0)
}

/// An entry of the log: `fact` happened on a day.
pub fn noted(on: Date, fact: Fact) -> Entry {
    static NEXT: AtomicU32 = AtomicU32::new(0);
    Entry {
        id: format!("e{}", NEXT.fetch_add(1, Ordering::Relaxed)),
        on,
        at_h: None,
        corrects: None,
        fact: Some(fact),
        text: String::new(),
        photo: None,
    }
}

/// `plan` after what `entries` tell.
pub fn after(plan: SoundPlan, entries: impl IntoIterator<Item = Entry>) -> SoundPlan {
    plan.after(Arc::new(Told::of(entries).happened()))
}

/// What follows from `plan`; light that any test reckoned is remembered.
pub fn reckoned(plan: &SoundPlan) -> Reckoned<'_> {
    Reckoned::of(plan, fields())
}

/// The light that any test reckoned.
pub fn fields() -> &'static Fields {
    static FIELDS: LazyLock<Fields> = LazyLock::new(Fields::default);
    &FIELDS
}

/// The bay of `place` over its `tier`.
pub fn bay(place: &str, tier: &str) -> BayRef {
    BayRef {
        place: place.into(),
        tier: tier.into(),
    }
}

/// The place called `id`.
pub fn place<'p>(plan: &'p mut Plan, id: &str) -> &'p mut Place {
    let mut places = plan.places.iter_mut();
    places.find(|place| place.id == id).expect(id)
}

/// The tier called `id` of the place called `of`.
pub fn tier<'p>(plan: &'p mut Plan, of: &str, id: &str) -> &'p mut Tier {
    let mut tiers = place(plan, of).tiers.iter_mut();
    tiers.find(|tier| tier.id == id).expect(id)
}

/// The tray called `id`.
pub fn tray<'p>(plan: &'p mut Plan, id: &str) -> &'p mut Tray {
    plan.trays.iter_mut().find(|tray| tray.id == id).expect(id)
}

/// The tray format called `id`.
pub fn format<'p>(plan: &'p mut Plan, id: &str) -> &'p mut TrayFormat {
    let mut formats = plan.tray_formats.iter_mut();
    formats.find(|format| format.id == id).expect(id)
}

/// The sowing called `id`.
pub fn sowing<'p>(plan: &'p mut Plan, id: &str) -> &'p mut Sowing {
    let mut sowings = plan.sowings.iter_mut();
    sowings.find(|sowing| sowing.id == id).expect(id)
}

/// The dates of the sowing called `id`.
pub fn dates_of<'r>(reckoned: &'r Reckoned<'_>, id: &str) -> &'r SowingDates {
    let mut dates = reckoned.dates.iter();
    dates.find(|dates| dates.sowing == id).expect(id)
}

/// `place` as a rack.
pub fn rack(place: &mut Place) -> &mut Rack {
    match &mut place.kind {
        Kind::Rack(rack) => rack,
        other => panic!("{other:?} is no rack"),
    }
}
