//! The crop library: what each kind needs, in the words and units of the trade.

pub mod emergence;

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
    /// Row of the table of days to emergence.
    pub emergence: String,
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
    /// Whether the seed wants light to germinate.
    pub light_to_germinate: bool,
    /// Height at planting out in mm.
    pub height_out_mm: f64,
}

/// Crops with their emergence curves.
#[derive(Debug)]
pub struct Library {
    /// The crops in the file's order.
    pub crops: Vec<Crop>,
    source: BTreeMap<String, String>,
    curves: BTreeMap<String, EmergenceCurve>,
}

impl Library {
    /// The crop called `id`.
    pub fn get(&self, id: &str) -> Option<&Crop> {
        self.crops.iter().find(|crop| crop.id == id)
    }

    /// The emergence curve of `crop`.
    pub fn curve(&self, crop: &Crop) -> &EmergenceCurve {
        &self.curves[&crop.emergence]
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
    fn read(crops_toml: &str, emergence_csv: &str) -> Result<Self, String> {
        #[derive(Deserialize)]
        struct File {
            source: BTreeMap<String, String>,
            crop: Vec<Crop>,
        }
        let file: File = toml::from_str(crops_toml).map_err(|e| e.to_string())?;
        let curves = emergence::read_table(emergence_csv)?;
        for crop in &file.crop {
            if !curves.contains_key(&crop.emergence) {
                return Err(format!(
                    "crop {}: no emergence row is called \"{}\"",
                    crop.id, crop.emergence
                ));
            }
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
            curves,
        })
    }
}

/// The library that comes with the application.
pub fn library() -> &'static Library {
    static LIBRARY: LazyLock<Library> = LazyLock::new(|| {
        Library::read(
            include_str!("library.toml"),
            include_str!("emergence_days.csv"),
        )
        .expect("the built-in crop library reads")
    });
    &LIBRARY
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn twelve_crops_with_sensible_figures() {
        let library = library();
        assert_eq!(library.crops.len(), 12);
        for crop in &library.crops {
            assert!(
                crop.dli_low_mol_m2_d < crop.dli_high_mol_m2_d,
                "{}",
                crop.id
            );
            assert!(
                (12.0..=18.0).contains(&crop.photoperiod_most_h),
                "{}",
                crop.id
            );
            assert!(
                library.curve(crop).days(crop.root_zone_c).is_some(),
                "{} must emerge at the temperature advised for it",
                crop.id
            );
        }
    }

    #[test]
    fn a_crop_without_source_or_row_is_refused() {
        let toml = include_str!("library.toml");
        let csv = include_str!("emergence_days.csv");
        let no_source = toml.replacen("height_out_mm = \"our own estimate\"\n", "", 1);
        assert_eq!(
            Library::read(&no_source, csv).unwrap_err(),
            "crop tomato: field height_out_mm has no source"
        );
        let no_row = toml.replacen("emergence = \"eggplant\"", "emergence = \"egg\"", 1);
        assert_eq!(
            Library::read(&no_row, csv).unwrap_err(),
            "crop aubergine: no emergence row is called \"egg\""
        );
    }
}
