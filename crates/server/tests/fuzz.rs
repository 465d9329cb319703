//! Requests made up from the OpenAPI document: none may fail the server, be answered against the
//! document, or take longer than an answer may.
//!
//! `FUZZ_REQUESTS=5000 cargo test -p faint-sunrise --test fuzz` sends more.

mod running;

use std::collections::HashMap;
use std::time::{Duration, Instant};

use fastrand::Rng;
use jsonschema::Validator;
use running::Server;
use serde_json::{Map, Value, json};

/// A plan to begin with where the document wants one: a random one would never be sound.
const DEMO: &str = include_str!("../../../demo/kettle-fen.json");

struct Fuzz {
    document: Value,
    demo: Value,
    random: Rng,
}

impl Fuzz {
    /// A value of `schema`: nearly always as the document says, now and then not.
    fn value(&mut self, schema: &Value, field: &str, depth: u32) -> Value {
        if self.random.u32(0..400) == 0 {
            return self.odd();
        }
        if let Some(name) = schema["$ref"].as_str() {
            let name = name.rsplit('/').next().unwrap();
            if name == "Plan" {
                return self.plan();
            }
            let target = self.document["components"]["schemas"][name].clone();
            return self.value(&target, field, depth + 1);
        }
        for one_of in ["oneOf", "anyOf"] {
            if let Some(choices) = schema[one_of].as_array() {
                let choice = self.random.choice(choices.clone()).unwrap();
                return self.value(&choice, field, depth + 1);
            }
        }
        if let Some(all) = schema["allOf"].as_array() {
            let mut merged = Map::new();
            for part in all.clone() {
                if let Value::Object(fields) = self.value(&part, field, depth + 1) {
                    merged.extend(fields);
                }
            }
            return Value::Object(merged);
        }
        if let Some(choices) = schema["enum"].as_array() {
            return self.random.choice(choices.clone()).unwrap();
        }
        if let Some(only) = schema.get("const") {
            return only.clone();
        }
        let kind = match &schema["type"] {
            Value::Array(kinds) => self.random.choice(kinds.clone()).unwrap(),
            kind => kind.clone(),
        };
        match kind.as_str().unwrap_or_default() {
            "object" => self.object(schema, depth),
            "array" => {
                let n = if depth > 6 {
                    0
                } else {
                    self.random.usize(0..4)
                };
                let items = schema["items"].clone();
                let tuple = schema["prefixItems"].as_array().map_or(n, Vec::len);
                let fixed = schema["minItems"].as_u64().map_or(tuple, |n| n as usize);
                (0..fixed.max(n.min(fixed.max(3))))
                    .map(|_| self.value(&items, field, depth + 1))
                    .collect()
            }
            "number" => json!(self.number(schema)),
            "integer" => json!(self.number(schema).round() as i64),
            "boolean" => json!(self.random.bool()),
            "string" => self.text(schema, field),
            _ => Value::Null,
        }
    }

    fn object(&mut self, schema: &Value, depth: u32) -> Value {
        let required: Vec<Value> = schema["required"].as_array().cloned().unwrap_or_default();
        let mut fields = Map::new();
        let properties = schema["properties"]
            .as_object()
            .cloned()
            .unwrap_or_default();
        for (name, property) in properties {
            let wanted = required.contains(&json!(name));
            if wanted || (depth < 6 && self.random.bool()) {
                let value = self.value(&property, &name, depth + 1);
                fields.insert(name, value);
            }
        }
        Value::Object(fields)
    }

    fn number(&mut self, schema: &Value) -> f64 {
        let least = schema["minimum"].as_f64().unwrap_or(0.0);
        let most = schema["maximum"].as_f64().unwrap_or(1000.0);
        match self.random.u32(0..12) {
            0 => least,
            1 => most,
            // Most of what people enter is small.
            2..6 => (least + (most - least) * self.random.f64()).round(),
            _ => least.max(0.0) + (most.min(500.0) - least.max(0.0)) * self.random.f64(),
        }
    }

    fn text(&mut self, schema: &Value, field: &str) -> Value {
        if schema["format"] == "date" {
            let day = self.random.u32(1..28);
            let month = self.random.u32(1..=6);
            return json!(format!("2027-{month:02}-{day:02}"));
        }
        let known: &[&str] = match field {
            "crop" => &["tomato", "lettuce", "sweet-pepper", "no-such-crop"],
            "place" => &["door", "coat", "window", "cabinet", "nowhere"],
            "tier" => &["t1", "t2", "t3", "t9"],
            "sowing" => &["lettuce", "parsley", "melon", "none"],
            "text" => &["date,min\n2020-01-01,-3\n", "LOCATION,a\n", ""],
            _ => &["a", "of ours", "x\u{202e}y", "", "12"],
        };
        json!(self.random.choice(known.iter().copied()))
    }

    /// What no field expects.
    fn odd(&mut self) -> Value {
        let long = "long ".repeat(3000);
        let choices = [
            json!(null),
            json!(-1),
            json!(1e308),
            json!(long),
            json!([]),
            json!({}),
            json!(""),
        ];
        self.random.choice(choices).unwrap()
    }

