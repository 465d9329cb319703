//! Reading a file, whichever form it has.

use crate::basis::fault::Fault;
use crate::basis::words::say;
use crate::site::minima::epw::epw;
use crate::site::minima::found::Found;
use crate::site::minima::lines::Lines;
use crate::site::minima::preview::Preview;
use crate::site::minima::table::table;
use crate::site::minima::understanding::Understanding;

/// Reads a file of daily minima.
///
/// CSV: a heading with a column for the date (`date`, `day`) and one for the minimum (`min`,
/// `temp_min`, `minimum`, …), or two columns without a heading; fields parted by commas,
/// semicolons or tabs; decimal commas where semicolons part; dates as 2012-01-31, 2012/01/31 or
/// 31.01.2012; a column for the maximum (`max`, `temp_max`, …) is read where there is one. EPW:
/// hourly, told by its first word, LOCATION; its latitude counts.
///
/// A file of one typical year, its months taken from different years, is read as one year: how far
/// the last frost strays then comes from `how`.
///
/// # Errors
/// What cannot be of `how`, by its path. What is wrong in the file stands in the preview.
pub fn read(text: &str, how: &Understanding) -> Result<Preview, Vec<Fault>> {
    how.check()?;
    let mut reader = Lines::new(text);
    let mut found = Found::default();
    let preview = match reader.peek() {
        Some(first) if first.starts_with("LOCATION,") => {
            let latitude = first.split(',').nth(6).and_then(|v| v.trim().parse().ok());
            let latitude = latitude.filter(|deg| (-90.0..=90.0).contains(deg));
            found.typical = says_typical(first);
            let how = Understanding {
                latitude_deg: latitude.unwrap_or(how.latitude_deg),
                ..how.clone()
            };
            epw(&mut reader, &mut found);
            found.preview(&how)
        }
        Some(_) => {
            table(&mut reader, how, &mut found);
            found.preview(how)
        }
        None => {
            found.problem(
                1,
                "",
                say!("the file is empty"),
                say!("give a date and a minimum in each row"),
            );
            found.preview(how)
        }
    };
    Ok(preview)
}

/// Whether the first line of an EPW file says that it is of a typical year: the source of its data
/// is its fourth field.
fn says_typical(first: &str) -> bool {
    let source = first.split(',').nth(4).unwrap_or_default();
    let source = source.to_ascii_uppercase();
    ["TMY", "IWEC", "CWEC", "TRY", "DSY", "TYPICAL"]
        .iter()
        .any(|word| source.contains(word))
}
