//! Photometric files: the versions of the format, what a file must not get away with, and what
//! no mangled file may do.

use std::f64::consts::PI;

use sunrise_core::basis::plane::Axis;
use sunrise_core::light::emitter::{Emitter, Optics};
use sunrise_core::light::facing::Facing;
use sunrise_core::light::ies;
use sunrise_core::light::luminaire::Luminaire;
use sunrise_core::light::photometry::Photometry;
use sunrise_core::room::PhotometricType;

/// A Lambertian strip of 1000 cd straight down, so of 1000 π lm, as each version writes it.
fn file(heading: &str, tilt: &str) -> String {
    let vertical: Vec<f64> = (0..=18).map(|i| 5.0 * f64::from(i)).collect();
    let join = |list: Vec<String>| list.join(" ");
    let angles = join(vertical.iter().map(ToString::to_string).collect());
    let candela = join(
        vertical
            .iter()
            .map(|deg| format!("{:.2}", 1000.0 * deg.to_radians().cos()))
            .collect(),
    );
    format!(
        "{heading}{tilt}\n1 3141.6 1.0 19 1 1 2 0.040 1.150 0.0\n1.0 1.0 36\n{angles}\n0\n{candela}\n"
    )
}

fn is_the_strip(lamp: &Luminaire) {
    // Straight lines between measured angles lose a little of a cosine: 0.1 % at 5 degrees.
    assert!(
        (lamp.flux_lm / (1000.0 * PI) - 1.0).abs() < 2e-3,
        "{}",
        lamp.flux_lm
    );
    assert_eq!(lamp.opening_mm, Some([1150.0, 40.0]));
    assert_eq!(lamp.watts, 36.0);
    assert_eq!(lamp.distribution.kind, PhotometricType::C);
}

#[test]
fn every_version_is_read() {
    for heading in [
        "an old strip\nmeasured in a cellar\n",
        "IESNA91\n[TEST] 1\n[MANUFAC] nobody\n[LUMINAIRE] an old strip\n",
        "IESNA:LM-63-1995\n[LUMINAIRE] an old strip\n",
        "IESNA:LM-63-2002\n[TEST] 1\n[LUMINAIRE] an old strip\n[MORE] of ours\n",
        "IES:LM-63-2019\n[LUMINAIRE]  an old strip \n",
    ] {
        let lamp = ies::read(&file(heading, "TILT=NONE")).unwrap();
        is_the_strip(&lamp);
        assert_eq!(lamp.name, "an old strip");
        // Line ends of other systems, commas, and numbers that run on over lines.
        let text = file(heading, "TILT=NONE").replace('\n', "\r\n");
        is_the_strip(&ies::read(&text).unwrap());
    }
    let text = file("", "TILT=NONE").replace("1.0 19 1", "1.0,\n 19,1");
    is_the_strip(&ies::read(&text).unwrap());
}

#[test]
fn tilt_factors_and_multipliers_count() {
    let tilted = file("IESNA91\n", "TILT=INCLUDE\n1\n3\n0 45 90\n0.5 0.8 1.0");
    let lamp = ies::read(&tilted).unwrap();
    assert!(
        (lamp.flux_lm / (500.0 * PI) - 1.0).abs() < 2e-3,
        "{}",
        lamp.flux_lm
    );
    let doubled = file("", "TILT=NONE").replace("3141.6 1.0 19", "-1 2.0 19");
    assert!((ies::read(&doubled).unwrap().flux_lm / (2000.0 * PI) - 1.0).abs() < 2e-3);
    let ballast = file("", "TILT=NONE").replace("\n1.0 1.0 36\n", "\n0.9 1 36\n");
    assert!((ies::read(&ballast).unwrap().flux_lm / (900.0 * PI) - 1.0).abs() < 2e-3);
    // Feet: 1.15 ft is 350.52 mm.
    let feet = file("", "TILT=NONE").replace("19 1 1 2 ", "19 1 1 1 ");
    let [length, _] = ies::read(&feet).unwrap().opening_mm.unwrap();
    assert!((length - 350.52).abs() < 1e-9);
}

#[test]
fn a_file_of_type_b_is_read() {
    let text = "IESNA:LM-63-1995\nTILT=NONE\n1 -1 1 3 3 2 2 0 0 0\n1 1 100\n\
                -45 0 45\n-30 0 30\n0 100 0\n0 400 0\n0 100 0\n";
    let lamp = ies::read(text).unwrap();
    assert_eq!(lamp.distribution.kind, PhotometricType::B);
    assert_eq!(lamp.distribution.candela[1][1], 400.0);
    assert_eq!(lamp.opening_mm, None);
}

