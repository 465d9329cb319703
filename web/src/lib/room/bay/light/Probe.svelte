<script lang="ts">
  // A lux meter held beside the leaves: what it should show, and what its reading says.
  import { Button } from 'flowbite-svelte';
  import { api, Refused } from '../../../api/client';
  import type { BayOnDay, Probed } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import NumberField from '../../../fields/NumberField.svelte';
  import { outbox } from '../../../log/outbox.svelte';
  import { walk } from '../../../today/walk.svelte';

  interface Props {
    bay: BayOnDay;
    at: { x_mm: number; y_mm: number };
  }
  const { bay, at }: Props = $props();

  const words = $derived(bench.words);
  let lux: number | undefined = $state();
  let probed: Probed | undefined = $state();
  let problem = $state('');
  /** The reading that was noted last: one is noted once. */
  let kept: number | undefined = $state();

  function keep() {
    const plan = bench.view?.id;
    if (plan === undefined || lux === undefined) return;
    const about = { spot: { bay: bay.bay, x_mm: at.x_mm, y_mm: at.y_mm } };
    outbox.note(plan, [walk.entry({ measured: { about, reading: { lux } } }, { at_h: null })]);
    kept = lux;
  }

  $effect(() => {
    const plan = bench.draft;
    const asked = { bay: bay.bay, date: bench.date, x_mm: at.x_mm, y_mm: at.y_mm, lux };
    if (!plan) return;
    let stale = false;
    api.probe(plan, asked).then(
      (answer) => {
        if (!stale) [probed, problem] = [answer, ''];
      },
      (error: unknown) => {
        if (!stale)
          problem = error instanceof Refused ? error.message : 'The server does not answer.';
      },
    );
    return () => (stale = true);
  });
</script>

<div class="mt-1 rounded-lg border p-2" data-testid="probe">
  {#if probed}
    <p>
      At the cross, {words.number(probed.z_mm, 'length_mm')} above the shelf: brightness (PPFD)
      <b>{words.bare(probed.ppfd, 'ppfd_umol_m2_s')}</b>, DLI
      <b>{words.bare(probed.dli, 'dli_mol_m2_d')}</b> from these lamps. A lux meter should read
      <b>{words.number(probed.lux, 'illuminance_lux')}</b>.
    </p>
    <div class="mt-1 flex flex-wrap items-end gap-3">
      <NumberField
        label="Yours reads"
        value={lux}
        quantity="illuminance_lux"
        min={1}
        max={200000}
        onset={(value) => (lux = value)}
        onclear={() => (lux = undefined)}
      />
      {#if probed.reading?.fix}
        {@const fix = probed.reading.fix}
        <Button
          class="shrink-0 bg-coral! px-3! py-1.5! font-semibold text-on-coral! hover:opacity-90"
          onclick={() => void bench.apply(fix)}>{words.say(fix.label)}</Button
        >
      {/if}
      {#if lux !== undefined && probed.reading}
        <button class="quiet" disabled={kept === lux} onclick={keep}
          >{kept === lux ? 'Noted in the log' : 'Note it in the log'}</button
        >
      {/if}
    </div>
    {#if probed.reading}
      <p class="mt-1" data-testid="reading">
        That is a PPFD of <b>{words.bare(probed.reading.ppfd, 'ppfd_umol_m2_s')}</b>. {words.say(
          probed.reading.verdict,
        )}.
      </p>
    {/if}
  {/if}
  {#if problem}<p class="text-sm text-wine" role="alert">{problem}</p>{/if}
</div>
