//! What was reckoned before, within bounds: what nobody asked for lately is forgotten first.

use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};

/// How many bytes several memories take together, and may take.
#[derive(Debug)]
pub(super) struct Used {
    bytes: AtomicUsize,
    most: usize,
}

impl Used {
    pub(super) fn up_to(most: usize) -> Self {
        Self {
            bytes: AtomicUsize::new(0),
            most,
        }
    }

    pub(super) fn is_full(&self) -> bool {
        self.bytes.load(Ordering::Relaxed) > self.most
    }
}

/// Answers by their questions, those asked for last at the end.
#[derive(Debug)]
pub(super) struct Memory<K, V> {
    entries: Vec<Entry<K, V>>,
    most: usize,
    used: Arc<Used>,
}

#[derive(Debug)]
struct Entry<K, V> {
    key: K,
    value: Arc<V>,
    bytes: usize,
}

impl<K: PartialEq, V> Memory<K, V> {
    /// Keeps up to `most` answers, and no more than fit with what else is `used`.
    pub(super) fn new(most: usize, used: Arc<Used>) -> Self {
        Self {
            entries: Vec::new(),
            most,
            used,
        }
    }

    /// The answer to `key`, if it is known.
    pub(super) fn get(&mut self, key: &K) -> Option<Arc<V>> {
        let at = self.entries.iter().rposition(|entry| entry.key == *key)?;
        let entry = self.entries.remove(at);
        let value = Arc::clone(&entry.value);
        self.entries.push(entry);
        Some(value)
    }

    /// Keeps an answer that takes `bytes`, forgetting others for it.
    pub(super) fn keep(&mut self, key: K, value: V, bytes: usize) -> Arc<V> {
        while self.entries.len() >= self.most {
            self.forget_oldest();
        }
        self.used.bytes.fetch_add(bytes, Ordering::Relaxed);
        while self.used.is_full() && self.forget_oldest() {}
        let value = Arc::new(value);
        self.entries.push(Entry {
            key,
            value: Arc::clone(&value),
            bytes,
        });
        value
    }

    /// Forgets what was asked for longest ago; false when there is nothing.
    pub(super) fn forget_oldest(&mut self) -> bool {
        if self.entries.is_empty() {
            return false;
        }
        let gone = self.entries.remove(0);
        self.used.bytes.fetch_sub(gone.bytes, Ordering::Relaxed);
        true
    }
}

impl<K, V> Drop for Memory<K, V> {
    fn drop(&mut self) {
        let bytes = self.entries.iter().map(|entry| entry.bytes).sum();
        self.used.bytes.fetch_sub(bytes, Ordering::Relaxed);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_not_asked_for_lately_is_forgotten_first() {
        let used = Arc::new(Used::up_to(100));
        let mut memory = Memory::new(usize::MAX, Arc::clone(&used));
        for n in 0..10 {
            memory.keep(n, n * n, 10);
        }
        assert_eq!(memory.get(&0).as_deref(), Some(&0));
        memory.keep(10, 100, 10);
        assert_eq!(memory.get(&0).as_deref(), Some(&0));
        assert_eq!(memory.get(&1), None);
        assert!(!used.is_full());
    }

    #[test]
    fn memories_share_their_bounds_and_give_back_what_they_took() {
        let used = Arc::new(Used::up_to(100));
        let mut one = Memory::new(usize::MAX, Arc::clone(&used));
        let mut other = Memory::new(3, Arc::clone(&used));
        one.keep(1, (), 90);
        for n in 0..5 {
            other.keep(n, (), 20);
        }
        // What does not fit beside the rest still answers, alone.
        assert_eq!(other.entries.len(), 1);
        drop(one);
        for n in 0..5 {
            other.keep(n, (), 20);
        }
        assert_eq!(other.entries.len(), 3);
        drop(other);
        assert_eq!(used.bytes.load(Ordering::Relaxed), 0);
    }
}
