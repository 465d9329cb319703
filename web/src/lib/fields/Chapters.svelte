<script lang="ts" generics="T extends string">
  // Chapters of a sheet: one is open, the others a tap or an arrow key away.
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    chapters: readonly { id: T; name: string; mark?: boolean }[];
    open: T;
    onopen: (id: T) => void;
    /** What stays in sight above them. */
    head?: Snippet;
    children: Snippet;
  }
  const { label, chapters, open, onopen, head, children }: Props = $props();
  const id = $props.id();
  let list: HTMLElement | undefined = $state();

  function key(event: KeyboardEvent) {
    const by = { ArrowRight: 1, ArrowLeft: -1, Home: -99, End: 99 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const now = chapters.findIndex((chapter) => chapter.id === open);
    const next = Math.min(Math.max(now + by, 0), chapters.length - 1);
    onopen(chapters[next]!.id);
    list?.querySelectorAll<HTMLElement>('[role=tab]')[next]?.focus();
  }
</script>

<div class="sticky -top-4 z-10 -mx-4 bg-raised px-4 pt-1">
  {@render head?.()}
  <div
    bind:this={list}
    role="tablist"
    aria-label={label}
    class="-mx-1 flex flex-wrap border-b"
    tabindex="-1"
    onkeydown={key}
  >
    {#each chapters as chapter (chapter.id)}
      <button
        role="tab"
        id="{id}-{chapter.id}"
        aria-selected={chapter.id === open}
        aria-controls="{id}-panel"
        tabindex={chapter.id === open ? 0 : -1}
        class="min-h-10 border-b-3 px-1.5 font-semibold sm:px-2 {chapter.id === open
          ? 'border-coral'
          : 'border-transparent text-soft hover:text-ink'}"
        onclick={() => onopen(chapter.id)}
        >{chapter.name}{#if chapter.mark}<span class="text-wine" title="something to do here"
            >&nbsp;•<span class="sr-only">, something to do here</span></span
          >{/if}</button
      >
    {/each}
  </div>
</div>
<div
  id="{id}-panel"
  role="tabpanel"
  aria-labelledby="{id}-{open}"
  class="mt-3 flex flex-col gap-4 outline-offset-4"
  tabindex="-1"
>
  {@render children()}
</div>
