//! Warmth: mats, chambers, and what seed germinates in.

crate::advice::judgement::judgements! {
    mat_covered: Bay,
    mat_in_a_sealed_box: Trays,
    closed_air_too_hot: Bay,
    root_zone_wrong: Trays,
    too_cold_for_seedlings: Trays,
    warm_and_dim: Trays,
    bolts_from_cold: Trays,
    falls_behind: Trays,
    frost_over_the_frame: Trays,
    frame_too_hot: Trays,
    mat_still_on: Trays,
    mat_cannot_reach: Trays,
    probe_in_the_wrong_place: Bay,
    nothing_comes_up: Plan,
}
