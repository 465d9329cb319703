//! Edits of a plan as JSON Patch (RFC 6902), and the fixes that are made of them.

use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

use crate::basis::fault::Pointer;
use crate::basis::words::Statement;
use crate::plan::document::Plan;
use crate::plan::sound::SoundPlan;

/// An edit of the plan that settles a finding.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Fix {
    /// What the button says.
    pub label: Statement,
    /// What the history says.
    pub word: Statement,
    /// The edit, as a JSON Patch (RFC 6902) on the plan.
    pub patch: Vec<PatchStep>,
}

/// One step of a JSON Patch.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PatchStep {
    /// What to do there.
    pub op: PatchOp,
    /// Where.
    pub path: String,
    /// With what.
    pub value: Value,
}

/// The operations that fixes use.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PatchOp {
    /// Sets a value that is there.
    Replace,
    /// Sets a field, whether it is there or not.
    Add,
}

impl PatchStep {
    /// Sets the field at `path`, which the plan may leave out.
    pub(crate) fn set(path: &Pointer, value: impl Serialize) -> Self {
        Self {
            op: PatchOp::Add,
            ..Self::replace(path, value)
        }
    }

    /// Puts `value` at the end of the list at `path`.
    pub(crate) fn append(path: &Pointer, value: impl Serialize) -> Self {
        Self::set(&path.at("-"), value)
    }

    /// Makes `to` of what stands at `path` and is `from`, field by field: what is alike in both stays as the
    /// plan has it, though `from` be of a day on which it is set otherwise.
    pub(crate) fn between<T: Serialize>(path: &Pointer, from: &T, to: &T) -> Vec<Self> {
        let fields = |of: &T| serde_json::to_value(of).expect("plain data serialises");
        match (fields(from), fields(to)) {
            (Value::Object(from), Value::Object(to))
                if from.keys().all(|key| to.contains_key(key)) =>
            {
                let changed = to
                    .into_iter()
                    .filter(|(key, value)| from.get(key) != Some(value));
                changed
                    .map(|(key, value)| Self::set(&path.at(key.as_str()), value))
                    .collect()
            }
            _ => vec![Self::replace(path, to)],
        }
    }

    /// Sets what stands at `path`.
    pub(crate) fn replace(path: &Pointer, value: impl Serialize) -> Self {
        Self {
            op: PatchOp::Replace,
            path: path.to_string(),
            value: serde_json::to_value(value).expect("plain data serialises"),
        }
    }
}

impl PatchStep {
    /// Carries the step out on a document; one whose path names nothing changes nothing.
    fn carry_out(&self, document: &mut Value) {
        let Some((parent, field)) = self.path.rsplit_once('/') else {
            return;
        };
        match document.pointer_mut(parent) {
            Some(Value::Object(fields)) => {
                fields.insert(field.into(), self.value.clone());
            }
            Some(Value::Array(list)) if field == "-" => list.push(self.value.clone()),
            Some(Value::Array(list)) => {
                let entry = field.parse().ok().and_then(|i: usize| list.get_mut(i));
                if let Some(entry) = entry {
                    *entry = self.value.clone();
                }
            }
            _ => {}
        }
    }
}

/// The plan that a patch makes of `plan`, unchecked.
///
/// # Errors
/// What the document then lacks or has too much.
pub fn patched(plan: &SoundPlan, patch: &[PatchStep]) -> Result<Plan, serde_json::Error> {
    let mut document = serde_json::to_value(&**plan)?;
    patch.iter().for_each(|step| step.carry_out(&mut document));
    serde_json::from_value(document)
}
