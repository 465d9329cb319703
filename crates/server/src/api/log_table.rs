//! The log as a table: out, and in again with what is wrong row by row.

use axum::Json;
use axum::extract::State;
use axum::http::header;
use axum::response::{IntoResponse, Response};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sunrise_core::ask;
use sunrise_core::basis::fault::Fault;
use sunrise_core::basis::words::say;
use sunrise_store::Kept;
use utoipa::ToSchema;

use super::App;
use super::address::PlanId;
use super::log::{Come, kept, smaller};
use crate::body;
use crate::problem::Problem;

/// A plan's log as CSV (RFC 4180), in the order in which things happened; what was corrected is as corrected
#[utoipa::path(
    get,
    path = "/api/plans/{id}/log.csv",
    params(("id" = i64, Path, description = "The plan's number")),
    responses(
        (status = 200, description = "A table with a heading", body = String, content_type = "text/csv"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn log_table(State(app): State<App>, PlanId(id): PlanId) -> Result<Response, Problem> {
    let log = app.log(id).await?;
    let write = move || Ok(ask::written_log(log.told.all()));
    let table = app.effort.compute(smaller(), write).await?;
    let headers = [
        (header::CONTENT_TYPE, "text/csv; charset=utf-8"),
        (
            header::CONTENT_DISPOSITION,
            "attachment; filename=\"faint-sunrise-log.csv\"",
        ),
        (header::CACHE_CONTROL, "no-cache"),
    ];
    Ok((headers, table).into_response())
}

/// A table of entries.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LogTable {
    /// The text of the CSV file.
    text: String,
    /// Whether sound rows are kept where others are at fault; none is when left out.
    #[serde(default)]
    keep_sound: bool,
}

/// What became of a table.
#[derive(Debug, Serialize, ToSchema)]
pub struct TableRead {
    /// Rows that were added to the log.
    added: u32,
    /// Rows that the log had already.
    before: u32,
    /// What is wrong, row by row; where there is anything and sound rows were not asked for, nothing was added.
    problems: Vec<LogRowProblem>,
}

/// What is wrong with a row.
#[derive(Debug, Serialize, ToSchema)]
pub struct LogRowProblem {
    /// The row, the heading being 1.
    row: u64,
    /// What is wrong with it.
    faults: Vec<Fault>,
}

/// Read a table of entries into a plan's log; what is there already is not added again
#[utoipa::path(
    post,
    path = "/api/plans/{id}/log/table",
    params(("id" = i64, Path, description = "The plan's number")),
    request_body = LogTable,
    responses(
        (status = 200, body = TableRead),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn read_log_table(
    State(app): State<App>,
    PlanId(id): PlanId,
    body::Json(LogTable { text, keep_sound }): body::Json<LogTable>,
) -> Result<Json<TableRead>, Problem> {
    let read = move || ask::read_log(&text, row_id).map_err(Problem::unfit);
    let rows = app.effort.compute(smaller(), read).await?;
    let mut problems = Vec::new();
    let (mut numbers, mut entries) = (Vec::new(), Vec::new());
    for row in rows {
        match row.entry {
            Ok(entry) => {
                numbers.push(row.number);
                entries.push(entry);
            }
            Err(faults) => problems.push(LogRowProblem {
                row: row.number,
                faults,
            }),
        }
    }
    let mut read = TableRead {
        added: 0,
        before: 0,
        problems: Vec::new(),
    };
    if !entries.is_empty() && (keep_sound || problems.is_empty()) {
        let noted = kept(&app, id, entries, Come::InATable { keep_sound }).await?;
        for (row, noted) in numbers.into_iter().zip(noted.entries) {
            match noted.kept {
                Some(Kept::New) => read.added += 1,
                Some(Kept::Before) => read.before += 1,
                Some(Kept::Taken) => problems.push(LogRowProblem {
                    row,
                    faults: vec![taken(&noted.id)],
                }),
                None if noted.faults.is_empty() => {}
                None => problems.push(LogRowProblem {
                    row,
                    faults: noted.faults,
                }),
            }
        }
    }
    problems.sort_by_key(|problem| problem.row);
    problems.truncate(MOST_PROBLEMS);
    read.problems = problems;
    Ok(Json(read))
}

/// So many rows at fault are named.
const MOST_PROBLEMS: usize = 100;

fn taken(id: &str) -> Fault {
    Fault {
        path: "/id".into(),
        value: id.into(),
        problem: say!("the log has another entry of this name"),
        remedy: say!("leave the id out, or correct that entry by a further one"),
    }
}

/// A name for a row without one: the same for the same row of the same file.
fn row_id(row: &str, nth: usize) -> String {
    let digest = Sha256::digest(format!("{nth}:{row}"));
    let hex: String = digest
        .iter()
        .take(14)
        .map(|byte| format!("{byte:02x}"))
        .collect();
    format!("csv-{hex}")
}
