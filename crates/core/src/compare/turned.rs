//! The trays of a bay turned a quarter.

use jiff::civil::Date;

use crate::basis::plane::Axis;
use crate::day::standing::{Standing, standing_in};
use crate::plan::Stand;
use crate::room::Bay;
use crate::season::Reckoned;

/// A tray that stands otherwise.
#[derive(Debug, Clone)]
pub(super) struct Restood {
    /// Its index in the plan.
    pub(super) tray: usize,
    /// The index of the stand that changes.
    pub(super) stand: usize,
    /// What it becomes.
    pub(super) to: Stand,
}

/// Trays side by side, and how far they reach along the deck.
#[derive(Default)]
struct Row {
    used_mm: f64,
    depth_mm: f64,
    trays: Vec<Restood>,
}

/// The trays of a bay turned a quarter, in rows from the front; none where they do not fit so.
pub(super) fn turned(bay: &Bay<'_>, reckoned: &Reckoned<'_>, date: Date) -> Vec<Restood> {
    let plan = reckoned.plan;
    let standing = standing_in(reckoned, bay, date);
    let [width, depth] = [bay.place.width_mm, bay.place.depth_mm];
    let mut order: Vec<_> = standing.iter().collect();
    order.sort_by(|a, b| {
        let corner = |s: &Standing<'_>| [s.footprint.y_mm[0], s.footprint.x_mm[0]];
        let ([ay, ax], [by, bx]) = (corner(a), corner(b));
        ay.total_cmp(&by).then(ax.total_cmp(&bx))
    });
    let mut rows = vec![Row::default()];
    for s in order {
        let Some(old) = s.tray.stand_on(s.stage, date) else {
            continue;
        };
        let tray = plan.tray_index(&s.tray.id);
        let stand = s.tray.stands.iter().position(|other| other == old);
        let (Some(tray), Some(stand)) = (tray, stand) else {
            continue;
        };
        let along = match old.along {
            Axis::X => Axis::Y,
            Axis::Y => Axis::X,
        };
        let [w, d] = along.lay(s.format.length_mm, s.format.width_mm);
        if w > width {
            return Vec::new();
        }
        if rows.last().is_some_and(|row| row.used_mm + w > width) {
            rows.push(Row::default());
        }
        let front: f64 = rows[..rows.len() - 1].iter().map(|row| row.depth_mm).sum();
        let Some(row) = rows.last_mut() else { continue };
        let to = Stand {
            x_mm: row.used_mm,
            y_mm: front,
            along,
            ..old.clone()
        };
        row.used_mm += w;
        row.depth_mm = row.depth_mm.max(d);
        row.trays.push(Restood { tray, stand, to });
    }
    let used: f64 = rows.iter().map(|row| row.depth_mm).sum();
    if used > depth {
        return Vec::new();
    }
    // In the middle of the deck, as a hand would push them.
    for row in &mut rows {
        for tray in &mut row.trays {
            tray.to.x_mm += (width - row.used_mm) / 2.0;
            tray.to.y_mm += (depth - used) / 2.0;
        }
    }
    rows.into_iter().flat_map(|row| row.trays).collect()
}
