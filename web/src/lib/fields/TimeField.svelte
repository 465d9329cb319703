<script lang="ts">
  // A time of day in the site's own form (22:30, or 10:30 pm), held as hours after midnight.
  import { Input, Label } from 'flowbite-svelte';
  import { bench } from '../bench/workbench.svelte';
  import { readTime } from '../say/dates';

  interface Props {
    label: string;
    /** Undefined where none is set. */
    hour: number | undefined;
    onset: (hour: number) => void;
    /** Leaves the time out; without it an emptied field keeps what it had. */
    onclear?: () => void;
  }
  const { label, hour, onset, onclear }: Props = $props();

  const id = $props.id();
  const words = $derived(bench.words);
  const shown = $derived(hour === undefined ? '' : words.number(hour, 'clock_h'));
  let typed: string | undefined = $state();
  let problem = $state('');

  function take(text: string) {
    const cleared = text.trim() === '';
    const taken = cleared ? undefined : readTime(text);
    if (!cleared && taken === undefined) {
      typed = text;
      problem = `“${text}” is not a time. Try ${words.number(22.5, 'clock_h')}`;
      return;
    }
    typed = undefined;
    problem = '';
    if (cleared) onclear?.();
    else if (taken !== hour) onset(taken!);
  }

  function key(event: KeyboardEvent) {
    const by = { ArrowUp: 0.5, ArrowDown: -0.5 }[event.key];
    if (event.key === 'Enter') take((event.currentTarget as HTMLInputElement).value);
    else if (event.key === 'Escape' && typed !== undefined) {
      typed = undefined;
      problem = '';
      event.stopPropagation();
    } else if (by && hour !== undefined) {
      event.preventDefault();
      typed = undefined;
      onset((hour + by + 24) % 24);
    }
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <Input
    {id}
    class="w-[7rem]! border-line! bg-raised! px-2! py-1! text-base! text-ink! focus:border-coral! focus:ring-coral!"
    value={typed ?? shown}
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
