<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan } from '../api/client';
  import { begin } from '../bench/plans';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    label?: string;
    /** Without a frame, among other quiet buttons. */
    plain?: boolean;
    onopened?: () => void;
  }
  const { label = 'Open a plan file', plain = false, onopened }: Props = $props();
  let input: HTMLInputElement | undefined = $state();

  async function open() {
    const file = input?.files?.[0];
    if (!file) return;
    try {
      // The server checks it whole and says what is wrong; here it must only be JSON.
      await begin(JSON.parse(await file.text()) as Plan, `opened ${file.name}`.slice(0, 120));
      if (bench.stage === 'ready') onopened?.();
    } catch (error) {
      bench.tell('wrong', `${file.name} is not a plan file: ${(error as Error).message}`);
    }
    input!.value = '';
  }
</script>

{#if plain}
  <button type="button" class="quiet" onclick={() => input?.click()}>{label}</button>
{:else}<Button
    outline
    class="border-frame! text-ink! hover:bg-straw-soft! hover:text-ink!"
    onclick={() => input?.click()}>{label}</Button
  >{/if}
<input
  bind:this={input}
  type="file"
  accept="application/json,.json"
  class="hidden"
  aria-label={label}
  onchange={() => void open()}
/>
