<script lang="ts">
  // A time of day, held as hours after midnight.
  import { Input, Label } from 'flowbite-svelte';

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
  const shown = $derived.by(() => {
    if (hour === undefined) return '';
    const minutes = Math.round(hour * 60) % (24 * 60);
    const two = (n: number) => String(n).padStart(2, '0');
    return `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`;
  });

  function take(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    if (input.value === '') {
      if (onclear) onclear();
      else input.value = shown;
      return;
    }
    const [h, m] = input.value.split(':').map(Number);
    const taken = h! + m! / 60;
    if (taken !== hour) onset(taken);
  }
</script>

<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">{label}</Label>
  <Input
    {id}
    type="time"
    class="w-[8rem]! border-line! bg-raised! px-2! py-1! text-base! text-ink! focus:border-coral! focus:ring-coral!"
    value={shown}
    onchange={take}
  />
</div>
