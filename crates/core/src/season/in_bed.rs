//! What the seed of a sowing lies in from the day that it is sown until it is up.

use jiff::civil::Date;

use crate::crops::emergence::EmergenceCurve;
use crate::crops::rates::until_up;
use crate::plan::{SoundPlan, Sowing};
use crate::season::counting::Late;
use crate::season::root_zone::Beds;

/// What the seed of a sowing lies in.
pub(super) struct InBed {
    /// Hour by hour from sowing on, one day or many, in °C.
    pub(super) bed_c: Vec<f64>,
    /// Mean days until half are up; `None` where none come up.
    pub(super) emergence_days: Option<f64>,
    /// Its mean until then, in °C.
    pub(super) mean_c: f64,
    /// How much longer than where it does best.
    pub(super) late: Late,
}

/// So many hours are a day.
const HOURS: usize = 24;

impl InBed {
    /// Of `sowing`, which is sown on the day that `sow` says for so many days late: sown earlier because
    /// it comes up late, it lies in what is there then.
    pub(super) fn of<'a>(
        plan: &'a SoundPlan,
        sowing: &'a Sowing,
        beds: &mut Beds<'a>,
        sow: impl Fn(Late) -> Date,
    ) -> Self {
        if let Some(c) = sowing.root_zone_c {
            return Self::in_mix(plan, sowing, vec![c]);
        }
        let usual = sow(Late::NONE);
        let mut own = Self::in_mix(plan, sowing, beds.root_zone_c(sowing, usual));
        let sown = sow(own.late);
        if own.changes() && sown != usual {
            own = Self::in_mix(plan, sowing, beds.root_zone_c(sowing, sown));
        }
        own
    }

    fn in_mix(plan: &SoundPlan, sowing: &Sowing, bed_c: Vec<f64>) -> Self {
        let crop = plan.crop(sowing);
        let emergence_days = crop
            .curve()
            .showing(&bed_c)
            .map(|showing| showing.half_days);
        let own = until_up(&bed_c, emergence_days);
        let mean_c = own.iter().sum::<f64>() / own.len() as f64;
        Self {
            late: Late::of(crop, mean_c, emergence_days),
            emergence_days,
            mean_c,
            bed_c,
        }
    }

    /// Whether one day differs from another.
    fn changes(&self) -> bool {
        self.bed_c.len() > HOURS
    }

    /// The share of good seeds that come up; 0 where none do.
    pub(super) fn comes_up(&self, curve: &EmergenceCurve) -> f64 {
        if self.emergence_days.is_none() {
            return 0.0;
        }
        let own = until_up(&self.bed_c, self.emergence_days);
        own.iter().map(|&c| curve.share(c)).sum::<f64>() / own.len() as f64
    }
}
