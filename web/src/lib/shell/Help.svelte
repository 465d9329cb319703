<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import { keys, localKeys } from './keys';
  import { shell } from './shell.svelte';
</script>

<Modal bind:open={shell.help} title="Keys" size="sm" class="bg-raised! text-ink!">
  <dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
    {#each [...keys, ...localKeys] as { key, does } (key)}
      <dt>
        <kbd class="rounded border border-line bg-paper px-2 py-0.5 text-ink!"
          >{key === 'Escape' ? 'Esc' : key}</kbd
        >
      </dt>
      <dd>{does}</dd>
    {/each}
  </dl>
</Modal>
