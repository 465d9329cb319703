//! A bay given in bare numbers, and the light on a grid of points: the calculator `light`.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::emitter::Emitter;
use crate::fault::{Fault, Faults, Pointer};
use crate::room::Axis;
use crate::say;
use crate::units::Quantity;

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
    /// Illuminance in lux straight from the emitters: a row for each y, a column for each x.
    pub direct_lux: Vec<Vec<f64>>,
    /// Mean over all points.
    pub mean_direct_lux: f64,
}

/// Points times emitters that a scene may have: a few seconds of work at the worst.
const MOST_WORK: usize = 50_000;

impl Scene {
    /// Computes the direct light on every point of the grid.
    ///
    /// # Errors
    /// Every fault of the scene, by its path.
    pub fn light(&self) -> Result<SceneLight, Vec<Fault>> {
        self.check()?;
        let emitters: Vec<Emitter> = self.emitters.iter().map(Emitter::from).collect();
        let direct_lux: Vec<Vec<f64>> = self
            .grid
            .y_mm
            .iter()
            .map(|&y| {
                self.grid
                    .x_mm
                    .iter()
                    .map(|&x| super::falloff::light_at(&emitters, (x, y), self.grid.z_mm))
                    .collect()
            })
            .collect();
        let points = (self.grid.x_mm.len() * self.grid.y_mm.len()) as f64;
        Ok(SceneLight {
            name: self.name.clone(),
            mean_direct_lux: direct_lux.iter().flatten().sum::<f64>() / points,
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
        let up_to = |least: f64| {
            least..=if ceiling {
                self.bay.height_mm
            } else {
                20_000.0
            }
        };
        faults.count(&root.at("emitters"), self.emitters.len(), 1..=500);
        for (i, emitter) in self.emitters.iter().enumerate() {
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
            faults.count(&grid.at(name), list.len(), 1..=400);
            for (i, &value) in list.iter().enumerate() {
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
            e.beam_exponent,
        )
    }
}
