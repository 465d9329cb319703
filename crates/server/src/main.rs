//! The binary `faint-sunrise`: the server with the front end embedded.

use rust_embed::RustEmbed;

// Missing while the types of the front end are generated from the server for the first time.
#[derive(RustEmbed)]
#[folder = "../../web/build"]
#[allow_missing = true]
struct Files;

// Plans are many small lists: a fifth of an answer's time goes with the system's allocator.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() -> std::process::ExitCode {
    faint_sunrise::run(|path| {
        let file = Files::get(path)?;
        Some(faint_sunrise::Page {
            kind: file.metadata.mimetype().to_owned(),
            bytes: file.data,
        })
    })
}
