<script lang="ts">
  import type { BayOnDay } from '../../api/client';
  import { burn, hangLamps } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import Adjusting from './light/Adjusting.svelte';
  import BayAir from './air/BayAir.svelte';
  import ChamberAir from './warmth/ChamberAir.svelte';
  import Colour from './light/Colour.svelte';
  import Compare from './light/Compare.svelte';
  import Findings from '../../finding/Findings.svelte';
  import Fits from './space/Fits.svelte';
  import Gear from './gear/Gear.svelte';
  import Hours from './light/Hours.svelte';
  import LightFigures from './light/LightFigures.svelte';
  import LightMap from './light/LightMap.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import Power from './power/Power.svelte';
  import RootZones from './warmth/RootZones.svelte';
  import SillYear from './light/SillYear.svelte';
  import Sweep from './light/Sweep.svelte';
  import TierFields from './TierFields.svelte';
  import Trays from './Trays.svelte';
  import WarmWays from './warmth/WarmWays.svelte';
  import WhyNote from '../../finding/WhyNote.svelte';

  const { bay }: { bay: BayOnDay } = $props();

  const words = $derived(bench.words);
  const place = $derived(bench.places.find((p) => p.id === bay.bay.place));
  const tier = $derived(place?.tiers.find((t) => t.id === bay.bay.tier));
  const findings = $derived(bench.findings(bay.bay));
  const lamps = $derived(tier?.lamps ?? []);
  const height = $derived(lamps[0]?.height_mm ?? 0);
  const allLamps = $derived(lamps.map((_, i) => i));
  const germinating = $derived(
    bay.trays.filter((tray) => tray.stage === 'germinate').map((tray) => tray.tray),
  );
  const until = $derived(bay.trays.map((t) => t.until).sort()[0]);
  const lampNames = $derived.by(() => {
    const counts: Record<string, number> = {};
    for (const lamp of lamps) counts[lamp.name] = (counts[lamp.name] ?? 0) + 1;
    return Object.entries(counts).map(([name, count]) => `${count} × ${name}`);
  });

  function hang(mm: number) {
    bench.keep(
      hangLamps(bench.draft!, bay.bay, allLamps, mm),
      `hung ${bay.name} at ${words.number(mm, 'length_mm')}`,
    );
  }

  function setHours(hours: number) {
    bench.keep(
      burn(bench.draft!, bay.bay, hours),
      `set ${bay.name} to burn ${words.number(hours, 'hours')}`,
    );
  }
</script>

