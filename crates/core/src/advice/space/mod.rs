//! Space: decks, posts, doors and the floor.

crate::advice::judgement::judgements! {
    deck_over_rating: Trays,
    dome_does_not_fit: Trays,
    no_headroom: Trays,
    bare_chipboard_under_water: Trays,
    drips_on_mains: Trays,
    drowns_in_the_rain: Trays,
    trays_overhang: Trays,
    rack_over_rating: Place,
    tall_and_unbraced: Place,
    heavy_trays_high: Place,
    stands_nowhere: Plan,
    trays_clash: Plan,
    places_overlap: Plan,
    no_standing_room: Plan,
    built_in_the_room: Plan,
    out_of_reach: Plan,
}
