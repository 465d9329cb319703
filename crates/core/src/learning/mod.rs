//! What was measured corrects what is reckoned: shown before it is accepted, with how sure it is.

pub(crate) mod air;
pub mod handed_on;
mod comes_up;
pub mod estimate;
mod evidence;
mod heights;
mod lamps;
pub mod lesson;
mod mats;
pub mod meaning;
mod of_crop;
pub mod packets;

use crate::learning::evidence::{Asked, Soil};
use crate::learning::lesson::Lesson;
use crate::log::told::Told;
use crate::season::Reckoned;

/// The share of the packet called `id` that is alive by what came up in trays, whether anybody accepted that or not;
/// `None` where nobody counted.
pub(crate) fn alive(reckoned: &Reckoned<'_>, told: &Told, id: &str) -> Option<f64> {
    let asked = Asked {
        reckoned,
        told,
        put_in: &[],
        soil: &Soil::of(told),
    };
    let mut packets = packets::lessons(&asked).into_iter();
    let own = packets.find(|lesson| lesson.id == format!("packet/{id}"))?;
    Some(own.learned?.value)
}

/// What the readings and counts that are `told` teach of the plan; those that stand out are left out, but for
/// entries `put_in` by hand. What corrects most comes first.
pub fn lessons(reckoned: &Reckoned<'_>, told: &Told, put_in: &[String]) -> Vec<Lesson> {
    let asked = Asked {
        reckoned,
        told,
        put_in,
        soil: &Soil::of(told),
    };
    let mut all = lamps::lessons(&asked);
    all.extend(mats::lessons(&asked));
    all.extend(air::lessons(&asked));
    all.extend(packets::lessons(&asked));
    all.extend(comes_up::lessons(&asked));
    all.extend(heights::lessons(&asked));
    all.sort_by_key(|lesson| lesson.fix.is_none());
    all
}
