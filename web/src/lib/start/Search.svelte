<script lang="ts" generics="T">
  // A field to search in, with what it finds below: Enter takes the first.
  import { Label } from 'flowbite-svelte';
  import { untrack } from 'svelte';

  interface Props {
    label: string;
    placeholder: string;
    hits: T[];
    named: (hit: T) => string;
    detail?: (hit: T) => string;
    text: string;
    onpick: (hit: T) => void;
  }
  let { label, placeholder, hits, named, detail, text = $bindable(), onpick }: Props = $props();
  const id = $props.id();
  let marked = $state(0);
  /** Enter was pressed before anything was found: the first that is found is meant. */
  let entered = $state(false);

  $effect(() => {
    const [first] = hits;
    if (!entered || !first) return;
    entered = false;
    untrack(() => onpick(first));
  });

  function key(event: KeyboardEvent) {
    const hit = hits[marked];
    if (event.key === 'ArrowDown') marked = Math.min(marked + 1, hits.length - 1);
    else if (event.key === 'ArrowUp') marked = Math.max(marked - 1, 0);
    else if (event.key === 'Enter' && text.trim() && hit) onpick(hit);
    else if (event.key === 'Enter' && text.trim()) entered = true;
    else return;
    event.preventDefault();
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <input
    {id}
    type="search"
    autocomplete="off"
    class="w-full rounded-lg border-line bg-raised px-3 py-2 text-base text-ink focus:border-coral focus:ring-coral"
    {placeholder}
    role="combobox"
    aria-expanded={hits.length > 0}
    aria-controls="{id}-hits"
    aria-activedescendant={hits[marked] ? `${id}-hit-${marked}` : undefined}
    bind:value={text}
    oninput={() => ([marked, entered] = [0, false])}
    onkeydown={key}
  />
  <ul id="{id}-hits" role="listbox" aria-label="Found" class="mt-1">
    {#each hits as hit, i (i)}
      <!-- The field has the keys. -->
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li
        id="{id}-hit-{i}"
        role="option"
        aria-selected={i === marked}
        class="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-2 rounded-lg px-3 py-1 hover:bg-straw-soft"
        class:bg-straw-soft={i === marked}
        onclick={() => onpick(hit)}
      >
        <b>{named(hit)}</b>
        {#if detail}<span class="text-sm text-soft">{detail(hit)}</span>{/if}
      </li>
    {/each}
  </ul>
</div>
