<script lang="ts">
  // Where it is: a town sets latitude, clock, mains, money and units at once.
  import { onMount } from 'svelte';
  import { api, type Home } from '../api/client';
  import { setSite } from '../bench/edits';
  import { begin } from '../bench/plans';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { screen } from '../shell/ground.svelte';
  import { matching } from './asked';
  import Search from './Search.svelte';

  let homes: Home[] = $state.raw([]);
  let text = $state('');
  let failed = $state('');

  const site = $derived(bench.draft?.site);
  const zone = new Intl.DateTimeFormat().resolvedOptions().timeZone;
  const here = $derived(homes.find((home) => home.id === zone));
  const named = (home: Home) => `${home.town}, ${home.country}`;
  const MOST = 6;
  const hits = $derived(
    text.trim() ? matching(homes, text, named).slice(0, MOST) : here && !site ? [here] : [],
  );
  const chosen = $derived(homes.find((home) => home.id === site?.time_zone));

  onMount(async () => {
    try {
      homes = await api.homes();
    } catch (error) {
      failed = error instanceof Error ? error.message : String(error);
    }
  });

  async function live(home: Home) {
    text = '';
    if (!bench.view) await begin(await api.blankPlan(), 'began with an empty plan');
    if (!bench.view) return;
    // What this screen was switched to gives way to what the town measures in.
    screen.units = undefined;
    bench.chooseUnits(undefined);
    await bench.edit({ live_at: { home: home.id, today: bench.view.today } });
  }

  function setUnits(units: 'metric' | 'us') {
    screen.units = undefined;
    bench.chooseUnits(undefined);
    bench.keep(setSite('units', units), `measures in ${units === 'us' ? 'inches' : 'centimetres'}`);
  }
</script>

<p class="mb-3 text-soft">
  Your nearest town on the list sets the length of the days, the mains, the money and how dates and
  sizes are written.
</p>
<Search
  label="Your town, or the nearest on the list"
  placeholder="Vienna, Chicago, Wellington …"
  {hits}
  {named}
  bind:text
  onpick={(home) => void live(home)}
/>
{#if failed}<p class="text-wine" role="alert">{failed}</p>{/if}
{#if site && chosen}
  <div class="card mt-4 p-4" data-testid="home">
    <h2 class="text-lg">{named(chosen)}</h2>
    <p class="text-soft">
      {Math.abs(site.latitude_deg).toFixed(1)}° {site.latitude_deg < 0 ? 'south' : 'north'} ·
      {bench.words.number(site.mains_v, 'voltage_v')} · {site.currency} · dates such as
      {bench.words.longDate(site.last_frost)}
    </p>
    <div class="mt-3 grid grid-cols-2 gap-3">
      <ChoiceField
        label="You measure in"
        value={site.units}
        choices={{ metric: 'centimetres and °C', us: 'inches and °F' }}
        onset={setUnits}
      />
      <NumberField
        label="Price of a kWh, {site.currency}"
        value={site.price_per_kwh || undefined}
        quantity="money"
        field="/site/price_per_kwh"
        none="not known"
        onset={(price) =>
          bench.keep(
            setSite('price_per_kwh', price),
            `set the price of a kWh to ${bench.words.number(price, 'money')}`,
          )}
        onclear={() => bench.keep(setSite('price_per_kwh', 0), 'left the price of a kWh out')}
      />
      <NumberField
        label="Your own latitude"
        value={site.latitude_deg}
        quantity="angle_deg"
        field="/site/latitude_deg"
        onset={(deg) =>
          bench.keep(
            setSite('latitude_deg', deg),
            `set the latitude to ${bench.words.number(deg, 'angle_deg')}`,
          )}
      />
    </div>
  </div>
{/if}
