<script lang="ts">
  // The life of a tray: what was planned beside what happened.
  import { type Story } from '../api/client';
  import { logApi } from '../api/log';
  import { bench } from '../bench/workbench.svelte';
  import { daysBetween } from '../say/dates';
  import { movedBy } from '../say/words';
  import Diagnose from '../learn/Diagnose.svelte';
  import Chart from './Chart.svelte';
  import { outbox } from './outbox.svelte';

  const { tray, onclose }: { tray: string; onclose: () => void } = $props();
  const words = $derived(bench.words);
  let story: Story | undefined = $state.raw();
  let problem = $state('');

  $effect(() => {
    void bench.view?.revision;
    void outbox.sent;
    void tell(bench.view?.id, tray);
  });

  async function tell(plan: number | undefined, id: string) {
    if (plan === undefined) return;
    try {
      const told = await logApi.story(plan, id);
      if (id === tray) [story, problem] = [told, ''];
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }

  const STEPS: Record<string, string> = {
    chill: 'Chill',
    sow: 'Sow',
    vent: 'Vent the dome',
    emerge: 'Into the light',
    uncover: 'Dome off',
    mat_off: 'Mat off',
    thin: 'Thin or prick out',
    feed: 'First feed',
    cut_back: 'Cut back',
    pot_on: 'Pot on',
    move: 'Move',
    harden: 'Harden off',
    plant_out: 'Plant out',
  };

  /** Against the plan: how many days later or sooner. */
  function off(planned: string | null | undefined, day: string): string {
    if (!planned) return '';
    const days = daysBetween(planned, day);
    return days === 0 ? 'as planned' : movedBy(days);
  }
</script>

<section class="card p-4" aria-label="Life of the tray" data-testid="story">
  {#if story && story.tray === tray}
    <div class="flex items-start justify-between gap-2">
      <div>
        <h2 class="text-xl">{story.label}</h2>
        <p class="text-soft">{story.holds.join(' + ')}</p>
      </div>
      <button class="quiet" aria-label="Close the life of {story.label}" onclick={onclose}>✕</button
      >
    </div>
    <table class="mt-2 w-full text-sm">
      <thead>
        <tr class="text-left text-soft">
          <th class="py-1 font-normal">Step</th><th class="font-normal">Planned</th><th
            class="font-normal">Happened</th
          ><th class="font-normal">Against plan</th>
        </tr>
      </thead>
      <tbody>
        {#each story.steps as step, i (i)}
          <tr class="border-t" class:text-soft={!step.happened}>
            <td class="py-1">{STEPS[step.what]}</td>
            <td>{step.planned ? words.shortDate(step.planned) : '–'}</td>
            <td>{step.happened ? words.shortDate(step.day) : `due ${words.shortDate(step.day)}`}</td
            >
            <td class={step.planned && step.day > step.planned ? 'text-wine' : ''}
              >{off(step.planned, step.day)}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <div class="mt-3 grid gap-3">
      {#each story.counts as track, i (i)}
        {#if track.reckoned.length > 0}
          <Chart
            {track}
            title={story.counts.length > 1
              ? `Up: ${track.name}`
              : `Cells up, of ${track.most ?? ''}`}
          />
        {/if}
      {/each}
      {#if story.soil.reckoned.length > 0}
        <Chart track={story.soil} title="Mix while germinating" quantity="temperature_c" />
      {/if}
      {#each story.heights as track, i (i)}
        {#if track.reckoned.length > 0}
          <Chart
            {track}
            title={story.heights.length > 1 ? `Height: ${track.name}` : 'Height'}
            quantity="length_mm"
          />
        {/if}
      {/each}
    </div>
    <p class="mt-2 text-sm text-soft">
      Dashed: as reckoned. Dots: as you noted it.
      {#if story.water_ml}Water noted so far: {words.number(story.water_ml, 'volume_ml')}.{/if}
    </p>
    <Diagnose {tray} />
  {:else if problem}
    <p class="text-wine" role="alert">{problem}</p>
  {:else}
    <p class="text-soft" role="status">Looking back…</p>
  {/if}
</section>
