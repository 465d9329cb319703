//! The widest that a figure may be anywhere, by the unit in its name: bounds that the OpenAPI document
//! states for what is sent, so that whoever reads it knows where to begin. The checks of a plan and of
//! each calculator are narrower, and decide.

use std::collections::BTreeSet;

use serde_json::{Value, json};

/// The end of a field's name, and its least and greatest.
const BY_UNIT: &[(&str, [f64; 2])] = &[
    ("_mm", [-20_000.0, 30_000.0]),
    ("_c", [-60.0, 60.0]),
    ("_w", [0.0, 5000.0]),
    ("_lm", [0.0, 1e7]),
    ("_deg", [-360.0, 360.0]),
    ("_h", [0.0, 500_000.0]),
    ("_kg", [0.0, 5000.0]),
    ("_ml", [0.0, 100_000.0]),
    ("_days", [-400.0, 2000.0]),
    ("_weeks", [-60.0, 300.0]),
];

/// States the bounds in the document for all that requests hold and answers do not compute.
pub fn state(document: &mut Value) {
    let sent = reached(document, "requestBody");
    let Some(schemas) = document.pointer_mut("/components/schemas") else {
        return;
    };
    for name in sent {
        let properties = schemas.get_mut(&name).and_then(|s| s.get_mut("properties"));
        let Some(properties) = properties.and_then(Value::as_object_mut) else {
            continue;
        };
        for (field, schema) in properties {
            let unit = BY_UNIT.iter().find(|(end, _)| field.ends_with(end));
            let number = schema["type"] == "number" || schema["type"] == json!(["number", "null"]);
            if let Some((_, [least, most])) = unit.filter(|_| number) {
                schema["minimum"] = json!(least);
                schema["maximum"] = json!(most);
            }
        }
    }
}

/// The names of the schemas that `part` of any operation leads to.
fn reached(document: &Value, part: &str) -> BTreeSet<String> {
    let mut found = BTreeSet::new();
    let mut waiting: Vec<&Value> = Vec::new();
    let paths = document["paths"].as_object().into_iter().flatten();
    for (_, operations) in paths {
        let operations = operations.as_object().into_iter().flatten();
        waiting.extend(operations.filter_map(|(_, operation)| operation.get(part)));
    }
    while let Some(value) = waiting.pop() {
        match value {
            Value::Object(fields) => {
                let named = fields.get("$ref").and_then(Value::as_str);
                let name = named.and_then(|n| n.strip_prefix("#/components/schemas/"));
                if let Some(name) = name
                    && found.insert(name.to_owned())
                {
                    waiting.push(&document["components"]["schemas"][name]);
                }
                waiting.extend(fields.values());
            }
            Value::Array(list) => waiting.extend(list),
            _ => {}
        }
    }
    found
}
