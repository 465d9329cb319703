<script lang="ts">
  // What the marks beside the shelves mean.
</script>

<ul
  class="flex flex-wrap items-center gap-x-4 gap-y-0.5 px-4 pb-1 text-sm text-soft"
  aria-label="Marks in the room"
>
  <li class="flex items-center gap-1.5">
    <svg width="13" height="18" aria-hidden="true">
      <rect x="2" width="9" height="18" rx="4.5" fill="var(--line)" />
      <rect y="4" width="13" height="7" rx="3" fill="var(--sage-soft)" stroke="var(--sage)" />
      <rect x="4" y="7" width="5" height="11" rx="2.5" fill="var(--straw)" />
    </svg>
    daily light (DLI) against what the plants need
  </li>
  <li class="flex items-center gap-1.5">
    <svg width="15" height="15" aria-hidden="true">
      <circle cx="7.5" cy="7.5" r="6" fill="none" stroke="var(--coral)" stroke-width="2" />
    </svg>
    advice
  </li>
  <li class="flex items-center gap-1.5">
    <svg width="16" height="15" aria-hidden="true"
      ><path d="M1 14l7-13l7 13z" fill="var(--wine)" /></svg
    >
    urgent
  </li>
  <li class="flex items-center gap-1.5">
    <svg width="18" height="5" aria-hidden="true"
      ><path d="M2 2.5h14" stroke="var(--teal)" stroke-width="4" stroke-linecap="round" /></svg
    >
    heat mat
  </li>
</ul>
