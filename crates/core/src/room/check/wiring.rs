//! Cords without a fault: every one ends somewhere, and none in a circle.

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::room::place::Place;
use crate::room::wiring::{Appliance, Feed, FeedKind, Wiring};

/// What something is that is plugged in.
#[derive(PartialEq)]
enum Plugged {
    Feed,
    Lamp,
    Else,
}

impl Wiring {
    pub(crate) fn check(&self, places: &[Place], root: &Pointer, faults: &mut Faults) {
        let at = root.at("wiring");
        let feeds = at.at("feeds");
        faults.unique(&feeds, self.feeds.iter().map(|feed| feed.id.as_str()));
        for (i, feed) in faults.list(&feeds, &self.feeds, 0..=100) {
            self.check_feed(feed, &feeds.at(i), faults);
        }
        let appliances = at.at("appliances");
        faults.unique(&appliances, self.appliances.iter().map(|a| a.id.as_str()));
        for (i, appliance) in faults.list(&appliances, &self.appliances, 0..=50) {
            let at = appliances.at(i);
            appliance.check(&at, faults);
            let plugged = &at.at("plugged");
            self.check_plug(appliance.plugged.as_ref(), &Plugged::Else, plugged, faults);
        }
        for (p, place) in places.iter().enumerate() {
            for (t, tier) in place.tiers.iter().enumerate() {
                let at = root.at("places").at(p).at("tiers").at(t);
                let lamps = tier.lamps.iter().map(|lamp| &lamp.plugged);
                let mats = tier.mats.iter().map(|mat| &mat.plugged);
                let fans = tier.fans.iter().map(|fan| &fan.plugged);
                let all = (lamps.enumerate().map(|of| ("lamps", Plugged::Lamp, of)))
                    .chain(mats.enumerate().map(|of| ("mats", Plugged::Else, of)))
                    .chain(fans.enumerate().map(|of| ("fans", Plugged::Else, of)));
                for (list, what, (i, into)) in all.filter(|(.., (_, into))| into.is_some()) {
                    let at = at.at(list).at(i).at("plugged");
                    self.check_plug(into.as_ref(), &what, &at, faults);
                }
            }
        }
    }

    fn check_feed(&self, feed: &Feed, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &feed.id);
        faults.name(&at.at("name"), &feed.name);
        let mm = Quantity::LengthMm;
        faults.number(&at.at("x_mm"), feed.x_mm, -5000.0..=60_000.0, mm);
        faults.number(&at.at("height_mm"), feed.height_mm, 0.0..=8000.0, mm);
        let kind = at.at("kind");
        let outlets = |faults: &mut Faults, at: &Pointer, outlets: u32| {
            let count = f64::from(outlets);
            faults.number(&at.at("outlets"), count, 1.0..=40.0, Quantity::Count);
        };
        let rating = |faults: &mut Faults, at: &Pointer, watts: f64| {
            faults.number(&at.at("rating_w"), watts, 10.0..=20_000.0, Quantity::PowerW);
        };
        let amps = |faults: &mut Faults, at: Pointer, amps: f64| {
            faults.number(&at, amps, 1.0..=125.0, Quantity::CurrentA);
        };
        match &feed.kind {
            FeedKind::Circuit(circuit) => {
                let at = kind.at("circuit");
                amps(faults, at.at("breaker_a"), circuit.breaker_a);
            }
            FeedKind::Socket(socket) => {
                let at = kind.at("socket");
                outlets(faults, &at, socket.outlets);
                if let Some(fuse_a) = socket.fuse_a {
                    amps(faults, at.at("fuse_a"), fuse_a);
                }
            }
            FeedKind::Strip(strip) => {
                let at = kind.at("strip");
                outlets(faults, &at, strip.outlets);
                rating(faults, &at, strip.rating_w);
            }
            FeedKind::Timer(timer) => {
                let at = kind.at("timer");
                outlets(faults, &at, timer.outlets);
                rating(faults, &at, timer.rating_w);
            }
            FeedKind::Chain(linked) => {
                let at = kind.at("chain");
                if let Some(most) = linked.most_lamps {
                    let at = at.at("most_lamps");
                    faults.number(&at, f64::from(most), 1.0..=200.0, Quantity::Count);
                }
                if let Some(watts) = linked.most_w {
                    let at = at.at("most_w");
                    faults.number(&at, watts, 10.0..=20_000.0, Quantity::PowerW);
                }
            }
        }
        self.check_into(feed, &at.at("into"), faults);
    }

    fn check_into(&self, feed: &Feed, at: &Pointer, faults: &mut Faults) {
        let circuit = matches!(feed.kind, FeedKind::Circuit(_));
        let socket = matches!(feed.kind, FeedKind::Socket(_));
        let Some(into) = &feed.into else { return };
        if circuit {
            faults.add(
                at,
                into,
                say!(
                    "{feed} is a circuit and is plugged into nothing",
                    feed = &feed.name
                ),
                say!("leave out what it is plugged into"),
            );
            return;
        }
        let Some(over) = self.feed(into) else {
            faults.unknown(at, into, self.feeds.iter().map(|feed| feed.id.clone()));
            return;
        };
        let over_circuit = matches!(over.kind, FeedKind::Circuit(_));
        if socket && !over_circuit {
            faults.add(
                at,
                into,
                say!("{feed} is a socket in the wall", feed = &feed.name),
                say!("name the circuit that it is on"),
            );
        } else if self.path(&feed.id).len() > self.feeds.len() {
            faults.add(
                at,
                into,
                say!(
                    "{feed} is plugged into itself, by way of {over}",
                    feed = &feed.name,
                    over = &over.name
                ),
                say!("plug one of them into a socket"),
            );
        } else if !socket {
            self.check_plug(Some(into), &Plugged::Feed, at, faults);
        }
    }

    /// That something may be plugged `into` a feed.
    fn check_plug(&self, into: Option<&String>, what: &Plugged, at: &Pointer, faults: &mut Faults) {
        let Some(into) = into else { return };
        let Some(feed) = self.feed(into) else {
            faults.unknown(at, into, self.feeds.iter().map(|feed| feed.id.clone()));
            return;
        };
        match feed.kind {
            FeedKind::Circuit(_) => faults.add(
                at,
                into,
                say!("nothing is plugged into a circuit itself"),
                say!("name a socket on {circuit}", circuit = &feed.name),
            ),
            FeedKind::Chain(_) if *what != Plugged::Lamp => faults.add(
                at,
                into,
                say!("{chain} links lamps, and nothing else", chain = &feed.name),
                say!("name a socket, a strip or a timer"),
            ),
            _ => (),
        }
    }
}

