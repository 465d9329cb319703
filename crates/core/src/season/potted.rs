//! Which pots the plants of which cells go into.

use crate::plan::{SoundPlan, Tray};

/// Plants of a tray of cells that go into a tray of pots.
#[derive(Debug, Clone, Copy)]
pub struct Potted<'a> {
    /// The cells.
    pub from: &'a Tray,
    /// The pots.
    pub into: &'a Tray,
    /// So many cells give plants.
    pub cells: u32,
    /// So many pots take one.
    pub pots: u32,
}

/// How the plants of a sowing go into its pots: both in the plan's order, the share of the cells that gives
/// plants filling the same share of the pots.
pub fn potted<'a>(plan: &'a SoundPlan, sowing: &str) -> Vec<Potted<'a>> {
    let cells_of = |tray: &Tray| f64::from(plan.cells_in(tray, sowing));
    let cells: f64 = plan.sown_in(sowing).map(cells_of).sum();
    let pots: f64 = plan.potted_into(sowing).map(cells_of).sum();
    let mut going = Vec::new();
    if cells <= 0.0 || pots <= 0.0 {
        return going;
    }
    let mut begins = 0.0;
    for from in plan.sown_in(sowing) {
        let ends = begins + cells_of(from) / cells;
        let mut first = 0.0;
        for into in plan.potted_into(sowing) {
            let last = first + cells_of(into) / pots;
            let shared = (ends.min(last) - f64::max(begins, first)).max(0.0);
            let own = Potted {
                from,
                into,
                cells: (shared * cells).round() as u32,
                pots: (shared * pots).round() as u32,
            };
            if own.pots > 0 {
                going.push(own);
            }
            first = last;
        }
        begins = ends;
    }
    going
}
