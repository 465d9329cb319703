//! The air over the trays of a bay: how damp it is, whether it moves, and what would move it.

use serde::Serialize;
use utoipa::ToSchema;

use crate::air::mould::{MouldRisk, OverTrays, STILL_UNDER_M_S, risk};
use crate::air::{USUAL_HUMIDITY, dew_point_c, fan, vpd_kpa};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::day::closed_air::ClosedAir;
use crate::plan::SoundPlan;
use crate::room::Bay;
use crate::site::air::Air;

/// The air over the trays of a bay.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayAir {
    /// Its temperature by day.
    pub day_c: f64,
    /// Relative humidity, 0 to 1.
    pub humidity: f64,
    /// Vapour pressure deficit by day, in kPa.
    pub vpd_kpa: f64,
    /// The temperature at which dew falls.
    pub dew_point_c: Option<f64>,
    /// The speed of the air at the end of the shelf that is farthest from its fan, or what fans of other
    /// places that turn bring, in m/s; 0 without one.
    pub far_end_m_s: f64,
    /// The mean speed of the air over the whole of it, in m/s: what dries by it.
    pub over_deck_m_s: f64,
    /// How likely mould and damping-off are there.
    pub mould: MouldRisk,
    /// What would stir the leaves at the far end; empty where they are stirred, and when it was not
    /// asked for.
    pub fans: Vec<FanChoice>,
}

/// A fan that would do.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FanChoice {
    /// What it is and where it stands.
    pub what: Statement,
    /// Its diameter.
    pub diameter_mm: f64,
    /// What it must move.
    pub flow_m3_h: f64,
}

/// Mix and leaves are wet for so much of the day: watered from below they dry in air that takes
/// water up, and hardly in damper air than this (our own estimates).
const WET_IN_DRY_AIR: f64 = 0.3;
const WET_IN_DAMP_AIR: f64 = 0.8;
const DAMP: f64 = 0.85;
/// Leaves stir in this, without drying out (our own estimate; see [`STILL_UNDER_M_S`]).
const STIRS_M_S: f64 = 1.5 * STILL_UNDER_M_S;

/// The air over the trays of `bay`: what is `around` its place, or closed air.
pub fn bay_air(bay: &Bay<'_>, around: &Air, closed: Option<&ClosedAir>) -> BayAir {
    let (day_c, humidity) = match closed.and_then(|air| air.shelf_of(bay.tier_index)) {
        Some(shelf) => (shelf.mean_c, shelf.mean_humidity),
        None => (around.day_c, around.humidity.unwrap_or(USUAL_HUMIDITY)),
    };
    let far_end_m_s = fan::far_end_m_s(bay.place, bay.tier_index);
    let over = OverTrays {
        t_c: day_c,
        humidity,
        speed_m_s: far_end_m_s,
        wet: if humidity > DAMP {
            WET_IN_DAMP_AIR
        } else {
            WET_IN_DRY_AIR
        },
    };
    BayAir {
        day_c,
        humidity,
        vpd_kpa: vpd_kpa(day_c, humidity),
        dew_point_c: dew_point_c(day_c, humidity),
        far_end_m_s,
        over_deck_m_s: fan::over_deck_m_s(bay.place, bay.tier_index),
        mould: risk(over),
        fans: Vec::new(),
    }
}

impl BayAir {
    /// The same with what would stir the leaves at the far end, where nothing does.
    #[must_use]
    pub fn with_fans(mut self, plan: &SoundPlan, bay: &Bay<'_>, closed: bool) -> Self {
        if self.far_end_m_s < STILL_UNDER_M_S {
            self.fans = fans(plan, bay, closed);
        }
        self
    }
}

/// A small fan at one end, one in the middle of each half, and, in the open, one for the room.
fn fans(plan: &SoundPlan, bay: &Bay<'_>, closed: bool) -> Vec<FanChoice> {
    const SMALL_MM: f64 = 120.0;
    const ROOM_MM: f64 = 400.0;
    let width = bay.place.width_mm;
    let flow = |diameter_mm: f64, reach_mm: f64| {
        // To the next ten: no fan is rated finer.
        (fan::flow_for_m3_h(diameter_mm, reach_mm, STIRS_M_S) / 10.0).ceil() * 10.0
    };
    let choice = |what: Statement, diameter_mm: f64, flow_m3_h: f64| FanChoice {
        what,
        diameter_mm,
        flow_m3_h,
    };
    let mm = |mm: f64| Quantity::LengthMm.of(mm);
    let m3_h = |flow: f64| Quantity::FlowM3H.of(flow);
    let (one, two) = (flow(SMALL_MM, width), flow(SMALL_MM, width / 2.0));
    let mut all = vec![
        choice(
            say!(
                "one fan of {across} at an end, moving {flow}",
                across = mm(SMALL_MM),
                flow = m3_h(one)
            ),
            SMALL_MM,
            one,
        ),
        choice(
            say!(
                "two fans of {across}, one at each end, moving {flow} each",
                across = mm(SMALL_MM),
                flow = m3_h(two)
            ),
            SMALL_MM,
            two,
        ),
    ];
    if !closed && bay.place.shares_air(bay.tier_index).is_none() {
        let room = &plan.room;
        let across_mm = room.width_mm.max(room.depth_mm);
        let whole = flow(ROOM_MM, across_mm);
        all.push(choice(
            say!(
                "for the whole room one that turns, {across} wide, moving {flow}",
                across = mm(ROOM_MM),
                flow = m3_h(whole)
            ),
            ROOM_MM,
            whole,
        ));
    }
    all
}
