//! Triggers when two heat mats lie on one another:
//! covered they overheat.

use crate::advice::finding::{Finding, Severity};
use crate::basis::plane::Footprint;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::room::Mat;

fn outline(mat: &Mat) -> Footprint {
    let [w, d] = mat.size_mm();
    Footprint {
        x_mm: [mat.x_mm, mat.x_mm + w],
        y_mm: [mat.y_mm, mat.y_mm + d],
    }
}

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let mats = &view.bay.tier.mats;
    let pairs = mats.iter().enumerate();
    let (lower, upper) = pairs
        .flat_map(|(i, a)| mats[i + 1..].iter().map(move |b| (a, b)))
        .find(|(a, b)| outline(a).overlaps(&outline(b)))?;
    Some(Finding::of_bay(
        view,
        Severity::Harm,
        say!("Lay the heat mats side by side"),
        say!(
            "{upper} lies on {lower}, and a covered or folded mat overheats and can burn. Keep mats flat, under trays only, on an RCD (GFCI) socket.",
            upper = &upper.name,
            lower = &lower.name,
        ),
    ))
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen, tier};
    use jiff::civil::date;

    #[test]
    fn mats_on_one_another_are_harm_and_side_by_side_they_are_not() {
        let day = date(2027, 3, 20);
        assert_eq!(judged(&kettle_fen(|_| ()), "t1", day, judge), None);
        let plan = kettle_fen(|plan| {
            let mats = &mut tier(plan, "door", "t1").mats;
            mats[1].x_mm = mats[0].x_mm + 100.0;
        });
        assert!(judged(&plan, "t1", day, judge).is_some());
    }
}
