//! Light against figures from outside.

use sunrise_core::light::photons::{illuminants, umol_per_s_per_klm};
use sunrise_core::light::scene::Scene;
use sunrise_core::room::LampFamily;

/// Ten bays with illuminance from a numerical reference that was cross-checked with a
/// general-purpose ray tracer; `direct_lux` is what comes straight from the emitters.
const SCENES: &str = include_str!("reference/light_scenes.json");

#[test]
fn direct_light_matches_the_reference_scenes_at_every_point() {
    let scenes: Vec<serde_json::Value> = serde_json::from_str(SCENES).unwrap();
    assert_eq!(scenes.len(), 10);
    for value in scenes {
        let scene: Scene = serde_json::from_value(value.clone()).unwrap();
        let name = scene.name.clone().unwrap();
        let light = scene.light().unwrap();
        let expected: Vec<Vec<f64>> = serde_json::from_value(value["direct_lux"].clone()).unwrap();
        assert_eq!(light.direct_lux.len(), expected.len(), "{name}");
        for (row, (got, want)) in light.direct_lux.iter().zip(&expected).enumerate() {
            assert_eq!(got.len(), want.len(), "{name}");
            for (column, (got, want)) in got.iter().zip(want).enumerate() {
                // The bar is 1 %; the reference is printed to four digits.
                assert!(
                    (got / want - 1.0).abs() < 0.002,
                    "{name} at row {row}, column {column}: {got} lux, reference {want}"
                );
            }
        }
    }
}

#[test]
fn faults_of_a_scene_are_named_by_path() {
    let mut scenes: Vec<serde_json::Value> = serde_json::from_str(SCENES).unwrap();
    let scene = &mut scenes[0];
    scene["emitters"][1]["flux_lm"] = (-5).into();
    scene["emitters"][0]["height_mm"] = 381.into();
    scene["grid"]["x_mm"] = serde_json::json!([]);
    let scene: Scene = serde_json::from_value(scene.clone()).unwrap();
    let faults = scene.light().unwrap_err();
    let paths: Vec<&str> = faults.iter().map(|fault| fault.path.as_str()).collect();
    assert_eq!(
        paths,
        ["/emitters/0/height_mm", "/emitters/1/flux_lm", "/grid/x_mm"]
    );
}

#[test]
fn photons_per_lumen_match_the_cie_illuminants() {
    // Computed from the illuminants of CIE 015 and V(lambda) of CIE 1931, K_m = 683 lm/W.
    for (family, cct_k, expected) in [
        (LampFamily::WhiteLed, 2735.0, 14.911),
        (LampFamily::WhiteLed, 2999.0, 14.726),
        (LampFamily::WhiteLed, 4102.0, 14.337),
        (LampFamily::WhiteLed, 5106.0, 13.955),
        (LampFamily::WhiteLed, 6591.0, 14.409),
        (LampFamily::FluorescentTriBand, 3003.0, 12.801),
        (LampFamily::FluorescentTriBand, 4001.0, 13.151),
        (LampFamily::FluorescentTriBand, 4999.0, 13.446),
        (LampFamily::FluorescentTriBand, 5851.0, 13.743),
        (LampFamily::FluorescentStandard, 2940.0, 12.418),
        (LampFamily::FluorescentStandard, 3447.0, 12.542),
        (LampFamily::FluorescentStandard, 4225.0, 13.075),
        (LampFamily::FluorescentStandard, 6425.0, 14.453),
    ] {
        let k = umol_per_s_per_klm(family, cct_k);
        assert!((k - expected).abs() < 1e-9, "{family:?} at {cct_k} K: {k}");
    }
    assert_eq!(illuminants().len(), 44);
}

#[test]
fn photons_per_lumen_lie_between_the_illuminants_and_hold_at_the_ends() {
    let led = |cct| umol_per_s_per_klm(LampFamily::WhiteLed, cct);
    assert!((led(4604.0) - (14.337 + 13.955) / 2.0).abs() < 1e-3);
    assert_eq!(led(2000.0), 14.911);
    assert_eq!(led(9000.0), 14.409);
}
