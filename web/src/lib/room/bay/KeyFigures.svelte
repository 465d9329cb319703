<script lang="ts">
  // Four figures of a shelf that are always in sight.
  import type { BayOnDay } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';

  const { bay }: { bay: BayOnDay } = $props();
  const words = $derived(bench.words);
  const empty = $derived(bay.detail?.empty ?? undefined);
  const dli = $derived(bay.light && bay.light.dli.best > 0 ? bay.light.dli.mean : undefined);
  const light = $derived(
    dli !== undefined
      ? words.bare(dli, 'dli_mol_m2_d')
      : empty
        ? words.bare(empty.dli.mean, 'dli_mol_m2_d')
        : undefined,
  );
  const gap = $derived(bay.light?.gap_mm ?? empty?.gap_mm ?? undefined);
  const coolest = $derived(
    bay.roots.length > 0 ? Math.min(...bay.roots.map((r) => r.day.mean_c)) : undefined,
  );
  /** Outdoors there is light enough, and sun and wind dry a tray as no figure tells. */
  const outdoors = $derived(
    bench.places.some((own) => own.id === bay.bay.place && 'cold_frame' in own.kind),
  );
  const dry = $derived.by(() => {
    const days = bay.roots.map((r) => r.water.lasts_days).filter((d) => d != null);
    return days.length > 0 ? Math.min(...days) : undefined;
  });
  const lit = $derived(bay.burning || (bay.light?.dli.best ?? 0) > 0);
</script>

<dl class="mt-3 grid grid-cols-4 gap-2 text-center" data-testid="key-figures">
  <div>
    <dt class="text-sm text-soft">{bay.light || !empty ? 'daily light' : 'light here'}</dt>
    <dd class="font-semibold">
      {#if light !== undefined}<span class="text-lg">{light}</span> mol{:else if outdoors}outdoors{:else}{bay
          .trays.length > 0 && !lit
          ? 'dark'
          : 'none'}{/if}
    </dd>
  </div>
  <div>
    <dt class="text-sm text-soft">gap to leaves</dt>
    <dd class="text-lg font-semibold" data-testid="gap">
      {#if gap === undefined || (bay.light === null && !empty)}–{:else if gap > 0}{words.number(
          gap,
          'length_mm',
        )}{:else}none{/if}
    </dd>
  </div>
  <div>
    <dt class="text-sm text-soft">mix</dt>
    <dd class="text-lg font-semibold">
      {coolest === undefined ? '–' : words.number(coolest, 'temperature_c')}
    </dd>
  </div>
  <div>
    <dt class="text-sm text-soft">dry in</dt>
    <dd class="text-lg font-semibold">
      {#if outdoors}–{:else}{dry === undefined
          ? bay.roots.length > 0
            ? 'weeks'
            : '–'
          : `${Math.floor(dry)} d`}{/if}
    </dd>
  </div>
</dl>
