<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import CalendarLinks from '$lib/setup/CalendarLinks.svelte';
  import DatesTable from '$lib/setup/DatesTable.svelte';
  import DayHours from '$lib/setup/DayHours.svelte';
  import Frosts from '$lib/setup/Frosts.svelte';
  import History from '$lib/setup/History.svelte';
  import Outdoors from '$lib/setup/Outdoors.svelte';
  import Plans from '$lib/setup/Plans.svelte';
  import Rooms from '$lib/setup/Rooms.svelte';
  import Part from '$lib/shell/Part.svelte';
  import OpenFile from '$lib/setup/OpenFile.svelte';
  import FindingCard from '$lib/finding/FindingCard.svelte';
  import NumberField from '$lib/fields/NumberField.svelte';
  import { replace, setLastFrost, setOptional, setSite } from '$lib/bench/edits';
  import ChoiceField from '$lib/fields/ChoiceField.svelte';
  import DateField from '$lib/fields/DateField.svelte';
  import NameField from '$lib/fields/NameField.svelte';
  import { bench } from '$lib/bench/workbench.svelte';

  const site = $derived(bench.draft?.site);
  const words = $derived(bench.words);
  const findings = $derived(bench.findings().filter((f) => !f.bay && !f.place && !f.sowing));

  const season = $derived(bench.draft?.season);

  function setFrost(value: string) {
    bench.nudge(setLastFrost(site!, value), `set the last frost to ${words.date(value)}`);
  }

  const firstFrostBy = $derived(
    {
      typed: 'as you typed it',
      record: 'by the record',
      estimate: 'our estimate',
    }[bench.assessment?.season.first_frost.by ?? 'estimate'],
  );

  function setFirstFrost(day: string | undefined) {
    bench.nudge(
      setOptional('/site/first_frost', day, site!.first_frost !== undefined),
      day ? `set the first frost to ${words.date(day)}` : 'the first frost is estimated again',
    );
  }

  function setSeason(end: 'from' | 'to', day: string) {
    bench.nudge(
      [replace(`/season/${end}`, day)],
      `season ${end === 'from' ? 'from' : 'until'} ${words.longDate(day)}`,
    );
  }

  function setCurrency(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const code = input.value.trim().toUpperCase();
    if (code !== site?.currency)
      bench.keep(setSite('currency', code), `set the currency to ${code}`.slice(0, 120));
  }

  // The server knows the zones; it says so when a name is none.
  function setZone(event: Event) {
    const zone = (event.currentTarget as HTMLInputElement).value.trim();
    if (zone !== site?.time_zone)
      bench.keep(setSite('time_zone', zone), `set the time zone to ${zone}`.slice(0, 120));
  }
</script>

<svelte:head><title>Setup · Faint Sunrise</title></svelte:head>

