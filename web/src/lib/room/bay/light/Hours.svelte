<script lang="ts">
  // When the lamps of a bay burn: by the dial, by the clock, and what that means.
  import type { BayOnDay, Tier } from '../../../api/client';
  import { setOptional, tierPath } from '../../../bench/edits';
  import { bench } from '../../../bench/workbench.svelte';
  import HoursDial from './HoursDial.svelte';
  import NumberField from '../../../fields/NumberField.svelte';
  import TimeField from '../../../fields/TimeField.svelte';

  interface Props {
    bay: BayOnDay;
    tier: Tier;
    onhours: (hours: number) => void;
  }
  const { bay, tier, onhours }: Props = $props();

  const words = $derived(bench.words);
  const site = $derived(bench.draft?.site);
  const now = $derived(bay.burns);
  const quiet = $derived(site?.quiet ?? undefined);
  const cheap = $derived(site?.cheap?.hours);

  function begin(hour: number) {
    const path = `${tierPath(bench.draft!, bay.bay)}/lights_on_h`;
    bench.keep(
      setOptional(path, hour, tier.lights_on_h != null),
      `lamps of ${bay.name} go on at ${words.number(hour, 'clock_h')}`,
    );
  }
</script>

<div class="flex flex-wrap items-center gap-4">
  <HoursDial
    fromH={now.from_h}
    hours={tier.photoperiod_h}
    {quiet}
    {cheap}
    bestH={bay.hang?.start.from_h}
    onturn={begin}
  />
  <div class="flex flex-col gap-2">
    <TimeField label="Lamps on at" hour={now.from_h} onset={begin} />
    <NumberField
      label="Hours of light a day"
      value={tier.photoperiod_h}
      quantity="hours"
      field="/places/*/tiers/*/photoperiod_h"
      onset={onhours}
    />
  </div>
</div>
<ul class="mt-1 text-sm" data-testid="hours">
  <li>
    From <b>{words.number(now.from_h, 'clock_h')}</b> to
    <b>{words.number(now.to_h, 'clock_h')}</b
    >{#if bay.hang && bay.hang.start.from_h !== now.from_h}; best from <b
        >{words.number(bay.hang.start.from_h, 'clock_h')}</b
      > (coral){/if}
  </li>
  {#if quiet}
    <li>{words.number(now.quiet_h, 'hours')} in the quiet hours (hatched)</li>
  {/if}
  {#if cheap}
    <li>{words.number(now.cheap_h, 'hours')} at the cheap price (inner ring)</li>
  {/if}
  {#if !quiet || !cheap}
    <li class="text-soft">
      {!quiet && !cheap ? 'Quiet hours and cheap hours' : quiet ? 'Cheap hours' : 'Quiet hours'} are given
      under Setup.
    </li>
  {/if}
</ul>
