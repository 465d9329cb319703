//! The log: entries are added, never changed.

use jiff::Timestamp;
use jiff::civil::Date;
use rusqlite::{Connection, OptionalExtension, ToSql, params};
use serde::Serialize;
use sunrise_core::log::entry::Entry;
use sunrise_core::plan::{Plan, SoundPlan};
use utoipa::ToSchema;

use crate::error::StoreError;
use crate::records::from_micros;
use crate::rows::{append, document, in_use};
use crate::store::Store;

/// What became of an entry that was sent.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kept {
    /// It is kept.
    New,
    /// It was kept before, just so.
    Before,
    /// Another entry of this name was kept before: this one is not.
    Taken,
}

/// An entry as it is kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct KeptEntry {
    /// Its number in the plan's log: what was kept later has a higher one.
    pub number: i64,
    /// When it came.
    #[schema(value_type = String, format = DateTime)]
    pub kept_at: Timestamp,
    /// The entry.
    pub entry: Entry,
}

/// Which entries are wanted.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct LogQuery {
    /// What happened to this tray alone.
    pub tray: Option<String>,
    /// Facts of this kind alone.
    pub kind: Option<String>,
    /// Entries that hold this in their text, whatever its case, or are about one of `found`.
    pub text: Option<String>,
    /// Trays that are what is looked for.
    pub found: Vec<String>,
    /// From this day on.
    pub from: Option<Date>,
    /// To this day.
    pub to: Option<Date>,
    /// Those that come after the one of this day and number in the list, which runs backwards.
    pub before: Option<(Date, i64)>,
    /// So many at most, the last day first.
    pub limit: u32,
}

impl Store {
    /// Adds entries to a plan's log; one that is there already is not added again.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], [`StoreError::Deleted`], or SQLite's refusal: then none was added.
    pub fn note(
        &mut self,
        plan: i64,
        entries: &[Entry],
        now: Timestamp,
    ) -> Result<Vec<Kept>, StoreError> {
        Ok(self.note_and_follow(plan, entries, now, |_, _| None)?.0)
    }

    /// The same, and in the same breath the edit that `follow` makes of the plan for what is new, with its word:
    /// both are kept or neither is. Whether there was one.
    ///
    /// # Errors
    /// As [`Store::note`].
    pub fn note_and_follow(
        &mut self,
        plan: i64,
        entries: &[Entry],
        now: Timestamp,
        follow: impl FnOnce(Plan, &[Entry]) -> Option<(SoundPlan, String)>,
    ) -> Result<(Vec<Kept>, bool), StoreError> {
        let tx = self.transaction()?;
        let current = in_use(&tx, plan)?;
        let mut kept = Vec::with_capacity(entries.len());
        for entry in entries {
            let text = serde_json::to_string(entry).expect("an entry serialises");
            let before: Option<String> = tx
                .query_row(
                    "SELECT entry FROM log WHERE plan = ? AND id = ?",
                    params![plan, entry.id],
                    |row| row.get(0),
                )
                .optional()?;
            if let Some(before) = before {
                kept.push(if before == text {
                    Kept::Before
                } else {
                    Kept::Taken
                });
                continue;
            }
            let fact = entry.fact.as_ref();
            tx.execute(
                "INSERT INTO log (plan, id, on_day, kind, text, entry, kept_at)
                 VALUES (?, ?, ?, ?, ?, ?, ?)",
                params![
                    plan,
                    entry.id,
                    entry.on.to_string(),
                    fact.map(|fact| fact.kind()),
                    entry.text,
                    text,
                    now.as_microsecond()
                ],
            )?;
            let number = tx.last_insert_rowid();
            let trays = fact.map(|fact| fact.trays()).unwrap_or_default();
            for tray in trays {
                tx.execute(
                    "INSERT OR IGNORE INTO log_trays (number, plan, tray) VALUES (?, ?, ?)",
                    params![number, plan, tray],
                )?;
            }
            kept.push(Kept::New);
        }
        let fresh = entries
            .iter()
            .zip(&kept)
            .filter(|(_, kept)| **kept == Kept::New);
        let fresh: Vec<Entry> = fresh.map(|(entry, _)| entry.clone()).collect();
        let mut followed = false;
        if !fresh.is_empty() {
            let edited = follow(document(&tx, plan, current)?, &fresh);
            if let Some((edited, word)) = edited {
                append(&tx, plan, current, &edited, &word, now)?;
                followed = true;
            }
        }
        tx.commit()?;
        Ok((kept, followed))
    }

