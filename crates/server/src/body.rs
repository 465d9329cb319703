//! JSON from outside, read so that whatever is wrong with it is named by its path.

use std::time::Duration;

use axum::extract::{FromRequest, Request};
use axum::http::{StatusCode, header};
use http_body_util::BodyExt;
use serde::de::DeserializeOwned;
use serde_json::Value;
use serde_path_to_error::Segment;
use sunrise_core::ask::upgraded;
use sunrise_core::basis::fault::{Fault, Pointer, echoed, shortened};
use sunrise_core::basis::units::Quantity;
use sunrise_core::basis::words::say;

use crate::problem::Problem;

/// The largest request body that is read: a plan of 2000 trays takes a fifth of it.
pub const MOST_BYTES: usize = 4 << 20;
/// Larger ones are parsed off the threads that serve requests.
const SMALL_BYTES: usize = 32 << 10;
/// How long a body may take to come.
const LONGEST_BODY: Duration = Duration::from_secs(30);
/// How much of a larger body is drained, so that its sender gets to read the refusal.
const MOST_DRAINED: usize = 256 << 20;

/// A JSON body of type `T`.
#[derive(Debug)]
pub struct Json<T>(pub T);

/// Why bytes are no `T`.
#[derive(Debug)]
pub struct Refusal {
    /// 400 when it is not JSON at all, 422 when it is JSON of another form.
    pub status: StatusCode,
    /// What is wrong, where.
    pub fault: Fault,
}

/// Reads `bytes` as a `T`.
///
/// # Errors
/// The first thing that is wrong, with its path, what stands there and what would be right.
pub fn parse<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, Box<Refusal>> {
    // Nearly all of what comes is sound and of today's form. Paths are tracked for the rest alone:
    // that takes several times as long.
    serde_json::from_slice(bytes).or_else(|_| parse_slowly(bytes))
}

fn parse_slowly<T: DeserializeOwned>(bytes: &[u8]) -> Result<T, Box<Refusal>> {
    let mut reader = serde_json::Deserializer::from_slice(bytes);
    let value: Value = serde_path_to_error::deserialize(&mut reader)
        .and_then(|value| match reader.end() {
            Ok(()) => Ok(value),
            Err(trailing) => Err(serde_path_to_error::Error::new(
                serde_path_to_error::Track::new().path(),
                trailing,
            )),
        })
        .map_err(|error| not_json(bytes, &error))?;
    let value = of_today(value);
    serde_path_to_error::deserialize(&value).map_err(|error| {
        let path = pointer(error.path()).to_string();
        let found = value.pointer(&path).cloned();
        Box::new(Refusal {
            status: StatusCode::UNPROCESSABLE_ENTITY,
            fault: Fault {
                path: shortened(&path),
                value: echoed(found.unwrap_or(Value::Null)),
                problem: say!("{what}", what = shortened(&error.inner().to_string())),
                remedy: say!(
                    "the fields and their kinds are described at /api/openapi.json, or by `faint-sunrise openapi`"
                ),
            },
        })
    })
}

/// A plan of an earlier version, by itself or within a request, in today's form.
fn of_today(mut value: Value) -> Value {
    if let Some(plan) = value.get_mut("plan") {
        *plan = upgraded(plan.take());
    }
    upgraded(value)
}

fn not_json(bytes: &[u8], error: &serde_path_to_error::Error<serde_json::Error>) -> Box<Refusal> {
    let (line, column) = (error.inner().line(), error.inner().column());
    let found = word_at(bytes, line, column);
    let number = ["NaN", "nan", "Infinity", "inf", "-Infinity", "+"]
        .iter()
        .any(|word| found.starts_with(word))
        || error.inner().to_string().contains("out of range");
    Box::new(Refusal {
        status: StatusCode::BAD_REQUEST,
        fault: Fault {
            path: pointer(error.path()).to_string(),
            value: found.into(),
            problem: say!("{what}", what = shortened(&error.inner().to_string())),
            remedy: if number {
                say!("give a finite number, such as 36 or 0.5")
            } else {
                say!("send JSON (RFC 8259)")
            },
        },
    })
}

fn pointer(path: &serde_path_to_error::Path) -> Pointer {
    path.iter()
        .fold(Pointer::default(), |at, segment| match segment {
            Segment::Seq { index } => at.at(index),
            Segment::Map { key } | Segment::Enum { variant: key } => at.at(key),
            Segment::Unknown => at,
        })
}

/// The word that begins at or before a column, as far as it helps to find it again.
fn word_at(bytes: &[u8], line: usize, column: usize) -> String {
    let text = bytes.split(|&b| b == b'\n').nth(line.saturating_sub(1));
    let text = text.unwrap_or_default();
    let part_of_word = |b: &u8| b.is_ascii_alphanumeric() || b"+-.".contains(b);
    let column = column.saturating_sub(1).min(text.len());
    let start = text[..column]
        .iter()
        .rposition(|b| !part_of_word(b))
        .map_or(0, |i| i + 1);
    let word: Vec<u8> = text[start..]
        .iter()
        .copied()
        .take_while(part_of_word)
        .take(40)
        .collect();
    String::from_utf8_lossy(&word).into_owned()
}

