//! Entries as rows.

use serde_json::{Map, Value};

use crate::log::entry::Entry;
use crate::log::table::columns::COLUMNS;

/// `entries` as a table with a heading.
pub fn written<'a>(entries: impl IntoIterator<Item = &'a Entry>) -> String {
    let mut table = csv::Writer::from_writer(Vec::new());
    // Into memory nothing fails.
    let columns = &COLUMNS;
    let _ = table.write_record(columns);
    for entry in entries {
        let cells = cells(entry);
        let row = columns.iter().map(|column| {
            let value = cells.get(*column);
            value.map_or_else(String::new, plain)
        });
        let _ = table.write_record(row);
    }
    String::from_utf8(table.into_inner().unwrap_or_default()).unwrap_or_default()
}

fn plain(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Bool(true) => "yes".into(),
        Value::Bool(false) => "no".into(),
        other => other.to_string(),
    }
}

/// An entry by column.
fn cells(entry: &Entry) -> Map<String, Value> {
    let mut cells = Map::new();
    let Ok(Value::Object(mut whole)) = serde_json::to_value(entry) else {
        return cells;
    };
    if let Some(Value::Object(fact)) = whole.remove("fact") {
        for (kind, fields) in fact {
            cells.insert("kind".into(), kind.into());
            let Value::Object(fields) = fields else {
                continue;
            };
            for (field, value) in fields {
                spread(&mut cells, &field, value);
            }
        }
    }
    if let Some(day) = whole.remove("on") {
        cells.insert("day".into(), day);
    }
    cells.extend(whole);
    cells
}

fn spread(cells: &mut Map<String, Value>, field: &str, value: Value) {
    match (field, value) {
        ("bay", Value::Object(bay)) => cells.extend(bay),
        ("spot", Value::Object(spot)) => {
            for (what, value) in spot {
                spread(cells, &what, value);
            }
        }
        ("about", Value::String(room)) => {
            cells.insert("about".into(), room.into());
        }
        ("about", Value::Object(about)) => {
            for (what, value) in about {
                spread(cells, &what, value);
            }
        }
        ("reading", Value::Object(reading)) => {
            for (what, value) in reading {
                cells.insert("reading".into(), what.into());
                cells.insert("value".into(), value);
            }
        }
        (field, value) => {
            cells.insert(field.to_owned(), value);
        }
    }
}
