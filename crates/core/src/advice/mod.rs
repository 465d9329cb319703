//! Judgements: one file each, one function each, all listed here.
//!
//! A judgement looks at a bay on a date or at the whole plan and says what to do, where, when, by
//! how much and why. Its fixes are edits of the plan that can be applied with one click.

mod bare_chipboard_under_water;
mod too_few_seeds;
mod sown_too_late;
mod sown_too_early;
mod pot_on_now;
mod packet_too_old;
mod mixed_tray_misfit;
mod harden_off_now;
mod frost_after_planting_out;
mod cold_must_begin;
mod better_sown_outdoors;
mod built_in_the_room;
mod closed_air_too_hot;
mod dark_after_emergence;
mod deck_over_rating;
mod dome_does_not_fit;
mod dome_too_long;
mod dries_before_back;
mod fan_falls_short;
mod hang_lamps;
mod heavy_trays_high;
mod lamp_blocks_trays;
mod leaves_bleach;
mod leaves_too_near;
mod lights_in_quiet_hours;
mod mat_cannot_reach;
mod mat_covered;
mod mat_in_a_sealed_box;
mod mat_still_on;
mod mould_weather;
mod no_headroom;
mod no_standing_room;
mod nothing_comes_up;
mod out_of_reach;
mod places_overlap;
mod probe_in_the_wrong_place;
mod rack_over_rating;
mod root_zone_wrong;
mod season_too_short;
mod seedlings_stretch;
mod storage_shades;
mod tall_and_unbraced;
mod too_little_light;
mod tray_elsewhere;
mod trays_clash;
mod trays_overhang;
mod window_too_dark;
mod wire_above_lamp;

use std::collections::HashMap;

use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

use crate::bays::{BayView, Cell};
use crate::crops::Crop;
use crate::fault::Pointer;
use crate::places::PlaceView;
use crate::plan::{DateSpan, Plan, SoundPlan, Sowing};
use crate::room::{Adjust, BayRef, Place};
use crate::say;
use crate::season::SowingDates;
use crate::to_sow::SowingCells;
use crate::words::{COMMON_PRACTICE, Statement};

/// A judgement on a bay on a date.
type OnBay = fn(&BayView<'_>) -> Option<Finding>;
/// A judgement on a place on a date.
type OnPlace = fn(&PlaceView<'_, '_>) -> Option<Finding>;
/// A judgement on a whole plan with the dates of its sowings.
type OnPlan = fn(&SoundPlan, &[SowingDates]) -> Vec<Finding>;

/// A judgement on each sowing by itself.
type OnSowing = fn(&SowingView<'_>) -> Option<Finding>;

/// A sowing with all that judgements look at.
pub(crate) struct SowingView<'a> {
    /// The plan.
    plan: &'a SoundPlan,
    /// The sowing's index in the plan.
    index: usize,
    /// The sowing.
    sowing: &'a Sowing,
    /// Its crop.
    crop: &'a Crop,
    /// Its dates.
    dates: &'a SowingDates,
    /// How much of it to sow.
    cells: Option<&'a SowingCells>,
}

impl SowingView<'_> {
    /// A finding on the sowing, of common practice and without fixes.
    fn finding(
        &self,
        code: &'static str,
        severity: Severity,
        days: DateSpan,
        headline: Statement,
        reason: Statement,
    ) -> Finding {
        let trays = self.plan.trays_of(&self.sowing.id);
        Finding {
            id: String::new(),
            code,
            severity,
            place: None,
            bay: None,
            sowing: Some(self.sowing.id.clone()),
            trays: trays.map(|tray| tray.id.clone()).collect(),
            cells: Vec::new(),
            days,
            headline,
            reason,
            source: COMMON_PRACTICE,
            fixes: Vec::new(),
        }
    }

    /// From sowing to planting out.
    fn days(&self) -> DateSpan {
        DateSpan {
            from: self.dates.sow,
            to: self.dates.out,
        }
    }

    /// Field `name` of the sowing in the document.
    fn at(&self, name: &str) -> Pointer {
        Pointer::default().at("sowings").at(self.index).at(name)
    }

    /// The edit that moves all its dates by `days` more.
    fn shift(&self, days: i32) -> Fix {
        Fix {
            label: say!("Move it {by}", by = moved(days)),
            word: say!(
                "moved {name} {by}",
                name = &self.dates.name,
                by = moved(days)
            ),
            patch: vec![PatchStep::set(
                &self.at("shift_days"),
                self.sowing.shift_days + days,
            )],
        }
    }
}

/// Days later or earlier, in words.
fn moved(days: i32) -> String {
    let unit = if days.abs() == 1 { "day" } else { "days" };
    let way = if days < 0 { "earlier" } else { "later" };
    format!("{} {unit} {way}", days.abs())
}

