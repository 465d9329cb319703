//! What the season takes in current and money: by device, by sowing and by plant, and what is to be
//! bought.

pub mod plants;
pub mod running;
pub mod shopping;
