<script lang="ts">
  // A lesson: what was measured beside what is reckoned, what the correction changes, and whether to accept it.
  import { type Lesson, type LessonEffect } from '../api/client';
  import { learnApi } from '../api/learn';
  import { bench } from '../bench/workbench.svelte';
  import { movedBy } from '../say/words';
  import { daysBetween } from '../say/dates';
  import Interval from './Interval.svelte';

  interface Props {
    lesson: Lesson;
    /** Entries that count though they stand out. */
    putIn: string[];
    onputin: (entry: string, counts: boolean) => void;
    /** Whether it is looked at closely. */
    open: boolean;
    onopen: (open: boolean) => void;
  }
  const { lesson, putIn, onputin, open, onopen }: Props = $props();
  const words = $derived(bench.words);
  let changes: LessonEffect | undefined = $state.raw();
  let problem = $state('');

  const KINDS: Record<Lesson['kind'], string> = {
    lamps: 'Lamps',
    mat: 'Mat',
    air_by_day: 'Air by day',
    air_by_night: 'Air by night',
    packet: 'Packet',
    comes_up: 'Coming up',
    height: 'Height',
  };
  const WHAT = { sow: 'sow', show: 'half up', out: 'plant out' } as const;
  const left = $derived(lesson.readings.filter((own) => own.left_out));

  // What it changes is reckoned when somebody looks.
  $effect(() => {
    if (open && lesson.fix) void look(bench.view?.id, lesson.id, putIn);
  });

  async function look(plan: number | undefined, id: string, put_in: string[]) {
    if (plan === undefined) return;
    try {
      const found = await learnApi.effect(plan, id, put_in);
      if (id === lesson.id) [changes, problem] = [found, ''];
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }
</script>

<li class="card p-3" data-testid="lesson" data-lesson={lesson.id}>
  <p class="text-sm text-soft">{KINDS[lesson.kind]} · {lesson.about}</p>
  <p class={lesson.fix ? 'font-semibold' : ''}>{words.say(lesson.verdict)}</p>
  {#if left.length > 0}
    <p class="mt-0.5 text-sm text-wine">
      {left.length === 1 ? 'One reading is' : `${left.length} readings are`} left out.
    </p>
  {/if}
  <button class="quiet mt-1" aria-expanded={open} onclick={() => onopen(!open)}
    >{open ? 'Less' : lesson.fix ? 'Look at the correction' : 'Look closer'}</button
  >
  {#if open}
    {#if lesson.learned}
      <div class="mt-2">
        <Interval
          value={lesson.learned.value}
          low={lesson.learned.low}
          high={lesson.learned.high}
          beside={lesson.now}
          besideName="in the plan: {words.number(lesson.now, lesson.quantity)}"
          quantity={lesson.quantity}
          label="{words.number(lesson.learned.value, lesson.quantity)}, between {words.number(
            lesson.learned.low,
            lesson.quantity,
          )} and {words.number(lesson.learned.high, lesson.quantity)} with 95% certainty"
        />
        <p class="text-sm text-soft">The bar holds the true figure with 95% certainty.</p>
      </div>
    {/if}
    <p class="mt-2 text-sm"><b>Check first:</b> {words.say(lesson.first)}.</p>
    {#if lesson.fix}
      <div class="mt-3 rounded-xl bg-straw-soft p-3" data-testid="effect">
        <p class="font-semibold">What it changes</p>
        {#if problem}
          <p class="text-wine" role="alert">{problem}</p>
        {:else if !changes}
          <p class="text-soft" role="status">Working it out…</p>
        {:else}
          {#if changes.moved.length === 0 && changes.settled.length === 0 && changes.found.length === 0}
            <p>No day moves, and no finding comes or goes: only the figures.</p>
          {/if}
          <ul class="text-sm">
            {#each changes.moved as day, i (i)}
              <li>
                {day.name}, {WHAT[day.what]}: {words.shortDate(day.from)} → {words.shortDate(
                  day.to,
                )}
                ({movedBy(daysBetween(day.from, day.to))})
              </li>
            {/each}
            {#if changes.more_moved > 0}<li>… and {changes.more_moved} more days</li>{/if}
            {#each changes.found as finding, i (i)}<li>New: {words.say(finding)}</li>{/each}
            {#each changes.settled as finding, i (i)}<li>Settled: {words.say(finding)}</li>{/each}
          </ul>
        {/if}
        <button
          class="quiet mt-2 min-h-11! w-full justify-center border-coral! bg-raised! font-semibold"
          onclick={() => lesson.fix && bench.keep(lesson.fix.patch, words.say(lesson.fix.word))}
          >{words.say(lesson.fix.label)}</button
        >
        <p class="mt-1 text-sm text-soft">One step: undo takes all of it back.</p>
      </div>
    {/if}
    <table class="mt-2 w-full text-sm">
      <thead>
        <tr class="text-left text-soft">
          <th class="py-1 font-normal">Day</th><th class="font-normal">Where</th><th
            class="text-right font-normal">Measured</th
          ><th class="text-right font-normal">Reckoned</th>
        </tr>
      </thead>
      <tbody>
        {#each lesson.readings as own (own.entry)}
          <tr class="border-t" class:text-soft={own.left_out}>
            <td class="py-1 pr-2 whitespace-nowrap">{words.shortDate(own.on)}</td>
            <td>{own.at}</td>
            <td class="text-right whitespace-nowrap">{words.number(own.measured, own.quantity)}</td>
            <td class="text-right whitespace-nowrap">{words.number(own.reckoned, own.quantity)}</td>
          </tr>
          {#if own.left_out || own.can_be_put_in}
            <tr
              ><td colspan="4" class="pb-1">
                {#if own.left_out}<span class="text-wine">Left out: {words.say(own.left_out)}.</span
                  >{:else}<span class="text-soft">It stands out, and counts all the same.</span
                  >{/if}
                {#if own.can_be_put_in}
                  <button
                    class="quiet text-sm"
                    onclick={() => onputin(own.entry, Boolean(own.left_out))}
                    >{own.left_out ? 'Put it in' : 'Leave it out'}</button
                  >
                {/if}
              </td></tr
            >
          {/if}
        {/each}
      </tbody>
    </table>
  {/if}
</li>
