//! How one flat is shared among kinds: by rows of cells, or by packs of six.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::plan::tray::CellBlock;
use crate::room::container::TrayFormat;

/// What a flat is shared by.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum By {
    /// Rows of cells across the flat.
    #[default]
    Rows,
    /// Packs of six cells.
    Packs,
}

/// Cells of a pack along the flat's length and across it, as far as six of them go into the flat
/// without a rest.
fn pack(format: &TrayFormat) -> Option<[u32; 2]> {
    let packs = [[2, 3], [3, 2], [1, 6], [6, 1]].into_iter();
    let mut whole =
        packs.filter(|[x, y]| format.columns.is_multiple_of(*x) && format.rows.is_multiple_of(*y));
    whole.next()
}

/// A row or a pack, as a block of cells, from one end of the flat to the other.
fn units(format: &TrayFormat, by: By) -> Option<Vec<CellBlock>> {
    let [long, wide] = match by {
        By::Rows => [1, format.rows],
        By::Packs => pack(format)?,
    };
    let across = |y: u32| {
        (0..format.columns / long).map(move |x| CellBlock {
            columns: [x * long, (x + 1) * long],
            rows: [y * wide, (y + 1) * wide],
        })
    };
    Some((0..format.rows / wide).flat_map(across).collect())
}

/// Why a flat cannot be shared so.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Indivisible {
    /// Its cells make no packs of six.
    NoPacks,
    /// It has so many rows or packs, and more kinds want one.
    TooMany(u32),
}

/// The cells of a flat of `format` for kinds that want so many cells each: one row or pack for every
/// kind, the rest to whoever has least of what it wants; the same for all where `even`. All cells
/// are given away, but for what `even` leaves over.
///
/// # Errors
/// Why it cannot be.
pub fn divide(
    format: &TrayFormat,
    wants: &[u32],
    by: By,
    even: bool,
) -> Result<Vec<Vec<CellBlock>>, Indivisible> {
    let units = units(format, by).ok_or(Indivisible::NoPacks)?;
    if wants.len() > units.len() {
        return Err(Indivisible::TooMany(units.len() as u32));
    }
    let mut given = vec![1_u32; wants.len()];
    if even {
        given.fill((units.len() / wants.len().max(1)) as u32);
    }
    for _ in given.iter().sum::<u32>()..units.len() as u32 {
        let lacks = |i: &usize| f64::from(given[*i]) / f64::from(wants[*i].max(1));
        let least = (0..wants.len()).min_by(|a, b| lacks(a).total_cmp(&lacks(b)));
        match least {
            Some(i) if !even => given[i] += 1,
            _ => break,
        }
    }
    let mut left = units.into_iter();
    let shares = given.iter().map(|&n| {
        let own = left.by_ref().take(n as usize);
        own.fold(Vec::new(), joined)
    });
    Ok(shares.collect())
}

/// `blocks` with `next`, which is made one with the last where it lies right beside it.
fn joined(mut blocks: Vec<CellBlock>, next: CellBlock) -> Vec<CellBlock> {
    match blocks.last_mut() {
        Some(last) if last.rows == next.rows && last.columns[1] == next.columns[0] => {
            last.columns[1] = next.columns[1];
        }
        _ => blocks.push(next),
    }
    blocks
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::room::shelf;

    fn format(id: &str) -> TrayFormat {
        let all = &shelf::library().containers;
        all.iter().find(|format| format.id == id).unwrap().clone()
    }

    fn cells(shares: &[Vec<CellBlock>]) -> Vec<u32> {
        let of = |blocks: &Vec<CellBlock>| blocks.iter().map(CellBlock::cells).sum();
        shares.iter().map(of).collect()
    }

    #[test]
    fn six_cells_of_each_of_twelve_kinds_fill_a_flat_of_six_packs() {
        let shares = divide(&format("six-packs"), &[6; 12], By::Packs, false).unwrap();
        assert_eq!(cells(&shares), [6; 12]);
        let all: Vec<CellBlock> = shares.concat();
        for (i, block) in all.iter().enumerate() {
            assert!(all[i + 1..].iter().all(|other| !block.overlaps(other)));
        }
    }

    #[test]
    fn rows_go_to_whoever_lacks_most_and_evenly_where_asked() {
        let flat = format("cells-72");
        let shares = divide(&flat, &[12, 30, 20], By::Rows, false).unwrap();
        assert_eq!(cells(&shares).iter().sum::<u32>(), 72);
        assert!(
            cells(&shares).is_sorted_by(|a, b| a != b) || cells(&shares)[1] > cells(&shares)[2]
        );
        // Each kind's rows lie together.
        assert!(shares.iter().all(|blocks| blocks.len() == 1));
        let even = divide(&flat, &[12, 30, 20], By::Rows, true).unwrap();
        assert_eq!(cells(&even), [24, 24, 24]);
    }

    #[test]
    fn too_many_kinds_and_cells_that_make_no_packs_are_said() {
        let flat = format("cells-72");
        let many = divide(&flat, &[1; 13], By::Rows, false);
        assert_eq!(many, Err(Indivisible::TooMany(12)));
        let pots = format("pots-8");
        assert_eq!(
            divide(&pots, &[1], By::Packs, false),
            Err(Indivisible::NoPacks)
        );
    }
}
