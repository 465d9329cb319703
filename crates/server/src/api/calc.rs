//! Each model alone: one case, or a list of them for a list of answers.

use std::marker::PhantomData;

use axum::extract::State;
use serde::de::value::{MapAccessDeserializer, SeqAccessDeserializer};
use serde::de::{MapAccess, SeqAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize};
use sunrise_core::ask;
use sunrise_core::ask::calc::{
    Ask, ChamberDay, ChamberSetUp, DayLoad, EnclosedAir, EnclosedDay, LoadSetUp, Luminaire,
    Outcome, Packing, Preview, RootZone, RootZoneDay, Scene, SceneLight, Sown, ToSow,
    Understanding, Want, WindowAsk, Windows,
};
use sunrise_core::basis::fault::Fault;
use sunrise_core::basis::words::say;

use utoipa::ToSchema;

use super::App;
use crate::body;
use crate::effort::Reply;
use crate::problem::Problem;

/// One case, or several at once.
#[derive(Debug, Serialize, ToSchema)]
#[serde(untagged)]
pub enum Cases<T> {
    /// Cases, each answered in turn.
    Many(Vec<T>),
    /// A case.
    One(Box<T>),
}

/// One answer, or one for each case.
#[derive(Debug, Serialize, ToSchema)]
#[serde(untagged)]
pub enum Answers<T> {
    /// An answer to each case, in order.
    Many(Vec<T>),
    /// The answer.
    One(T),
}

impl<'de, T: Deserialize<'de>> Deserialize<'de> for Cases<T> {
    /// By its first sign, so that what is wrong within a case keeps its path.
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct Either<T>(PhantomData<T>);
        impl<'de, T: Deserialize<'de>> Visitor<'de> for Either<T> {
            type Value = Cases<T>;

            fn expecting(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str("a case, or a list of cases")
            }

            fn visit_map<A: MapAccess<'de>>(self, map: A) -> Result<Self::Value, A::Error> {
                let case = T::deserialize(MapAccessDeserializer::new(map))?;
                Ok(Cases::One(Box::new(case)))
            }

            fn visit_seq<A: SeqAccess<'de>>(self, list: A) -> Result<Self::Value, A::Error> {
                Vec::deserialize(SeqAccessDeserializer::new(list)).map(Cases::Many)
            }
        }
        deserializer.deserialize_any(Either(PhantomData))
    }
}

impl<T> Cases<T> {
    /// Answers each case.
    ///
    /// # Errors
    /// The faults of the first case that has any; of several cases, its path begins with its
    /// place among them.
    pub fn answer<A>(
        &self,
        reckon: impl Fn(&T) -> Result<A, Vec<Fault>>,
    ) -> Result<Answers<A>, Vec<Fault>> {
        match self {
            Self::One(case) => reckon(case).map(Answers::One),
            Self::Many(cases) => {
                let of = |(i, case)| {
                    reckon(case).map_err(|mut faults| {
                        for fault in &mut faults {
                            fault.path = format!("/{i}{}", fault.path);
                        }
                        faults
                    })
                };
                let answers: Result<Vec<A>, _> = cases.iter().enumerate().map(of).collect();
                answers.map(Answers::Many)
            }
        }
    }
}

/// Answers cases within the limits.
async fn answered<T: Send + 'static, A: Serialize>(
    app: App,
    cases: Cases<T>,
    reckon: impl Fn(&T) -> Result<A, Vec<Fault>> + Send + 'static,
) -> Result<Reply, Problem> {
    let fewer = say!("ask for fewer cases at once, or a smaller one");
    let compute = move || cases.answer(reckon).map_err(Problem::unfit);
    app.effort.answer(fewer, compute).await
}

