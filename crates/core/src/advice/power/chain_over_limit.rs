//! Triggers when more lamps are linked, or more power goes through the first cord, than the maker allows.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, WHO_DECIDES, count};
use crate::basis::words::say;
use crate::room::wiring::Feed;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let mut found = all.over_label(Feed::is_chain, |over| {
        say!(
            "Its first cord carries {peak}; the maker allows {most}. Plug some of its lamps in apart. {who}",
            peak = over.peak,
            most = over.most,
            who = WHO_DECIDES
        )
    });
    for (feed, load) in all.feeds() {
        let Some(most) = load.most_lamps.filter(|most| load.plugs > *most) else {
            continue;
        };
        found.push(all.finding(
            Severity::Harm,
            say!(
                "Take {n} lamps out of {chain}",
                n = count(load.plugs - most),
                chain = &feed.name
            ),
            say!(
                "{n} lamps are linked; the maker allows {most}. The first cord and its plug carry them all. {who}",
                n = count(load.plugs),
                most = count(most),
                who = WHO_DECIDES
            ),
        ));
    }
    found
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_eleven_lamps_on_a_chain_of_ten() {
        let with = |lamps: usize| {
            wired(230.0, 16.0, |plan| {
                crate::advice::testing::linked(plan, lamps, 10)
            })
        };
        let found = plan_judged(&with(11), judge);
        assert_eq!(found.len(), 1);
        assert!(
            found[0].headline.to_string().starts_with("Take 1 lamp"),
            "{}",
            found[0].headline.to_string()
        );
        assert!(plan_judged(&with(10), judge).is_empty());
    }
}
