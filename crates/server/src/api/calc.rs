//! Each model alone.

use axum::Json;
use axum::body::Bytes;
use serde::Deserialize;
use sunrise_core::crops::showing::{Outcome, Sown};
use sunrise_core::light::ies::{self, Luminaire};
use sunrise_core::light::scene::{Scene, SceneLight};
use sunrise_core::packing::{Ask, Packing};
use sunrise_core::seeds::{ToSow, Want};
use sunrise_core::site::minima::{self, Preview, Understanding};
use sunrise_core::warmth::chamber::{ChamberDay, ChamberSetUp};
use sunrise_core::warmth::root_zone::{RootZone, RootZoneDay};

use utoipa::ToSchema;

use super::off_thread;
use crate::body;
use crate::problem::Problem;

/// Light on a grid of points in a bay
#[utoipa::path(
    post,
    path = "/api/calc/light",
    request_body = Scene,
    responses(
        (status = 200, body = SceneLight),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn light(body::Json(scene): body::Json<Scene>) -> Result<Json<SceneLight>, Problem> {
    let light = off_thread(move || scene.light().map_err(Problem::unfit)).await?;
    Ok(Json(light))
}

/// When seedlings show, and how many
#[utoipa::path(
    post,
    path = "/api/calc/emergence",
    request_body = Sown,
    responses(
        (status = 200, body = Outcome),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn emergence(body::Json(sown): body::Json<Sown>) -> Result<Json<Outcome>, Problem> {
    let outcome = off_thread(move || sown.outcome().map_err(Problem::unfit)).await?;
    Ok(Json(outcome))
}

/// The root zone of a tray through the day
#[utoipa::path(
    post,
    path = "/api/calc/root-zone",
    request_body = RootZone,
    responses(
        (status = 200, body = RootZoneDay),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn root_zone(
    body::Json(ask): body::Json<RootZone>,
) -> Result<Json<RootZoneDay>, Problem> {
    let day = off_thread(move || ask.day().map_err(Problem::unfit)).await?;
    Ok(Json(day))
}

/// A germination chamber through the day
#[utoipa::path(
    post,
    path = "/api/calc/chamber",
    request_body = ChamberSetUp,
    responses(
        (status = 200, body = ChamberDay),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn chamber(
    body::Json(ask): body::Json<ChamberSetUp>,
) -> Result<Json<ChamberDay>, Problem> {
    let day = off_thread(move || ask.day().map_err(Problem::unfit)).await?;
    Ok(Json(day))
}

/// How many cells and seeds to sow for the plants wanted
#[utoipa::path(
    post,
    path = "/api/calc/seeds",
    request_body = Want,
    responses(
        (status = 200, body = ToSow),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn seeds(body::Json(want): body::Json<Want>) -> Result<Json<ToSow>, Problem> {
    let to_sow = off_thread(move || want.to_sow().map_err(Problem::unfit)).await?;
    Ok(Json(to_sow))
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
pub async fn frost(body::Json(file): body::Json<MinimaFile>) -> Result<Json<Preview>, Problem> {
    let preview = off_thread(move || Ok(minima::read(&file.text, &file.how))).await?;
    Ok(Json(preview))
}

/// The most trays on a deck, and where they lie
#[utoipa::path(
    post,
    path = "/api/calc/packing",
    request_body = Ask,
    responses(
        (status = 200, body = Packing),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn packing(body::Json(ask): body::Json<Ask>) -> Result<Json<Packing>, Problem> {
    let packing = off_thread(move || ask.lay().map_err(Problem::unfit)).await?;
    Ok(Json(packing))
}

/// A luminaire from its photometric file (IES LM-63)
#[utoipa::path(
    post,
    path = "/api/calc/photometry",
    request_body(content = String, content_type = "text/plain"),
    responses(
        (status = 200, body = Luminaire),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn photometry(file: Bytes) -> Result<Json<Luminaire>, Problem> {
    let read = move || {
        // Old files are in any alphabet; what matters in them is ASCII.
        let text = String::from_utf8_lossy(&file);
        ies::read(&text).map_err(|fault| Problem::unfit(vec![fault]))
    };
    Ok(Json(off_thread(read).await?))
}
