//! Each model alone.

use axum::Json;
use sunrise_core::light::scene::{Scene, SceneLight};

use super::off_thread;
use crate::body;
use crate::problem::Problem;

/// Direct light on a grid of points in a bay
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
