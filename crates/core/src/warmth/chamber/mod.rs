//! A germination chamber through the day: walls, vents, heaters and lamps, and layers of air that
//! lie on one another.
//!
//! Every shelf has its own layer of air. Warm air rises from a heater as a plume: most of its heat
//! arrives at the top, and comes down again as far as layers mix. The calculator `chamber`.

mod check;
mod damp;
mod layers;
mod set_up;

pub use layers::stack_flow_m3_s;
pub use set_up::{
    AirThermostat, ChamberDay, ChamberHelp, ChamberLamp, ChamberSetUp, Heater, OpenDoor, SLOT_MM,
    ShelfDay, VentSlot,
};
