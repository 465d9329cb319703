//! Rows as entries, each with what is wrong with it.

use std::collections::{BTreeMap, HashMap};

use serde_json::{Map, Value};

use crate::basis::fault::{Fault, Pointer, shortened};
use crate::basis::words::{Statement, say};
use crate::log::entry::Entry;
use crate::log::table::columns::COLUMNS;

/// Columns that are read and written by name as numbers.
const NUMBERS: [&str; 12] = [
    "count",
    "of",
    "left",
    "plants",
    "water_ml",
    "strength",
    "height_mm",
    "hours_h",
    "from_h",
    "lift_mm",
    "brightness",
    "at_h",
];
/// Columns of yes and no.
const FLAGS: [&str; 2] = ["on", "outdoors"];
/// Columns of text that go into a fact as they are.
const WORDS: [&str; 7] = ["tray", "into", "sowing", "why", "dome", "job", "until"];
/// More rows than this are no season.
pub const MOST_ROWS: usize = 20_000;

/// A row that was read.
#[derive(Debug, Clone, PartialEq)]
pub struct Row {
    /// Its number in the file, the heading being 1.
    pub number: u64,
    /// The entry, or what is wrong with it.
    pub entry: Result<Entry, Vec<Fault>>,
}

/// The rows of `text`. One without an id gets that which `name` makes of what stands in it, and of how many
/// like it came before: the same file read again gives the same entries.
///
/// # Errors
/// That it is no such table.
pub fn read(text: &str, name: impl Fn(&str, usize) -> String) -> Result<Vec<Row>, Vec<Fault>> {
    let text = text.trim_start_matches('\u{feff}');
    let mut table = csv::ReaderBuilder::new()
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes());
    let refuse = |value: &str, problem, remedy| {
        Err(vec![Fault {
            path: Pointer::default().at("csv").to_string(),
            value: shortened(value).into(),
            problem,
            remedy,
        }])
    };
    let Ok(heading) = table.headers().cloned() else {
        return refuse(
            "",
            say!("this is no table"),
            say!("send CSV with a heading"),
        );
    };
    let needed = ["day", "kind"];
    if let Some(lacking) = needed
        .iter()
        .find(|need| heading.iter().all(|own| own != **need))
    {
        return refuse(
            &heading.iter().collect::<Vec<_>>().join(","),
            say!("the heading lacks the column {column}", column = *lacking),
            say!("begin with a table that was written here: its heading is the pattern"),
        );
    }
    if let Some(strange) = heading.iter().find(|own| !COLUMNS.contains(own)) {
        return refuse(
            strange,
            say!("no column is called that"),
            say!("the columns are {columns}", columns = COLUMNS.join(", ")),
        );
    }
    let mut rows = Vec::new();
    let mut alike: HashMap<String, usize> = HashMap::new();
    for (i, record) in table.records().enumerate() {
        let number = i as u64 + 2;
        if rows.len() >= MOST_ROWS {
            return refuse(
                "",
                say!("this table is too long"),
                say!(
                    "send it in parts of {most} rows",
                    most = MOST_ROWS.to_string()
                ),
            );
        }
        let Ok(record) = record else {
            rows.push(Row {
                number,
                entry: Err(vec![fault(
                    "",
                    "",
                    say!("this row cannot be read"),
                    say!("put text with quotes or commas in quotes, as CSV (RFC 4180) does"),
                )]),
            });
            continue;
        };
        if record.iter().all(str::is_empty) {
            continue;
        }
        let own: Vec<&str> = record.iter().collect();
        let own = own.join("\u{1f}");
        let nth = alike.entry(own.clone()).or_default();
        *nth += 1;
        let cells = heading
            .iter()
            .zip(record.iter())
            .filter(|(_, cell)| !cell.is_empty());
        let cells: BTreeMap<&str, &str> = cells.collect();
        let nth = *nth;
        rows.push(Row {
            number,
            entry: entry(&cells, || name(&own, nth)),
        });
    }
    Ok(rows)
}

