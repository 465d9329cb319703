<script lang="ts">
  // One sowing: its dates with their reasons, its cells and seeds, what it is and why.
  import type { Sowing, SowingCells, SowingDates } from '../api/client';
  import { setOptional, replace } from '../bench/edits';
  import CheckField from '../fields/CheckField.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import FindingCard from '../finding/FindingCard.svelte';
  import NameField from '../fields/NameField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import WhyNote from '../finding/WhyNote.svelte';
  import DateField from '../fields/DateField.svelte';
  import Bed from './Bed.svelte';
  import Variety from './Variety.svelte';
  import SowingDays from './SowingDays.svelte';
  import { potOn } from '../room/trays/move';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    dates: SowingDates;
    cells: SowingCells | undefined;
    sowing: Sowing;
    index: number;
  }
  const { dates, cells, sowing, index }: Props = $props();

  const words = $derived(bench.words);
  const path = $derived(`/sowings/${index}`);
  const findings = $derived(bench.findings().filter((f) => f.sowing === sowing.id));
  const reasons = {
    none: 'none given',
    earlier: 'an earlier crop',
    no_free_bed: 'no bed is free yet',
    pests: 'slugs, mice, birds',
    cold_first: 'its seed needs cold',
    to_sell: 'to sell',
    other: 'another',
  };
  const packets = $derived(
    Object.fromEntries([
      ['', 'fresh, bought seed'],
      ...(bench.draft?.packets ?? [])
        .filter((packet) => packet.crop === sowing.crop)
        .map((packet) => [packet.id, `${packet.variety}, ${packet.year}`]),
    ]) as Record<string, string>,
  );
  const outdoors = $derived(bench.assessment?.season.days.find((day) => day.date === dates.harden));
  let stayFrom = $derived(dates.sow);
  let stayTo = $derived(dates.out);
  let times = $state(2);
  let every = $state(14);

  function optional(field: keyof Sowing, value: unknown, word: string) {
    bench.keep(setOptional(`${path}/${field}`, value, sowing[field] !== undefined), word);
  }
  /** The days of potting on, with the trays of cells that each empties. */
  const potting = $derived.by(() => {
    const days: [string, string[]][] = dates.pot_on ? [[dates.pot_on, []]] : [];
    for (const { on, trays } of dates.potting) {
      const own = bench.draft?.trays.filter((other) => !other.potted && trays.includes(other.id));
      if (!own?.length) continue;
      const names = own.map((tray) => tray.name);
      const day = days.find((day) => day[0] === on);
      if (day) day[1].push(...names);
      else days.push([on, names]);
    }
    return days.sort();
  });
  const steps = $derived(
    (
      [
        ['chill', dates.chill],
        ['sow', dates.sow, dates.why.sow, 'sowing date'],
        ['first up', dates.first],
        ['half up: into the light', dates.emerge, dates.why.emerge, 'comes up'],
        ['all up, dome and mat off', dates.last],
        ['thin or prick out', dates.thin],
        ...potting.map(
          (days) =>
            [`pot on${potting.length > 1 ? ` ${days[1].join(', ')}` : ''}`, days[0]] as const,
        ),
        ['harden off', dates.harden],
        ['plant out', dates.out, dates.why.out, 'planting date'],
      ] as const
    ).filter((step) => step[1] != null),
  );
</script>

