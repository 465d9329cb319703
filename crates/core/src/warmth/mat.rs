//! Which mat lies under a tray.

use crate::basis::plane::Footprint;
use crate::room::{Mat, Tier};

/// The share of a tray's area that a mat lies under.
pub fn cover(mat: &Mat, tray: &Footprint) -> f64 {
    let [w, d] = mat.size_mm();
    let over =
        |a: [f64; 2], from: f64, size: f64| (a[1].min(from + size) - a[0].max(from)).max(0.0);
    let shared = over(tray.x_mm, mat.x_mm, w) * over(tray.y_mm, mat.y_mm, d);
    shared / ((tray.x_mm[1] - tray.x_mm[0]) * (tray.y_mm[1] - tray.y_mm[0]))
}

/// The mat that lies under most of a tray; `None` when none does.
pub fn mat_under<'a>(tier: &'a Tier, tray: &Footprint) -> Option<(&'a Mat, f64)> {
    const TOUCHES: f64 = 0.01;
    let under = tier.mats.iter().map(|mat| (mat, cover(mat, tray)));
    under
        .filter(|(_, cover)| *cover > TOUCHES)
        .max_by(|a, b| a.1.total_cmp(&b.1))
}
