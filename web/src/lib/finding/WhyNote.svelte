<script lang="ts">
  // "why?" beside a figure: the rule with its inputs, and where it comes from.
  import type { Why } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    /** What the figure is, for the button's name. */
    of: string;
    /** Undefined until the server is asked about this bay. */
    why: Why | null | undefined;
  }
  const { of, why }: Props = $props();
  let open = $state(false);
  const id = $props.id();
</script>

{#if why}
  <button
    class="rounded px-1 text-sm font-semibold text-teal underline-offset-2 hover:underline"
    aria-expanded={open}
    aria-controls={id}
    aria-label="Why this {of}?"
    onclick={() => (open = !open)}>why?</button
  >
{/if}
{#if open && why}
  <p {id} class="my-1 w-full rounded-lg border-l-3 border-teal! bg-teal-soft/40 px-3 py-2 text-sm">
    {bench.words.say(why.rule)}.
    <span class="block text-soft">Source: {why.source}.</span>
  </p>
{/if}
