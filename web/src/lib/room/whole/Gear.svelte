<script lang="ts">
  // How few lit shelves and racks the season needs: before buying, and to switch off.
  import { api, type LeastGear, type LesseningTick } from '../../api/client';
  import { Asked } from '../../bench/asked.svelte';
  import { bench } from '../../bench/workbench.svelte';
  import Working from '../../fields/Working.svelte';

  const words = $derived(bench.words);
  const asked = new Asked<LeastGear>();
  const gear = $derived(asked.fresh('gear') ? asked.answer : undefined);
  let tick: LesseningTick | undefined = $state();

  async function look() {
    const draft = bench.draft;
    if (!draft) return;
    tick = undefined;
    await asked.ask('gear', () => api.leastGear(draft, (now) => (tick = now)));
  }
</script>

{#if asked.state === 'waiting'}
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
    <Working
      label="Leaving out one after another"
      done={tick?.done ?? 0}
      soFar="Rooms tried: {words.number(tick?.tried ?? 0, 'count')}"
      run={tick?.run}
    />
  </div>
{:else if !gear}
  <p class="text-soft">
    Leave out one lit shelf or rack after another until the trays no longer fit.
  </p>
  <button class="quiet mt-1 border-line!" onclick={() => void look()}>See what is needed</button>
  {#if asked.problem}<p class="text-sm text-wine" role="alert">{asked.problem}</p>{/if}
{:else}
  <ul class="rounded-xl bg-sage-soft p-3" data-testid="least-gear">
    {#each [gear.lit_shelves, gear.places] as needed, i (i)}
      <li class="first-letter:uppercase">{words.say(needed.verdict)}.</li>
    {/each}
  </ul>
  <p class="mt-1 text-sm text-soft">
    Each by itself, all trays placed afresh.
    {#if gear.without > 0}
      Even with all of it {gear.without} trays stand nowhere.
    {/if}
    {#if !gear.all_tried}Not all was tried: fewer may do.{/if}
    How few mats do is under “Sharing the heat mats”.
  </p>
{/if}
