//! Rectangles on a deck, and which way things lie there.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::units::area_m2;

/// A direction in the deck's plane.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Axis {
    /// Along the front.
    X,
    /// From front to back.
    Y,
}

impl Axis {
    /// The extent along x and along y of something `length_mm` long this way and `width_mm` wide.
    pub fn lay(self, length_mm: f64, width_mm: f64) -> [f64; 2] {
        match self {
            Self::X => [length_mm, width_mm],
            Self::Y => [width_mm, length_mm],
        }
    }
}

/// A tray's outline on the deck.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Footprint {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Front and back edge.
    pub y_mm: [f64; 2],
}

impl Footprint {
    /// What it covers, in m².
    pub fn area_m2(&self) -> f64 {
        area_m2(self.x_mm[1] - self.x_mm[0], self.y_mm[1] - self.y_mm[0])
    }

    /// Whether two trays cannot both stand: more than a rim's width of each lies in the other.
    pub fn overlaps(&self, other: &Self) -> bool {
        const RIM_MM: f64 = 2.0;
        let over = |a: [f64; 2], b: [f64; 2]| a[1].min(b[1]) - a[0].max(b[0]) > RIM_MM;
        over(self.x_mm, other.x_mm) && over(self.y_mm, other.y_mm)
    }

    /// How far two outlines are apart along x and along y; less than 0 where they lie side by side that way.
    pub fn apart_mm(&self, other: &Self) -> [f64; 2] {
        let gap = |a: [f64; 2], b: [f64; 2]| (b[0] - a[1]).max(a[0] - b[1]);
        [gap(self.x_mm, other.x_mm), gap(self.y_mm, other.y_mm)]
    }

    /// The centres of `columns` x `rows` cells, row by row from the front left.
    pub fn cells(&self, columns: u32, rows: u32) -> Vec<(f64, f64)> {
        let [columns, rows] = self.lines(columns, rows);
        let row = |&y: &f64| columns.iter().map(move |&x| (x, y));
        rows.iter().flat_map(row).collect()
    }

    /// Where along x the centres of so many columns lie, and along y those of so many rows.
    pub fn lines(&self, columns: u32, rows: u32) -> [Vec<f64>; 2] {
        let centres = |edge: [f64; 2], n: u32| {
            let centre = |i| edge[0] + (edge[1] - edge[0]) * (f64::from(i) + 0.5) / f64::from(n);
            (0..n).map(centre).collect()
        };
        [centres(self.x_mm, columns), centres(self.y_mm, rows)]
    }
}
