<script lang="ts">
  // The plan of a tray and its labels, to print or to keep as SVG.
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { bench } from '$lib/bench/workbench.svelte';
  import ChoiceField from '$lib/fields/ChoiceField.svelte';
  import CarryList from '$lib/print/CarryList.svelte';
  import Labels from '$lib/print/Labels.svelte';
  import SafetySheet from '$lib/print/SafetySheet.svelte';
  import TrayPlan from '$lib/print/TrayPlan.svelte';

  onMount(() => bench.showSowings());
  let svg: SVGSVGElement | undefined = $state();
  const trays = $derived(bench.draft?.trays ?? []);
  /** A night of frost, for which the list to carry by is printed. */
  const frost = $derived(page.url.searchParams.get('frost'));
  /** The sheet of the room's circuits. */
  const safety = $derived(page.url.searchParams.get('what') === 'safety');
  const asked = $derived(page.url.searchParams.get('tray'));
  const tray = $derived(trays.find((t) => t.id === asked) ?? trays[0]);
  const format = $derived(bench.draft?.tray_formats.find((f) => f.id === tray?.format));
  const choices = $derived(
    Object.fromEntries(trays.map((t) => [t.id, t.name])) as Record<string, string>,
  );

  function save() {
    if (!svg || !tray) return;
    const text = new XMLSerializer().serializeToString(svg);
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type: 'image/svg+xml' }));
    link.download = `${tray.name}.svg`;
    link.click();
    URL.revokeObjectURL(link.href);
  }
</script>

<svelte:head
  ><title
    >{safety ? 'Safety sheet' : frost ? 'Bring in for the night' : 'Plan of a tray'} · Faint Sunrise</title
  ></svelte:head
>

<div class="flex flex-col gap-4 p-4" data-testid="print">
  {#if !frost && !safety}<h1 class="sr-only">Plan of a tray and its labels</h1>{/if}
  {#if safety}
    <SafetySheet />
  {:else if frost}
    <button
      class="quiet self-start border-frame! font-semibold print:hidden"
      onclick={() => window.print()}>Print</button
    >
    <CarryList date={frost} />
  {:else if tray && format}
    <div class="flex flex-wrap items-end gap-2 print:hidden">
      <ChoiceField
        label="Tray"
        value={tray.id}
        {choices}
        onset={(id) => void goto(`/print?tray=${id}`, { replaceState: true })}
      />
      <button class="quiet border-frame! font-semibold" onclick={() => window.print()}>Print</button
      >
      <button class="quiet border-line!" onclick={save}>Save the plan as SVG</button>
    </div>
    <TrayPlan {tray} {format} bind:svg />
    <Labels {tray} {format} />
  {:else}
    <p>This plan has no trays yet: sow something first.</p>
  {/if}
</div>
