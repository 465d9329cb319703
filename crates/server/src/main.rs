//! The binary `faint-sunrise`: serves the application, and does its sums on the command line.

mod api;
mod body;
mod calendar;
mod changes;
mod cli;
mod connections;
mod effort;
mod guard;
mod pages;
mod problem;
mod serve;

use clap::Parser;

fn main() -> std::process::ExitCode {
    let arguments = cli::Arguments::parse();
    match cli::run(arguments) {
        Ok(()) => std::process::ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("faint-sunrise: {error:#}");
            std::process::ExitCode::FAILURE
        }
    }
}
