<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';

  interface Props {
    label: string;
    value: boolean;
    onset: (value: boolean) => void;
  }
  const { label, value, onset }: Props = $props();
</script>

<Checkbox
  checked={value}
  class="min-h-8 text-base! font-normal! text-ink!"
  classes={{ div: 'border-frame! bg-raised!' }}
  onchange={(event: Event) => onset((event.currentTarget as HTMLInputElement).checked)}
  >{label}</Checkbox
>
