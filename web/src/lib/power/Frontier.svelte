<script lang="ts">
  // What a shelf's lamps cost against the plants that they raise well: asked for one shelf.
  import {
    api,
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
  let chosen = $state('');
  const shelf = $derived(
    lit.find((shelf) => `${shelf.bay.place}/${shelf.bay.tier}` === chosen) ??
      lit.reduce<(typeof lit)[number] | undefined>(
        (a, b) => (!a || b.now.cost_per_day > a.now.cost_per_day ? b : a),
        undefined,
      ),
  );
  const asked = new Asked<Frontier | null>();
  const shelfKey: string = $derived(shelf ? `${shelf.bay.place}/${shelf.bay.tier}` : '');
  const key = $derived(shelf ? `${shelf.bay.place}/${shelf.bay.tier} ${bench.date}` : '');
  const found = $derived(asked.fresh(key) ? asked.answer : undefined);
  let picked: number | undefined = $state();
  let tick: LesseningTick | undefined = $state();
  async function look() {
    const [draft, date, bay] = [bench.draft, bench.date, shelf?.bay];
    if (!draft || !date || !bay) return;
    picked = undefined;
    await asked.ask(key, () => api.frontier(draft, bay, date, (now) => (tick = now)));
  }

  const WIDE = 330;
  const HIGH = 170;
  const LEFT = 36;
  const most = $derived(
    Math.max(...(found?.points ?? []).map((p) => p.cost), found?.yours?.cost ?? 0, 1) * 1.08,
  );
  const x = $derived((cost: number) => LEFT + (cost / most) * (WIDE - LEFT - 10));
  const y = (well: number) => HIGH - 24 - well * (HIGH - 40);
  const shown = $derived(found?.points[picked ?? found.enough ?? found.points.length - 1]);
  const budget = $derived(plan.prices?.budget ?? undefined);
</script>

{#if lit.length === 0}
  <p class="text-soft">No lamp burns that day: choose a day on which one does.</p>
{:else}
  <ChoiceField
    label="For the plants that stand that day on"
    value={shelfKey}
    choices={Object.fromEntries(
      lit.map((shelf) => [`${shelf.bay.place}/${shelf.bay.tier}`, shelf.name]),
    )}
    onset={(value) => (chosen = value)}
  />
  {#if !found}
    {#if asked.state === 'waiting'}
      <div class="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        <Working
          label="Trying lamps and walls"
          done={tick?.done ?? 0}
          soFar="Set-ups tried: {words.number(tick?.tried ?? 0, 'count')}"
          run={tick?.run}
        />
      </div>
    {:else}
      <button class="quiet mt-2 border-line!" onclick={() => void look()}
        >Try lamps and walls</button
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
      aria-label="Cost of set-ups against the share of cells that get the right light"
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
          aria-label={words.say(point.what)}
          onclick={() => (picked = i)}
          onkeydown={(event) => event.key === 'Enter' && (picked = i)}
        />
      {/each}
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
      <p class="mt-1">
        <span class="font-semibold">{words.say(shown.what)}</span>: {words.number(
          shown.well,
          'share',
        )} of the cells get the light that they want, for {words.number(shown.cost, 'money')} a season
        ({words.number(shown.current, 'money')} of it current). The lamps cost {words.number(
          shown.worth,
          'money',
        )} to buy.
        {#if budget !== undefined}{shown.worth <= budget
            ? `That is within ${words.number(budget, 'money')}.`
            : `That is more than ${words.number(budget, 'money')}.`}{/if}
      </p>
      {#if shown.patch.length > 0}
        <button
          class="quiet mt-1 border-line!"
          onclick={() => bench.keep(shown.patch, `${shelf!.name}: ${words.say(shown.what)}`)}
          >Set the shelf up so</button
        >
      {/if}
    {/if}
    <p class="mt-1 text-sm text-soft">
      {found.tried} set-ups tried over {found.lit_days} days of light; none on the line is both dearer
      and worse than another.
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
      label="To be spent on lamps at the most"
      value={budget}
      quantity="money"
      onset={(value) => bench.keep(priceSteps(plan, 'budget', value), `a budget of ${value}`)}
    />
  </div>
{/if}