#[test]
fn faults_name_their_line() {
    let good = file("IESNA91\n", "TILT=NONE");
    let lines: Vec<&str> = good.lines().collect();
    let with = |line: usize, text: &str| {
        let mut lines: Vec<String> = lines.iter().map(ToString::to_string).collect();
        lines[line - 1] = text.to_owned();
        ies::read(&lines.join("\n")).unwrap_err()
    };
    for (line, text, word) in [
        (2, "TILT=lamp.tlt", "another file"),
        (3, "1 3141.6 x 19 1 1 2 0 0 0", "candela multiplier"),
        (3, "1 3141.6 1.0 19.5 1 1 2 0 0 0", "vertical angles"),
        (3, "1 3141.6 1.0 19 1 9 2 0 0 0", "photometric type"),
        (4, "1 1 nan", "input watts"),
        (5, &lines[4].replace(" 10 ", " 4 "), "do not rise"),
        (6, "400", "horizontal angles"),
        (
            7,
            &lines[6].replace(" 1000.00", "").replacen("996.19", "-3", 1),
            "intensity",
        ),
    ] {
        let fault = with(line, text);
        assert_eq!(fault.path, format!("/lines/{line}"), "{fault}");
        assert!(
            fault.problem.text.len() > 5 && fault.to_string().contains(word),
            "{fault}"
        );
    }
    let short = lines[..5].join("\n");
    assert_eq!(ies::read(&short).unwrap_err().path, "/lines/5");
    assert!(ies::read("").unwrap_err().to_string().contains("LM-63"));
    let dark = file("", "TILT=NONE").replace("3141.6 1.0", "3141.6 0.0");
    assert!(
        ies::read(&dark)
            .unwrap_err()
            .to_string()
            .contains("no lamp")
    );
}

#[test]
fn a_measured_lambertian_strip_lights_as_a_reckoned_one() {
    let lamp = ies::read(&file("", "TILT=NONE")).unwrap();
    let strip = |optics| Emitter {
        x_mm: [0.0, 1150.0],
        y_mm: [-20.0, 20.0],
        z_mm: 300.0,
        flux: 2000.0,
        optics,
    };
    let measured = Photometry::new(&lamp.distribution, Axis::X);
    let measured = strip(Optics::Measured(std::sync::Arc::new(measured)));
    let reckoned = strip(Optics::Beam(sunrise_core::light::beam::Beam::new(1.0)));
    for point in [
        [575.0, 0.0, 0.0],
        [10.0, 200.0, 100.0],
        [1300.0, -50.0, 240.0],
    ] {
        for facing in [Facing::Up, Facing::Front, Facing::Right] {
            let (a, b) = (
                measured.irradiance(point, facing),
                reckoned.irradiance(point, facing),
            );
            // A point right under a strip sees half of it: the sum of points steps there.
            let within = if facing == Facing::Up { 0.01 } else { 0.04 };
            assert!(
                (a - b).abs() < within * b + 0.5,
                "{point:?} {facing:?}: {a} for {b}"
            );
        }
    }
}

