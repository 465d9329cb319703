//! How much work a request may cause: so long, so large an answer, so many at once. A computation
//! stops when its time is up, and when nobody waits for it any more.

use std::io::{self, Write};
use std::sync::Arc;
use std::time::Duration;

use axum::body::Bytes;
use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use serde_json::Value;
use sunrise_core::basis::fault::Fault;
use sunrise_core::basis::units::Quantity;
use sunrise_core::basis::words::{Statement, say};
use sunrise_core::basis::work::{Stopped, Work, go_on};
use tokio::sync::Semaphore;

use crate::problem::Problem;

/// The longest that one answer may take to work out, unless the command line says otherwise.
pub const LONGEST: Duration = Duration::from_millis(1800);
/// How long a request waits for its turn.
const LONGEST_WAIT: Duration = Duration::from_secs(10);
/// The largest answer: a hundred times what a screen asks for.
const MOST_BYTES: usize = 12 << 20;

/// Turns at computing: as many at once as there are processors.
#[derive(Clone)]
pub struct Effort {
    longest: Duration,
    turns: Arc<Semaphore>,
}

/// Stops a computation when whoever waits for it is dropped: when the asker hangs up, hyper drops
/// the handler.
struct StopsWithMe(Work);

impl Drop for StopsWithMe {
    fn drop(&mut self) {
        self.0.stop();
    }
}

impl Effort {
    pub fn new(longest: Duration) -> Self {
        let turns = std::thread::available_parallelism().map_or(2, |n| n.get().max(2));
        Self {
            longest,
            turns: Arc::new(Semaphore::new(turns)),
        }
    }

    /// The same turns for answers that may take longer.
    pub fn lasting(&self, longest: Duration) -> Self {
        Self {
            longest: self.longest.max(longest),
            turns: self.turns.clone(),
        }
    }

    /// Runs `compute` off the threads that serve requests, within the limits. `instead` says what
    /// to ask for when it is too much.
    ///
    /// # Errors
    /// Its own problem; that it takes too long; or that the server is busy with others.
    pub async fn compute<T: Send + 'static>(
        &self,
        instead: Statement,
        compute: impl FnOnce() -> Result<T, Problem> + Send + 'static,
    ) -> Result<T, Problem> {
        let turn = tokio::time::timeout(LONGEST_WAIT, self.turns.clone().acquire_owned()).await;
        let Ok(Ok(turn)) = turn else {
            return Err(busy());
        };
        let stops = StopsWithMe(Work::default());
        let work = stops.0.clone();
        let computing = tokio::task::spawn_blocking(move || {
            let _turn = turn;
            work.run(compute)
        });
        match tokio::time::timeout(self.longest, computing).await {
            Ok(Ok(Ok(outcome))) => outcome,
            // It panicked: the others go on.
            Ok(Err(error)) => Err(Problem::internal(&error)),
            Ok(Ok(Err(Stopped))) | Err(_) => Err(self.too_long(instead)),
        }
    }

    /// The same for what is answered as JSON.
    pub async fn answer<T: Serialize>(
        &self,
        instead: Statement,
        compute: impl FnOnce() -> Result<T, Problem> + Send + 'static,
    ) -> Result<Reply, Problem> {
        let else_ask = instead.clone();
        self.compute(instead, move || Reply::of(&compute()?, else_ask))
            .await
    }

    fn too_long(&self, instead: Statement) -> Problem {
        let seconds = self.longest.as_secs_f64();
        Problem::fault(
            StatusCode::UNPROCESSABLE_ENTITY,
            Fault {
                path: String::new(),
                value: Value::Null,
                problem: say!(
                    "this takes longer to work out than the {seconds} s that one answer may take",
                    seconds = Quantity::Plain.of(seconds)
                ),
                remedy: instead,
            },
        )
    }
}

fn busy() -> Problem {
    Problem::fault(
        StatusCode::SERVICE_UNAVAILABLE,
        Fault {
            path: String::new(),
            value: Value::Null,
            problem: say!("the server is busy with other requests"),
            remedy: say!("ask again in a few seconds"),
        },
    )
}

/// A JSON answer, written out already.
pub struct Reply {
    status: StatusCode,
    json: Bytes,
}

