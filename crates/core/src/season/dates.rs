//! When each sowing is sown, shows, hardens off and goes out.

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::units::{DAYS_PER_WEEK, Quantity};
use crate::basis::words::{COMMON_PRACTICE, Statement, Why, say};
use crate::basis::work::{go_on, side_by_side_with};
use crate::crops::GrownFrom;
use crate::crops::emergence::Showing;
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Sowing, Stage, Tray};
use crate::season::airs::Airs;
use crate::season::company::Known;
use crate::season::counting::{Counted, counted};
use crate::season::how_many;
use crate::season::in_bed::InBed;
use crate::season::moments::Moments;
use crate::season::paces::Paces;
use crate::season::past::Past;
use crate::season::potting::Potting;
use crate::season::root_zone::Beds;
use crate::season::sharing::day_of_flat;
use crate::season::sowing_dates::{DatesWhy, SowingDates};
use crate::season::spot_light::SpotLights;

/// When everything happens with everybody where they are `known` to stand.
pub(super) fn dates_in<'a>(
    plan: &'a SoundPlan,
    fields: &'a Fields,
    known: Option<Known<'a>>,
    lights: &mut SpotLights<'_>,
) -> Vec<SowingDates> {
    let mut airs = Airs::new(plan, known);
    let sowings = plan.sowings.iter();
    let paces = sowings.map(|sowing| Paces::of(plan, sowing, lights, &mut airs));
    let paces: Vec<Paces<'_>> = paces.collect();
    let of_its_own = plan.sowings.iter().zip(&paces).collect::<Vec<_>>();
    let beds = || Beds::new(plan, fields, known);
    let mut dates = side_by_side_with(&of_its_own, beds, |beds, (sowing, paces)| {
        go_on();
        dates_of(plan, sowing, None, beds, paces)
    });
    // What shares a flat that is sown on one day; who is in several goes by the first.
    let mut in_a_flat = vec![false; dates.len()];
    let mut shared: Vec<(usize, (&Tray, Date))> = Vec::new();
    let together = |tray: &&Tray| tray.sown_together && !tray.potted;
    for tray in plan.trays.iter().filter(together) {
        let mut own: Vec<usize> = tray
            .parts
            .iter()
            .map(|part| plan.sowing_index(&part.sowing))
            .filter(|&i| !in_a_flat[i] && plan.sowings[i].stays.is_none())
            .collect();
        own.sort();
        own.dedup();
        let days = |of: &dyn Fn(usize) -> bool| {
            own.iter()
                .filter(|&&i| of(i))
                .map(|&i| dates[i].sow)
                .collect()
        };
        // A day that is fixed for one is the day of all.
        let fixed = |i: usize| {
            let sowing = &plan.sowings[i];
            sowing.sow_on.is_some() || Past::of(plan, sowing).sown.is_some()
        };
        let day = day_of_flat(days(&fixed)).or_else(|| day_of_flat(days(&|_| true)));
        let Some(day) = day else {
            continue;
        };
        for i in own {
            in_a_flat[i] = true;
            shared.push((i, (tray, day)));
        }
    }
    let in_flats = side_by_side_with(&shared, beds, |beds, (i, flat)| {
        go_on();
        dates_of(plan, &plan.sowings[*i], Some(*flat), beds, &paces[*i])
    });
    for ((i, _), own) in shared.iter().zip(in_flats) {
        dates[*i] = own;
    }
    dates
}

