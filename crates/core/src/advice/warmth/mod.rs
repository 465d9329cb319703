//! Warmth: mats, chambers, and what seed germinates in.

crate::advice::judgement::judgements! {
    mat_covered: Bay,
    mat_in_a_sealed_box: Bay,
    closed_air_too_hot: Bay,
    root_zone_wrong: Bay,
    too_cold_for_seedlings: Bay,
    warm_and_dim: Bay,
    bolts_from_cold: Bay,
    falls_behind: Bay,
    frost_over_the_frame: Bay,
    frame_too_hot: Bay,
    mat_still_on: Bay,
    mat_cannot_reach: Bay,
    probe_in_the_wrong_place: Bay,
    nothing_comes_up: Plan,
}