impl<T: DeserializeOwned + Send + 'static, S: Send + Sync> FromRequest<S> for Json<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, _: &S) -> Result<Self, Problem> {
        let kind = request.headers().get(header::CONTENT_TYPE);
        let kind = kind.and_then(|kind| kind.to_str().ok()).unwrap_or_default();
        let essence = kind.split(';').next().unwrap_or_default().trim();
        if !essence.eq_ignore_ascii_case("application/json") {
            return Err(Problem::fault(
                StatusCode::UNSUPPORTED_MEDIA_TYPE,
                Fault {
                    path: String::new(),
                    value: shortened(kind).into(),
                    problem: say!(
                        "a body of type \"{kind}\" is not read",
                        kind = shortened(kind)
                    ),
                    remedy: say!("send Content-Type: application/json"),
                },
            ));
        }
        let bytes = read(request, MOST_BYTES).await?;
        let parsed = if bytes.len() > SMALL_BYTES {
            let parsing = tokio::task::spawn_blocking(move || parse(&bytes));
            parsing.await.map_err(|error| Problem::internal(&error))?
        } else {
            parse(&bytes)
        };
        parsed
            .map(Json)
            .map_err(|refusal| Problem::fault(refusal.status, refusal.fault))
    }
}

/// A body of plain text, in whatever alphabet: what matters in it is ASCII.
#[derive(Debug)]
pub struct Text(pub String);

impl<S: Send + Sync> FromRequest<S> for Text {
    type Rejection = Problem;

    async fn from_request(request: Request, _: &S) -> Result<Self, Problem> {
        let bytes = read(request, MOST_BYTES).await?;
        Ok(Self(String::from_utf8_lossy(&bytes).into_owned()))
    }
}

/// Reads a body whole, of `most` bytes.
///
/// # Errors
/// That it is larger, breaks off or takes too long.
pub async fn read(request: Request, most: usize) -> Result<Vec<u8>, Problem> {
    match tokio::time::timeout(LONGEST_BODY, read_on(request, most)).await {
        Ok(read) => read,
        Err(_) => Err(Problem::fault(
            StatusCode::REQUEST_TIMEOUT,
            Fault {
                path: String::new(),
                value: Value::Null,
                problem: say!(
                    "the body did not come within {seconds} s",
                    seconds = Quantity::Count.of(LONGEST_BODY.as_secs_f64())
                ),
                remedy: say!("send it again, in one go"),
            },
        )),
    }
}

async fn read_on(request: Request, most: usize) -> Result<Vec<u8>, Problem> {
    let mut body = request.into_body();
    let mut bytes = Vec::new();
    let mut seen = 0;
    while let Some(frame) = body.frame().await {
        let frame = frame.map_err(|error| {
            Problem::fault(
                StatusCode::BAD_REQUEST,
                Fault {
                    path: String::new(),
                    value: Value::Null,
                    problem: say!("the body broke off: {why}", why = error.to_string()),
                    remedy: say!("send it again, whole"),
                },
            )
        })?;
        let Some(data) = frame.data_ref() else {
            continue;
        };
        seen += data.len();
        if seen <= most {
            bytes.extend_from_slice(data);
        } else {
            bytes = Vec::new();
            if seen > MOST_DRAINED {
                break;
            }
        }
    }
    if seen > most {
        return Err(Problem::fault(
            StatusCode::PAYLOAD_TOO_LARGE,
            Fault {
                path: String::new(),
                value: seen.into(),
                problem: say!(
                    "a body of {bytes} bytes is too large",
                    bytes = Quantity::Count.of(seen as f64)
                ),
                remedy: say!(
                    "send {most} bytes at the most",
                    most = Quantity::Count.of(most as f64)
                ),
            },
        ));
    }
    Ok(bytes)
}

#[cfg(test)]
mod tests {
    use super::*;
    use sunrise_core::ask::Plan;

    fn refusal(change: impl FnOnce(String) -> String) -> Refusal {
        let demo = include_str!("../../../demo/kettle-fen.json");
        *parse::<Plan>(change(demo.into()).as_bytes()).expect_err("the plan is broken")
    }

    #[test]
    fn a_number_that_is_none_is_named_where_it_stands() {
        let refusal = refusal(|plan| plan.replacen("\"watts\": 64", "\"watts\": NaN", 1));
        assert_eq!(refusal.status, StatusCode::BAD_REQUEST);
        assert_eq!(refusal.fault.path, "/places/0/tiers/0/lamps/0/watts");
        assert_eq!(refusal.fault.value, "NaN");
    }

    #[test]
    fn a_wrong_kind_is_named_with_what_stands_there() {
        let refusal = refusal(|plan| plan.replacen("\"watts\": 64", "\"watts\": \"much\"", 1));
        assert_eq!(refusal.status, StatusCode::UNPROCESSABLE_ENTITY);
        assert_eq!(refusal.fault.path, "/places/0/tiers/0/lamps/0/watts");
        assert_eq!(refusal.fault.value, "much");
    }

    #[test]
    fn trailing_text_and_truncation_are_refused() {
        assert_eq!(refusal(|plan| plan + "x").status, StatusCode::BAD_REQUEST);
        let cut = refusal(|plan| plan[..plan.len() / 2].into());
        assert_eq!(cut.status, StatusCode::BAD_REQUEST);
    }
}
