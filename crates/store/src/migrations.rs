//! The steps that bring a database from any version to this program's.
//!
//! A step that has been released is never changed: add another.

use std::path::Path;

use rusqlite::Connection;
use rusqlite_migration::{Error, M, MigrationDefinitionError, Migrations};

use crate::error::StoreError;

const STEPS: &[M<'static>] = &[
    M::up(
    "CREATE TABLE plans (
         id INTEGER PRIMARY KEY AUTOINCREMENT,
         -- The revision that the plan stands at.
         current INTEGER NOT NULL,
         -- The newest revision of its line: what redo leads to.
         tip INTEGER NOT NULL,
         FOREIGN KEY (id, current) REFERENCES revisions (plan, number) DEFERRABLE INITIALLY DEFERRED,
         FOREIGN KEY (id, tip) REFERENCES revisions (plan, number) DEFERRABLE INITIALLY DEFERRED
     ) STRICT;
     CREATE TABLE revisions (
         plan INTEGER NOT NULL REFERENCES plans (id),
         number INTEGER NOT NULL,
         parent INTEGER,
         word TEXT NOT NULL,
         document TEXT NOT NULL CHECK (json_valid(document)),
         -- Microseconds since 1970.
         saved_at INTEGER NOT NULL,
         PRIMARY KEY (plan, number),
         FOREIGN KEY (plan, parent) REFERENCES revisions (plan, number)
     ) STRICT;",
    ),
    // How often the plan was edited, undone or redone: a calendar tells by it what is newer.
    M::up("ALTER TABLE plans ADD COLUMN changes INTEGER NOT NULL DEFAULT 0;"),
    // Microseconds since 1970: a deleted plan can be brought back for a while.
    M::up("ALTER TABLE plans ADD COLUMN deleted_at INTEGER;"),
    // A plan that is set aside stays in the list, and is not the one to open first.
    M::up("ALTER TABLE plans ADD COLUMN aside INTEGER NOT NULL DEFAULT 0;"),
    // What happened. Rows are added, never changed; a tray finds its own without reading the others.
    M::up(
        "CREATE TABLE log (
             number INTEGER PRIMARY KEY AUTOINCREMENT,
             plan INTEGER NOT NULL REFERENCES plans (id),
             -- Made where it was noted: what comes twice is kept once.
             id TEXT NOT NULL,
             on_day TEXT NOT NULL,
             kind TEXT,
             text TEXT NOT NULL,
             entry TEXT NOT NULL CHECK (json_valid(entry)),
             -- Microseconds since 1970.
             kept_at INTEGER NOT NULL,
             UNIQUE (plan, id)
         ) STRICT;
         CREATE INDEX log_by_plan ON log (plan, number);
         CREATE TABLE log_trays (
             plan INTEGER NOT NULL REFERENCES plans (id),
             tray TEXT NOT NULL,
             number INTEGER NOT NULL REFERENCES log (number),
             PRIMARY KEY (plan, tray, number)
         ) STRICT, WITHOUT ROWID;",
    ),
    // The log is read from the last day back.
    M::up("CREATE INDEX log_by_day ON log (plan, on_day, number);"),
];

pub(crate) fn run(db: &mut Connection, path: &Path) -> Result<(), StoreError> {
    Migrations::from_slice(STEPS)
        .to_latest(db)
        .map_err(|error| match error {
            Error::MigrationDefinition(MigrationDefinitionError::DatabaseTooFarAhead) => {
                StoreError::TooNew {
                    path: path.display().to_string(),
                }
            }
            Error::RusqliteError { err, .. } => StoreError::Sqlite(err),
            other => StoreError::Sqlite(rusqlite::Error::ToSqlConversionFailure(Box::new(other))),
        })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_version_migrates_to_the_latest() {
        Migrations::from_slice(STEPS).validate().unwrap();
        for from in 0..=STEPS.len() {
            let mut db = Connection::open_in_memory().unwrap();
            Migrations::from_slice(STEPS)
                .to_version(&mut db, from)
                .unwrap();
            run(&mut db, Path::new(":memory:")).unwrap();
            let version: i64 = db
                .pragma_query_value(None, "user_version", |row| row.get(0))
                .unwrap();
            assert_eq!(version, STEPS.len() as i64);
        }
    }

    #[test]
    fn a_newer_database_is_left_alone() {
        let mut db = Connection::open_in_memory().unwrap();
        db.pragma_update(None, "user_version", STEPS.len() as i64 + 1)
            .unwrap();
        let error = run(&mut db, Path::new("/data/plans.db")).unwrap_err();
        assert!(error.to_string().contains("newer version"), "{error}");
    }
}