#[test]
fn no_mangled_file_breaks_the_reader() {
    fastrand::seed(4);
    let seeds = [
        file("IESNA:LM-63-2002\n[LUMINAIRE] strip\n", "TILT=NONE"),
        file("IESNA91\n", "TILT=INCLUDE\n1\n3\n0 45 90\n0.5 0.8 1.0"),
        "TILT=NONE\n1 -1 1 3 3 2 2 0 0 0\n1 1 100\n-45 0 45\n-30 0 30\n0 9 0\n0 4 0\n0 1 0\n"
            .into(),
    ];
    let tokens = [
        "-1",
        "0",
        "1e308",
        "-1e308",
        "nan",
        "inf",
        "999999999",
        "1000",
        "0.5",
        "TILT=",
        "\n",
        ",",
        "",
        "é",
        "\0",
        "1e-320",
        "360",
        "180",
        "90",
        "x",
    ];
    let (mut lamps, mut faults) = (0, 0);
    for i in 0..10_000 {
        let mut text: Vec<char> = seeds[i % seeds.len()].chars().collect();
        for _ in 0..fastrand::usize(1..=4) {
            let at = fastrand::usize(0..text.len());
            match fastrand::u8(0..5) {
                0 => text.truncate(at + 1),
                1 => {
                    text.remove(at);
                }
                2 => text[at] = fastrand::char(..),
                3 => {
                    let token = tokens[fastrand::usize(0..tokens.len())];
                    // In the place of the number that stands there.
                    let end = text[at..].iter().position(|c| c.is_whitespace());
                    let end = end.map_or(text.len(), |n| at + n);
                    text.splice(at..end, token.chars());
                }
                _ => {
                    let from = fastrand::usize(0..text.len());
                    let piece: Vec<char> = text[from..].iter().take(40).copied().collect();
                    text.splice(at..at, piece);
                }
            }
            if text.is_empty() {
                text.push(' ');
            }
        }
        let text: String = text.into_iter().collect();
        match ies::read(&text) {
            Ok(lamp) => {
                lamps += 1;
                assert!(lamp.flux_lm.is_finite() && lamp.flux_lm > 0.0, "{text}");
                assert!(lamp.watts.is_finite() && lamp.watts >= 0.0, "{text}");
                let data = &lamp.distribution;
                assert!(
                    data.candela
                        .iter()
                        .flatten()
                        .all(|cd| cd.is_finite() && *cd >= 0.0)
                );
                assert_eq!(data.candela.len(), data.horizontal_deg.len());
            }
            Err(fault) => {
                faults += 1;
                let line = fault.path.strip_prefix("/lines/").expect("a line");
                let line: usize = line.parse().expect("a number");
                assert!(
                    (1..=text.split('\n').count()).contains(&line),
                    "{fault}: {text}"
                );
            }
        }
    }
    assert!(
        lamps > 500 && faults > 3000,
        "{lamps} lamps, {faults} faults"
    );
}

/// An EULUMDAT file of `planes` C-planes: cos of the angle off the nadir, brighter along the luminaire
/// (C90) than across (C0) by `along`. `symmetry` says which planes are written.
fn ldt(symmetry: usize, planes: usize, along: f64) -> String {
    let step = 360.0 / planes as f64;
    let gammas: Vec<f64> = (0..=18).map(|i| 5.0 * f64::from(i)).collect();
    let written: Vec<usize> = match symmetry {
        1 => vec![0],
        2 => (0..=planes / 2).collect(),
        3 => (0..=planes / 2)
            .map(|i| (3 * planes / 4 + i) % planes)
            .collect(),
        4 => (0..=planes / 4).collect(),
        _ => (0..planes).collect(),
    };
    let mut lines: Vec<String> = ["nobody", "2"].map(String::from).to_vec();
    lines.extend([symmetry, planes].map(|n| n.to_string()));
    lines.push(format!("{step}"));
    lines.extend([gammas.len().to_string(), "5".into()]);
    lines.extend(["report 1", "a strip", "no. 1", "strip.ldt", "today"].map(String::from));
    lines.extend(["1200", "60", "40", "1150", "40", "0", "0", "0", "0"].map(String::from));
    lines.extend(["100", "100", "1,0", "0", "1"].map(String::from));
    lines.extend(["1", "LED", "3000", "4000 K", "80", "36"].map(String::from));
    lines.extend((0..10).map(|_| "0.5".to_owned()));
    lines.extend((0..planes).map(|i| format!("{}", step * i as f64)));
    lines.extend(gammas.iter().map(ToString::to_string));
    for plane in written {
        let turned = (step * plane as f64).to_radians().sin().powi(2);
        for gamma in &gammas {
            let cd = 300.0
                * gamma.to_radians().cos()
                * (1.0 + along * turned * gamma.to_radians().sin());
            lines.push(format!("{cd:.3}"));
        }
    }
    lines.join("\r\n") + "\r\n"
}

#[test]
fn every_symmetry_of_a_european_file_is_the_same_lamp() {
    use sunrise_core::light::photometric_file;
    let whole = photometric_file::read(&ldt(0, 24, 0.6)).unwrap();
    assert_eq!((whole.name.as_str(), whole.watts), ("a strip", 36.0));
    assert_eq!(whole.opening_mm, Some([1150.0, 40.0]));
    let strip = Photometry::new(&whole.distribution, Axis::X);
    for symmetry in [2, 3, 4] {
        let lamp = photometric_file::read(&ldt(symmetry, 24, 0.6)).unwrap();
        let other = Photometry::new(&lamp.distribution, Axis::X);
        for direction in [
            [0.3, 0.1, -0.9],
            [-0.5, 0.4, -0.7],
            [0.1, -0.8, -0.5],
            [-0.6, -0.2, -0.7],
        ] {
            let (a, b) = (strip.share_per_sr(direction), other.share_per_sr(direction));
            assert!((a - b).abs() < 1e-6, "{symmetry} {direction:?}: {a} {b}");
        }
    }
    // C90 looks along the luminaire, and so along x when it lies so.
    let (along, across) = ([0.7, 0.0, -0.7], [0.0, 0.7, -0.7]);
    assert!(strip.share_per_sr(along) > 1.3 * strip.share_per_sr(across));
    // Round and Lambertian: 300 cd per klm, 3 klm, π.
    let round = photometric_file::read(&ldt(1, 1, 0.0)).unwrap();
    assert!(
        (round.flux_lm / (900.0 * PI) - 1.0).abs() < 3e-3,
        "{}",
        round.flux_lm
    );
}

