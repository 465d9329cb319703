<script lang="ts">
  // Labels to cut out: one for each kind in a tray, and one for the tray.
  import type { Tray, TrayFormat } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { kindsOf } from './blocks';

  const { tray, format }: { tray: Tray; format: TrayFormat } = $props();
  const words = $derived(bench.words);
  const labels = $derived(
    kindsOf(tray, format).flatMap(({ sowing: id, cells }) => {
      const dates = bench.assessment?.sowings.find((d) => d.sowing === id);
      if (!dates) return [];
      const [crop, variety] = [dates.crop, dates.variety];
      return [{ id, crop, variety, dates, cells }];
    }),
  );
</script>

<ul class="labels" aria-label="Labels">
  {#each labels as { id, crop, variety, dates, cells } (id)}
    <li>
      <div>
        <b>{variety}</b>
        <span>{crop}, {cells} {tray.potted ? 'pots' : 'cells'}</span>
        <span>{tray.name}: sown {words.shortDate(dates.sow)}, out {words.shortDate(dates.out)}</span
        >
      </div>
      <!-- A phone that reads it opens the life of the tray. -->
      <img
        src="/api/plans/{bench.view?.id}/trays/{encodeURIComponent(tray.id)}/code.svg"
        alt="Code that opens {tray.name} on a phone"
      />
    </li>
  {/each}
</ul>

<style>
  .labels {
    display: grid;
    grid-template-columns: repeat(auto-fill, 90mm);
    gap: 3mm;
  }
  li {
    display: flex;
    gap: 2mm;
    align-items: center;
    justify-content: space-between;
    width: 90mm;
    height: 18mm;
    padding: 1mm 1.5mm 1mm 4mm;
    overflow: hidden;
    border: 0.3mm dashed #777;
    color: black;
    background: white;
    font-size: 3.4mm;
    line-height: 1.25;
    break-inside: avoid;
  }
  div {
    display: flex;
    flex-direction: column;
    min-width: 0;
  }
  img {
    flex-shrink: 0;
    width: 15.5mm;
    height: 15.5mm;
  }
  b {
    font-size: 4.6mm;
  }
</style>
