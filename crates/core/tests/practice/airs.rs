//! What growers say of closed boxes, frames, jugs, damp and moving air.

use super::{HEAD, row};
use jiff::civil::date;
use serde_json::{Value, json};
use sunrise_core::air::fan::speed_m_s;
use sunrise_core::crops::library;
use sunrise_core::day::water::TrayWater;
use sunrise_core::room::{Cover, CoverShape, Glazing, Opens, shelf};
use sunrise_core::testing::kettle_fen;
use sunrise_core::warmth::chamber::{ChamberDay, ChamberSetUp};
use sunrise_core::warmth::root_zone::{RootZone, RootZoneDay};
use sunrise_core::warmth::under_cover::{UnderCover, Weather, under_cover};

fn chamber(set_up: Value) -> ChamberDay {
    let set_up: ChamberSetUp = serde_json::from_value(set_up).unwrap();
    set_up.day().unwrap()
}

fn roots(set_up: Value) -> RootZoneDay {
    let set_up: RootZone = serde_json::from_value(set_up).unwrap();
    set_up.day().unwrap()
}

/// The coolest under `cover` and outdoors on 15 March, in °C, in such weather.
fn in_march(cover: Cover, weather: Weather) -> (UnderCover, f64) {
    let plan = kettle_fen(|_| ());
    let frame = plan.places.iter().find(|place| place.cover().is_some());
    let place = frame.expect("a cold frame").with_cover(cover);
    let day = date(2027, 3, 15);
    let air = under_cover(&plan.site, &place, day, weather).expect("it is covered");
    // A clear night is three degrees colder than a usual one.
    let colder = if weather == Weather::Clear { 3.0 } else { 0.0 };
    (air, plan.site.year_outdoors().on(day).night_c - colder)
}

