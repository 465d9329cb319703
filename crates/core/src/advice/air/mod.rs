//! Air: how damp and how still it is, and what dries.

crate::advice::judgement::judgements! {
    mould_weather: Bay,
    dries_before_back: Bay,
    dome_too_long: Bay,
    dries_while_germinating: Bay,
    stays_too_wet: Bay,
    fan_falls_short: Bay,
}
