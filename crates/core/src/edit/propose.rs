//! Gear plugged in as we would: timers and strips by place and hours, on circuits that carry them.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::draws::by_label;
use crate::edit::editor::{Editor, Word, fault};
use crate::power::limits::CONTINUOUS_SHARE;
use crate::power::load::day_load;
use crate::room::shelf::feeds_at;
use crate::room::wiring::{Feed, FeedKind};

/// From one place to the next along the row, as it is drawn.
const BETWEEN_PLACES_MM: f64 = 300.0;
/// Gear that belongs on one strip.
struct Group {
    name: String,
    /// When its lamps burn; `None` for what is on by itself.
    hours: Option<[f64; 2]>,
    x_mm: f64,
    /// Place, tier, which list and index in it, and watts.
    gear: Vec<([usize; 2], Gear, f64)>,
}

#[derive(Clone, Copy)]
enum Gear {
    Lamp(usize),
    Mat(usize),
    Fan(usize),
}

impl Editor {
    /// Plugs in all gear that is plugged in nowhere: the lamps of a place that burn at the same hours on a
    /// timer and a strip of theirs, its mats and fans on another strip; sockets and circuits are added as it
    /// takes them.
    pub(super) fn propose_wiring(&mut self) -> Word {
        let mut plugged = 0;
        for group in self.loose_groups() {
            plugged += group.gear.len();
            let carries_w = self.carries_w();
            let mut rest = &group.gear[..];
            while !rest.is_empty() {
                let outlets = self.strip().kind.outlets().unwrap_or(1) as usize;
                let mut watts = 0.0;
                let fits = rest.iter().take(outlets).take_while(|(.., w)| {
                    watts += w;
                    watts <= carries_w
                });
                // One that is too much by itself is plugged in alone: a finding says so.
                let n = fits.count().max(1);
                let (now, later) = rest.split_at(n);
                rest = later;
                let strip = self.strip_for(&group, now.iter().map(|(.., w)| w).sum());
                for (at, gear, _) in now {
                    let tier = self.tier(*at);
                    let plug = match gear {
                        Gear::Lamp(i) => &mut tier.lamps[*i].plugged,
                        Gear::Mat(i) => &mut tier.mats[*i].plugged,
                        Gear::Fan(i) => &mut tier.fans[*i].plugged,
                    };
                    *plug = Some(strip.clone());
                }
            }
        }
        if plugged == 0 {
            return Err(fault(
                "propose_wiring",
                serde_json::Value::Null,
                say!("everything is plugged in"),
                say!("drag a cord to plug something in elsewhere"),
            ));
        }
        Ok(say!(
            "plugged in {n} lamps, mats and fans",
            n = Quantity::Count.of(plugged as f64)
        ))
    }

    fn kind(&self, is: fn(&FeedKind) -> bool) -> Feed {
        let mut kinds = feeds_at(self.plan.site.mains_v).iter();
        kinds
            .find(|f| is(&f.kind))
            .expect("every sort is on the shelf")
            .clone()
    }

    fn strip(&self) -> Feed {
        self.kind(|kind| matches!(kind, FeedKind::Strip(_)))
    }

    /// What a strip behind a timer carries for hours.
    fn carries_w(&self) -> f64 {
        let timer = self.kind(|kind| matches!(kind, FeedKind::Timer(_)));
        CONTINUOUS_SHARE * self.strip().rating_w().min(timer.rating_w())
    }

    fn loose_groups(&self) -> Vec<Group> {
        let mut groups: Vec<Group> = Vec::new();
        let mut x_mm = 0.0;
        for (p, place) in self.plan.places.iter().enumerate() {
            let middle = x_mm + place.width_mm / 2.0;
            x_mm += place.width_mm + BETWEEN_PLACES_MM;
            let mut add = |hours: Option<[f64; 2]>, at, gear, watts| {
                let like = |g: &&mut Group| g.x_mm == middle && g.hours == hours;
                match groups.iter_mut().find(like) {
                    Some(group) => group.gear.push((at, gear, watts)),
                    None => groups.push(Group {
                        name: place.name.clone(),
                        hours,
                        x_mm: middle,
                        gear: vec![(at, gear, watts)],
                    }),
                }
            };
            for (t, tier) in place.tiers.iter().enumerate() {
                let (at, burning) = ([p, t], tier.burning());
                let hours = Some([burning.from_h, burning.hours]);
                for (i, lamp) in tier
                    .lamps
                    .iter()
                    .enumerate()
                    .filter(|(_, l)| l.plugged.is_none())
                {
                    add(hours, at, Gear::Lamp(i), lamp.watts);
                }
                for (i, mat) in tier
                    .mats
                    .iter()
                    .enumerate()
                    .filter(|(_, m)| m.plugged.is_none())
                {
                    add(None, at, Gear::Mat(i), mat.watts);
                }
                for (i, fan) in tier
                    .fans
                    .iter()
                    .enumerate()
                    .filter(|(_, f)| f.plugged.is_none())
                {
                    add(None, at, Gear::Fan(i), fan.watts);
                }
            }
        }
        groups
    }

    /// A new strip for `watts` of `group`, behind a timer where its lamps want one.
    fn strip_for(&mut self, group: &Group, watts: f64) -> String {
        let socket = self.socket_for(watts, group.x_mm);
        let mut strip = self.strip();
        (strip.x_mm, strip.into) = (group.x_mm, Some(socket.clone()));
        strip.name = match group.hours {
            Some(_) => format!("Strip, {} lamps", group.name),
            None => format!("Strip, {} mats and fans", group.name),
        };
        if group.hours.is_some() {
            let mut timer = self.kind(|kind| matches!(kind, FeedKind::Timer(_)));
            timer.name = format!("Timer, {}", group.name);
            (timer.x_mm, timer.into) = (group.x_mm, Some(socket));
            strip.into = Some(self.push_feed(timer));
        }
        self.push_feed(strip)
    }

