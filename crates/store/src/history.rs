//! A plan's revisions: the line that it stands on, the branches beside it, and which of the old
//! ones are thinned out.

use std::collections::{HashMap, HashSet};

use jiff::Timestamp;
use jiff::tz::TimeZone;
use rusqlite::{Connection, OptionalExtension, Transaction};

use crate::error::StoreError;
use crate::records::{Revision, from_micros};

/// Revisions younger than this are all kept.
const ALL_KEPT_DAYS: i64 = 30;
/// Of those younger than this the last of each day is kept, of older ones the last of each week.
const DAILY_KEPT_DAYS: i64 = 365;

/// A revision without its document.
#[derive(Debug, Clone)]
pub(crate) struct Entry {
    pub(crate) number: i64,
    pub(crate) parent: Option<i64>,
    pub(crate) word: String,
    pub(crate) saved_at: Timestamp,
}

/// All revisions of a plan, by number, and where the plan stands.
#[derive(Debug)]
pub(crate) struct History {
    entries: Vec<Entry>,
    index: HashMap<i64, usize>,
    pub(crate) current: i64,
    tip: i64,
}

impl History {
    pub(crate) fn read(db: &Connection, id: i64) -> Result<Self, StoreError> {
        let stands = db
            .query_row("SELECT current, tip FROM plans WHERE id = ?", [id], |row| {
                Ok((row.get(0)?, row.get(1)?))
            })
            .optional()?;
        let (current, tip) = stands.ok_or(StoreError::NoPlan(id))?;
        let mut statement = db.prepare_cached(
            "SELECT number, parent, word, saved_at FROM revisions WHERE plan = ? ORDER BY number",
        )?;
        let entries = statement.query_map([id], |row| {
            Ok(Entry {
                number: row.get(0)?,
                parent: row.get(1)?,
                word: row.get(2)?,
                saved_at: from_micros(row.get(3)?),
            })
        })?;
        let entries: Vec<Entry> = entries.collect::<Result<_, _>>()?;
        let index = entries.iter().enumerate();
        Ok(Self {
            index: index.map(|(i, entry)| (entry.number, i)).collect(),
            entries,
            current,
            tip,
        })
    }

    pub(crate) fn get(&self, number: i64) -> Option<&Entry> {
        self.entries.get(*self.index.get(&number)?)
    }

    pub(crate) fn current(&self) -> Option<&Entry> {
        self.get(self.current)
    }

    /// From revision `number` back to the first.
    fn line(&self, number: i64) -> impl Iterator<Item = &Entry> {
        let parent = |entry: &&Entry| self.get(entry.parent?);
        std::iter::successors(self.get(number), parent)
    }

    /// The revision that redo leads to.
    pub(crate) fn next(&self) -> Option<&Entry> {
        self.line(self.tip)
            .take_while(|entry| entry.number != self.current)
            .last()
    }

    /// The revision that undo leads to.
    pub(crate) fn previous(&self) -> Option<&Entry> {
        self.get(self.current()?.parent?)
    }

    /// The newest revision of the line that `number` is on: the plan's own line, when it is.
    pub(crate) fn tip_of(&self, number: i64) -> i64 {
        if self.line(self.tip).any(|entry| entry.number == number) {
            return self.tip;
        }
        // Numbers grow with time, so one pass from a parent to its newest child is enough.
        let newest = self.entries.iter().filter(|entry| entry.number > number);
        newest.fold(number, |tip, entry| {
            if entry.parent == Some(tip) {
                entry.number
            } else {
                tip
            }
        })
    }

    /// Every revision, the newest first.
    pub(crate) fn revisions(&self) -> Vec<Revision> {
        let line: HashSet<i64> = self.line(self.tip).map(|entry| entry.number).collect();
        let back: HashSet<i64> = self.line(self.current).map(|entry| entry.number).collect();
        let newest_first = self.entries.iter().rev();
        newest_first
            .map(|entry| Revision {
                number: entry.number,
                parent: entry.parent,
                word: entry.word.clone(),
                saved_at: entry.saved_at,
                current: entry.number == self.current,
                undone: line.contains(&entry.number) && !back.contains(&entry.number),
                aside: !line.contains(&entry.number),
            })
            .collect()
    }

    /// The numbers of those that may go: old ones but for the last of each day, and of each week
    /// when they are older still. The first, the current one and the newest of its line stay.
    fn outworn(&self, now: Timestamp) -> Vec<i64> {
        let day = |entry: &Entry| entry.saved_at.to_zoned(TimeZone::UTC).date();
        let today = now.to_zoned(TimeZone::UTC).date();
        let mut seen = HashSet::new();
        let mut outworn = Vec::new();
        // The newest of a day or week comes first and stays.
        for entry in self.entries.iter().rev() {
            let date = day(entry);
            let age = date
                .until(today)
                .map_or(0, |span| i64::from(span.get_days()));
            let stays = age < ALL_KEPT_DAYS
                || entry.parent.is_none()
                || [self.current, self.tip].contains(&entry.number);
            let period = if age < DAILY_KEPT_DAYS {
                date
            } else {
                date.iso_week_date()
                    .first_of_week()
                    .map_or(date, |d| d.date())
            };
            if !seen.insert((age < DAILY_KEPT_DAYS, period)) && !stays {
                outworn.push(entry.number);
            }
        }
        outworn
    }
}

/// Takes the revisions out of plan `id` that are old and one of many; those that followed them
/// then follow what came before. Gives how many went.
pub(crate) fn thin(tx: &Transaction<'_>, id: i64, now: Timestamp) -> Result<usize, StoreError> {
    let outworn = History::read(tx, id)?.outworn(now);
    let mut follow = tx.prepare_cached(
        "UPDATE revisions SET parent =
             (SELECT parent FROM revisions WHERE plan = ?1 AND number = ?2)
         WHERE plan = ?1 AND parent = ?2",
    )?;
    let mut delete = tx.prepare_cached("DELETE FROM revisions WHERE plan = ?1 AND number = ?2")?;
    for number in &outworn {
        follow.execute([id, *number])?;
        delete.execute([id, *number])?;
    }
    Ok(outworn.len())
}
