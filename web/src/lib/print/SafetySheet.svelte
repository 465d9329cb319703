<script lang="ts">
  // The room's circuits with their loads, and what to check by hand: to print and to hang up.
  import { api, type Electricity } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { sort, tree, type Node } from '../power/loads';

  const words = $derived(bench.words);
  let answer: Electricity | undefined = $state.raw();
  let problem = $state('');
  $effect(() => {
    const [draft, date] = [bench.draft, bench.date];
    if (!draft || !date) return;
    api.power(draft, date).then(
      (found) => (answer = found),
      (error: unknown) => (problem = error instanceof Error ? error.message : String(error)),
    );
  });
  const roots = $derived(bench.draft ? tree(bench.draft, answer) : []);
  const circuits = $derived(roots.filter((node) => sort(node.feed) === 'circuit'));
  /** What a feed carries by the labels, of what it may. */
  function carries(node: Node): string {
    const limit = node.load?.limits[0];
    const of = limit ? ` of ${words.number(limit.lasting_va, 'power_w')}` : '';
    const most = node.load?.most_lamps;
    const lamps = most != null ? `, ${node.load!.plugs} of ${most} lamps` : '';
    return `${words.number(node.label_w ?? 0, 'power_w')}${of}${lamps}`;
  }
  /** What is plugged into it, in words. */
  const hanging = (node: Node) =>
    node.bunches
      .map((bunch) => {
        const many = bunch.devices.length > 1 ? `${bunch.devices.length} × ` : '';
        return `${many}${bunch.name}${bunch.at ? `, ${bunch.at}` : ''}`;
      })
      .join('; ');
  const checks = [
    'Every cord has a drip loop: it hangs lower than its plug before it rises to it.',
    'Plugs, strips and timers hang above splash height, and none lies on the floor or under a tray.',
    'Nothing drips on a strip when a tray above is watered too well.',
    'No strip is plugged into another, and no cord is coiled, pinched or under a mat.',
    'Plugs and strips are cool to the hand after three hours with everything on.',
    'Mats lie flat, one by one, and are not covered by anything but trays.',
    'Lamps hang by chain or hook, not by their cords.',
  ];
</script>

<article class="mx-auto flex w-full max-w-3xl flex-col gap-4" data-testid="safety">
  <header>
    <h1 class="text-2xl">Safety sheet: {bench.draft?.name}</h1>
    <p class="text-soft">
      {bench.draft?.site.name}, {words.number(bench.draft?.site.mains_v ?? 0, 'voltage_v')}. Loads
      with everything on at its label. Printed for {bench.date ? words.date(bench.date) : ''}.
    </p>
  </header>
  {#if problem}<p class="text-wine" role="alert">{problem}</p>{/if}
  {#each circuits as circuit (circuit.feed.id)}
    {@const kind = circuit.feed.kind as {
      circuit: { breaker_a: number; rcd?: boolean; rcd_tested?: string | null };
    }}
    {@const limit = circuit.load?.limits[0]}
    <section class="rounded-xl border p-3" aria-label={circuit.feed.name}>
      <h2 class="text-xl">{circuit.feed.name}</h2>
      <p>
        Breaker {words.number(kind.circuit.breaker_a, 'current_a')}{#if limit}: {words.number(
            limit.most_va,
            'power_w',
          )}, for hours {words.number(limit.lasting_va, 'power_w')}{/if}. By the labels
        <strong>{words.number(circuit.label_w ?? 0, 'power_w')}</strong>.
      </p>
      <p>
        {kind.circuit.rcd ? 'RCD (GFCI) in place' : 'No RCD (GFCI): have one put in'}; last tested
        {kind.circuit.rcd_tested ? words.date(kind.circuit.rcd_tested) : 'never noted'}. Tested
        again on: ____________
      </p>
      <ul class="mt-2 flex flex-col gap-1">
        {#each circuit.feeds as node (node.feed.id)}{@render row(node)}{/each}
      </ul>
    </section>
  {:else}
    <p>No circuit is known yet. Say in the Power view what is plugged in where.</p>
  {/each}
  <section aria-label="To check by hand">
    <h2 class="text-xl">To check by hand</h2>
    <ul class="mt-1 flex flex-col gap-1">
      {#each checks as check (check)}
        <li class="flex gap-2"><span aria-hidden="true">☐</span><span>{check}</span></li>
      {/each}
    </ul>
  </section>
  <p class="text-sm">
    {answer?.caution} This sheet is no permission to do one's own wiring: whatever is fixed to the house
    is an electrician's work.
  </p>
  <button class="quiet self-start border-line! print:hidden" onclick={() => window.print()}
    >Print</button
  >
</article>

{#snippet row(node: Node)}
  <li>
    <span aria-hidden="true">☐</span>
    <span class="font-semibold">{node.feed.name}</span>
    <span class="text-soft">{carries(node)}</span>
    {#if node.bunches.length > 0}<span>({hanging(node)})</span>{/if}
    {#if node.feeds.length > 0}
      <ul class="ml-5 flex flex-col gap-1">
        {#each node.feeds as child (child.feed.id)}{@render row(child)}{/each}
      </ul>
    {/if}
  </li>
{/snippet}
