//! Sharing a flat among kinds, and choosing another container for a tray.

use crate::basis::fault::Fault;
use crate::basis::ids::{free_id, free_name};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::change::Share;
use crate::edit::editor::{Editor, Word, fault, unknown};
use crate::light::fields::Fields;
use crate::plan::divide::{By, Indivisible, divide};
use crate::plan::{CellBlock, Part, SoundPlan, Tray};
use crate::room::MOST_OVERHANG_MM;
use crate::room::container::TrayFormat;
use crate::season::Reckoned;

impl Editor {
    /// Shares a flat among kinds: a new one, or a tray that is there. Trays of theirs that stand
    /// nowhere and are not needed any more go.
    pub(super) fn share_flat(&mut self, plan: &SoundPlan, share: &Share) -> Word {
        let mut sowings = share.sowings.clone();
        sowings.dedup();
        for id in &sowings {
            self.sowing_at(id)?;
        }
        if sowings.is_empty() {
            return Err(fault(
                "sowings",
                &share.sowings,
                say!("no kinds are named"),
                say!("name one kind for each row or pack"),
            ));
        }
        let there = match &share.tray {
            Some(id) => Some(self.tray_at("tray", id)?),
            None => None,
        };
        let format = match (&share.format, there) {
            (Some(id), _) => self.own_format(id)?,
            (None, Some(tray)) => plan.format(&plan.trays[tray]).clone(),
            (None, None) => self.flat_for(plan, &sowings),
        };
        let fields = Fields::default();
        let reckoned = Reckoned::of(plan, &fields);
        let wants = |id: &String| {
            let cells = reckoned
                .cells_of(id)
                .and_then(|cells| cells.to_sow.as_ref());
            cells.map_or(1, |sow| sow.cells)
        };
        let wants: Vec<u32> = sowings.iter().map(wants).collect();
        let shares = divide(&format, &wants, share.by, share.even)
            .map_err(|why| indivisible(why, &format, sowings.len()))?;
        let parts = |(id, blocks): (&String, &Vec<CellBlock>)| {
            let parts = blocks.iter().map(|&block| Part::of(id, block, &format));
            parts.collect::<Vec<_>>()
        };
        let parts: Vec<Part> = sowings.iter().zip(&shares).flat_map(parts).collect();
        let id = match there {
            Some(index) => {
                let id = self.plan.trays[index].id.clone();
                self.plan.trays[index].parts = parts;
                self.plan.trays[index].sown_together = true;
                if self.plan.trays[index].format != format.id {
                    self.refit(plan, index, &format);
                }
                id
            }
            None => {
                let tray = self.flat(&format, parts);
                let id = tray.id.clone();
                self.plan.trays.push(tray);
                id
            }
        };
        let enough = |sowing: &String| {
            let at = sowings.iter().position(|own| own == sowing);
            at.is_some_and(|at| shares[at].iter().map(CellBlock::cells).sum::<u32>() >= wants[at])
        };
        let superfluous = |tray: &Tray| {
            tray.id != id
                && !tray.potted
                && tray.stands.is_empty()
                && tray.parts.iter().all(|part| enough(&part.sowing))
        };
        self.plan.trays.retain(|tray| !superfluous(tray));
        let name = |tray: &&Tray| tray.id == id;
        let tray = self.plan.trays.iter().find(name).expect("it was just made");
        Ok(say!(
            "shared {tray} among {n} kinds",
            tray = &tray.name,
            n = Quantity::Count.of(sowings.len() as f64)
        ))
    }

