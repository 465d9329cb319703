<script lang="ts">
  // Packets of seed: what they are, how old, how many are left, and what a test said.
  import { SvelteSet } from 'svelte/reactivity';
  import type { Crop, Packet } from '../api/client';
  import { setOptional, replace } from '../bench/edits';
  import AsMeasured from '../learn/AsMeasured.svelte';
  import CheckField from '../fields/CheckField.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NameField from '../fields/NameField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { bench } from '../bench/workbench.svelte';

  const { crops }: { crops: Crop[] } = $props();

  const words = $derived(bench.words);
  const packets = $derived(bench.draft?.packets ?? []);
  const open = new SvelteSet<string>();
  const sources = { bought: 'bought', saved: 'saved from own plants', given: 'swapped or given' };
  const nameOf = $derived((id: string) => crops.find((crop) => crop.id === id)?.name ?? id);
  const names = $derived(Object.fromEntries(crops.map((crop) => [crop.id, crop.name])));
  /** What the season takes from each packet. */
  const taken = $derived.by(() => {
    const seeds: Record<string, number> = {};
    for (const cells of bench.assessment?.to_sow ?? [])
      if (cells.packet && cells.to_sow)
        seeds[cells.packet] = (seeds[cells.packet] ?? 0) + cells.to_sow.seeds;
    return seeds;
  });
  const aliveOf = $derived((id: string) => {
    const cells = bench.assessment?.to_sow?.find((c) => c.packet === id);
    return cells?.to_sow?.viability;
  });

  function optional(i: number, packet: Packet, field: keyof Packet, value: unknown) {
    bench.keep(
      setOptional(`/packets/${i}/${field}`, value, packet[field] !== undefined),
      `${field} of the packet of ${packet.variety}`,
    );
  }
  let adding = $state('tomato');
  function add() {
    const year = Number((bench.draft?.season.from ?? '2027').slice(0, 4)) - 1;
    const base = `${adding}-${year}`.slice(0, 34);
    const ids = new Set(packets.map((packet) => packet.id));
    let id = base;
    for (let n = 2; ids.has(id); n++) id = `${base}-${n}`;
    const start = bench.facts.forms?.starts.packet;
    if (!start) return;
    const packet: Packet = { ...start, id, crop: adding, variety: nameOf(adding), year };
    bench.keep(
      [{ op: 'add', path: '/packets', value: [...packets, packet] }],
      `a packet of ${packet.variety}`,
    );
    open.add(id);
  }
</script>

<ul data-testid="packets">
  {#each packets as packet, i (packet.id)}
    {@const alive = aliveOf(packet.id)}
    {@const wants = taken[packet.id]}
    <li class="border-t py-1">
      <button
        class="block w-full py-1 text-left"
        aria-expanded={open.has(packet.id)}
        onclick={() => (open.has(packet.id) ? open.delete(packet.id) : open.add(packet.id))}
      >
        <b>{nameOf(packet.crop)}</b>
        {packet.variety}, {packet.year}
        <span class="block text-sm text-soft"
          >{packet.seeds == null ? 'not counted' : `${packet.seeds} seeds`}{#if alive}, {words.number(
              alive.share,
              'share',
            )} alive{/if}{#if wants}, <span
              class:text-wine={packet.seeds != null && wants > packet.seeds}
              >this season needs {wants}</span
            >{/if}</span
        >
      </button>
      {#if open.has(packet.id)}
        <div class="grid grid-cols-3 items-end gap-2 pb-2">
          <NameField
            label="Variety"
            value={packet.variety}
            onset={(name) =>
              bench.keep([replace(`/packets/${i}/variety`, name)], `renamed a packet`)}
          />
          <NameField
            label="Lot"
            value={packet.lot ?? ''}
            onset={(lot) => optional(i, packet, 'lot', lot || undefined)}
          />
          <NumberField
            label="Packed in"
            value={packet.year}
            quantity="count"
            onset={(year) =>
              bench.keep([replace(`/packets/${i}/year`, Math.round(year))], `year of a packet`)}
          />
          <NumberField
            label="Seeds left"
            value={packet.seeds ?? undefined}
            quantity="count"
            onset={(n) => optional(i, packet, 'seeds', Math.round(n))}
            onclear={() => optional(i, packet, 'seeds', undefined)}
          />
          <NumberField
            label="Rate on the packet"
            value={packet.stated ?? undefined}
            quantity="share"
            onset={(share) => optional(i, packet, 'stated', share)}
            onclear={() => optional(i, packet, 'stated', undefined)}
          />
          <ChoiceField
            label="From"
            value={packet.source}
            choices={sources}
            onset={(source) =>
              bench.keep([replace(`/packets/${i}/source`, source)], `source of a packet`)}
          />
          <NumberField
            label="Test: sprouted"
            value={packet.test?.sprouted}
            quantity="count"
            onset={(n) =>
              optional(i, packet, 'test', {
                sprouted: Math.round(n),
                of: Math.max(packet.test?.of ?? 10, Math.round(n), 1),
              })}
            onclear={() => optional(i, packet, 'test', undefined)}
          />
          <NumberField
            label="of so many"
            value={packet.test?.of}
            quantity="count"
            onset={(n) =>
              optional(i, packet, 'test', {
                sprouted: Math.min(packet.test?.sprouted ?? 0, Math.round(n)),
                of: Math.round(n),
              })}
            onclear={() => optional(i, packet, 'test', undefined)}
          />
          <CheckField
            label="Kept cold and dry"
            value={packet.cold}
            onset={(yes) => bench.keep([replace(`/packets/${i}/cold`, yes)], `storing of a packet`)}
          />
          {#if packet.counted}
            <div class="col-span-3">
              <AsMeasured
                learned={packet.counted}
                quantity="share"
                before="By what came up,"
                after="of it is alive"
                back="By its test and age"
                onback={() => optional(i, packet, 'counted', undefined)}
              />
            </div>
          {/if}
          {#if alive}<p class="col-span-3 text-sm text-soft">
              {words.number(alive.share, 'share')} alive, {words.number(alive.low, 'share')} to {words.number(
                alive.high,
                'share',
              )}: {words.say(alive.basis)}.
            </p>{/if}
          <button
            class="quiet border-line!"
            onclick={() =>
              bench.keep(
                [
                  ...(bench.draft?.sowings ?? []).flatMap((sowing, s) =>
                    sowing.packet === packet.id
                      ? [{ op: 'remove' as const, path: `/sowings/${s}/packet` }]
                      : [],
                  ),
                  { op: 'remove', path: `/packets/${i}` },
                ],
                `threw the packet of ${packet.variety} away`,
              )}>Remove packet</button
          >
        </div>
      {/if}
    </li>
  {:else}
    <li class="text-soft">No packets yet: we assume fresh, bought seed. Add yours below.</li>
  {/each}
</ul>
<div class="mt-2 flex items-end gap-2">
  <ChoiceField label="A packet of" value={adding} choices={names} onset={(id) => (adding = id)} />
  <button class="quiet border-line!" onclick={add}>Add</button>
</div>
