//! Feeds and things of the household that are added and taken away.

use crate::basis::ids::free_id;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, kind_of, unknown};
use crate::room::shelf::feeds_at;
use crate::room::wiring::{Appliance, Feed, FeedKind};

impl Editor {
    pub(super) fn add_feed(&mut self, kind: &str, into: Option<&str>) -> Word {
        let mut feed = kind_of(feeds_at(self.plan.site.mains_v), |f| &f.id, kind)?.clone();
        let feeds = &self.plan.wiring.feeds;
        feed.into = match into {
            Some(id) if feeds.iter().any(|f| f.id == id) => Some(id.into()),
            Some(id) => return Err(unknown("into", id, feeds.iter().map(|f| f.id.clone()))),
            None => self.usual_into(&feed)?,
        };
        let name = feed.name.clone();
        self.push_feed(feed);
        Ok(say!("added {feed}", feed = name))
    }

    /// What a feed like `feed` is plugged into where nobody said: the first circuit or socket.
    fn usual_into(&self, feed: &Feed) -> Result<Option<String>, Vec<crate::basis::fault::Fault>> {
        let first = |is: fn(&FeedKind) -> bool| {
            let found = self.plan.wiring.feeds.iter().find(|f| is(&f.kind));
            found.map(|f| f.id.clone())
        };
        let (found, missing) = match feed.kind {
            FeedKind::Circuit(_) => return Ok(None),
            FeedKind::Socket(_) => (
                first(|kind| matches!(kind, FeedKind::Circuit(_))),
                say!("add the circuit that it is on first"),
            ),
            _ => (
                first(|kind| matches!(kind, FeedKind::Socket(_))),
                say!("add the socket that it is plugged into first"),
            ),
        };
        found.map(Some).ok_or_else(|| {
            let problem = say!("there is nothing to plug {feed} into", feed = &feed.name);
            fault("kind", &feed.id, problem, missing)
        })
    }

    pub(super) fn push_feed(&mut self, mut feed: Feed) -> String {
        let feeds = &mut self.plan.wiring.feeds;
        feed.id = free_id(&feed.id, feeds.iter().map(|f| &f.id));
        let alike = feeds.iter().filter(|f| f.name == feed.name).count();
        if alike > 0 {
            feed.name = format!("{} ({})", feed.name, alike + 1);
        }
        feeds.push(feed);
        feeds[feeds.len() - 1].id.clone()
    }

    pub(super) fn add_appliance(&mut self, name: &str, watts: f64) -> Word {
        let appliances = &mut self.plan.wiring.appliances;
        let id = free_id("load", appliances.iter().map(|a| &a.id));
        appliances.push(Appliance {
            id,
            name: name.into(),
            watts,
            plugged: None,
            hours: None,
            duty: None,
            heats: false,
        });
        Ok(say!("added {load}", load = name.to_owned()))
    }

    /// Takes a feed out. What was plugged into it goes into what it was plugged into, where that takes
    /// plugs.
    pub(super) fn remove_feed(&mut self, id: &str) -> Word {
        let wiring = &mut self.plan.wiring;
        let Some(at) = wiring.feeds.iter().position(|f| f.id == id) else {
            return Err(unknown(
                "feed",
                id,
                wiring.feeds.iter().map(|f| f.id.clone()),
            ));
        };
        let gone = wiring.feeds.remove(at);
        let takes = |f: &&Feed| !matches!(f.kind, FeedKind::Circuit(_));
        let up = gone
            .into
            .as_deref()
            .and_then(|into| wiring.feed(into))
            .filter(takes);
        let up = up.map(|f| f.id.clone());
        for feed in &mut wiring.feeds {
            if feed.into.as_deref() == Some(id) {
                let socket = matches!(feed.kind, FeedKind::Socket(_));
                feed.into = if socket { None } else { up.clone() };
            }
        }
        let appliances = wiring.appliances.iter_mut().map(|a| &mut a.plugged);
        let tiers = self
            .plan
            .places
            .iter_mut()
            .flat_map(|place| &mut place.tiers);
        for plugged in tiers.flat_map(|tier| tier.plugs_mut()).chain(appliances) {
            if plugged.as_deref() == Some(id) {
                plugged.clone_from(&up);
            }
        }
        Ok(say!("took out {feed}", feed = gone.name))
    }

