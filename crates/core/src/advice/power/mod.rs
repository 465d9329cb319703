//! Power: what circuits, plugs, strips, timers and chains may carry, and mains beside water.

crate::advice::judgement::judgements! {
    circuit_overloaded: Plan,
    fuse_overloaded: Plan,
    strip_overloaded: Plan,
    timer_overloaded: Plan,
    chain_over_limit: Plan,
    heater_on_a_strip: Plan,
    strip_in_a_strip: Plan,
    no_residual_current_device: Plan,
    strip_on_the_floor: Plan,
    timer_in_the_wet: Plan,
    too_many_plugs: Plan,
    one_timer_many_hours: Plan,
    timer_cannot_be_set: Plan,
    plugged_in_nowhere: Plan,
    prices_below_nothing: Plan,
}
