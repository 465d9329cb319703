//! The rules of this house that the compiler does not keep: core does no I/O and knows no clock, its
//! rooms stand in the order of the work, files do not go round in circles, a kind of place is told
//! in one file, and the server asks through one door.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

/// The rooms, in the order of the work, as docs/ARCHITECTURE.md shows them.
const ROOMS: [&str; 27] = [
    "basis",
    "site",
    "crops",
    "seeds",
    "room",
    "space",
    "light",
    "air",
    "warmth",
    "growth",
    "power",
    "lamps",
    "plan",
    "log",
    "season",
    "day",
    "cost",
    "placement",
    "readings",
    "learning",
    "batches",
    "diagnosis",
    "advice",
    "today",
    "edit",
    "compare",
    "ask",
];

fn source() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("src")
}

fn sources(folder: &Path) -> Vec<PathBuf> {
    files(folder, &["rs"])
}

fn files(folder: &Path, endings: &[&str]) -> Vec<PathBuf> {
    let mut found = Vec::new();
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        let ending = path.extension().and_then(|ending| ending.to_str());
        if path.is_dir() {
            found.extend(files(&path, endings));
        } else if ending.is_some_and(|ending| endings.contains(&ending)) {
            found.push(path);
        }
    }
    found.sort();
    found
}

/// What the code says outside its comments and its tests.
fn code(path: &Path) -> String {
    let text = std::fs::read_to_string(path).unwrap();
    let text = text.split("#[cfg(test)]\nmod tests").next().unwrap();
    let lines = text
        .lines()
        .filter(|line| !line.trim_start().starts_with("//"));
    lines.collect::<Vec<_>>().join("\n")
}

/// A file's module within core: `["light", "bay"]`.
fn module(file: &Path) -> Vec<String> {
    let inside = file.strip_prefix(source()).unwrap().with_extension("");
    let names = inside.iter().map(|name| name.to_str().unwrap().to_owned());
    names.filter(|name| name != "mod").collect()
}

/// Files of core but for those of its tests.
fn core() -> Vec<PathBuf> {
    let files = sources(&source()).into_iter();
    let testing = source().join("testing");
    let of_tests = |file: &PathBuf| file.starts_with(&testing) || file.ends_with("testing.rs");
    files.filter(|file| !of_tests(file)).collect()
}

/// The modules of core that `code` names, `{}` opened: `["light", "bay", "Fields"]`.
fn named(code: &str) -> Vec<Vec<String>> {
    let mut all = Vec::new();
    for (at, _) in code.match_indices("crate::") {
        if code[..at].ends_with(|c: char| c.is_alphanumeric() || c == '_' || c == ':') {
            continue;
        }
        opened(&code[at + "crate::".len()..], Vec::new(), &mut all);
    }
    all
}

/// Reads a path, or a list of them in braces, from the beginning of `text`; gives how far it went.
fn opened(text: &str, before: Vec<String>, all: &mut Vec<Vec<String>>) -> usize {
    if !text.starts_with('{') {
        let name: String = text
            .chars()
            .take_while(|c| c.is_alphanumeric() || *c == '_')
            .collect();
        let mut path = before;
        path.push(name.clone());
        return match text[name.len()..].strip_prefix("::") {
            Some(rest) => name.len() + 2 + opened(rest, path, all),
            None => {
                all.push(path);
                name.len()
            }
        };
    }
    let mut at = 1;
    loop {
        at += text[at..].len() - text[at..].trim_start_matches([' ', '\n', ',']).len();
        if text[at..].starts_with('}') || at >= text.len() {
            return at + 1;
        }
        let went = opened(&text[at..], before.clone(), all);
        at += went.max(1);
    }
}

#[test]
fn core_has_no_io_no_clock_and_no_async() {
    let files = core();
    assert!(files.len() > 100);
    for file in files {
        let code = code(&file);
        for word in [
            "std::fs",
            "std::io",
            "std::net",
            "std::env",
            "std::time",
            "std::process",
            "println!",
            "Zoned::now",
            "Timestamp::now",
            "async fn",
            "rusqlite",
            "axum",
            "tokio",
        ] {
            assert!(!code.contains(word), "{} uses {word}", file.display());
        }
    }
}

