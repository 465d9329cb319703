//! How tall seedlings stand. A first, plain curve of height against age.

use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::Crop;

/// Height in mm of a seedling `days` after it emerged, 0 before.
///
/// A logistic curve that starts at a few mm and is within 5 % of the crop's height at planting
/// out when the usual weeks indoors have passed. Our own estimate: light, warmth and crowding do
/// not act on it.
pub fn height_mm(crop: &Crop, days: f64) -> f64 {
    if days < 0.0 {
        return 0.0;
    }
    const MIDDLE: f64 = 0.6;
    const STEEPNESS: f64 = 8.0;
    let t = days / (crop.weeks_indoors * DAYS_PER_WEEK);
    crop.height_out_mm / (1.0 + (-STEEPNESS * (t - MIDDLE)).exp())
}

/// The share of a cell that the leaves of a seedling cover, `height_mm` tall and `cell_mm` from
/// its neighbours.
///
/// Our own estimate: leaves spread as wide as the plant is tall, until they meet.
pub fn leaf_cover(height_mm: f64, cell_mm: f64) -> f64 {
    (height_mm / cell_mm.max(1.0)).clamp(0.0, 1.0).powi(2)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn leaves_cover_more_as_they_grow_until_they_meet() {
        let cover: Vec<f64> = [0.0, 10.0, 30.0, 45.0, 90.0]
            .map(|h| leaf_cover(h, 45.0))
            .to_vec();
        assert!(cover.is_sorted());
        assert_eq!((cover[0], cover[3], cover[4]), (0.0, 1.0, 1.0));
    }

    #[test]
    fn grows_from_nothing_to_about_its_planting_height() {
        let crop = crate::crops::library().get("tomato").unwrap();
        assert_eq!(height_mm(crop, -1.0), 0.0);
        let start = height_mm(crop, 0.0);
        assert!((1.0..8.0).contains(&start), "{start} mm at emergence");
        let end = height_mm(crop, crop.weeks_indoors * 7.0);
        assert!((end / crop.height_out_mm - 1.0).abs() < 0.05);
        let heights: Vec<f64> = (0..80).map(|d| height_mm(crop, f64::from(d))).collect();
        assert!(heights.windows(2).all(|w| w[0] < w[1]));
    }
}
