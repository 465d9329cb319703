//! Standing trays in a bay.

use jiff::civil::Date;

use crate::basis::fault::Fault;
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::change::Onto;
use crate::edit::editor::{Editor, Word, fault};
use crate::light::fields::Fields;
use crate::plan::{Plan, SoundPlan, Stage, Stand, Tray};
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::room_for::RoomFor;
use crate::space::spots::DeckSpot;

/// When trays begin to stand somewhere, and how.
pub(super) struct From<'a> {
    pub(super) stage: Stage,
    pub(super) from: Option<Date>,
    pub(super) onto: Option<&'a Onto>,
}

impl Editor {
    /// Stands trays in `bay` one after another, each on the free spot nearest to where it is wanted,
    /// free on all its days from then on until it goes elsewhere. All find a spot, or none moves.
    pub(super) fn stand_trays(
        &mut self,
        plan: &SoundPlan,
        trays: &[String],
        when: &From<'_>,
        bay: &BayRef,
    ) -> Word {
        const MOST: usize = 50;
        self.tier_at(bay)?;
        if !(1..=MOST).contains(&trays.len()) {
            return Err(fault(
                "trays",
                trays.len(),
                say!(
                    "{n} trays at once",
                    n = Quantity::Count.of(trays.len() as f64)
                ),
                say!("name 1 to {most}", most = Quantity::Count.of(MOST as f64)),
            ));
        }
        let fields = Fields::default();
        let mut stood: Option<SoundPlan> = None;
        for (done, id) in trays.iter().enumerate() {
            let now = stood.as_ref().unwrap_or(plan);
            let index = self.tray_at("trays", id)?;
            let reckoned = Reckoned::of(now, &fields);
            let tray = stand_one(&reckoned, &now.trays[index], when, bay, done)?;
            self.plan.trays[index] = tray;
            stood = Some(self.sound()?);
        }
        let (bay, n) = (self.bay_name(bay), Quantity::Count.of(trays.len() as f64));
        let name = |plan: &Plan| {
            let tray = plan.trays.iter().find(|tray| tray.id == trays[0]);
            tray.map_or_else(String::new, |tray| tray.name.clone())
        };
        Ok(match (trays.len(), when.from) {
            (1, Some(from)) => say!(
                "moved {tray} to {bay} from {from} on",
                tray = name(&self.plan),
                bay = bay,
                from = from
            ),
            (1, None) => say!("moved {tray} to {bay}", tray = name(&self.plan), bay = bay),
            (_, Some(from)) => say!(
                "moved {n} trays to {bay} from {from} on",
                n = n,
                bay = bay,
                from = from
            ),
            (_, None) => say!("moved {n} trays to {bay}", n = n, bay = bay),
        })
    }
}

/// `tray` on a spot in `bay`, after `done` others that found theirs.
fn stand_one(
    reckoned: &Reckoned<'_>,
    tray: &Tray,
    when: &From<'_>,
    bay: &BayRef,
    done: usize,
) -> Result<Tray, Vec<Fault>> {
    let onto = when.onto.copied().unwrap_or_default();
    // On the deck where it stands already it keeps its box.
    let now = match when.from {
        Some(from) => tray.stand_on(when.stage, from),
        None => tray.stand_in(when.stage),
    };
    let box_mm = now.filter(|now| now.bay == *bay).and_then(|now| now.box_mm);
    let mut stand = Stand {
        stage: when.stage,
        from: when.from,
        bay: bay.clone(),
        x_mm: 0.0,
        y_mm: 0.0,
        along: Axis::X,
        box_mm,
        stacked: onto.stacked,
    };
    let room = RoomFor::new(reckoned, tray, &stand);
    if room.days.is_empty() {
        return Err(fault(
            "from",
            when.from,
            say!("{tray} is past that stage by then", tray = &tray.name),
            say!("choose an earlier date, or a later stage"),
        ));
    }
    let there = reckoned
        .plan
        .bay(bay)
        .expect("the edit names a bay of the plan");
    let near_mm = onto.x_mm.map(|x_mm| [x_mm, onto.y_mm.unwrap_or(0.0)]);
    let spots = room.spots(&there, near_mm).into_iter();
    let away = |spot: &DeckSpot| match near_mm {
        Some([x_mm, y_mm]) => {
            let turned = onto.along.is_some_and(|along| along != spot.along);
            let off = (spot.x_mm - x_mm).hypot(spot.y_mm - onto.y_mm.map_or(spot.y_mm, |_| y_mm));
            // Which way round it is held counts for a hand's width.
            const HAND_MM: f64 = 100.0;
            off + if turned { HAND_MM } else { 0.0 }
        }
        None => 0.0,
    };
    let Some(spot) = spots.min_by(|a, b| away(a).total_cmp(&away(b))) else {
        return Err(full(&room, tray, bay, &there.name(), (onto.stacked, done)));
    };
    (stand.x_mm, stand.y_mm, stand.along) = (spot.x_mm, spot.y_mm, spot.along);
    Ok(tray.restood(&stand))
}

/// Why `tray` finds no spot in `bay`, and where the nearest is.
fn full(
    room: &RoomFor<'_>,
    tray: &Tray,
    bay: &BayRef,
    bay_name: &str,
    (stacked, done): (bool, usize),
) -> Vec<Fault> {
    let problem = match (stacked, done) {
        (true, _) => say!(
            "no tray on {bay} stays under {tray} until it is up",
            bay = bay_name,
            tray = &tray.name
        ),
        (false, 0) => say!(
            "{bay} has no room for {tray} on those days",
            bay = bay_name,
            tray = &tray.name
        ),
        (false, done) => say!(
            "{bay} has room for {done} of them in those days, and none for {tray}",
            bay = bay_name,
            done = Quantity::Count.of(done as f64),
            tray = &tray.name
        ),
    };
    let remedy = match room.nearest_bay(bay) {
        Some(other) => say!("the nearest free spot is in {other}", other = other.name()),
        None => say!("no shelf indoors has one: free a spot first, or add a rack"),
    };
    fault("bay", bay, problem, remedy)
}
