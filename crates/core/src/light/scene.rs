//! A bay given in bare numbers, and the light on a grid of points: the calculator `light`.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::light::beam::Beam;
use crate::light::emitter::{Emitter, Optics};
use crate::light::enclosure::{Enclosure, Faces, Fineness};
use crate::light::facing::Facing;

/// A box with lamps and points. x runs along the shelf, y from the front (0) to the back, z up
/// from the tray plane; all in mm.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
pub struct Scene {
    /// Any name; given back with the answer.
    #[serde(default)]
    pub name: Option<String>,
    /// The box.
    pub bay: SceneBay,
    /// The lamps' emitting rectangles.
    pub emitters: Vec<SceneEmitter>,
    /// The points.
    pub grid: Grid,
    /// Photons in the lamps' light, in µmol/s per klm; with it the answer has PPFD too.
    #[serde(default)]
    pub umol_per_s_per_klm: Option<f64>,
}

/// The box of a scene.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
pub struct SceneBay {
    /// Along x.
    pub width_mm: f64,
    /// Along y.
    pub depth_mm: f64,
    /// Along z.
    pub height_mm: f64,
    /// What its faces reflect; left out, all are open or black.
    #[serde(default)]
    pub reflectance: Reflectance,
}

/// The share of the light that each face of a scene's box reflects, evenly to all sides: 0 (open
/// or black) to 1.
#[derive(Debug, Clone, Copy, Default, PartialEq, Deserialize, ToSchema)]
#[serde(default)]
pub struct Reflectance {
    /// At z = 0.
    pub floor: f64,
    /// At the top.
    pub ceiling: f64,
    /// At x = 0.
    pub left: f64,
    /// At the greatest x.
    pub right: f64,
    /// At the greatest y.
    pub back: f64,
    /// At y = 0.
    pub front: f64,
}

/// An emitting rectangle of a scene; it faces down.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
pub struct SceneEmitter {
    /// x and y of its centre.
    pub centre_mm: [f64; 2],
    /// Height of its face.
    pub height_mm: f64,
    /// Its length.
    pub length_mm: f64,
    /// Its width.
    pub width_mm: f64,
    /// Which way its length runs.
    pub along: Axis,
    /// All light that it emits, in lm.
    pub flux_lm: f64,
    /// m of its intensity cosᵐθ.
    pub beam_exponent: f64,
}

/// The points of a scene: every x with every y, at one height.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
pub struct Grid {
    /// Columns.
    pub x_mm: Vec<f64>,
    /// Rows.
    pub y_mm: Vec<f64>,
    /// Height of them all.
    pub z_mm: f64,
}

/// What the points of a scene get.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SceneLight {
    /// The scene's name.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub name: Option<String>,
    /// Illuminance in lux on a level surface that faces up: a row for each y, a column for each x.
    pub lux: Vec<Vec<f64>>,
    /// What of it comes straight from the emitters.
    pub direct_lux: Vec<Vec<f64>>,
    /// PPFD in µmol/m²/s, with the photons per lumen that the scene gives.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ppfd: Option<Vec<Vec<f64>>>,
    /// Mean of `lux` over all points.
    pub mean_lux: f64,
    /// Mean of `direct_lux` over all points.
    pub mean_direct_lux: f64,
    /// Mean of `ppfd` over all points.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub mean_ppfd: Option<f64>,
}

/// Points times emitters that a scene may have: a few seconds of work at the worst.
const MOST_WORK: usize = 50_000;

impl Scene {
    /// Computes the light on every point of the grid: straight from the emitters, and what the
    /// faces send back.
    ///
    /// Lux, or PPFD in µmol/m²/s, by the unit of the emitters' flux; points and emitters in mm.
    ///
    /// # Errors
    /// Every fault of the scene, by its path.
    pub fn light(&self) -> Result<SceneLight, Vec<Fault>> {
        self.check()?;
        let emitters: Vec<Emitter> = self.emitters.iter().map(Emitter::from).collect();
        let bay = &self.bay;
        let size_mm = [bay.width_mm, bay.depth_mm, bay.height_mm];
        let enclosure = Enclosure::new(
            size_mm,
            bay.reflectance.into(),
            Faces::default(),
            Fineness::Careful,
        );
        let reflected = enclosure.lit(&emitters, Faces::default());
        let (grid, z) = (&self.grid, self.grid.z_mm);
        let field = |at: &dyn Fn([f64; 3]) -> f64| -> Vec<Vec<f64>> {
            let row = |&y: &f64| {
                let point = |&x: &f64| {
                    go_on();
                    at([x, y, z])
                };
                grid.x_mm.iter().map(point).collect()
            };
            grid.y_mm.iter().map(row).collect()
        };
        let direct_lux = field(&|p| emitters.iter().map(|e| e.irradiance(p, Facing::Up)).sum());
        let mut lux = field(&|p| reflected.irradiance_up(p)[0]);
        for (row, direct) in lux.iter_mut().zip(&direct_lux) {
            for (lux, direct) in row.iter_mut().zip(direct) {
                *lux += direct;
            }
        }
        let points = (grid.x_mm.len() * grid.y_mm.len()) as f64;
        let mean = |field: &[Vec<f64>]| field.iter().flatten().sum::<f64>() / points;
        let photons = |lux: f64| self.umol_per_s_per_klm.map(|k| lux / 1000.0 * k);
        Ok(SceneLight {
            name: self.name.clone(),
            mean_lux: mean(&lux),
            mean_direct_lux: mean(&direct_lux),
            mean_ppfd: photons(mean(&lux)),
            ppfd: lux
                .iter()
                .map(|row| row.iter().map(|&lux| photons(lux)).collect())
                .collect(),
            lux,
            direct_lux,
        })
    }

    fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        let mm = Quantity::LengthMm;
        let root = Pointer::default();
        let bay = root.at("bay");
        let size = 1.0..=20_000.0;
        faults.number(&bay.at("width_mm"), self.bay.width_mm, size.clone(), mm);
        faults.number(&bay.at("depth_mm"), self.bay.depth_mm, size.clone(), mm);
        let ceiling = faults.number(&bay.at("height_mm"), self.bay.height_mm, size.clone(), mm);
        let each = bay.at("reflectance");
        let shares = [
            ("floor", self.bay.reflectance.floor),
            ("ceiling", self.bay.reflectance.ceiling),
            ("left", self.bay.reflectance.left),
            ("right", self.bay.reflectance.right),
            ("back", self.bay.reflectance.back),
            ("front", self.bay.reflectance.front),
        ];
        for (name, share) in shares {
            faults.number(&each.at(name), share, 0.0..=1.0, Quantity::Plain);
        }
        if shares.iter().all(|(_, share)| *share > 0.99) {
            faults.add(
                &each,
                shares[0].1,
                say!("light that nothing absorbs grows without end"),
                say!("give at least one face a reflectance of 0.99 or less"),
            );
        }
        if let Some(k) = self.umol_per_s_per_klm {
            let at = root.at("umol_per_s_per_klm");
            faults.number(&at, k, 0.1..=1000.0, Quantity::Plain);
        }
        let up_to = |least: f64| {
            least..=if ceiling {
                self.bay.height_mm
            } else {
                20_000.0
            }
        };
        for (i, emitter) in faults.list(&root.at("emitters"), &self.emitters, 1..=500) {
            let at = root.at("emitters").at(i);
            let centre = at.at("centre_mm");
            faults.number(
                &centre.at(0),
                emitter.centre_mm[0],
                -20_000.0..=20_000.0,
                mm,
            );
            faults.number(
                &centre.at(1),
                emitter.centre_mm[1],
                -20_000.0..=20_000.0,
                mm,
            );
            faults.number(&at.at("height_mm"), emitter.height_mm, up_to(0.0), mm);
            faults.number(&at.at("length_mm"), emitter.length_mm, 0.1..=20_000.0, mm);
            faults.number(&at.at("width_mm"), emitter.width_mm, 0.1..=20_000.0, mm);
            faults.number(
                &at.at("flux_lm"),
                emitter.flux_lm,
                0.0..=1e7,
                Quantity::FluxLm,
            );
            faults.number(
                &at.at("beam_exponent"),
                emitter.beam_exponent,
                0.1..=200.0,
                Quantity::Plain,
            );
        }
        let grid = root.at("grid");
        for (name, list) in [("x_mm", &self.grid.x_mm), ("y_mm", &self.grid.y_mm)] {
            for (i, &value) in faults.list(&grid.at(name), list, 1..=400) {
                faults.number(&grid.at(name).at(i), value, -20_000.0..=20_000.0, mm);
            }
        }
        let points = self.grid.x_mm.len() * self.grid.y_mm.len();
        let work = points.saturating_mul(self.emitters.len());
        if work > MOST_WORK {
            faults.add(
                &grid,
                points,
                say!(
                    "{points} points under {emitters} emitters take too long",
                    points = Quantity::Count.of(points as f64),
                    emitters = Quantity::Count.of(self.emitters.len() as f64),
                ),
                say!(
                    "keep points times emitters to {most}",
                    most = Quantity::Count.of(MOST_WORK as f64)
                ),
            );
        }
        faults.number(&grid.at("z_mm"), self.grid.z_mm, up_to(0.0), mm);
        faults.verdict()
    }
}

impl From<&SceneEmitter> for Emitter {
    fn from(e: &SceneEmitter) -> Self {
        Self::centred(
            e.centre_mm,
            e.length_mm,
            e.width_mm,
            e.along,
            e.height_mm,
            e.flux_lm,
            Optics::Beam(Beam::new(e.beam_exponent)),
        )
    }
}

impl From<Reflectance> for Faces<f64> {
    fn from(r: Reflectance) -> Self {
        Self {
            floor: r.floor,
            ceiling: r.ceiling,
            left: r.left,
            right: r.right,
            front: r.front,
            back: r.back,
        }
    }
}
