//! The light at one spot of a deck.

use jiff::civil::Date;

use crate::basis::plane::Footprint;
use crate::day::standing::{covered, standing_in};
use crate::light::bay::BayField;
use crate::room::Bay;
use crate::season::Reckoned;

/// PPFD of a bay's lamps on `date` at a spot of its deck, in µmol/m²/s, and the height over the
/// deck of the leaves there; the deck's own between trays.
pub fn spot_light(
    reckoned: &Reckoned<'_>,
    bay: &Bay<'_>,
    date: Date,
    (x_mm, y_mm): (f64, f64),
) -> (f64, f64) {
    let standing = standing_in(reckoned, bay, date);
    let covers = |f: &Footprint| {
        (f.x_mm[0]..=f.x_mm[1]).contains(&x_mm) && (f.y_mm[0]..=f.y_mm[1]).contains(&y_mm)
    };
    let parts = standing.iter().flat_map(|s| &s.parts);
    let canopies = parts.filter(|p| covers(&p.footprint)).map(|p| p.canopy_mm);
    let z_mm = canopies.reduce(f64::max).unwrap_or(0.0);
    let field = BayField::new(bay, covered(bay, &standing), reckoned.fields);
    let spot = Footprint {
        x_mm: [x_mm; 2],
        y_mm: [y_mm; 2],
    };
    let cells = field.cells(spot, (1, 1));
    let (ppfd, _) = field.now(&cells, z_mm);
    (ppfd[0], z_mm)
}
