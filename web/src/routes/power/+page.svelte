<script lang="ts">
  // The day by circuits, the cords, and what it all costs.
  import { untrack } from 'svelte';
  import { api, Refused, type Electricity } from '$lib/api/client';
  import { bench } from '$lib/bench/workbench.svelte';
  import Findings from '$lib/finding/Findings.svelte';
  import Appliances from '$lib/power/Appliances.svelte';
  import CordTree from '$lib/power/CordTree.svelte';
  import DayLoad from '$lib/power/DayLoad.svelte';
  import FewTimers from '$lib/power/FewTimers.svelte';
  import Frontier from '$lib/power/Frontier.svelte';
  import PlantCost from '$lib/power/PlantCost.svelte';
  import Savings from '$lib/power/Savings.svelte';
  import SeasonCost from '$lib/power/SeasonCost.svelte';
  import Shopping from '$lib/power/Shopping.svelte';

  const words = $derived(bench.words);
  let answer: Electricity | undefined = $state.raw();
  let problem = $state('');
  let asking = false;
  let again = false;
  const findings = $derived(
    bench
      .findings()
      .filter((finding) => finding.topic === 'power' || finding.code === 'lights_in_quiet_hours'),
  );

  // One question at a time: what changed meanwhile is asked when the answer is there.
  $effect(() => {
    if (bench.draft && bench.date) untrack(() => void ask());
  });
  async function ask() {
    if (asking) {
      again = true;
      return;
    }
    asking = true;
    do {
      again = false;
      try {
        answer = await api.power($state.snapshot(bench.draft!), bench.date!);
        problem = '';
      } catch (error) {
        problem =
          error instanceof Refused
            ? error.message
            : 'The server does not answer: it is asked again with the next change.';
      }
    } while (again);
    asking = false;
  }
  const today = $derived(answer?.running.days.find((day) => day.date === answer?.date));
</script>

<svelte:head><title>Power · Faint Sunrise</title></svelte:head>

<h1 class="sr-only">Power</h1>
<!-- One column on a phone, where what is to be done comes before the long list of cords; two where there is room. -->
<div class="flex grow flex-col gap-4 p-4 lg:grid lg:grid-cols-[1fr_24rem] lg:items-start">
  <div class="contents min-w-0 lg:flex lg:flex-col lg:gap-4">
    <section class="card order-1 p-4" aria-label="The day on each circuit">
      <div class="flex flex-wrap items-baseline justify-between gap-2">
        <h2 class="text-xl">The day on each circuit</h2>
        {#if today}
          <p class="text-sm text-soft">
            {words.number(today.kwh, 'energy_kwh')} and {words.number(today.cost, 'money')} that day;
            drag a window to move it
          </p>
        {/if}
      </div>
      {#if problem}<p class="text-wine" role="alert">{problem}</p>{/if}
      {#if answer && bench.draft}<DayLoad {answer} plan={bench.draft} />{:else if !problem}<p
          class="text-soft"
        >
          Adding it up…
        </p>{/if}
    </section>
    {#if answer}
      <section class="card order-3 p-4" aria-label="Few timers for many shelves">
        <h2 class="text-xl">Few timers for many shelves</h2>
        <FewTimers {answer} />
      </section>
    {/if}
    <section class="card order-4 p-4" aria-label="What is plugged into what">
      <div class="flex flex-wrap items-baseline justify-between gap-2">
        <h2 class="text-xl">What is plugged into what</h2>
        <a class="text-sm underline" href="/print?what=safety">Print a safety sheet</a>
      </div>
      {#if bench.draft}<CordTree {answer} plan={bench.draft} />{/if}
    </section>
  </div>
  <aside class="contents lg:flex lg:flex-col lg:gap-4" aria-label="Power and cost">
    <section class="card order-2 p-4" aria-label="What to do">
      <h2 class="text-xl">Look at this first</h2>
      <div class="mt-2 flex flex-col gap-3">
        <Findings {findings}>
          {#snippet nothing()}
            <p class="text-soft">
              {bench.draft?.wiring?.feeds?.length
                ? 'Nothing found with everything on at its label.'
                : 'Nothing is checked until it is said what is plugged in where.'}
            </p>
          {/snippet}
        </Findings>
        <Savings />
      </div>
      {#if answer}<p class="mt-2 text-sm text-soft">{answer.caution}</p>{/if}
    </section>
    {#if answer && bench.draft}
      <div class="card order-5 flex flex-col gap-4 p-4">
        <section aria-label="The season">
          <h2 class="text-xl">The season</h2>
          <SeasonCost {answer} />
        </section>
        <section aria-label="A plant costs">
          <h2 class="text-xl">A plant costs</h2>
          <PlantCost {answer} plan={bench.draft} />
        </section>
        <section aria-label="The cheapest set-up">
          <h2 class="text-xl">The cheapest set-up that still does it</h2>
          <Frontier {answer} plan={bench.draft} />
        </section>
        <section aria-label="To buy">
          <h2 class="text-xl">To buy</h2>
          <Shopping {answer} plan={bench.draft} />
        </section>
        <section aria-label="Household">
          <h2 class="text-xl">On the same circuits</h2>
          <Appliances plan={bench.draft} />
        </section>
      </div>
    {/if}
  </aside>
</div>
