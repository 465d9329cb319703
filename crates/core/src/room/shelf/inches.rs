//! The generic kinds as they are sold where people measure in inches.

use std::collections::BTreeMap;

use crate::basis::units::MM_PER_INCH;
use crate::room::shelf::kinds::Kinds;
use crate::room::tier::Tier;

/// The nearest whole multiple of `step_in` inches, in mm; never nothing for something.
fn rounded_mm(mm: f64, step_in: f64) -> f64 {
    let step_mm = step_in * MM_PER_INCH;
    if mm == 0.0 {
        return 0.0;
    }
    step_mm * (mm / step_mm).round().max(1.0)
}

/// Outer sizes are whole inches, those of trays quarters; decks lie at what their posts or rails allow.
pub(super) fn in_inches(mut kinds: Kinds) -> Kinds {
    let names: BTreeMap<String, String> =
        toml::from_str(include_str!("inch_names.toml")).expect("the names in inches read");
    let named = |id: &str, name: &mut String| {
        if let Some(inches) = names.get(id) {
            name.clone_from(inches);
        }
    };
    for place in &mut kinds.places {
        for mm in [
            &mut place.width_mm,
            &mut place.depth_mm,
            &mut place.height_mm,
        ] {
            *mm = rounded_mm(*mm, 1.0);
        }
        let pitch_mm = place.pitch_mm().map(|mm| rounded_mm(mm, 1.0));
        if let Some(mm) = pitch_mm {
            place.set_pitch_mm(mm);
        }
        let step_in = pitch_mm.map_or(1.0, |mm| mm / MM_PER_INCH);
        let deck = |tier: &mut Tier| {
            tier.deck_height_mm = rounded_mm(tier.deck_height_mm, step_in);
        };
        place.tiers.iter_mut().for_each(deck);
    }
    for lamp in &mut kinds.lamps {
        named(&lamp.id, &mut lamp.name);
    }
    for mat in &mut kinds.mats {
        named(&mat.id, &mut mat.name);
        mat.length_mm = rounded_mm(mat.length_mm, 1.0);
        mat.width_mm = rounded_mm(mat.width_mm, 1.0);
    }
    for fan in &mut kinds.fans {
        named(&fan.id, &mut fan.name);
    }
    for container in &mut kinds.containers {
        named(&container.id, &mut container.name);
        container.length_mm = rounded_mm(container.length_mm, 0.25);
        container.width_mm = rounded_mm(container.width_mm, 0.25);
    }
    kinds
}