pub fn table() -> String {
    let mut out = String::from("## Air, closed in, outdoors and moved\n\n");
    out += HEAD;

    let foil = chamber(json!({
        "width_mm": 1220, "depth_mm": 610, "height_mm": 450,
        "walls": [{"thickness_mm": 10, "conductivity_w_mk": 0.04}],
        "vents": [
            {"width_mm": 60, "height_mm": 20, "at_mm": 30}, {"width_mm": 60, "height_mm": 20, "at_mm": 420},
        ],
        "shelves_mm": [20], "day_c": 20, "night_c": 18, "humidity": 0.45, "wet_kg": 14, "wet_m2": 0.24,
        "heaters": [{"watts": 45, "at_mm": 20}, {"watts": 45, "at_mm": 20}],
    }));
    let shelf_of = &foil.shelves[0];
    let mix = roots(json!({
        "air": {"day_c": shelf_of.most_c, "night_c": shelf_of.least_c, "humidity": shelf_of.mean_humidity},
        "tray": {"length_mm": 540, "width_mm": 280, "free_sides": 0.5},
        "mat": {"watts": 45, "length_mm": 550, "width_mm": 520, "cover": 0.95},
    }));
    out += &row(
        "A foil box with two mats and small holes: about 29 °C in the air, 32 °C in the mix",
        format!(
            "Two mats of 45 W, holes of 60 x 20 mm, four open trays: {:.0} °C at {:.0} % humidity, {:.0} °C in the mix",
            shelf_of.mean_c,
            100.0 * shelf_of.mean_humidity,
            mix.mean_c
        ),
        "The air agrees within a few degrees; a mat without a thermostat warms the mix more than growers see",
    );

    let closet = |wet_m2: f64, gap_mm: f64| {
        chamber(json!({
            "width_mm": 1400, "depth_mm": 700, "height_mm": 2300,
            "walls": [{"thickness_mm": 12, "conductivity_w_mk": 0.2}],
            "vents": [
                {"width_mm": 700, "height_mm": gap_mm, "at_mm": 5},
                {"width_mm": 700, "height_mm": gap_mm, "at_mm": 2290},
            ],
            "shelves_mm": [300, 900, 1500], "day_c": 25, "night_c": 24, "humidity": 0.29, "wet_kg": 40,
            "wet_m2": wet_m2, "lamps": [{"watts": 180, "at_mm": 1300, "from_h": 6, "hours": 16}],
        }))
    };
    let (dry, damp) = (closet(0.0, 5.0), closet(1.0, 5.0));
    out += &row(
        "A shut closet with lamps climbs to 30 °C; its air is 29 % humid with the door open",
        format!(
            "180 W, gaps of 5 mm: {:.0} °C and {:.0} % empty, {:.0} °C and {:.0} % with 2.5 m² of open trays",
            dry.shelves[1].most_c,
            100.0 * dry.shelves[1].mean_humidity,
            damp.shelves[1].most_c,
            100.0 * damp.shelves[1].mean_humidity
        ),
        "Agrees: warmth alone dries the air, and trays damp and cool it again",
    );

    let (frame, usual_night) = in_march(Cover::USUAL, Weather::Usual);
    let (clear, clear_night) = in_march(Cover::USUAL, Weather::Clear);
    let straw = Cover {
        night_mat: true,
        ..Cover::USUAL
    };
    let (under_straw, _) = in_march(straw, Weather::Clear);
    out += &row(
        "A closed cold frame keeps off 2 to 4 °C by night, less on a clear one; straw helps",
        format!(
            "In the middle of March {:+.1} K on a usual night, {:+.1} K on a clear one, {:+.1} K under straw",
            frame.least_c - usual_night,
            clear.least_c - clear_night,
            under_straw.least_c - clear_night
        ),
        "Below it without straw: boards over bare soil, nothing banked up and no water in it; straw is reckoned dry and tight",
    );

    let jugs = Cover {
        shape: CoverShape::Jugs,
        glazing: Glazing::Film,
        opens: Opens::Never,
        ..Cover::USUAL
    };
    let (jug, _) = in_march(jugs, Weather::Usual);
    let (jug_clear, _) = in_march(jugs, Weather::Clear);
    out += &row(
        "Clear jugs sown in winter freeze at night and are warm in the sun",
        format!(
            "In the middle of March {:+.1} K by night, up to {:.0} °C on a clear day",
            jug.least_c - usual_night,
            jug_clear.most_c
        ),
        "Agrees: they protect from rain and mice more than from frost, and seed in them waits for spring",
    );

    let film = |hours: f64| {
        chamber(json!({
            "width_mm": 1220, "depth_mm": 460, "height_mm": 450,
            "walls": [{"thickness_mm": 0.2, "conductivity_w_mk": 0.2}],
            "vents": [
                {"width_mm": 1220, "height_mm": 3, "at_mm": 0}, {"width_mm": 1220, "height_mm": 3, "at_mm": 450},
            ],
            "shelves_mm": [0], "day_c": 15.6, "night_c": 15.6, "humidity": 0.45, "wet_kg": 14,
            "lamps": [{"watts": 144, "at_mm": 300, "from_h": 6, "hours": hours}],
        }))
    };
    let tomato = library().get("tomato").unwrap().curve();
    let days = |day: &ChamberDay| tomato.days_over(&day.shelves[0].air_c).unwrap();
    let (lit, dark) = (film(16.0), film(0.0));
    out += &row(
        "Film over a lit shelf in a room of 15.6 °C germinates tomatoes without a mat",
        format!(
            "144 W for 16 h under film: {:.0} °C on the mean, half up in {:.0} days, in place of {:.0}",
            lit.shelves[0].mean_c,
            days(&lit),
            days(&dark)
        ),
        "Agrees, as long as the lamps burn: film alone warms nothing",
    );

    let pot = shelf::library()
        .containers
        .iter()
        .filter(|format| format.cell_ml > 200.0)
        .min_by(|a, b| a.cell_ml.total_cmp(&b.cell_ml))
        .expect("a pot");
    let lasts = |humidity: f64| {
        let zone = roots(json!({
            "air": {"day_c": 22, "night_c": 18, "humidity": humidity},
            "tray": {"length_mm": pot.length_mm, "width_mm": pot.width_mm},
            "mix": {"depth_mm": pot.cell_depth_mm, "wetness": 0.8},
            "light": {"ppfd": 250, "from_h": 6, "hours": 16},
        }));
        TrayWater::of(pot, zone.evaporation_kg_m2_d)
            .lasts_days
            .unwrap()
    };
    out += &row(
        "Pots full of leaves want water every day or two at 29 % humidity",
        format!(
            "Pots of {:.0} ml under lamps last {:.1} days at 29 % and {:.1} at 60 %",
            pot.cell_ml,
            lasts(0.29),
            lasts(0.60)
        ),
        "Slower than growers see: leaves beyond the rim and a fan over them are not counted yet",
    );

    // Two by two, each has half of its sides against others.
    let four = |under: Value| {
        roots(json!({
            "air": {"day_c": 18, "night_c": 15, "humidity": 0.45},
            "tray": {"length_mm": 540, "width_mm": 280, "free_sides": 0.5}, "dome": true,
            "mat": {"watts": 100, "length_mm": 1220, "width_mm": 520, "cover": 0.95},
            "under": under,
        }))
    };
    let (on_wires, on_board) = (
        four(json!([])).lift_k,
        four(json!([{"thickness_mm": 16, "conductivity_w_mk": 0.13}])).lift_k,
    );
    out += &row(
        "Four domed trays on one large mat are lifted 5 to 11 °C, as one is on a small mat",
        format!("100 W of 1220 x 520 mm: {on_wires:.1} K on wires, {on_board:.1} K on board"),
        "Agrees on wires; on board still over it, where a lid that lies loosely lets out more than is counted",
    );

    let fan = |mm: f64| speed_m_s(120.0, 60.0, mm);
    out += &row(
        "A small fan at one end of a rack does not stir the far end",
        format!(
            "120 mm, 60 m³/h: {:.2} m/s at 400 mm and {:.2} m/s at 1200 mm, where 0.2 stirs leaves",
            fan(400.0),
            fan(1200.0)
        ),
        "Not in the free: rims, leaves and lamps in its way, which growers see stop it, are not counted yet",
    );
    out
}
