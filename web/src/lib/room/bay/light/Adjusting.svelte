<script lang="ts">
  // How the gap to the leaves is changed in a bay, and on which days.
  import type { Adjustment, BayOnDay, Tier } from '../../../api/client';
  import { replace, setOptional, tierPath } from '../../../bench/edits';
  import { bench } from '../../../bench/workbench.svelte';
  import ChoiceField from '../../../fields/ChoiceField.svelte';
  import NumberField from '../../../fields/NumberField.svelte';

  const { bay, tier }: { bay: BayOnDay; tier: Tier } = $props();

  const words = $derived(bench.words);
  const ahead = $derived(bay.hang?.detail);
  const path = $derived(`${tierPath(bench.draft!, bay.bay)}/adjust`);
  const mm = $derived((value: number) => words.number(value, 'length_mm'));
  type Way = 'anywhere' | 'chain' | 'boxes' | 'fixed';
  const ways: Record<Way, string> = {
    anywhere: 'lamps hang at any height',
    chain: 'lamps on chains, link by link',
    boxes: 'boxes under the trays',
    fixed: 'lamps and trays stay put',
  };
  const adjust = $derived(tier.adjust ?? undefined);
  const chain = $derived(
    typeof adjust === 'object' && 'chain' in adjust ? adjust.chain : undefined,
  );
  const boxes = $derived(
    typeof adjust === 'object' && 'boxes' in adjust ? adjust.boxes : undefined,
  );
  const way = $derived<Way>(
    chain ? 'chain' : boxes ? 'boxes' : adjust === 'fixed' ? 'fixed' : 'anywhere',
  );
  const starts = $derived(bench.facts.forms?.starts);
  const begin = $derived({
    anywhere: undefined,
    chain: starts && { chain: starts.chain },
    boxes: starts && { boxes: starts.boxes },
    fixed: 'fixed',
  });

  function choose(to: Way) {
    bench.keep(setOptional(path, begin[to], adjust !== undefined), `${bay.name}: ${ways[to]}`);
  }

  /** What a hand does on the day, in words. */
  const deed = $derived(({ setting, step }: Adjustment): string => {
    const bright =
      setting.brightness === 1
        ? ''
        : `, dim to ${words.number(setting.brightness, 'share')} of now`;
    const hours = `, ${words.number(setting.hours_h, 'hours')} a day${bright}`;
    if (typeof step === 'object' && 'links' in step) {
      const { links, change } = step.links;
      const count = Math.abs(change) === 1 ? '1 link' : `${Math.abs(change)} links`;
      if (change === 0) return `leave the chains${hours}`;
      return `${count} ${change > 0 ? 'down' : 'up'}, to link ${links} (${mm(setting.height_mm)})${hours}`;
    }
    if (typeof step === 'object') {
      const { lift_mm, change_mm } = step.boxes;
      if (change_mm === 0) return `leave the boxes${hours}`;
      return `${change_mm < 0 ? 'take boxes away' : 'add boxes'}: ${
        lift_mm === 0 ? 'onto the bare shelf' : `stand on ${mm(lift_mm)}`
      }${hours}`;
    }
    return step === 'fixed' ? hours.slice(2) : `hang at ${mm(setting.height_mm)}${hours}`;
  });
</script>

<ChoiceField label="How you adjust the gap" value={way} choices={ways} onset={choose} />
{#if chain}
  <div class="mt-2">
    <NumberField
      label="Length of a link"
      value={chain.link_mm}
      quantity="length_mm"
      onset={(value) =>
        bench.keep([replace(`${path}/chain/link_mm`, value)], `links of ${bay.name}`)}
    />
  </div>
{:else if boxes}
  <div class="mt-2 grid grid-cols-3 gap-2">
    {#each boxes.heights_mm as height, i (i)}
      <NumberField
        label="Box {i + 1}"
        value={height}
        quantity="length_mm"
        onset={(value) =>
          bench.keep([replace(`${path}/boxes/heights_mm/${i}`, value)], `boxes of ${bay.name}`)}
      />
    {/each}
    <NumberField
      label="Stacked now"
      value={boxes.stacked_mm}
      quantity="length_mm"
      onset={(value) =>
        bench.keep(
          [replace(`${path}/boxes/stacked_mm`, value)],
          `${mm(value)} of boxes in ${bay.name}`,
        )}
    />
  </div>
{/if}

{#if ahead}
  <p class="mt-2" data-testid="outlook">{words.say(ahead.outlook)}.</p>
  <ol class="mt-2 flex flex-col gap-1" data-testid="adjustments">
    {#each ahead.adjustments as change (change.date)}
      <li class="flex gap-3">
        <b class="w-16 shrink-0">{words.shortDate(change.date)}</b>
        <span>{deed(change)}</span>
      </li>
    {/each}
  </ol>
{/if}