#[test]
fn a_european_file_that_is_cut_or_changed_is_refused_by_its_line() {
    use sunrise_core::light::photometric_file;
    let file = ldt(0, 24, 0.6);
    let short: String = file
        .lines()
        .take(90)
        .map(|line| format!("{line}\n"))
        .collect();
    assert!(
        photometric_file::read(&short)
            .unwrap_err()
            .path
            .starts_with("/lines/")
    );
    let odd = file.replacen("\r\n0\r\n24\r\n", "\r\n4\r\n22\r\n", 1);
    assert_eq!(photometric_file::read(&odd).unwrap_err().path, "/lines/4");
    let mut random = fastrand::Rng::with_seed(3);
    let mut read = 0;
    for _ in 0..2000 {
        let mut lines: Vec<&str> = file.lines().collect();
        let at = random.usize(0..lines.len());
        match random.u32(0..3) {
            0 => drop(lines.remove(at)),
            1 => lines[at] = random.choice(["-1", "1e9", "x", "", "0"]).unwrap(),
            _ => lines.insert(at, "7"),
        }
        if let Ok(lamp) = photometric_file::read(&lines.join("\n")) {
            read += 1;
            assert!(lamp.flux_lm.is_finite() && lamp.flux_lm > 0.0);
        }
    }
    assert!((50..1900).contains(&read), "{read}");
}

#[test]
fn a_table_of_directions_lights_as_the_measured_angles_do() {
    // Batwing: brightest at 35 degrees, and narrower along than across.
    let vertical_deg: Vec<f64> = (0..=90).map(f64::from).collect();
    let horizontal_deg: Vec<f64> = (0..=72).map(|i| 5.0 * f64::from(i)).collect();
    let cd = |h: f64, v: f64| {
        let (h, v) = (h.to_radians(), v.to_radians());
        v.cos().powf(1.5 + h.cos().powi(2)) * (1.0 + 3.0 * (v.sin() * h.sin()).powi(2)) * 500.0
    };
    let column = |&h: &f64| vertical_deg.iter().map(|&v| cd(h, v)).collect();
    let data = sunrise_core::room::Distribution {
        kind: PhotometricType::C,
        candela: horizontal_deg.iter().map(column).collect(),
        vertical_deg,
        horizontal_deg,
    };
    let table = Photometry::new(&data, Axis::X);
    let lamp = Emitter {
        x_mm: [0.0, 1150.0],
        y_mm: [-20.0, 20.0],
        z_mm: 300.0,
        flux: 1000.0,
        optics: Optics::Measured(std::sync::Arc::new(table.clone())),
    };
    // The same sum, point by point and straight from the angles.
    let exact = |[px, py, pz]: [f64; 3]| {
        let (nx, ny) = (600, 40);
        let mut sum = 0.0;
        for i in 0..nx {
            for j in 0..ny {
                let x = 1150.0 * (f64::from(i) + 0.5) / f64::from(nx) - px;
                let y = 40.0 * (f64::from(j) + 0.5) / f64::from(ny) - 20.0 - py;
                let h: f64 = 300.0 - pz;
                let r = (x * x + y * y + h * h).sqrt();
                let v = (h / r).acos().to_degrees();
                let turn = (-y).atan2(-x).to_degrees();
                sum += cd(turn, v) / table.flux() * h / (r * r * r);
            }
        }
        1000.0 * sum / f64::from(nx * ny) * 1e6
    };
    for point in [
        [575.0, 0.0, 0.0],
        [575.0, 150.0, 0.0],
        [40.0, 90.0, 100.0],
        [1100.0, -220.0, 200.0],
    ] {
        let (a, b) = (lamp.irradiance(point, Facing::Up), exact(point));
        assert!((a / b - 1.0).abs() < 0.005, "{point:?}: {a} for {b}");
    }
}
