//! Air: how damp and how still it is, and what dries.

crate::advice::judgement::judgements! {
    mould_weather: Trays,
    dries_before_back: Trays,
    dome_too_long: Trays,
    dries_while_germinating: Trays,
    stays_too_wet: Trays,
    fan_falls_short: Trays,
}
