//! The crops that come with the application, and what of a crop follows from them.

use rustc_hash::FxHashMap;
use std::borrow::Cow;
use std::collections::BTreeMap;
use std::sync::LazyLock;

use serde::Deserialize;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::crops::crop::Crop;
use crate::crops::emergence::{Emergence, EmergenceCurve};
use crate::crops::emergence_tables::read_tables;

/// Crops with their emergence curves.
#[derive(Debug)]
pub struct Library {
    /// The crops in the file's order.
    pub crops: Vec<Crop>,
    /// Where each stands, by its identifier.
    index: FxHashMap<String, usize>,
    source: BTreeMap<String, String>,
    /// The rows of the table of days to emergence.
    rows: BTreeMap<String, EmergenceCurve>,
    /// The curve of each crop, by its identifier.
    of_crops: BTreeMap<String, EmergenceCurve>,
}

impl Library {
    /// The crop called `id`.
    pub fn get(&self, id: &str) -> Option<&Crop> {
        self.crops.get(*self.index.get(id)?)
    }

    /// Where the figures of every field come from.
    pub fn sources(&self) -> &BTreeMap<String, String> {
        &self.source
    }

    /// Where the figures of field `field` come from.
    pub fn source(&self, field: &str) -> &str {
        &self.source[field]
    }

    /// Reads the library's two files.
    ///
    /// # Errors
    /// A sentence that names the crop and field when a file does not parse, a crop names no row
    /// of the emergence table, or a field has no source.
    fn read(crops_toml: &str, emergence_csv: &str, share_csv: &str) -> Result<Self, String> {
        #[derive(Deserialize)]
        struct File {
            source: BTreeMap<String, String>,
            crop: Vec<Crop>,
        }
        let file: File = toml::from_str(crops_toml).map_err(|e| e.to_string())?;
        let curves = read_tables(emergence_csv, share_csv)?;
        let mut of_crops = BTreeMap::new();
        for crop in &file.crop {
            let curve = match &crop.emergence {
                Emergence::Row(row) => curves.get(row).cloned().ok_or_else(|| {
                    format!("crop {}: no emergence row is called \"{row}\"", crop.id)
                })?,
                Emergence::Thermal(thermal) => EmergenceCurve::thermal(*thermal)
                    .map_err(|problem| format!("crop {}: {problem}", crop.id))?,
            };
            of_crops.insert(crop.id.clone(), curve);
            let fields = serde_json::to_value(crop).map_err(|e| e.to_string())?;
            for field in fields.as_object().into_iter().flat_map(|o| o.keys()) {
                if !["id", "name"].contains(&field.as_str()) && !file.source.contains_key(field) {
                    return Err(format!("crop {}: field {field} has no source", crop.id));
                }
            }
        }
        let ids = file.crop.iter().enumerate();
        Ok(Self {
            index: ids.map(|(i, crop)| (crop.id.clone(), i)).collect(),
            crops: file.crop,
            source: file.source,
            rows: curves,
            of_crops,
        })
    }
}

/// The library that comes with the application.
pub fn library() -> &'static Library {
    static LIBRARY: LazyLock<Library> = LazyLock::new(|| {
        Library::read(
            include_str!("library.toml"),
            include_str!("emergence_days.csv"),
            include_str!("emergence_share.csv"),
        )
        .expect("the built-in crop library reads")
    });
    &LIBRARY
}

/// Longer notes on a crop nobody reads.
const MOST_NOTE: usize = 500;

