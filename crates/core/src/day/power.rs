//! How power, energy and cost of a bay are reckoned.

use crate::basis::units::Quantity;
use crate::basis::words::{Why, say};
use crate::plan::SoundPlan;
use crate::power::drawn_w;
use crate::room::Bay;

pub(super) fn power_why(bay: &Bay<'_>, plan: &SoundPlan) -> Why {
    Why {
        rule: say!(
            "{watts} at {volts}, {hours} a day while something here needs light, at {price} a kWh",
            watts = Quantity::PowerW.of(drawn_w(bay.tier)),
            volts = Quantity::VoltageV.of(plan.site.mains_v),
            hours = Quantity::Hours.of(bay.tier.photoperiod_h),
            price = Quantity::Money.of(plan.site.price_per_kwh),
        ),
        source: "the lamps' own figures and the site's price",
    }
}
