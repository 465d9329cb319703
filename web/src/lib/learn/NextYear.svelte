<script lang="ts">
  // What a season hands on to the next: each lesson is taken over, or left.
  import { type HandedOn } from '../api/client';
  import { learnApi } from '../api/learn';
  import { bench } from '../bench/workbench.svelte';
  import CheckField from '../fields/CheckField.svelte';

  interface Props {
    plan: number;
    name: string;
    oncopy: (takes: string[]) => void;
    oncancel: () => void;
  }
  const { plan, name, oncopy, oncancel }: Props = $props();
  const words = $derived(bench.words);
  let all: HandedOn[] | undefined = $state.raw();
  let takes: string[] = $state([]);
  let problem = $state('');

  $effect(() => void look(plan));

  async function look(id: number) {
    try {
      all = await learnApi.handedOn(id);
      takes = all.filter((own) => own.taken).map((own) => own.id);
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }

  const HEADS: Record<HandedOn['of'], string> = {
    correction: 'Corrected',
    seed: 'Seed',
    late: 'Late',
    lost: 'Lost',
    too_much: 'Too much',
  };
</script>

<section class="card my-1 w-full p-3" aria-label="Copy {name} for next year">
  <h3 class="text-lg">What next year takes over</h3>
  {#if problem}
    <p class="text-wine" role="alert">{problem}</p>
  {:else if !all}
    <p class="text-soft" role="status">Looking through the season…</p>
  {:else if all.length === 0}
    <p class="text-soft">
      The log of this season teaches nothing yet. All dates move by a year, and packets are a year
      older.
    </p>
  {:else}
    <p class="mb-2 text-sm text-soft">
      All dates move by a year. What you untick is left out; the plan of this season stays as it is.
    </p>
    <ul class="flex flex-col gap-1" data-testid="handed-on">
      {#each all as own (own.id)}
        <li class="border-t pt-1.5">
          <CheckField
            label="{HEADS[own.of]}: {words.say(own.words)}"
            value={takes.includes(own.id)}
            onset={(on) =>
              (takes = on ? [...takes, own.id] : takes.filter((other) => other !== own.id))}
          />
          <p class="ml-7 text-sm text-soft">{words.say(own.takes)}</p>
        </li>
      {/each}
    </ul>
  {/if}
  <div class="mt-3 flex gap-2">
    <button
      class="quiet border-coral! font-semibold"
      disabled={!all && !problem}
      onclick={() => oncopy(takes)}>Make next year’s plan</button
    >
    <button class="quiet" onclick={oncancel}>Cancel</button>
  </div>
</section>
