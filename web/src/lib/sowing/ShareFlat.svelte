<script lang="ts">
  // Several kinds in one flat: which go together, how many cells each gets, and how many plants of
  // each fill it.
  import { api, type Share, type Sharing } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import CheckField from '../fields/CheckField.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import { shareFlat } from '../room/trays/move';

  const { ondone }: { ondone: () => void } = $props();
  const words = $derived(bench.words);
  let chosen: string[] = $state([]);
  let by = $state<'rows' | 'packs'>('rows');
  let even = $state(false);
  let format = $state('');
  let proposal: Sharing | undefined = $state.raw();

  const sowings = $derived(
    [...(bench.assessment?.sowings ?? [])]
      .filter((dates) => {
        const sowing = bench.draft?.sowings.find((s) => s.id === dates.sowing);
        return sowing && !sowing.stays;
      })
      .sort((a, b) => a.sow.localeCompare(b.sow)),
  );
  const formats = $derived(
    Object.fromEntries([
      ['', 'what suits the smallest'],
      ...(bench.draft?.tray_formats ?? [])
        .filter((f) => f.columns * f.rows > 1)
        .map((f) => [f.id, f.name]),
    ]) as Record<string, string>,
  );
  const nameOf = $derived(
    (id: string | null | undefined) =>
      bench.draft?.tray_formats.find((f) => f.id === id)?.name ?? 'a flat',
  );
  const asked = $derived<Share>({
    sowings: chosen,
    by,
    even,
    ...(format ? { format } : {}),
  });

  $effect(() => {
    const [share, plan] = [asked, bench.draft];
    if (share.sowings.length < 2 || !plan) {
      proposal = undefined;
      return;
    }
    let late = false;
    api.sharing(plan, share).then(
      (found) => {
        if (!late) proposal = found;
      },
      (error: unknown) => bench.explain(error),
    );
    return () => (late = true);
  });

  function toggle(id: string) {
    chosen = chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id];
  }

  async function share(kinds: string[]) {
    await shareFlat({ ...asked, sowings: kinds });
    chosen = chosen.filter((id) => !kinds.includes(id));
    if (chosen.length < 2) ondone();
  }
</script>

<section class="card mx-4 my-2 p-4" aria-label="Share a flat" data-testid="share-flat">
  <div class="flex items-start justify-between gap-2">
    <h2 class="text-xl">Share a flat among several kinds</h2>
    <button class="quiet" onclick={ondone}>Close</button>
  </div>
  <p class="text-soft">
    They are sown on one day, under one dome that is vented and lifted once. Choose the kinds, then
    see which go together.
  </p>
  <div class="mt-2 grid gap-4 md:grid-cols-2">
    <fieldset class="max-h-72 overflow-y-auto rounded-lg border p-2">
      <legend class="px-1 text-sm text-soft">Kinds</legend>
      {#each sowings as dates (dates.sowing)}
        <CheckField
          label="{dates.name}, on its own sown {words.shortDate(dates.sow)}"
          value={chosen.includes(dates.sowing)}
          onset={() => toggle(dates.sowing)}
        />
      {/each}
    </fieldset>
    <div class="flex flex-col gap-2">
      <div class="grid grid-cols-2 gap-2">
        <ChoiceField label="Flat" value={format} choices={formats} onset={(to) => (format = to)} />
        <ChoiceField
          label="Divided by"
          value={by}
          choices={{ rows: 'rows', packs: 'packs of six' }}
          onset={(to) => (by = to)}
        />
      </div>
      <CheckField label="The same number for each" value={even} onset={(yes) => (even = yes)} />
      {#if !proposal}
        <p class="text-soft">Choose two kinds or more.</p>
      {/if}
      {#each proposal?.flats ?? [] as flat, i (i)}
        <div class="rounded-lg border p-2" data-testid="flat">
          {#if flat.kinds.length === 1}
            <p><b>A tray of its own</b>: {flat.kinds[0]!.name}</p>
          {:else}
            <p>
              <b>{i === 0 ? 'One flat' : 'Another flat'}</b>: {nameOf(flat.format)}, sown {words.shortDate(
                flat.sow,
              )}
            </p>
          {/if}
          {#if flat.apart}<p class="text-sm">Not in the first: {words.say(flat.apart)}</p>{/if}
          {#if flat.problem}<p class="text-sm text-wine">{words.say(flat.problem)}.</p>{/if}
          <ul class="mt-1 text-sm" class:hidden={flat.kinds.length === 1}>
            {#each flat.kinds as kind (kind.sowing)}
              <li class="flex justify-between gap-2 border-t py-0.5">
                <span>{kind.name}</span>
                <span class="shrink-0 text-soft"
                  >{kind.cells} cells{kind.cells < kind.wants ? `, needs ${kind.wants}` : ''}: {kind.fills}
                  plants</span
                >
              </li>
            {/each}
          </ul>
          {#if !flat.problem && flat.kinds.length > 1}
            <button
              class="quiet mt-2 border-frame! font-semibold"
              onclick={() => void share(flat.kinds.map((kind) => kind.sowing))}
              >Share this flat</button
            >
          {/if}
        </div>
      {/each}
    </div>
  </div>
</section>
