//! The crop library: what each kind needs, in the words and units of the trade.

pub mod emergence;
pub mod showing;

use std::collections::BTreeMap;
use std::sync::LazyLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use emergence::EmergenceCurve;

/// One kind of plant and its needs indoors. Where each figure comes from: [`Library::source`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Crop {
    /// Identifier that sowings name.
    pub id: String,
    /// Common name.
    pub name: String,
    /// How days to emergence follow from temperature.
    pub emergence: Emergence,
    /// Weeks from sowing to planting out.
    pub weeks_indoors: f64,
    /// Weeks from the last frost to planting out, negative for hardy crops.
    pub weeks_after_last_frost: f64,
    /// Days of hardening off before planting out.
    pub hardening_days: i32,
    /// Root-zone temperature to germinate at, in °C.
    pub root_zone_c: f64,
    /// Least daily light integral that grows a sturdy seedling.
    pub dli_low_mol_m2_d: f64,
    /// Daily light integral past which seedlings gain nothing.
    pub dli_high_mol_m2_d: f64,
    /// Longest photoperiod it bears, in hours.
    pub photoperiod_most_h: f64,
    /// Whether seed wants light or darkness.
    pub germinates_in: GerminatesIn,
    /// What is put into the mix, or into water.
    pub grown_from: GrownFrom,
    /// Height at planting out in mm.
    pub height_out_mm: f64,
    /// How deep it is sown or stuck; 0 on the surface.
    pub sow_depth_mm: f64,
    /// Hours in water before sowing; 0 for none.
    pub soak_h: f64,
    /// Weeks cold and moist before it is sown warm; 0 for none.
    pub cold_weeks: f64,
    /// Days after it shows that it may stay in the dark before it is spoiled.
    pub dark_days: f64,
}

/// How days to emergence follow from temperature.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum Emergence {
    /// By a row of the table of days to emergence.
    Row(String),
    /// By three temperatures.
    Thermal(Thermal),
}

/// Emergence without a table.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thermal {
    /// At this and below nothing comes up.
    pub base_c: f64,
    /// Here it comes up fastest.
    pub best_c: f64,
    /// At this and above nothing comes up.
    pub upper_c: f64,
    /// Mean days at the best temperature.
    pub days_at_best: f64,
}

/// Whether seed wants light to germinate.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GerminatesIn {
    /// It lies on the surface, in light.
    Light,
    /// It is covered.
    Dark,
    /// Either does.
    Either,
}

/// What a crop begins from.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GrownFrom {
    /// Seed.
    Seed,
    /// Slips off a root in water or mix: what "emerges" are roots.
    Slips,
    /// Cuttings: likewise.
    Cuttings,
}

/// Crops with their emergence curves.
#[derive(Debug)]
pub struct Library {
    /// The crops in the file's order.
    pub crops: Vec<Crop>,
    source: BTreeMap<String, String>,
    /// The curve of each crop, by its identifier.
    of_crops: BTreeMap<String, EmergenceCurve>,
}

impl Library {
    /// The crop called `id`.
    pub fn get(&self, id: &str) -> Option<&Crop> {
        self.crops.iter().find(|crop| crop.id == id)
    }

    /// The emergence curve of `crop`.
    ///
    /// # Panics
    /// When `crop` is none of this library's.
    pub fn curve(&self, crop: &Crop) -> &EmergenceCurve {
        &self.of_crops[&crop.id]
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
        let curves = emergence::read_tables(emergence_csv, share_csv)?;
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
        Ok(Self {
            crops: file.crop,
            source: file.source,
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

#[cfg(test)]
mod tests {
    use super::*;

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
                library.curve(crop).days(crop.root_zone_c).is_some(),
                "{id} must emerge at the temperature advised for it"
            );
            let share = library.curve(crop).share(crop.root_zone_c);
            assert!(share >= 0.6, "{id}: {share}");
        }
        let mut ids: Vec<&str> = library.crops.iter().map(|c| c.id.as_str()).collect();
        ids.sort_unstable();
        assert!(ids.windows(2).all(|pair| pair[0] != pair[1]));
        let tabled = library
            .crops
            .iter()
            .filter(|c| matches!(c.emergence, Emergence::Row(_)));
        assert_eq!(tabled.count(), 24, "the handbook's vegetables, each once");
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
        let upside_down = toml.replacen("base_c = 4, best_c = 25", "base_c = 44, best_c = 25", 1);
        assert_eq!(
            Library::read(&upside_down, csv, share).unwrap_err(),
            "crop broccoli: base, best and upper temperature do not rise"
        );
    }
}
