<script lang="ts">
  // The room as a whole, while no bay is selected.
  import type { Finding } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import { replace } from '../../bench/edits';
  import Away from './Away.svelte';
  import Containers from './Containers.svelte';
  import Findings from '../../finding/Findings.svelte';
  import FloorPlan from './FloorPlan.svelte';
  import Frost from './Frost.svelte';
  import Gear from './Gear.svelte';
  import MakeRoom from './MakeRoom.svelte';
  import Mats from './Mats.svelte';
  import PlaceAll from '../trays/PlaceAll.svelte';
  import CheckField from '../../fields/CheckField.svelte';
  import { following } from '../trays/following.svelte';
  import NumberField from '../../fields/NumberField.svelte';

  const words = $derived(bench.words);
  const room = $derived(bench.room);
  const season = $derived(bench.assessment?.season);
  const today = $derived(season?.days.find((d) => d.date === bench.date));
  // What is about one sowing stands with it, in the Sowing view.
  const findings = $derived(bench.findings().filter((f) => !f.sowing));
  const nameOf = $derived((finding: Finding) => {
    const { bay, place } = finding;
    return bay
      ? room?.bays.find((b) => b.bay.place === bay.place && b.bay.tier === bay.tier)?.name
      : bench.places.find((p) => p.id === place)?.name;
  });
  const sizes = [
    { label: 'Wide', field: 'width_mm' },
    { label: 'Deep', field: 'depth_mm' },
    { label: 'High', field: 'height_mm' },
  ] as const;

  function set(path: string, mm: number) {
    bench.keep(
      [replace(`/room/${path}`, mm)],
      `measured the room: ${words.number(mm, 'length_mm')}`,
    );
  }

  function go(finding: Finding) {
    if (finding.bay) bench.select(finding.bay);
    else if (finding.place) bench.pick({ place: finding.place });
  }
</script>

<h2 class="text-2xl">The room</h2>
<p class="text-soft">{words.date(bench.date)}: select a shelf or a rack</p>

{#if room && today && season}
  <dl class="mt-3 grid grid-cols-2 gap-3" data-testid="room-figures">
    {#each [['stand here', `${today.trays} trays; room for ${season.capacity.standard} standard ones`], ['all draws', words.number(room.power.watts, 'power_w')], ['a day', words.number(room.power.kwh_per_day, 'energy_kwh')], ['costs a day', words.number(room.power.cost_per_day, 'money')]] as [name, value] (name)}
      <div>
        <dt class="text-sm text-soft">{name}</dt>
        <dd class="text-lg font-semibold">{value}</dd>
      </div>
    {/each}
  </dl>
{/if}

<MakeRoom />

{#if bench.draft!.trays.length > 0}
  <h3 class="mt-5 mb-2">Where trays stand</h3>
  <PlaceAll label="Place all trays afresh" afresh />
  <p class="mt-1 text-sm text-soft">
    A spot for every tray on every day: warm while it germinates, lit and high enough while it
    grows, like beside like, with few moves. Trays that you pinned, raised or moved on a date stay.
    It can be undone.
  </p>
  <CheckField
    label="Find spots by itself when an edit leaves trays without one"
    value={following.wanted}
    onset={(yes) => following.want(yes)}
  />
{/if}

<h3 class="mt-5 mb-2">To do</h3>
<div class="flex flex-col gap-3">
  <Findings {findings}>
    {#snippet where(finding)}
      {#if finding.place}
        <button class="mb-1 font-semibold text-teal hover:underline" onclick={() => go(finding)}
          >{nameOf(finding)}</button
        >
      {/if}
    {/snippet}
    {#snippet nothing()}
      {#if bench.places.length === 0 || bench.draft?.trays.length === 0}
        <p class="rounded-xl bg-straw-soft p-3">
          {bench.places.length === 0
            ? 'Nothing stands in this room yet, so there is nothing to judge.'
            : 'Nothing is sown yet, so there is nothing to judge.'}
          <a
            class="font-semibold underline"
            href="/start?step={bench.places.length === 0 ? 'stands' : 'crops'}">Guided start</a
          >
        </p>
      {:else if room && room.unplaced.length === 0}
        <p class="rounded-xl bg-sage-soft p-3">Nothing to put right on this day.</p>
      {:else if room}
        <p class="rounded-xl bg-straw-soft p-3">
          Nothing else to put right, but trays that stand nowhere cannot be judged. Stand the trays
          on the shelf below the room first.
        </p>
      {/if}
    {/snippet}
  </Findings>
</div>

{#if bench.draft}
  <h3 id="floor" class="mt-5 mb-2">Floor plan</h3>
  <FloorPlan />
  <div class="mt-3 grid grid-cols-3 gap-2">
    {#each sizes as { label, field } (field)}
      <NumberField
        {label}
        value={bench.draft.room[field]}
        quantity="length_mm"
        onset={(mm) => set(field, mm)}
      />
    {/each}
    <NumberField
      label="Door, clear width"
      value={bench.draft.room.door.width_mm}
      quantity="length_mm"
      onset={(mm) => set('door/width_mm', mm)}
    />
    <NumberField
      label="Door, clear height"
      value={bench.draft.room.door.height_mm}
      quantity="length_mm"
      onset={(mm) => set('door/height_mm', mm)}
    />
  </div>
  <h3 id="mats" class="mt-5 mb-1">Sharing the heat mats</h3>
  <Mats />
  <h3 id="gear" class="mt-5 mb-1">Shelves and racks that the season needs</h3>
  <Gear />
  <h3 id="frost" class="mt-5 mb-1">If it freezes tonight</h3>
  <Frost />
  <h3 id="away" class="mt-5 mb-1">While you are away</h3>
  <Away />
  <h3 id="containers" class="mt-5 mb-1">Containers</h3>
  <Containers />
{/if}
<p class="mt-4 border-t pt-2 text-sm text-soft">
  <b>Mains and water.</b>
  {bench.assessment?.caution}
</p>
<p class="mt-2 text-sm text-soft"><b>Loads.</b> {bench.assessment?.load_caution}</p>
