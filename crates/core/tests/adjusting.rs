//! Links, boxes and dimmers: what is advised can be set by a hand, and follows the plants.

use jiff::civil::date;
use sunrise_core::ask::assess;
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::bay::BayOnDay;
use sunrise_core::day::detail::Detail;
use sunrise_core::day::hang::Hang;
use sunrise_core::lamps::adjust::{Adjustment, Step};
use sunrise_core::room::{Adjust, Boxes, Chain, Dimmer, Side, Tier};
use sunrise_core::testing::{self, kettle_fen, tier};

fn bay(change: impl FnOnce(&mut Tier)) -> BayOnDay {
    let plan = kettle_fen(|plan| change(tier(plan, "door", "t2")));
    let bay = testing::bay("door", "t2");
    let day = DateSpan::day(date(2027, 4, 9));
    let assessment = assess(&plan, day, Detail::Bay(bay.clone()));
    let bays = &assessment.room[0].bays;
    bays.iter().find(|b| b.bay == bay).unwrap().clone()
}

fn changes(hang: &Hang) -> &[Adjustment] {
    &hang.detail.as_ref().expect("it was asked for").adjustments
}

fn hang(change: impl FnOnce(&mut Tier)) -> Hang {
    bay(change).hang.unwrap()
}

#[test]
fn chains_move_by_whole_links() {
    let link_mm = 27.0;
    let low = |tier: &mut Tier| {
        tier.adjust = Some(Adjust::Chain(Chain { link_mm }));
        tier.lamps
            .iter_mut()
            .for_each(|lamp| lamp.height_mm = 190.0);
    };
    let (highest, hang) = (bay(low).highest_face_mm, hang(low));
    let mut height_mm = 190.0;
    let first = (hang.setting, hang.step);
    let later = changes(&hang).iter().map(|a| (a.setting, a.step));
    for (i, (setting, step)) in std::iter::once(first).chain(later).enumerate() {
        let links = (highest - setting.height_mm) / link_mm;
        assert!((links - links.round()).abs() < 1e-9, "{setting:?}");
        let Step::Links {
            links: said,
            change,
        } = step
        else {
            panic!("{step:?}");
        };
        assert_eq!(f64::from(said), links.round());
        let moved = (height_mm - setting.height_mm) / link_mm;
        assert!(
            (f64::from(change) - moved).abs() <= 0.5,
            "{change} for {moved}"
        );
        // The list begins from the lamps as they hang, not from what is advised today.
        height_mm = if i == 0 { 190.0 } else { setting.height_mm };
    }
    assert!(!changes(&hang).is_empty());
}

#[test]
fn the_list_runs_forward_and_never_lets_leaves_touch() {
    let hang = hang(|tier| tier.adjust = Some(Adjust::Chain(Chain { link_mm: 20.0 })));
    let pairs = changes(&hang).windows(2);
    assert!(changes(&hang).len() >= 2);
    for pair in pairs {
        assert!(pair[0].date < pair[1].date);
        assert_ne!(pair[0].setting, pair[1].setting);
    }
    assert!(
        changes(&hang).iter().all(|a| a.gap_mm >= 49.0),
        "{:?}",
        changes(&hang)
    );
}

#[test]
fn boxes_lift_trays_to_lamps_that_stay() {
    let boxes = |stacked_mm| {
        move |tier: &mut Tier| {
            tier.lamps
                .iter_mut()
                .for_each(|lamp| lamp.height_mm = 330.0);
            tier.adjust = Some(Adjust::Boxes(Boxes {
                heights_mm: vec![40.0, 80.0],
                stacked_mm,
            }));
        }
    };
    let on_deck = hang(boxes(0.0));
    assert_eq!(on_deck.setting.height_mm, 330.0);
    assert!([0.0, 40.0, 80.0, 120.0].contains(&on_deck.setting.lift_mm));
    let (flat, lifted) = (
        bay(boxes(0.0)).light.unwrap(),
        bay(boxes(80.0)).light.unwrap(),
    );
    assert!((flat.gap_mm - lifted.gap_mm - 80.0).abs() < 1e-9);
    assert!(lifted.ppfd.best > flat.ppfd.best);
    // As plants grow boxes are taken away, never added.
    let lifts: Vec<f64> = on_deck
        .detail
        .as_ref()
        .unwrap()
        .adjustments
        .iter()
        .map(|a| a.setting.lift_mm)
        .collect();
    assert!(lifts.windows(2).all(|w| w[1] <= w[0]), "{lifts:?}");
    // What stands on boxes is judged by the same light as lamps hung lower.
    let advised = hang(boxes(on_deck.setting.lift_mm));
    assert!((advised.now.under - on_deck.then.under).abs() < 0.03);
}

#[test]
fn what_cannot_move_is_set_by_its_hours_and_its_dimmer() {
    let fixed = |tier: &mut Tier| tier.adjust = Some(Adjust::Fixed);
    let hang_fixed = hang(fixed);
    assert_eq!(hang_fixed.step, Step::Fixed);
    assert_eq!(hang_fixed.setting.brightness, 1.0);
    let strong = |tier: &mut Tier| {
        fixed(tier);
        for lamp in &mut tier.lamps {
            lamp.flux_lm *= 4.0;
            lamp.dimmer = Some(Dimmer {
                steps: vec![0.25, 0.5, 1.0],
                at: 2,
            });
        }
    };
    let dimmed = hang(strong);
    assert!(dimmed.setting.brightness < 1.0, "{:?}", dimmed.setting);
    assert!(dimmed.then.harmed <= dimmed.now.harmed && dimmed.then.unused < dimmed.now.unused);
}

#[test]
fn in_a_foil_box_fixed_lamps_serve_small_and_tall_alike() {
    let lined = |tier: &mut Tier| {
        let foil = Side::Foil;
        let sides = [
            &mut tier.sides.left,
            &mut tier.sides.right,
            &mut tier.sides.back,
            &mut tier.sides.front,
            &mut tier.sides.top,
        ];
        sides.into_iter().for_each(|side| *side = foil);
    };
    let (open, closed) = (bay(|_| ()).light.unwrap(), bay(lined).light.unwrap());
    assert!(
        closed.sent_back > 0.2 * open.ppfd.mean,
        "{} of {}",
        closed.sent_back,
        open.ppfd.mean
    );
    assert!(
        closed.evenness > open.evenness && closed.ppfd.mean > 1.2 * open.ppfd.mean,
        "{closed:?} {open:?}"
    );
    assert!(closed.lux.mean > 60.0 * closed.ppfd.mean);
    assert!(open.under >= closed.under);
}

#[test]
fn wires_let_light_down_and_liners_do_not() {
    let with_liner = |liner: bool| {
        let plan = kettle_fen(|plan| tier(plan, "door", "t3").liner = liner);
        let days = DateSpan::day(date(2027, 4, 9));
        let assessment = assess(&plan, days, Detail::Outline);
        let bays = &assessment.room[0].bays;
        let below = bays.iter().find(|b| b.bay.tier == "t2").unwrap();
        below.light.clone().unwrap()
    };
    let (through, kept) = (with_liner(false), with_liner(true));
    assert_eq!(kept.from_above_mol_m2_d, 0.0);
    assert!(through.dli.mean >= kept.dli.mean);
}