fn fault(column: &str, value: &str, problem: Statement, remedy: Statement) -> Fault {
    let at = Pointer::default();
    Fault {
        path: if column.is_empty() { at } else { at.at(column) }.to_string(),
        value: shortened(value).into(),
        problem,
        remedy,
    }
}

/// The entry that stands in `cells`.
fn entry(cells: &BTreeMap<&str, &str>, id: impl Fn() -> String) -> Result<Entry, Vec<Fault>> {
    let mut faults = Vec::new();
    let mut number = |column: &str| -> Option<Value> {
        let cell = cells.get(column)?;
        let value = cell.parse::<f64>().ok().filter(|value| value.is_finite());
        if value.is_none() {
            faults.push(fault(
                column,
                cell,
                say!("that is no number"),
                say!("write a number such as 36 or 0.5"),
            ));
        }
        let value = value?;
        let whole = value.fract() == 0.0 && value.abs() < 1e9;
        Some(if whole {
            Value::from(value as i64)
        } else {
            Value::from(value)
        })
    };
    let mut fields = Map::new();
    for column in NUMBERS.into_iter().filter(|column| *column != "at_h") {
        if let Some(value) = number(column) {
            fields.insert(column.into(), value);
        }
    }
    let (at_h, value) = (number("at_h"), number("value"));
    let spot = (number("x_mm"), number("y_mm"));
    for column in FLAGS {
        let Some(cell) = cells.get(column) else {
            continue;
        };
        match cell.to_ascii_lowercase().as_str() {
            "yes" | "true" => fields.insert(column.into(), true.into()),
            "no" | "false" => fields.insert(column.into(), false.into()),
            _ => {
                faults.push(fault(
                    column,
                    cell,
                    say!("that is neither yes nor no"),
                    say!("write yes or no"),
                ));
                None
            }
        };
    }
    for column in WORDS {
        if let Some(cell) = cells.get(column) {
            fields.insert(column.into(), (*cell).into());
        }
    }
    let kind = cells.get("kind").copied().unwrap_or_default();
    let about = matches!(kind, "measured" | "noted");
    let bay = cells
        .get("place")
        .map(|place| serde_json::json!({"place": place, "tier": cells.get("tier").unwrap_or(&"")}));
    if about {
        let about = match (fields.remove("tray"), bay, spot) {
            (Some(tray), ..) => serde_json::json!({ "tray": tray }),
            (None, Some(bay), (Some(x_mm), Some(y_mm))) => {
                serde_json::json!({ "spot": { "bay": bay, "x_mm": x_mm, "y_mm": y_mm } })
            }
            (None, Some(bay), _) => serde_json::json!({ "bay": bay }),
            (None, None, _) => "room".into(),
        };
        fields.insert("about".into(), about);
        if let (Some(reading), Some(value)) = (cells.get("reading"), value) {
            fields.insert("reading".into(), serde_json::json!({ *reading: value }));
        }
    } else if let Some(bay) = bay {
        fields.insert("bay".into(), bay);
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    let mut whole = Map::new();
    let own = cells.get("id").map_or_else(id, |id| (*id).to_owned());
    whole.insert("id".into(), own.into());
    whole.insert(
        "on".into(),
        cells.get("day").copied().unwrap_or_default().into(),
    );
    whole.extend(at_h.map(|at_h| ("at_h".to_owned(), at_h)));
    for column in ["corrects", "text", "photo"] {
        if let Some(cell) = cells.get(column) {
            whole.insert(column.into(), (*cell).into());
        }
    }
    if !kind.is_empty() {
        whole.insert("fact".into(), serde_json::json!({ kind: fields }));
    }
    serde_json::from_value(Value::Object(whole)).map_err(|error| {
        vec![fault(
            "kind",
            kind,
            say!("{what}", what = shortened(&error.to_string())),
            say!("write the row as a table that was written here has rows of its kind"),
        )]
    })
}
