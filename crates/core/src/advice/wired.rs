//! What judgements of power share: the load with everything on at its label, and who is over a limit.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::{Figure, Statement, say};
use crate::day::apart::apart;
use crate::day::draws::by_label;
use crate::plan::SoundPlan;
use crate::plan::patch::Fix;
use crate::power::draw::Draw;
use crate::power::limits::{Limit, LimitBy};
use crate::power::load::{DayLoad, FeedLoad, day_load};
use crate::room::wiring::Feed;
use crate::season::Reckoned;

/// Who decides in the end.
pub(super) const WHO_DECIDES: &str =
    "Your local electrical code and a licensed electrician decide.";

/// All gear on at its label, each at its hours.
pub(super) struct Labelled<'a> {
    pub(super) plan: &'a SoundPlan,
    pub(super) draws: Vec<Draw>,
    pub(super) load: DayLoad,
}

impl<'a> Labelled<'a> {
    /// Of a plan that says how anything is plugged in; else `None`.
    pub(super) fn of(reckoned: &Reckoned<'a>) -> Option<Self> {
        let plan = reckoned.plan;
        if plan.wiring.is_empty() {
            return None;
        }
        let draws = by_label(plan);
        Some(Self {
            load: day_load(&plan.wiring, plan.site.mains_v, &draws),
            plan,
            draws,
        })
    }

    /// Each feed with its load.
    pub(super) fn feeds(&self) -> impl Iterator<Item = (&'a Feed, &FeedLoad)> {
        self.plan.wiring.feeds.iter().zip(&self.load.feeds)
    }

    /// A finding on the whole season.
    pub(super) fn finding(
        &self,
        severity: Severity,
        headline: Statement,
        reason: Statement,
    ) -> Finding {
        Finding::of_plan(self.plan.season, severity, headline, reason)
    }

    /// What is too much, in W, for what is on for hours by `limit` on a feed with `load`.
    pub(super) fn too_much(load: &FeedLoad, limit: &Limit) -> f64 {
        let lasting = load.load.peak_w - limit.lasting_va;
        if lasting > 0.0 {
            lasting
        } else {
            limit.carries_va - limit.most_va
        }
    }

    /// The fix that sets timers apart so that `feed` carries no more than it may; `None` where that does not
    /// do, or is too much for another.
    fn set_apart(&self, feed: &Feed) -> Option<Fix> {
        let found = apart(self.plan, feed, &self.draws)?;
        let is_over = |load: &FeedLoad| load.limits.iter().any(|limit| limit.over);
        let each = self.load.feeds.iter().zip(&found.load.feeds);
        let fine = each.into_iter().all(|(now, then)| {
            let may_stay_over = is_over(now) && then.feed != feed.id;
            may_stay_over || !is_over(then)
        });
        fine.then_some(found.fix)
    }

    /// A finding on each feed that `which` picks and that carries more than it may by `by`; timers that could
    /// be set apart instead are a fix.
    pub(super) fn over(
        &self,
        by: LimitBy,
        which: impl Fn(&Feed) -> bool,
        say_it: impl Fn(&Feed, &FeedLoad, &Limit) -> (Statement, Statement),
    ) -> Vec<Finding> {
        let feeds = self.feeds().filter(|(feed, _)| which(feed));
        let over = feeds.filter_map(|(feed, load)| {
            let limit = load
                .limits
                .iter()
                .find(|limit| limit.by == by && limit.over)?;
            let (headline, reason) = say_it(feed, load, limit);
            Some(Finding {
                fixes: self.set_apart(feed).into_iter().collect(),
                ..self.finding(Severity::Harm, headline, reason)
            })
        });
        over.collect()
    }
}

/// What a label allows, and what is carried.
pub(super) struct OverLabel {
    /// What it carries.
    pub(super) peak: Figure,
    /// What its label allows.
    pub(super) most: Figure,
}

impl Labelled<'_> {
    /// A finding on each feed that `which` picks and that carries more than its label allows; `reason` says
    /// so.
    pub(super) fn over_label(
        &self,
        which: impl Fn(&Feed) -> bool,
        reason: impl Fn(OverLabel) -> Statement,
    ) -> Vec<Finding> {
        self.over(LimitBy::Label, which, |feed, load, limit| {
            let said = reason(OverLabel {
                peak: watts(load.load.peak_w),
                most: watts(limit.most_va),
            });
            (take_off(&feed.name, limit.carries_va - limit.most_va), said)
        })
    }
}

pub(super) fn watts(value: f64) -> Figure {
    Quantity::PowerW.of(value)
}

pub(super) fn amps(value: f64) -> Figure {
    Quantity::CurrentA.of(value)
}

/// A count.
pub(super) fn count(value: u32) -> Figure {
    Quantity::Count.of(f64::from(value))
}

/// What is to be done about `over` W too much on a feed called `name`.
pub(super) fn take_off(name: &str, over: f64) -> Statement {
    say!("Take {over} off {feed}", over = watts(over), feed = name)
}
