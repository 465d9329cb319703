//! Triggers when a cover outdoors is kept shut over trays, and a clear day would cook them.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::{Cover, Opens, place_pointer};
use crate::warmth::under_cover::{Weather, under_cover};

/// Seedlings suffer from more in an afternoon (common practice, no source).
const TOO_HOT_C: f64 = 32.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let cover = view.bay.place.cover()?;
    let first = view.standing.first()?;
    if cover.opens == Opens::WhenWarm {
        return None;
    }
    let on = |cover: Cover| {
        let place = view.bay.place.with_cover(cover);
        under_cover(&view.plan.site, &place, view.date, Weather::Clear)
    };
    let opened = Cover {
        opens: Opens::WhenWarm,
        ..cover
    };
    let (now, then) = (on(cover)?, on(opened)?);
    if now.most_c <= TOO_HOT_C {
        return None;
    }
    let name = &view.bay.place.name;
    let at = place_pointer(view.bay.place_index);
    let at = at.at("kind").at("cold_frame").at("cover");
    Some(Finding {
        trays: vec![first.tray.id.clone()],
        source: OWN_ESTIMATE,
        fixes: vec![Fix {
            label: say!("Open it when it gets warm"),
            word: say!("{place} is opened when it gets warm", place = name),
            patch: vec![PatchStep::set(&at, opened)],
        }],
        ..Finding::of_bay(
            view,
            Severity::Harm,
            say!("Open {place} on sunny days", place = name),
            say!(
                "On a clear day it gets {now} in there and seedlings cook within the hour. Propped open as soon as it warms up, it stays at {then}; an opener of wax does it by itself.",
                now = Quantity::TemperatureC.of(now.most_c),
                then = Quantity::TemperatureC.of(then.most_c),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::finding::Finding;
    use crate::advice::testing::{fixed, kettle_fen, place, reckoned};
    use crate::day::detail::Detail;
    use crate::day::view::Looker;
    use crate::plan::SoundPlan;
    use crate::room::{Cover, Kind, Opens};
    use jiff::civil::date;

    fn said(plan: &SoundPlan) -> Option<Finding> {
        let all = reckoned(plan);
        let index = plan.places.iter().position(|p| p.id == "frame").unwrap();
        // Plants harden off in it by then.
        let bays = Looker::new(&all, Detail::All).look(index, date(2027, 5, 10));
        assert!(!bays[0].standing.is_empty());
        judge(&bays[0])
    }

    fn kept(opens: Opens) -> SoundPlan {
        kettle_fen(|plan| {
            let Kind::ColdFrame(frame) = &mut place(plan, "frame").kind else {
                panic!("a frame");
            };
            frame.cover = Some(Cover {
                opens,
                ..Cover::USUAL
            });
        })
    }

    #[test]
    fn a_frame_that_stays_shut_in_may_is_told_to_be_opened() {
        let shut = kept(Opens::Never);
        let finding = said(&shut).expect("it cooks");
        assert!(finding.headline.to_string().contains("sunny days"));
        assert!(said(&fixed(&shut, &finding)).is_none());
        assert!(said(&kept(Opens::WhenWarm)).is_none());
    }
}
