<script lang="ts">
  // What a hand may do to a tray: move, slide, turn or swap it, set it on a box, take another
  // container, and print what is in it.
  import type { BayOnDay, TrayOnDay } from '../../api/client';
  import { setOptional } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import { steps } from '../../fields/slider';
  import { boxUnder, setFormat, slide, swap, turn } from './move';
  import StandIn from './StandIn.svelte';

  const { bay, tray }: { bay: BayOnDay; tray: TrayOnDay } = $props();

  const SLIDE_MM = 50;
  const FINE_MM = 10;
  let doing = $state<'' | 'move' | 'swap' | 'more'>('');
  const own = $derived(bench.draft?.trays.find((other) => other.id === tray.tray));
  const box = $derived(
    own?.stands
      .filter((s) => s.bay.place === bay.bay.place && s.bay.tier === bay.bay.tier)
      .find((s) => s.box_mm != null)?.box_mm ?? undefined,
  );
  const others = $derived(
    Object.fromEntries([
      ['', 'choose a tray'],
      ...(bench.room?.bays ?? []).flatMap(({ name, trays }) =>
        trays
          .filter((other) => other.tray !== tray.tray)
          .map((other) => [other.tray, `${other.label}, ${name}`]),
      ),
    ]) as Record<string, string>,
  );
  const formats = $derived(
    Object.fromEntries(
      (bench.draft?.tray_formats ?? []).map((format) => [format.id, format.name]),
    ) as Record<string, string>,
  );

  /** Keeps it where it stands when all are placed, or lets it go again. */
  function pin() {
    const index = bench.draft!.trays.findIndex((other) => other.id === tray.tray);
    bench.keep(
      setOptional(`/trays/${index}/pinned`, own?.pinned ? undefined : true, own?.pinned ?? false),
      own?.pinned ? `unpinned ${tray.label}` : `pinned ${tray.label}`,
    );
  }

  /** Arrow keys slide it along its deck, with Shift by a finger's width. */
  function slideKey(event: KeyboardEvent) {
    if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
    const by = (steps(event) ?? 0) * (event.shiftKey ? FINE_MM : SLIDE_MM);
    void slide(tray, bay.bay, by);
  }
</script>

{#if doing === 'move'}
  <StandIn
    label="Stand {tray.label} in"
    trays={[tray.tray]}
    stage={tray.stage}
    now="{bay.bay.place}/{bay.bay.tier}"
    ondone={() => (doing = '')}
  />
{:else if doing === 'swap'}
  <ChoiceField
    label="Swap {tray.label} with"
    value=""
    choices={others}
    onset={(other) => {
      doing = '';
      if (other) void swap(tray.tray, other);
    }}
  />
{:else}
  <div class="-ml-2 flex flex-wrap">
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label="Move {tray.label} to another shelf"
      onclick={() => (doing = 'move')}>Move tray…</button
    >
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label="Slide {tray.label} to the left; arrow keys slide it either way"
      onkeydown={slideKey}
      onclick={() => void slide(tray, bay.bay, -SLIDE_MM)}>←</button
    >
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label="Slide {tray.label} to the right; arrow keys slide it either way"
      onkeydown={slideKey}
      onclick={() => void slide(tray, bay.bay, SLIDE_MM)}>→</button
    >
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label="Turn {tray.label} a quarter"
      onclick={() => void turn(tray.tray)}>Turn tray</button
    >
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label="Swap {tray.label} with another tray"
      onclick={() => (doing = 'swap')}>Swap trays…</button
    >
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label={own?.pinned
        ? `Unpin ${tray.label}: placing may move it`
        : `Pin ${tray.label}: placing leaves it here`}
      aria-pressed={own?.pinned ?? false}
      onclick={pin}>{own?.pinned ? 'Unpin' : 'Pin here'}</button
    >
    <button
      class="quiet text-sm text-teal! hover:text-ink!"
      aria-label="More about {tray.label}: its box, container and printed plan"
      aria-expanded={doing === 'more'}
      onclick={() => (doing = doing === 'more' ? '' : 'more')}>More…</button
    >
  </div>
{/if}
{#if doing === 'more'}
  <div class="grid grid-cols-2 items-end gap-2 pb-1">
    <NumberField
      label="Box under {tray.label}"
      value={box}
      quantity="length_mm"
      none="none"
      onset={(mm) => void boxUnder(tray.tray, mm)}
      onclear={() => void boxUnder(tray.tray, undefined)}
    />
    <ChoiceField
      label="Container of {tray.label}"
      value={tray.format}
      choices={formats}
      onset={(format) => void setFormat(tray.tray, format)}
    />
    <a class="text-teal underline" href="/print?tray={tray.tray}">Plan and labels to print</a>
  </div>
{/if}
