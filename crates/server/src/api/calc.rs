//! Each model alone.

use axum::Json;
use axum::body::Bytes;
use sunrise_core::light::ies::{self, Luminaire};
use sunrise_core::light::scene::{Scene, SceneLight};
use sunrise_core::packing::{Ask, Packing};

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
