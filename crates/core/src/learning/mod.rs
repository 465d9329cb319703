//! What was measured corrects what is reckoned: shown before it is accepted, with how sure it is.

mod air;
pub mod carried;
mod comes_up;
pub mod estimate;
mod evidence;
mod heights;
mod lamps;
pub mod lesson;
mod mats;
pub mod meaning;
mod of_crop;
mod packets;

use crate::learning::evidence::Asked;
use crate::learning::lesson::Lesson;
use crate::log::told::Told;
use crate::season::Reckoned;

/// What the readings and counts that are `told` teach of the plan; those that stand out are left out, but for
/// entries `put_in` by hand. What corrects most comes first.
pub fn lessons(reckoned: &Reckoned<'_>, told: &Told, put_in: &[String]) -> Vec<Lesson> {
    let asked = Asked {
        reckoned,
        told,
        put_in,
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
