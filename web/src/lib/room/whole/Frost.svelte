<script lang="ts">
  // A late frost: where all that is outside goes for the night of the chosen date, to carry by.
  import { api, type FrostNight } from '../../api/client';
  import { Asked } from '../../bench/asked.svelte';
  import { bench } from '../../bench/workbench.svelte';
  import AskButton from '../../fields/AskButton.svelte';

  const words = $derived(bench.words);
  const asked = new Asked<FrostNight | null>();
  const night = $derived(asked.answer);
  const hardens = $derived(
    bench.assessment?.season.days.find((day) => day.date === bench.date)?.demand.outdoors ?? 0,
  );
  const ask = () => asked.ask(bench.date, () => api.frostNight(bench.draft!, bench.date));
</script>

{#if !asked.fresh(bench.date)}
  <p class="text-soft">
    {hardens > 0
      ? `On ${words.shortDate(bench.date)}, ${hardens} ${hardens === 1 ? 'tray hardens' : 'trays harden'} off outside. Is there room to bring everything in for a night?`
      : `Nothing hardens off on ${words.shortDate(bench.date)}. Choose a date after hardening off began.`}
  </p>
  <AskButton {asked} label="Bring everything in" onask={ask} />
{:else if night}
  <p
    class="rounded-xl p-3"
    class:bg-sage-soft={night.left.length === 0}
    class:bg-wine-soft={night.left.length > 0}
    data-testid="frost-night"
  >
    {words.say(night.verdict)}.
  </p>
  <ul class="mt-1" data-testid="carry">
    {#each night.carry as tray (tray.tray)}
      <li class="border-t py-1">
        <b>{tray.label}</b> <span class="text-sm text-soft">{tray.holds.join(', ')}</span>
        <br />to {words.say(tray.to)}{tray.from ? `, from ${tray.from}` : ''}
      </li>
    {/each}
    {#each night.left as label, i (i)}
      <li class="border-t py-1"><b>{label}</b> finds no room: cover it outside.</li>
    {/each}
  </ul>
  <p class="mt-1 text-sm text-soft">
    One night without lamps does no harm. {#if night.on_the_floor}Keep the way to the door free.{/if}
    Chance that a frost still comes on {words.shortDate(night.date)} or later: {words.number(
      night.frost_risk,
      'share',
    )}.
  </p>
  <a class="text-teal underline" href="/print?frost={night.date}">Print the list</a>
{:else}
  <p class="rounded-xl bg-straw-soft p-3">Nothing is outside on {words.shortDate(bench.date)}.</p>
{/if}