<div class="grid gap-4 p-3 md:grid-cols-3" data-testid="sowing-sheet">
  <h2 class="sr-only">{dates.name}</h2>
  <div class="flex flex-col gap-3">
    {#each findings as finding, i (finding.id)}
      <FindingCard {finding} first={i === 0} />
    {:else}
      <p class="rounded-xl bg-sage-soft p-3">We have no advice on this sowing.</p>
    {/each}
  </div>
  <div>
    <h3>Dates</h3>
    <dl class="mt-1">
      {#each steps as [name, day, why, of] (name)}
        <div class="flex flex-wrap items-baseline gap-x-2 border-t py-0.5">
          <dt class="w-44 text-soft">{name}</dt>
          <dd class="font-semibold">
            {words.date(day!)}
            {#if why}<WhyNote of={of ?? 'day'} {why} />{/if}
          </dd>
        </div>
      {/each}
    </dl>
    <SowingDays {dates} {sowing} {index} />
    {#if !dates.stands}
      <p class="mt-1 text-sm">
        No tray has a spot yet, so we take the dates {sowing.root_zone_c == null
          ? 'at the room’s temperature'
          : 'at the mix temperature you gave'}.
      </p>
    {/if}
    <p class="mt-1 text-sm text-soft">
      The chance of frost after planting out is {words.number(
        dates.frost_risk_out,
        'share',
      )}{#if dates.pace && Math.abs(dates.pace.lost_days) >= 0.5}; growth is at {words.number(
          dates.pace.rate,
          'share',
        )} of the usual pace there{#if dates.pace.dli != null}, with {words.number(
            dates.pace.dli,
            'dli_mol_m2_d',
          )} of light{/if}: {words.number(Math.abs(dates.pace.lost_days), 'days')}
        {dates.pace.lost_days > 0 ? 'longer' : 'less'}{/if}.
    </p>
    {#if !sowing.stays}<Bed {dates} />{/if}
    {#if outdoors}
      <p class="text-sm text-soft">
        When hardening off begins an average day has {words.number(
          outdoors.outdoors_mol_m2_d,
          'dli_mol_m2_d',
        )} of light outdoors and is {words.number(outdoors.day_length_h, 'hours')} long.
      </p>
    {/if}
    {#if cells?.to_sow}
      {@const sow = cells.to_sow}
      <h3 class="mt-3">How many, in what</h3>
      <p>
        In cells of {words.number(
          cells.cell_ml,
          'volume_ml',
        )}{#if cells.pot_on_ml != null && dates.pot_on}, from {words.shortDate(dates.pot_on)} in pots
          of {words.number(cells.pot_on_ml, 'volume_ml')}{/if}.
      </p>
      {#if cells.pots != null && dates.pot_on}
        <p>
          Its {cells.pots} pots: {cells.pots_there === 0
            ? 'none planned yet'
            : `${cells.pots_there} there`}{#if cells.pots_there < cells.pots}
            <button class="quiet border-line! text-sm" onclick={() => void potOn(sowing.id)}
              >Add pots for them</button
            >{/if}
        </p>
      {/if}
      <p>{words.say(sow.verdict)}.</p>
      {#if cells.warm_first}
        <p class="rounded-lg bg-straw-soft px-2 py-1">{words.say(cells.warm_first)}</p>
      {/if}
      <p class="text-sm text-soft">
        {words.number(sow.viability.share, 'share')} of its seed is alive ({words.number(
          sow.viability.low,
          'share',
        )} to {words.number(sow.viability.high, 'share')}: {words.say(sow.viability.basis)}); {words.number(
          dates.comes_up,
          'share',
        )} of that comes up here.{Math.round(sow.thinnings) > 0
          ? ` Thin out about ${Math.round(sow.thinnings)}.`
          : ''} The trays have {cells.cells_there}
        cells{#if cells.cells_there < sow.cells}, {sow.cells - cells.cells_there} too few{/if}{#if cells.seeds_left != null};
          the packet has {cells.seeds_left < 0 ? 'too few' : `${cells.seeds_left} left`}{/if}.
      </p>
    {:else if cells?.problem}
      <p class="mt-3 text-wine">{words.say(cells.problem)}.</p>
    {/if}
  </div>
  <div class="flex flex-col gap-2">
    <div class="grid grid-cols-2 gap-2">
      <NameField
        label="Variety"
        value={sowing.variety}
        onset={(variety) =>
          bench.keep([replace(`${path}/variety`, variety)], `renamed ${dates.name}`)}
      />
      <NumberField
        label="Plants wanted"
        value={sowing.wanted}
        quantity="count"
        field="{path}/wanted"
        onset={(n) =>
          bench.keep(
            [replace(`${path}/wanted`, Math.round(n))],
            `${Math.round(n)} of ${dates.name}`,
          )}
      />
      <NumberField
        label="Spare plants"
        value={sowing.spare ?? undefined}
        quantity="share"
        field="{path}/spare"
        onset={(share) => optional('spare', share, `spare plants of ${dates.name}`)}
        onclear={() => optional('spare', undefined, `no spare plants of ${dates.name}`)}
      />
      <NumberField
        label="Certainty wanted"
        value={sowing.sure ?? undefined}
        quantity="share"
        field="{path}/sure"
        onset={(sure) => optional('sure', sure, `how sure of ${dates.name}`)}
        onclear={() => optional('sure', undefined, `how sure of ${dates.name}`)}
      />
      <NumberField
        label="Seeds in a cell"
        value={sowing.seeds_per_cell ?? undefined}
        quantity="count"
        field="{path}/seeds_per_cell"
        onset={(n) => optional('seeds_per_cell', Math.round(n), `seeds in a cell of ${dates.name}`)}
        onclear={() => optional('seeds_per_cell', undefined, `seeds in a cell of ${dates.name}`)}
      />
      <NumberField
        label="Days moved"
        value={sowing.shift_days ?? 0}
        quantity="count"
        field="{path}/shift_days"
        onset={(n) => optional('shift_days', Math.round(n) || undefined, `moved ${dates.name}`)}
      />
      <NumberField
        label="Weeks indoors (packet)"
        value={sowing.packet_weeks ?? undefined}
        quantity="weeks"
        field="{path}/packet_weeks"
        onset={(weeks) => optional('packet_weeks', weeks, `weeks indoors of ${dates.name}`)}
        onclear={() => optional('packet_weeks', undefined, `weeks indoors of ${dates.name}`)}
      />
    </div>
    {#if sowing.autumn || dates.raised_for_autumn}
      <CheckField
        label="For the autumn: counted back from the first frost"
        value={sowing.autumn ?? false}
        onset={(yes) =>
          optional(
            'autumn',
            yes || undefined,
            `${dates.name} for the ${yes ? 'autumn' : 'summer'}`,
          )}
      />
    {/if}
    <ChoiceField
      label="Why indoors"
      value={sowing.reason ?? 'none'}
      choices={reasons}
      onset={(reason) =>
        optional(
          'reason',
          reason === 'none' ? undefined : reason,
          `${dates.name} indoors for ${reasons[reason]}`,
        )}
    />
    <ChoiceField
      label="From the packet"
      value={sowing.packet ?? ''}
      choices={packets}
      onset={(packet) => optional('packet', packet || undefined, `packet of ${dates.name}`)}
    />
    <CheckField
      label="Pot on later (untick to sow in the final pot)"
      value={sowing.pots_on ?? true}
      onset={(yes) => optional('pots_on', yes ? undefined : false, `potting on of ${dates.name}`)}
    />
    <CheckField
      label="Few or dear seeds: one to a cell, none to spare"
      value={sowing.fewest_seeds ?? false}
      onset={(yes) =>
        optional('fewest_seeds', yes ? true : undefined, `fewest seeds of ${dates.name}`)}
    />
    <Variety {sowing} {index} name={dates.name} />
    <form
      class="flex flex-wrap items-end gap-2 border-t pt-2"
      onsubmit={(event) => {
        event.preventDefault();
        void bench.edit({ repeat_sowing: { sowing: sowing.id, times, every_days: every } });
      }}
    >
      <label class="text-sm text-soft"
        >Repeat sowings
        <input
          type="number"
          min="1"
          max="20"
          class="block w-20 rounded-lg border-line bg-raised px-2 py-1 text-ink"
          bind:value={times}
        /></label
      >
      <label class="text-sm text-soft"
        >days apart
        <input
          type="number"
          min="1"
          max="120"
          class="block w-20 rounded-lg border-line bg-raised px-2 py-1 text-ink"
          bind:value={every}
        /></label
      >
      <button class="quiet border-line!">Sow again</button>
    </form>
    {#if sowing.stays}
      <p class="border-t pt-2">
        Not sown here: on the shelf {words.shortDate(sowing.stays.from)} to {words.shortDate(
          sowing.stays.to,
        )}.
        <button
          class="quiet border-line!"
          onclick={() => optional('stays', undefined, `${dates.name} is sown`)}
          >Make it a sowing</button
        >
      </p>
    {:else}
      <form
        class="flex flex-wrap items-end gap-2 border-t pt-2"
        onsubmit={(event) => {
          event.preventDefault();
          optional('stays', { from: stayFrom, to: stayTo }, `${dates.name} not sown here`);
        }}
      >
        <DateField
          label="Not sown here: on the shelf from"
          value={stayFrom}
          onset={(day) => (stayFrom = day)}
        />
        <DateField label="up to" value={stayTo} onset={(day) => (stayTo = day)} />
        <button class="quiet border-line!" disabled={stayTo < stayFrom}>Set</button>
      </form>
    {/if}
    <button
      class="quiet self-start border-line!"
      onclick={() => void bench.edit({ remove_sowing: { sowing: sowing.id } })}
      >Delete this sowing</button
    >
  </div>
</div>
