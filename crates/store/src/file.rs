//! The database's file: opened, checked, set aside when it is damaged, and watched while in use.

use std::path::{Path, PathBuf};

use jiff::Timestamp;
use rusqlite::{Connection, ErrorCode};

use crate::error::StoreError;
use crate::migrations;

/// The file of an open database, told from another of the same name.
#[derive(Debug, Clone)]
pub struct Watch {
    path: PathBuf,
    identity: Option<[u64; 2]>,
}

impl Watch {
    fn of(path: &Path) -> Self {
        Self {
            path: path.to_owned(),
            identity: identity(path),
        }
    }

    /// Makes sure that the file is still there: SQLite would go on writing into one that was
    /// deleted or replaced, and everything would be lost at the end.
    ///
    /// # Errors
    /// [`StoreError::Gone`].
    pub fn check(&self) -> Result<(), StoreError> {
        if identity(&self.path) == self.identity {
            Ok(())
        } else {
            Err(StoreError::Gone {
                path: self.path.display().to_string(),
            })
        }
    }
}

/// Device and inode of a file; `None` when there is none.
#[cfg(unix)]
fn identity(path: &Path) -> Option<[u64; 2]> {
    use std::os::unix::fs::MetadataExt;
    let file = std::fs::metadata(path).ok()?;
    Some([file.dev(), file.ino()])
}

#[cfg(not(unix))]
fn identity(path: &Path) -> Option<[u64; 2]> {
    path.is_file().then_some([0, 0])
}

/// Opens the database at `path`, making it or bringing it up to date as needed.
pub(crate) fn open(path: &Path) -> Result<(Connection, Watch), StoreError> {
    let mut db = Connection::open(path)?;
    db.busy_timeout(std::time::Duration::from_secs(5))?;
    // Before anything is written: what is damaged is left as it is.
    check_integrity(&db, path)?;
    // A saved edit is on the disk before it is acknowledged.
    db.pragma_update(None, "journal_mode", "WAL")?;
    db.pragma_update(None, "synchronous", "FULL")?;
    db.pragma_update(None, "foreign_keys", true)?;
    migrations::run(&mut db, path)?;
    Ok((db, Watch::of(path)))
}

fn check_integrity(db: &Connection, path: &Path) -> Result<(), StoreError> {
    let damaged = |reason: String| StoreError::Unsound {
        path: path.display().to_string(),
        reason,
    };
    let found: Result<String, rusqlite::Error> =
        db.query_row("PRAGMA quick_check(1)", [], |row| row.get(0));
    match found {
        Ok(word) if word == "ok" => Ok(()),
        Ok(word) => Err(damaged(word)),
        Err(error) => match error.sqlite_error_code() {
            Some(ErrorCode::NotADatabase | ErrorCode::DatabaseCorrupt) => {
                Err(damaged(error.to_string()))
            }
            _ => Err(error.into()),
        },
    }
}

/// Moves the database at `path` and what belongs to it out of the way, to a name that says what
/// and when; gives that name.
pub(crate) fn set_aside(path: &Path, now: Timestamp) -> std::io::Result<PathBuf> {
    let stamp = now.strftime("%Y%m%dT%H%M%SZ");
    let beside = |suffix: &str, end: &str| {
        let name = path.file_name().unwrap_or_default().to_string_lossy();
        path.with_file_name(format!("{name}{suffix}{end}"))
    };
    let mut names = (0..1000).map(|n| match n {
        0 => format!(".damaged-{stamp}"),
        n => format!(".damaged-{stamp}-{n}"),
    });
    // Never over another that was set aside before.
    let free = names.find(|end| !beside("", end).exists());
    let end = free.ok_or_else(|| std::io::Error::other("no name is free to set it aside"))?;
    for suffix in ["-wal", "-shm"] {
        match std::fs::rename(beside(suffix, ""), beside(suffix, &end)) {
            Err(error) if error.kind() != std::io::ErrorKind::NotFound => return Err(error),
            _ => {}
        }
    }
    let aside = beside("", &end);
    std::fs::rename(path, &aside)?;
    Ok(aside)
}
