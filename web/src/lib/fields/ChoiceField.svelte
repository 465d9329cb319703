<script lang="ts" generics="T extends string">
  import { Label } from 'flowbite-svelte';

  interface Props {
    label: string;
    value: T;
    choices: Record<T, string>;
    onset: (value: T) => void;
  }
  const { label, value, choices, onset }: Props = $props();
  const id = $props.id();
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <select
    {id}
    class="w-full min-w-0 rounded-lg border-line bg-raised py-1 pr-8 pl-2 text-base text-ink focus:border-coral focus:ring-coral"
    {value}
    onchange={(event) => onset(event.currentTarget.value as T)}
  >
    {#each Object.entries<string>(choices) as [choice, name] (choice)}
      <option value={choice}>{name}</option>
    {/each}
  </select>
</div>
