//! What happened so far, for a document that is not kept: requests name the plan whose log counts as `?log=1`.

use std::sync::Arc;

use axum::extract::{FromRequestParts, Query};
use axum::http::request::Parts;
use jiff::civil::Date;
use jiff::{Timestamp, tz::TimeZone};
use serde::Deserialize;
use sunrise_core::ask::{Happened, Plan, SoundPlan};
use sunrise_core::basis::fault::{Faults, Pointer};
use sunrise_core::basis::words::say;
use utoipa::IntoParams;

use super::App;
use crate::logs::Log;
use crate::problem::Problem;

/// Whose log counts.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct LogOf {
    /// The plan whose log counts: what happened wins over what is reckoned; none when left out.
    log: Option<i64>,
}

/// What happened so far.
#[derive(Debug, Clone, Default)]
pub struct Past(Arc<Happened>);

impl Past {
    /// `plan` without fault, in the season in which so much happened.
    pub fn sound(&self, plan: Plan) -> Result<SoundPlan, Problem> {
        Ok(super::sound(plan)?.after(Arc::clone(&self.0)))
    }
}

impl From<&Log> for Past {
    fn from(log: &Log) -> Self {
        Self(Arc::clone(&log.happened))
    }
}

impl App {
    /// The log of a plan.
    pub(super) async fn log(&self, plan: i64) -> Result<Log, Problem> {
        let logs = Arc::clone(&self.logs);
        self.store(move |store| logs.of(store, plan)).await
    }
}

impl FromRequestParts<App> for Past {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Result<Self, Problem> {
        let asked = Query::<LogOf>::from_request_parts(parts, app).await;
        let Ok(Query(LogOf { log })) = asked else {
            let mut faults = Faults::default();
            faults.add(
                &Pointer::default().at("log"),
                parts.uri.query().unwrap_or_default(),
                say!("that is no plan's log"),
                say!("give the plan's number, or leave it out"),
            );
            return Err(Problem::unfit(faults.verdict().err().unwrap_or_default()));
        };
        match log {
            Some(plan) => Ok(Self::from(&app.log(plan).await?)),
            None => Ok(Self::default()),
        }
    }
}

/// Today at the site of `plan`.
pub fn today(plan: &Plan) -> Date {
    let zone = TimeZone::get(&plan.site.time_zone).unwrap_or(TimeZone::UTC);
    plan.today(Timestamp::now().to_zoned(zone).date())
}
