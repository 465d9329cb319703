//! What does not depend on any plan.

use crate::basis::units::{UnitRow, shown_units};
use crate::crops;
use crate::crops::Library;
use crate::room::shelf;
use crate::room::shelf::Kinds;

/// The crops that come with the application.
pub fn crops() -> &'static Library {
    crops::library()
}

/// The generic kinds of places, gear and containers.
pub fn kinds() -> &'static Kinds {
    shelf::library()
}

/// How every quantity is written in either system of units.
pub fn units() -> Vec<UnitRow> {
    shown_units()
}
