//! `cargo xtask bench`: the budgets of docs/ARCHITECTURE.md beside what is measured here.

use anyhow::{Context, Result};
use xshell::{Shell, cmd};

use crate::setup;

pub fn run(sh: &Shell) -> Result<()> {
    setup::node_packages(sh)?;
    setup::front_end(sh)?;
    let chromium = setup::chromium(sh)?;
    cmd!(sh, "cargo build --release -p faint-sunrise").run()?;
    let core = cmd!(sh, "cargo bench --quiet -p sunrise-core --bench budgets").read()?;
    println!("{core}");
    let app = cmd!(sh, "npm run --silent bench --workspace e2e")
        .env("CHROMIUM", chromium)
        .env(
            "FAINT_SUNRISE",
            sh.current_dir().join("target/release/faint-sunrise"),
        )
        .read()?;
    // One JSON object a line from each of the browser's benchmarks.
    let app: String = app.lines().filter(|line| line.starts_with('{')).collect();
    let field = |name: &str| -> Result<f64> {
        let (_, rest) = app
            .split_once(&format!("\"{name}\":"))
            .with_context(|| format!("the browser's benchmark did not measure {name}"))?;
        let end = rest.find([',', '}']).unwrap_or(rest.len());
        Ok(rest[..end].parse()?)
    };
    let ms = |name| field(name).map(|value| format!("{value:.0} ms"));
    let kb = |name| field(name).map(|value| format!("{value:.0} kB"));
    let mb = |name| field(name).map(|value| format!("{value:.0} MB"));
    let fps = |name: &str| -> Result<String> {
        let mean = field(&format!("{name}_fps"))?;
        let slow = field(&format!("{name}_slow_fps"))?;
        Ok(format!("{mean:.0}, slowest twentieth {slow:.0}"))
    };

    let rows = [
        (
            "light field of one bay, 6 lamps, reflective on all sides, 40 x 20 points",
            "5 ms",
            median(&core, "light_field")?,
        ),
        (
            "the same for 40 heights of the lamps",
            "60 ms",
            median(&core, "light_sweep")?,
        ),
        (
            "assess the demo on one day (39 trays), nothing remembered",
            "-",
            median(&core, "assess_day")?,
        ),
        (
            "the same while a lamp is dragged, the rest remembered",
            "-",
            median(&core, "assess_drag")?,
        ),
        (
            "assess the demo on each of its 152 days (39 trays)",
            "30 ms for 60 trays, 120 days",
            median(&core, "assess_season")?,
        ),
        (
            "the same again, each time with a lamp hung otherwise",
            "30 ms",
            median(&core, "assess_season_again")?,
        ),
        (
            "assess 600 trays in 12 racks on each of 200 days, from nothing",
            "1 s",
            median(&core, "large_season")?,
        ),
        (
            "one day of it again, each time with a lamp hung otherwise",
            "50 ms",
            median(&core, "large_day")?,
        ),
        (
            "its days one after the other",
            "50 ms",
            median(&core, "large_scrub")?,
        ),
        (
            "place 610 trays on 210 positions over 200 days, from nothing",
            "5 s",
            median(&core, "place_large")?,
        ),
        (
            "place them again after a small edit",
            "300 ms",
            median(&core, "large_again")?,
        ),
        (
            "root zones by the hour of 60 trays over 120 days",
            "100 ms",
            median(&core, "warmth_season")?,
        ),
        (
            "a foil bay with 4 lamps measured by IES files, nothing remembered",
            "3 x the next row",
            median(&core, "measured_bay")?,
        ),
        (
            "the same with 4 plain lamps",
            "-",
            median(&core, "plain_bay")?,
        ),
        (
            "drag a lamp: input to new figures on screen, median",
            "100 ms",
            ms("drag_ms")?,
        ),
        (
            "the same, the worst of 40 moves",
            "100 ms",
            ms("drag_worst_ms")?,
        ),
        (
            "12 racks, 240 trays: frames a second while the room is panned",
            "50",
            fps("pan")?,
        ),
        ("the same, while it is zoomed", "50", fps("zoom")?),
        (
            "the same, panned with the whole room in sight",
            "50",
            fps("pan_whole")?,
        ),
        ("the same, while a lamp is dragged", "50", fps("lamp")?),
        ("the same, while a deck is dragged", "50", fps("deck")?),
        (
            "12 racks, 600 trays: a lamp nudged to new figures on screen, 95 of 100",
            "150 ms",
            ms("large_nudge_p95_ms")?,
        ),
        (
            "the same, a day scrubbed",
            "150 ms",
            ms("large_scrub_p95_ms")?,
        ),
        (
            "the same, a tray stood in another bay to new figures, by the interface alone",
            "100 ms",
            ms("large_drop_ms")?,
        ),
        (
            "the same, an answer while a lamp is dragged",
            "50 kB",
            kb("large_drag_kb")?,
        ),
        (
            "start to first answered request, demo data",
            "500 ms",
            ms("start_ms")?,
        ),
        (
            "first view usable in the browser",
            "1000 ms",
            ms("first_view_ms")?,
        ),
        (
            "compressed script for it",
            "300 kB",
            format!("{:.0} kB", field("script_kb")?),
        ),
        (
            "resident memory with the demo",
            "80 MB",
            format!("{:.0} MB", field("resident_mb")?),
        ),
    ];
    let rows = rows.into_iter().chain([
        (
            "the same after five minutes of dragging",
            "80 MB",
            mb("resident_dragged_mb")?,
        ),
        (
            "the same with 600 trays",
            "200 MB",
            mb("large_resident_mb")?,
        ),
        (
            "a log of 100,000 entries: today's walk, median of 15",
            "100 ms",
            ms("log_today_ms")?,
        ),
        ("the same, the first time", "-", ms("log_first_ms")?),
        (
            "the same, a word or a crop looked for",
            "200 ms",
            ms("log_search_ms")?,
        ),
        ("the same, the life of a tray", "50 ms", ms("log_story_ms")?),
        (
            "a connection that is kept open",
            "50 kB",
            kb("connection_kb")?,
        ),
    ]);
    println!("| what | budget | measured |\n|---|---|---|");
    for (what, budget, measured) in rows {
        println!("| {what} | {budget} | {measured} |");
    }
    Ok(())
}

/// The median that divan printed for a benchmark: fastest, slowest, median, mean.
fn median(output: &str, name: &str) -> Result<String> {
    output
        .lines()
        .find(|line| line.contains(name))
        .and_then(|line| line.split('│').nth(2))
        .map(|cell| cell.trim().to_owned())
        .with_context(|| format!("no benchmark {name} was run"))
}
