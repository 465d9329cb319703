//! The binary `faint-sunrise`: the server with the front end embedded.

use rust_embed::RustEmbed;

// Missing while the types of the front end are generated from the server for the first time.
#[derive(RustEmbed)]
#[folder = "../../web/build"]
#[allow_missing = true]
struct Files;

fn main() -> std::process::ExitCode {
    faint_sunrise::run(|path| {
        let file = Files::get(path)?;
        Some(faint_sunrise::Page {
            kind: file.metadata.mimetype().to_owned(),
            bytes: file.data,
        })
    })
}
