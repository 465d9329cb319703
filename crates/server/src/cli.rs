//! The command line.

use std::io::{BufWriter, IsTerminal, Read, Write};
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::time::Duration;

use anyhow::{Context, Result, bail};
use clap::{Parser, Subcommand};
use jiff::civil::Date;
use serde::Serialize;
use serde::de::DeserializeOwned;
use sunrise_core::ask::calc::{
    Ask, ChamberSetUp, DegreeUnit, EnclosedAir, LoadSetUp, Progress, RootZone, Scene, Sown,
    Understanding, Want, WindowAsk,
};
use sunrise_core::ask::{self, DateSpan, Detail, Fields, Lately, Plan, opening_day};
use sunrise_core::basis::fault::Fault;

use crate::api::Cases;
use crate::pages::FrontEnd;
use crate::{api, body, effort, pages, serve};

/// Plans light, warmth, space and time for seedlings raised indoors.
#[derive(Debug, Parser)]
#[command(version, about)]
pub struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the application to a browser
    Serve {
        /// Begin with the Kettle Fen demo when there is no plan yet
        #[arg(long)]
        demo: bool,
        /// Folder that keeps the plans [default: faint-sunrise in the user's data folder]
        #[arg(long, value_name = "DIR", env = "FAINT_SUNRISE_DATA")]
        data: Option<PathBuf>,
        /// Address and port to listen on
        #[arg(long, value_name = "ADDR", default_value = "127.0.0.1:7420")]
        listen: SocketAddr,
        /// Longest time that one answer may take to work out; a slow machine may want more
        #[arg(long, value_name = "SECONDS", default_value_t = effort::LONGEST.as_secs_f64(), value_parser = seconds)]
        longest: f64,
    },
    /// Print a plan's whole assessment as JSON
    Assess {
        /// The plan, as exported; - reads standard input
        file: PathBuf,
        /// First day to look at the room on [default: the day on which it is fullest]
        #[arg(long, value_name = "DATE")]
        from: Option<Date>,
        /// Last day to look at the room on [default: the first]
        #[arg(long, value_name = "DATE")]
        to: Option<Date>,
    },
    /// Reckon with one model alone: JSON from standard input, JSON to standard output; a list of
    /// cases gives a list of answers
    Calc {
        #[command(subcommand)]
        model: Model,
    },
    /// Print the OpenAPI document of the HTTP interface
    Openapi,
}

#[derive(Debug, Subcommand)]
enum Model {
    /// Light on a grid of points in a bay
    Light,
    /// The most trays on a deck, and where they lie
    Packing,
    /// A luminaire from its photometric file (IES LM-63 or EULUMDAT) on standard input
    Photometry,
    /// When seedlings show, and how many
    Emergence,
    /// The root zone of a tray through the day
    RootZone,
    /// A germination chamber through the day
    Chamber,
    /// Air under glass, film or a roof through the day
    EnclosedAir,
    /// How many cells and seeds to sow for the plants wanted
    Seeds,
    /// The load of a day by the hour on circuits, strips, timers and chains
    Load,
    /// The cheapest hours for lamps on a day
    Timer,
    /// Where trays stand through their stages, and how little must stand nowhere
    Placement,
    /// Last and first frosts from daily minima (CSV or EPW) on standard input
    Frost {
        /// Latitude in degrees, north positive
        #[arg(long, default_value_t = 50.0, allow_negative_numbers = true)]
        latitude: f64,
        /// The minima are in °F
        #[arg(long)]
        fahrenheit: bool,
        /// A day at or below this is one of frost, in °C
        #[arg(long, default_value_t = 0.0, allow_negative_numbers = true)]
        threshold: f64,
        /// The year to give dates in
        #[arg(long, default_value_t = 2027)]
        year: i16,
    },
}

/// Does what the command line asks.
///
/// # Errors
/// A sentence for the user.
pub fn run(arguments: Arguments, front_end: FrontEnd) -> Result<()> {
    match arguments.command {
        Command::Serve {
            demo,
            data,
            listen,
            longest,
        } => {
            let data = data.map_or_else(default_data_folder, Ok)?;
            pages::show(front_end);
            serve::run(&data, listen, demo, Duration::from_secs_f64(longest))
        }
        Command::Assess { file, from, to } => assess(&file, from, to),
        Command::Calc { model } => calculate(&model),
        Command::Openapi => print_json(&api::document()),
    }
}

