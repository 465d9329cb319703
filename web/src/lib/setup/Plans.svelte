<script lang="ts">
  // Every plan that is kept, and those that were deleted and can still be brought back.
  import { api, type PlanSummary } from '../api/client';
  import { deletePlan, restorePlan } from '../bench/plans';
  import { bench } from '../bench/workbench.svelte';

  let plans: PlanSummary[] = $state.raw([]);
  let deleted: PlanSummary[] = $state.raw([]);
  let asked: number | undefined = $state();
  let problem = $state('');

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

  async function remove(id: number) {
    asked = undefined;
    await deletePlan(id);
    await look();
  }
</script>

{#if problem}<p class="text-wine" role="alert">{problem}</p>{/if}
<ul class="flex flex-col" data-testid="plans">
  {#each plans as plan (plan.id)}
    <li class="flex flex-wrap items-baseline gap-2 border-t py-1.5">
      <span class="grow">{plan.name}</span>
      {#if plan.id === bench.view?.id}
        <span class="rounded bg-sage-soft px-2 text-sm">open</span>
      {:else if plan.readable}
        <button class="quiet text-sm" onclick={() => void bench.load(null, plan.id)}>Open</button>
      {/if}
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
    </li>
  {/each}
</ul>
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
