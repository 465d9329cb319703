//! The project's own commands. `cargo xtask demo` and `cargo xtask test` set up what they need.

mod bench;
mod setup;
mod steps;

use anyhow::{Result, bail};
use xshell::{Shell, cmd};

const HELP: &str = "\
cargo xtask demo     start the application with demo data
cargo xtask test     run every check and test
cargo xtask bench    print the table of budgets
cargo xtask shots    refresh docs/screenshots
cargo xtask types    regenerate the TypeScript types from the server
cargo xtask fix      format everything, regenerate types";

fn main() -> Result<()> {
    let sh = Shell::new()?;
    sh.change_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/.."));
    let mut arguments = std::env::args().skip(1);
    let command = arguments.next().unwrap_or_default();
    let rest: Vec<String> = arguments.collect();
    match command.as_str() {
        "demo" => demo(&sh, &rest),
        "test" => steps::test(&sh),
        "bench" => bench::run(&sh),
        "shots" => shots(&sh),
        "types" => types(&sh),
        "fix" => fix(&sh),
        "" | "help" | "--help" => {
            println!("{HELP}");
            Ok(())
        }
        other => bail!("there is no command \"{other}\"\n{HELP}"),
    }
}

/// Builds the binary with its front end and serves the demo from `.demo-data`. Further arguments go
/// to `serve`.
fn demo(sh: &Shell, rest: &[String]) -> Result<()> {
    // The server is compiled while the front end is built; then they are put together.
    std::thread::scope(|scope| {
        let front_end = scope.spawn(|| {
            let sh = Shell::new()?;
            sh.change_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/.."));
            setup::node_packages(&sh)?;
            setup::front_end(&sh)
        });
        cmd!(sh, "cargo build --profile demo -p faint-sunrise --lib").run()?;
        front_end
            .join()
            .unwrap_or_else(|_| bail!("the front end was not built"))
    })?;
    cmd!(sh, "cargo build --profile demo -p faint-sunrise").run()?;
    // Ctrl+C reaches the server too, which then ends cleanly.
    cmd!(
        sh,
        "target/demo/faint-sunrise serve --demo --data .demo-data {rest...}"
    )
    .run()?;
    Ok(())
}

fn shots(sh: &Shell) -> Result<()> {
    setup::node_packages(sh)?;
    setup::front_end(sh)?;
    let chromium = setup::chromium(sh)?;
    cmd!(sh, "cargo build -p faint-sunrise").run()?;
    cmd!(sh, "npm run --silent shots --workspace e2e")
        .env("CHROMIUM", chromium)
        .run()?;
    Ok(())
}

fn types(sh: &Shell) -> Result<()> {
    setup::node_packages(sh)?;
    let types = setup::generated_types(sh)?;
    sh.write_file(setup::TYPES, types)?;
    Ok(())
}

fn fix(sh: &Shell) -> Result<()> {
    types(sh)?;
    cmd!(sh, "cargo fmt --all").run()?;
    let judgements = setup::format_judgements(sh)?;
    let (program, files) = judgements.split_once(' ').unwrap_or((&judgements, ""));
    let files = files.split(' ');
    cmd!(sh, "{program} {files...}").quiet().run()?;
    cmd!(sh, "npm run --silent format").run()?;
    Ok(())
}
