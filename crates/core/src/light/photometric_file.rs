//! Photometric files, whichever form they have.

// A fault is made once for a file that cannot be read at all: its size does not matter.
#![expect(clippy::result_large_err)]

use crate::basis::fault::Fault;
use crate::light::luminaire::Luminaire;
use crate::light::{eulumdat, ies};

/// Reads a photometric file: IES LM-63, or EULUMDAT (.ldt) as European lamps come.
///
/// # Errors
/// The first thing that cannot be, with its line in the path (`/lines/12`) and in words.
pub fn read(text: &str) -> Result<Luminaire, Fault> {
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    if !ies::is_ies(text) && eulumdat::is_eulumdat(text) {
        eulumdat::read(text)
    } else {
        ies::read(text)
    }
}
