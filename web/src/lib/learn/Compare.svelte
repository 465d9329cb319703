<script lang="ts">
  // Two batches beside each other: which did better, whether chance explains it, and what probably does.
  import { page } from '$app/state';
  import { api, type Batch, type Comparison, type PlanSummary, type Quantity } from '../api/client';
  import { untrack } from 'svelte';
  import { learnApi } from '../api/learn';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import Interval from './Interval.svelte';

  const words = $derived(bench.words);
  /** What can be compared, as `kind:id`. */
  const choices = $derived.by(() => {
    const plan = bench.draft;
    const all: Record<string, string> = {};
    for (const sowing of bench.assessment?.sowings ?? [])
      all[`sowing:${sowing.sowing}`] = `Sowing ${sowing.name}`;
    for (const tray of plan?.trays ?? []) all[`tray:${tray.id}`] = `Tray ${tray.name}`;
    for (const place of plan?.places ?? []) {
      all[`place:${place.id}`] = place.name;
      if (place.tiers.length > 1)
        for (const tier of place.tiers)
          all[`bay:${place.id}/${tier.id}`] = `${place.name}, ${tier.name}`;
    }
    return all;
  });
  // The address may name two of them: `?a=tray:cf1&b=tray:cf2`.
  let a = $state(page.url.searchParams.get('a') ?? '');
  let b = $state(page.url.searchParams.get('b') ?? '');
  let bPlan = $state('');
  let plans: PlanSummary[] = $state.raw([]);
  let found: Comparison | undefined = $state.raw();
  let problem = $state('');
  let busy = $state(false);

  const first = $derived(a || Object.keys(choices)[0] || '');
  const second = $derived(b || Object.keys(choices)[1] || '');

  $effect(() => {
    if (bench.view) void api.plans().then((all) => (plans = all.filter((plan) => plan.readable)));
  });
  const seasons = $derived({
    '': 'this season',
    ...Object.fromEntries(
      plans.filter((plan) => plan.id !== bench.view?.id).map((plan) => [plan.id, plan.name]),
    ),
  } as Record<string, string>);

  function batch(chosen: string): Batch {
    const [kind, id] = [
      chosen.slice(0, chosen.indexOf(':')),
      chosen.slice(chosen.indexOf(':') + 1),
    ];
    if (kind === 'bay') {
      const [place, tier] = id.split('/');
      return { bay: { place: place!, tier: tier! } };
    }
    return { [kind]: id } as Batch;
  }

  async function compare() {
    const plan = bench.view?.id;
    if (plan === undefined) return;
    busy = true;
    try {
      const other = bPlan ? Number(bPlan) : undefined;
      found = await learnApi.compare(plan, batch(first), batch(second), other);
      problem = '';
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
    busy = false;
  }

  // What the address names is compared at once.
  $effect(() => {
    const named = page.url.searchParams.has('a') && page.url.searchParams.has('b');
    if (named && bench.view) untrack(() => !found && void compare());
  });

  const HAD = { mix: 'Mix while it germinated', growing_air: 'Air where it grew', light: 'Light' };
  const BECAME = { came_up: 'Came up', days: 'Days to show', height: 'Height at the same age' };
  const TOLD = {
    clearly: 'clearly apart',
    likely: 'likely apart',
    not: 'not told apart',
  };
  const shown = (value: number | null | undefined, quantity: Quantity) =>
    value == null ? '–' : words.number(value, quantity);
  const chance = (p: number) => (p < 0.001 ? 'under 1 in 1000' : `${words.number(p, 'share')}`);
</script>

<section aria-label="Two batches compared">
  {#if Object.keys(choices).length < 2}
    <p class="card px-4 py-6 text-center text-soft">
      There is nothing to compare yet: sow something in two trays first.
    </p>
  {:else}
    <form
      class="card grid gap-2 p-4 sm:grid-cols-2"
      onsubmit={(event) => {
        event.preventDefault();
        void compare();
      }}
    >
      <ChoiceField label="This" value={first} {choices} onset={(to: string) => (a = to)} />
      <ChoiceField label="Against this" value={second} {choices} onset={(to: string) => (b = to)} />
      {#if Object.keys(seasons).length > 1}
        <ChoiceField
          label="The second of"
          value={bPlan}
          choices={seasons}
          onset={(to: string) => (bPlan = to)}
        />
      {/if}
      <button
        class="quiet min-h-11! self-end justify-center border-coral! font-semibold sm:col-start-2"
        disabled={busy}>{busy ? 'Comparing…' : 'Compare them'}</button
      >
      <p class="text-sm text-soft sm:col-span-2">
        Two trays sown alike on one day, stood in two spots and counted alike, are the fairest
        comparison.
      </p>
    </form>
  {/if}
  {#if problem}<p class="mt-2 text-wine" role="alert">{problem}</p>{/if}
  {#if found}
    <div class="card mt-3 p-4" data-testid="comparison">
      <h2 class="text-xl">{found.a} against {found.b}</h2>
      <p class="mt-1 text-lg">{words.say(found.verdict)}.</p>
      {#if found.probably}<p class="mt-1 font-semibold">{words.say(found.probably)}.</p>{/if}
      {#each found.but as but, i (i)}<p class="mt-1 text-sm text-wine">{words.say(but)}.</p>{/each}
      {#if found.differences.length > 0}
        <h3 class="mt-4 text-base">What became of them</h3>
        <ul class="grid gap-4 lg:grid-cols-2">
          {#each found.differences as own (own.what)}
            <li class="border-t pt-2">
              <p class="flex justify-between gap-2">
                <b>{BECAME[own.what]}</b>
                <span
                  class="rounded px-2 text-sm {own.told_apart === 'not'
                    ? 'bg-paper'
                    : 'bg-sage-soft'}">{TOLD[own.told_apart]}</span
                >
              </p>
              <p class="text-sm">{words.say(own.words)}</p>
              <Interval
                value={own.by}
                low={own.low}
                high={own.high}
                beside={0}
                besideName="no difference"
                quantity={own.quantity}
                label="difference of {words.number(own.by, own.quantity)}, between {words.number(
                  own.low,
                  own.quantity,
                )} and {words.number(own.high, own.quantity)} with 95% certainty"
              />
              <p class="text-sm text-soft">
                {own.test}. Chance alone makes one as large in {chance(own.p)} of cases.
              </p>
            </li>
          {/each}
        </ul>
      {/if}
      {#if found.conditions.length > 0}
        <h3 class="mt-4 text-base">What they had</h3>
        <table class="w-full text-sm">
          <thead>
            <tr class="text-left text-soft">
              <th class="py-1 font-normal">What</th><th class="font-normal">{found.a}</th><th
                class="font-normal">{found.b}</th
              >
            </tr>
          </thead>
          <tbody>
            {#each found.conditions as own (own.what)}
              <tr class="border-t align-top">
                <td class="py-1">{HAD[own.what]}</td>
                {#each [0, 1] as i (i)}
                  <td class="py-1">
                    {#if own.measured[i] != null}<b>{shown(own.measured[i], own.quantity)}</b>
                      measured<br />{/if}
                    <span class="text-soft">{shown(own.reckoned[i], own.quantity)} reckoned</span>
                  </td>
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </div>
  {/if}
</section>
