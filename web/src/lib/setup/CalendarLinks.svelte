<script lang="ts">
  // The jobs as iCalendar: a file, and an address to subscribe to.
  import { bench } from '../bench/workbench.svelte';

  const path = $derived(`/api/plans/${bench.view?.id}/calendar.ics`);
  const address = $derived(`${location.origin}${path}`);

  async function copy() {
    try {
      await navigator.clipboard.writeText(address);
      bench.tell('done', 'The address is copied.');
    } catch {
      bench.tell(
        'wrong',
        'This browser does not let pages copy: select the address and copy it by hand.',
      );
    }
  }
</script>

<p class="my-2 text-sm text-soft">
  Every job as a whole day: sow, vent, thin, pot on, harden off, plant out. Import again after a
  change: jobs move, none is duplicated.
</p>
<a class="quiet border-frame! font-semibold" href={path} download="faint-sunrise.ics"
  >Save the calendar as a file</a
>
<div class="mt-3 flex items-end gap-2">
  <label class="block min-w-0 grow text-sm text-soft"
    >Address to subscribe to
    <input
      type="text"
      readonly
      class="mt-0.5 w-full rounded-lg border-line bg-raised px-2 py-1 text-base text-ink"
      value={address}
      onfocus={(event) => event.currentTarget.select()}
    /></label
  >
  <button class="quiet border-frame!" onclick={() => void copy()}>Copy</button>
</div>
