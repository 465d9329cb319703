<script lang="ts" generics="T extends string">
  import { Label, Select } from 'flowbite-svelte';

  interface Props {
    label: string;
    value: T;
    choices: Record<T, string>;
    onset: (value: T) => void;
  }
  const { label, value, choices, onset }: Props = $props();
  const id = $props.id();
  const items = $derived(
    Object.entries<string>(choices).map(([choice, name]) => ({ value: choice, name })),
  );
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <Select
    {id}
    {items}
    {value}
    placeholder=""
    class="border-line! bg-raised! py-1! pr-8! pl-2! text-base! text-ink! focus:border-coral! focus:ring-coral!"
    onchange={(event: Event) => onset((event.currentTarget as HTMLSelectElement).value as T)}
  />
</div>
