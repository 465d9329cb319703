// The steps of the guided start, in order. Each can be skipped, left and taken up again: what was said
// is in the plan already.
export const steps = [
  { id: 'home', name: 'Home' },
  { id: 'frost', name: 'Frost' },
  { id: 'corner', name: 'Corner' },
  { id: 'stands', name: 'Shelves' },
  { id: 'crops', name: 'Crops' },
  { id: 'season', name: 'Season' },
] as const;

export type StepId = (typeof steps)[number]['id'];

export function stepFrom(text: string | null): StepId {
  return steps.find((step) => step.id === text)?.id ?? 'home';
}

export function after(id: StepId): StepId | undefined {
  return steps[steps.findIndex((step) => step.id === id) + 1]?.id;
}

export function before(id: StepId): StepId | undefined {
  return steps[steps.findIndex((step) => step.id === id) - 1]?.id;
}
