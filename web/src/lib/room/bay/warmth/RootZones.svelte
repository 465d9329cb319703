<script lang="ts">
  // The root zone of every tray of a bay through the day, and when what is sown there shows.
  import { scaleLinear } from 'd3-scale';
  import { line } from 'd3-shape';
  import type { TrayRoots } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import EmergenceCurve, { type Here } from './EmergenceCurve.svelte';

  const { roots, germinating }: { roots: TrayRoots[]; germinating: string[] } = $props();

  const HEIGHT = 140;
  const PAD = { left: 30, right: 34, top: 10, bottom: 20 };
  // Told apart by their dashes too, not by colour alone.
  const DASHES = ['', '7 3', '2 3', '9 3 2 3', '4 4', '1 4'];
  const words = $derived(bench.words);
  let width = $state(0);

  const hours = [0, 6, 12, 18, 24];
  /** The day closes where it began. */
  const closed = (values: number[]) => [...values, values[0]!];
  const wanted = $derived(
    roots
      .filter((r) => germinating.includes(r.tray))
      .flatMap((r) => r.sown.map((sown) => sown.wants_c)),
  );
  /** Drawn hour by hour once the server was asked about this bay. */
  const lines = $derived(
    roots.flatMap((r) => {
      const hours = r.day.hours?.root_zone_c;
      return hours ? [{ tray: r.tray, label: r.label, hours }] : [];
    }),
  );
  const all = $derived([...lines.flatMap((line) => line.hours), ...wanted]);
  const x = $derived(scaleLinear([0, 24], [PAD.left, Math.max(width - PAD.right, PAD.left)]));
  const y = $derived(
    scaleLinear([Math.min(...all) - 1, Math.max(...all) + 1], [HEIGHT - PAD.bottom, PAD.top]),
  );
  /** What germinates here, each once, with the trays that it is in. */
  const sowings = $derived.by(() => {
    const found: { sown: TrayRoots['sown'][number]; here: Here[] }[] = [];
    for (const r of roots.filter((r) => germinating.includes(r.tray))) {
      for (const sown of r.sown) {
        let of = found.find((f) => f.sown.sowing === sown.sowing);
        if (!of) found.push((of = { sown, here: [] }));
        of.here.push({ label: r.label, c: r.day.mean_c, days: sown.outcome.half_days });
      }
    }
    return found;
  });
  const path = $derived(
    (values: number[]) =>
      line<number>()
        .x((_, i) => x(i))
        .y((c) => y(c))(closed(values)) ?? '',
  );
  const degrees = $derived((c: number) => words.bare(c, 'temperature_c'));
  /** Labels at the right end, one below the other where lines lie close. */
  const labels = $derived.by(() => {
    const each = lines.map(({ label, hours }) => ({ label, y: y(hours[0]!) + 5 }));
    each.sort((a, b) => a.y - b.y);
    each.forEach((label, i) => {
      if (i > 0) label.y = Math.max(label.y, each[i - 1]!.y + 14);
    });
    return each;
  });
</script>

<div bind:clientWidth={width}>
  {#if width > 0 && lines.length > 0}
    <svg
      {width}
      height={HEIGHT}
      role="img"
      aria-label="Root-zone temperature through the day: {roots
        .map((r) => `${r.label} ${degrees(r.day.least_c)} to ${degrees(r.day.most_c)}`)
        .join(', ')}"
      class="block overflow-visible"
    >
      {#each y.ticks(4) as tick (tick)}
        <line x1={PAD.left} x2={width - PAD.right} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
        <text x={PAD.left - 5} y={y(tick) + 5} text-anchor="end" font-size="14" fill="var(--soft)"
          >{degrees(tick)}</text
        >
      {/each}
      {#each hours as hour (hour)}
        <text x={x(hour)} y={HEIGHT - 3} text-anchor="middle" font-size="14" fill="var(--soft)"
          >{hour}</text
        >
      {/each}
      {#each [...new Set(wanted)] as c (c)}
        <line
          x1={PAD.left}
          x2={width - PAD.right}
          y1={y(c)}
          y2={y(c)}
          stroke="var(--sage)"
          stroke-width="6"
          opacity="0.35"
        />
      {/each}
      {#each lines as one, i (one.tray)}
        <path
          d={path(one.hours)}
          fill="none"
          stroke="var(--teal)"
          stroke-width="2"
          stroke-dasharray={DASHES[i % DASHES.length]}
        />
      {/each}
      {#each labels as label, i (i)}
        <text x={width - PAD.right + 4} y={label.y} font-size="14" fill="var(--ink)"
          >{label.label}</text
        >
      {/each}
    </svg>
    <p class="text-sm text-soft">
      {words.unit('temperature_c').unit} at root depth, hour by hour{#if wanted.length > 0}; the
        green band is what suits the seed{/if}
    </p>
  {/if}
</div>
<ul class="mt-2 flex flex-col gap-2" data-testid="roots">
  {#each roots as r (r.tray)}
    <li class="border-t pt-2">
      <p>
        <b>{r.label}</b>
        {words.number(r.day.mean_c, 'temperature_c')} on average, {degrees(r.day.least_c)} to {words.number(
          r.day.most_c,
          'temperature_c',
        )}
      </p>
      {#if r.mat}
        <p class="text-sm text-soft">
          {r.mat}, on for {words.number(r.day.duty, 'share')} of the day: {words.number(
            r.day.kwh_per_day,
            'energy_kwh',
          )} under this tray{#if r.day.warm_up_h != null}; warm after {words.number(
              r.day.warm_up_h,
              'hours',
            )}{/if}
        </p>
        {#if !r.day.reaches && r.set_c != null}
          <p class="text-wine">
            The mat cannot reach the {words.number(r.set_c, 'temperature_c')} that you set.
          </p>
          <ul class="list-disc pl-5 text-sm">
            {#each r.day.helps as help, i (i)}
              <li>
                {words.say(help.what)}: {words.number(help.mean_c, 'temperature_c')} on average
              </li>
            {/each}
          </ul>
        {/if}
      {/if}
      <p class="text-sm text-soft">
        {#if r.water.lasts_days == null}
          Lasts for weeks after a good watering
        {:else}
          Uses {words.number(r.water.uses_ml_d, 'volume_ml')} a day; after a good watering lasts about
          {words.number(r.water.lasts_days, 'days')}
        {/if}{#if r.water.fill_ml > 0}; {words.number(r.water.fill_ml, 'volume_ml')} fill the tray {words.number(
            r.water.fill_mm,
            'length_mm',
          )} deep from below{/if}{#if r.water.reservoir_ml > 0}; a wick lifts {words.number(
            r.water.reservoir_ml,
            'volume_ml',
          )} from below{/if}{#if r.water.lasts_days != null}; lift it: at {words.number(
            r.water.light_kg,
            'mass_kg',
          )} it wants water{/if}
      </p>
      {#if germinating.includes(r.tray)}
        {#each r.sown as sown (sown.sowing)}
          <p class="text-sm">{sown.name}: {words.say(sown.outcome.verdict)}.</p>
        {/each}
      {/if}
    </li>
  {/each}
</ul>
{#each sowings as of (of.sown.sowing)}
  <h4 class="mt-3 font-semibold">{of.sown.name}</h4>
  <EmergenceCurve {...of} />
{/each}
