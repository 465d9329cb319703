<script lang="ts">
  // What does not fit, why, and what would make it fit: each way was placed, and is done with one click.
  import { api, type Overflow, type TryingTick, type WayToFit } from '../../api/client';
  import { Asked } from '../../bench/asked.svelte';
  import { bench } from '../../bench/workbench.svelte';
  import Working from '../../fields/Working.svelte';

  const words = $derived(bench.words);
  const short = $derived(bench.assessment?.season.days.filter((day) => day.unplaced > 0) ?? []);
  const most = $derived(Math.max(0, ...short.map((day) => day.unplaced)));
  const asked = new Asked<Overflow>();
  const overflow = $derived(asked.fresh('room') ? asked.answer : undefined);
  let tick: TryingTick | undefined = $state();

  async function look() {
    await bench.settle();
    const draft = bench.draft;
    if (!draft) return;
    tick = undefined;
    await asked.ask('room', () => api.makeRoom(draft, (now) => (tick = now)));
  }

  const soFar = $derived(
    !tick
      ? 'Looking for who has no spot…'
      : `Changes tried: ${words.number(tick.tried, 'count')}; ways found: ${words.number(tick.found, 'count')}`,
  );
  const count = (n: number, one: string) => (n === 1 ? `1 ${one}` : `${n} ${one}s`);
  /** With some ways it still does not fit. */
  const leaves = (way: WayToFit) =>
    way.left === 0 ? 'all trays have a spot then' : `${count(way.left, 'tray')} still without`;
</script>

{#if short.length > 0}
  <section class="mt-4 rounded-xl bg-wine-soft p-3" aria-label="Trays without a spot">
    <h3 class="text-lg">
      {overflow && overflow.without.length > 0
        ? 'Not everything fits this season'
        : 'Trays without a spot'}
    </h3>
    <p>
      Between {words.shortDate(short[0]!.date)} and {words.shortDate(short.at(-1)!.date)},
      {most === 1 ? '1 tray stands' : `up to ${most} trays stand`} nowhere.
    </p>
    {#if asked.state === 'waiting'}
      <div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
        <Working label="Looking for ways" done={tick?.done ?? 0} {soFar} run={tick?.run} />
      </div>
    {:else if !overflow}
      <button class="quiet mt-1 border-frame! bg-raised! font-semibold" onclick={() => void look()}
        >Why, and what would help?</button
      >
      {#if asked.problem}<p class="text-sm text-wine" role="alert">{asked.problem}</p>{/if}
    {:else}
      {#if overflow.without.length === 0}
        <p class="mt-2">There is room for all: “Find spots for all” moves what has to make room.</p>
      {/if}
      <ul class="mt-2 flex flex-col gap-2" data-testid="shortages">
        {#each overflow.shortages as shortage, i (i)}
          <li>
            <p class="font-semibold">{words.say(shortage.headline)}</p>
            <p class="text-sm">
              {words.say(shortage.reason)}
              {#if shortage.nearly}{words.say(shortage.nearly)}.{/if}
            </p>
            <button class="text-sm underline" onclick={() => bench.go(shortage.days.from)}
              >Show {words.shortDate(shortage.days.from)}</button
            >
          </li>
        {/each}
      </ul>
      {#if overflow.ways.length > 0}
        <h4 class="mt-3 font-semibold">What would help, the least harm first</h4>
        <ol class="mt-1 flex flex-col gap-2" data-testid="ways">
          {#each overflow.ways as way, i (i)}
            <li class="rounded-lg border border-line bg-raised p-2">
              <div class="flex items-start justify-between gap-2">
                <div>
                  {#each way.steps as step, j (j)}<p class="font-semibold">
                      {words.say(step)}
                    </p>{/each}
                </div>
                <button
                  class="quiet shrink-0 border-frame! bg-coral! text-sm font-semibold text-on-coral!"
                  onclick={() => void bench.adopt(way.edited)}>Do this</button
                >
              </div>
              <ul class="mt-1 text-sm">
                {#each way.costs as cost, j (j)}<li>Costs: {words.say(cost)}</li>{/each}
                {#each way.buys as buys, j (j)}<li>To get: {words.say(buys)}</li>{/each}
                <li class="text-soft">Placed: {leaves(way)}</li>
              </ul>
            </li>
          {/each}
        </ol>
      {:else if overflow.without.length > 0}
        <p class="mt-2">
          {overflow.all_tried
            ? 'None of the usual changes makes room: other days, smaller cells, fewer trays, storage shelves, another shelf or rack. Grow fewer kinds, or use another room.'
            : 'Nothing was found before the search ended.'}
        </p>
      {/if}
    {/if}
  </section>
{/if}
