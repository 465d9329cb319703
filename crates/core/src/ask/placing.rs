//! What may be asked before a tray is stood or a flat is shared.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::plane::Axis;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::edit::Share;
use crate::light::fields::Fields;
use crate::plan::divide::divide;
use crate::plan::{CellBlock, SoundPlan, Stage, Stand};
use crate::room::container::TrayFormat;
use crate::room::{BayRef, bays};
use crate::season::Reckoned;
use crate::season::room_for::RoomFor;
use crate::season::sharing::{Sharer, day_of_flat, groups};
use crate::season::suits::{against, too_low_later};
use crate::space::spots::DeckSpot;

/// A tray that a hand is about to stand somewhere.
#[derive(Debug, Clone, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Held {
    /// The tray.
    pub tray: String,
    /// From this stage on.
    pub stage: Stage,
    /// From this date on, in the middle of the stage; from its first day when left out.
    #[serde(default)]
    pub from: Option<Date>,
    /// Whether it is to be stacked on others.
    #[serde(default)]
    pub stacked: bool,
}

/// What a bay has for the tray that is held.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BaySpots {
    /// The bay.
    pub bay: BayRef,
    /// The outlines that are free for it, both ways round, the best first.
    pub spots: Vec<FreeSpot>,
    /// Why it should not stand there, or cannot; `None` where nothing speaks against it.
    pub against: Option<Statement>,
}

/// A spot that is free for a tray, with its outline.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct FreeSpot {
    /// Left and right edge on the deck.
    pub x_mm: [f64; 2],
    /// Front and back edge on the deck.
    pub y_mm: [f64; 2],
    /// Which way its length runs.
    pub along: Axis,
}

/// What each bay has for the tray that is `held`, in the plan's order.
///
/// # Errors
/// A tray that the plan lacks; a date past its stage.
pub fn spots(plan: &SoundPlan, held: &Held, fields: &Fields) -> Result<Vec<BaySpots>, Vec<Fault>> {
    let mut faults = Faults::default();
    let Some(index) = plan.tray_index(&held.tray) else {
        let known = plan.trays.iter().map(|tray| tray.id.clone());
        faults.unknown(&Pointer::default().at("tray"), &held.tray, known);
        return Err(faults.verdict().expect_err("a fault was added"));
    };
    let tray = &plan.trays[index];
    let reckoned = Reckoned::of(plan, fields);
    let each = bays(&plan.places).map(|bay| {
        go_on();
        let stand = Stand {
            stage: held.stage,
            from: held.from,
            bay: bay.reference(),
            x_mm: 0.0,
            y_mm: 0.0,
            along: Axis::X,
            box_mm: None,
            stacked: held.stacked,
        };
        let room = RoomFor::new(&reckoned, tray, &stand);
        let format = plan.format(tray);
        let spots = match room.days.is_empty() {
            true => Vec::new(),
            false => room.spots(&bay, None),
        };
        BaySpots {
            bay: bay.reference(),
            against: against(&bay, tray, format, held.stage, &spots)
                .or_else(|| too_low_later(plan, tray, &reckoned.dates, &bay, held.stage)),
            spots: spots.iter().map(|spot| free(spot, format)).collect(),
        }
    });
    Ok(each.collect())
}

fn free(spot: &DeckSpot, format: &TrayFormat) -> FreeSpot {
    let outline = spot.footprint([format.length_mm, format.width_mm]);
    FreeSpot {
        x_mm: outline.x_mm,
        y_mm: outline.y_mm,
        along: spot.along,
    }
}

/// Kinds in groups that share a flat well.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Sharing {
    /// A flat for each.
    pub flats: Vec<SharedFlat>,
}

/// Kinds that share a flat.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SharedFlat {
    /// The kinds, in the order of their rows.
    pub kinds: Vec<SharedKind>,
    /// The day on which all are sown.
    pub sow: Date,
    /// The format it would have; `None` where its kinds do not go into one.
    pub format: Option<String>,
    /// Why they cannot share the first flat; `None` for that itself.
    pub apart: Option<Statement>,
    /// Why they cannot share it as asked.
    pub problem: Option<Statement>,
}

