//! Light: how lamps hang and burn, and what seedlings get.

crate::advice::judgement::judgements! {
    dark_after_emergence: Trays,
    germinates_in_the_dark: Trays,
    leaves_too_near: Trays,
    leaves_bleach: Trays,
    too_many_hours: Trays,
    window_too_dark: Trays,
    wire_above_lamp: Bay,
    storage_shades: Trays,
    hang_lamps: Trays,
    too_little_light: Trays,
    stretches_in_a_crowd: Trays,
    seedlings_stretch: Trays,
    light_wasted: Trays,
    lights_in_quiet_hours: Trays,
    tray_elsewhere: Trays,
    lamp_blocks_trays: Trays,
}
