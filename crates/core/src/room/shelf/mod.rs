//! The shelf of generic kinds: places, lamps, mats, fans and containers to begin with, each with
//! figures that the user changes to those of the real thing.

use std::sync::LazyLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::room::container::TrayFormat;
use crate::room::fan::Fan;
use crate::room::lamp::Lamp;
use crate::room::mat::Mat;
use crate::room::place::Place;

/// All generic kinds. Their identifiers name the kind here, the thing once it is in a plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Kinds {
    /// Racks, chambers, benches, windows, cold frames.
    pub places: Vec<Place>,
    /// Lamps.
    pub lamps: Vec<Lamp>,
    /// Heat mats.
    pub mats: Vec<Mat>,
    /// Fans.
    pub fans: Vec<Fan>,
    /// Trays, pots, boxes and jars.
    pub containers: Vec<TrayFormat>,
}

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
    const SOUND: &str = "the built-in kinds read";
    let Places { place } = toml::from_str(include_str!("places.toml")).expect(SOUND);
    let Gear { lamp, mat, fan } = toml::from_str(include_str!("gear.toml")).expect(SOUND);
    let Containers { container } = toml::from_str(include_str!("containers.toml")).expect(SOUND);
    Kinds {
        places: place,
        lamps: lamp,
        mats: mat,
        fans: fan,
        containers: container,
    }
});

/// The generic kinds that come with the application.
pub fn library() -> &'static Kinds {
    &LIBRARY
}