/// A kind in a flat.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SharedKind {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// The day it would be sown by itself.
    pub sow: Date,
    /// Cells that its plants want.
    pub wants: u32,
    /// Cells that it gets.
    pub cells: u32,
    /// Plants that come of those.
    pub fills: u32,
}

/// Which of the kinds that are to share a flat go together, and how many of each fill it.
///
/// # Errors
/// A sowing or format that the plan lacks.
pub fn sharing(plan: &SoundPlan, share: &Share, fields: &Fields) -> Result<Sharing, Vec<Fault>> {
    let mut faults = Faults::default();
    let root = Pointer::default();
    let mut indices = Vec::new();
    for id in &share.sowings {
        match plan.sowings.iter().position(|sowing| sowing.id == *id) {
            Some(i) => indices.push(i),
            None => {
                let known = plan.sowings.iter().map(|sowing| sowing.id.clone());
                faults.unknown(&root.at("sowings"), id, known);
            }
        }
    }
    let format = share.format.as_ref().map(|id| {
        let found = plan.tray_formats.iter().find(|format| format.id == *id);
        if found.is_none() {
            let known = plan.tray_formats.iter().map(|format| format.id.clone());
            faults.unknown(&root.at("format"), id, known);
        }
        found
    });
    faults.verdict()?;
    let reckoned = Reckoned::of(plan, fields);
    let groups = groups(plan, &reckoned.dates, &indices);
    let flats = groups
        .iter()
        .map(|group| flat(&reckoned, share, format.flatten(), group));
    let mut flats: Vec<SharedFlat> = flats.collect();
    for i in 1..flats.len() {
        flats[i].apart = apart(&reckoned, &groups[0], groups[i][0]);
    }
    Ok(Sharing { flats })
}

fn flat(
    reckoned: &Reckoned<'_>,
    share: &Share,
    format: Option<&TrayFormat>,
    group: &[usize],
) -> SharedFlat {
    let plan = reckoned.plan;
    let least_ml = group.iter().map(|&i| plan.crop(&plan.sowings[i]).cell_ml);
    let least_ml = least_ml.fold(f64::INFINITY, f64::min);
    let format = format.or_else(|| TrayFormat::nearest(&plan.tray_formats, least_ml));
    let wants: Vec<u32> = group
        .iter()
        .map(|&i| {
            let cells = reckoned.cells_of(&plan.sowings[i].id);
            cells
                .and_then(|cells| cells.to_sow.as_ref())
                .map_or(1, |sow| sow.cells)
        })
        .collect();
    let shares = format.map(|format| divide(format, &wants, share.by, share.even));
    let cells_of = |i: usize| match &shares {
        Some(Ok(shares)) => shares[i].iter().map(CellBlock::cells).sum(),
        _ => 0,
    };
    let kinds = group.iter().enumerate().map(|(at, &i)| {
        let (sowing, dates) = (&plan.sowings[i], &reckoned.dates[i]);
        let cells = cells_of(at);
        SharedKind {
            sowing: sowing.id.clone(),
            name: dates.name.clone(),
            sow: dates.sow,
            wants: wants[at],
            cells,
            // As many of the plants wanted as the cells are of those they take.
            fills: (f64::from(sowing.wanted) * f64::from(cells) / f64::from(wants[at].max(1)))
                .floor() as u32,
        }
    });
    let days = group.iter().map(|&i| reckoned.dates[i].sow).collect();
    SharedFlat {
        kinds: kinds.collect(),
        sow: day_of_flat(days).expect("a group has kinds"),
        problem: match &shares {
            None => Some(say!("the plan has no container with cells that suit")),
            Some(Err(_)) => Some(say!("more kinds than it has rows or packs")),
            Some(Ok(_)) => None,
        },
        format: format.map(|format| format.id.clone()),
        apart: None,
    }
}

/// Why sowing `i` is not in `group`.
fn apart(reckoned: &Reckoned<'_>, group: &[usize], i: usize) -> Option<Statement> {
    let plan = reckoned.plan;
    let sharer = |i: usize| Sharer {
        crop: plan.crop(&plan.sowings[i]),
        dates: &reckoned.dates[i],
    };
    let mut why = group
        .iter()
        .map(|&j| sharer(j).misfit_if_sown_together(&sharer(i)));
    why.find_map(|why| why)
}
