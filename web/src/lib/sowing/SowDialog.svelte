<script lang="ts">
  // Sow something, from wherever one is: a crop, how many plants, and if one likes, which variety.
  import { goto } from '$app/navigation';
  import { Button, Modal } from 'flowbite-svelte';
  import { untrack } from 'svelte';
  import { api, type CropStart } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import CheckField from '../fields/CheckField.svelte';
  import CountField from '../fields/CountField.svelte';
  import { shell } from '../shell/shell.svelte';
  import { askedFor, sownWhen, USUAL_PLANTS } from '../start/cropStarts';
  import Search from '../start/Search.svelte';

  const words = $derived(bench.words);
  let starts: CropStart[] = $state.raw([]);
  let text = $state('');
  let chosen: CropStart | undefined = $state.raw();
  let wanted = $state(USUAL_PLANTS);
  let variety = $state('');
  let pots = $state(true);
  let problem = $state('');
  const asked = $derived(askedFor(starts, text));
  let forAutumn = $state(false);
  const autumn = $derived(forAutumn ? chosen?.autumn : undefined);
  const days = $derived(autumn ?? chosen);

  // Every time it opens it begins from the crop, not from what was sown last.
  $effect(() => {
    const begun = shell.sowing;
    if (!begun) return;
    // Only opening it begins anew: the plan changes under it while it sows.
    untrack(() => start(begun.crop));
  });

  function start(crop: string | undefined) {
    forAutumn = false;
    [text, chosen, wanted, variety, pots, problem] = ['', undefined, USUAL_PLANTS, '', true, ''];
    api.when(bench.draft!, bench.view!.today).then(
      (found) => {
        starts = found;
        chosen = found.find((start) => start.crop === crop);
      },
      (error: unknown) => (problem = error instanceof Error ? error.message : String(error)),
    );
  }

  function choose(start: CropStart) {
    chosen = start;
    wanted = asked.plants;
    text = '';
  }

  async function sow() {
    if (!chosen) return;
    const when = days!;
    const before = new Set(bench.draft!.sowings.map((sowing) => sowing.id));
    await bench.edit({
      add_sowing: { crop: chosen.crop, variety: variety.trim(), wanted, pots, autumn: !!autumn },
    });
    const sown = bench.draft!.sowings.find((sowing) => !before.has(sowing.id));
    if (!sown) return;
    shell.sowing = undefined;
    bench.tell(
      'done',
      `Sowed ${wanted} × ${chosen.name}: about ${words.shortDate(when.sow)}, out ${words.shortDate(when.out)}. The trays wait on the tray shelf in the Room view.`,
    );
    await goto(`/sowing?sowing=${sown.id}&on=${bench.date}`);
  }
</script>

<Modal
  open={shell.sowing !== undefined}
  onclose={() => (shell.sowing = undefined)}
  title="Sow something"
  size="sm"
  class="bg-raised! text-ink!"
>
  {#if chosen}
    <form
      class="flex flex-col gap-3"
      onsubmit={(event) => {
        event.preventDefault();
        void sow();
      }}
    >
      <p>
        <b class="text-lg">{chosen.name}</b>
        <button type="button" class="quiet text-sm" onclick={() => (chosen = undefined)}
          >Another crop</button
        >
        <span class="block text-soft"
          >Sow about {words.shortDate(days!.sow)}, plant out {words.shortDate(days!.out)}{autumn
            ? `, ready by ${words.shortDate(autumn.ready)}`
            : ''}{chosen.start === 'outdoors'
            ? '. Better sown outdoors, where the crop grows.'
            : '.'}</span
        >
      </p>
      <CountField
        label="Plants wanted"
        value={wanted}
        least={1}
        most={100000}
        onset={(n) => (wanted = n)}
      />
      <label class="text-sm text-soft"
        >Variety (may stay empty)
        <input
          type="text"
          maxlength="120"
          class="mt-0.5 block w-full rounded-lg border-line bg-paper px-2 py-1.5 text-base text-ink"
          bind:value={variety}
        /></label
      >
      <CheckField
        label="With the pots for potting on, where usual"
        value={pots}
        onset={(yes) => (pots = yes)}
      />
      {#if chosen.autumn}
        <CheckField
          label="For the autumn: counted back from the first frost"
          value={forAutumn}
          onset={(yes) => (forAutumn = yes)}
        />
      {/if}
      <Button type="submit" class="self-start bg-coral! text-base! text-on-coral!"
        >Sow {wanted} × {chosen.name}</Button
      >
    </form>
  {:else}
    <Search
      label="A crop, and how many plants you want"
      placeholder="tomato 12"
      hits={asked.hits}
      named={(start) => start.name}
      detail={(start) => sownWhen(start, words)}
      bind:text
      onpick={choose}
    />
    {#if text && asked.hits.length === 0 && starts.length > 0}
      <p class="text-soft">No crop goes by that name. Your own crops are made in Seeds.</p>
    {/if}
  {/if}
  {#if problem}<p class="text-wine" role="alert">{problem}</p>{/if}
</Modal>