/// Judgements on a bay on a date.
const ON_BAYS: &[OnBay] = &[
    mat_covered::judge,
    mat_in_a_sealed_box::judge,
    closed_air_too_hot::judge,
    dark_after_emergence::judge,
    leaves_too_near::judge,
    leaves_bleach::judge,
    deck_over_rating::judge,
    window_too_dark::judge,
    root_zone_wrong::judge,
    wire_above_lamp::judge,
    dome_does_not_fit::judge,
    no_headroom::judge,
    storage_shades::judge,
    bare_chipboard_under_water::judge,
    hang_lamps::judge,
    too_little_light::judge,
    seedlings_stretch::judge,
    lights_in_quiet_hours::judge,
    tray_elsewhere::judge,
    mould_weather::judge,
    dries_before_back::judge,
    dome_too_long::judge,
    mat_still_on::judge,
    mat_cannot_reach::judge,
    probe_in_the_wrong_place::judge,
    fan_falls_short::judge,
    trays_overhang::judge,
    lamp_blocks_trays::judge,
];

/// Judgements on a place on a date.
const ON_PLACES: &[OnPlace] = &[
    rack_over_rating::judge,
    tall_and_unbraced::judge,
    heavy_trays_high::judge,
];

/// Judgements on the whole plan.
const ON_PLANS: &[OnPlan] = &[
    nothing_comes_up::judge,
    trays_clash::judge,
    season_too_short::judge,
    places_overlap::judge,
    no_standing_room::judge,
    built_in_the_room::judge,
    out_of_reach::judge,
    mixed_tray_misfit::judge,
];

/// Judgements on each sowing.
const ON_SOWINGS: &[OnSowing] = &[
    frost_after_planting_out::judge,
    sown_too_early::judge,
    sown_too_late::judge,
    better_sown_outdoors::judge,
    packet_too_old::judge,
    too_few_seeds::judge,
    cold_must_begin::judge,
    pot_on_now::judge,
    harden_off_now::judge,
];

/// Something to do, with its reason.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Finding {
    /// Its own name within an assessment: no two findings share one, and the same finding keeps it
    /// from one assessment to the next.
    pub id: String,
    /// Which judgement speaks: its file's name.
    pub code: &'static str,
    /// How much it matters.
    pub severity: Severity,
    /// The place it is about, if any.
    pub place: Option<String>,
    /// The bay it is about, if any.
    pub bay: Option<BayRef>,
    /// The sowing it is about, if it is about one alone.
    pub sowing: Option<String>,
    /// The trays it is about.
    pub trays: Vec<String>,
    /// The cells it is about, where it is not about whole trays.
    pub cells: Vec<Cell>,
    /// The days it is about.
    pub days: DateSpan,
    /// What to do, by how much.
    pub headline: Statement,
    /// Why.
    pub reason: Statement,
    /// Where the rule comes from.
    pub source: &'static str,
    /// Edits that would settle it.
    pub fixes: Vec<Fix>,
}

/// How much a finding matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Plants or people come to harm.
    Harm,
    /// The plan does not work as it stands.
    Conflict,
    /// It could be better.
    Advice,
}

/// An edit of the plan that settles a finding.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Fix {
    /// What the button says.
    pub label: Statement,
    /// What the history says.
    pub word: Statement,
    /// The edit, as a JSON Patch (RFC 6902) on the plan.
    pub patch: Vec<PatchStep>,
}

/// One step of a JSON Patch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PatchStep {
    /// What to do there.
    pub op: PatchOp,
    /// Where.
    pub path: String,
    /// With what.
    pub value: Value,
}

/// The operations that fixes use.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PatchOp {
    /// Sets a value that is there.
    Replace,
    /// Sets a field, whether it is there or not.
    Add,
}

impl PatchStep {
    /// Sets the field at `path`, which the plan may leave out.
    pub(crate) fn set(path: &Pointer, value: impl Serialize) -> Self {
        Self {
            op: PatchOp::Add,
            ..Self::replace(path, value)
        }
    }

    /// Sets what stands at `path`.
    pub(crate) fn replace(path: &Pointer, value: impl Serialize) -> Self {
        Self {
            op: PatchOp::Replace,
            path: path.to_string(),
            value: serde_json::to_value(value).expect("plain data serialises"),
        }
    }
}

impl PatchStep {
    /// Carries the step out on a document; one whose path names nothing changes nothing.
    fn carry_out(&self, document: &mut Value) {
        let Some((parent, field)) = self.path.rsplit_once('/') else {
            return;
        };
        match document.pointer_mut(parent) {
            Some(Value::Object(fields)) => {
                fields.insert(field.into(), self.value.clone());
            }
            Some(Value::Array(list)) => {
                let entry = field.parse().ok().and_then(|i: usize| list.get_mut(i));
                if let Some(entry) = entry {
                    *entry = self.value.clone();
                }
            }
            _ => {}
        }
    }
}

