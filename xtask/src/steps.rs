//! `cargo xtask test`: every check in the order that wastes least, with the totals at the end.

use std::io::{BufRead, BufReader};
use std::process::{Command, Stdio};
use std::time::Instant;

use anyhow::{Context, Result, bail};
use xshell::Shell;

use crate::setup;

/// Tests counted from what the runners print.
#[derive(Default)]
struct Totals {
    passed: u32,
    failed: u32,
}

pub fn test(sh: &Shell) -> Result<()> {
    let began = Instant::now();
    setup::node_packages(sh)?;
    setup::calendar_client(sh)?;
    let chromium = setup::chromium(sh)?.display().to_string();

    let mut totals = Totals::default();
    let mut broken: Vec<&str> = Vec::new();
    let mut step = |name: &'static str, line: &str| -> Result<()> {
        println!("\n== {name}");
        if !run(line, &chromium, &mut totals)? {
            println!("== {name}: FAILED");
            broken.push(name);
        }
        Ok(())
    };
    step("Rust formatting", "cargo fmt --all --check")?;
    let judgements = format!("{} --check", setup::format_judgements(sh)?);
    step("Rust formatting of judgements", &judgements)?;
    step("web formatting and lints", "npm run --silent lint")?;
    step(
        "web types",
        "npm run --silent check --workspaces --if-present",
    )?;
    step("web unit tests", "npm run --silent test --workspace web")?;
    step("web build", "npm run --silent build --workspace web")?;
    step(
        "Rust lints",
        "cargo clippy --workspace --all-targets -- -D warnings",
    )?;
    step("Rust tests", "cargo test --workspace --no-fail-fast")?;

    println!("\n== generated types");
    let fresh = setup::generated_types(sh)?;
    if fresh != sh.read_file(setup::TYPES)? {
        println!("{} is stale: run `cargo xtask types`", setup::TYPES);
        broken.push("generated types");
    }

    let mut step = |name: &'static str, line: &str| -> Result<()> {
        println!("\n== {name}");
        if !run(line, &chromium, &mut totals)? {
            broken.push(name);
        }
        Ok(())
    };
    step("the binary", "cargo build -p faint-sunrise")?;
    step("end to end", "npm run --silent test --workspace e2e")?;

    println!("\n== totals after {} s", began.elapsed().as_secs());
    println!("{} passed, {} failed", totals.passed, totals.failed);
    if broken.is_empty() {
        Ok(())
    } else {
        bail!("failed: {}", broken.join(", "))
    }
}

/// Runs a line, shows what it prints and counts the tests in it. True when it succeeded.
fn run(line: &str, chromium: &str, totals: &mut Totals) -> Result<bool> {
    let mut words = line.split(' ');
    let program = words.next().unwrap_or_default();
    let mut child = Command::new(program)
        .args(words)
        .current_dir(concat!(env!("CARGO_MANIFEST_DIR"), "/.."))
        .env("CHROMIUM", chromium)
        // Snapshots are compared here, never written.
        .env("INSTA_UPDATE", "no")
        .env("NO_COLOR", "1")
        .env_remove("FORCE_COLOR")
        .stdout(Stdio::piped())
        .spawn()
        .with_context(|| format!("{program} cannot be started"))?;
    let output = child.stdout.take().expect("it was asked for");
    for line in BufReader::new(output).lines() {
        let line = line?;
        println!("{line}");
        let (passed, failed) = counts(&line);
        totals.passed += passed;
        totals.failed += failed;
    }
    Ok(child.wait()?.success())
}

/// Passed and failed tests in a line that closes a run of cargo test, vitest or Playwright.
fn counts(line: &str) -> (u32, u32) {
    let line = line.trim();
    let before = |word: &str| {
        let words: Vec<&str> = line
            .split([' ', ';', ',', '|', '(', ')'])
            .filter(|w| !w.is_empty())
            .collect();
        let at = words.iter().position(|w| *w == word)?;
        words.get(at.checked_sub(1)?)?.parse::<u32>().ok()
    };
    let words = line.split_whitespace().count();
    let playwright = words <= 3 && line.starts_with(|c: char| c.is_ascii_digit());
    if line.starts_with("test result:") || line.starts_with("Tests ") || playwright {
        (before("passed").unwrap_or(0), before("failed").unwrap_or(0))
    } else {
        (0, 0)
    }
}

#[cfg(test)]
mod tests {
    use super::counts;

    #[test]
    fn closing_lines_of_the_runners_are_counted() {
        assert_eq!(
            counts("test result: FAILED. 7 passed; 2 failed; 0 ignored;"),
            (7, 2)
        );
        assert_eq!(counts("      Tests  1 failed | 4 passed (5)"), (4, 1));
        assert_eq!(counts("  23 passed (1.3m)"), (23, 0));
        assert_eq!(counts("  2 failed"), (0, 2));
        assert_eq!(counts("test it_passed ... ok"), (0, 0));
        assert_eq!(counts("5 passed, 0 failed in all, said the log"), (0, 0));
    }
}
