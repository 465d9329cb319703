<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Plan } from '../api/client';
  import { begin } from '../bench/plans';
  import { bench } from '../bench/workbench.svelte';

  const { label = 'Open a plan file' }: { label?: string } = $props();
  let input: HTMLInputElement | undefined = $state();

  async function open() {
    const file = input?.files?.[0];
    if (!file) return;
    try {
      // The server checks it whole and says what is wrong; here it must only be JSON.
      await begin(JSON.parse(await file.text()) as Plan, `opened ${file.name}`.slice(0, 120));
    } catch (error) {
      bench.tell('wrong', `${file.name} is no plan: ${(error as Error).message}`);
    }
    input!.value = '';
  }
</script>

<Button
  outline
  class="border-frame! text-ink! hover:bg-straw-soft! hover:text-ink!"
  onclick={() => input?.click()}>{label}</Button
>
<input
  bind:this={input}
  type="file"
  accept="application/json,.json"
  class="hidden"
  aria-label={label}
  onchange={() => void open()}
/>
