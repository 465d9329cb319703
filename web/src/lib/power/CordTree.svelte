<script lang="ts">
  // What is plugged into what: dragged, or chosen from a list.
  import type { Electricity, Plan } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import Cord from './Cord.svelte';
  import { cords } from './cords.svelte';
  import FeedFields from './FeedFields.svelte';
  import { bunched, devices, sockets, tree } from './loads';

  const { answer, plan }: { answer: Electricity | undefined; plan: Plan } = $props();
  const words = $derived(bench.words);
  const feeds = $derived(plan.wiring?.feeds ?? []);
  const roots = $derived(tree(plan, answer));
  const loose = $derived(bunched(devices(plan).filter((device) => !device.plugged)));
  const opened = $derived(feeds.findIndex((feed) => feed.id === cords.open));
  const names = $derived(
    Object.fromEntries((answer?.feed_kinds ?? []).map((kind) => [kind.id, kind.name])),
  );
  let kind = $state('');
  const NOWHERE = '';
  const into = $derived({
    [NOWHERE]: 'nowhere',
    ...Object.fromEntries(
      sockets(feeds, cords.picked?.devices.every((device) => device.lamp) ?? false).map((feed) => [
        feed.id,
        feed.name,
      ]),
    ),
  });
</script>

{#if feeds.length === 0}
  <p class="text-soft">
    Nothing is said about circuits and strips yet. Have it proposed, and change what is different in
    your room.
  </p>
{/if}
<div class="mt-1 flex flex-wrap items-end gap-2">
  {#if loose.some((bunch) => bunch.at)}
    <button
      class="quiet border-line! font-semibold"
      onclick={() => void bench.edit('propose_wiring')}>Propose how to plug it in</button
    >
  {/if}
  {#if answer}
    <ChoiceField
      label="Add"
      value={kind}
      choices={{ '': 'choose…', ...names }}
      onset={(chosen) => {
        kind = '';
        if (chosen) void bench.edit({ add_feed: { kind: chosen } });
      }}
    />
  {/if}
</div>
{#if cords.picked}
  {@const bunch = cords.picked}
  <div class="mt-2 rounded-xl border p-3" data-testid="plug">
    <ChoiceField
      label="Plug {bunch.devices.length > 1 ? `${bunch.devices.length} × ` : ''}{bunch.name} into"
      value={bunch.devices[0]?.plugged ?? NOWHERE}
      choices={into}
      onset={(feed) =>
        cords.plug(
          bunch.devices.map((device) => device.path),
          bunch.name,
          feed || undefined,
        )}
    />
  </div>
{/if}
{#if opened >= 0}<FeedFields
    feed={feeds[opened]!}
    index={opened}
    load={answer?.load.feeds[opened]}
  />{/if}
<ul class="mt-2 flex flex-col gap-2" data-testid="cords">
  {#each roots as node (node.feed.id)}<Cord {node} />{/each}
</ul>
{#if loose.length > 0 && feeds.length > 0}
  <h3 class="mt-3 text-base">Plugged in nowhere</h3>
  <ul class="mt-1 flex flex-wrap gap-2">
    {#each loose as bunch (bunch.at + bunch.name)}
      <li>
        <button
          class="cursor-grab rounded-lg border border-dashed px-2 py-1 text-left text-sm"
          draggable="true"
          ondragstart={() => cords.holdBunch(bunch)}
          ondragend={() => cords.letGo()}
          onclick={() => cords.pick(bunch)}
          aria-expanded={cords.isPicked(bunch)}
        >
          {bunch.devices.length > 1 ? `${bunch.devices.length} × ` : ''}{bunch.name}
          {#if bunch.at}<span class="text-soft">({bunch.at})</span>{/if},
          {words.number(bunch.watts, 'power_w')}
        </button>
      </li>
    {/each}
  </ul>
{/if}