fn calculate(model: &Model) -> Result<()> {
    match model {
        Model::Light => answer(Scene::light),
        Model::Packing => answer(Ask::lay),
        Model::Emergence => answer(Sown::outcome),
        Model::RootZone => answer(RootZone::day),
        Model::Chamber => answer(ChamberSetUp::day),
        Model::EnclosedAir => answer(EnclosedAir::day),
        Model::Seeds => answer(Want::to_sow),
        Model::Load => answer(LoadSetUp::day),
        Model::Timer => answer(WindowAsk::windows),
        Model::Placement => answer(|instance| ask::calc::place(instance, &mut tell_on_terminal)),
        Model::Frost {
            latitude,
            fahrenheit,
            threshold,
            year,
        } => {
            let bytes = read_bytes(Path::new("-"))?;
            let how = Understanding {
                latitude_deg: *latitude,
                unit: if *fahrenheit {
                    DegreeUnit::F
                } else {
                    DegreeUnit::C
                },
                threshold_c: *threshold,
                year: *year,
                ..Understanding::default()
            };
            let preview = ask::calc::read_minima(&String::from_utf8_lossy(&bytes), &how);
            print_json(&preview.map_err(say_all)?)
        }
        Model::Photometry => {
            let text = read_bytes(Path::new("-"))?;
            let text = String::from_utf8_lossy(&text);
            print_json(&ask::calc::read_luminaire(&text).map_err(|fault| say_all(vec![fault]))?)
        }
    }
}

/// Says on standard error how far placing is, where somebody reads that.
fn tell_on_terminal(progress: Progress) -> bool {
    if std::io::stderr().is_terminal() {
        eprint!(
            "\r{:3.0} %: unplaced {} (no less than {}), cost {}   ",
            100.0 * progress.done,
            progress.unplaced,
            progress.unplaced_bound,
            progress.cost
        );
    }
    true
}

/// Reads a question, has it reckoned and prints the answer.
fn answer<Q: DeserializeOwned, A: Serialize>(
    reckon: impl Fn(&Q) -> Result<A, Vec<Fault>>,
) -> Result<()> {
    let questions: Cases<Q> = read_json(Path::new("-"))?;
    print_json(&questions.answer(reckon).map_err(say_all)?)
}

fn assess(file: &Path, from: Option<Date>, to: Option<Date>) -> Result<()> {
    let plan: Plan = read_json(file)?;
    let plan = plan.check().map_err(say_all)?;
    let (fields, lately) = (Fields::default(), Lately::default());
    // Long before any season: the fullest day, whatever day it is today.
    let from = from.unwrap_or_else(|| opening_day(&plan, Date::MIN, &fields, &lately));
    let days = DateSpan {
        from,
        to: to.unwrap_or(from),
    };
    // A month in full, or a whole season without its trays.
    let detail = match api::check_days(days, &Detail::All) {
        Ok(()) => Detail::All,
        Err(_) => Detail::Days,
    };
    api::check_days(days, &detail).map_err(say_all)?;
    print_json(&ask::assess_lately(&plan, days, detail, &fields, &lately))
}

/// A time limit: long enough for any screen, short enough to end.
fn seconds(text: &str) -> Result<f64, String> {
    let seconds = text.parse().ok().filter(|s| (0.2..=600.0).contains(s));
    seconds.ok_or_else(|| "give a number of seconds from 0.2 to 600".to_owned())
}

fn default_data_folder() -> Result<PathBuf> {
    let base = std::env::var_os("XDG_DATA_HOME")
        .map(PathBuf::from)
        .or_else(|| Some(PathBuf::from(std::env::var_os("HOME")?).join(".local/share")))
        .context("no home folder is set: say where to keep the plans with --data DIR")?;
    Ok(base.join("faint-sunrise"))
}

fn read_bytes(file: &Path) -> Result<Vec<u8>> {
    let mut bytes = Vec::new();
    if file == Path::new("-") {
        std::io::stdin()
            .read_to_end(&mut bytes)
            .context("standard input cannot be read")?;
    } else {
        bytes =
            std::fs::read(file).with_context(|| format!("{} cannot be read", file.display()))?;
    }
    Ok(bytes)
}

fn read_json<T: DeserializeOwned>(file: &Path) -> Result<T> {
    body::parse(&read_bytes(file)?).map_err(|refusal| say_all(vec![refusal.fault]))
}

fn say_all(faults: Vec<Fault>) -> anyhow::Error {
    let lines: Vec<String> = faults.iter().map(ToString::to_string).collect();
    anyhow::anyhow!("this input cannot be used\n  {}", lines.join("\n  "))
}

fn print_json(value: &impl Serialize) -> Result<()> {
    let mut out = BufWriter::with_capacity(1 << 16, std::io::stdout().lock());
    let written = serde_json::to_writer_pretty(&mut out, value).map_err(std::io::Error::from);
    match written
        .and_then(|()| writeln!(out))
        .and_then(|()| out.flush())
    {
        // `| head` closes the pipe; that is no failure of ours.
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => bail!(error),
        _ => Ok(()),
    }
}
