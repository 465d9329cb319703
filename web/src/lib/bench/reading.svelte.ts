// What lies on the bench, and what follows from it: everything that views read.
import {
  Refused,
  type Assessment,
  type BayOnDay,
  type BayRef,
  type Finding,
  type Place,
  type PlaceOnDay,
  type Plan,
  type PlanView,
  type RoomOnDay,
  type UnitSystem,
} from '../api/client';
import { monthFirst } from '../say/dates';
import { unitsFor, Words } from '../say/words';
import { Connection } from './connection.svelte';
import { WhatIf } from './day.svelte';
import { Facts } from './facts.svelte';
import { Hand } from './hand.svelte';
import { same } from './things';

export abstract class Reading extends Connection {
  view: PlanView | undefined = $state.raw();
  /** The document with edits that are not saved yet. */
  draft: Plan | undefined = $state.raw();
  readonly whatIf = new WhatIf();
  date = $state('');
  readonly facts = new Facts();
  /** What is picked. */
  readonly hand = new Hand();
  #chosenUnits: UnitSystem | undefined = $state();
  system: UnitSystem = $derived(this.#chosenUnits ?? this.draft?.site.units ?? 'metric');
  words = $derived(
    new Words(
      unitsFor(this.facts.units, this.system),
      monthFirst(this.draft?.site.dates, this.system),
      this.draft?.site.currency ?? 'EUR',
      this.facts.units,
    ),
  );
  assessment: Assessment | undefined = $derived(this.whatIf.assessment);
  room: RoomOnDay | undefined = $derived(this.assessment?.room[0]);
  places: Place[] = $derived(this.draft?.places ?? []);
  bay: BayOnDay | undefined = $derived(
    this.room?.bays.find((b) => same(b.bay, this.hand.selected)),
  );
  /** The one place that is picked as a whole. */
  place: Place | undefined = $derived(this.places.find((place) => place.id === this.hand.place));
  placeOnDay: PlaceOnDay | undefined = $derived(
    this.room?.places.find((p) => p.place === this.place?.id),
  );

  chooseUnits(system: UnitSystem | undefined) {
    this.#chosenUnits = system;
  }

  /** Findings about a bay, or all. */
  findings(bay?: BayRef): Finding[] {
    return (this.assessment?.findings ?? []).filter((f) => !bay || same(f.bay ?? undefined, bay));
  }

  /** Findings about a place as a whole. */
  findingsOn(place: string): Finding[] {
    return this.findings().filter((f) => f.place === place && !f.bay);
  }

  protected reason(error: unknown): string {
    if (error instanceof Refused) return this.words.refusal(error.problem);
    return error instanceof Error ? error.message : String(error);
  }
}
