// What somebody types into a search: names, and how many plants.

/** Lower case, without accents: "Zürich" is found by "zurich". */
export function plain(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}

/** "tomato 12" or "12 tomato": a name, and a number where one is given. */
export function nameAndNumber(text: string): { name: string; number: number | undefined } {
  const behind = /^(.*?)\s+(\d{1,5})$/.exec(text.trim());
  const before = /^(\d{1,5})\s+(.*)$/.exec(text.trim());
  const [name, number] = behind
    ? [behind[1], behind[2]]
    : before
      ? [before[2], before[1]]
      : [text, undefined];
  return { name: name!.trim(), number: number === undefined ? undefined : Number(number) };
}

/** Those whose name holds all words that were typed, the best first: exact, then by how it begins. */
export function matching<T>(all: T[], text: string, named: (one: T) => string): T[] {
  const wanted = plain(text.trim());
  if (!wanted) return [];
  const words = wanted.split(/\s+/);
  const rank = (one: T) => {
    const name = plain(named(one));
    if (!words.every((word) => name.includes(word))) return 9;
    if (name === wanted) return 0;
    if (name.startsWith(wanted)) return 1;
    return name.split(/[^\p{L}\p{N}]+/u).some((part) => part.startsWith(words[0]!)) ? 2 : 3;
  };
  return all
    .map((one) => ({ one, rank: rank(one) }))
    .filter(({ rank }) => rank < 9)
    .sort((a, b) => a.rank - b.rank || named(a.one).length - named(b.one).length)
    .map(({ one }) => one);
}
