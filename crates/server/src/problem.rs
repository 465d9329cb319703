//! Every error of the HTTP interface: a problem+json body (RFC 9457) that names field, value and
//! remedy.

use axum::http::{HeaderValue, StatusCode, header};
use axum::response::{IntoResponse, Response};
use serde::Serialize;
use serde_json::Value;
use sunrise_core::ask::Clash;
use sunrise_core::basis::fault::Fault;
use sunrise_core::basis::words::say;
use sunrise_store::StoreError;
use utoipa::ToSchema;

/// A problem (RFC 9457).
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Problem {
    /// The HTTP status.
    pub status: u16,
    /// What kind of problem it is, in a few words.
    pub title: String,
    /// What is wrong and what would be right, in full sentences and SI units.
    pub detail: String,
    /// Each thing that is wrong: its path in the request's document, value and remedy.
    pub faults: Vec<Fault>,
    /// With status 409: the revision that the plan is at.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub current_revision: Option<i64>,
}

impl Problem {
    /// A problem with one fault.
    pub fn fault(status: StatusCode, fault: Fault) -> Self {
        Self::faults(status, vec![fault])
    }

    /// A problem with its faults.
    pub fn faults(status: StatusCode, faults: Vec<Fault>) -> Self {
        let detail: Vec<String> = faults
            .iter()
            .map(|fault| fault.to_string().trim_start_matches(": ").to_owned())
            .collect();
        Self {
            status: status.as_u16(),
            title: title(status).into(),
            detail: detail.join("\n"),
            faults,
            current_revision: None,
        }
    }

    /// A document whose content is at fault.
    pub fn unfit(faults: Vec<Fault>) -> Self {
        Self::faults(StatusCode::UNPROCESSABLE_ENTITY, faults)
    }

    /// Nothing is at this address.
    pub fn not_here(path: &str) -> Self {
        Self::fault(
            StatusCode::NOT_FOUND,
            Fault {
                path: String::new(),
                value: path.into(),
                problem: say!("nothing is at {path}", path = path),
                remedy: say!("what there is stands in /api/openapi.json"),
            },
        )
    }

    /// The server itself failed; the log has the details.
    pub fn internal(error: &dyn std::fmt::Display) -> Self {
        tracing::error!("{error}");
        Self {
            status: 500,
            title: title(StatusCode::INTERNAL_SERVER_ERROR).into(),
            detail: "something went wrong on the server; its log has the details".into(),
            faults: Vec::new(),
            current_revision: None,
        }
    }
}

fn title(status: StatusCode) -> &'static str {
    match status {
        StatusCode::BAD_REQUEST => "This is not JSON",
        StatusCode::FORBIDDEN => "Not from there",
        StatusCode::GONE => "Deleted",
        StatusCode::REQUEST_TIMEOUT => "Too slow",
        StatusCode::SERVICE_UNAVAILABLE => "Not now",
        StatusCode::INSUFFICIENT_STORAGE => "No room",
        StatusCode::NOT_FOUND => "Not found",
        StatusCode::METHOD_NOT_ALLOWED => "This cannot be done here",
        StatusCode::CONFLICT => "The plan has changed meanwhile",
        StatusCode::PAYLOAD_TOO_LARGE => "Too large",
        StatusCode::UNSUPPORTED_MEDIA_TYPE => "Not JSON by its type",
        StatusCode::UNPROCESSABLE_ENTITY => "This cannot be used as it is",
        _ => "The server failed",
    }
}

impl From<StoreError> for Problem {
    fn from(error: StoreError) -> Self {
        let fault = |path: &str, value: Value, remedy| Fault {
            path: path.into(),
            value,
            problem: say!("{error}", error = error.to_string()),
            remedy,
        };
        match error {
            StoreError::NoPlan(id) => Self::fault(
                StatusCode::NOT_FOUND,
                fault("", id.into(), say!("GET /api/plans lists the plans")),
            ),
            StoreError::Conflict { current, base } => Self {
                current_revision: Some(current),
                ..Self::fault(
                    StatusCode::CONFLICT,
                    fault(
                        "/base_revision",
                        base.into(),
                        say!("your change was not saved: load the plan again and repeat it"),
                    ),
                )
            },
            StoreError::Clash {
                current, fields, ..
            } => {
                let fault = |clash: &Clash| Fault {
                    path: format!("/plan{}", clash.path),
                    value: Value::Null,
                    problem: clash.say(),
                    remedy: say!("say with settle whose change stays; nothing was changed"),
                };
                Self {
                    current_revision: Some(current),
                    ..Self::faults(StatusCode::CONFLICT, fields.iter().map(fault).collect())
                }
            }
            StoreError::NoStep(_) => Self::fault(
                StatusCode::CONFLICT,
                fault("", Value::Null, say!("the plan stays as it is")),
            ),
            StoreError::Deleted { .. } => Self::fault(
                StatusCode::GONE,
                fault("", Value::Null, say!("bring it back first, in Setup")),
            ),
            StoreError::Full => Self::fault(
                StatusCode::INSUFFICIENT_STORAGE,
                fault(
                    "",
                    Value::Null,
                    say!("nothing was changed; make room on the disk and do it again"),
                ),
            ),
            StoreError::Gone { .. } => Self::fault(
                StatusCode::SERVICE_UNAVAILABLE,
                fault(
                    "",
                    Value::Null,
                    say!("nothing was changed; put the folder back, or start the server again"),
                ),
            ),
            StoreError::Damaged { .. } => {
                tracing::error!("{error}");
                Self::fault(
                    StatusCode::INTERNAL_SERVER_ERROR,
                    fault(
                        "",
                        Value::Null,
                        say!("go back to an earlier edit in its history, or open another plan"),
                    ),
                )
            }
            StoreError::TooNew { .. }
            | StoreError::SpoiltEntry { .. }
            | StoreError::Unsound { .. }
            | StoreError::Stuck { .. }
            | StoreError::Sqlite(_) => Self::internal(&error),
        }
    }
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let mut response = (status, axum::Json(self)).into_response();
        response.headers_mut().insert(
            header::CONTENT_TYPE,
            HeaderValue::from_static("application/problem+json"),
        );
        response
    }
}