    /// Sows or pots a tray's plants in another container. Where the new one does not go, it stands
    /// nowhere.
    pub(super) fn set_format(&mut self, plan: &SoundPlan, tray: &str, format: &str) -> Word {
        let index = self.tray_at("tray", tray)?;
        let format = self.own_format(format)?;
        let tray = &plan.trays[index];
        let old = plan.format(tray);
        let mut kinds: Vec<(String, u32)> = Vec::new();
        for part in &tray.parts {
            let cells = part.block(old).cells();
            match kinds.iter_mut().find(|(id, _)| *id == part.sowing) {
                Some((_, all)) => *all += cells,
                None => kinds.push((part.sowing.clone(), cells)),
            }
        }
        let wants: Vec<u32> = kinds.iter().map(|(_, cells)| *cells).collect();
        let by = match tray.parts.iter().any(|part| part.rows.is_some()) {
            true => By::Packs,
            false => By::Rows,
        };
        let shares = divide(&format, &wants, by, false)
            .or_else(|_| divide(&format, &wants, By::Rows, false))
            .map_err(|why| indivisible(why, &format, kinds.len()))?;
        let shares = kinds.iter().zip(shares);
        let parts = shares.flat_map(|((id, _), blocks)| {
            let part = |block| Part::of(id, block, &format);
            blocks.into_iter().map(part).collect::<Vec<_>>()
        });
        self.plan.trays[index].parts = parts.collect();
        let homeless = self.refit(plan, index, &format);
        let (tray, format) = (&self.plan.trays[index].name, &format.name);
        Ok(if homeless {
            say!(
                "{tray} is now {format}; it finds no room where it stood",
                tray = tray,
                format = format
            )
        } else {
            say!("{tray} is now {format}", tray = tray, format = format)
        })
    }

    /// Gives the tray at `index` another format; whether a spot of its own is lost by that.
    fn refit(&mut self, plan: &SoundPlan, index: usize, format: &TrayFormat) -> bool {
        self.plan.trays[index].format.clone_from(&format.id);
        let old = plan.format(&plan.trays[index]);
        let larger = format.length_mm > old.length_mm || format.width_mm > old.width_mm;
        let had = self.plan.trays[index].stands.len();
        if larger {
            // Beside neighbours nobody knows; at the edge of its deck it is plain.
            let fits = |stand: &crate::plan::Stand| {
                let outline = stand.footprint(format);
                let within = |edges: [f64; 2], deck_mm: f64| {
                    edges[0] >= -MOST_OVERHANG_MM && edges[1] <= deck_mm + 1.0
                };
                plan.bay(&stand.bay).is_some_and(|bay| {
                    within(outline.x_mm, bay.place.width_mm)
                        && within(outline.y_mm, bay.place.depth_mm)
                })
            };
            self.plan.trays[index].stands.retain(fits);
        }
        self.plan.trays[index].stands.len() < had
    }

    pub(super) fn own_format(&self, id: &str) -> Result<TrayFormat, Vec<Fault>> {
        let formats = &self.plan.tray_formats;
        let found = formats.iter().find(|format| format.id == id);
        let known = || formats.iter().map(|format| format.id.clone());
        found.cloned().ok_or_else(|| unknown("format", id, known()))
    }

    /// A format whose cells suit the smallest of `sowings`.
    fn flat_for(&mut self, plan: &SoundPlan, sowings: &[String]) -> TrayFormat {
        let ml = |id: &String| plan.crop(&plan.sowings[plan.sowing_index(id)]).cell_ml;
        let least = sowings.iter().map(ml).fold(f64::INFINITY, f64::min);
        /// Cells of a flat that several kinds share.
        const A_FLAT: u32 = 60;
        match TrayFormat::nearest(&self.plan.tray_formats, least) {
            Some(own) => own.clone(),
            None => self.format_for(least, A_FLAT),
        }
    }

    /// A new flat, which stands nowhere.
    fn flat(&self, format: &TrayFormat, parts: Vec<Part>) -> Tray {
        let trays = &self.plan.trays;
        let id = free_id("mx1", trays.iter().map(|tray| &tray.id));
        let name = free_name("Mixed", trays.iter().map(|tray| &tray.name));
        Tray {
            id,
            name,
            parts,
            potted: false,
            sown_together: true,
            format: format.id.clone(),
            pinned: false,
            stands: Vec::new(),
        }
    }
}

fn indivisible(why: Indivisible, format: &TrayFormat, kinds: usize) -> Vec<Fault> {
    match why {
        Indivisible::NoPacks => fault(
            "by",
            By::Packs,
            say!("{format} has no packs of six", format = &format.name),
            say!("share it by rows, or choose a container of six-packs"),
        ),
        Indivisible::TooMany(most) => fault(
            "sowings",
            kinds,
            say!(
                "{format} has {most} rows or packs for {kinds} kinds",
                format = &format.name,
                most = Quantity::Count.of(f64::from(most)),
                kinds = Quantity::Count.of(kinds as f64)
            ),
            say!("leave some out, or share it by packs"),
        ),
    }
}
