// Keeps what did not change: equal parts of a new answer become the old objects again, so that
// only what really changed is drawn anew.

export function reused<T>(old: unknown, fresh: T): T {
  if (Object.is(old, fresh)) return fresh;
  if (typeof old !== 'object' || typeof fresh !== 'object' || !old || !fresh) return fresh;
  if (Array.isArray(old) !== Array.isArray(fresh)) return fresh;
  const before = old as Record<string, unknown>;
  const after = fresh as Record<string, unknown>;
  const names = Object.keys(after);
  let same = names.length === Object.keys(before).length;
  for (const name of names) {
    const kept = reused(before[name], after[name]);
    same &&= Object.is(kept, before[name]) && name in before;
    after[name] = kept;
  }
  return same ? (old as T) : fresh;
}