    /// A socket with a free outlet on a circuit that carries `watts` more for hours.
    fn socket_for(&mut self, watts: f64, x_mm: f64) -> String {
        let load = day_load(
            &self.plan.wiring,
            self.plan.site.mains_v,
            &by_label(&self.plan),
        );
        let carries = |id: &str| {
            let on = load.feeds.iter().find(|f| f.feed == id);
            on.is_some_and(|on| {
                let limits = on.limits.iter();
                limits
                    .clone()
                    .all(|limit| on.load.peak_w + watts <= limit.lasting_va)
            })
        };
        let feeds = &self.plan.wiring.feeds;
        let circuits = feeds
            .iter()
            .filter(|f| matches!(f.kind, FeedKind::Circuit(_)));
        let circuit = circuits.map(|f| f.id.clone()).find(|id| carries(id));
        let circuit = circuit.unwrap_or_else(|| {
            let circuit = self.kind(|kind| matches!(kind, FeedKind::Circuit(_)));
            self.push_feed(circuit)
        });
        let plugs = |id: &str| {
            load.feeds
                .iter()
                .find(|f| f.feed == id)
                .map_or(0, |f| f.plugs)
        };
        let free = self.plan.wiring.feeds.iter().find(|f| {
            let of_it = f.into.as_deref() == Some(circuit.as_str());
            let outlets = f.kind.outlets().unwrap_or(0);
            of_it && matches!(f.kind, FeedKind::Socket(_)) && plugs(&f.id) < outlets
        });
        if let Some(socket) = free {
            return socket.id.clone();
        }
        let mut socket = self.kind(|kind| matches!(kind, FeedKind::Socket(_)));
        (socket.x_mm, socket.into) = (x_mm, Some(circuit));
        self.push_feed(socket)
    }
}

#[cfg(test)]
mod tests {
    use crate::edit::Edit;
    use crate::plan::{Plan, SoundPlan};
    use crate::room::wiring::{Feed, FeedKind, Wiring};
    use crate::testing::{alder_bluff, done, one_rack, refused, tier};

    fn of(plan: &SoundPlan, is: fn(&FeedKind) -> bool) -> Vec<&Feed> {
        plan.wiring
            .feeds
            .iter()
            .filter(|feed| is(&feed.kind))
            .collect()
    }

    fn circuits(plan: &SoundPlan) -> Vec<&Feed> {
        of(plan, |kind| matches!(kind, FeedKind::Circuit(_)))
    }

    fn nothing_plugged_in(plan: &mut Plan) {
        plan.wiring = Wiring::default();
        let tiers = plan.places.iter_mut().flat_map(|place| &mut place.tiers);
        tiers.for_each(|tier| tier.unplug());
    }

    #[test]
    fn lamps_of_like_hours_share_a_timer_and_mats_have_none() {
        let plan = one_rack(|plan| {
            for (id, hours) in [("t1", 16.0), ("t2", 16.0), ("t3", 14.0), ("t4", 14.0)] {
                tier(plan, "door", id).photoperiod_h = hours;
            }
        });
        let plan = done(&plan, &Edit::ProposeWiring);
        let timer = |id: &str| {
            let tier = plan.places[0]
                .tiers
                .iter()
                .find(|tier| tier.id == id)
                .unwrap();
            plan.wiring.timer_of(tier).map(|(feed, _)| feed.id.as_str())
        };
        assert_eq!((timer("t1"), timer("t3")), (timer("t2"), timer("t4")));
        assert_ne!(timer("t1"), timer("t3"));
        let mats = plan.places[0].tiers.iter().flat_map(|tier| &tier.mats);
        for mat in mats {
            assert!(
                plan.wiring
                    .timer_over(mat.plugged.as_deref().unwrap())
                    .is_none()
            );
        }
        assert_eq!(refused(&plan, &Edit::ProposeWiring).path, "/propose_wiring");
    }

    #[test]
    fn a_region_has_its_own_breakers_and_no_fuses() {
        let plan = alder_bluff(nothing_plugged_in);
        let plan = done(&plan, &Edit::ProposeWiring);
        let FeedKind::Circuit(circuit) = circuits(&plan)[0].kind else {
            panic!("it is a circuit");
        };
        assert_eq!(circuit.breaker_a, 15.0);
        let sockets = of(&plan, |kind| matches!(kind, FeedKind::Socket(_)));
        for socket in sockets {
            let FeedKind::Socket(socket) = socket.kind else {
                continue;
            };
            assert_eq!(socket.fuse_a, None);
        }
    }

    /// 4 x 1,000 W for hours are more than one circuit of 16 A at 230 V carries.
    #[test]
    fn more_than_a_circuit_carries_is_proposed_on_two() {
        let plan = one_rack(|plan| {
            let tiers = plan.places[0]
                .tiers
                .iter_mut()
                .filter(|tier| !tier.lamps.is_empty());
            for tier in tiers {
                tier.lamps.truncate(1);
                tier.lamps[0].watts = 1000.0;
            }
        });
        let plan = done(&plan, &Edit::ProposeWiring);
        assert_eq!(circuits(&plan).len(), 2);
    }
}
