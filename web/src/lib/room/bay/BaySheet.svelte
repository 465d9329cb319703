<script lang="ts">
  import type { BayOnDay } from '../../api/client';
  import { burn, hangLamps } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import Chapters from '../../fields/Chapters.svelte';
  import Adjusting from './light/Adjusting.svelte';
  import BayAir from './air/BayAir.svelte';
  import ChamberAir from './warmth/ChamberAir.svelte';
  import Colour from './light/Colour.svelte';
  import Compare from './light/Compare.svelte';
  import Findings from '../../finding/Findings.svelte';
  import Fits from './space/Fits.svelte';
  import CopyGear from './gear/CopyGear.svelte';
  import Gear from './gear/Gear.svelte';
  import KeyFigures from './KeyFigures.svelte';
  import { chapter, chapterOf, chapters } from './chapter.svelte';
  import FindingCard from '../../finding/FindingCard.svelte';
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
  import { shell } from '../../shell/shell.svelte';

  const { bay }: { bay: BayOnDay } = $props();

  const words = $derived(bench.words);
  const place = $derived(bench.places.find((p) => p.id === bay.bay.place));
  const tier = $derived(place?.tiers.find((t) => t.id === bay.bay.tier));
  const findings = $derived(bench.findings(bay.bay));
  const lamps = $derived(tier?.lamps ?? []);
  const first = $derived(findings[0]);
  const rest = $derived(findings.slice(1));
  const marked = $derived(
    chapters.map((one) => ({
      ...one,
      mark: findings.some((finding) => chapterOf(finding.topic) === one.id),
    })),
  );
  let unfolded = $state(false);
  /** What was opened by Find is not left in the fold. */
  const pointed = $derived(rest.some((finding) => finding.id === shell.pointed));
  const allShown = $derived(unfolded || pointed);
  $effect(() => {
    if (pointed) unfolded = true;
  });
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
      `set ${bay.name} to run ${words.number(hours, 'hours')}`,
    );
  }
</script>

