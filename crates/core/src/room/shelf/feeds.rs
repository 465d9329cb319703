//! Circuits, sockets, strips, timers and chains as they are usual at the mains of a region.

use std::sync::LazyLock;

use serde::Deserialize;

use crate::room::wiring::Feed;

/// The kinds of both sorts of mains.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Feeds {
    at_120_v: Vec<Feed>,
    at_230_v: Vec<Feed>,
}

/// Mains below this are of the American sort.
const LOW_MAINS_V: f64 = 160.0;

/// The generic feeds at `mains_v`. Their identifiers name the kind here, the thing once it is in a plan.
pub fn feeds_at(mains_v: f64) -> &'static [Feed] {
    static FEEDS: LazyLock<Feeds> = LazyLock::new(|| {
        toml::from_str(include_str!("feeds.toml")).expect("the built-in feeds read")
    });
    if mains_v < LOW_MAINS_V {
        &FEEDS.at_120_v
    } else {
        &FEEDS.at_230_v
    }
}
