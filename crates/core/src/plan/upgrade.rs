//! Brings plan documents of earlier versions to today's form.

use serde_json::{Map, Value, json};

use crate::basis::units::litres;

/// `document` in today's form: unchanged unless it is a plan of an earlier version. What cannot be
/// read is left as it is, for [`Plan::check`](crate::plan::document::Plan::check) and the parser to name.
pub fn upgraded(mut document: Value) -> Value {
    if document.get("schema_version") == Some(&json!(1)) {
        from_1(&mut document);
    }
    // Version 2 had no moves in the middle of a stage, and nothing else that is different.
    if document.get("schema_version") == Some(&json!(2)) {
        document["schema_version"] = json!(3);
    }
    document
}

/// Version 1 knew only racks, tiers with lamps, and trays with one sowing each.
fn from_1(document: &mut Value) {
    document["schema_version"] = json!(2);
    // Nothing was known of the room: one that is in nobody's way.
    document["room"] = json!({
        "width_mm": 6000, "depth_mm": 4000, "height_mm": 2500,
        "door": {"width_mm": 900, "height_mm": 2000}
    });
    for place in list(document, "places") {
        let Some(rack) = place.get_mut("rack").map(Value::take) else {
            continue;
        };
        *place = place_from_rack(rack);
    }
    for format in list(document, "tray_formats") {
        let Some(fields) = format.as_object_mut() else {
            continue;
        };
        let number = |name: &str| fields.get(name).and_then(Value::as_f64).unwrap_or(0.0);
        let height_mm = number("height_mm");
        // Tapered cells fill about six tenths of the tray's box; wet mix weighs 0.9 kg a litre.
        let mix_l = 0.6 * litres(number("length_mm"), number("width_mm"), height_mm);
        let cells = (number("columns") * number("rows")).max(1.0);
        fields.insert("cell_ml".into(), json!((mix_l * 1000.0 / cells).round()));
        fields.insert("cell_depth_mm".into(), json!((height_mm - 5.0).max(0.0)));
        fields.insert("wet_kg".into(), json!((mix_l * 9.0).round() / 10.0));
        fields.insert("holds_water".into(), json!(true));
    }
    for tray in list(document, "trays") {
        let Some(fields) = tray.as_object_mut() else {
            continue;
        };
        if let Some(sowing) = fields.remove("sowing") {
            fields.insert("parts".into(), json!([{"sowing": sowing}]));
        }
    }
}

fn place_from_rack(mut rack: Value) -> Value {
    let wire = rack.get("deck") == Some(&json!("wire"));
    let mut place = Map::new();
    for name in ["id", "name"] {
        move_field(&mut rack, name, &mut place);
    }
    place.insert(
        "kind".into(),
        json!({"rack": {
            "pitch_mm": 25, "post_mm": 25, "braced": false, "wall_fixed": false,
            "feet": "levelling"
        }}),
    );
    for name in ["width_mm", "depth_mm", "height_mm"] {
        move_field(&mut rack, name, &mut place);
    }
    place.insert(
        "deck".into(),
        json!({
            "material": if wire { "wire" } else { "wood" },
            "thickness_mm": rack["deck_thickness_mm"]
        }),
    );
    place.insert("empty_kg".into(), json!(20));
    let open = json!({"left": "open", "right": "open", "back": "open", "front": "open"});
    for tier in list(&mut rack, "tiers") {
        if let Some(fields) = tier.as_object_mut() {
            fields.insert("liner".into(), json!(false));
            fields.insert("sides".into(), open.clone());
            fields.insert("mats".into(), json!([]));
            fields.insert("fans".into(), json!([]));
        }
    }
    move_field(&mut rack, "tiers", &mut place);
    Value::Object(place)
}

fn move_field(from: &mut Value, name: &str, to: &mut Map<String, Value>) {
    if let Some(value) = from.get_mut(name) {
        to.insert(name.into(), value.take());
    }
}

fn list<'a>(document: &'a mut Value, name: &str) -> impl Iterator<Item = &'a mut Value> {
    document
        .get_mut(name)
        .and_then(Value::as_array_mut)
        .into_iter()
        .flatten()
}
