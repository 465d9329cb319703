<script lang="ts">
  // Chooses the bay that a tray stands in, from one of its stages on or from the date looked at.
  import type { Stage } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import { move } from './move';

  interface Props {
    label: string;
    tray: string;
    stage: Stage;
    /** The bay that it stands in now, as `place/tier`; empty where there is none. */
    now?: string;
    ondone: () => void;
  }
  const { label, tray, stage, now = '', ondone }: Props = $props();

  type When = 'date' | 'stage';
  let when = $state<When>('stage');
  const words = $derived(bench.words);
  const whens = $derived<Record<When, string>>({
    stage: `all the time that it ${{ germinate: 'germinates', grow: 'grows', harden: 'hardens off', out: 'is out' }[stage]}`,
    date: `from ${words.shortDate(bench.date)} on`,
  });
  const bays = $derived.by(() => {
    const kept = (place: string, tier: string) =>
      bench.places.find((p) => p.id === place)?.tiers.find((t) => t.id === tier)?.storage;
    const all = (bench.room?.bays ?? []).filter(({ bay }) => !kept(bay.place, bay.tier));
    return Object.fromEntries([
      ...(now ? [] : [['', 'choose a bay']]),
      ...all.map(({ bay, name }) => [`${bay.place}/${bay.tier}`, name]),
    ]) as Record<string, string>;
  });

  async function choose(to: string) {
    const [place, tier] = to.split('/');
    const from = when === 'date' ? bench.date : undefined;
    // Once it is done the tray that it is about may be gone from the list.
    const moving = place && tier ? move(tray, stage, { place, tier }, from) : undefined;
    ondone();
    await moving;
  }
</script>

<div class="flex flex-col gap-1">
  {#if now}
    <ChoiceField label="When" value={when} choices={whens} onset={(to) => (when = to)} />
  {/if}
  <ChoiceField {label} value={now} choices={bays} onset={choose} />
</div>
