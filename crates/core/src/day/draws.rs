//! What draws in a bay on a day: lamps that burn, mats with something on them, fans over what grows.

use jiff::civil::Date;

use crate::basis::clock::{ClockSpan, DAY_H};
use crate::day::closed_air::ClosedAir;
use crate::day::standing::Standing;
use crate::plan::Plan;
use crate::power::draw::{Draw, Drawer};
use crate::room::{Bay, Tier, bays};
use crate::season::Reckoned;
use crate::season::stays::Stay;

/// The hours in which the lamps of `tier` burn; `None` when they burn all day.
fn hours(tier: &Tier) -> Option<ClockSpan> {
    let burning = tier.burning();
    (burning.hours < DAY_H).then(|| ClockSpan {
        from_h: burning.from_h,
        to_h: burning.to_h(),
    })
}

/// What draws in `bay`, whose lamps are `burning` that day and each of whose mats is on for a share of it:
/// `mats` holds their indices and those shares. A fan runs all day while something stands there, as it
/// does in most rooms (common practice, no source).
pub(super) fn of_bay(
    bay: &Bay<'_>,
    burning: bool,
    occupied: bool,
    mats: &[(usize, f64)],
    closed: Option<&ClosedAir>,
) -> Vec<Draw> {
    let tier = bay.tier;
    let draw = |what: Drawer, id: &str, name: &str, watts: f64, plugged: &Option<String>| Draw {
        what,
        bay: Some(bay.reference()),
        id: id.into(),
        name: name.into(),
        watts,
        power_factor: None,
        plugged: plugged.clone(),
        hours: None,
        duty: 1.0,
    };
    let lamps = tier
        .lamps
        .iter()
        .filter(|_| burning && tier.photoperiod_h > 0.0);
    let lamps = lamps.map(|lamp| Draw {
        power_factor: lamp.power_factor,
        hours: hours(tier),
        ..draw(
            Drawer::Lamp,
            &lamp.id,
            &lamp.name,
            lamp.drawn_w(),
            &lamp.plugged,
        )
    });
    let in_chamber = closed.is_some_and(|air| air.probe_mm.is_some());
    let kind = if in_chamber || bay.place.chamber().is_some() {
        Drawer::Chamber
    } else {
        Drawer::Mat
    };
    let mats = mats.iter().map(|&(i, duty)| {
        let mat = &tier.mats[i];
        Draw {
            duty,
            ..draw(kind, &mat.id, &mat.name, mat.watts, &mat.plugged)
        }
    });
    let fans = tier.fans.iter().filter(|_| occupied);
    let fans = fans.map(|fan| draw(Drawer::Fan, &fan.id, &fan.name, fan.watts, &fan.plugged));
    lamps.chain(mats).chain(fans).collect()
}

/// Whether the fans of `bay` run on `date`: over what is `standing` there, one that turns over what stands
/// anywhere indoors, one that is carried by turns over what stands there.
pub(super) fn fans_run(
    reckoned: &Reckoned<'_>,
    bay: &Bay<'_>,
    standing: &[Standing<'_>],
    date: Date,
) -> bool {
    let indoors = |stay: &Stay<'_>| {
        let place = reckoned.plan.place(&stay.bay.place);
        stay.days.contains(date) && place.is_some_and(|place| !place.outdoors())
    };
    let by_turns = |stay: &Stay<'_>| {
        let mut fans = bay.tier.fans.iter();
        let carried = fans.any(|fan| fan.by_turns.contains(&stay.bay.tier));
        stay.bay.place == bay.place.id && carried && stay.days.contains(date)
    };
    let fans = &bay.tier.fans;
    let turns = fans.iter().any(|fan| fan.turns);
    let elsewhere = turns || fans.iter().any(|fan| !fan.by_turns.is_empty());
    let mut stays = reckoned.stays.iter();
    let over = |stay: &Stay<'_>| turns && indoors(stay) || by_turns(stay);
    !standing.is_empty() || elsewhere && stays.any(over)
}

/// What all gear of `plan` draws by its labels, with every lamp at its own hours, and the household's things:
/// the worst that may happen on any day.
pub fn by_label(plan: &Plan) -> Vec<Draw> {
    let mut draws = Vec::new();
    for bay in bays(&plan.places) {
        let mats: Vec<(usize, f64)> = (0..bay.tier.mats.len()).map(|i| (i, 1.0)).collect();
        let mut own = of_bay(&bay, true, true, &mats, None);
        // A dimmer may be turned up.
        let lamps = own.iter_mut().filter(|draw| draw.what == Drawer::Lamp);
        for (draw, lamp) in lamps.zip(&bay.tier.lamps) {
            draw.watts = lamp.watts;
        }
        draws.append(&mut own);
    }
    draws.extend(of_household(plan));
    draws
}

/// What the household draws besides, every day.
pub fn of_household(plan: &Plan) -> Vec<Draw> {
    let each = plan.wiring.appliances.iter().map(|appliance| Draw {
        what: Drawer::Appliance,
        bay: None,
        id: appliance.id.clone(),
        name: appliance.name.clone(),
        watts: appliance.watts,
        power_factor: None,
        plugged: appliance.plugged.clone(),
        hours: appliance.hours,
        duty: appliance.duty.unwrap_or(1.0),
    });
    each.collect()
}
