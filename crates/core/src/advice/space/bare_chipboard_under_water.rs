//! Triggers when trays stand on bare chipboard: it swells where water reaches it.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::{Material, place_pointer};

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let bay = &view.bay;
    if bay.place.deck.material != Material::Chipboard || bay.tier.liner || view.standing.is_empty()
    {
        return None;
    }
    let name = bay.name();
    let liner = Fix {
        label: say!("Done: liner laid"),
        word: say!("laid a liner on {bay}", bay = &name),
        patch: vec![PatchStep::replace(&bay.pointer().at("liner"), true)],
    };
    let sealed = Fix {
        label: say!("Done: boards sealed"),
        word: say!("sealed the shelves of {place}", place = &bay.place.name),
        patch: vec![PatchStep::replace(
            &place_pointer(bay.place_index).at("deck").at("material"),
            Material::SealedChipboard,
        )],
    };
    Some(Finding {
        fixes: vec![liner, sealed],
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!("Lay a waterproof liner on {bay}", bay = &name),
            say!(
                "Bare chipboard swells and sags where trays drip. A liner with a raised edge, or sealed faces and edges, keeps the shelf sound."
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack, place};
    use crate::room::Material;
    use jiff::civil::date;

    #[test]
    fn speaks_of_wet_chipboard_until_a_liner_lies_there() {
        let day = date(2027, 3, 31);
        assert_eq!(judged(&one_rack(|_| ()), "t1", day, judge), None);
        let plan = one_rack(|plan| place(plan, "door").deck.material = Material::Chipboard);
        let finding = judged(&plan, "t1", day, judge).unwrap();
        assert_eq!(judged(&fixed(&plan, &finding), "t1", day, judge), None);
        assert_eq!(
            judged(&plan, "t5", day, judge),
            None,
            "no tray stands on the top"
        );
    }
}
