//! What growers say about lamps.

use super::{HEAD, row};
use sunrise_core::basis::units::dli_mol_m2_d;
use sunrise_core::light::beam::Beam;
use sunrise_core::light::emitter::{Emitter, Optics};
use sunrise_core::light::enclosure::{Enclosure, Faces, Fineness};
use sunrise_core::light::facing::Facing;
use sunrise_core::light::falloff::Spread;
use sunrise_core::light::photons::umol_per_s_per_klm;
use sunrise_core::room::LampFamily;
use sunrise_core::room::LampFamily::{FluorescentStandard, WhiteLed};

const HOURS: f64 = 16.0;
/// The bands of daily light in mol/m²/d (from memory of extension bulletins).
const FRUITING: [f64; 2] = [10.0, 17.0];
const STRETCHES_UNDER: f64 = 5.0;

/// An even bed of seedlings under lamps in a bay; lengths in mm.
struct Bed {
    size: [f64; 3],
    sides: f64,
    ceiling: f64,
    lamps: Vec<Emitter>,
}

fn lamp(middle: [f64; 2], size: [f64; 2], lm: f64, of: (LampFamily, f64), m: f64) -> Emitter {
    let half = size.map(|mm| mm / 2.0);
    Emitter {
        x_mm: [middle[0] - half[0], middle[0] + half[0]],
        y_mm: [middle[1] - half[1], middle[1] + half[1]],
        z_mm: 0.0,
        flux: lm / 1000.0 * umol_per_s_per_klm(of.0, of.1),
        optics: Optics::Beam(Beam::new(m)),
    }
}

impl Bed {
    /// PPFD over cells 45 mm apart, up to 30 mm from the edges, with leaves at `leaves_mm` and the
    /// faces `gap_mm` above them.
    fn light(&self, leaves_mm: f64, gap_mm: f64) -> Spread {
        let faces = Faces {
            floor: 0.08,
            ceiling: self.ceiling,
            left: self.sides,
            right: self.sides,
            front: self.sides,
            back: self.sides,
        };
        let bay = Enclosure::new(self.size, faces, Faces::default(), Fineness::Quick);
        let lamps: Vec<Emitter> = self
            .lamps
            .iter()
            .map(|lamp| Emitter {
                z_mm: leaves_mm + gap_mm,
                ..lamp.clone()
            })
            .collect();
        let back = bay.lit(&lamps, Faces::default());
        let along = |side: f64| {
            let n = ((side - 60.0) / 45.0) as u32;
            (0..=n).map(move |i| 30.0 + (side - 60.0) * f64::from(i) / f64::from(n))
        };
        let mut cells = Vec::new();
        for x in along(self.size[0]) {
            for y in along(self.size[1]) {
                let at = [x, y, leaves_mm];
                let direct: f64 = lamps.iter().map(|l| l.irradiance(at, Facing::Up)).sum();
                cells.push(direct + back.irradiance_up(at)[0]);
            }
        }
        Spread::of(&cells)
    }

    fn daily(&self, leaves_mm: f64, gap_mm: f64) -> Spread {
        let Spread { mean, least, most } = self.light(leaves_mm, gap_mm);
        Spread {
            mean: dli_mol_m2_d(mean, HOURS),
            least: dli_mol_m2_d(least, HOURS),
            most: dli_mol_m2_d(most, HOURS),
        }
    }

    /// The largest gap, in steps of 5 mm, at which `enough` still holds.
    fn widest(&self, leaves_mm: f64, enough: impl Fn(Spread) -> bool) -> f64 {
        let gaps = (1..=300).map(|i| f64::from(i) * 5.0);
        gaps.filter(|&gap| enough(self.daily(leaves_mm, gap)))
            .fold(0.0, f64::max)
    }
}

