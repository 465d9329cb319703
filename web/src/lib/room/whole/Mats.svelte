<script lang="ts">
  // Which sowings deserve a mat, and the same mats by turns along the season.
  import { scaleUtc } from 'd3-scale';
  import { api } from '../../api/client';
  import type { MatSeason } from '../../api/client';
  import { Asked } from '../../bench/asked.svelte';
  import { bench } from '../../bench/workbench.svelte';
  import AskButton from '../../fields/AskButton.svelte';

  const ROW = 26;
  const words = $derived(bench.words);
  const asked = new Asked<MatSeason>();
  const mats = $derived(asked.answer);
  let width = $state(0);

  const ask = () => asked.ask('mats', () => api.mats(bench.draft!));
  const time = (day: string) => new Date(`${day}T00:00:00Z`);
  const turns = $derived(mats?.turns.flat() ?? []);
  const from = $derived(turns.map((turn) => turn.from).sort()[0]);
  const until = $derived(
    turns
      .map((turn) => turn.until)
      .sort()
      .at(-1),
  );
  const x = $derived(
    from && until ? scaleUtc([time(from), time(until)], [22, Math.max(width - 2, 23)]) : undefined,
  );
</script>

<div bind:clientWidth={width}>
  {#if !asked.fresh('mats')}
    <p class="text-soft">
      See which sowings gain from a heat mat, and how few will do if you pass them on.
    </p>
    <AskButton {asked} label="Plan the mats" onask={ask} />
  {:else if mats}
    <p class="rounded-xl bg-sage-soft p-3" data-testid="mats-verdict">{words.say(mats.verdict)}.</p>
    {#if x && width > 0}
      <svg
        {width}
        height={mats.turns.length * ROW + 20}
        class="mt-2 block"
        role="img"
        aria-label="Sharing the heat mats: {mats.turns
          .map(
            (line, i) =>
              `place ${i + 1}: ${line
                .map(
                  (turn) =>
                    `${turn.label} ${words.shortDate(turn.from)} to ${words.shortDate(turn.until)}`,
                )
                .join(', ')}`,
          )
          .join('; ')}"
      >
        {#each mats.turns as line, i (i)}
          <text x="0" y={i * ROW + 18} font-size="14" fill="var(--soft)">{i + 1}</text>
          {#each line as turn (turn.tray)}
            {@const left = x(time(turn.from))}
            {@const wide = Math.max(x(time(turn.until)) - left - 2, 3)}
            <rect
              x={left}
              y={i * ROW + 2}
              width={wide}
              height={ROW - 4}
              rx="4"
              fill={i < mats.places ? 'var(--teal)' : 'var(--coral)'}
              opacity="0.3"
            />
            {#if wide > turn.label.length * 8}
              <text x={left + 5} y={i * ROW + 18} font-size="14" fill="var(--ink)"
                >{turn.label}</text
              >
            {/if}
            <title>{turn.label}, {turn.name}</title>
          {/each}
        {/each}
        {#each x.ticks(4) as tick (tick.valueOf())}
          <text
            x={x(tick)}
            y={mats.turns.length * ROW + 15}
            text-anchor="middle"
            font-size="14"
            fill="var(--soft)">{words.shortDate(tick.toISOString().slice(0, 10))}</text
          >
        {/each}
      </svg>
      <p class="text-sm text-soft">
        One line for each mat space; a bar is a tray, from sowing until all are up
      </p>
    {/if}
    <ul class="mt-2" data-testid="mats-worth">
      {#each mats.sowings as worth (worth.sowing)}
        <li class="border-t py-1" class:text-soft={!worth.deserves}>
          <b>{worth.name}</b>
          {words.say(worth.verdict)}.
        </li>
      {/each}
    </ul>
  {/if}
</div>
