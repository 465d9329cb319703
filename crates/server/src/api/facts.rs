//! What does not depend on any plan.

use std::collections::BTreeMap;

use axum::Json;
use axum::extract::rejection::QueryRejection;
use axum::extract::{Query, State};
use serde::{Deserialize, Serialize};
use sunrise_core::ask::{self, Crop, Forms, Kinds, UnitRow, UnitSystem};
use sunrise_core::basis::fault::{Faults, Pointer};
use sunrise_core::basis::words::say;
use utoipa::{IntoParams, ToSchema};

use super::App;
use crate::problem::Problem;

/// That the server is well.
#[derive(Debug, Serialize, ToSchema)]
pub struct Health {
    status: &'static str,
    version: &'static str,
    /// Where a damaged database was put when the server started; left out when none was.
    #[serde(skip_serializing_if = "Option::is_none")]
    set_aside: Option<String>,
}

/// Whether the server is there, and the plans' folder with it
#[utoipa::path(
    get,
    path = "/healthz",
    responses(
        (status = 200, body = Health),
        (status = 503, description = "The folder of the plans is gone",
            body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn health(State(app): State<App>) -> Result<Json<Health>, Problem> {
    let watch = app.watch.clone();
    let there = tokio::task::spawn_blocking(move || watch.check());
    there.await.map_err(|error| Problem::internal(&error))??;
    Ok(Json(Health {
        status: "ok",
        version: env!("CARGO_PKG_VERSION"),
        set_aside: app.set_aside.as_deref().map(str::to_owned),
    }))
}

/// How every quantity is written in either system of units
#[utoipa::path(get, path = "/api/units", responses((status = 200, body = Vec<UnitRow>)))]
pub async fn units() -> Json<Vec<UnitRow>> {
    Json(ask::units())
}

/// The crops that come with the application, and where their figures come from.
#[derive(Debug, Serialize, ToSchema)]
pub struct CropLibrary {
    /// The crops.
    crops: &'static [Crop],
    /// The source of each field.
    sources: &'static BTreeMap<String, String>,
}

/// The crop library
#[utoipa::path(get, path = "/api/crops", responses((status = 200, body = CropLibrary)))]
pub async fn crops() -> Json<CropLibrary> {
    let library = ask::crops();
    Json(CropLibrary {
        crops: &library.crops,
        sources: library.sources(),
    })
}

/// Whose sizes the kinds are to have.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct SoldIn {
    /// The units of those who buy them; metric when left out.
    #[serde(default)]
    units: Option<UnitSystem>,
}

/// The shelf of generic places, lamps, mats, fans and containers
#[utoipa::path(
    get,
    path = "/api/kinds",
    params(SoldIn),
    responses(
        (status = 200, body = Kinds),
        (status = "4XX", body = Problem, content_type = "application/problem+json"),
    )
)]
pub async fn kinds(
    sold: Result<Query<SoldIn>, QueryRejection>,
) -> Result<Json<&'static Kinds>, Problem> {
    let Ok(Query(sold)) = sold else {
        let mut faults = Faults::default();
        faults.add(
            &Pointer::default().at("units"),
            "",
            say!("those are no units that kinds are sold in"),
            say!("write metric or us, or leave the field out"),
        );
        return Err(Problem::unfit(faults.verdict().err().unwrap_or_default()));
    };
    let units = sold.units.unwrap_or(UnitSystem::Metric);
    Ok(Json(ask::kinds(units)))
}

/// What fields begin with, and what they can be
#[utoipa::path(get, path = "/api/forms", responses((status = 200, body = Forms)))]
pub async fn forms() -> Json<&'static Forms> {
    Json(ask::forms())
}
