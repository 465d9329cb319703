#![allow(missing_docs)]
use sunrise_core::light::fields::Fields;
use sunrise_core::plan::Plan;
use sunrise_core::season::Reckoned;
#[test]
fn show() {
    let plan: Plan = serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
    let plan = plan.check().unwrap();
    let fields = Fields::default();
    let t = std::time::Instant::now();
    let r = Reckoned::of(&plan, &fields);
    println!("reckoned {:?}", t.elapsed());
    let t = std::time::Instant::now();
    let _ = sunrise_core::season::dates_again(&plan, &fields);
    println!("dates again {:?}", t.elapsed());
    let t = std::time::Instant::now();
    let _ = sunrise_core::season::growing::Growing::of(&plan, &r.dates, &fields);
    println!("growing again {:?}", t.elapsed());
    for d in &r.dates {
        println!(
            "{} sow {} up {:?} pot {:?} harden {} out {} pace {:?}",
            d.name, d.sow, d.emerge, d.pot_on, d.harden, d.out, d.pace
        );
    }
    for (i, tray) in plan.trays.iter().enumerate() {
        for (j, part) in tray.parts.iter().enumerate() {
            let g = r.growing.of_part(i, j).unwrap();
            let crop = plan.crop(&plan.sowings[plan.sowing_index(&part.sowing)]);
            let show: Vec<String> = [6usize, 13, 20, 27, 34, 41, 55]
                .iter()
                .filter_map(|d| {
                    let up = r.dates[plan.sowing_index(&part.sowing)].emerge?;
                    let s = g.on(sunrise_core::basis::dates::plus_days(up, *d as i32))?;
                    Some(format!(
                        "{}d {:.0}mm x{:.2} size {:.2} {:.0}ml {:?}",
                        d + 1,
                        s.height_mm,
                        s.stretched(),
                        s.size(crop),
                        s.filled_ml(crop),
                        s.behind_by()
                    ))
                })
                .collect();
            println!(
                "{} {} (out {} mm, cell {}): {}",
                tray.name,
                crop.id,
                crop.height_out_mm,
                plan.format(tray).cell_ml,
                show.join(" | ")
            );
        }
    }
}
