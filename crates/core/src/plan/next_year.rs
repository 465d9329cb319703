//! A plan as the start of the next season.

use jiff::ToSpan;
use jiff::civil::Date;

use crate::basis::dates::DateSpan;
use crate::plan::document::Plan;

impl Plan {
    /// The same plan a year later: every date moves by a year, the days away go, and the year in its
    /// name counts on. Packets keep their year, and so are a year older.
    #[must_use]
    pub fn next_year(mut self) -> Self {
        let later = |date: &mut Date| *date = date.saturating_add(1.year());
        let all_later = |span: &mut DateSpan| {
            later(&mut span.from);
            later(&mut span.to);
        };
        self.name = counted_on(&self.name, self.site.last_frost.year());
        all_later(&mut self.season);
        later(&mut self.site.last_frost);
        self.site.first_frost.as_mut().map(later);
        self.away.clear();
        // Next year is no example any more.
        self.stands_still_on = None;
        for sowing in &mut self.sowings {
            sowing.stays.as_mut().map(all_later);
            let days = [
                &mut sowing.sow_on,
                &mut sowing.out_on,
                &mut sowing.covered_until,
            ];
            days.into_iter().flatten().for_each(later);
            sowing.sown = false;
        }
        let stands = self.trays.iter_mut().flat_map(|tray| &mut tray.stands);
        for stand in stands {
            stand.from.as_mut().map(later);
        }
        for place in &mut self.places {
            place.settings.iter_mut().for_each(|s| later(&mut s.from));
        }
        self
    }
}

/// `name` with the year after the one that it tells; with the year after `year` behind it when it tells
/// none.
fn counted_on(name: &str, year: i16) -> String {
    let next = (year + 1).to_string();
    let this = year.to_string();
    match name.contains(&this) {
        true => name.replace(&this, &next),
        false => {
            let name: String = name.chars().take(110).collect();
            format!("{name}, {next}")
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::plan::Plan;
    use crate::testing::kettle_fen;
    use jiff::civil::date;

    #[test]
    fn all_dates_move_by_a_year_and_the_plan_stays_sound() {
        let this = kettle_fen(|_| ()).into_inner();
        let next = this.clone().next_year();
        assert_eq!(next.site.last_frost, date(2028, 5, 6));
        assert!(next.name.contains("2028"), "{}", next.name);
        assert_eq!(next.packets, this.packets);
        let froms = |plan: &Plan| {
            let stands = plan.trays.iter().flat_map(|tray| &tray.stands);
            stands.filter_map(|stand| stand.from).collect::<Vec<_>>()
        };
        assert!(!froms(&this).is_empty());
        let years = froms(&this).into_iter().zip(froms(&next));
        assert!(years.into_iter().all(|(a, b)| b.year() == a.year() + 1));
        assert!(next.check().is_ok());
    }
}
