//! When each crop would be sown here, for whoever chooses what to grow.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{DateSpan, plus_days};
use crate::crops;
use crate::crops::{Crop, StartPlace};
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Sowing};
use crate::season::dates_again;

/// A crop, and when it would be sown here.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CropStart {
    /// The crop.
    pub crop: String,
    /// What it is called.
    pub name: String,
    /// What else people call it.
    pub also_called: Vec<String>,
    /// Where it is best sown.
    pub start: StartPlace,
    /// Day to sow it in this room's air.
    pub sow: Date,
    /// Day to plant it out.
    pub out: Date,
    /// Whether gardeners of this climate start it indoors in the month that is next: from `today` on,
    /// or from the season's first sowing.
    pub now: bool,
    /// The same raised for the autumn; `None` where it is not.
    pub autumn: Option<AutumnStart>,
}

/// When a crop would be sown here for the autumn.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct AutumnStart {
    /// Day to sow it in this room's air.
    pub sow: Date,
    /// Day to plant it out.
    pub out: Date,
    /// Day by which it is ready.
    pub ready: Date,
}

/// So many crops are looked at for the autumn, too, at the most.
const AUTUMN_MOST: usize = 100;

/// When each crop would be sown, the first first, for whoever asks on `today`.
pub fn when(plan: &SoundPlan, today: Date, fields: &Fields) -> Vec<CropStart> {
    let mut empty = (**plan).clone();
    empty.sowings.clear();
    empty.trays.clear();
    let own = plan.crops.iter().map(|crop| crop.id.clone());
    let library = crops::library().crops.iter().map(|crop| crop.id.clone());
    let mut ids: Vec<String> = own.chain(library).collect();
    ids.sort();
    ids.dedup();
    empty.sowings = ids.iter().map(|id| Sowing::plain(id, id, "", 6)).collect();
    // A plan holds fewer sowings than there may be crops; what is over has no day of its own.
    const MOST: usize = 400;
    empty.sowings.truncate(MOST);
    let spring = empty.sowings.len();
    let for_autumn = |own: &&Sowing| {
        empty
            .find_crop(&own.crop)
            .is_some_and(|c| c.ready_weeks > 0.0)
    };
    let again = empty.sowings.iter().filter(for_autumn).take(AUTUMN_MOST);
    let again: Vec<Sowing> = again
        .map(|own| Sowing {
            id: format!("{}-in-autumn", own.id),
            autumn: true,
            ..own.clone()
        })
        .collect();
    empty.sowings.extend(again);
    let Ok(empty) = empty.check() else {
        return Vec::new();
    };
    let dates = dates_again(&empty, fields);
    let all = || empty.sowings.iter().zip(&dates);
    let autumn = |crop: &Crop| {
        let mut later = all().skip(spring);
        let (_, dates) = later.find(|(sowing, _)| sowing.crop == crop.id)?;
        Some(AutumnStart {
            sow: dates.sow,
            out: dates.out,
            ready: empty.ready_by(crop),
        })
    };
    let mut starts: Vec<CropStart> = all()
        .take(spring)
        .map(|(sowing, dates)| {
            let crop = empty.crop(sowing);
            CropStart {
                crop: crop.id.clone(),
                name: crop.name.clone(),
                also_called: crop.also_called.clone(),
                start: crop.start,
                sow: dates.sow,
                out: dates.out,
                now: false,
                autumn: autumn(crop),
            }
        })
        .collect();
    starts.sort_by(|a, b| (a.sow, &a.name).cmp(&(b.sow, &b.name)));
    const MONTH_DAYS: i32 = 30;
    let indoors = |start: &CropStart| start.start != StartPlace::Outdoors;
    let ahead = starts
        .iter()
        .filter(|start| indoors(start) && start.sow >= today);
    if let Some(first) = ahead.map(|start| start.sow).next() {
        let month = DateSpan {
            from: first,
            to: plus_days(first, MONTH_DAYS),
        };
        for start in &mut starts {
            start.now = start.start != StartPlace::Outdoors && month.contains(start.sow);
        }
    }
    starts
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::Plan;
    use crate::site::home::Home;
    use jiff::civil::date;

    #[test]
    fn leeks_come_before_tomatoes_and_what_is_near_is_suggested() {
        let home = Home::named("Europe/Vienna");
        let plan = Plan::blank(date(2026, 11, 27), home).check().unwrap();
        let starts = when(&plan, date(2027, 2, 20), &Fields::default());
        let at = |id: &str| starts.iter().position(|start| start.crop == id).unwrap();
        assert!(at("leek") < at("tomato"));
        assert!(starts[at("tomato")].now, "{:?}", starts[at("tomato")]);
        assert!(!starts[at("leek")].now && !starts[at("pea")].now);
        assert!(starts.is_sorted_by_key(|start| start.sow));
        // Kale is raised for the autumn as well, tomatoes are not.
        let kale = starts[at("kale")].autumn.expect("kale for the autumn");
        assert!(kale.sow > date(2027, 5, 15) && kale.sow < kale.out && kale.out < kale.ready);
        assert_eq!(starts[at("tomato")].autumn, None);
    }
}
