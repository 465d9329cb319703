// The figures of a place as fields: what each is called, where it stands, and how it is kept.
import type { Place, Quantity } from '../../api/client';
import { replace, setOptional } from '../../bench/edits';
import { bench } from '../../bench/workbench.svelte';

/** Fields of `place`, which stands at `path` in the document. */
export function figuresOf(place: Place, path: string) {
  const words = bench.words;
  const at = (field: string, value: unknown) => [replace(`${path}/${field}`, value)];
  function number(label: string, field: string, value: number, quantity: Quantity = 'length_mm') {
    const onset = (next: number) =>
      bench.keep(
        at(field, next),
        `${label.toLowerCase()} of ${place.name}: ${words.number(next, quantity)}`,
      );
    return { label, value, quantity, onset };
  }
  function optional(
    label: string,
    field: string,
    value: number | null | undefined,
    quantity: Quantity = 'mass_kg',
  ) {
    const there = value != null;
    const set = (next: number | undefined) =>
      bench.keep(
        setOptional(`${path}/${field}`, next, there),
        `${label.toLowerCase()} of ${place.name}`,
      );
    return {
      label,
      value: value ?? undefined,
      quantity,
      onset: set,
      onclear: () => set(undefined),
    };
  }
  return { at, number, optional };
}
