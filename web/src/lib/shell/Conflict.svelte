<script lang="ts">
  import { Button, Modal } from 'flowbite-svelte';
  import { bench } from '../bench/workbench.svelte';
</script>

<Modal
  open={bench.conflict}
  dismissable={false}
  title="The plan was changed elsewhere"
  size="sm"
  class="bg-raised! text-ink!"
>
  <p>
    Someone saved an edit while you made yours. Nothing is lost: both can be found in the history.
  </p>
  <div class="mt-4 flex flex-wrap gap-2">
    <Button class="bg-coral! text-on-coral!" onclick={() => void bench.resolve('mine')}
      >Save mine on top</Button
    >
    <Button
      outline
      class="border-frame! text-ink! hover:bg-straw-soft! hover:text-ink!"
      onclick={() => void bench.resolve('theirs')}>Take theirs, drop mine</Button
    >
  </div>
</Modal>
