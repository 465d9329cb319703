<script lang="ts">
  // A whole number with a button either side, for thumbs; it can be typed too.
  import { Label } from 'flowbite-svelte';

  interface Props {
    label: string;
    /** Says what the label leaves out to those who do not see it. */
    of?: string;
    value: number;
    least?: number;
    most?: number;
    hidden?: boolean;
    onset: (value: number) => void;
  }
  const { label, of = '', value, least = 0, most = 1000, hidden = false, onset }: Props = $props();
  const id = $props.id();
  let problem = $state('');

  function set(to: number) {
    problem = Number.isInteger(to) && to >= least && to <= most ? '' : `${least} to ${most}`;
    if (!problem && to !== value) onset(to);
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft! {hidden ? 'sr-only' : ''}"
    >{label}<span class="sr-only">{of ? ` ${of}` : ''}</span></Label
  >
  <div class="flex items-center gap-1">
    <button
      type="button"
      class="quiet min-h-10! min-w-10! justify-center border-frame!"
      aria-label="{label} {of}: one fewer"
      disabled={value <= least}
      onclick={() => set(value - 1)}>−</button
    >
    <input
      type="text"
      {id}
      inputmode="numeric"
      class="w-16 rounded-lg border-line bg-raised px-2 py-1.5 text-center text-base text-ink focus:border-coral focus:ring-coral"
      {value}
      aria-invalid={problem !== ''}
      aria-describedby={problem ? `${id}-problem` : undefined}
      onfocus={(event) => event.currentTarget.select()}
      onkeydown={(event) => event.key === 'Enter' && set(Number(event.currentTarget.value))}
      onchange={(event) => set(Number(event.currentTarget.value))}
    />
    <button
      type="button"
      class="quiet min-h-10! min-w-10! justify-center border-frame!"
      aria-label="{label} {of}: one more"
      disabled={value >= most}
      onclick={() => set(value + 1)}>+</button
    >
  </div>
  {#if problem}<p id="{id}-problem" class="text-sm text-wine" role="alert">{problem}</p>{/if}
</div>
