// Looking something up by its words.
import { SvelteSet } from 'svelte/reactivity';
import type { BayRef } from '../api/client';
import { bench } from '../bench/workbench.svelte';

export interface Found {
  kind: 'place' | 'bay' | 'sowing' | 'tray' | 'finding';
  title: string;
  detail: string;
  /** A finding's own name. */
  id?: string;
  bay?: BayRef | undefined;
  place?: string | undefined;
  date?: string | undefined;
}

/** Crops, trays, bays and findings whose words hold `text`. */
export function find(text: string): Found[] {
  const wanted = text.trim().toLowerCase();
  if (!wanted || !bench.draft) return [];
  const hits: Found[] = [];
  const seen = new SvelteSet<string>();
  const add = (found: Found) => {
    const said = `${found.kind} ${found.title} ${found.detail}`;
    const key = found.id ?? said;
    if (!said.toLowerCase().includes(wanted) || seen.has(key)) return;
    seen.add(key);
    hits.push(found);
  };
  const sowings = bench.assessment?.sowings ?? [];
  for (const { id, name } of bench.places) {
    add({ kind: 'place', title: name, detail: '', place: id });
  }
  for (const bay of bench.room?.bays ?? []) {
    add({ kind: 'bay', title: bay.name, detail: '', bay: bay.bay });
  }
  for (const dates of sowings) {
    const detail = `sow ${bench.words.shortDate(dates.sow)}, out ${bench.words.shortDate(dates.out)}`;
    add({ kind: 'sowing', title: dates.name, detail, date: dates.sow });
  }
  for (const tray of bench.draft.trays) {
    const parts = tray.parts.map((part) => sowings.find((s) => s.sowing === part.sowing));
    const up = tray.stands.find((stand) => stand.stage === 'grow');
    add({
      kind: 'tray',
      title: tray.name,
      detail: parts.map((dates) => dates?.name ?? '').join('; '),
      bay: (up ?? tray.stands[0])?.bay,
      date: (up ? parts[0]?.emerge : undefined) ?? parts[0]?.sow,
    });
  }
  for (const finding of bench.findings()) {
    add({
      kind: 'finding',
      title: bench.words.say(finding.headline),
      detail: bench.words.say(finding.reason),
      id: finding.id,
      bay: finding.bay ?? undefined,
      place: finding.place ?? undefined,
      date: finding.days.from,
    });
  }
  return hits.slice(0, 12);
}
