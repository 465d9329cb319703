<script lang="ts">
  // A part of the page: when it cannot be drawn it says so, and the rest goes on.
  import type { Snippet } from 'svelte';

  interface Props {
    /** What it is, as in "the sheet". */
    what: string;
    children: Snippet;
  }
  const { what, children }: Props = $props();
</script>

<svelte:boundary onerror={(error) => console.error(error)}>
  {@render children()}
  {#snippet failed(error, again)}
    <div class="m-3 rounded-xl bg-wine-soft p-3" role="alert">
      <p class="font-semibold text-wine">Something went wrong in {what}.</p>
      <p class="mt-1 text-sm">
        Nothing in your plan has changed. {error instanceof Error ? error.message : String(error)}
      </p>
      <button class="quiet mt-2 border-frame! font-semibold" onclick={again}>Try again</button>
    </div>
  {/snippet}
</svelte:boundary>