#[test]
fn rooms_stand_in_the_order_of_the_work_and_none_besides() {
    let lib = std::fs::read_to_string(source().join("lib.rs")).unwrap();
    let built = lib
        .lines()
        .filter_map(|line| line.strip_prefix("pub mod ")?.strip_suffix(';'))
        .filter(|name| *name != "testing");
    assert_eq!(built.collect::<Vec<_>>(), ROOMS);
    let mut wrong = Vec::new();
    for file in core() {
        let own = module(&file);
        let Some(at) = ROOMS.iter().position(|room| *room == own[0]) else {
            assert_eq!(own, ["lib"], "a module that is no room");
            continue;
        };
        for path in named(&code(&file)) {
            let other = ROOMS.iter().position(|room| *room == path[0]);
            if other.is_some_and(|other| other > at) {
                wrong.push(format!("{} imports {}", own.join("::"), path.join("::")));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}

#[test]
fn architecture_shows_every_room() {
    let docs = source().join("../../../docs/ARCHITECTURE.md");
    let docs = std::fs::read_to_string(docs).unwrap();
    let mut rest = docs.as_str();
    for room in ROOMS {
        let line = format!("\n{room}/");
        let at = rest.find(&line);
        rest = &rest[at.unwrap_or_else(|| panic!("{room}/ in its place in the tree"))..][1..];
    }
}

#[test]
fn files_of_a_folder_do_not_go_round_in_circles() {
    let files = core();
    let modules: BTreeSet<Vec<String>> = files.iter().map(|file| module(file)).collect();
    // Who imports whom, among the entries of each folder.
    let mut imports: BTreeMap<Vec<String>, BTreeMap<String, BTreeSet<String>>> = BTreeMap::new();
    for file in &files {
        let own = module(file);
        let is_folder = file.ends_with("mod.rs");
        for mut path in named(&code(file)) {
            // The longest beginning that is a module: the rest is an item of it.
            while !path.is_empty() && !modules.contains(&path) {
                path.pop();
            }
            let shared = own.iter().zip(&path).take_while(|(a, b)| a == b).count();
            let folder = own[..shared].to_vec();
            let entry = |path: &[String]| path.get(shared).cloned().unwrap_or("mod".into());
            let (from, to) = (entry(&own), entry(&path));
            // A folder's own file lists what is in it; that is no import.
            if from != to && !(is_folder && from == "mod") && !folder.is_empty() {
                let folder = imports.entry(folder).or_default();
                folder.entry(from).or_default().insert(to);
            }
        }
    }
    let mut circles = Vec::new();
    for (folder, imports) in &imports {
        for start in imports.keys() {
            let mut seen = BTreeSet::new();
            let mut next: Vec<&String> = imports[start].iter().collect();
            while let Some(file) = next.pop() {
                if file == start {
                    circles.push(format!("{folder:?}: {start} comes back to itself"));
                }
                // A folder's own file re-exports what is in it: who is in it asks the file itself.
                if file == "mod" {
                    circles.push(format!("{folder:?}: {start} imports through the folder"));
                }
                if seen.insert(file) {
                    next.extend(imports.get(file).into_iter().flatten());
                }
            }
        }
    }
    assert!(circles.is_empty(), "{circles:#?}");
}

#[test]
fn kinds_of_place_are_told_apart_in_one_file() {
    let kinds = [
        "Rack",
        "WallShelf",
        "Closet",
        "Bench",
        "Chamber",
        "Window",
        "ColdFrame",
        "Surface",
    ];
    let allowed = [
        "room/place/traits.rs",
        "room/check/place.rs",
        "warmth/closed_space.rs",
    ];
    let mut wrong = Vec::new();
    for file in core() {
        if allowed.iter().any(|path| file.ends_with(path)) {
            continue;
        }
        let code = code(&file);
        for kind in kinds {
            let told = format!("Kind::{kind}");
            if code.contains(&told) {
                wrong.push(format!("{} tells {told}", file.display()));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}

#[test]
fn the_server_asks_through_one_door() {
    for file in sources(&source().join("../../server/src")) {
        for (_, path) in code(&file)
            .match_indices("sunrise_core::")
            .map(|(at, name)| (at, code(&file)[at + name.len()..].to_owned()))
        {
            let room: String = path.chars().take_while(char::is_ascii_lowercase).collect();
            assert!(
                ["ask", "basis"].contains(&room.as_str()),
                "{} goes past ask, to {room}",
                file.display()
            );
        }
    }
}

#[test]
fn every_judgement_is_listed_by_its_files_name() {
    let advice = source().join("advice");
    let files = sources(&advice).into_iter().filter_map(|file| {
        let inside = file.strip_prefix(&advice).unwrap();
        let name = inside.file_stem().unwrap().to_str().unwrap();
        (inside.iter().count() == 2 && name != "mod").then(|| name.to_owned())
    });
    let listed = sunrise_core::advice::codes().map(str::to_owned);
    assert_eq!(
        files.collect::<BTreeSet<_>>(),
        listed.collect::<BTreeSet<_>>()
    );
}

#[test]
fn no_file_outgrows_its_name() {
    const MOST_LINES: usize = 400;
    let root = source().join("../../..");
    let mut folders: Vec<PathBuf> = ["core", "store", "server"]
        .iter()
        .map(|name| root.join("crates").join(name).join("src"))
        .collect();
    folders.push(root.join("xtask/src"));
    let rust = folders.iter().flat_map(|folder| sources(folder));
    let web = files(&root.join("web/src"), &["svelte", "ts", "css"]).into_iter();
    // The generated types are nobody's to read.
    let web = web.filter(|file| !file.ends_with("schema.d.ts"));
    let long = rust.chain(web).filter_map(|file| {
        let lines = std::fs::read_to_string(&file).unwrap().lines().count();
        (lines > MOST_LINES).then(|| format!("{}: {lines}", file.display()))
    });
    assert_eq!(long.collect::<Vec<_>>(), Vec::<String>::new());
}