/// Counts back from the last frost: planting out so many weeks after it, sowing so many weeks
/// before that, and earlier still by the days that emergence here takes longer than at the
/// temperature advised for the crop. What is sown in a flat with others is sown on its day.
fn dates_of<'a>(
    plan: &'a SoundPlan,
    sowing: &'a Sowing,
    flat: Option<(&Tray, Date)>,
    beds: &mut Beds<'a>,
    paces: &Paces<'_>,
) -> SowingDates {
    let crop = plan.crop(sowing);
    let curve = crop.curve();
    let weeks = |weeks: f64| (weeks * DAYS_PER_WEEK).round() as i32;

    if let Some(stays) = sowing.stays {
        return passing(plan, sowing, stays);
    }
    let pace = paces.mean;
    let day = flat.map(|(_, day)| day);
    let past = Past::of(plan, sowing);
    let counted = |late| counted(plan, sowing, day, late, &pace, &past);
    let in_bed = InBed::of(plan, sowing, beds, |late| counted(late).sow);
    let (emergence_days, mean_c, late) = (in_bed.emergence_days, in_bed.mean_c, in_bed.late);
    let counted = counted(late);
    let showing = curve.showing(&in_bed.bed_c);
    let sow = counted.sow;
    let comes_up = in_bed.comes_up(&curve);
    let shows = |days: Option<f64>| days.map(|days| plus_days(sow, days.ceil() as i32));
    let reckoned = |days: fn(&Showing) -> f64| {
        shows(showing.as_ref().map(days)).filter(|_| emergence_days.is_some())
    };
    let reckoned = [
        reckoned(|s| s.first_days),
        reckoned(|s| s.quarter_days),
        shows(emergence_days),
        reckoned(|s| s.last_days),
    ];
    let seen = past.shows(reckoned, comes_up * how_many::viability(plan, sowing).share);
    let behind_days = match (reckoned[2], seen[2]) {
        (Some(reckoned), Some(seen)) => days_between(reckoned, seen),
        _ => 0,
    };
    let Counted { harden, out, .. } = counted.behind(plan, sowing, &past, behind_days);
    let in_time = |day: Option<Date>| day.filter(|&day| day < harden);
    let emerge = in_time(seen[2]);
    let shown = |i: usize| in_time(seen[i]).filter(|_| emerge.is_some());
    let moments = Moments::of(crop, sow, [shown(0), shown(1), emerge, shown(3)]);
    let since = |days: i32| {
        let day = emerge.map(|emerge| plus_days(emerge, days));
        day.filter(|&day| day < harden)
    };
    let potting = Potting::of(plan, sowing, paces, emerge, harden);

    let (germinates, grows) = (
        stands(plan, sowing, Stage::Germinate),
        stands(plan, sowing, Stage::Grow),
    );
    let reckoned_in_air = sowing.root_zone_c.is_none() && !germinates;
    let days = |n: f64| Quantity::Days.of(n);
    let root_zone = Quantity::TemperatureC.of(mean_c);
    let why = DatesWhy {
        sow: Why {
            rule: match (flat, sowing.packet_weeks) {
                _ if past.sown.is_some() => {
                    say!("sown on {sow}, as you logged: that day stays", sow = sow)
                }
                _ if sowing.sown => say!("sown on {sow}: that day stays", sow = sow),
                _ if sowing.sow_on.is_some() => {
                    say!("the day you chose, {sow}: nothing else moves it", sow = sow)
                }
                (Some((tray, day)), _) => say!(
                    "all kinds in {tray} are sown on one day, {day}: the middle of their own",
                    tray = &tray.name,
                    day = day,
                ),
                (None, Some(packet)) => say!(
                    "the packet's {weeks} counted back from planting out on {out}",
                    weeks = Quantity::Weeks.of(packet),
                    out = out,
                ),
                (None, None) => say!(
                    "{weeks} indoors, counted back from planting out on {out}, plus {lost} for coming up in mix at {root_zone} (best is {advised}) and {grows} for growing on at {air}{light}",
                    weeks = Quantity::Weeks.of(crop.weeks_indoors),
                    out = out,
                    lost = days(late.counted.round()),
                    root_zone = root_zone.clone(),
                    advised = Quantity::TemperatureC.of(crop.root_zone_c),
                    grows = days(pace.lost_days.round()),
                    air = Quantity::TemperatureC.of(pace.air_c),
                    light = if pace.dli.is_some() {
                        " in the light it has"
                    } else {
                        ", whatever the light"
                    },
                ),
            },
            source: COMMON_PRACTICE,
        },
        emerge: Why {
            rule: match emergence_days {
                Some(_) if past.last_seen().is_some() => counted_so_far(&past, behind_days),
                Some(mean) if reckoned_in_air => say!(
                    "half are up {days} after sowing at the room's {root_zone}: no tray has a spot yet",
                    days = days(mean),
                    root_zone = root_zone,
                ),
                Some(mean) => say!(
                    "half are up {days} after sowing with the root zone at {root_zone}; the rate is read between the table's temperatures{learned}",
                    days = days(mean),
                    root_zone = root_zone,
                    learned = crop.comes_up_here.map_or_else(String::new, |here| {
                        format!(" and {}", here.words(Quantity::Share))
                    }),
                ),
                None => say!(
                    "at a root zone of {root_zone} the table has none coming up",
                    root_zone = root_zone
                ),
            },
            source: crop.source("emergence"),
        },
        out: Why {
            rule: if let Some(day) = past.planted_out {
                say!("planted out on {day}, as you logged", day = day)
            } else if let Some(day) = sowing.out_on {
                say!("the day you chose, {day}", day = day)
            } else if out > plus_days(plan.usually_out(sowing, crop), sowing.shift_days) {
                say!(
                    "{weeks} after sowing on {sow}: the plants are not ready before",
                    weeks = Quantity::Weeks.of(sowing.packet_weeks.unwrap_or(crop.weeks_indoors)),
                    sow = sow,
                )
            } else if sowing.autumn {
                say!(
                    "to be ready by {ready}, with the first frost on {frost}: {weeks} in the bed, and a fortnight more for the short days",
                    ready = plan.ready_by(crop),
                    frost = plan.site.first_frost_day().day,
                    weeks = Quantity::Weeks.of(crop.ready_weeks),
                )
            } else if crop.weeks_after_last_frost < 0.0 {
                say!(
                    "{crop} is hardy: {weeks} before the last frost on {frost}",
                    weeks = Quantity::Weeks.of(-crop.weeks_after_last_frost),
                    frost = plan.site.last_frost,
                    crop = &crop.name,
                )
            } else {
                say!(
                    "{weeks} after the last frost on {frost}: {crop} is tender",
                    weeks = Quantity::Weeks.of(crop.weeks_after_last_frost),
                    frost = plan.site.last_frost,
                    crop = &crop.name,
                )
            },
            source: crop.source("weeks_after_last_frost"),
        },
    };
    SowingDates {
        sowing: sowing.id.clone(),
        name: sowing.called(&crop.name),
        crop: crop.name.clone(),
        variety: sowing.variety.clone(),
        chill: (crop.cold_weeks > 0.0).then(|| plus_days(sow, -weeks(crop.cold_weeks))),
        sow,
        first: moments.first,
        quarter: moments.quarter,
        emerge: moments.half,
        last: moments.all,
        lamps_on: moments.lamps_on,
        into_light: moments.into_light,
        thin: since(TRUE_LEAVES_DAYS).filter(|_| crop.grown_from == GrownFrom::Seed),
        pot_on: potting.first,
        potting: potting.days,
        harden,
        out,
        frost_risk_out: plan
            .site
            .frost_risk(sowing.covered_until.unwrap_or(out).max(out)),
        comes_up,
        root_zone_c: mean_c,
        late_days: late.days,
        needs_warmth: late.is_too_long() && mean_c < crop.root_zone_c,
        pace: Some(pace).filter(|_| grows),
        stands: germinates,
        in_the_bed: None,
        raised_for_autumn: crop.ready_weeks > 0.0,
        emergence_days,
        sown_logged: past.sown.is_some(),
        seen: past.last_seen(),
        behind_days,
        why,
    }
}

