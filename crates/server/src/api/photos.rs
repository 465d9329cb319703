//! Photos that go with entries of the log.

use axum::extract::{Request, State};
use axum::http::{StatusCode, header};
use axum::response::{IntoResponse, Response};
use sunrise_core::basis::fault::{Fault, Faults, Pointer};
use sunrise_core::basis::words::say;

use super::App;
use super::address::Within;
use crate::body;
use crate::photos::{MOST_BYTES, NoPhoto};
use crate::problem::Problem;

/// The name of a photo, as sound as an entry's.
fn named(name: &str) -> Result<(), Problem> {
    let mut faults = Faults::default();
    faults.id(&Pointer::default().at("name"), name);
    faults.verdict().map_err(Problem::unfit)
}

/// Keep a photo; one that was sent under that name before stays
///
/// JPEG, PNG or WebP. It is turned upright, made no larger than 2048 pixels, and written without where and by
/// what it was taken.
#[utoipa::path(
    put,
    path = "/api/plans/{id}/photos/{name}",
    params(
        ("id" = i64, Path, description = "The plan's number"),
        ("name" = String, Path, description = "Its name, made where it was taken"),
    ),
    request_body(content = String, content_type = "image/jpeg", description = "The picture"),
    responses(
        (status = 204, description = "It is kept"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn keep_photo(
    State(app): State<App>,
    Within(id, name): Within,
    request: Request,
) -> Result<StatusCode, Problem> {
    named(&name)?;
    app.store(move |store| store.plan(id).map(drop)).await?;
    let bytes = body::read(request, MOST_BYTES).await?;
    let photos = app.photos.clone();
    let kept = app.effort.compute(say!("send a smaller picture"), move || {
        photos.keep(id, &name, &bytes).map_err(|error| match error {
            NoPhoto::NoPicture(why) => Problem::unfit(vec![Fault {
                path: "/photo".into(),
                value: serde_json::Value::Null,
                problem: say!("this is no picture that can be read: {why}", why = why),
                remedy: say!("send a photo as JPEG, PNG or WebP"),
            }]),
            NoPhoto::Disk(error) => Problem::internal(&error),
        })
    });
    kept.await?;
    Ok(StatusCode::NO_CONTENT)
}

/// A photo
#[utoipa::path(
    get,
    path = "/api/plans/{id}/photos/{name}",
    params(
        ("id" = i64, Path, description = "The plan's number"),
        ("name" = String, Path, description = "Its name"),
    ),
    responses(
        (status = 200, description = "JPEG", body = String, content_type = "image/jpeg"),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn photo(State(app): State<App>, Within(id, name): Within) -> Result<Response, Problem> {
    named(&name)?;
    app.store(move |store| store.plan(id).map(drop)).await?;
    let here = format!("/api/plans/{id}/photos/{name}");
    let photos = app.photos.clone();
    let read = tokio::task::spawn_blocking(move || photos.read(id, &name));
    let read = read.await.map_err(|error| Problem::internal(&error))?;
    let photo = read.map_err(|error| Problem::internal(&error))?;
    let photo = photo.ok_or_else(|| Problem::not_here(&here))?;
    let headers = [
        (header::CONTENT_TYPE, "image/jpeg"),
        (
            header::CACHE_CONTROL,
            "private, max-age=31536000, immutable",
        ),
    ];
    Ok((headers, photo).into_response())
}
