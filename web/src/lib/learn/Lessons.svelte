<script lang="ts">
  // What was measured, and what it corrects: nothing is taken before somebody says so.
  import { type Lesson } from '../api/client';
  import { learnApi } from '../api/learn';
  import { bench } from '../bench/workbench.svelte';
  import { outbox } from '../log/outbox.svelte';
  import LessonCard from './LessonCard.svelte';

  let lessons: Lesson[] | undefined = $state.raw();
  let putIn: string[] = $state([]);
  /** The lessons that are looked at closely: they stay so when a reading moves them to the other list. */
  let opened: string[] = $state([]);
  let problem = $state('');
  let asked = 0;

  $effect(() => {
    void bench.view?.revision;
    void outbox.sent;
    void look(bench.view?.id, putIn);
  });

  async function look(plan: number | undefined, put_in: string[]) {
    if (plan === undefined) return;
    const mine = ++asked;
    try {
      const found = await learnApi.lessons(plan, put_in);
      if (mine === asked) [lessons, problem] = [found, ''];
    } catch (error) {
      if (mine === asked) problem = error instanceof Error ? error.message : String(error);
    }
  }

  const corrections = $derived(lessons?.filter((own) => own.fix) ?? []);
  const others = $derived(lessons?.filter((own) => !own.fix) ?? []);
  const counts = (entry: string, on: boolean) =>
    (putIn = on ? [...putIn, entry] : putIn.filter((own) => own !== entry));
</script>

{#snippet card(lesson: Lesson)}
  <LessonCard
    {lesson}
    {putIn}
    onputin={counts}
    open={opened.includes(lesson.id)}
    onopen={(open) =>
      (opened = open ? [...opened, lesson.id] : opened.filter((id) => id !== lesson.id))}
  />
{/snippet}

<section aria-label="What was learned">
  {#if problem}
    <p class="text-wine" role="alert">{problem}</p>
  {:else if !lessons}
    <p class="text-soft" role="status">Reading the log…</p>
  {:else if lessons.length === 0}
    <div class="card px-4 py-6 text-center">
      <p class="text-lg">Nothing has been measured or counted yet.</p>
      <p class="mt-1 text-soft">
        A light meter at the leaves, a thermometer in the mix, a count of what is up: a few of them
        tell how strong your lamps and mats really are, and how alive your seed.
      </p>
    </div>
  {:else}
    {#if corrections.length > 0}
      <h2 class="mt-1 text-lg">To correct</h2>
      <p class="text-sm text-soft">
        Nothing is corrected before you say so. Look at the readings and at what would change.
      </p>
      <ul class="mt-2 flex flex-col gap-3" data-testid="corrections">
        {#each corrections as lesson (lesson.id)}
          {@render card(lesson)}
        {/each}
      </ul>
    {/if}
    {#if others.length > 0}
      <h2 class="mt-4 text-lg">Nothing to correct so far</h2>
      <ul class="mt-2 flex flex-col gap-3">
        {#each others as lesson (lesson.id)}
          {@render card(lesson)}
        {/each}
      </ul>
    {/if}
  {/if}
</section>
