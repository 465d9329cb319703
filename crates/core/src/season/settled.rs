//! When everything happens, once who stands beside whom is settled.

use crate::light::fields::Fields;
use crate::plan::SoundPlan;
use crate::season::company::Known;
use crate::season::dates::dates_in;
use crate::season::in_the_bed::YearOutdoors;
use crate::season::moments::TrayMoments;
use crate::season::paces::choose_settings;
use crate::season::sowing_dates::SowingDates;
use crate::season::spot_light::SpotLights;

/// The dates of every sowing, in the plan's order.
pub fn dates(plan: &SoundPlan) -> Vec<SowingDates> {
    dates_again(plan, &Fields::default())
}

/// The same as [`dates`] for somebody who asks again and again: light that `fields` remembers is not
/// reckoned anew.
pub fn dates_again(plan: &SoundPlan, fields: &Fields) -> Vec<SowingDates> {
    settled(plan, fields, &mut SpotLights::new(plan, fields)).0
}

/// So often is it asked at most who stands where.
const ROUNDS: usize = 4;

/// The dates of every sowing and the moments of every tray, in the plan's order. Who stands beside a tray
/// bears on when it comes up, and that on who stands beside another: reckoned with everybody alone first,
/// then with those who stand there by that, until nothing moves.
pub(super) fn settled<'a>(
    plan: &'a SoundPlan,
    fields: &'a Fields,
    lights: &mut SpotLights<'a>,
) -> (Vec<SowingDates>, Vec<TrayMoments>) {
    let reckon = |known: Option<Known<'_>>, lights: &mut SpotLights<'a>| {
        let dates = dates_in(plan, fields, known, lights);
        let moments = TrayMoments::all(plan, &dates);
        (dates, moments)
    };
    choose_settings(plan, lights);
    let mut last = reckon(None, lights);
    for _ in 1..ROUNDS {
        let known = Known {
            dates: &last.0,
            moments: &last.1,
        };
        let now = reckon(Some(known), lights);
        let stays = known.alike(&Known {
            dates: &now.0,
            moments: &now.1,
        });
        last = now;
        if stays {
            break;
        }
    }
    let outdoors = YearOutdoors::of(plan);
    for (dates, sowing) in last.0.iter_mut().zip(&plan.sowings) {
        if sowing.stays.is_none() && !sowing.autumn {
            dates.in_the_bed = outdoors.in_the_bed(plan.crop(sowing), dates.out);
        }
    }
    last
}
