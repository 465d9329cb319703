//! The generic kinds.

use serde::Serialize;
use utoipa::ToSchema;

use crate::room::container::TrayFormat;
use crate::room::fan::Fan;
use crate::room::lamp::Lamp;
use crate::room::mat::Mat;
use crate::room::place::{Place, WallLayer};

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
    /// What walls of chambers are made of.
    pub walls: Vec<WallLayer>,
}
