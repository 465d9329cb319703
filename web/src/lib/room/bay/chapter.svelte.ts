// Which chapter of a shelf's sheet is open: the same when the next shelf is looked at.
export const chapters = [
  { id: 'light', name: 'Light' },
  { id: 'warmth', name: 'Warmth' },
  { id: 'air', name: 'Air' },
  { id: 'trays', name: 'Trays' },
  { id: 'space', name: 'Space' },
  { id: 'gear', name: 'Gear' },
] as const;

export type ChapterId = (typeof chapters)[number]['id'];

/** The chapter that an address names. */
export function chapterFrom(text: string | null): ChapterId {
  return chapters.find((one) => one.id === text)?.id ?? 'light';
}

class Chapter {
  open: ChapterId = $state('light');
}

export const chapter = new Chapter();

/** The chapter that a finding belongs to, by the folder of its judgement. */
export function chapterOf(topic: string): ChapterId {
  const found = { light: 'light', warmth: 'warmth', air: 'air', space: 'space', sowing: 'trays' }[
    topic
  ];
  return (found ?? 'light') as ChapterId;
}