    pub(super) fn remove_appliance(&mut self, id: &str) -> Word {
        let appliances = &mut self.plan.wiring.appliances;
        match appliances.iter().position(|a| a.id == id) {
            Some(at) => Ok(say!("took out {load}", load = appliances.remove(at).name)),
            None => Err(unknown(
                "appliance",
                id,
                appliances.iter().map(|a| a.id.clone()),
            )),
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::edit::Edit;
    use crate::testing::{done, kettle_fen, one_rack, refused};

    fn add(kind: &str, into: Option<&str>) -> Edit {
        Edit::AddFeed {
            kind: kind.into(),
            into: into.map(str::to_owned),
        }
    }

    #[test]
    fn a_feed_goes_where_it_can_and_says_what_it_lacks() {
        let plan = one_rack(|_| ());
        assert_eq!(refused(&plan, &add("strip", None)).path, "/kind");
        assert_eq!(refused(&plan, &add("socket", None)).path, "/kind");
        assert_eq!(refused(&plan, &add("toaster", None)).path, "/kind");
        let plan = done(&plan, &add("circuit", None));
        let plan = done(&plan, &add("socket", None));
        let plan = done(&plan, &add("strip", None));
        let into: Vec<_> = plan
            .wiring
            .feeds
            .iter()
            .map(|feed| feed.into.as_deref())
            .collect();
        assert_eq!(into, [None, Some("circuit"), Some("socket")]);
        // A second of a kind has an identifier and a name of its own.
        let plan = done(&plan, &add("strip", Some("strip")));
        let second = &plan.wiring.feeds[3];
        assert_eq!(
            (second.id.as_str(), second.into.as_deref()),
            ("strip-2", Some("strip"))
        );
        assert!(second.name.ends_with("(2)"), "{}", second.name);
        assert_eq!(refused(&plan, &add("strip", Some("gone"))).path, "/into");
    }

    #[test]
    fn what_hung_on_a_feed_hangs_on_the_one_before_it() {
        let plan = kettle_fen(|_| ());
        let edit = Edit::RemoveFeed {
            feed: "timer-1".into(),
        };
        let plan = done(&plan, &edit);
        assert_eq!(
            plan.wiring.feed("strip-1").unwrap().into.as_deref(),
            Some("socket-door")
        );
        // Nothing is plugged into a circuit itself: what was in a socket lies loose then.
        let plan = done(
            &plan,
            &Edit::RemoveFeed {
                feed: "socket-hall-2".into(),
            },
        );
        assert_eq!(plan.wiring.appliances[1].plugged, None);
        // A socket whose circuit is gone is on none that anybody knows.
        let plan = done(
            &plan,
            &Edit::RemoveFeed {
                feed: "boot-room".into(),
            },
        );
        assert_eq!(plan.wiring.feed("socket-door").unwrap().into, None);
        assert_eq!(
            refused(
                &plan,
                &Edit::RemoveFeed {
                    feed: "gone".into()
                }
            )
            .path,
            "/feed"
        );
    }

    #[test]
    fn things_of_the_household_come_and_go() {
        let plan = one_rack(|_| ());
        let heater = Edit::AddAppliance {
            name: "heater".into(),
            watts: 1500.0,
        };
        let plan = done(&done(&plan, &heater), &heater);
        let ids: Vec<_> = plan
            .wiring
            .appliances
            .iter()
            .map(|one| one.id.as_str())
            .collect();
        assert_eq!(ids, ["load", "load-2"]);
        let plan = done(
            &plan,
            &Edit::RemoveAppliance {
                appliance: "load".into(),
            },
        );
        assert_eq!(plan.wiring.appliances.len(), 1);
        let gone = Edit::RemoveAppliance {
            appliance: "load".into(),
        };
        assert_eq!(refused(&plan, &gone).path, "/appliance");
    }
}
