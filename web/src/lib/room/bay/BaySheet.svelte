<script lang="ts">
  import type { BayOnDay, TrayOnDay } from '../../api/client';
  import { burn, hangLamps, replace, setOptional, tierPath } from '../../bench/edits';
  import { again, takeOut } from '../build/actions';
  import { bench } from '../../bench/workbench.svelte';
  import Adjusting from './light/Adjusting.svelte';
  import BayAir from './air/BayAir.svelte';
  import ChamberAir from './warmth/ChamberAir.svelte';
  import CheckField from '../../fields/CheckField.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import Colour from './light/Colour.svelte';
  import Compare from './light/Compare.svelte';
  import DliGauge from './light/DliGauge.svelte';
  import Findings from '../../finding/Findings.svelte';
  import Fits from './space/Fits.svelte';
  import Gear from './gear/Gear.svelte';
  import Hours from './light/Hours.svelte';
  import LightMap from './light/LightMap.svelte';
  import NameField from '../../fields/NameField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import RootZones from './warmth/RootZones.svelte';
  import SillYear from './light/SillYear.svelte';
  import Sweep from './light/Sweep.svelte';
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
  const stages = {
    germinate: 'germinating',
    grow: 'growing',
    harden: 'hardening off',
    out: 'planted out',
  } as const;
  const datesOf = $derived((sowing: string) =>
    bench.assessment?.sowings.find((s) => s.sowing === sowing),
  );
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

  const bayNames = $derived(
    Object.fromEntries(
      (bench.room?.bays ?? [])
        .filter(
          ({ bay }) =>
            !bench.places.find((p) => p.id === bay.place)?.tiers.find((t) => t.id === bay.tier)
              ?.storage,
        )
        .map(({ bay, name }) => [`${bay.place}/${bay.tier}`, name]),
    ),
  );

  /** The tray for which another bay is being chosen. */
  let moving = $state('');

  async function moveTray(tray: TrayOnDay, to: string) {
    const [place, tier] = to.split('/');
    const stage = tray.stage;
    moving = '';
    if (!place || !tier) return;
    await bench.edit({ move_tray: { tray: tray.tray, stage, bay: { place, tier } } });
  }

  const sides = { open: 'open', white: 'white board', foil: 'foil film', curtain: 'curtain' };
  const sideNames = { left: 'Left', right: 'Right', back: 'Back', front: 'Front' } as const;

  const linings = { ...sides, open: 'bare' };

  function lineTop(to: keyof typeof linings) {
    const path = `${tierPath(bench.draft!, bay.bay)}/sides/top`;
    const lining = to === 'open' ? undefined : to;
    bench.keep(
      setOptional(path, lining, tier?.sides.top !== undefined),
      `under the deck above ${bay.name}: ${linings[to]}`,
    );
  }

  function keep(field: string, value: unknown, word: string) {
    bench.keep([replace(`${tierPath(bench.draft!, bay.bay)}/${field}`, value)], word);
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
    {@const light = bay.light}
    <section aria-label="Light">
      <table class="w-full text-right">
        <thead class="text-sm text-soft">
          <tr>
            <th class="text-left font-normal">on the leaves</th>
            <th class="font-normal">mean</th>
            <th class="font-normal">worst</th>
            <th class="font-normal">best cell</th>
          </tr>
        </thead>
        <tbody>
          {#if light.ppfd.best > 0}
            <tr data-testid="ppfd">
              <th class="text-left font-semibold"
                >PPFD <span class="text-sm font-normal text-soft">µmol/m²/s</span></th
              >
              <td class="font-semibold">{words.bare(light.ppfd.mean, 'ppfd_umol_m2_s')}</td>
              <td>{words.bare(light.ppfd.worst, 'ppfd_umol_m2_s')}</td>
              <td>{words.bare(light.ppfd.best, 'ppfd_umol_m2_s')}</td>
            </tr>
          {/if}
          <tr data-testid="dli">
            <th class="text-left font-semibold"
              >DLI <span class="text-sm font-normal text-soft">mol/m²/d</span></th
            >
            <td class="font-semibold">{words.bare(light.dli.mean, 'dli_mol_m2_d')}</td>
            <td>{words.bare(light.dli.worst, 'dli_mol_m2_d')}</td>
            <td>{words.bare(light.dli.best, 'dli_mol_m2_d')}</td>
          </tr>
        </tbody>
      </table>
      <div class="mt-1 flex flex-wrap items-center gap-x-2">
        <DliGauge dli={light.dli} target={light.target} width={200} />
        {#if light.target}
          <span class="text-sm">wants {light.target.low} to {light.target.high}</span>
        {:else}
          <span class="text-sm text-soft">nothing is up yet</span>
        {/if}
      </div>
      <ul class="mt-1 text-sm" data-testid="measures">
        {#if light.target}
          <li>
            <b>{words.number(light.under, 'share')}</b> of cells get too little,
            <b>{words.number(light.over, 'share')}</b> too much{#if light.hours_in_band}; the mean
              is right from {words.bare(light.hours_in_band.low, 'hours')} to {words.number(
                light.hours_in_band.high,
                'hours',
              )} a day{/if}
          </li>
        {/if}
        {#if light.lux.mean > 0}
          <li>
            A lux meter on the leaves reads {words.bare(light.lux.worst, 'illuminance_lux')} at ✕ and
            {words.number(light.lux.best, 'illuminance_lux')} at ○
          </li>
        {/if}
        {#if light.sent_back >= 0.5}
          <li>
            Walls and decks send back {words.number(light.sent_back, 'ppfd_umol_m2_s')} of it
          </li>
        {/if}
        {#if light.daylight_mol_m2_d > 0}
          <li>
            {words.number(light.daylight_mol_m2_d, 'dli_mol_m2_d')} is daylight on an average day{#if light.daylight_enough_from};
              enough by itself from {words.shortDate(light.daylight_enough_from)}{/if}
          </li>
        {/if}
        {#if light.from_above_mol_m2_d >= 0.05}
          <li>
            {words.number(light.from_above_mol_m2_d, 'dli_mol_m2_d')} falls through the deck above
          </li>
        {/if}
      </ul>
      <div class="flex flex-wrap gap-x-3">
        {#if light.ppfd.best > 0}
          <span class="text-sm text-soft">PPFD <WhyNote of="PPFD" why={light.ppfd_why} /></span>
        {/if}
        <span class="text-sm text-soft">DLI <WhyNote of="DLI" why={light.dli_why} /></span>
      </div>
    </section>

    {#if place && (light.ppfd.best > 0 || light.dli.best > 0)}
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
        <WhyNote of="height" why={bay.hang.why} />
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

  {#if bay.chamber && place}
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

  {#if bay.air && bay.trays.length > 0}
    <section aria-label="Air">
      <h3 class="mb-1">Air</h3>
      <BayAir air={bay.air} />
    </section>
  {/if}

  {#if bay.sill}
    <section aria-label="Daylight">
      <h3 class="mb-1">Daylight through the year</h3>
      <SillYear sill={bay.sill} />
    </section>
  {/if}

  {#if bay.hang}
    <section aria-label="Compare">
      <h3 class="mb-1">What another set-up would give</h3>
      <Compare {bay} />
    </section>
  {/if}

  {#if bay.colour}
    <section aria-label="Colour">
      <h3 class="mb-1">Colour</h3>
      <Colour colour={bay.colour} />
    </section>
  {/if}

  {#if lamps.length > 0}
    <section aria-label="Power">
      <div class="flex flex-wrap items-baseline gap-x-2">
        <h3>Power</h3>
        <WhyNote of="power" why={bay.power_why} />
      </div>
      <dl class="grid grid-cols-4 gap-2" data-testid="power">
        {#each [['draws', words.number(bay.power.watts, 'power_w')], ['current', words.number(bay.power.amps, 'current_a')], ['a day', words.number(bay.power.kwh_per_day, 'energy_kwh')], ['costs a day', words.number(bay.power.cost_per_day, 'money')]] as [name, value] (name)}
          <div>
            <dt class="text-sm text-soft">{name}</dt>
            <dd class="font-semibold">{value}</dd>
          </div>
        {/each}
      </dl>
    </section>
  {/if}

  {#if bay.trays.length > 0}
    <section>
      <h3 class="mb-1">What stands here</h3>
      <ul class="flex flex-col gap-2">
        {#each bay.trays as tray (tray.tray)}
          <li class="border-t pt-2">
            {#each tray.parts as part, i (i)}
              {@const dates = datesOf(part.sowing)}
              <p>
                {#if i === 0}<b>{tray.label}</b>{/if}
                {part.name}
              </p>
              <p class="text-sm text-soft">
                {part.stage ? stages[part.stage] : 'not sown yet'}{#if part.stage === 'grow'}, {words.number(
                    part.plant_height_mm,
                    'length_mm',
                  )} tall{/if}{#if dates}; sown {words.shortDate(dates.sow)}{#if dates.emerge}, {dates.emerge >
                    bench.date
                      ? 'shows'
                      : 'showed'}
                    {dates.first && dates.last && dates.first !== dates.last
                      ? `${words.shortDate(dates.first)} to ${words.shortDate(dates.last)}, half by `
                      : ''}{words.shortDate(dates.emerge)}{/if}, out {words.shortDate(
                    dates.out,
                  )}{/if}
              </p>
              {#if dates?.emerge && dates.quarter && part.stage === 'germinate'}
                <p class="text-sm">
                  {tray.dome_mm == null
                    ? `Into light by ${words.shortDate(dates.emerge)}, when half are up`
                    : `Vent the dome ${words.shortDate(dates.quarter)}, lift it when all are up, ${words.shortDate(dates.last ?? dates.emerge)}; light from ${words.shortDate(dates.emerge)}`}{bay.roots.find(
                    (r) => r.tray === tray.tray,
                  )?.mat
                    ? '; then unplug the mat'
                    : ''}.
                </p>
              {/if}
            {/each}
            {#if moving === tray.tray}
              <ChoiceField
                label="Stand {tray.label} from now on in"
                value="{bay.bay.place}/{bay.bay.tier}"
                choices={bayNames}
                onset={(to) => moveTray(tray, to)}
              />
            {:else}
              <button
                class="quiet -ml-2 text-sm text-teal!"
                aria-label="Move {tray.label} to another bay"
                onclick={() => (moving = tray.tray)}>Move it…</button
              >
            {/if}
          </li>
        {/each}
      </ul>
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
      <NameField
        label="Name"
        value={tier.name}
        onset={(name) => keep('name', name, `renamed ${bay.name} to ${name}`)}
      />
      <div class="mt-2 flex items-end gap-3">
        <NumberField
          label="Deck over the floor"
          value={tier.deck_height_mm}
          quantity="length_mm"
          min={bay.deck_range_mm[0]!}
          max={bay.deck_range_mm[1]!}
          onset={(mm) =>
            keep('deck_height_mm', mm, `set ${bay.name} to ${words.number(mm, 'length_mm')}`)}
        />
      </div>
      <CheckField
        label="Kept for storage"
        value={tier.storage}
        onset={(yes) => keep('storage', yes, `storage on ${bay.name}`)}
      />
      <CheckField
        label="A liner sheet covers the deck"
        value={tier.liner}
        onset={(yes) => keep('liner', yes, `liner on ${bay.name}`)}
      />
      <div class="mt-1 grid grid-cols-2 gap-2">
        {#each Object.entries(sideNames) as [side, name] (side)}
          <ChoiceField
            label="{name} side"
            value={tier.sides[side as keyof typeof sideNames]}
            choices={sides}
            onset={(to) =>
              keep(`sides/${side}`, to, `${name.toLowerCase()} side of ${bay.name}: ${sides[to]}`)}
          />
        {/each}
        <ChoiceField
          label="Under the deck above"
          value={tier.sides.top ?? 'open'}
          choices={linings}
          onset={lineTop}
        />
      </div>
      <div class="mt-3 flex flex-wrap gap-1.5">
        <button class="quiet border-line!" onclick={() => void again([bay.bay])}
          >The same tier again <kbd>a</kbd></button
        >
        <button class="quiet border-line!" onclick={() => void takeOut([bay.bay])}
          >Take this tier out <kbd>Del</kbd></button
        >
        <button class="quiet border-line!" onclick={() => bench.pick({ place: bay.bay.place })}
          >The whole {place.name.toLowerCase()}</button
        >
      </div>
    </section>
  {/if}

  {#if lamps.length > 0}
    <p class="border-t pt-2 text-sm text-soft"><b>Lamps.</b> {bench.assessment?.light_caution}</p>
  {/if}
  <p class="border-t pt-2 text-sm text-soft"><b>Mains and water.</b> {bench.assessment?.caution}</p>
</div>
