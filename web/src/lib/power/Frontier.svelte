<script lang="ts">
  // What lamps, walls and mats cost against the plants that they raise well: asked for a shelf or for all.
  import {
    api,
    type CostPoint,
    type Electricity,
    type Frontier,
    type LesseningTick,
    type Plan,
  } from '../api/client';
  import { Asked } from '../bench/asked.svelte';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import Working from '../fields/Working.svelte';
  import { goodSteps, priceSteps } from './prices';

  const { answer, plan }: { answer: Electricity; plan: Plan } = $props();
  const words = $derived(bench.words);
  const lit = $derived(answer.shelves.filter((shelf) => shelf.burning));
  /** The choice that takes every lit shelf together. */
  const ALL = 'all';
  let chosen = $state('');
  const keyOf = (shelf: (typeof lit)[number]) => `${shelf.bay.place}/${shelf.bay.tier}`;
  const dearest = $derived(
    lit.reduce<(typeof lit)[number] | undefined>(
      (a, b) => (!a || b.now.cost_per_day > a.now.cost_per_day ? b : a),
      undefined,
    ),
  );
  const shelf = $derived(
    chosen === ALL ? undefined : (lit.find((shelf) => keyOf(shelf) === chosen) ?? dearest),
  );
  const shelfKey = $derived(shelf ? keyOf(shelf) : ALL);
  const asked = new Asked<Frontier | null>();
  const key = $derived(`${shelfKey} ${bench.date}`);
  const found = $derived(asked.fresh(key) ? asked.answer : undefined);
  let picked: CostPoint | undefined = $state.raw();
  let tick: LesseningTick | undefined = $state();
  async function look() {
    const [draft, date] = [bench.draft, bench.date];
    if (!draft || !date) return;
    picked = undefined;
    await asked.ask(key, () => api.frontier(draft, shelf?.bay, date, (now) => (tick = now)));
  }

  const WIDE = 330;
  const HIGH = 170;
  const LEFT = 36;
  const most = $derived(
    Math.max(...(found?.points ?? []).map((p) => p.cost), found?.yours?.cost ?? 0, 1) * 1.08,
  );
  const x = $derived((cost: number) => LEFT + (cost / most) * (WIDE - LEFT - 10));
  const y = (well: number) => HIGH - 24 - well * (HIGH - 40);
  const budget = $derived(plan.prices?.budget ?? undefined);
  const shown = $derived(
    picked ?? found?.within_budget ?? found?.enough ?? found?.points[found.points.length - 1],
  );
  const goal = $derived(
    !found || !shown || picked
      ? ''
      : shown === found.within_budget
        ? `The cheapest to run and own for ${words.number(budget ?? 0, 'money')} at the most:`
        : shown === found.enough
          ? 'The cheapest that serves nine tenths of the cells:'
          : '',
  );
</script>