    /// What a plan's log got after the entry of `number`, in the order in which it came, with the number of
    /// the last.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], [`StoreError::Deleted`], [`StoreError::SpoiltEntry`], or SQLite's refusal.
    pub fn log_since(&self, plan: i64, number: i64) -> Result<(i64, Vec<Entry>), StoreError> {
        in_use(&self.db, plan)?;
        let mut statement = self.db.prepare_cached(
            "SELECT number, entry FROM log WHERE plan = ? AND number > ? ORDER BY number",
        )?;
        let mut rows = statement.query([plan, number])?;
        let (mut last, mut entries) = (number, Vec::new());
        while let Some(row) = rows.next()? {
            last = row.get(0)?;
            entries.push(entry_of(
                plan,
                last,
                row.get_ref(1)?.as_str().unwrap_or_default(),
            )?);
        }
        Ok((last, entries))
    }

    /// Whether the log of a plan has an entry of this name.
    ///
    /// # Errors
    /// SQLite's refusal.
    pub fn has_noted(&self, plan: i64, id: &str) -> Result<bool, StoreError> {
        let found = self.db.query_row(
            "SELECT EXISTS (SELECT 1 FROM log WHERE plan = ? AND id = ?)",
            params![plan, id],
            |row| row.get(0),
        )?;
        Ok(found)
    }

    /// Entries of a plan's log, the last day first.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], [`StoreError::Deleted`], or SQLite's refusal.
    pub fn log(&self, plan: i64, query: &LogQuery) -> Result<Vec<KeptEntry>, StoreError> {
        in_use(&self.db, plan)?;
        let mut sql = String::from(
            "SELECT log.number, log.kept_at, log.entry FROM log WHERE log.plan = :plan",
        );
        let limit = query.limit;
        let mut values: Vec<(&str, &dyn ToSql)> = vec![(":plan", &plan), (":limit", &limit)];
        let like = query.text.as_deref().map(pattern);
        let [from, to] = [query.from, query.to].map(|day| day.map(|day| day.to_string()));
        if let Some(tray) = &query.tray {
            sql += " AND log.number IN (SELECT number FROM log_trays WHERE plan = :plan AND tray = :tray)";
            values.push((":tray", tray));
        }
        if let Some(kind) = &query.kind {
            sql += " AND log.kind = :kind";
            values.push((":kind", kind));
        }
        let found = serde_json::to_string(&query.found).unwrap_or_default();
        if let Some(like) = &like {
            sql += " AND (log.text LIKE :text ESCAPE '\\'
                OR log.number IN (SELECT number FROM log_trays WHERE plan = :plan
                    AND tray IN (SELECT value FROM json_each(:found))))";
            values.push((":text", like));
            values.push((":found", &found));
        }
        if let Some(from) = &from {
            sql += " AND log.on_day >= :from";
            values.push((":from", from));
        }
        if let Some(to) = &to {
            sql += " AND log.on_day <= :to";
            values.push((":to", to));
        }
        let before = query.before.map(|(day, number)| (day.to_string(), number));
        if let Some((day, number)) = &before {
            sql += " AND (log.on_day, log.number) < (:day, :before)";
            values.push((":day", day));
            values.push((":before", number));
        }
        sql += " ORDER BY log.on_day DESC, log.number DESC LIMIT :limit";
        let mut statement = self.db.prepare_cached(&sql)?;
        let rows = statement.query_map(&values[..], |row| {
            Ok((row.get(0)?, row.get(1)?, row.get::<_, String>(2)?))
        })?;
        let mut found = Vec::new();
        for row in rows {
            let (number, kept_at, text) = row?;
            found.push(KeptEntry {
                number,
                kept_at: from_micros(kept_at),
                entry: entry_of(plan, number, &text)?,
            });
        }
        Ok(found)
    }
}

/// What LIKE looks for to find `text` anywhere, sign for sign.
fn pattern(text: &str) -> String {
    let plain = text.replace('\\', "\\\\").replace('%', "\\%");
    format!("%{}%", plain.replace('_', "\\_"))
}

/// Takes the log of every plan that goes with it.
pub(crate) fn forget(db: &Connection, which: &str, at: i64) -> Result<(), StoreError> {
    for table in ["log_trays", "log"] {
        let sql = format!("DELETE FROM {table} WHERE plan IN (SELECT id FROM plans WHERE {which})");
        db.execute(&sql, [at])?;
    }
    Ok(())
}

fn entry_of(plan: i64, number: i64, text: &str) -> Result<Entry, StoreError> {
    serde_json::from_str(text).map_err(|error| StoreError::SpoiltEntry {
        plan,
        number,
        reason: error.to_string(),
    })
}
