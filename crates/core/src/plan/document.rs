//! The document itself.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::dates::DateSpan;
use crate::crops;
use crate::crops::Crop;
use crate::plan::sowing::Sowing;
use crate::plan::tray::Tray;
use crate::room::container::TrayFormat;
use crate::room::wiring::Wiring;
use crate::room::{Place, Room};
use crate::seeds::Packet;
use crate::site::Site;
use crate::site::prices::Prices;

/// The version of the document that this code reads and writes.
pub const SCHEMA_VERSION: u32 = 3;

/// A season in a room.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Plan {
    /// Version of this document's form. Earlier ones are not read as they stand, even where all their
    /// fields are known today: see [`upgraded`](crate::plan::upgrade::upgraded).
    #[serde(deserialize_with = "not_earlier")]
    pub schema_version: u32,
    /// What people call the plan.
    pub name: String,
    /// Where it is.
    pub site: Site,
    /// The days it covers.
    pub season: DateSpan,
    /// The day on which an example stands still: it counts as today; left out, the calendar's day does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stands_still_on: Option<Date>,
    /// The days on which nobody is there to water; empty when left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub away: Vec<DateSpan>,
    /// The room that the places stand in.
    pub room: Room,
    /// Racks and other places, from left to right.
    pub places: Vec<Place>,
    /// How their gear is plugged together; empty where nobody said.
    #[serde(default, skip_serializing_if = "Wiring::is_empty")]
    pub wiring: Wiring,
    /// What things cost; empty where nobody said.
    #[serde(default, skip_serializing_if = "Prices::is_empty")]
    pub prices: Prices,
    /// The kinds of tray in use.
    pub tray_formats: Vec<TrayFormat>,
    /// Crops of one's own, and those of the library that were changed, by the same identifier.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub crops: Vec<Crop>,
    /// Packets of seed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub packets: Vec<Packet>,
    /// What is sown.
    pub sowings: Vec<Sowing>,
    /// The trays and where they stand.
    pub trays: Vec<Tray>,
}

fn not_earlier<'de, D: serde::Deserializer<'de>>(reader: D) -> Result<u32, D::Error> {
    let version = u32::deserialize(reader)?;
    if version < SCHEMA_VERSION {
        let what = format!("a plan of version {version} must be upgraded first");
        return Err(serde::de::Error::custom(what));
    }
    Ok(version)
}

impl Plan {
    /// Today: the `calendar`'s day at the site, unless the plan stands still.
    pub fn today(&self, calendar: Date) -> Date {
        self.stands_still_on.unwrap_or(calendar)
    }

    /// The crop called `id`: the plan's own, else the library's.
    pub fn find_crop(&self, id: &str) -> Option<&Crop> {
        let own = self.crops.iter().find(|crop| crop.id == id);
        own.or_else(|| crops::library().get(id))
    }
}