/// What was counted, and what that moves.
fn counted_so_far(past: &Past, behind_days: i32) -> Statement {
    let Some(seen) = past.last_seen() else {
        return say!("nobody has counted yet");
    };
    let count = |n: u32| Quantity::Count.of(f64::from(n));
    let by = Quantity::Days.of(f64::from(behind_days.abs()));
    let (up, of) = (count(seen.count), count(seen.of));
    match behind_days {
        0 => say!(
            "you counted {up} of {of} up on {day}, about as reckoned",
            up = up,
            of = of,
            day = seen.on,
        ),
        late if late > 0 => say!(
            "you counted {up} of {of} up on {day}: {by} later than reckoned, and what follows moves along",
            up = up,
            of = of,
            day = seen.on,
            by = by,
        ),
        _ => say!(
            "you counted {up} of {of} up on {day}: {by} sooner than reckoned",
            up = up,
            of = of,
            day = seen.on,
            by = by,
        ),
    }
}

/// Whether the tray that a sowing is reckoned by stands anywhere in `stage`.
fn stands(plan: &SoundPlan, sowing: &Sowing, stage: Stage) -> bool {
    let first = plan.sown_in(&sowing.id).next();
    first.is_some_and(|tray| tray.stand_in(stage).is_some())
}

/// Days from emergence to the first true leaves: time to thin or to prick out (common practice, no
/// source).
const TRUE_LEAVES_DAYS: i32 = 10;

/// Stock that only passes through: it is there, and nothing germinates.
fn passing(plan: &SoundPlan, sowing: &Sowing, stays: DateSpan) -> SowingDates {
    let crop = plan.crop(sowing);
    let gone = plus_days(stays.to, 1);
    let moments = Moments::there_from(stays.from);
    let why = Why {
        rule: say!(
            "on the shelf from {from} to {to}, not sown here",
            from = stays.from,
            to = stays.to
        ),
        source: "your own dates",
    };
    SowingDates {
        sowing: sowing.id.clone(),
        name: sowing.called(&crop.name),
        crop: crop.name.clone(),
        variety: sowing.variety.clone(),
        chill: None,
        sow: stays.from,
        first: moments.first,
        quarter: moments.quarter,
        emerge: moments.half,
        last: moments.all,
        lamps_on: moments.lamps_on,
        into_light: moments.into_light,
        thin: None,
        pot_on: None,
        potting: Vec::new(),
        harden: gone,
        out: gone,
        frost_risk_out: plan.site.frost_risk(gone),
        comes_up: 1.0,
        root_zone_c: crop.root_zone_c,
        late_days: 0.0,
        needs_warmth: false,
        pace: None,
        stands: stands(plan, sowing, Stage::Grow),
        in_the_bed: None,
        raised_for_autumn: crop.ready_weeks > 0.0,
        emergence_days: Some(0.0),
        sown_logged: false,
        seen: None,
        behind_days: 0,
        why: DatesWhy {
            sow: why.clone(),
            emerge: why.clone(),
            out: why,
        },
    }
}
