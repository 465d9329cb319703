<script lang="ts">
  // Every plan that is kept: opened, copied for next year, set aside, deleted and brought back.
  import { api, type PlanSummary } from '../api/client';
  import { begin, beginWithDemo, deletePlan, nextYear, restorePlan } from '../bench/plans';
  import { bench } from '../bench/workbench.svelte';
  import NextYear from '../learn/NextYear.svelte';

  let plans: PlanSummary[] = $state.raw([]);
  let deleted: PlanSummary[] = $state.raw([]);
  let asked: number | undefined = $state();
  let problem = $state('');
  /** The plan that is about to be copied. */
  let copying: number | undefined = $state();

  async function look() {
    try {
      [plans, deleted] = await Promise.all([api.plans(), api.deletedPlans()]);
      problem = '';
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }
  $effect(() => {
    if (bench.view) void look();
  });

  const KEPT_DAYS = 30;
  const until = (at: string) =>
    new Date(Date.parse(at) + KEPT_DAYS * 86_400_000).toISOString().slice(0, 10);

  const inUse = $derived(plans.filter((plan) => !plan.aside));
  const aside = $derived(plans.filter((plan) => plan.aside));

  async function setAside(id: number, to: boolean) {
    try {
      await api.setAside(id, to);
    } catch (error) {
      bench.explain(error);
    }
    await look();
  }

  async function another(how: 'empty' | 'demo') {
    if (how === 'demo') await beginWithDemo();
    else await begin(await api.blankPlan(), 'began with an empty plan');
    await look();
  }

  async function remove(id: number) {
    asked = undefined;
    await deletePlan(id);
    await look();
  }
</script>

{#if problem}<p class="text-wine" role="alert">{problem}</p>{/if}
{#snippet row(plan: PlanSummary)}
  <li class="flex flex-wrap items-baseline gap-x-1 border-t py-1.5">
    <span class="grow {plan.id === bench.view?.id ? 'font-semibold' : ''}">{plan.name}</span>
    {#if plan.id === bench.view?.id}
      <span class="rounded bg-sage-soft px-2 text-sm">open</span>
    {:else if plan.readable}
      <button
        class="quiet text-sm"
        aria-label="Open {plan.name}"
        onclick={() => void bench.load(null, plan.id)}>Open</button
      >
    {/if}
    {#if plan.readable}
      <button
        class="quiet text-sm"
        aria-label="Copy {plan.name} for next year"
        aria-expanded={copying === plan.id}
        onclick={() => (copying = copying === plan.id ? undefined : plan.id)}
        >Copy for next year…</button
      >
    {/if}
    <button
      class="quiet text-sm"
      aria-label={plan.aside ? `Take ${plan.name} to hand` : `Set ${plan.name} aside`}
      onclick={() => void setAside(plan.id, !plan.aside)}
      >{plan.aside ? 'Take to hand' : 'Set aside'}</button
    >
    {#if asked === plan.id}
      <button class="quiet text-sm font-semibold text-wine" onclick={() => void remove(plan.id)}
        >Delete {plan.name}</button
      >
      <button class="quiet text-sm" onclick={() => (asked = undefined)}>Keep</button>
    {:else}
      <button
        class="quiet text-sm"
        aria-label="Delete {plan.name}…"
        onclick={() => (asked = plan.id)}>Delete…</button
      >
    {/if}
    {#if copying === plan.id}
      <NextYear
        plan={plan.id}
        name={plan.name}
        oncopy={(takes) => {
          copying = undefined;
          void nextYear(plan.id, takes).then(look);
        }}
        oncancel={() => (copying = undefined)}
      />
    {/if}
  </li>
{/snippet}
<ul class="flex flex-col" data-testid="plans">
  {#each inUse as plan (plan.id)}{@render row(plan)}{/each}
</ul>
<div class="mt-1 flex flex-wrap gap-2 border-t pt-2">
  <button class="quiet border-frame! text-sm" onclick={() => void another('empty')}
    >New empty plan</button
  >
  <button class="quiet border-frame! text-sm" onclick={() => void another('demo')}
    >Look at the demo</button
  >
</div>
{#if aside.length > 0}
  <h3 class="mt-3 text-sm text-soft">Set aside</h3>
  <ul class="flex flex-col" data-testid="plans-aside">
    {#each aside as plan (plan.id)}{@render row(plan)}{/each}
  </ul>
{/if}
{#if deleted.length > 0}
  <h3 class="mt-3 text-sm text-soft">Deleted</h3>
  <ul data-testid="deleted-plans">
    {#each deleted as plan (plan.id)}
      <li class="flex flex-wrap items-baseline gap-2 border-t py-1.5">
        <span class="grow">{plan.name}</span>
        {#if plan.deleted_at}
          <span class="text-sm text-soft"
            >kept until {bench.words.date(until(plan.deleted_at))}</span
          >
        {/if}
        <button class="quiet text-sm" onclick={() => void restorePlan(plan.id)}>Bring back</button>
      </li>
    {/each}
  </ul>
{/if}
