//! What a fresh machine lacks, installed or asked for by name.

use std::path::{Path, PathBuf};
use std::time::SystemTime;

use anyhow::{Context, Result, bail, ensure};
use xshell::{Shell, cmd};

/// The TypeScript types of the HTTP interface.
pub const TYPES: &str = "web/src/lib/api/schema.d.ts";

const LEAST_NODE: (u32, u32) = (20, 19);

/// The line that formats core's judgements: `cargo fmt` does not see them, as a macro lists them.
pub fn format_judgements(sh: &Shell) -> Result<String> {
    let mut line = String::from("rustfmt --edition 2024");
    for topic in sh.read_dir("crates/core/src/advice")? {
        if topic.is_dir() {
            for file in sh.read_dir(topic)? {
                line += &format!(" {}", file.display());
            }
        }
    }
    Ok(line)
}

/// Installs the npm packages of the lock file, unless they are there.
pub fn node_packages(sh: &Shell) -> Result<()> {
    let version = cmd!(sh, "node --version").quiet().read().context(
        "Node.js is missing: install Node.js 20.19 or newer with npm, then run this again",
    )?;
    let mut parts = version
        .trim_start_matches('v')
        .split('.')
        .map(str::parse::<u32>);
    let found = match (parts.next(), parts.next()) {
        (Some(Ok(major)), Some(Ok(minor))) => (major, minor),
        _ => bail!("`node --version` says \"{version}\", which is no version"),
    };
    ensure!(
        found >= LEAST_NODE,
        "Node.js {version} is too old: install 20.19 or newer, then run this again"
    );
    cmd!(sh, "npm --version")
        .quiet()
        .ignore_stderr()
        .read()
        .context("npm is missing: install it beside Node.js, then run this again")?;
    let installed = modified("node_modules/.package-lock.json".as_ref());
    if installed.is_none() || installed < modified("package-lock.json".as_ref()) {
        cmd!(sh, "npm ci --no-audit --no-fund").run()?;
    }
    Ok(())
}

/// Builds the front end into `web/build`, unless it is newer than all its sources.
pub fn front_end(sh: &Shell) -> Result<()> {
    let built = modified("web/build/index.html".as_ref());
    let sources = [
        "web/src",
        "web/static",
        "web/package.json",
        "web/svelte.config.js",
        "web/preload.js",
        "web/vite.config.ts",
        "package-lock.json",
    ];
    let newest = sources
        .iter()
        .filter_map(|path| newest(path.as_ref()))
        .max();
    if built.is_none() || built < newest {
        cmd!(sh, "npm run --silent build --workspace web").run()?;
    }
    Ok(())
}

/// The types that the server's own document gives now.
pub fn generated_types(sh: &Shell) -> Result<String> {
    let document = cmd!(sh, "cargo run --quiet -p faint-sunrise -- openapi").read()?;
    let folder = sh.create_temp_dir()?;
    let (json, types) = (
        folder.path().join("openapi.json"),
        folder.path().join("schema.d.ts"),
    );
    sh.write_file(&json, document)?;
    cmd!(sh, "npx openapi-typescript {json} --output {types}")
        .quiet()
        .ignore_stdout()
        .ignore_stderr()
        .run()?;
    Ok(sh.read_file(types)?)
}

/// Where Chromium is; Debian's package is installed when there is none.
pub fn chromium(sh: &Shell) -> Result<PathBuf> {
    if let Some(path) = std::env::var_os("CHROMIUM") {
        return Ok(path.into());
    }
    if let Some(path) = find_chromium() {
        return Ok(path);
    }
    const BY_HAND: &str = "Chromium is missing and cannot be installed from here: install it \
        (on Debian: apt-get install chromium), or name it in CHROMIUM, then run this again";
    install(sh, "chromium").context(BY_HAND)?;
    find_chromium().context(BY_HAND)
}

/// Makes sure of khal, a calendar client that the calendar's tests import into; Debian's package is
/// installed when there is none.
pub fn calendar_client(sh: &Shell) -> Result<()> {
    if in_path("khal").is_some() {
        return Ok(());
    }
    const BY_HAND: &str = "khal, a calendar client, is missing and cannot be installed from here: \
        install it (on Debian: apt-get install khal), then run this again";
    install(sh, "khal").context(BY_HAND)
}

/// Installs a package of Debian's.
fn install(sh: &Shell, package: &str) -> Result<()> {
    ensure!(in_path("apt-get").is_some(), "there is no apt-get");
    let root = cmd!(sh, "id -u").quiet().read()? == "0";
    let sudo: &[&str] = if root { &[] } else { &["sudo", "-n"] };
    eprintln!("{package} is missing: installing Debian's package");
    let mut line: Vec<&str> = [sudo, &["apt-get", "update", "-qq"]].concat();
    for _ in 0..2 {
        let (program, arguments) = (line[0], &line[1..]);
        cmd!(sh, "{program} {arguments...}")
            .env("DEBIAN_FRONTEND", "noninteractive")
            .ignore_stdout()
            .run()?;
        line = [sudo, &["apt-get", "install", "-y", "-qq", package]].concat();
    }
    Ok(())
}

fn find_chromium() -> Option<PathBuf> {
    ["chromium", "chromium-browser"]
        .into_iter()
        .find_map(in_path)
}

fn in_path(program: &str) -> Option<PathBuf> {
    std::env::split_paths(&std::env::var_os("PATH")?)
        .map(|folder| folder.join(program))
        .find(|path| path.is_file())
}

fn modified(path: &Path) -> Option<SystemTime> {
    std::fs::metadata(root(path)).ok()?.modified().ok()
}

fn newest(path: &Path) -> Option<SystemTime> {
    let full = root(path);
    if !full.is_dir() {
        return modified(path);
    }
    std::fs::read_dir(full)
        .ok()?
        .filter_map(|entry| newest(&entry.ok()?.path()))
        .chain(modified(path))
        .max()
}

/// `path` from the project's root, wherever the command was called.
fn root(path: &Path) -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("..").join(path)
}