<div class="flex items-start justify-between gap-2">
  <div>
    <h2 class="text-2xl">{bay.name}</h2>
    <p class="text-soft">
      {#if bay.trays.length > 0}
        {bay.trays.length === 1 ? '1 tray' : `${bay.trays.length} trays`}{#if until}; first to go
          after {words.shortDate(until)}{/if}
      {:else if tier?.storage}
        kept for storage
      {:else}
        nothing stands here on {words.date(bench.date)}
      {/if}
    </p>
  </div>
  <button class="quiet" aria-label="Close the sheet" onclick={() => bench.select(undefined)}
    >Close <kbd>Esc</kbd></button
  >
</div>

<div class="mt-3 flex flex-col gap-4">
  <Findings {findings}>
    {#snippet nothing()}
      {#if bay.hang && bay.light}
        <p class="rounded-xl bg-sage-soft p-3" data-testid="as-it-hangs">
          <b class="block text-lg">Right as it hangs</b>
          {words.number(bay.hang.gap_mm, 'length_mm')} over the leaves would be
          {bay.hang.miss < 0.01
            ? 'best, every cell within the band'
            : 'best; corners stay darker at any height'}.
        </p>
      {/if}
    {/snippet}
  </Findings>

  {#if lamps.length > 0}
    <section aria-label="Lamps">
      <div class="flex flex-wrap items-start gap-x-3 gap-y-2">
        <NumberField
          label="Lamps hang at"
          value={height}
          quantity="length_mm"
          min={bay.lowest_face_mm}
          max={bay.highest_face_mm}
          onset={hang}
        />
        {#if bay.light}
          <div>
            <p class="text-sm text-soft">Gap to leaves</p>
            <p class="py-1 text-lg font-semibold" data-testid="gap">
              {words.number(bay.light.gap_mm, 'length_mm')}
            </p>
          </div>
        {/if}
      </div>
      <p class="mt-1 text-sm text-soft">{lampNames.join('; ')}</p>
    </section>

    {#if tier}
      <section aria-label="Hours">
        <h3 class="mb-1">Hours</h3>
        <Hours {bay} {tier} onhours={setHours} />
      </section>
    {/if}
  {/if}

  {#if bay.light}
    <section aria-label="Light">
      <LightFigures light={bay.light} why={bay.detail?.light_why} />
    </section>

    {#if place && (bay.light.ppfd.best > 0 || bay.light.dli.best > 0)}
      <section>
        <h3 class="mb-1">Light from above</h3>
        <LightMap {bay} {place} />
      </section>
    {/if}
  {/if}

  {#if bay.hang}
    <section>
      <div class="flex flex-wrap items-baseline gap-x-2">
        <h3>Height against light</h3>
        <span class="text-sm text-soft" data-testid="recommended"
          >best {words.number(bay.hang.setting.height_mm, 'length_mm')}, {words.number(
            bay.hang.setting.hours_h,
            'hours',
          )}</span
        >
        <WhyNote of="height" why={bay.hang.detail?.why} />
      </div>
      <Sweep {bay} nowMm={height} />
      <p class="text-sm text-soft">
        PPFD in {words.unit('ppfd_umol_m2_s').unit} against {words.unit('length_mm').unit} over the deck:
        mean, worst to best cell; the wanted band in green
      </p>
    </section>
  {/if}

  {#if tier && lamps.length > 0}
    <section aria-label="Adjusting">
      <h3 class="mb-1">As they grow</h3>
      <Adjusting {bay} {tier} />
    </section>
  {/if}

  {#if bay.detail?.chamber && place}
    <section aria-label="Chamber">
      <h3 class="mb-1">Warmth, shelf by shelf</h3>
      <ChamberAir {bay} {place} />
    </section>
  {/if}

  {#if bay.roots.length > 0}
    <section aria-label="Root zone and water">
      <h3 class="mb-1">Root zone and water</h3>
      <RootZones roots={bay.roots} {germinating} />
    </section>
  {/if}

  {#if germinating.length > 0 && bay.roots.length > 0}
    <section aria-label="Ways to warm it">
      <h3 class="mb-1">Other ways to warm it</h3>
      <WarmWays {bay} />
    </section>
  {/if}

  {#if bay.detail?.air && bay.trays.length > 0}
    <section aria-label="Air">
      <h3 class="mb-1">Air</h3>
      <BayAir air={bay.detail.air} />
    </section>
  {/if}

  {#if bay.detail?.sill}
    <section aria-label="Daylight">
      <h3 class="mb-1">Daylight through the year</h3>
      <SillYear sill={bay.detail.sill} />
    </section>
  {/if}

  {#if bay.hang}
    <section aria-label="Compare">
      <h3 class="mb-1">What another set-up would give</h3>
      <Compare {bay} />
    </section>
  {/if}

  {#if bay.detail?.colour}
    <section aria-label="Colour">
      <h3 class="mb-1">Colour</h3>
      <Colour colour={bay.detail.colour} />
    </section>
  {/if}

  {#if lamps.length > 0}
    <section aria-label="Power"><Power {bay} /></section>
  {/if}

  {#if bay.trays.length > 0}
    <section>
      <h3 class="mb-1">What stands here</h3>
      <Trays {bay} />
    </section>
  {/if}

  {#if place && tier}
    <section aria-label="Space">
      <h3 class="mb-1">What fits</h3>
      <dl class="mb-2 grid grid-cols-3 gap-2" data-testid="space">
        {#each [['clear height', words.number(bay.clear_height_mm, 'length_mm')], ['headroom', bay.headroom_mm == null ? 'nothing here' : words.number(bay.headroom_mm, 'length_mm')], ['trays, watered', words.number(bay.load.watered_kg, 'mass_kg') + (bay.load.rating_kg == null ? '' : ` of ${words.bare(bay.load.rating_kg, 'mass_kg')}`)]] as [name, value] (name)}
          <div>
            <dt class="text-sm text-soft">{name}</dt>
            <dd
              class="font-semibold"
              class:text-wine={name === 'headroom' && (bay.headroom_mm ?? 0) < 0}
            >
              {value}
            </dd>
          </div>
        {/each}
      </dl>
      {#if !tier.storage}<Fits {bay} {place} />{/if}
    </section>

    <section aria-label="Gear">
      <h3 class="mb-1">Lamps, mats and fans</h3>
      <Gear {bay} {tier} />
    </section>

    <section aria-label="Tier">
      <h3 class="mb-1">The tier itself</h3>
      <TierFields {bay} {place} {tier} />
    </section>
  {/if}

  {#if lamps.length > 0}
    <p class="border-t pt-2 text-sm text-soft"><b>Lamps.</b> {bench.assessment?.light_caution}</p>
  {/if}
  <p class="border-t pt-2 text-sm text-soft"><b>Mains and water.</b> {bench.assessment?.caution}</p>
</div>