impl Appliance {
    fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        faults.number(
            &at.at("watts"),
            self.watts,
            0.0..=20_000.0,
            Quantity::PowerW,
        );
        if let Some(hours) = self.hours {
            hours.check(&at.at("hours"), faults);
        }
        if let Some(duty) = self.duty {
            faults.number(&at.at("duty"), duty, 0.0..=1.0, Quantity::Share);
        }
    }
}

#[cfg(test)]
mod tests {
    use serde_json::{Value, json};

    use super::*;

    fn problems(feeds: Value) -> Vec<String> {
        let wiring: Wiring = serde_json::from_value(json!({ "feeds": feeds })).unwrap();
        let mut faults = Faults::default();
        wiring.check(&[], &Pointer::default(), &mut faults);
        let found = faults.verdict().err().unwrap_or_default();
        found.iter().map(|fault| fault.path.clone()).collect()
    }

    fn strip(id: &str, into: &str) -> Value {
        let kind = json!({"strip": {"rating_w": 2500, "outlets": 6}});
        json!({"id": id, "name": id, "into": into, "kind": kind})
    }

    fn circuit(breaker_a: f64) -> Value {
        json!({"id": "c", "name": "c", "kind": {"circuit": {"breaker_a": breaker_a}}})
    }

    fn socket(into: &str) -> Value {
        json!({"id": "s", "name": "s", "into": into, "kind": {"socket": {"outlets": 2}}})
    }

    #[test]
    fn cords_that_end_in_a_socket_are_sound() {
        assert!(
            problems(json!([
                circuit(16.0),
                socket("c"),
                strip("a", "s"),
                strip("b", "a")
            ]))
            .is_empty()
        );
    }

    #[test]
    fn strips_in_a_circle_and_breakers_of_nothing_are_refused() {
        let circle = problems(json!([strip("a", "b"), strip("b", "a")]));
        assert_eq!(circle, ["/wiring/feeds/0/into", "/wiring/feeds/1/into"]);
        assert_eq!(
            problems(json!([circuit(0.0)])),
            ["/wiring/feeds/0/kind/circuit/breaker_a"]
        );
        let own = problems(json!([strip("a", "a")]));
        assert_eq!(own, ["/wiring/feeds/0/into"]);
    }

    #[test]
    fn what_ends_nowhere_or_where_it_cannot_is_refused() {
        assert_eq!(
            problems(json!([strip("a", "gone")])),
            ["/wiring/feeds/0/into"]
        );
        assert_eq!(
            problems(json!([circuit(16.0), strip("a", "c")])),
            ["/wiring/feeds/1/into"]
        );
        assert_eq!(problems(json!([socket("b"), strip("b", "s")])).len(), 2);
    }
}