pub fn table() -> String {
    let led = (WhiteLed, 5000.0);
    let tier = |rows: &[f64]| Bed {
        size: [1220.0, 457.0, 500.0],
        sides: 0.0,
        ceiling: 0.15,
        lamps: rows
            .iter()
            .map(|&y| lamp([610.0, y], [1150.0, 40.0], 5000.0, led, 1.0))
            .collect(),
    };
    let two = tier(&[130.0, 327.0]).daily(60.0, 75.0);
    let one = tier(&[228.5]).daily(60.0, 75.0);

    let tubes = Bed {
        lamps: [185.0, 272.0]
            .iter()
            .map(|&y| {
                let of = (FluorescentStandard, 4200.0);
                lamp([610.0, y], [1170.0, 26.0], 2000.0, of, 1.0)
            })
            .collect(),
        ..tier(&[])
    };
    let tubes_gap = tubes.widest(60.0, |dli| dli.most >= FRUITING[0]);
    let [tubes_near, tubes_far] = [40.0, 300.0].map(|gap| tubes.daily(60.0, gap));

    let panel = Bed {
        size: [1830.0, 760.0, 1600.0],
        sides: 0.0,
        ceiling: 0.0,
        lamps: vec![lamp([915.0, 380.0], [600.0, 550.0], 45_000.0, led, 1.0)],
    };
    let panel_at = panel.daily(60.0, 750.0);
    let panel_least = (1..=300)
        .map(|i| f64::from(i) * 5.0)
        .find(|&gap| panel.daily(60.0, gap).most <= 40.0)
        .unwrap();

    let high_bay = Bed {
        size: [900.0, 600.0, 1600.0],
        sides: 0.0,
        ceiling: 0.0,
        lamps: vec![lamp([450.0, 300.0], [260.0, 260.0], 22_000.0, led, 1.0)],
    };
    let [burn_150, burn_300, burn_600] = [150.0, 300.0, 600.0].map(|gap| high_bay.light(60.0, gap));

    let foil = Bed {
        size: [1200.0, 500.0, 450.0],
        sides: 0.9,
        ceiling: 0.9,
        lamps: [90.0, 250.0, 410.0]
            .iter()
            .map(|&y| lamp([600.0, y], [1130.0, 22.0], 2200.0, led, 1.0))
            .collect(),
    };
    let open = Bed {
        sides: 0.0,
        ceiling: 0.0,
        lamps: foil.lamps.clone(),
        ..foil
    };
    // Bars under the deck above, leaves from the bare mix up to a hand's breadth of plant.
    let [foil_low, foil_high] = [(60.0, 360.0), (160.0, 260.0)].map(|(z, gap)| foil.daily(z, gap));
    let [open_low, open_high] = [(60.0, 360.0), (160.0, 260.0)].map(|(z, gap)| open.daily(z, gap));

    let mut out = String::from(
        "## Light\n\n\
         Daily light (DLI) in mol/m²/d over cells up to 30 mm from the edge, lamps new, 16 h a day; \
         fruiting crops want 10 to 17, under 5 stretches.\n\n",
    );
    out += HEAD;
    out += &row(
        "Two 5,000 lm lamps over a tier of 1.2 m are enough; one leaves seedlings reaching",
        format!(
            "Two at 75 mm over the leaves: mean {:.1}, worst {:.1}. One: mean {:.1}, worst {:.1}",
            two.mean, two.least, one.mean, one.least
        ),
        "Agrees on the mean, which two bring into the band and one does not. The corners stay short under both: lamps of 1150 mm do not light the ends of 1220 mm",
    );
    out += &row(
        "Under fluorescent tubes seedlings want to be within 25 to 50 mm",
        format!(
            "Two standard tubes of 2,000 lm: at 40 mm mean {:.1}, best {:.1}; at 300 mm mean {:.1}, best {:.1}; the best cells reach the fruiting band up to {:.0} mm",
            tubes_near.mean, tubes_near.most, tubes_far.mean, tubes_far.most, tubes_gap
        ),
        "Agrees: the fruiting band is reached only near the tubes and right under them, and from 300 mm all stretch. The mean over so wide a deck never reaches it: two tubes serve one row of trays",
    );
    out += &row(
        "A strong panel hangs near 750 mm over an open table",
        format!(
            "45,000 lm over 1830 x 760 mm at 750 mm: mean {:.1}, worst {:.1}, best {:.1}; nearer than {:.0} mm the best cell passes 40",
            panel_at.mean, panel_at.least, panel_at.most, panel_least
        ),
        "Agrees for the middle of the table, where the best cell just reaches the top of the band; the ends of a table this long stay short",
    );
    out += &row(
        "A lamp of 22,000 lm can burn a plant well below it",
        format!(
            "PPFD right below: {:.0} at 150 mm, {:.0} at 300 mm, {:.0} at 600 mm (full sun is about 2000)",
            burn_150.most, burn_300.most, burn_600.most
        ),
        "Agrees for light that seedlings are not used to; whether leaves scorch depends on heat and hardening too, which the model leaves out",
    );
    out += &row(
        "Three bars of 2,200 lm in a foil box need no adjusting",
        format!(
            "Leaves from 60 to 160 mm: mean {:.1} to {:.1}, worst {:.1} to {:.1}; the same bars without foil: mean {:.1} to {:.1}, worst {:.1} to {:.1}",
            foil_low.mean,
            foil_high.mean,
            foil_low.least,
            foil_high.least,
            open_low.mean,
            open_high.mean,
            open_low.least,
            open_high.least
        ),
        "Agrees: with foil all around the light hardly changes as plants grow, and the corners keep up with the middle",
    );

    // The words above hold only as long as the figures do.
    assert!(two.mean >= FRUITING[0] && two.mean <= FRUITING[1]);
    assert!(one.mean < FRUITING[0] && one.least < two.least && two.least < STRETCHES_UNDER);
    assert!(tubes_near.most >= FRUITING[0] && tubes_near.mean < FRUITING[0]);
    assert!(tubes_far.most < STRETCHES_UNDER && (40.0..200.0).contains(&tubes_gap));
    assert!((FRUITING[1] - 1.0..=FRUITING[1] + 1.0).contains(&panel_at.most));
    assert!(panel_at.least < STRETCHES_UNDER && panel_least < 750.0);
    assert!(burn_150.most > 2000.0 && burn_300.most > 800.0);
    assert!((foil_high.mean / foil_low.mean - 1.0).abs() < 0.15);
    assert!(foil_low.least > 0.7 * foil_low.mean);
    assert!(open_high.mean > 1.15 * open_low.mean);
    out
}
