<script lang="ts">
  // Asks a question that takes its time, and says when it was refused.
  const {
    asked,
    label,
    onask,
  }: {
    asked: { state: 'no' | 'waiting' | 'answered'; problem: string };
    label: string;
    onask: () => Promise<void>;
  } = $props();
</script>

<button
  class="quiet mt-1 border-line!"
  disabled={asked.state === 'waiting'}
  onclick={() => void onask()}>{asked.state === 'waiting' ? 'Working this out…' : label}</button
>
{#if asked.problem}<p class="text-sm text-wine" role="alert">{asked.problem}</p>{/if}
