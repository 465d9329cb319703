//! Triggers when a sowing has to be sown before the season of the plan begins, or goes out after
//! it ends: those days cannot be looked at.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::fault::Pointer;
use crate::basis::words::{COMMON_PRACTICE, say};
use crate::plan::patch::{Fix, PatchStep};
use crate::season::{Reckoned, SowingDates};

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let (plan, dates) = (reckoned.plan, &reckoned.dates);
    let season = plan.season;
    // What comes up too late or never is to be warmed: the season is not stretched for it.
    let timely: Vec<&SowingDates> = dates
        .iter()
        .filter(|d| d.emerge.is_some() && !d.needs_warmth)
        .collect();
    let span = timely.iter().fold(season, |span, d| DateSpan {
        from: span.from.min(d.sow),
        to: span.to.max(d.out),
    });
    let finding = |headline, field: &str, day, days, reason| Finding {
        id: String::new(),
        code: "",
        topic: "",
        severity: Severity::Conflict,
        place: None,
        bay: None,
        sowing: None,
        trays: Vec::new(),
        cells: Vec::new(),
        days,
        headline,
        reason,
        source: COMMON_PRACTICE,
        fixes: vec![Fix {
            label: say!("Stretch the season to {day}", day = day),
            word: say!("widened the season to {day}", day = day),
            patch: vec![PatchStep::replace(
                &Pointer::default().at("season").at(field),
                day,
            )],
        }],
    };
    let mut findings = Vec::new();
    if let Some(first) = timely
        .iter()
        .min_by_key(|d| d.sow)
        .filter(|d| d.sow < season.from)
    {
        findings.push(finding(
            say!("Begin the season on {day}", day = span.from),
            "from",
            span.from,
            DateSpan {
                from: first.sow,
                to: season.from,
            },
            say!(
                "{name} must be sown then, before this plan's season starts.",
                name = &first.name
            ),
        ));
    }
    if let Some(last) = timely
        .iter()
        .max_by_key(|d| d.out)
        .filter(|d| d.out > season.to)
    {
        findings.push(finding(
            say!("End the season on {day}", day = span.to),
            "to",
            span.to,
            DateSpan {
                from: season.to,
                to: last.out,
            },
            say!(
                "{name} goes out then, after this plan's season ends.",
                name = &last.name
            ),
        ));
    }
    findings
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, one_rack, plan_judged};
    use jiff::civil::date;

    #[test]
    fn an_early_frost_date_asks_for_an_earlier_season() {
        let plan = one_rack(|plan| plan.site.last_frost = date(2027, 3, 1));
        let findings = plan_judged(&plan, judge);
        assert_eq!(findings.len(), 1);
        let after = fixed(&plan, &findings[0]);
        assert_eq!(plan_judged(&after, judge), []);
    }
}
