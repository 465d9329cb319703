//! Plans and revisions named in an address.

use std::collections::HashMap;

use axum::extract::{FromRequestParts, Path};
use axum::http::request::Parts;

use crate::problem::Problem;

/// The number of something that is being placed, from the address.
pub struct RunId(pub u64);

impl<S: Send + Sync> FromRequestParts<S> for RunId {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let run = Path::<u64>::from_request_parts(parts, state).await;
        run.map(|Path(run)| Self(run))
            .map_err(|_| Problem::not_here(parts.uri.path()))
    }
}

/// A plan's number, from the address.
pub struct PlanId(pub i64);

impl<S: Send + Sync> FromRequestParts<S> for PlanId {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let named = Path::<HashMap<String, String>>::from_request_parts(parts, state).await;
        let id = named
            .ok()
            .and_then(|Path(named)| named.get("id")?.parse().ok());
        id.map(Self)
            .ok_or_else(|| Problem::not_here(parts.uri.path()))
    }
}

/// A plan's number and a revision's, from the address.
pub struct RevisionId(pub i64, pub i64);

impl<S: Send + Sync> FromRequestParts<S> for RevisionId {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let both = Path::<(i64, i64)>::from_request_parts(parts, state).await;
        both.map(|Path((plan, revision))| Self(plan, revision))
            .map_err(|_| Problem::not_here(parts.uri.path()))
    }
}

/// A plan's number and the name of something in it, from the address.
pub struct Within(pub i64, pub String);

impl<S: Send + Sync> FromRequestParts<S> for Within {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, state: &S) -> Result<Self, Problem> {
        let both = Path::<(i64, String)>::from_request_parts(parts, state).await;
        both.map(|Path((plan, name))| Self(plan, name))
            .map_err(|_| Problem::not_here(parts.uri.path()))
    }
}
