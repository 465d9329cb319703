<script lang="ts">
  // The jobs as iCalendar: a file, and an address to subscribe to.
  import { bench } from '../bench/workbench.svelte';

  const path = $derived(`/api/plans/${bench.view?.id}/calendar.ics`);
  const address = $derived(`${location.origin}${path}`);
</script>

<p class="my-2 text-sm text-soft">
  Every job as a whole day: sow, vent, thin, pot on, harden off, plant out. Import again after a
  change: jobs move, none is duplicated.
</p>
<a class="quiet border-frame! font-semibold" href={path} download="faint-sunrise.ics"
  >Save the calendar as a file</a
>
<label class="mt-3 block text-sm text-soft"
  >Address to subscribe to
  <input
    readonly
    class="mt-0.5 w-full rounded-lg border-line bg-raised px-2 py-1 text-base text-ink"
    value={address}
    onfocus={(event) => event.currentTarget.select()}
  /></label
>
