//! What does not depend on any plan.

use crate::basis::units::{UnitRow, UnitSystem, shown_units};
use crate::crops;
use crate::crops::Library;
use crate::room::shelf;
use crate::room::shelf::Kinds;
use crate::site::home;
use crate::site::home::Home;

/// The crops that come with the application.
pub fn crops() -> &'static Library {
    crops::library()
}

/// The generic kinds of places, gear and containers, in the sizes sold to people who measure in
/// `system`.
pub fn kinds(system: UnitSystem) -> &'static Kinds {
    shelf::library_in(system)
}

/// Towns to live in.
pub fn homes() -> &'static [Home] {
    home::homes()
}

/// How every quantity is written in either system of units.
pub fn units() -> Vec<UnitRow> {
    shown_units()
}
