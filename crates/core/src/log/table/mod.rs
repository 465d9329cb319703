//! The log as a table: CSV (RFC 4180) out, and in again row by row.

mod columns;
mod read;
mod write;

pub use read::{MOST_ROWS, Row, read};
pub use write::written;

#[cfg(test)]
mod tests {
    use super::*;
    use crate::log::detail::{About, DeckSpot, Dome, Loss, Measurement};
    use crate::log::entry::Entry;
    use crate::log::fact::Fact;
    use crate::testing::{bay, noted};
    use jiff::civil::date;

    fn of_every_kind() -> Vec<Entry> {
        let tray = || "tm1".to_owned();
        let into = || "tm2".to_owned();
        let bay = || bay("door", "t1");
        let job = || "turn/door".to_owned();
        let facts = [
            Fact::Sown { tray: tray() },
            Fact::Shown {
                tray: tray(),
                sowing: Some("tomato".into()),
                count: 11,
                of: 24,
            },
            Fact::Thinned {
                tray: tray(),
                left: 20,
            },
            Fact::PrickedOut {
                tray: tray(),
                into: into(),
                plants: 18,
            },
            Fact::PottedOn {
                tray: tray(),
                into: into(),
                plants: 18,
            },
            Fact::Moved {
                tray: tray(),
                bay: bay(),
            },
            Fact::Watered {
                tray: tray(),
                water_ml: Some(412.5),
            },
            Fact::Watered {
                tray: tray(),
                water_ml: None,
            },
            Fact::Fed {
                tray: tray(),
                strength: 0.5,
            },
            Fact::LampSet {
                bay: bay(),
                height_mm: 260.0,
                hours_h: 14.5,
                from_h: Some(6.0),
                lift_mm: None,
                brightness: None,
            },
            Fact::MatSwitched {
                bay: bay(),
                on: false,
            },
            Fact::Dome {
                tray: tray(),
                dome: Dome::Vented,
            },
            Fact::Hardening {
                tray: tray(),
                outdoors: true,
            },
            Fact::PlantedOut {
                tray: tray(),
                plants: 16,
            },
            Fact::Lost {
                tray: tray(),
                plants: 2,
                why: Loss::DampingOff,
            },
            Fact::Measured {
                about: About::Bay(bay()),
                reading: Measurement::Lux(14_000.0),
            },
            Fact::Measured {
                about: About::Spot(DeckSpot {
                    bay: bay(),
                    x_mm: 450.0,
                    y_mm: 200.5,
                }),
                reading: Measurement::Ppfd(180.0),
            },
            Fact::Measured {
                about: About::Tray(tray()),
                reading: Measurement::SoilC(21.5),
            },
            Fact::Done { job: job() },
            Fact::PutOff {
                job: job(),
                until: date(2027, 4, 12),
            },
            Fact::Skipped { job: job() },
            Fact::Noted { about: About::Room },
        ];
        facts
            .into_iter()
            .map(|fact| noted(date(2027, 4, 9), fact))
            .collect()
    }

    #[test]
    fn what_is_written_is_read_again() {
        let mut entries = of_every_kind();
        entries[0].text = "cold hands, \"wet\" mix".into();
        entries[1].at_h = Some(18.25);
        entries.push(Entry {
            fact: None,
            corrects: Some(entries[0].id.clone()),
            ..entries[2].clone()
        });
        let table = written(&entries);
        let rows = read(&table, |_, _| unreachable!("every row has an id")).unwrap();
        let again: Vec<Entry> = rows.into_iter().map(|row| row.entry.unwrap()).collect();
        assert_eq!(again, entries);
    }

    #[test]
    fn a_faulty_row_is_told_by_its_number_and_holds_up_no_other() {
        let table = "day,kind,tray,count,of,on\n\
            2027-04-01,sown,tm1,,,\n\
            2027-04-02,shown,tm1,many,24,\n\
            ,,,,,\n\
            2027-04-03,sown,tm1,3,,\n\
            last week,sown,tm1,,,\n\
            2027-04-04,mat_switched,,,,perhaps\n";
        let rows = read(table, |_, nth| format!("row-{nth}")).unwrap();
        let faulty = rows.iter().filter(|row| row.entry.is_err());
        let faulty: Vec<u64> = faulty.map(|row| row.number).collect();
        assert_eq!(faulty, [3, 5, 6, 7]);
        let paths = |i: usize| rows[i].entry.as_ref().unwrap_err()[0].path.clone();
        assert_eq!([paths(1), paths(4)], ["/count", "/on"]);
        assert_eq!(rows[0].entry.as_ref().unwrap().id, "row-1");
    }

    #[test]
    fn what_is_no_such_table_is_refused_and_rows_alike_are_told_apart() {
        let refused = |text: &str| {
            read(text, |_, _| String::new()).unwrap_err()[0]
                .problem
                .to_string()
        };
        assert!(refused("when,what\n1,2\n").contains("lacks the column day"));
        assert!(refused("day,kind,mood\n").contains("no column"));
        let twice = "day,kind,tray\n2027-04-01,watered,tm1\n2027-04-01,watered,tm1\n";
        let rows = read(twice, |own, nth| format!("{}-{nth}", own.len())).unwrap();
        let ids: Vec<&str> = rows
            .iter()
            .map(|row| row.entry.as_ref().unwrap().id.as_str())
            .collect();
        assert_ne!(ids[0], ids[1]);
        let many = format!("day,kind\n{}", "2027-04-01,noted\n".repeat(MOST_ROWS + 1));
        assert!(refused(&many).contains("too long"));
    }
}
