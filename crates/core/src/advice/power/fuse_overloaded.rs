//! Triggers when more hangs on a fused plug than its fuse bears with everything on.

use crate::advice::finding::Finding;
use crate::advice::wired::{Labelled, WHO_DECIDES, amps, take_off, watts};
use crate::basis::words::say;
use crate::power::limits::LimitBy;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let mut found = all.over(LimitBy::Fuse, |_| true, |feed, load, limit| {
        (
            take_off(&feed.name, Labelled::too_much(load, limit)),
            say!(
                "With everything on its plug carries {peak}. Its fuse of {fuse} bears {most}, and {lasting} for hours. {who}",
                peak = watts(load.load.peak_w),
                fuse = amps(limit.most_va / all.plan.site.mains_v),
                most = watts(limit.most_va),
                lasting = watts(limit.lasting_va),
                who = WHO_DECIDES
            ),
        )
    });
    found.iter_mut().for_each(|finding| finding.source = SOURCE);
    found
}

const SOURCE: &str = "BS 1363 (fuse of 13 A), and 80 % of it for hours by our own caution";

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    /// 13 A at 230 V are 2,990 W, and 2,392 W for hours.
    #[test]
    fn speaks_of_a_heater_on_a_fused_strip() {
        let on = |watts: f64| {
            wired(230.0, 32.0, |plan| {
                plan.wiring.appliances[0].watts = watts;
                if let crate::room::wiring::FeedKind::Socket(socket) =
                    &mut plan.wiring.feeds[1].kind
                {
                    socket.fuse_a = Some(13.0);
                }
            })
        };
        assert_eq!(plan_judged(&on(2500.0), judge).len(), 1);
        assert!(plan_judged(&on(2392.0), judge).is_empty());
    }
}
