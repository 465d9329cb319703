//! The rules of this house that the compiler does not keep: core does no I/O, knows no clock, and
//! its lower rooms never import higher ones.

use std::path::{Path, PathBuf};

fn sources(folder: &Path) -> Vec<PathBuf> {
    let mut files = Vec::new();
    for entry in std::fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            files.extend(sources(&path));
        } else if path.extension().is_some_and(|e| e == "rs") {
            files.push(path);
        }
    }
    files
}

/// What the code says outside its comments and its tests.
fn code(path: &Path) -> String {
    let text = std::fs::read_to_string(path).unwrap();
    let text = text.split("#[cfg(test)]").next().unwrap();
    text.lines()
        .filter(|line| !line.trim_start().starts_with("//"))
        .collect::<Vec<_>>()
        .join("\n")
}

#[test]
fn core_has_no_io_no_clock_and_no_async() {
    let src = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let files = sources(&src);
    assert!(files.len() > 15);
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
fn lower_rooms_never_import_higher_ones() {
    let src = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let order: Vec<String> = std::fs::read_to_string(src.join("lib.rs"))
        .unwrap()
        .lines()
        .filter_map(|line| Some(line.strip_prefix("pub mod ")?.strip_suffix(';')?.to_owned()))
        .collect();
    assert!(order.len() > 10, "{order:?}");
    for file in sources(&src) {
        let room = file.strip_prefix(&src).unwrap();
        let room = room
            .iter()
            .next()
            .unwrap()
            .to_str()
            .unwrap()
            .trim_end_matches(".rs");
        let Some(own) = order.iter().position(|name| name == room) else {
            continue; // lib.rs
        };
        for import in code(&file).split("crate::").skip(1) {
            let name: String = import
                .chars()
                .take_while(|c| c.is_alphanumeric() || *c == '_')
                .collect();
            if let Some(other) = order.iter().position(|n| *n == name) {
                assert!(other <= own, "{} imports {name}", file.display());
            }
        }
    }
}
