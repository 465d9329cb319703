//! Light: how lamps hang and burn, and what seedlings get.

crate::advice::judgement::judgements! {
    dark_after_emergence: Bay,
    germinates_in_the_dark: Bay,
    leaves_too_near: Bay,
    leaves_bleach: Bay,
    too_many_hours: Bay,
    window_too_dark: Bay,
    wire_above_lamp: Bay,
    storage_shades: Bay,
    hang_lamps: Bay,
    too_little_light: Bay,
    stretches_in_a_crowd: Bay,
    seedlings_stretch: Bay,
    light_wasted: Bay,
    lights_in_quiet_hours: Bay,
    tray_elsewhere: Bay,
    lamp_blocks_trays: Bay,
}
