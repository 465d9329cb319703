<script lang="ts">
  import { Button, Modal } from 'flowbite-svelte';
  import { bench } from '../bench/workbench.svelte';
</script>

<Modal
  open={bench.clashes !== undefined}
  dismissable={false}
  title="Changed here and elsewhere"
  size="sm"
  class="bg-raised! text-ink!"
>
  <p>While you were working, someone changed the same thing. Which change stays?</p>
  <ul class="my-3 list-disc pl-5" data-testid="clashes">
    {#each (bench.clashes ?? []).slice(0, 6) as clash, i (i)}
      <li>{bench.words.say(clash)}</li>
    {/each}
    {#if (bench.clashes?.length ?? 0) > 6}<li>and {bench.clashes!.length - 6} more</li>{/if}
  </ul>
  <p class="text-sm text-soft">
    All other changes of both are kept, and the one that gives way can be brought back from the
    history in Setup.
  </p>
  <div class="mt-4 flex flex-wrap gap-2">
    <Button class="bg-coral! text-on-coral!" onclick={() => void bench.resolve('mine')}
      >Keep mine</Button
    >
    <Button
      outline
      class="border-frame! text-ink! hover:bg-straw-soft! hover:text-ink!"
      onclick={() => void bench.resolve('theirs')}>Keep the other</Button
    >
  </div>
</Modal>
