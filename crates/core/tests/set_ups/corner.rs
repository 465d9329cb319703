//! Small corners to judge: a place or two, gear, and trays that were sown so many days ago.

use jiff::civil::{Date, date};
use sunrise_core::basis::dates::plus_days;
use sunrise_core::basis::plane::Axis;
use sunrise_core::plan::{Part, Plan, SoundPlan, Sowing, Stage, Stand, Tray};
use sunrise_core::room::place::Kind;
use sunrise_core::room::{BayRef, Place, Tier, shelf};

/// The day that most corners are looked at.
pub const DAY: Date = date(2027, 4, 1);

/// A plan in the making, on a day in a temperate spring.
pub struct Corner {
    plan: Plan,
    day: Date,
}

fn kind<'k, T>(kinds: &'k [T], id: &str, of: impl Fn(&T) -> &str) -> &'k T {
    kinds.iter().find(|kind| of(kind) == id).expect(id)
}

impl Corner {
    /// A room at 20 °C by day and 16 °C by night, with nothing in it, on 1 April.
    pub fn new() -> Self {
        let mut plan = Plan::blank(date(2027, 1, 20), None);
        plan.site.latitude_deg = 51.0;
        plan.site.last_frost = date(2027, 5, 6);
        plan.site.last_frost_estimated = false;
        plan.site.price_per_kwh = 0.3;
        plan.site.air.day_c = 20.0;
        plan.site.air.night_c = 16.0;
        plan.season.from = date(2027, 1, 10);
        plan.season.to = date(2027, 7, 1);
        plan.room.width_mm = 4000.0;
        plan.room.depth_mm = 3000.0;
        Self { plan, day: DAY }
    }

    /// Looked at on another day.
    pub fn on(mut self, day: Date) -> Self {
        self.day = day;
        self
    }

    /// The room's air by day and by night, and its humidity.
    pub fn air(mut self, day_c: f64, night_c: f64, humidity: f64) -> Self {
        let air = &mut self.plan.site.air;
        (air.day_c, air.night_c, air.humidity) = (day_c, night_c, Some(humidity));
        self
    }

    /// A place of a generic kind, changed at will. A rack is braced.
    pub fn place(mut self, of: &str, change: impl FnOnce(&mut Place)) -> Self {
        let mut place = kind(&shelf::library().places, of, |p| &p.id).clone();
        place.id = format!("p{}", self.plan.places.len() + 1);
        if let Kind::Rack(rack) = &mut place.kind {
            rack.braced = true;
        }
        change(&mut place);
        self.plan.places.push(place);
        self
    }

    fn tier_mut(&mut self, tier: &str) -> &mut Tier {
        let place = self.plan.places.last_mut().expect("a place");
        let mut tiers = place.tiers.iter_mut();
        tiers.find(|t| t.id == tier).expect(tier)
    }

    /// Changes a tier of the last place.
    pub fn tier(mut self, tier: &str, change: impl FnOnce(&mut Tier)) -> Self {
        change(self.tier_mut(tier));
        self
    }

    /// Lamps of a kind over a tier of the last place, along it and so far from the front each.
    pub fn lamps(mut self, tier: &str, of: &str, rows: &[f64], height_mm: f64, hours: f64) -> Self {
        let lamp = kind(&shelf::library().lamps, of, |l| &l.id);
        let width_mm = self.plan.places.last().expect("a place").width_mm;
        let tier = self.tier_mut(tier);
        for &y_mm in rows {
            let mut lamp = lamp.clone();
            lamp.id = format!("l{}", tier.lamps.len() + 1);
            (lamp.x_mm, lamp.y_mm) = (width_mm / 2.0, y_mm);
            (lamp.along, lamp.height_mm) = (Axis::X, height_mm);
            tier.lamps.push(lamp);
        }
        tier.photoperiod_h = hours;
        self
    }

    /// Mats of a kind on a tier of the last place, with a thermostat or always on.
    pub fn mats(mut self, tier: &str, of: &str, count: usize, thermostat_c: Option<f64>) -> Self {
        let mat = kind(&shelf::library().mats, of, |m| &m.id);
        let tier = self.tier_mut(tier);
        for n in 0..count {
            let mut mat = mat.clone();
            mat.id = format!("m{}", n + 1);
            mat.along = Axis::X;
            mat.x_mm = (mat.length_mm + 20.0) * n as f64;
            mat.y_mm = 20.0;
            mat.thermostat_c = thermostat_c;
            tier.mats.push(mat);
        }
        self
    }

    /// A tray of a format with a crop in it that was sown so many days ago, on a tier of the last
    /// place, with its left front corner at `at`.
    pub fn tray(self, tier: &str, crop: &str, format: &str, at: [f64; 2], sown_days: i32) -> Self {
        self.tray_changed(tier, crop, format, at, sown_days, |_, _| ())
    }

    /// The same, with its sowing and tray changed at will.
    pub fn tray_changed(
        mut self,
        tier: &str,
        crop: &str,
        format: &str,
        [x_mm, y_mm]: [f64; 2],
        sown_days: i32,
        change: impl FnOnce(&mut Sowing, &mut Tray),
    ) -> Self {
        let container = kind(&shelf::library().containers, format, |f| &f.id);
        if self.plan.tray_formats.iter().all(|f| f.id != format) {
            self.plan.tray_formats.push(container.clone());
        }
        let n = self.plan.sowings.len() + 1;
        let cells = container.columns * container.rows;
        let mut sowing = Sowing::plain(&format!("s{n}"), crop, &n.to_string(), (cells / 2).max(1));
        sowing.sow_on = Some(plus_days(self.day, -sown_days));
        sowing.sown = sown_days >= 0;
        sowing.pots_on = Some(false);
        let bay = BayRef {
            place: self.plan.places.last().expect("a place").id.clone(),
            tier: tier.into(),
        };
        let mut tray = Tray {
            id: format!("t{n}"),
            name: format!("T{n}"),
            parts: vec![Part {
                sowing: sowing.id.clone(),
                columns: None,
                rows: None,
            }],
            potted: false,
            sown_together: false,
            format: format.into(),
            pinned: false,
            stands: vec![Stand {
                stage: Stage::Germinate,
                from: None,
                bay,
                x_mm,
                y_mm,
                along: Axis::Y,
                box_mm: None,
                stacked: false,
            }],
        };
        change(&mut sowing, &mut tray);
        self.plan.sowings.push(sowing);
        self.plan.trays.push(tray);
        self
    }

    /// What was sown last came up in a warm room, and was carried here.
    pub fn come_up_in_the_warm(mut self) -> Self {
        let last = self.plan.sowings.last_mut().expect("a sowing");
        last.root_zone_c = Some(22.0);
        self
    }

    /// The whole plan, changed at will.
    pub fn plan(mut self, change: impl FnOnce(&mut Plan)) -> Self {
        change(&mut self.plan);
        self
    }

    /// The plan, which has no fault, and its day.
    pub fn made(self) -> (SoundPlan, Date) {
        let plan = self.plan.check();
        (
            plan.unwrap_or_else(|faults| {
                panic!(
                    "{:?}",
                    faults
                        .iter()
                        .map(|f| format!("{} {}", f.path, f.problem))
                        .collect::<Vec<_>>()
                )
            }),
            self.day,
        )
    }
}
