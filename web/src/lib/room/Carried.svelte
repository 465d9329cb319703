<script lang="ts">
  // What the hand carries, beside the pointer.
  import { carry } from './carry.svelte';
</script>

{#if carry.now}
  <div
    class="card pointer-events-none fixed z-50 px-3 py-1 font-semibold shadow-lg"
    style:left="{carry.now.x + 10}px"
    style:top="{carry.now.y + 10}px"
  >
    {carry.now.name}
  </div>
{/if}
