<script lang="ts">
  // A number in the reader's units, changed in place. What cannot be read is said, not swallowed.
  import { Input, Label } from 'flowbite-svelte';
  import type { Quantity } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    label: string;
    /** Undefined where the figure is not known. */
    value: number | undefined;
    quantity: Quantity;
    /** Where the figure stands in the plan: its range is the server's. */
    field?: string;
    /** A narrower range than the field's. */
    min?: number;
    max?: number;
    /** Keeps a new value, in the plan's own unit. */
    onset: (value: number) => void;
    /** What stands there while there is no figure. */
    none?: string;
    /** Leaves the figure out; without it an empty field is no answer. */
    onclear?: () => void;
  }
  const {
    label,
    value,
    quantity,
    field,
    min: least,
    max: most,
    none = 'not set',
    onset,
    onclear,
  }: Props = $props();

  const id = $props.id();
  const range = $derived(field === undefined ? undefined : bench.facts.rangeOf(field));
  const min = $derived(least ?? range?.least ?? -Infinity);
  const max = $derived(most ?? range?.most ?? Infinity);
  const words = $derived(bench.words);
  const unit = $derived(words.unit(quantity));
  let typed: string | undefined = $state();
  let problem = $state('');
  const shown = $derived(typed ?? (value === undefined ? '' : words.bare(value, quantity)));
  const example = $derived(words.bare(value ?? 10, quantity));

  function take(text: string) {
    if (text.trim() === '' && onclear) {
      typed = undefined;
      problem = '';
      if (value !== undefined) onclear();
      return;
    }
    const held = words.held(text, quantity);
    if (held === undefined) {
      typed = text;
      problem = `“${text}” is not a number. Try ${example}${unit.unit ? ` (${unit.unit})` : ''}.`;
    } else if (held < min || held > max) {
      typed = text;
      problem =
        max === Infinity
          ? `At least ${words.number(min, quantity)}.`
          : `From ${words.number(min, quantity)} to ${words.number(max, quantity)}.`;
    } else {
      typed = undefined;
      problem = '';
      if (value === undefined || Math.abs(held - value) > 1e-9) onset(held);
    }
  }

  function key(event: KeyboardEvent) {
    const up = { ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (event.key === 'Enter') take((event.currentTarget as HTMLInputElement).value);
    else if (event.key === 'Escape') {
      typed = undefined;
      problem = '';
      event.stopPropagation();
    } else if (up) {
      event.preventDefault();
      const next = (value ?? 0) + (up * unit.step) / unit.factor;
      take(words.bare(Math.min(Math.max(next, min), max), quantity));
    }
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <div class="flex items-center gap-1.5">
    <Input
      {id}
      inputmode="decimal"
      class="w-[4.6rem]! min-w-0 shrink-0 border-line! bg-raised! px-2! py-1! text-base! text-ink! focus:border-coral! focus:ring-coral!"
      value={shown}
      placeholder={onclear ? none : undefined}
      aria-invalid={problem !== ''}
      aria-describedby={problem ? `${id}-problem` : undefined}
      onkeydown={key}
      oninput={(event: Event) => (typed = (event.currentTarget as HTMLInputElement).value)}
      onchange={(event: Event) => take((event.currentTarget as HTMLInputElement).value)}
    />
    <span class="whitespace-nowrap text-soft">{unit.unit}</span>
  </div>
  {#if problem}
    <p id="{id}-problem" class="text-sm text-wine" role="alert">{problem}</p>
  {/if}
</div>
