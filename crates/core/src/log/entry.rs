//! An entry of the log, and what is wrong with one.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::DAY_H;
use crate::basis::dates::{days_between, plus_days};
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::log::fact::Fact;
use crate::plan::SoundPlan;

/// An entry of the log. It is never changed: a further one corrects it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Entry {
    /// Its identifier, made where it was noted: what is sent twice is kept once.
    pub id: String,
    /// The day on which it happened.
    pub on: Date,
    /// When, in hours after midnight; left out where nobody looked.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at_h: Option<f64>,
    /// The entry that it corrects.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub corrects: Option<String>,
    /// What happened; left out in an entry that takes back the one that it corrects.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fact: Option<Fact>,
    /// In the gardener's own words.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub text: String,
    /// The photo that goes with it, by the name that it was sent under.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub photo: Option<String>,
}

/// The most characters of a text.
const MOST_TEXT: usize = 2000;
/// So many days before its season begins something of a plan may have happened: seed is stratified.
const BEFORE_SEASON_DAYS: i32 = 366;
/// A job is put off for so many days at the most: what waits longer is planned anew.
const MOST_PUT_OFF_DAYS: i32 = 60;
/// A device in another time zone may be a day ahead.
const AHEAD_DAYS: i32 = 1;

impl Entry {
    /// What of it cannot be in `plan`, on `today` at the latest; `is_known` tells whether the log has an entry
    /// of a name.
    ///
    /// # Errors
    /// Every fault, by its path.
    pub fn check(
        &self,
        plan: &SoundPlan,
        today: Date,
        is_known: impl Fn(&str) -> bool,
    ) -> Result<(), Vec<Fault>> {
        let (root, mut faults) = (Pointer::default(), Faults::default());
        faults.id(&root.at("id"), &self.id);
        let (from, to) = (
            plus_days(plan.season.from, -BEFORE_SEASON_DAYS),
            plus_days(today, AHEAD_DAYS),
        );
        if self.on > to {
            faults.add(
                &root.at("on"),
                self.on,
                say!("this day is yet to come"),
                say!(
                    "give the day on which it happened, {today} at the latest",
                    today = today
                ),
            );
        } else if self.on < from {
            faults.add(
                &root.at("on"),
                self.on,
                say!("this is long before the season of this plan"),
                say!("give a day from {from} on", from = from),
            );
        }
        if let Some(at_h) = self.at_h {
            faults.number(&root.at("at_h"), at_h, 0.0..=DAY_H, Quantity::ClockH);
        }
        if self.text.chars().take(MOST_TEXT + 1).count() > MOST_TEXT {
            faults.add(
                &root.at("text"),
                &self.text,
                say!("this text is too long"),
                say!(
                    "keep it under {most} characters",
                    most = Quantity::Count.of(MOST_TEXT as f64)
                ),
            );
        }
        match (&self.fact, &self.corrects) {
            (Some(fact), _) => fact.check(plan, &root.at("fact"), &mut faults),
            (None, Some(_)) => (),
            (None, None) => faults.add(
                &root.at("fact"),
                serde_json::Value::Null,
                say!("this entry tells of nothing"),
                say!("say what happened, or which entry it takes back"),
            ),
        }
        if let Some(photo) = &self.photo {
            faults.id(&root.at("photo"), photo);
        }
        if let Some(Fact::PutOff { until, .. }) = &self.fact
            && !(1..=MOST_PUT_OFF_DAYS).contains(&days_between(self.on, *until))
        {
            faults.add(
                &root.at("fact").at("put_off").at("until"),
                until,
                say!("a job is not put off until {until}", until = *until),
                say!(
                    "give a day from {from} to {to}",
                    from = plus_days(self.on, 1),
                    to = plus_days(self.on, MOST_PUT_OFF_DAYS)
                ),
            );
        }
        if let Some(corrected) = &self.corrects
            && (*corrected == self.id || !is_known(corrected))
        {
            faults.add(
                &root.at("corrects"),
                corrected,
                say!("the log has no such entry to correct"),
                say!("name an entry that was kept before"),
            );
        }
        faults.verdict()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::log::detail::{About, Measurement};
    use crate::testing::{bay, kettle_fen};
    use jiff::civil::date;

    const TODAY: Date = date(2027, 4, 10);

    fn entry(fact: Option<Fact>) -> Entry {
        Entry {
            id: "e1".into(),
            on: date(2027, 4, 9),
            at_h: Some(18.5),
            corrects: None,
            fact,
            text: String::new(),
            photo: None,
        }
    }

    fn faults(entry: &Entry) -> Vec<String> {
        let plan = kettle_fen(|_| ());
        let found = entry.check(&plan, TODAY, |id| id == "earlier");
        let found = found.err().unwrap_or_default().into_iter();
        found.map(|fault| fault.path).collect()
    }

    #[test]
    fn what_can_be_is_taken() {
        let tray = || "tc1".to_owned();
        for fact in [
            Fact::Sown { tray: tray() },
            Fact::Shown {
                tray: tray(),
                sowing: None,
                count: 40,
                of: 50,
            },
            Fact::Watered {
                tray: tray(),
                water_ml: None,
            },
            Fact::Moved {
                tray: tray(),
                bay: bay("door", "t1"),
            },
            Fact::Measured {
                about: About::Tray(tray()),
                reading: Measurement::SoilC(21.5),
            },
            Fact::Noted { about: About::Room },
        ] {
            assert_eq!(faults(&entry(Some(fact))), Vec::<String>::new());
        }
        let taken_back = Entry {
            corrects: Some("earlier".into()),
            ..entry(None)
        };
        assert!(faults(&taken_back).is_empty());
    }

    #[test]
    fn what_cannot_be_is_refused_by_its_field() {
        let shown = |tray: &str, count: u32| {
            entry(Some(Fact::Shown {
                tray: tray.into(),
                sowing: Some("nothing".into()),
                count,
                of: 50,
            }))
        };
        assert_eq!(
            faults(&shown("nowhere", 51)),
            [
                "/fact/shown/tray",
                "/fact/shown/count",
                "/fact/shown/sowing"
            ]
        );
        let measured = |reading: Measurement| {
            faults(&entry(Some(Fact::Measured {
                about: About::Bay(bay("door", "cellar")),
                reading,
            })))
        };
        assert_eq!(
            measured(Measurement::Humidity(45.0)),
            ["/fact/measured/bay", "/fact/measured/humidity"]
        );
        assert_eq!(faults(&entry(None)), ["/fact"]);
        let forged = Entry {
            id: "DROP TABLE".into(),
            on: date(2027, 4, 12),
            at_h: Some(25.0),
            corrects: Some("never".into()),
            text: "x".repeat(MOST_TEXT + 1),
            ..entry(Some(Fact::Sown { tray: "tc1".into() }))
        };
        assert_eq!(
            faults(&forged),
            ["/id", "/on", "/at_h", "/text", "/corrects"]
        );
        let itself = Entry {
            corrects: Some("e1".into()),
            ..entry(None)
        };
        assert_eq!(faults(&itself), ["/corrects"]);
        let long_ago = Entry {
            on: date(2019, 1, 1),
            ..entry(Some(Fact::Sown { tray: "tc1".into() }))
        };
        assert_eq!(faults(&long_ago), ["/on"]);
    }
}