/// The plan that a patch makes of `plan`, unchecked.
///
/// # Errors
/// What the document then lacks or has too much.
pub fn patched(plan: &SoundPlan, patch: &[PatchStep]) -> Result<Plan, serde_json::Error> {
    let mut document = serde_json::to_value(&**plan)?;
    patch.iter().for_each(|step| step.carry_out(&mut document));
    serde_json::from_value(document)
}

impl Finding {
    /// A finding on a bay on its date, of common practice and without fixes.
    fn of_bay(
        view: &BayView<'_>,
        code: &'static str,
        severity: Severity,
        headline: Statement,
        reason: Statement,
    ) -> Self {
        let days = DateSpan::day(view.date);
        Self {
            bay: Some(view.bay.reference()),
            ..Self::of_place(view.bay.place, days, code, severity, headline, reason)
        }
    }

    /// A finding on a place on `days`, of common practice and without fixes.
    fn of_place(
        place: &Place,
        days: DateSpan,
        code: &'static str,
        severity: Severity,
        headline: Statement,
        reason: Statement,
    ) -> Self {
        Self {
            id: String::new(),
            code,
            severity,
            place: Some(place.id.clone()),
            bay: None,
            sowing: None,
            trays: Vec::new(),
            cells: Vec::new(),
            days,
            headline,
            reason,
            source: COMMON_PRACTICE,
            fixes: Vec::new(),
        }
    }
}

/// Gives each of `findings` its own name: what it is about, and a number where that leaves two
/// alike.
pub fn name_each(findings: &mut [Finding]) {
    let mut seen: HashMap<String, u32> = HashMap::new();
    for finding in findings {
        let mut about = vec![finding.code.to_owned()];
        about.extend(
            finding
                .bay
                .as_ref()
                .map(|bay| format!("{}/{}", bay.place, bay.tier)),
        );
        about.extend(finding.place.clone().filter(|_| finding.bay.is_none()));
        about.extend(finding.sowing.clone());
        about.push(finding.days.from.to_string());
        let about = about.join(":");
        let times = seen.entry(about.clone()).or_default();
        *times += 1;
        finding.id = if *times == 1 {
            about
        } else {
            format!("{about}:{times}")
        };
    }
}

/// All findings on a place, the gravest first.
pub fn on_place(view: &PlaceView<'_, '_>) -> Vec<Finding> {
    let mut findings: Vec<Finding> = ON_PLACES.iter().filter_map(|judge| judge(view)).collect();
    findings.sort_by_key(|finding| finding.severity);
    findings
}

/// All findings on a bay, the gravest first.
pub fn on_bay(view: &BayView<'_>) -> Vec<Finding> {
    let mut findings: Vec<Finding> = ON_BAYS.iter().filter_map(|judge| judge(view)).collect();
    findings.sort_by_key(|finding| finding.severity);
    findings
}

/// All findings on the plan as a whole, the gravest first.
pub fn on_plan(plan: &SoundPlan, dates: &[SowingDates], to_sow: &[SowingCells]) -> Vec<Finding> {
    let mut findings: Vec<Finding> = ON_PLANS
        .iter()
        .flat_map(|judge| judge(plan, dates))
        .collect();
    for (index, sowing) in plan.sowings.iter().enumerate() {
        // Stock that passes through is judged where it stands.
        if sowing.stays.is_some() {
            continue;
        }
        let view = SowingView {
            plan,
            index,
            sowing,
            crop: plan.crop(sowing),
            dates: &dates[index],
            cells: to_sow.iter().find(|cells| cells.sowing == sowing.id),
        };
        findings.extend(ON_SOWINGS.iter().filter_map(|judge| judge(&view)));
    }
    findings.sort_by_key(|finding| finding.severity);
    findings
}

