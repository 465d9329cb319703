<script lang="ts">
  // What a reading means while it is typed.
  import { type Entry, type Meaning } from '../api/client';
  import { learnApi } from '../api/learn';
  import { bench } from '../bench/workbench.svelte';

  const { entry }: { entry: Entry | undefined } = $props();
  const words = $derived(bench.words);
  let means: Meaning | null | undefined = $state.raw();
  let asked = 0;

  // A hand that still types is waited for; without a connection there is simply nothing to say.
  $effect(() => {
    const [plan, own, mine] = [bench.view?.id, entry, ++asked];
    means = undefined;
    if (plan === undefined || !own) return;
    const waiting = setTimeout(() => {
      learnApi
        .meaning(plan, own)
        .then((found) => mine === asked && (means = found))
        .catch(() => undefined);
    }, 250);
    return () => clearTimeout(waiting);
  });
</script>

{#if means && (means.now || means.against || means.lesson)}
  <div class="rounded-xl bg-teal-soft px-3 py-2 text-sm" role="status" data-testid="meaning">
    {#if means.now}<p>{words.say(means.now)}.</p>{/if}
    {#if means.against}<p>{words.say(means.against)}.</p>{/if}
    {#if means.lesson}<p class="mt-1 font-semibold">{words.say(means.lesson.verdict)}.</p>{/if}
    {#if means.lesson?.fix}<p>Keep it, and the correction waits for you in the Log.</p>{/if}
  </div>
{/if}