/// Light on a grid of points in a bay
#[utoipa::path(
    post,
    path = "/api/calc/light",
    request_body = Cases<Scene>,
    responses(
        (status = 200, body = Answers<SceneLight>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn light(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<Scene>>,
) -> Result<Reply, Problem> {
    answered(app, cases, Scene::light).await
}

/// The load of a day by the hour, and what each circuit, strip, timer and chain may carry
#[utoipa::path(
    post,
    path = "/api/calc/load",
    request_body = Cases<LoadSetUp>,
    responses(
        (status = 200, body = Answers<DayLoad>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn load(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<LoadSetUp>>,
) -> Result<Reply, Problem> {
    answered(app, cases, LoadSetUp::day).await
}

/// The cheapest hours for lamps on a day, outside quiet hours and in a timer's steps
#[utoipa::path(
    post,
    path = "/api/calc/timer",
    request_body = Cases<WindowAsk>,
    responses(
        (status = 200, body = Answers<Windows>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn timer(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<WindowAsk>>,
) -> Result<Reply, Problem> {
    answered(app, cases, WindowAsk::windows).await
}

/// When seedlings show, and how many
#[utoipa::path(
    post,
    path = "/api/calc/emergence",
    request_body = Cases<Sown>,
    responses(
        (status = 200, body = Answers<Outcome>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn emergence(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<Sown>>,
) -> Result<Reply, Problem> {
    answered(app, cases, Sown::outcome).await
}

/// The root zone of a tray through the day
#[utoipa::path(
    post,
    path = "/api/calc/root-zone",
    request_body = Cases<RootZone>,
    responses(
        (status = 200, body = Answers<RootZoneDay>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn root_zone(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<RootZone>>,
) -> Result<Reply, Problem> {
    answered(app, cases, RootZone::day).await
}

/// A germination chamber through the day
#[utoipa::path(
    post,
    path = "/api/calc/chamber",
    request_body = Cases<ChamberSetUp>,
    responses(
        (status = 200, body = Answers<ChamberDay>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn chamber(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<ChamberSetUp>>,
) -> Result<Reply, Problem> {
    answered(app, cases, ChamberSetUp::day).await
}

/// Air under glass, film or a roof through the day
#[utoipa::path(
    post,
    path = "/api/calc/enclosed-air",
    request_body = Cases<EnclosedAir>,
    responses(
        (status = 200, body = Answers<EnclosedDay>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn enclosed_air(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<EnclosedAir>>,
) -> Result<Reply, Problem> {
    answered(app, cases, EnclosedAir::day).await
}

/// How many cells and seeds to sow for the plants wanted
#[utoipa::path(
    post,
    path = "/api/calc/seeds",
    request_body = Cases<Want>,
    responses(
        (status = 200, body = Answers<ToSow>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn seeds(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<Want>>,
) -> Result<Reply, Problem> {
    answered(app, cases, Want::to_sow).await
}

/// Daily minima from a file, and how to understand them.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MinimaFile {
    /// The file's text: CSV or EPW.
    text: String,
    /// How it is to be understood.
    #[serde(default)]
    how: Understanding,
}

/// Last and first frosts from daily minima: a preview; nothing of it is kept
#[utoipa::path(
    post,
    path = "/api/calc/frost",
    request_body = MinimaFile,
    responses(
        (status = 200, body = Preview),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn frost(
    State(app): State<App>,
    body::Json(file): body::Json<MinimaFile>,
) -> Result<Reply, Problem> {
    let compute = move || {
        ask::calc::read_minima(&file.text, &file.how).map_err(|mut faults| {
            for fault in &mut faults {
                fault.path = format!("/how{}", fault.path);
            }
            Problem::unfit(faults)
        })
    };
    let shorter = say!("give a shorter file: the days of your own years");
    app.effort.answer(shorter, compute).await
}

/// The most trays on a deck, and where they lie
#[utoipa::path(
    post,
    path = "/api/calc/packing",
    request_body = Cases<Ask>,
    responses(
        (status = 200, body = Answers<Packing>),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn packing(
    State(app): State<App>,
    body::Json(cases): body::Json<Cases<Ask>>,
) -> Result<Reply, Problem> {
    answered(app, cases, Ask::lay).await
}

/// A luminaire from its photometric file (IES LM-63 or EULUMDAT)
#[utoipa::path(
    post,
    path = "/api/calc/photometry",
    request_body(content = String, content_type = "text/plain"),
    responses(
        (status = 200, body = Luminaire),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn photometry(
    State(app): State<App>,
    body::Text(file): body::Text,
) -> Result<Reply, Problem> {
    let compute =
        move || ask::calc::read_luminaire(&file).map_err(|fault| Problem::unfit(vec![fault]));
    let smaller = say!("give a file with fewer angles");
    app.effort.answer(smaller, compute).await
}