impl Reply {
    /// Writes `value` out.
    ///
    /// # Errors
    /// When it is larger than an answer may be.
    pub fn of(value: &impl Serialize, instead: Statement) -> Result<Self, Problem> {
        let mut bounded = Bounded(Vec::new());
        match serde_json::to_writer(&mut bounded, value) {
            Ok(()) => Ok(Self {
                status: StatusCode::OK,
                json: bounded.0.into(),
            }),
            Err(error) if error.is_io() => Err(Problem::fault(
                StatusCode::UNPROCESSABLE_ENTITY,
                Fault {
                    path: String::new(),
                    value: Value::Null,
                    problem: say!(
                        "the answer would be larger than the {most} bytes that one may have",
                        most = Quantity::Count.of(MOST_BYTES as f64)
                    ),
                    remedy: instead,
                },
            )),
            Err(error) => Err(Problem::internal(&error)),
        }
    }

    /// With another status than 200.
    pub fn with(self, status: StatusCode) -> Self {
        Self { status, ..self }
    }
}

impl IntoResponse for Reply {
    fn into_response(self) -> Response {
        let kind = HeaderValue::from_static("application/json");
        (self.status, [(header::CONTENT_TYPE, kind)], self.json).into_response()
    }
}

/// Bytes up to [`MOST_BYTES`].
struct Bounded(Vec<u8>);

impl Write for Bounded {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        if self.0.len() + bytes.len() > MOST_BYTES {
            return Err(io::Error::other("too large"));
        }
        const NOW_AND_THEN: usize = 1 << 16;
        if self.0.len() / NOW_AND_THEN != (self.0.len() + bytes.len()) / NOW_AND_THEN {
            go_on();
        }
        self.0.extend_from_slice(bytes);
        Ok(bytes.len())
    }

    fn flush(&mut self) -> io::Result<()> {
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn effort(ms: u64) -> Effort {
        Effort::new(Duration::from_millis(ms))
    }

    #[tokio::test]
    async fn what_takes_too_long_is_stopped_and_says_what_to_ask_instead() {
        let (told, stopped) = std::sync::mpsc::channel();
        let endless = move || -> Result<(), Problem> {
            struct Tells(std::sync::mpsc::Sender<()>);
            impl Drop for Tells {
                fn drop(&mut self) {
                    let _ = self.0.send(());
                }
            }
            let _tells = Tells(told);
            loop {
                go_on();
            }
        };
        let outcome = effort(50).compute(say!("ask for less"), endless).await;
        let problem = outcome.expect_err("it never ends");
        assert_eq!(problem.status, 422);
        assert_eq!(problem.faults[0].remedy.to_string(), "ask for less");
        // And it is not computed any further.
        let waited = stopped.recv_timeout(Duration::from_secs(5));
        waited.expect("the computation was stopped");
    }

    #[tokio::test]
    async fn what_nobody_waits_for_is_stopped() {
        let (told, stopped) = std::sync::mpsc::channel();
        let effort = effort(60_000);
        let asked = effort.compute(say!("ask for less"), move || -> Result<(), Problem> {
            let _ = told.send(());
            loop {
                go_on();
            }
        });
        let gone = tokio::time::timeout(Duration::from_millis(50), asked).await;
        assert!(gone.is_err());
        // Its sender is dropped as its stack unwinds.
        let mut messages = 0;
        while stopped.recv_timeout(Duration::from_secs(5)).is_ok() {
            messages += 1;
        }
        assert!(messages <= 1);
    }

    #[tokio::test]
    async fn a_panic_ends_one_answer_alone() {
        // Writing out where it panicked may take its time.
        let effort = effort(60_000);
        let broken = effort.compute(say!("ask for less"), || -> Result<(), Problem> {
            panic!("a fault of ours")
        });
        assert_eq!(broken.await.expect_err("it panicked").status, 500);
        let next = effort.compute(say!("ask for less"), || Ok(7));
        assert_eq!(next.await.expect("others go on"), 7);
    }

    #[test]
    fn an_answer_has_an_end() {
        let large = vec![0u64; MOST_BYTES];
        let problem = Reply::of(&large, say!("ask for less")).map(|_| ());
        assert_eq!(problem.expect_err("it is too large").status, 422);
    }
}
