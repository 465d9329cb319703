// Looking something up by its words: what is in the plan, what could be, and where things are done.
import { SvelteSet } from 'svelte/reactivity';
import type { BayRef } from '../api/client';
import type { ChapterId } from '../room/bay/chapter.svelte';
import { bench } from '../bench/workbench.svelte';
import { plain } from '../start/asked';

export interface Found {
  kind: 'place' | 'shelf' | 'sowing' | 'tray' | 'advice' | 'gear' | 'crop' | 'where';
  title: string;
  detail: string;
  /** A finding's own name. */
  id?: string;
  bay?: BayRef | undefined;
  place?: string | undefined;
  date?: string | undefined;
  chapter?: ChapterId;
  /** The sowing whose row is opened. */
  sowing?: string;
  /** The crop of the library to sow. */
  crop?: string;
  /** The page it is on. */
  href?: string;
}

/** What the interface calls things, where they are, and what else people call them. */
const PLACES: { title: string; href: string; words: string }[] = [
  {
    title: 'Heat mats: who needs one, and when',
    href: '/#mats',
    words: 'heated mat propagation mat bottom heat thermostat share',
  },
  {
    title: 'Containers',
    href: '/#containers',
    words: 'trays pots cells flats modules plugs 1020 soil blocks',
  },
  { title: 'While you are away', href: '/#away', words: 'holiday vacation watering' },
  { title: 'Floor plan', href: '/#floor', words: 'room size width depth door from above' },
  {
    title: 'Packets and germination tests',
    href: '/seeds',
    words: 'seed packet viability germination rate old seed',
  },
  { title: 'How many seeds to sow', href: '/seeds', words: 'seeds per cell spare certainty' },
  {
    title: 'Share a flat among several kinds',
    href: '/sowing',
    words: 'mixed tray six-packs rows',
  },
  { title: 'Labels and tray plans to print', href: '/print', words: 'print label plant tag' },
  {
    title: 'Last frost and frost records',
    href: '/setup',
    words: 'frost date minima weather station csv epw',
  },
  { title: 'Calendar of jobs', href: '/setup', words: 'ical ics subscribe reminders' },
  {
    title: 'Quiet hours and cheap-rate hours',
    href: '/setup',
    words: 'tariff night rate off-peak electricity price kwh',
  },
  {
    title: 'All plans: open, copy for next year, set aside',
    href: '/setup#plans',
    words: 'season new plan archive delete',
  },
  { title: 'History of edits', href: '/setup', words: 'undo revision bring back' },
  {
    title: 'Units, currency, time zone',
    href: '/setup',
    words: 'inch fahrenheit celsius money mains voltage',
  },
  { title: 'Guided start', href: '/start', words: 'begin wizard help new' },
];

/** A crop, and what else people call it. */
interface Named {
  id: string;
  name: string;
  also_called?: string[];
}

/** Crops, trays, shelves, gear, advice and places to go whose words hold all that is in `text`. */
export function find(text: string, library: Named[] = []): Found[] {
  const wanted = plain(text.trim()).split(/\s+/).filter(Boolean);
  if (wanted.length === 0 || !bench.draft) return [];
  const hits: { found: Found; rank: number }[] = [];
  const seen = new SvelteSet<string>();
  const add = (found: Found, more = '') => {
    const said = plain(`${found.kind} ${found.title} ${found.detail} ${more}`);
    const key = found.id ?? `${found.kind} ${found.title} ${found.detail}`;
    // "zucchinis" is looked up as "zucchini" too.
    const holds = (word: string) =>
      said.includes(word) || said.includes(word.replace(/(es|s)$/, ''));
    if (!wanted.every(holds) || seen.has(key)) return;
    seen.add(key);
    const title = plain(found.title);
    const rank = title.startsWith(wanted[0]!) ? 0 : wanted.every((w) => title.includes(w)) ? 1 : 2;
    hits.push({ found, rank });
  };
  const sowings = bench.assessment?.sowings ?? [];
  const called = new Map(library.map((crop) => [crop.name, crop.also_called?.join(' ') ?? '']));
  const otherNames = (crop: string) => called.get(crop) ?? '';
  for (const { id, name } of bench.places) {
    add({ kind: 'place', title: name, detail: '', place: id }, 'rack shelving cabinet');
  }
  for (const bay of bench.room?.bays ?? []) {
    add({ kind: 'shelf', title: bay.name, detail: '', bay: bay.bay }, 'tier bay level layer');
  }
  for (const dates of sowings) {
    const detail = `sow ${bench.words.shortDate(dates.sow)}, out ${bench.words.shortDate(dates.out)}`;
    const found: Found = { kind: 'sowing', title: dates.name, detail, sowing: dates.sowing };
    add(found, otherNames(dates.crop));
  }
  for (const tray of bench.draft.trays) {
    const parts = tray.parts.map((part) => sowings.find((s) => s.sowing === part.sowing));
    const up = tray.stands.find((stand) => stand.stage === 'grow');
    add(
      {
        kind: 'tray',
        title: tray.name,
        detail: parts.map((dates) => dates?.name ?? '').join('; '),
        bay: (up ?? tray.stands[0])?.bay,
        date: (up ? parts[0]?.emerge : undefined) ?? parts[0]?.sow,
        chapter: 'trays',
      },
      parts.map((dates) => otherNames(dates?.crop ?? '')).join(' '),
    );
  }
  for (const place of bench.places) {
    for (const tier of place.tiers) {
      const bay = { place: place.id, tier: tier.id };
      const where = `${place.name}, ${tier.name}`;
      const gear: [string, { name: string }[]][] = [
        ['lamp light fixture tube grow light', tier.lamps],
        ['heated mat propagation mat bottom heat', tier.mats],
        ['fan air', tier.fans],
      ];
      for (const [words, list] of gear)
        for (const { name } of list)
          add({ kind: 'gear', title: name, detail: where, bay, chapter: 'gear' }, words);
    }
  }
  for (const finding of bench.findings()) {
    add({
      kind: 'advice',
      title: bench.words.say(finding.headline),
      detail: bench.words.say(finding.reason),
      id: finding.id,
      bay: finding.bay ?? undefined,
      place: finding.place ?? undefined,
      ...(finding.sowing ? { sowing: finding.sowing } : {}),
      date: finding.days.from,
    });
  }
  for (const { id, name } of library) {
    add({ kind: 'crop', title: name, detail: 'sow some', crop: id }, otherNames(name));
  }
  for (const { title, href, words } of PLACES)
    add({ kind: 'where', title, detail: '', href }, words);
  hits.sort((a, b) => a.rank - b.rank);
  return hits.slice(0, 14).map((hit) => hit.found);
}