    /// The demo with a figure or two changed, or a list cut.
    fn plan(&mut self) -> Value {
        let mut plan = self.demo.clone();
        for _ in 0..self.random.u32(0..3) {
            let mut path = String::new();
            let leaf = loop {
                let (step, n) = match plan.pointer(&path).unwrap() {
                    Value::Object(fields) if !fields.is_empty() => {
                        let i = self.random.usize(0..fields.len());
                        (fields.keys().nth(i).unwrap().clone(), None)
                    }
                    Value::Array(list) if !list.is_empty() => {
                        (self.random.usize(0..list.len()).to_string(), None)
                    }
                    leaf => (String::new(), Some(leaf.as_f64())),
                };
                match n {
                    Some(figure) => break figure,
                    None => path += &format!("/{step}"),
                }
            };
            let other = match leaf {
                Some(figure) => json!(figure * self.random.f64() * 2.0),
                None => self.odd(),
            };
            *plan.pointer_mut(&path).unwrap() = other;
        }
        plan
    }
}

#[test]
fn requests_made_from_the_document_neither_fail_nor_surprise() {
    let requests: u32 = std::env::var("FUZZ_REQUESTS")
        .ok()
        .and_then(|n| n.parse().ok())
        .unwrap_or(600);
    let data = tempfile::tempdir().unwrap();
    // With the limits that people have.
    let server = Server::start_with(data.path(), &[]);
    let document = server.get("/api/openapi.json").json();
    let mut fuzz = Fuzz {
        demo: serde_json::from_str(DEMO).unwrap(),
        document: document.clone(),
        random: Rng::with_seed(7),
    };
    let mut validators: HashMap<String, Validator> = HashMap::new();
    let operations: Vec<(String, String, Value)> = document["paths"]
        .as_object()
        .unwrap()
        .iter()
        .flat_map(|(path, operations)| {
            let operations = operations.as_object().unwrap().iter();
            operations.map(|(method, of)| (method.to_uppercase(), path.clone(), of.clone()))
        })
        .collect();
    let (mut sound, mut longest) = (0, (Duration::ZERO, String::new()));
    for i in 0..requests {
        let (method, path, operation) = &operations[i as usize % operations.len()];
        let number = fuzz
            .random
            .choice(["1", "1", "1", "2", "x", "%ff"])
            .unwrap();
        let address = path.replace("{id}", number).replace("{number}", number);
        let named = fuzz.random.choice(["ce1", "pe1", "none", "x%20y"]).unwrap();
        let address = address.replace("{tray}", named).replace("{name}", named);
        let content = operation["requestBody"]["content"].as_object();
        let (kind, body) = match content.and_then(|content| content.iter().next()) {
            Some((kind, of)) => {
                let schema = of["schema"].clone();
                let value = fuzz.value(&schema, "", 0);
                let text = value.as_str().filter(|_| kind == "text/plain");
                (
                    kind.clone(),
                    text.map_or_else(|| value.to_string(), str::to_owned),
                )
            }
            None => ("application/json".to_owned(), String::new()),
        };
        let began = Instant::now();
        let answer = server
            .try_send(method, &address, &kind, body.as_bytes())
            .unwrap_or_else(|| panic!("no answer to {method} {address} {body}"));
        let took = began.elapsed();
        let what = format!(
            "{method} {address} {}",
            &body.chars().take(2000).collect::<String>()
        );
        if took > longest.0 {
            longest = (took, what.clone());
        }
        assert!(
            answer.status < 500,
            "{}: {what}\n{}",
            answer.status,
            answer.body
        );
        sound += u32::from(answer.status < 300);
        if answer.status == 204 {
            // The plan was deleted: back with it, for the rest.
            server.send("POST", "/api/plans/1/restore", "");
            continue;
        }
        let responses = &operation["responses"];
        let named = answer.status.to_string();
        let class = format!("{}XX", answer.status / 100);
        let response = responses.get(&named).or_else(|| responses.get(&class));
        let response = response.unwrap_or_else(|| panic!("{named} is not described: {what}"));
        let schema = response["content"].as_object().and_then(|content| {
            let expected = answer.kind.split(';').next().unwrap();
            let of = content.get(expected);
            of.unwrap_or_else(|| panic!("{expected} is not described: {what}"));
            of.map(|of| of["schema"].clone())
        });
        let Some(schema) = schema.filter(|_| answer.kind.contains("json")) else {
            continue;
        };
        let key = format!("{method} {path} {named} {class}");
        let validator = validators.entry(key).or_insert_with(|| {
            let mut whole = schema.clone();
            whole["components"] = document["components"].clone();
            jsonschema::validator_for(&whole).expect("the document's schemas are sound")
        });
        let found = answer.json();
        let wrong = validator.iter_errors(&found).next();
        if let Some(wrong) = wrong {
            panic!("{what}\n{}: {wrong}", wrong.instance_path());
        }
    }
    println!(
        "{sound} of {requests} were sound; the longest took {:?}: {}",
        longest.0, longest.1
    );
    assert!(sound * 4 > requests, "{sound} of {requests} were sound");
    // The server ends what it works out after 20 s at most; waiting for a turn and answering come on
    // top. Nothing may be without end.
    assert!(longest.0 < Duration::from_secs(40), "{longest:?}");
}
