<script lang="ts">
  // The year outdoors, month by month: as typed, by a record, or estimated.
  import type { Site } from '../api/client';
  import { replace, setOptional } from '../bench/edits';
  import NumberField from '../fields/NumberField.svelte';
  import { bench } from '../bench/workbench.svelte';
  import { outdoors } from './outdoors.svelte';

  const { site }: { site: Site } = $props();

  const words = $derived(bench.words);
  const asked = outdoors();
  const plan = $derived(bench.view?.id);
  const revision = $derived(bench.view?.revision);
  $effect(() => {
    void revision;
    if (plan !== undefined) void asked.ask(plan);
  });
  const year = $derived(asked.answer);
  const typed = $derived(site.months ?? []);
  /** No estimate of a month is surer than that. */
  const about = (c: number) => words.number(Math.round(c) || 0, 'temperature_c');
  const round = (c: number) => Math.round(c * 10) / 10;

  function type() {
    const months = year!.months.map((month) => ({
      minimum_c: round(month.night_c),
      maximum_c: round(month.day_c),
      humidity: Math.round(month.humidity * 100) / 100,
    }));
    bench.keep(
      setOptional('/site/months', months, site.months !== undefined),
      'typed the months outdoors',
    );
  }
</script>

{#if asked.problem}<p class="text-wine" role="alert">{asked.problem}</p>{/if}
{#if year}
  <p class="mt-1 text-sm text-soft">
    Usual days and nights, {words.say(year.source)}. Frames, greenhouses and hardening off go by
    them.
    {#if year.by === 'estimate'}A weather file under “Frosts on record” brings its own months.{/if}
  </p>
  {#if typed.length > 0}
    <div class="mt-2 grid grid-cols-2 gap-2">
      {#each typed as month, i (i)}
        {#each [['minimum_c', 'night'], ['maximum_c', 'day']] as const as [field, what] (field)}
          <NumberField
            label="{words.month(i + 1)}, {what}"
            value={month[field]}
            quantity="temperature_c"
            onset={(c) =>
              bench.keep(
                [replace(`/site/months/${i}/${field}`, c)],
                `${words.month(i + 1)} outdoors, ${what}: ${words.number(c, 'temperature_c')}`,
              )}
          />
        {/each}
      {/each}
    </div>
  {:else}
    <table class="mt-2 w-full text-right tabular-nums">
      <thead class="text-sm text-soft">
        <tr>
          <th class="text-left font-normal">Month</th>
          <th class="font-normal">night</th>
          <th class="font-normal">day</th>
        </tr>
      </thead>
      <tbody>
        {#each year.months as month (month.month)}
          <tr class="border-t">
            <th class="text-left font-normal" scope="row">{words.month(month.month)}</th>
            <td>{about(month.night_c)}</td>
            <td>{about(month.day_c)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if typed.length > 0}
    <button
      class="quiet mt-2 self-start border-line!"
      onclick={() =>
        bench.keep(setOptional('/site/months', undefined, true), 'no typed months outdoors')}
      >Leave these months out</button
    >
  {:else}
    <button class="quiet mt-2 self-start border-line!" onclick={type}>Type your own months</button>
  {/if}
{/if}
