//! Serves the application, and does its sums on the command line.
//!
//! All but the embedded front end, which the binary brings: so this can be compiled while the front
//! end is being built.

mod api;
mod body;
mod calendar;
mod changes;
mod cli;
mod connections;
mod effort;
mod guard;
mod logs;
mod pages;
mod photos;
mod problem;
mod serve;

use clap::Parser;

pub use pages::{FrontEnd, Page};

/// Does what the command line asks, with this front end.
pub fn run(front_end: FrontEnd) -> std::process::ExitCode {
    let arguments = cli::Arguments::parse();
    match cli::run(arguments, front_end) {
        Ok(()) => std::process::ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("faint-sunrise: {error:#}");
            std::process::ExitCode::FAILURE
        }
    }
}
