<script lang="ts">
  import { goto } from '$app/navigation';
  import { Modal } from 'flowbite-svelte';
  import { bench } from '../bench/workbench.svelte';
  import { api } from '../api/client';
  import { chapter } from '../room/bay/chapter.svelte';
  import { find, type Found } from './find';
  import { shell } from './shell.svelte';

  let text = $state('');
  let marked = $state(0);
  let library: { id: string; name: string; also_called?: string[] }[] = $state.raw([]);
  const hits = $derived(find(text, library));
  const kinds = {
    place: 'place',
    shelf: 'shelf',
    sowing: 'sowing',
    tray: 'tray',
    advice: 'advice',
    gear: 'gear',
    crop: 'crop',
    where: 'go to',
  } as const;

  $effect(() => {
    if (!shell.finding) return;
    // Crops are found without the library too, if they are sown already.
    api.crops().then(
      (found) => (library = found.crops),
      () => undefined,
    );
  });

  function open(found: Found) {
    shell.finding = false;
    text = '';
    if (found.crop) {
      shell.sowing = { crop: found.crop };
      return;
    }
    if (found.href) return void goto(found.href);
    if (found.kind === 'advice') shell.pointed = found.id;
    if (found.date) bench.go(found.date);
    if (found.sowing) return void goto(`/sowing?sowing=${found.sowing}&on=${bench.date}`);
    chapter.open = found.chapter ?? chapter.open;
    if (found.bay) bench.select(found.bay);
    else if (found.place) bench.pick({ place: found.place });
    // In the room the address follows by itself.
    if (location.pathname !== '/') void goto(`/?on=${bench.date}`);
  }

  function key(event: KeyboardEvent) {
    const hit = hits[marked];
    if (event.key === 'ArrowDown') marked = Math.min(marked + 1, hits.length - 1);
    else if (event.key === 'ArrowUp') marked = Math.max(marked - 1, 0);
    else if (event.key === 'Enter' && hit) open(hit);
    else return;
    event.preventDefault();
  }
</script>

<Modal bind:open={shell.finding} title="Find" size="sm" class="bg-raised! text-ink!">
  <!-- svelte-ignore a11y_autofocus -->
  <input
    autofocus
    type="text"
    class="w-full rounded-lg border border-line bg-paper p-2 text-ink"
    placeholder="a crop, tray, shelf, lamp or word"
    aria-label="Find a crop, tray, shelf, lamp or word"
    role="combobox"
    aria-expanded={hits.length > 0}
    aria-controls="found"
    aria-activedescendant={hits[marked] ? `found-${marked}` : undefined}
    bind:value={text}
    oninput={() => (marked = 0)}
    onkeydown={key}
  />
  <ul id="found" role="listbox" aria-label="Found" class="mt-2">
    {#each hits as hit, i (`${hit.kind}-${hit.title}-${i}`)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li
        id="found-{i}"
        role="option"
        aria-selected={i === marked}
        class="flex cursor-pointer items-baseline gap-2 rounded-lg px-2 py-1.5"
        class:bg-straw-soft={i === marked}
        onclick={() => open(hit)}
      >
        <span class="w-16 shrink-0 text-sm text-soft">{kinds[hit.kind]}</span>
        <span><b>{hit.title}</b> <span class="text-sm text-soft">{hit.detail}</span></span>
      </li>
    {/each}
  </ul>
  {#if text && hits.length === 0}<p class="text-soft">Nothing goes by that name.</p>{/if}
</Modal>
