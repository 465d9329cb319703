//! What a place is like, by its kind: the one file that tells kinds apart, but for their checks and
//! the solvers that take their figures.

use std::ops::Range;

use crate::basis::fault::Pointer;
use crate::room::place::body::Place;
use crate::room::place::cover::Cover;
use crate::room::place::kinds::{Chamber, Closet, Kind, Rack, Window};
use crate::room::vent::Vent;

impl Place {
    /// Distance from one height that a deck can have to the next; `None` where decks are fixed.
    pub fn pitch_mm(&self) -> Option<f64> {
        match &self.kind {
            Kind::Rack(rack) => Some(rack.pitch_mm),
            Kind::WallShelf(fittings) => Some(fittings.pitch_mm),
            Kind::Closet(closet) => Some(closet.pitch_mm),
            Kind::Chamber(chamber) => Some(chamber.pitch_mm),
            Kind::Bench(_) | Kind::Window(_) | Kind::ColdFrame(_) | Kind::Surface(_) => None,
        }
    }

    /// Sets that distance, where there is one.
    pub fn set_pitch_mm(&mut self, mm: f64) {
        match &mut self.kind {
            Kind::Rack(rack) => rack.pitch_mm = mm,
            Kind::WallShelf(fittings) => fittings.pitch_mm = mm,
            Kind::Closet(closet) => closet.pitch_mm = mm,
            Kind::Chamber(chamber) => chamber.pitch_mm = mm,
            Kind::Bench(_) | Kind::Window(_) | Kind::ColdFrame(_) | Kind::Surface(_) => {}
        }
    }

    /// Thickness of the posts at the corners of each deck; 0 without any.
    pub fn post_mm(&self) -> f64 {
        match &self.kind {
            Kind::Rack(rack) => rack.post_mm,
            _ => 0.0,
        }
    }

    /// Thickness of the walls around it; 0 without any.
    pub fn wall_mm(&self) -> f64 {
        match &self.kind {
            Kind::Chamber(chamber) => chamber.walls.iter().map(|wall| wall.thickness_mm).sum(),
            _ => 0.0,
        }
    }

    /// Whether walls close it at its sides, so that nothing can stick out.
    pub fn is_closed(&self) -> bool {
        matches!(self.kind, Kind::Chamber(_) | Kind::Closet(_))
    }

    /// The tiers that share closed air with tier `index`: all of a chamber and of a closet that is
    /// kept shut, one alone whose bay film, cloth or board closes on all sides; `None` in the open.
    pub fn shares_air(&self, index: usize) -> Option<Range<usize>> {
        match &self.kind {
            Kind::Chamber(_) | Kind::Closet(Closet { shut: true, .. }) => Some(0..self.tiers.len()),
            // Its own walls close a closet's bays but for its doors.
            Kind::ColdFrame(_) | Kind::Closet(_) => None,
            _ => self.tiers[index]
                .sides
                .all_closed()
                .then(|| index..index + 1),
        }
    }

    /// Whether its decks lie on the floor, which cannot give way.
    pub fn is_floor(&self) -> bool {
        matches!(&self.kind, Kind::Surface(surface) if surface.floor) || self.outdoors()
    }

    /// Whether rain falls on what stands there.
    pub fn is_rained_on(&self) -> bool {
        matches!(&self.kind, Kind::ColdFrame(frame) if !frame.glazed)
    }

    /// What covers it outdoors; `None` indoors and in the open.
    pub fn cover(&self) -> Option<Cover> {
        match &self.kind {
            Kind::ColdFrame(frame) if frame.glazed => Some(frame.cover.unwrap_or(Cover::USUAL)),
            _ => None,
        }
    }

    /// The same place under `cover`; itself where it stands indoors.
    #[must_use]
    pub fn with_cover(&self, cover: Cover) -> Self {
        let mut place = self.clone();
        if let Kind::ColdFrame(frame) = &mut place.kind {
            (frame.glazed, frame.cover) = (true, Some(cover));
        }
        place
    }

    /// Whether it stands outdoors.
    pub fn outdoors(&self) -> bool {
        matches!(self.kind, Kind::ColdFrame(_))
    }

    /// Whether it is carried into the room rather than built in or left outside.
    pub fn is_furniture(&self) -> bool {
        matches!(self.kind, Kind::Rack(_) | Kind::Bench(_) | Kind::Chamber(_))
    }

    /// What only a rack has; `None` for all else.
    pub fn rack(&self) -> Option<&Rack> {
        match &self.kind {
            Kind::Rack(rack) => Some(rack),
            _ => None,
        }
    }

    /// What only a germination chamber has; `None` for all else.
    pub fn chamber(&self) -> Option<&Chamber> {
        match &self.kind {
            Kind::Chamber(chamber) => Some(chamber),
            _ => None,
        }
    }

    /// What only a window has; `None` for all else.
    pub fn window(&self) -> Option<&Window> {
        match &self.kind {
            Kind::Window(window) => Some(window),
            _ => None,
        }
    }

    /// Whether it keeps the damp in by itself, so that trays in it need no domes.
    pub fn keeps_damp_in(&self) -> bool {
        self.chamber().is_some()
    }

    /// Whether daylight comes in, so that it is no dark place without lamps.
    pub fn has_daylight(&self) -> bool {
        matches!(self.kind, Kind::Window(_) | Kind::ColdFrame(_))
    }

    /// Whether its decks can be more than one.
    pub fn takes_more_decks(&self) -> bool {
        !matches!(
            self.kind,
            Kind::Window(_) | Kind::ColdFrame(_) | Kind::Surface(_)
        )
    }

    /// Whether it is carried folded, or with its legs off.
    pub fn folds(&self) -> bool {
        matches!(&self.kind, Kind::Bench(bench) if bench.folds)
    }

    /// The same closet with its doors kept shut; `None` where there are none to shut.
    pub fn with_doors_shut(&self) -> Option<Self> {
        let mut shut = self.clone();
        (shut.set_doors(true) && shut != *self).then_some(shut)
    }

    /// The openings that somebody has cut into what closes tier `index`, and where a document holds them that has
    /// the place `at`.
    pub fn vents_of(&self, index: usize, at: &Pointer) -> (&[Vent], Pointer) {
        let kind = at.at("kind");
        match &self.kind {
            Kind::Chamber(chamber) => (&chamber.vents, kind.at("chamber").at("vents")),
            Kind::Closet(closet) => (&closet.vents, kind.at("closet").at("vents")),
            _ => {
                let tiers = at.at("tiers");
                (&self.tiers[index].vents, tiers.at(index).at("vents"))
            }
        }
    }

    /// Shuts its doors or opens them; whether it has any.
    pub fn set_doors(&mut self, shut: bool) -> bool {
        match &mut self.kind {
            Kind::Closet(closet) => {
                closet.shut = shut;
                true
            }
            _ => false,
        }
    }
}