<div class="flex items-start justify-between gap-2">
  <div>
    <h2 class="text-2xl">{bay.name}</h2>
    <p class="text-soft">
      {#if bay.trays.length > 0}
        {bay.trays.length === 1 ? '1 tray' : `${bay.trays.length} trays`}{#if until}; the first
          leaves after {words.shortDate(until)}{/if}
      {:else if tier?.storage}
        used for storage
      {:else}
        empty on {words.date(bench.date)}
      {/if}
    </p>
  </div>
  <button class="quiet" aria-label="Close" onclick={() => bench.select(undefined)}
    >Close <kbd>Esc</kbd></button
  >
</div>

<div class="mt-3 flex flex-col gap-3">
  {#if first}
    <FindingCard finding={first} first />
    {#if rest.length > 0}
      <div>
        <button
          class="quiet border-frame! text-sm"
          aria-expanded={allShown}
          onclick={() => (unfolded = !allShown)}
          >{allShown ? 'Show the first alone' : `${rest.length} more to do here`}</button
        >
      </div>
      {#if allShown}<Findings findings={rest} />{/if}
    {/if}
  {:else if bay.hang && bay.light}
    <p class="rounded-xl bg-sage-soft p-3" data-testid="as-it-hangs">
      <b class="block text-lg">Leave the lamps as they are</b>
      With a gap of {words.number(bay.hang.gap_mm, 'length_mm')} to the leaves
      {bay.hang.now.under < 0.005 && bay.hang.now.harmed === 0
        ? 'every cell gets the light it needs'
        : `${words.number(1 - bay.hang.now.under, 'share')} of cells get the light they need, and no other setting of these lamps would do noticeably better`}.
    </p>
  {/if}
</div>

<div>
  <Chapters
    label="About {bay.name}"
    chapters={marked}
    open={chapter.open}
    onopen={(id) => (chapter.open = id)}
  >
    {#snippet head()}<KeyFigures {bay} />{/snippet}
    {#if chapter.open === 'light'}
      {#if bay.detail?.empty}
        {@const empty = bay.detail.empty}
        <p data-testid="empty-light">
          Nothing stands here now. Seedlings would get
          <b>{words.number(empty.dli.mean, 'dli_mol_m2_d')}</b> of light on average,
          {words.bare(empty.dli.worst, 'dli_mol_m2_d')} in the darkest and {words.bare(
            empty.dli.best,
            'dli_mol_m2_d',
          )} in the brightest cell{#if lamps.length > 0}, with the lamps on for {words.number(
              tier?.photoperiod_h ?? 0,
              'hours',
            )} and leaves {words.number(empty.canopy_mm, 'length_mm')} above the shelf{/if}.
        </p>
      {:else if !bay.light && lamps.length === 0 && !bay.detail?.sill}
        <p class="text-soft">
          {#if place && 'cold_frame' in place.kind}
            Daylight falls on it from all sides: outdoors there is light enough.
          {:else}
            No lamp and no window: a place to germinate in the dark, or for storage. Lamps are added
            under Gear.
          {/if}
        </p>
      {/if}
      {#if bay.light}
        <section aria-label="Light">
          <LightFigures light={bay.light} why={bay.detail?.light_why} />
        </section>
        {#if place && (bay.light.ppfd.best > 0 || bay.light.dli.best > 0)}
          <section>
            <h3 class="mb-1">Light map</h3>
            <LightMap {bay} {place} />
          </section>
        {/if}
      {/if}
      {#if lamps.length > 0}
        <section aria-label="Lamps">
          <NumberField
            label="Lamp height above the shelf"
            value={height}
            quantity="length_mm"
            min={bay.lowest_face_mm}
            max={bay.highest_face_mm}
            onset={hang}
          />
          <p class="mt-1 text-sm text-soft">{lampNames.join('; ')}</p>
        </section>
        {#if tier}
          <section aria-label="Hours">
            <h3 class="mb-1">Hours of light</h3>
            <Hours {bay} {tier} onhours={setHours} />
          </section>
        {/if}
      {/if}
      {#if bay.hang}
        <section>
          <div class="flex flex-wrap items-baseline gap-x-2">
            <h3>Light at each lamp height</h3>
            <span class="text-sm text-soft" data-testid="recommended"
              >{bay.hang.change ? 'best' : 'good as they hang:'}
              {words.number(bay.hang.setting.height_mm, 'length_mm')}, {words.number(
                bay.hang.setting.hours_h,
                'hours',
              )}</span
            >
            <WhyNote of="height" why={bay.hang.detail?.why} />
          </div>
          <Sweep {bay} nowMm={height} />
          <p class="text-sm text-soft">
            {words.unit('ppfd_umol_m2_s').unit} against {words.unit('length_mm').unit} above the shelf:
            average, darkest to brightest cell; the right range in green
          </p>
        </section>
      {/if}
      {#if tier && lamps.length > 0}
        <section aria-label="Adjusting">
          <h3 class="mb-1">As the plants grow</h3>
          <Adjusting {bay} {tier} />
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
          <h3 class="mb-1">Try another set-up</h3>
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
        <p class="border-t pt-2 text-sm text-soft">
          <b>Lamps.</b>
          {bench.assessment?.light_caution}
        </p>
      {/if}
    {:else if chapter.open === 'warmth'}
      {#if bay.detail?.chamber && place}
        <section aria-label="Chamber">
          <h3 class="mb-1">Warmth, shelf by shelf</h3>
          <ChamberAir {bay} {place} />
        </section>
      {/if}
      {#if bay.roots.length > 0}
        <section aria-label="Root zone and water">
          <h3 class="mb-1">Temperature of the mix, and water</h3>
          <RootZones roots={bay.roots} {germinating} />
        </section>
      {:else if !bay.detail?.chamber}
        <p class="text-soft">
          No tray stands here on {words.date(bench.date)}, so there is no mix to warm or to water.
        </p>
      {/if}
      {#if germinating.length > 0 && bay.roots.length > 0}
        <section aria-label="Ways to warm these trays">
          <h3 class="mb-1">Other ways to warm these trays</h3>
          <WarmWays {bay} />
        </section>
      {/if}
    {:else if chapter.open === 'air'}
      {#if bay.detail?.air}
        <section aria-label="Air"><BayAir air={bay.detail.air} /></section>
      {:else}
        <p class="text-soft">Outdoors: nothing is worked out about the air yet.</p>
      {/if}
    {:else if chapter.open === 'trays'}
      {#if bay.trays.length > 0}
        <section aria-label="Trays here"><Trays {bay} /></section>
      {:else}
        <p class="text-soft">
          No tray stands here on {words.date(bench.date)}. Carry one here from another shelf, or
          from the tray shelf below the room.
        </p>
      {/if}
    {:else if chapter.open === 'space'}
      {#if place && tier}
        <section aria-label="Space">
          <dl class="mb-2 grid grid-cols-3 gap-2" data-testid="space">
            {#each [['clear height', words.number(bay.clear_height_mm, 'length_mm')], ['headroom', bay.headroom_mm == null ? 'nothing here' : bay.headroom_mm < 0 ? `${words.number(-bay.headroom_mm, 'length_mm')} too low` : words.number(bay.headroom_mm, 'length_mm')], ['trays, watered', words.number(bay.load.watered_kg, 'mass_kg') + (bay.load.rating_kg == null ? '' : ` of ${words.bare(bay.load.rating_kg, 'mass_kg')}`)]] as [name, value] (name)}
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
        <section aria-label="Tier">
          <h3 class="mb-1">About this shelf</h3>
          <TierFields {bay} {place} {tier} />
        </section>
      {/if}
    {:else if place && tier}
      <section aria-label="Gear">
        <h3 class="mb-1">Lamps, mats and fans</h3>
        <Gear {bay} {tier} />
      </section>
      <CopyGear {bay} {place} {tier} />
    {/if}
  </Chapters>
</div>
<p class="mt-4 border-t pt-2 text-sm text-soft">
  <b>Mains and water.</b>
  {bench.assessment?.caution}
</p>
