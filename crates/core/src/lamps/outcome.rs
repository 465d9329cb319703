//! What light comes to, cell by cell: how many stretch, want more, get more than they use, or are
//! harmed.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::dli_mol_m2_d;
use crate::lamps::bands::{LightBand, STRETCHES_UNDER_MOL_M2_D};

/// The cells of seedlings by what they get; amounts add up over trays.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Outcome {
    /// All of them.
    pub cells: f64,
    /// Bleached, or given more than one and a half times what is comfortable.
    pub harmed: f64,
    /// Under the line under which they stretch.
    pub stretched: f64,
    /// Under their own crop's band, the stretched ones among them.
    pub under: f64,
    /// Over what does any good to their crop, the harmed ones among them.
    pub over: f64,
    /// What they lack to the line under which they stretch, as shares of it.
    pub lacks_to_stretch: f64,
    /// What they lack to their band, as shares of its lower end.
    pub lacks: f64,
    /// Their daily light, in mol/m²/d.
    pub daily: f64,
    /// What of it lies over the comfortable top.
    pub unused: f64,
}

/// The same as shares of all cells.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Shares {
    /// Bleached, or given more than one and a half times what is comfortable.
    pub harmed: f64,
    /// Under the line under which seedlings stretch.
    pub stretched: f64,
    /// Under their own crop's band.
    pub under: f64,
    /// Over what their crop uses.
    pub over: f64,
    /// What of all the light nobody uses.
    pub unused: f64,
    /// Mean daily light in mol/m²/d.
    pub mean_mol_m2_d: f64,
}

impl Outcome {
    /// The cells that get the wrong light: too little for their crop, or harm.
    pub fn wrong(&self) -> f64 {
        self.under + self.harmed
    }

    /// Of one cell that gets `ppfd` µmol/m²/s for `hours` and `besides` mol/m²/d from elsewhere.
    fn of_cell(ppfd: f64, hours: f64, besides: f64, band: &LightBand) -> Self {
        let daily = dli_mol_m2_d(ppfd, hours) + besides;
        let count = |yes: bool| f64::from(u8::from(yes));
        let bleaches = hours > 0.0 && ppfd > band.bleaches_over;
        Self {
            cells: 1.0,
            harmed: count(bleaches || daily > band.harms_over()),
            stretched: count(daily < STRETCHES_UNDER_MOL_M2_D),
            under: count(daily < band.low),
            over: count(daily > band.useful_to()),
            lacks_to_stretch: (1.0 - daily / STRETCHES_UNDER_MOL_M2_D).max(0.0),
            lacks: (1.0 - daily / band.low).max(0.0),
            daily,
            unused: (daily - band.high).max(0.0),
        }
    }

    /// Of cells that get `ppfd` µmol/m²/s each for `hours`, and what is in `besides` from elsewhere
    /// (nothing where that is empty), in mol/m²/d.
    pub fn of(ppfd: &[f64], hours: f64, besides: &[f64], band: &LightBand) -> Self {
        let each = ppfd.iter().enumerate().map(|(i, &ppfd)| {
            let besides = besides.get(i).copied().unwrap_or(0.0);
            Self::of_cell(ppfd, hours, besides, band)
        });
        each.sum()
    }

    /// As shares of all cells.
    pub fn shares(&self) -> Shares {
        let of = |value: f64, all: f64| if all > 0.0 { value / all } else { 0.0 };
        Shares {
            harmed: of(self.harmed, self.cells),
            stretched: of(self.stretched, self.cells),
            under: of(self.under, self.cells),
            over: of(self.over, self.cells),
            unused: of(self.unused, self.daily),
            mean_mol_m2_d: of(self.daily, self.cells),
        }
    }
}

impl std::ops::Add for Outcome {
    type Output = Self;

    fn add(self, b: Self) -> Self {
        Self {
            cells: self.cells + b.cells,
            harmed: self.harmed + b.harmed,
            stretched: self.stretched + b.stretched,
            under: self.under + b.under,
            over: self.over + b.over,
            lacks_to_stretch: self.lacks_to_stretch + b.lacks_to_stretch,
            lacks: self.lacks + b.lacks,
            daily: self.daily + b.daily,
            unused: self.unused + b.unused,
        }
    }
}

impl std::iter::Sum for Outcome {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::default(), |a, b| a + b)
    }
}
