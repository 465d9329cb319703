//! What is to be done on a day, as a walk round the room: every job with its reason, what to note when it is
//! done, and what can wait.

mod counting;
mod dated;
mod feeding;
mod gear;
mod hardening;
mod job;
mod look;
mod recipe;
mod thirst;
mod unlogged;
mod upkeep;
mod walk;
mod water_ahead;
mod watering;

pub use job::{Asks, Job, JobFact, JobKind, Pressing};
pub use recipe::Recipe;
pub use unlogged::{DatedFact, Unlogged};
pub use walk::{Stop, Today};
pub use water_ahead::{NextWater, WaterAhead, WaterWeek};
