<script lang="ts">
  // How far a search on the server is, its best so far, and a way to stop there.
  import { api } from '../api/client';

  interface Props {
    label: string;
    /** The share that is done. */
    done: number;
    soFar: string;
    /** The number to stop it by, once it is known. */
    run: number | undefined;
  }
  const { label, done, soFar, run }: Props = $props();
  const percent = $derived(Math.round(100 * done));
</script>

<span
  class="h-2 w-32 overflow-hidden rounded-full bg-line"
  role="progressbar"
  aria-label={label}
  aria-valuemin="0"
  aria-valuemax="100"
  aria-valuenow={percent}><span class="block h-full bg-coral" style:width="{percent}%"></span></span
>
<span class="text-sm" role="status">{soFar}</span>
{#if run != null}
  <button class="quiet border-line! text-sm" onclick={() => void api.stopPlacing(run)}
    >Stop and use this</button
  >
{/if}
