<script lang="ts">
  // What a place is set to otherwise from a date on: doors, lamps over what germinates, mats under
  // what grows.
  import type { Place, PlaceSetting } from '../../api/client';
  import { placePath, replace } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import { airings, begun, isClosed, type Aired, type Airing } from './airing';

  const { place }: { place: Place } = $props();
  const words = $derived(bench.words);
  const path = $derived(placePath(bench.draft!, place.id));
  const settings = $derived(place.settings ?? []);

  type What = 'lamps_germinating' | 'mats_growing' | 'domes_growing' | 'shut';
  const said: Record<What, [string, string]> = {
    lamps_germinating: ['lamps on while trays germinate', 'lamps off while trays germinate'],
    mats_growing: ['mats stay on under what grows', 'mats off once all is up'],
    domes_growing: ['domes stay on over what grows', 'domes off once all is up'],
    shut: ['doors shut', 'doors open'],
  };
  const choices = $derived(
    Object.fromEntries(
      (Object.keys(said) as What[])
        .filter((what) => what !== 'shut' || 'closet' in place.kind)
        .flatMap((what) => [
          [`${what}:on`, said[what][0]],
          [`${what}:off`, said[what][1]],
        ])
        .concat(
          isClosed(place)
            ? Object.entries(airings).map(([aired, words]) => [`airing:${aired}`, words])
            : [],
        ),
    ) as Record<string, string>,
  );
  const tiers = $derived(
    Object.fromEntries([
      ['', 'all shelves'],
      ...place.tiers.map((tier) => [tier.id, tier.name]),
    ]) as Record<string, string>,
  );
  let chosen = $state('lamps_germinating:on');
  let tier = $state('');

  const sayOf = (setting: PlaceSetting) =>
    (Object.keys(said) as What[])
      .filter((what) => setting[what] != null)
      .map((what) => said[what][setting[what] ? 0 : 1])
      .concat(setting.airing ? [airingOf(setting.airing)] : [])
      .join(', ');

  function airingOf({ hours, from_h, over_c, gap_mm }: Airing): string {
    if (hours === 0) return airings.never;
    const gap = words.number(gap_mm, 'length_mm');
    return over_c == null
      ? `opened ${gap} from ${words.number(from_h, 'clock_h')} for ${words.number(hours, 'hours')}`
      : `opened ${gap} when over ${words.number(over_c, 'temperature_c')}`;
  }

  function keep(next: PlaceSetting[], word: string) {
    const op = place.settings ? replace(`${path}/settings`, next) : undefined;
    bench.keep([op ?? { op: 'add', path: `${path}/settings`, value: next }], word);
  }

  function add() {
    const [what, on] = chosen.split(':') as [What | 'airing', string];
    const whole = what === 'shut' || what === 'airing';
    const setting: PlaceSetting = {
      from: bench.date,
      ...(what === 'airing'
        ? { airing: begun(on as Aired) ?? { gap_mm: 50, from_h: 0, hours: 0 } }
        : { [what]: on === 'on' }),
      ...(tier && !whole ? { tier } : {}),
    };
    keep([...settings, setting], `set ${place.name}: ${sayOf(setting)}`);
  }
</script>

<section aria-label="Set otherwise from a date on">
  <h3>Set otherwise from a date on</h3>
  <ul>
    {#each settings as setting, i (i)}
      <li class="flex items-center justify-between gap-2 border-t">
        <span
          >From {words.shortDate(setting.from)}: {sayOf(setting)}{setting.tier
            ? `, ${tiers[setting.tier]}`
            : ''}</span
        >
        <button
          class="quiet"
          aria-label="Remove what is set from {words.shortDate(setting.from)}"
          onclick={() =>
            keep(
              settings.filter((_, other) => other !== i),
              `${place.name} as before`,
            )}>✕</button
        >
      </li>
    {/each}
  </ul>
  <div class="mt-1 flex flex-col gap-2">
    <ChoiceField label="What" value={chosen} {choices} onset={(to) => (chosen = to)} />
    <ChoiceField label="Where" value={tier} choices={tiers} onset={(to) => (tier = to)} />
  </div>
  <button class="quiet mt-1 border-line!" onclick={add}
    >Set this from {words.shortDate(bench.date)} on</button
  >
</section>
