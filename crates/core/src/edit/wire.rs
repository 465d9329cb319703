//! Cords: feeds that are added and taken away, and gear plugged in as we would.

use crate::basis::ids::free_id;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, kind_of, unknown};
use crate::room::shelf::feeds_at;
use crate::room::wiring::{Appliance, Feed, FeedKind};

/// From one place to the next along the row, as it is drawn.
const BETWEEN_PLACES_MM: f64 = 300.0;
/// The share of a breaker that is proposed to be used.
const SHARE: f64 = crate::power::limits::CONTINUOUS_SHARE;

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

    fn push_feed(&mut self, mut feed: Feed) -> String {
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
        SHARE * self.strip().rating_w().min(timer.rating_w())
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
        let load = crate::power::load::day_load(
            &self.plan.wiring,
            self.plan.site.mains_v,
            &crate::day::draws::by_label(&self.plan),
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
