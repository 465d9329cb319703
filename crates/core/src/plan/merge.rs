//! Two edits of one plan made into one, field by field.

use std::collections::BTreeSet;

use serde_json::{Map, Value};

use crate::basis::fault::Pointer;
use crate::basis::units::Quantity;
use crate::basis::words::{Figure, Statement, say};
use crate::plan::document::Plan;

/// Whose value stands where both changed a field.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Wins {
    /// The one that was saved first.
    Theirs,
    /// The one that comes now.
    Mine,
}

/// A field that both changed, and not to the same.
#[derive(Debug, Clone, PartialEq)]
pub struct Clash {
    /// Where it stands, as a JSON Pointer into what both edited.
    pub path: String,
    /// What the one that was saved first has there; null where it took it out.
    pub theirs: Value,
    /// What the one that comes now has there.
    pub mine: Value,
}

impl Clash {
    /// What both changed, and to what, in words.
    pub fn say(&self) -> Statement {
        let steps: Vec<&str> = self.path.split('/').skip(1).collect();
        let Some((field, within)) = steps.split_last() else {
            return say!("the plan as a whole was changed there and here");
        };
        let (name, quantity) = named(field);
        let within: Vec<&str> = within
            .iter()
            .copied()
            .filter(|step| !LISTS.contains(step))
            .collect();
        let of = match within.len() {
            0 => String::new(),
            _ => format!(" ({})", within.join(", ")),
        };
        say!(
            "{field}: {theirs} there, {mine} here",
            field = format!("{name}{of}"),
            theirs = figure(&self.theirs, quantity),
            mine = figure(&self.mine, quantity)
        )
    }
}

/// Lists of the document, which say less than the things in them.
const LISTS: [&str; 9] = [
    "places",
    "tiers",
    "lamps",
    "mats",
    "fans",
    "sowings",
    "trays",
    "packets",
    "tray_formats",
];

/// A field's name in words, and what it measures where its unit tells.
fn named(field: &str) -> (String, Option<Quantity>) {
    let units = [
        ("_mm", Quantity::LengthMm),
        ("_c", Quantity::TemperatureC),
        ("_h", Quantity::Hours),
        ("_kg", Quantity::MassKg),
        ("_ml", Quantity::VolumeMl),
        ("_deg", Quantity::AngleDeg),
    ];
    let unit = units.into_iter().find_map(|(end, quantity)| {
        let name = field.strip_suffix(end)?;
        Some((name.replace('_', " "), Some(quantity)))
    });
    unit.unwrap_or_else(|| (field.replace('_', " "), None))
}

fn figure(value: &Value, quantity: Option<Quantity>) -> Figure {
    match (value, quantity) {
        (Value::Number(n), Some(quantity)) => quantity.of(n.as_f64().unwrap_or_default()),
        (Value::Number(n), None) => n.to_string().into(),
        (Value::String(text), _) => text.clone().into(),
        (Value::Bool(yes), _) => (if *yes { "yes" } else { "no" }).into(),
        (Value::Null, _) => "nothing".into(),
        (Value::Array(_) | Value::Object(_), _) => "changed".into(),
    }
}

/// What two edits of `base` make together, `wins` deciding where they clash; `None` for the document
/// when the two do not go together at all.
pub fn merged(base: &Plan, theirs: &Plan, mine: &Plan, wins: Wins) -> (Option<Plan>, Vec<Clash>) {
    let value = |plan: &Plan| serde_json::to_value(plan).expect("a plan serialises");
    let (base, theirs, mine) = (value(base), value(theirs), value(mine));
    let mut merge = Merge {
        wins,
        clashes: Vec::new(),
    };
    let root = Pointer::default();
    let document = merge.values(&root, Some(&base), Some(&theirs), Some(&mine));
    let document = document.and_then(|document| serde_json::from_value(document).ok());
    (document, merge.clashes)
}

struct Merge {
    wins: Wins,
    clashes: Vec<Clash>,
}

impl Merge {
    /// What a field becomes that was `base`; `None` where it is taken out.
    fn values(
        &mut self,
        at: &Pointer,
        base: Option<&Value>,
        theirs: Option<&Value>,
        mine: Option<&Value>,
    ) -> Option<Value> {
        if theirs == mine || base == theirs {
            return mine.cloned();
        }
        if base == mine {
            return theirs.cloned();
        }
        match (base, theirs, mine) {
            (Some(Value::Object(base)), Some(Value::Object(theirs)), Some(Value::Object(mine))) => {
                Some(Value::Object(self.objects(at, base, theirs, mine)))
            }
            (Some(Value::Array(base)), Some(Value::Array(theirs)), Some(Value::Array(mine)))
                if [base, theirs, mine].iter().all(|list| has_ids(list)) =>
            {
                Some(Value::Array(self.lists(at, base, theirs, mine)))
            }
            _ => {
                self.clashes.push(Clash {
                    path: at.to_string(),
                    theirs: theirs.cloned().unwrap_or_default(),
                    mine: mine.cloned().unwrap_or_default(),
                });
                match self.wins {
                    Wins::Theirs => theirs.cloned(),
                    Wins::Mine => mine.cloned(),
                }
            }
        }
    }