impl Crop {
    /// Its emergence curve.
    ///
    /// # Panics
    /// When its emergence is none that [`Crop::check`] lets through.
    pub fn curve(&self) -> Cow<'static, EmergenceCurve> {
        let curve = self.plain_curve();
        match self.comes_up_here {
            Some(here) => Cow::Owned(curve.into_owned().at_pace(here.value)),
            None => curve,
        }
    }

    /// Its days to emergence by its own figures, whatever was learned of it here.
    pub fn plain_curve(&self) -> Cow<'static, EmergenceCurve> {
        const SOUND: &str = "a crop's emergence is checked before it is used";
        match &self.emergence {
            Emergence::Row(row) => Cow::Borrowed(library().rows.get(row).expect(SOUND)),
            Emergence::Thermal(thermal) => match library().get(&self.id) {
                Some(known) if known.emergence == self.emergence => {
                    Cow::Borrowed(&library().of_crops[&self.id])
                }
                _ => Cow::Owned(EmergenceCurve::thermal(*thermal).expect(SOUND)),
            },
        }
    }

    /// Where figure `field` of it comes from: the library's source, or the user.
    pub fn source(&self, field: &str) -> &'static str {
        let of = |crop: &Self| serde_json::to_value(crop).ok()?.get(field).cloned();
        match library().get(&self.id) {
            Some(known) if known == self || of(known) == of(self) => library().source(field),
            _ => "your own figure",
        }
    }

    /// Checks a crop that a user edited or added.
    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        let others = at.at("also_called");
        for (i, name) in faults.list(&others, &self.also_called, 0..=20) {
            faults.name(&others.at(i), name);
        }
        if self.note.chars().count() > MOST_NOTE {
            faults.add(
                &at.at("note"),
                self.note.as_str(),
                say!("the note is too long"),
                say!(
                    "write at most {most} characters",
                    most = Quantity::Count.of(MOST_NOTE as f64)
                ),
            );
        }
        let emergence = at.at("emergence");
        match &self.emergence {
            Emergence::Row(row) if !library().rows.contains_key(row) => {
                faults.unknown(&emergence, row, library().rows.keys().cloned());
            }
            Emergence::Row(_) => {}
            Emergence::Thermal(thermal) => {
                if let Err(problem) = EmergenceCurve::thermal(*thermal) {
                    faults.add(
                        &emergence,
                        thermal,
                        say!("{problem}", problem = problem),
                        say!("give base, best and upper °C that rise, and days over 0"),
                    );
                }
            }
        }
        let hours = 0.0..=24.0;
        for (name, value, range, quantity) in [
            (
                "weeks_indoors",
                self.weeks_indoors,
                0.5..=60.0,
                Quantity::Weeks,
            ),
            (
                "weeks_after_last_frost",
                self.weeks_after_last_frost,
                -20.0..=20.0,
                Quantity::Weeks,
            ),
            ("ready_weeks", self.ready_weeks, 0.0..=60.0, Quantity::Weeks),
            (
                "hardening_days",
                f64::from(self.hardening_days),
                0.0..=60.0,
                Quantity::Days,
            ),
            (
                "root_zone_c",
                self.root_zone_c,
                0.0..=45.0,
                Quantity::TemperatureC,
            ),
            (
                "least_air_c",
                self.least_air_c,
                -20.0..=25.0,
                Quantity::TemperatureC,
            ),
            (
                "grows_over_c",
                self.grows_over_c,
                0.0..=20.0,
                Quantity::TemperatureC,
            ),
            (
                "bolts_under_c",
                self.bolts_under_c.under_c().unwrap_or(0.0),
                0.0..=25.0,
                Quantity::TemperatureC,
            ),
            (
                "emerges_mm",
                self.emerges_mm,
                2.0..=500.0,
                Quantity::LengthMm,
            ),
            (
                "seedlings_per_seed",
                self.seedlings_per_seed,
                1.0..=3.0,
                Quantity::Plain,
            ),
            (
                "dli_low_mol_m2_d",
                self.dli_low_mol_m2_d,
                0.0..=60.0,
                Quantity::DliMolM2D,
            ),
            (
                "dli_high_mol_m2_d",
                self.dli_high_mol_m2_d,
                self.dli_low_mol_m2_d.max(0.1)..=80.0,
                Quantity::DliMolM2D,
            ),
            (
                "photoperiod_most_h",
                self.photoperiod_most_h,
                hours,
                Quantity::Hours,
            ),
            (
                "height_out_mm",
                self.height_out_mm,
                5.0..=2000.0,
                Quantity::LengthMm,
            ),
            (
                "cut_back_mm",
                self.cut_back_mm,
                0.0..=2000.0,
                Quantity::LengthMm,
            ),
            (
                "sow_depth_mm",
                self.sow_depth_mm,
                0.0..=300.0,
                Quantity::LengthMm,
            ),
            ("soak_h", self.soak_h, 0.0..=96.0, Quantity::Hours),
            ("cold_weeks", self.cold_weeks, 0.0..=30.0, Quantity::Weeks),
            ("dark_days", self.dark_days, 0.0..=30.0, Quantity::Days),
            ("cell_ml", self.cell_ml, 1.0..=50_000.0, Quantity::VolumeMl),
            (
                "pot_on_ml",
                self.pot_on_ml,
                0.0..=50_000.0,
                Quantity::VolumeMl,
            ),
            (
                "pot_on_weeks",
                self.pot_on_weeks,
                0.0..=40.0,
                Quantity::Weeks,
            ),
            (
                "plants_per_cell",
                f64::from(self.plants_per_cell),
                1.0..=20.0,
                Quantity::Count,
            ),
            (
                "spacing_mm",
                self.spacing_mm,
                5.0..=1000.0,
                Quantity::LengthMm,
            ),
            ("losses", self.losses, 0.0..=0.95, Quantity::Share),
            (
                "seed_life_years",
                self.seed_life_years.known().unwrap_or(1.0),
                0.1..=100.0,
                Quantity::Years,
            ),
        ] {
            faults.number(&at.at(name), value, range, quantity);
        }
        for (name, learned) in [
            ("comes_up_here", self.comes_up_here),
            ("tall_here", self.tall_here),
        ] {
            if let Some(learned) = learned {
                learned.check(&at.at(name), 0.1..=5.0, Quantity::Share, faults);
            }
        }
        // A curve that never reaches its own best temperature would promise nothing.
        let thermal_fine = match &self.emergence {
            Emergence::Row(row) => library().rows.contains_key(row),
            Emergence::Thermal(thermal) => EmergenceCurve::thermal(*thermal).is_ok(),
        };
        if thermal_fine && self.curve().days(self.root_zone_c).is_none() {
            faults.add(
                &at.at("root_zone_c"),
                self.root_zone_c,
                say!("none come up at the temperature that is advised"),
                say!(
                    "give one nearer to {best}",
                    best = Quantity::TemperatureC.of(self.curve().best_c())
                ),
            );
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::crops::crop::GerminatesIn;

    #[test]
    fn every_crop_has_sensible_figures() {
        let library = library();
        assert!(library.crops.len() >= 94, "{}", library.crops.len());
        for crop in &library.crops {
            let id = &crop.id;
            assert!(crop.dli_low_mol_m2_d < crop.dli_high_mol_m2_d, "{id}");
            assert!((12.0..=18.0).contains(&crop.photoperiod_most_h), "{id}");
            assert!((0.0..=60.0).contains(&crop.sow_depth_mm), "{id}");
            assert!((0.5..=14.0).contains(&crop.dark_days), "{id}");
            // What wants light is not buried.
            let buried = crop.sow_depth_mm > 5.0;
            assert!(crop.germinates_in != GerminatesIn::Light || !buried, "{id}");
            assert!(
                crop.curve().days(crop.root_zone_c).is_some(),
                "{id} must emerge at the temperature advised for it"
            );
            let share = crop.curve().share(crop.root_zone_c);
            assert!(share >= 0.6, "{id}: {share}");
        }
        let mut ids: Vec<&str> = library.crops.iter().map(|c| c.id.as_str()).collect();
        ids.sort_unstable();
        assert!(ids.windows(2).all(|pair| pair[0] != pair[1]));
        let tabled = library.crops.iter().filter_map(|c| match &c.emergence {
            Emergence::Row(row) => Some(row.as_str()),
            Emergence::Thermal(_) => None,
        });
        let rows: std::collections::BTreeSet<&str> = tabled.collect();
        // Of turnip and celery growers say otherwise than the handbook.
        assert_eq!(rows.len(), 22, "the handbook's vegetables");
    }

    #[test]
    fn a_crop_without_source_or_row_is_refused() {
        let toml = include_str!("library.toml");
        let csv = include_str!("emergence_days.csv");
        let share = include_str!("emergence_share.csv");
        let no_source = toml.replacen("height_out_mm = \"our own estimate\"\n", "", 1);
        assert_eq!(
            Library::read(&no_source, csv, share).unwrap_err(),
            "crop tomato: field height_out_mm has no source"
        );
        let no_row = toml.replacen("emergence = \"eggplant\"", "emergence = \"egg\"", 1);
        assert_eq!(
            Library::read(&no_row, csv, share).unwrap_err(),
            "crop aubergine: no emergence row is called \"egg\""
        );
        let upside_down = toml.replacen("base_c = 4, best_c = 23", "base_c = 44, best_c = 23", 1);
        assert_eq!(
            Library::read(&upside_down, csv, share).unwrap_err(),
            "crop celery: base, best and upper temperature do not rise"
        );
    }
}
