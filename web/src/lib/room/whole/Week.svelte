<script lang="ts">
  // What the sowings' dates bring in the seven days from the chosen one.
  import { bench } from '../../bench/workbench.svelte';
  import { plusDays } from '../../say/dates';

  const words = $derived(bench.words);
  const to = $derived(bench.date ? plusDays(bench.date, 6) : '');
  const events = $derived(
    bench.assessment?.season.events.filter((e) => e.date >= bench.date && e.date <= to) ?? [],
  );
  const moves = $derived(
    bench.assessment?.season.moves.filter((m) => m.date >= bench.date && m.date <= to) ?? [],
  );
</script>

<!-- It scrolls, so keys must reach it. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<section
  tabindex="0"
  class="card mx-4 mb-3 flex items-stretch gap-6 overflow-x-auto px-4 py-2"
  aria-label="This week"
>
  <div class="shrink-0">
    <h2 class="text-base">This week</h2>
    <p class="text-sm whitespace-nowrap text-soft">
      {bench.date ? words.shortDate(bench.date) : ''} to {to ? words.shortDate(to) : ''}
    </p>
  </div>
  <ul class="flex gap-6" data-testid="week">
    {#each events as event, i (i)}
      <li class="shrink-0">
        <p class="font-semibold whitespace-nowrap" title={words.say(event.note)}>
          {words.say(event.headline)}
        </p>
        <p class="text-sm whitespace-nowrap text-soft">{words.date(event.date)}</p>
      </li>
    {:else}
      {#if moves.length === 0}<li class="text-soft">
          Nothing to sow or move this week. Keep watering.
        </li>{/if}
    {/each}
    {#each moves as move, i (i)}
      <li class="shrink-0" data-testid="move">
        <p class="font-semibold whitespace-nowrap">Carry {words.say(move.headline)}</p>
        <p class="text-sm whitespace-nowrap text-soft">{words.date(move.date)}</p>
      </li>
    {/each}
  </ul>
</section>
