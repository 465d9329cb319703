//! The shelf of generic kinds: places, lamps, mats, fans and containers to begin with, each with
//! figures that the user changes to those of the real thing.

mod feeds;
mod inches;
mod kinds;

pub use feeds::feeds_at;
pub use kinds::Kinds;

use std::sync::LazyLock;

use serde::Deserialize;

use crate::basis::units::UnitSystem;
use crate::room::container::TrayFormat;
use crate::room::fan::Fan;
use crate::room::lamp::Lamp;
use crate::room::mat::Mat;
use crate::room::place::{Place, WallLayer};

static LIBRARY: LazyLock<Kinds> = LazyLock::new(|| {
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Places {
        place: Vec<Place>,
    }
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Gear {
        lamp: Vec<Lamp>,
        mat: Vec<Mat>,
        fan: Vec<Fan>,
    }
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Containers {
        container: Vec<TrayFormat>,
    }
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Walls {
        wall: Vec<WallLayer>,
    }
    const SOUND: &str = "the built-in kinds read";
    let Places { place } = toml::from_str(include_str!("places.toml")).expect(SOUND);
    let Gear { lamp, mat, fan } = toml::from_str(include_str!("gear.toml")).expect(SOUND);
    let Containers { container } = toml::from_str(include_str!("containers.toml")).expect(SOUND);
    let Walls { wall } = toml::from_str(include_str!("walls.toml")).expect(SOUND);
    Kinds {
        walls: wall,
        places: place,
        lamps: lamp,
        mats: mat,
        fans: fan,
        containers: container,
    }
});

/// The generic kinds that come with the application, as they are sold in metric sizes.
pub fn library() -> &'static Kinds {
    &LIBRARY
}

/// The generic kinds as they are sold to people who measure in `system`.
pub fn library_in(system: UnitSystem) -> &'static Kinds {
    static INCHES: LazyLock<Kinds> = LazyLock::new(|| inches::in_inches(LIBRARY.clone()));
    match system {
        UnitSystem::Metric => &LIBRARY,
        UnitSystem::Us => &INCHES,
    }
}
