<script lang="ts">
  // The shelf of generic kinds: a tap puts one into the picked bay or the room, a drag puts it
  // where it is let go.
  import type { BayRef, Edit, Fan, Lamp, Mat, Place, TrayFormat } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import { carry } from '../carry.svelte';

  type Tab = 'places' | 'lamps' | 'mats' | 'fans' | 'containers';
  const tabs: Record<Tab, string> = {
    places: 'Places',
    lamps: 'Lamps',
    mats: 'Heat mats',
    fans: 'Fans',
    containers: 'Containers',
  };
  let tab = $state<Tab>('places');
  const words = $derived(bench.words);
  // The plan may come after the shelf, where the address opens both.
  $effect(() => {
    const units = bench.draft?.site.units;
    if (units) void bench.facts.fetchKinds(units);
  });
  const kinds = $derived<(Place | Lamp | Mat | Fan | TrayFormat)[]>(bench.facts.kinds?.[tab] ?? []);
  const intoBay = $derived(tab === 'lamps' || tab === 'mats' || tab === 'fans');

  function size(kind: Place | Lamp | Mat | Fan | TrayFormat): string {
    const length = (mm: number) => words.bare(mm, 'length_mm');
    const unit = words.unit('length_mm').unit;
    if ('tiers' in kind)
      return `${length(kind.width_mm)} × ${length(kind.depth_mm)} × ${length(kind.height_mm)} ${unit}`;
    if ('flux_lm' in kind) return words.number(kind.flux_lm, 'flux_lm');
    if ('flow_m3_h' in kind) return words.number(kind.flow_m3_h, 'flow_m3_h');
    if ('thermostat_c' in kind && kind.thermostat_c != null)
      return `holds ${words.number(kind.thermostat_c, 'temperature_c')}`;
    return `${length(kind.length_mm)} × ${length(kind.width_mm)} ${unit}`;
  }

  function put(id: string, bay: BayRef | undefined) {
    if (intoBay && !bay) {
      bench.tell('done', 'Select a shelf first, or drag the item onto one.');
      return;
    }
    const edits: Record<Tab, () => Edit> = {
      places: () => ({ add_place: { kind: id } }),
      lamps: () => ({ add_lamp: { bay: bay!, kind: id } }),
      mats: () => ({ add_mat: { bay: bay!, kind: id } }),
      fans: () => ({ add_fan: { bay: bay!, kind: id } }),
      containers: () => ({ add_format: { kind: id } }),
    };
    void bench.edit(edits[tab]());
  }

  function press(event: PointerEvent, id: string, name: string) {
    carry.press(event, name, ({ bay, inRoom }) => {
      if (intoBay ? bay : inRoom) put(id, bay);
    });
  }

  function tap(id: string) {
    if (!carry.wasDragged()) put(id, bench.hand.selected);
  }
</script>

<section class="card mx-4 mb-3 flex min-w-0 flex-col gap-1 px-3 py-2" aria-label="Shelf of kinds">
  <div class="flex flex-wrap items-center gap-1" role="group" aria-label="Kinds">
    {#each Object.entries(tabs) as [id, name] (id)}
      <button
        class="quiet min-h-8! py-0! text-sm"
        class:bg-straw-soft!={tab === id}
        aria-pressed={tab === id}
        onclick={() => (tab = id as Tab)}>{name}</button
      >
    {/each}
    <span class="ml-auto text-sm text-soft max-md:hidden">
      {#if intoBay}
        {bench.bay ? `into ${bench.bay.name}` : 'select a shelf, or drag onto one'}
      {:else if tab === 'places'}
        typical sizes: change them to match yours
      {:else}
        into the plan’s own list
      {/if}
    </span>
  </div>
  <!-- It scrolls, so keys must reach it. -->
  <ul class="flex gap-2 overflow-x-auto py-1" data-testid="shelf">
    {#each kinds as kind (kind.id)}
      <li class="shrink-0">
        <button
          class="flex h-full touch-pan-x flex-col rounded-lg border border-line bg-paper px-3 py-1.5 text-left hover:border-coral"
          onpointerdown={(event) => press(event, kind.id, kind.name)}
          onclick={() => tap(kind.id)}
          ondragstart={(event) => event.preventDefault()}
        >
          <span class="max-w-52 leading-tight font-semibold">{kind.name}</span>
          <span class="text-sm text-soft">{size(kind)}</span>
        </button>
      </li>
    {:else}
      <li class="text-soft">Loading…</li>
    {/each}
  </ul>
</section>
