//! Edits that were made on a revision that the plan has left behind.

use jiff::Timestamp;
use sunrise_core::plan::merge::{Clash, Wins, merged};
use sunrise_core::plan::{Plan, SoundPlan};

use crate::error::StoreError;
use crate::records::Snapshot;
use crate::rows::{document, in_use};
use crate::store::Store;

/// A plan after an edit, and what went into it besides.
#[derive(Debug)]
pub struct Saved {
    /// The plan as it is now.
    pub snapshot: Snapshot,
    /// The words of the edits that others saved since the edit was begun, the oldest first.
    pub with: Vec<String>,
}

impl Store {
    /// Keeps an edit that is based on revision `base`. Where the plan has moved on, both edits are kept
    /// field by field; for fields that both changed, `wins` says whose value stays. Whatever gives way
    /// stays in the history.
    ///
    /// # Errors
    /// [`StoreError::Clash`] where both changed a field, or the two do not go together, and `wins` is
    /// `None`: nothing is changed then.
    pub fn save_with_others(
        &mut self,
        id: i64,
        base: i64,
        mine: &SoundPlan,
        word: &str,
        wins: Option<Wins>,
        now: Timestamp,
    ) -> Result<Saved, StoreError> {
        let current = in_use(&self.db, id)?;
        if current == base {
            return Ok(Saved {
                snapshot: self.save(id, base, mine, word, now)?,
                with: Vec::new(),
            });
        }
        let theirs = document(&self.db, id, current)?;
        let together = |wins: Wins| match document(&self.db, id, base) {
            Ok(base) => merged(&base, &theirs, mine, wins),
            // The base has been thinned out: nobody can tell who changed what.
            Err(_) => (None, vec![whole(&theirs, mine)]),
        };
        let (both, fields) = together(wins.unwrap_or(Wins::Mine));
        let both = both.and_then(|plan| plan.check().ok());
        let with = self.words_between(id, base, current)?;
        let clash = || StoreError::Clash {
            current,
            base,
            fields: fields.clone(),
        };
        let save = |store: &mut Self, on: i64, plan: &SoundPlan, word: &str| {
            store.save(id, on, plan, word, now)
        };
        let snapshot = match (wins, both) {
            (None, Some(both)) if fields.is_empty() => save(self, current, &both, word)?,
            (None, _) => return Err(clash()),
            (Some(Wins::Mine), both) => {
                let kept = both.as_ref().unwrap_or(mine);
                save(self, current, kept, word)?
            }
            (Some(Wins::Theirs), both) => {
                // Mine goes into the history first, so that it can be brought back.
                let kept = match both {
                    Some(both) => both,
                    None => theirs.clone().check().map_err(|_| clash())?,
                };
                let put = save(self, current, mine, word)?;
                let undone: String = format!("kept the other change: {word}")
                    .chars()
                    .take(120)
                    .collect();
                save(self, put.revision, &kept, &undone)?
            }
        };
        Ok(Saved { snapshot, with })
    }

    /// The words of the revisions after `base` up to `current`.
    fn words_between(&self, id: i64, base: i64, current: i64) -> Result<Vec<String>, StoreError> {
        const MOST: usize = 5;
        let mut statement = self.db.prepare(
            "SELECT word FROM revisions WHERE plan = ? AND number > ? AND number <= ? ORDER BY number DESC LIMIT ?",
        )?;
        let rows = statement.query_map((id, base, current, MOST as i64), |row| row.get(0))?;
        let mut words: Vec<String> = rows.collect::<Result<_, _>>()?;
        words.reverse();
        Ok(words)
    }
}

fn whole(theirs: &Plan, mine: &Plan) -> Clash {
    Clash {
        path: String::new(),
        theirs: theirs.name.as_str().into(),
        mine: mine.name.as_str().into(),
    }
}
