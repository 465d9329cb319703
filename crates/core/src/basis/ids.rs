//! Identifiers and names that are still free in a list.

/// `id`, with a number behind it when it is taken already.
pub fn free_id<'a>(id: &str, taken: impl Iterator<Item = &'a String> + Clone) -> String {
    // A copy of a copy counts on from the first.
    let base = match id.rsplit_once('-') {
        Some((base, n)) if !base.is_empty() && n.parse::<u32>().is_ok() => base,
        _ => id,
    };
    let base: String = base.chars().take(34).collect();
    let is_taken = |id: &str| taken.clone().any(|other| other == id);
    if !is_taken(id) {
        return id.to_owned();
    }
    (2..)
        .map(|n| format!("{base}-{n}"))
        .find(|id| !is_taken(id))
        .expect("a plan's lists are short")
}

/// `name`, with a number behind it when it is taken already.
pub fn free_name<'a>(name: &str, taken: impl Iterator<Item = &'a String> + Clone) -> String {
    let base = match name.rsplit_once(' ') {
        Some((base, n)) if n.parse::<u32>().is_ok() => base,
        _ => name,
    };
    let base: String = base.chars().take(110).collect();
    let is_taken = |name: &str| taken.clone().any(|other| other == name);
    if !is_taken(name) {
        return name.to_owned();
    }
    (2..)
        .map(|n| format!("{base} {n}"))
        .find(|name| !is_taken(name))
        .expect("a plan's lists are short")
}