{#if lit.length === 0}
  <p class="text-soft">No lamp burns that day: choose a day on which one does.</p>
{:else}
  <ChoiceField
    label="For the plants that stand that day on"
    value={shelfKey}
    choices={{
      ...Object.fromEntries(lit.map((shelf) => [keyOf(shelf), shelf.name])),
      ...(lit.length > 1 ? { [ALL]: 'all lit shelves together' } : {}),
    }}
    onset={(value) => (chosen = value)}
  />
  {#if !found}
    {#if asked.state === 'waiting'}
      <div class="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <Working
          label="Trying lamps, walls and mats"
          done={tick?.done ?? 0}
          soFar="Set-ups tried: {words.number(tick?.tried ?? 0, 'count')}"
          run={tick?.run}
        />
      </div>
    {:else}
      <button class="quiet mt-2 border-line!" onclick={() => void look()}
        >Try lamps, walls and mats</button
      >
    {/if}
    {#if asked.problem}<p class="text-sm text-wine" role="alert">{asked.problem}</p>{/if}
    {#if asked.fresh(key) && asked.answer === null}<p class="text-soft">
        Nothing grows there under lamps that day.
      </p>{/if}
  {:else}
    <svg
      viewBox="0 0 {WIDE} {HIGH}"
      class="mt-2 w-full"
      role="img"
      aria-label="Cost of set-ups against the share of cells that get what they want"
      data-testid="frontier"
    >
      <line x1={LEFT} x2={WIDE} y1={y(0)} y2={y(0)} class="stroke-frame" />
      <line x1={LEFT} x2={LEFT} y1={y(1)} y2={y(0)} class="stroke-frame" />
      {#each [0, 0.5, 1] as share (share)}
        <text x={LEFT - 4} y={y(share) + 4} text-anchor="end" class="fill-soft text-[11px]"
          >{words.number(share, 'share')}</text
        >
      {/each}
      <text x={WIDE} y={HIGH - 6} text-anchor="end" class="fill-soft text-[11px]"
        >cost of a season, up to {words.number(most, 'money')}</text
      >
      <polyline
        points={found.points.map((p) => `${x(p.cost)},${y(p.well)}`).join(' ')}
        class="fill-none stroke-sage"
        stroke-width="2.5"
      />
      {#each found.points as point, i (i)}
        <circle
          cx={x(point.cost)}
          cy={y(point.well)}
          r={shown === point ? 7 : 5}
          class="cursor-pointer fill-sage"
          role="button"
          tabindex="0"
          aria-label="{words.number(point.cost, 'money')} a season, {words.number(
            point.well,
            'share',
          )} of the cells well"
          onclick={() => (picked = point)}
          onkeydown={(event) => event.key === 'Enter' && (picked = point)}
        />
      {/each}
      {#if shown && !found.points.includes(shown)}
        <circle
          cx={x(shown.cost)}
          cy={y(shown.well)}
          r="7"
          class="fill-none stroke-sage"
          stroke-width="3"
        />
      {/if}
      {#if found.yours}
        <circle cx={x(found.yours.cost)} cy={y(found.yours.well)} r="6" class="fill-coral" />
        <text
          x={x(found.yours.cost)}
          y={y(found.yours.well) + 19}
          text-anchor="middle"
          class="fill-coral text-[12px] font-semibold">yours</text
        >
      {/if}
    </svg>
    {#if shown}
      {#if goal}<p class="mt-1 font-semibold">{goal}</p>{/if}
      <ul class="mt-1" data-testid="set-up">
        {#each shown.parts as part, i (i)}
          <li>
            {#if found.shelves.length > 1}<span class="font-semibold">{part.name}:</span>{/if}
            {words.say(part.what)}
          </li>
        {/each}
      </ul>
      <p class="mt-1">
        {words.number(shown.lit, 'share')} of the cells get the light that they want{shown.warm ==
        null
          ? ''
          : `, ${words.number(shown.warm, 'share')} of those that come up there lie warm enough`}. A
        season costs {words.number(shown.cost, 'money')}, {words.number(shown.current, 'money')} of it
        current. To buy: {words.number(shown.to_buy, 'money')} of gear worth {words.number(
          shown.worth,
          'money',
        )}.
        {#if budget !== undefined && shown.to_buy > budget}<span class="text-wine"
            >That is more than {words.number(budget, 'money')}.</span
          >{:else if budget !== undefined && !shown.enough && shown === found.within_budget}<span
            class="text-wine">Nothing better is to be had for that.</span
          >{/if}
      </p>
      {#if shown.patch.length > 0}
        <button
          class="quiet mt-1 border-line!"
          onclick={() =>
            bench.keep(
              shown.patch,
              shelf
                ? `${shelf.name}: ${shown.parts.map((part) => words.say(part.what)).join(', ')}`
                : 'lamps, walls and mats of all lit shelves',
            )}>{shelf ? 'Set the shelf up so' : 'Set them up so'}</button
        >
      {/if}
    {/if}
    <p class="mt-1 text-sm text-soft">
      {found.tried} set-ups tried, each with its lamps hung as advised; none on the line is both dearer
      and worse than another. Mats are tried on the day on which most trays come up.
    </p>
    {#if found.unpriced.length > 0}
      <p class="mt-1 text-sm">Left out until you know what one costs:</p>
      {#each found.unpriced as name (name)}
        <NumberField
          label={name}
          value={undefined}
          quantity="money"
          onset={(price) => bench.keep(goodSteps(plan, name, { price }), `${name}: ${price}`)}
        />
      {/each}
    {/if}
  {/if}
  <div class="mt-2">
    <NumberField
      label="To be spent on lamps and mats at the most"
      value={budget}
      quantity="money"
      onset={(value) => bench.keep(priceSteps(plan, 'budget', value), `a budget of ${value}`)}
    />
  </div>
{/if}
