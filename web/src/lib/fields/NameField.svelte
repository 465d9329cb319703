<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';

  interface Props {
    label: string;
    value: string;
    onset: (value: string) => void;
  }
  const { label, value, onset }: Props = $props();
  const id = $props.id();

  function set(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const name = input.value.trim();
    if (name && name !== value) onset(name);
    else input.value = value;
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <Input
    {id}
    {value}
    maxlength={120}
    class="border-line! bg-raised! px-2! py-1! text-base! text-ink! focus:border-coral! focus:ring-coral!"
    onchange={set}
  />
</div>