/// The fix that hangs every lamp of the bay at its best height and sets the hours.
fn hang_here(view: &BayView<'_>) -> Option<Fix> {
    use crate::say;
    use crate::units::Quantity;

    let hang = view.computed.hang.as_ref()?;
    let setting = hang.setting;
    let tier = view.bay.pointer();
    let mut patch = Vec::new();
    for (i, lamp) in view.bay.tier.lamps.iter().enumerate() {
        let at = tier.at("lamps").at(i);
        patch.push(PatchStep::replace(&at.at("height_mm"), setting.height_mm));
        let Some(dimmer) = &lamp.dimmer else { continue };
        let wanted = lamp.dimmed() * setting.brightness;
        let off = |share: &f64| (share - wanted).abs();
        let steps = dimmer.steps.iter().enumerate();
        if let Some((step, _)) = steps.min_by(|a, b| off(a.1).total_cmp(&off(b.1))) {
            patch.push(PatchStep::replace(&at.at("dimmer").at("at"), step));
        }
    }
    if let Some(Adjust::Boxes(_)) = view.bay.tier.adjust {
        let at = tier.at("adjust").at("boxes").at("stacked_mm");
        patch.push(PatchStep::replace(&at, setting.lift_mm));
    }
    patch.push(PatchStep::replace(
        &tier.at("photoperiod_h"),
        setting.hours_h,
    ));
    patch.extend(go_on_at(view, hang.start.from_h));
    Some(Fix {
        label: say!("Hang here"),
        word: say!(
            "hung {bay} at {height}, {hours} a day from {start}",
            bay = view.bay.name(),
            height = Quantity::LengthMm.of(setting.height_mm),
            hours = Quantity::Hours.of(setting.hours_h),
            start = Quantity::ClockH.of(hang.start.from_h),
        ),
        patch,
    })
}

/// The edit that has the lamps of a bay go on at `from_h`; none when they do already.
fn go_on_at(view: &BayView<'_>, from_h: f64) -> Option<PatchStep> {
    let tier = view.bay.tier;
    let at = view.bay.pointer().at("lights_on_h");
    (tier.burning().from_h != from_h).then(|| PatchStep::set(&at, from_h))
}

#[cfg(test)]
pub(crate) mod testing {
    //! Plans, changed at will, for the judgements' own tests.

    use super::*;
    use crate::bays::{Detail, Looker};
    use crate::light::bay::Fields;
    use crate::room;
    use crate::upgrade::upgraded;

    /// A wire rack with four lit tiers, a store on top and fifteen trays.
    pub fn one_rack(change: impl FnOnce(&mut Plan)) -> SoundPlan {
        sound(include_str!("../../fixtures/one-rack-v1.json"), change)
    }

    /// The demo with all its places.
    pub fn kettle_fen(change: impl FnOnce(&mut Plan)) -> SoundPlan {
        sound(include_str!("../../../../demo/kettle-fen.json"), change)
    }

    fn sound(json: &str, change: impl FnOnce(&mut Plan)) -> SoundPlan {
        let document = upgraded(serde_json::from_str(json).unwrap());
        let mut plan: Plan = serde_json::from_value(document).unwrap();
        change(&mut plan);
        plan.check().unwrap_or_else(|faults| panic!("{faults:?}"))
    }

    /// What `code` says of `sowing`.
    pub fn of_sowing(plan: &SoundPlan, sowing: &str, code: &str) -> Option<Finding> {
        let dates = crate::season::dates(plan);
        let to_sow = crate::to_sow::all(plan, &dates);
        let mut found = super::on_plan(plan, &dates, &to_sow).into_iter();
        found.find(|f| f.code == code && f.sowing.as_deref() == Some(sowing))
    }

    /// The sowing called `id`.
    pub fn sowing<'p>(plan: &'p mut Plan, id: &str) -> &'p mut crate::plan::Sowing {
        let mut sowings = plan.sowings.iter_mut();
        sowings.find(|sowing| sowing.id == id).unwrap()
    }

    pub fn tier(plan: &mut Plan, index: usize) -> &mut room::Tier {
        &mut plan.places[0].tiers[index]
    }

    /// The first place, as a rack.
    pub fn rack(plan: &mut Plan) -> &mut room::place::Rack {
        match &mut plan.places[0].kind {
            room::Kind::Rack(rack) => rack,
            other => panic!("the first place is a rack, not {other:?}"),
        }
    }

    /// What `judge` says of tier `index` of the first place on `date`.
    pub fn judged(
        plan: &SoundPlan,
        index: usize,
        date: jiff::civil::Date,
        judge: OnBay,
    ) -> Option<Finding> {
        let dates = crate::season::dates(plan);
        judge(&Looker::new(plan, &dates, Detail::All, &Fields::default()).look(0, date)[index])
    }

    /// What `judge` says of the first place on `date`.
    pub fn place_judged(
        plan: &SoundPlan,
        date: jiff::civil::Date,
        judge: OnPlace,
    ) -> Option<Finding> {
        let dates = crate::season::dates(plan);
        let bays = Looker::new(plan, &dates, Detail::Outline, &Fields::default()).look(0, date);
        judge(&PlaceView::new(plan, 0, date, &bays))
    }

    /// The plan that the finding's first fix makes.
    pub fn fixed(plan: &SoundPlan, finding: &Finding) -> SoundPlan {
        let fixed = patched(plan, &finding.fixes[0].patch).unwrap();
        assert_ne!(fixed, **plan, "a fix changes something");
        fixed.check().unwrap()
    }
}
