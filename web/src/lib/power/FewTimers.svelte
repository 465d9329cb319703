<script lang="ts">
  // How few settings of timers serve all lit shelves, and what sharing them costs the seedlings.
  import type { Electricity } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  const { answer }: { answer: Electricity } = $props();
  const words = $derived(bench.words);
  const time = (hour: number) => words.number(((hour % 24) + 24) % 24, 'clock_h');
  const share = (value: number) => words.number(value, 'share');
  const today = $derived(answer.few_timers);
  const settings = (n: number) =>
    n === 1 ? 'One setting for all' : `${words.number(n, 'count')} settings`;
</script>

{#if today}
  <p>
    Now: {settings(today.settings_now).replace(/^O/, 'o')}, {share(today.wrong_now)} of the cells get
    the wrong light, {words.number(today.cost_now, 'money')} a day.
  </p>
  <p class="text-sm text-soft">
    Shelves that share a setting burn for the same hours; heights are chosen for each. The wrong
    light is less than the crop wants, or so much that leaves come to harm.
  </p>
  <div class="mt-2 flex flex-col gap-2" data-testid="few-timers">
    {#each today.ways as way, i (i)}
      <details class="rounded-xl border px-3 py-2" open={i === today.best}>
        <summary class="cursor-pointer">
          <span class="font-semibold">{settings(way.settings.length)}:</span>
          {share(way.wrong)} get the wrong light, {words.number(way.cost_per_day, 'money')} a day
        </summary>
        <ul class="mt-1 flex flex-col gap-1 text-sm">
          {#each way.settings as setting (setting.hours_h)}
            <li>
              <span class="font-semibold"
                >{words.number(setting.hours_h, 'hours')}, {time(setting.start.from_h)} to {time(
                  setting.start.to_h,
                )}:</span
              >
              {#each setting.shelves as shelf, k (shelf.name)}{k > 0
                  ? '; '
                  : ' '}{shelf.name}{#if shelf.worse}<span class="text-wine"
                    >, {share(shelf.wrong)} wrong instead of {share(shelf.wrong_alone)}</span
                  >{/if}{/each}
            </li>
          {/each}
        </ul>
        {#if way.fix}
          {@const fix = way.fix}
          <button class="quiet mt-2 border-line!" onclick={() => void bench.apply(fix)}
            >{words.say(fix.label)}</button
          >
        {:else}
          <p class="mt-1 text-sm text-soft">They are set so.</p>
        {/if}
      </details>
    {/each}
  </div>
{:else}
  <p class="text-soft">Fewer than two shelves are lit that day: there is nothing to share.</p>
{/if}
