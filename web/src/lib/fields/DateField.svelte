<script lang="ts">
  // A day in the site's own form: "6 May 2027" or "May 6, 2027", never the browser's.
  import { Input, Label } from 'flowbite-svelte';
  import { bench } from '../bench/workbench.svelte';
  import { plusDays, readDate } from '../say/dates';

  interface Props {
    label: string;
    /** The day, as 2027-05-06. */
    value: string;
    onset: (value: string) => void;
  }
  const { label, value, onset }: Props = $props();
  const id = $props.id();
  const words = $derived(bench.words);
  let typed: string | undefined = $state();
  let problem = $state('');

  function take(text: string) {
    const day = readDate(text, value, words.monthFirst);
    if (day === undefined) {
      typed = text;
      problem = `“${text}” is not a date. Try ${words.longDate(value)}`;
      return;
    }
    typed = undefined;
    problem = '';
    if (day !== value) onset(day);
  }

  function key(event: KeyboardEvent) {
    const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === 'Enter') take((event.currentTarget as HTMLInputElement).value);
    else if (by) {
      event.preventDefault();
      typed = undefined;
      onset(plusDays(value, by));
    } else if (event.key === 'Escape' && typed !== undefined) {
      typed = undefined;
      problem = '';
      event.stopPropagation();
    }
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <Input
    {id}
    class="w-44! border-line! bg-raised! px-2! py-1! text-base! text-ink! focus:border-coral! focus:ring-coral!"
    value={typed ?? words.longDate(value)}
    aria-invalid={problem !== ''}
    aria-describedby={problem ? `${id}-problem` : undefined}
    onkeydown={key}
    oninput={(event: Event) => (typed = (event.currentTarget as HTMLInputElement).value)}
    onchange={(event: Event) => take((event.currentTarget as HTMLInputElement).value)}
  />
  {#if problem}
    <p id="{id}-problem" class="text-sm text-wine" role="alert">{problem}</p>
  {/if}
</div>