<div class="grid grow gap-4 p-4 lg:grid-cols-[22rem_1fr]">
  <h1 class="sr-only">Setup</h1>
  {#if site}
    <div class="flex flex-col gap-4">
      <section class="card p-4" aria-label="Plan and place">
        <h2 class="text-xl">Plan and place</h2>
        <div class="mt-2 flex flex-col gap-2">
          <NameField
            label="Name of the plan"
            value={bench.draft!.name}
            onset={(name) => bench.keep([replace('/name', name)], `renamed the plan to ${name}`)}
          />
          <NameField
            label="Name of the place"
            value={site.name}
            onset={(name) => bench.keep(setSite('name', name), `renamed the place to ${name}`)}
          />
          <DateField
            label="Last frost (half of years are later)"
            value={site.last_frost}
            onset={setFrost}
          />
          {#if site.last_frost_estimated}
            <p class="text-sm text-soft">
              Our own estimate from where you live; it may well be three weeks out.
            </p>
          {/if}
          <DateField
            label="First frost of autumn ({firstFrostBy})"
            value={bench.assessment?.season.first_frost.day ?? site.first_frost ?? ''}
            onset={setFirstFrost}
          />
          {#if site.first_frost}
            <button class="quiet self-start text-sm" onclick={() => setFirstFrost(undefined)}
              >As the record or our estimate has it</button
            >
          {/if}
          <div class="flex flex-wrap gap-3">
            <DateField
              label="Season from"
              value={season!.from}
              onset={(day) => setSeason('from', day)}
            />
            <DateField label="to" value={season!.to} onset={(day) => setSeason('to', day)} />
          </div>
          <a class="quiet self-start border-frame!" href="/start">Guided start</a>
        </div>
        <div class="mt-3 grid grid-cols-2 gap-3">
          <NumberField
            label="Price of a kWh, {site.currency}"
            value={site.price_per_kwh}
            quantity="money"
            field="/site/price_per_kwh"
            onset={(price) =>
              bench.keep(
                setSite('price_per_kwh', price),
                `set the price of a kWh to ${words.number(price, 'money')}`,
              )}
          />
          <NumberField
            label="Mains"
            value={site.mains_v}
            quantity="voltage_v"
            field="/site/mains_v"
            onset={(v) =>
              bench.keep(setSite('mains_v', v), `set the mains to ${words.number(v, 'voltage_v')}`)}
          />
          <NumberField
            label="Latitude"
            value={site.latitude_deg}
            quantity="angle_deg"
            field="/site/latitude_deg"
            onset={(deg) =>
              bench.keep(
                setSite('latitude_deg', deg),
                `set the latitude to ${words.number(deg, 'angle_deg')}`,
              )}
          />
          <NumberField
            label="Average day, % of clear sky"
            value={site.of_cloudless ?? undefined}
            quantity="share"
            field="/site/of_cloudless"
            onset={(share) =>
              bench.keep(
                setOptional('/site/of_cloudless', share, site.of_cloudless != null),
                `average days have ${words.number(share, 'share')} of a cloudless day’s light`,
              )}
            onclear={() =>
              bench.keep(
                setOptional('/site/of_cloudless', undefined, site.of_cloudless != null),
                'average days have half of a cloudless day’s light',
              )}
          />
          <div>
            <Label for="currency" class="mb-0.5 text-sm text-soft!">Currency (three letters)</Label>
            <Input
              id="currency"
              maxlength={3}
              class="w-24! border-line! bg-raised! px-2! py-1! text-base! text-ink! uppercase"
              value={site.currency}
              onchange={setCurrency}
            />
          </div>
          <ChoiceField
            label="Units"
            value={site.units}
            choices={{ metric: 'cm and °C', us: 'inches and °F' }}
            onset={(units) =>
              bench.keep(
                setSite('units', units),
                `measures in ${units === 'us' ? 'inches' : 'centimetres'}`,
              )}
          />
          <ChoiceField
            label="Days and times"
            value={bench.words.monthFirst ? 'month_first' : 'day_first'}
            choices={{ day_first: '6 May 2027, 22:30', month_first: 'May 6, 2027, 10:30 pm' }}
            onset={(form) =>
              bench.keep(
                [{ op: 'add', path: '/site/dates', value: form }],
                `writes days as ${form === 'month_first' ? 'May 6' : '6 May'}`,
              )}
          />
          <div>
            <Label for="time-zone" class="mb-0.5 text-sm text-soft!">Time zone</Label>
            <Input
              id="time-zone"
              class="border-line! bg-raised! px-2! py-1! text-base! text-ink!"
              value={site.time_zone}
              onchange={setZone}
            />
          </div>
        </div>
      </section>
      <section class="card p-4" aria-label="Hours of the day">
        <h2 class="text-lg">Hours of the day</h2>
        <DayHours {site} />
      </section>
      <section class="card p-4" aria-label="Rooms">
        <h2 class="text-lg">Rooms</h2>
        <Rooms {site} />
      </section>
      <section class="card p-4" aria-label="Frosts on record">
        <h2 class="text-lg">Frosts on record</h2>
        <Frosts {site} />
      </section>
      <section class="card p-4" aria-label="Outdoors">
        <h2 class="text-lg">Outdoors</h2>
        <Outdoors {site} />
      </section>
      <section class="card p-4" aria-label="Calendar">
        <h2 class="text-lg">Calendar</h2>
        <CalendarLinks />
      </section>
      <section class="card p-4">
        <h2 class="text-lg">Save and share</h2>
        <p class="my-2 text-sm text-soft">Your whole plan is one file (JSON).</p>
        <div class="flex flex-wrap gap-2">
          <a
            class="quiet border-frame! font-semibold"
            href="/api/plans/{bench.view?.id}/file"
            download>Save the plan as a file</a
          >
          <OpenFile />
        </div>
      </section>
      <section class="card p-4" aria-label="Plans" id="plans">
        <h2 class="mb-1 text-lg">Plans</h2>
        <Part what="the list of plans"><Plans /></Part>
      </section>
      <section class="card p-4">
        <h2 class="mb-1 text-lg">History</h2>
        <Part what="the history"><History /></Part>
      </section>
    </div>
    <div class="flex min-w-0 flex-col gap-4">
      {#each findings as finding, i (finding.id)}
        <FindingCard {finding} first={i === 0} />
      {/each}
      <section class="card overflow-x-auto p-4">
        <h2 class="mb-1 text-xl">All dates</h2>
        <DatesTable />
      </section>
    </div>
  {/if}
</div>
