//! Sowings: their dates, their seed and what is next for them.

crate::advice::judgement::judgements! {
    season_too_short: Plan,
    mixed_tray_misfit: Plan,
    frost_after_planting_out: Sowing,
    sown_too_early: Sowing,
    sown_too_late: Sowing,
    better_sown_outdoors: Sowing,
    out_too_early: Sowing,
    ready_after_frost: Sowing,
    too_warm_for_seed: Sowing,
    packet_too_old: Sowing,
    few_came_up: Sowing,
    too_few_seeds: Sowing,
    too_few_cells: Sowing,
    too_few_pots: Sowing,
    cold_must_begin: Sowing,
    pot_on_now: Sowing,
    cell_too_small: Sowing,
    slips_want_fresh_water: Sowing,
    harden_off_now: Sowing,
}
