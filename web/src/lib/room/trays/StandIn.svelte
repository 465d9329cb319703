<script lang="ts">
  // Chooses the bay that trays stand in, from one of their stages on or from the date looked at.
  import type { BaySpots, Stage } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import CheckField from '../../fields/CheckField.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import { spotsFor } from './held.svelte';
  import { stand } from './move';

  interface Props {
    label: string;
    trays: string[];
    stage: Stage;
    /** The bay that it stands in now, as `place/tier`; empty where there is none. */
    now?: string;
    ondone: () => void;
  }
  const { label, trays, stage, now = '', ondone }: Props = $props();

  type When = 'date' | 'stage';
  let when = $state<When>('stage');
  let stacked = $state(false);
  const words = $derived(bench.words);
  const from = $derived(when === 'date' ? bench.date : undefined);
  const whens = $derived<Record<When, string>>({
    stage: `as long as the tray ${{ germinate: 'germinates', grow: 'grows', harden: 'hardens off', out: 'is out' }[stage]}`,
    date: `from ${words.shortDate(bench.date)} on`,
  });

  let fits: Record<string, BaySpots> = $state.raw({});
  $effect(() => {
    const [first] = trays;
    if (first) void spotsFor(first, stage, from, stacked).then((found) => (fits = found));
  });
  const bays = $derived.by(() => {
    const kept = (place: string, tier: string) =>
      bench.places.find((p) => p.id === place)?.tiers.find((t) => t.id === tier)?.storage;
    const all = (bench.room?.bays ?? []).filter(({ bay }) => !kept(bay.place, bay.tier));
    const named = all.map(({ bay, name }) => {
      const id = `${bay.place}/${bay.tier}`;
      const against = fits[id]?.against;
      return [id, against ? `${name} (${words.say(against)})` : name];
    });
    return Object.fromEntries([...(now ? [] : [['', 'choose a shelf']]), ...named]) as Record<
      string,
      string
    >;
  });

  /** The first bay that nothing speaks against, until another is chosen. */
  let chosen = $state('');
  const best = $derived(
    Object.keys(bays).find((id) => id && id !== now && fits[id] && !fits[id].against) ?? now,
  );
  const to = $derived(chosen || best);

  async function go() {
    const [place, tier] = to.split('/');
    // Once it is done the trays that it is about may be gone from the list.
    const onto = stacked ? { stacked } : undefined;
    const standing = place && tier ? stand(trays, stage, { place, tier }, from, onto) : undefined;
    ondone();
    await standing;
  }
</script>

{#if (bench.room?.bays ?? []).length === 0}
  <p>No shelf to stand trays on yet: press <b>Build</b> and take a rack, a bench or a chamber.</p>
{:else}
  <div class="flex flex-col gap-1">
    {#if now}
      <ChoiceField label="When" value={when} choices={whens} onset={(to) => (when = to)} />
    {/if}
    {#if stage === 'germinate'}
      <CheckField
        label="Stacked on trays there while they germinate"
        value={stacked}
        onset={(yes) => (stacked = yes)}
      />
    {/if}
    <ChoiceField {label} value={to} choices={bays} onset={(id) => (chosen = id)} />
    <button class="quiet self-start border-frame! font-semibold" disabled={!to} onclick={go}
      >{now ? 'Move there' : trays.length > 1 ? 'Stand trays there' : 'Stand tray there'}</button
    >
  </div>
{/if}