    fn objects(
        &mut self,
        at: &Pointer,
        base: &Map<String, Value>,
        theirs: &Map<String, Value>,
        mine: &Map<String, Value>,
    ) -> Map<String, Value> {
        let keys: BTreeSet<&String> = base
            .keys()
            .chain(theirs.keys())
            .chain(mine.keys())
            .collect();
        let fields = keys.into_iter().filter_map(|key| {
            let value = self.values(&at.at(key), base.get(key), theirs.get(key), mine.get(key));
            value.map(|value| (key.clone(), value))
        });
        fields.collect()
    }

    /// Lists of things with identifiers: thing by thing, in the order of whoever changed it, with what
    /// the other added behind.
    fn lists(
        &mut self,
        at: &Pointer,
        base: &[Value],
        theirs: &[Value],
        mine: &[Value],
    ) -> Vec<Value> {
        let ids = |list: &'_ [Value]| -> Vec<String> {
            list.iter()
                .filter_map(|item| id_of(item).map(str::to_owned))
                .collect()
        };
        let both = |list: &[Value], other: &[Value]| -> Vec<String> {
            let others: BTreeSet<String> = ids(other).into_iter().collect();
            ids(list)
                .into_iter()
                .filter(|id| others.contains(id))
                .collect()
        };
        // Mine, unless only the other changed the order.
        let mine_moved = both(mine, base) != both(base, mine);
        let (first, second) = match mine_moved || both(theirs, base) == both(base, theirs) {
            true => (mine, theirs),
            false => (theirs, mine),
        };
        let mut order = ids(first);
        for id in ids(second) {
            if !order.contains(&id) {
                order.push(id);
            }
        }
        let find = |list: &[Value], id: &str| list.iter().find(|i| id_of(i) == Some(id)).cloned();
        let things = order.iter().filter_map(|id| {
            let (base, theirs, mine) = (find(base, id), find(theirs, id), find(mine, id));
            self.values(&at.at(id), base.as_ref(), theirs.as_ref(), mine.as_ref())
        });
        things.collect()
    }
}

fn id_of(item: &Value) -> Option<&str> {
    item.get("id")?.as_str()
}

fn has_ids(list: &[Value]) -> bool {
    list.iter().all(|item| id_of(item).is_some())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::testing::kettle_fen;

    #[test]
    fn edits_of_different_fields_both_survive() {
        let base = kettle_fen(|_| ()).into_inner();
        let (mut theirs, mut mine) = (base.clone(), base.clone());
        theirs.places[0].tiers[0].lamps[0].height_mm += 25.0;
        theirs.sowings.remove(3);
        mine.places[0].tiers[0].lamps[1].height_mm += 50.0;
        mine.site.price_per_kwh = 0.5;
        mine.places.swap(0, 1);
        let (both, clashes) = merged(&base, &theirs, &mine, Wins::Mine);
        let both = both.unwrap();
        assert_eq!(clashes, []);
        let lamps = &both.places[1].tiers[0].lamps;
        let was = &base.places[0].tiers[0].lamps;
        assert_eq!(lamps[0].height_mm, was[0].height_mm + 25.0);
        assert_eq!(lamps[1].height_mm, was[1].height_mm + 50.0);
        assert_eq!(both.site.price_per_kwh, 0.5);
        assert_eq!(both.sowings.len(), base.sowings.len() - 1);
    }

    #[test]
    fn edits_of_one_field_clash_and_whoever_wins_has_it() {
        let base = kettle_fen(|_| ()).into_inner();
        let (mut theirs, mut mine) = (base.clone(), base.clone());
        theirs.name = "One".into();
        mine.name = "Two".into();
        theirs.site.latitude_deg = 50.0;
        let (kept, clashes) = merged(&base, &theirs, &mine, Wins::Mine);
        let [clash] = &clashes[..] else {
            panic!("{clashes:?}")
        };
        assert_eq!(
            (clash.path.as_str(), &clash.theirs),
            ("/name", &Value::from("One"))
        );
        assert!(clash.say().text.contains("there"));
        let kept = kept.unwrap();
        assert_eq!((kept.name.as_str(), kept.site.latitude_deg), ("Two", 50.0));
        let (kept, _) = merged(&base, &theirs, &mine, Wins::Theirs);
        assert_eq!(kept.unwrap().name, "One");
    }

    #[test]
    fn what_one_took_out_and_the_other_changed_clashes() {
        let base = kettle_fen(|_| ()).into_inner();
        let (mut theirs, mut mine) = (base.clone(), base.clone());
        let gone = theirs.packets.remove(0);
        mine.packets[0].year += 1;
        let (kept, clashes) = merged(&base, &theirs, &mine, Wins::Mine);
        assert_eq!(clashes.len(), 1);
        assert_eq!(clashes[0].path, format!("/packets/{}", gone.id));
        assert_eq!(kept.unwrap().packets.len(), base.packets.len());
        let (kept, _) = merged(&base, &theirs, &mine, Wins::Theirs);
        assert_eq!(kept.unwrap().packets.len(), base.packets.len() - 1);
    }
}
