// Choices that belong to this screen, not to the plan: the ground and the units.
import type { UnitSystem } from '../api/client';

type Ground = 'day' | 'night';

function read(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null; // storage may be forbidden; the choice then lasts as long as the page
  }
}

function keep(key: string, value: string) {
  try {
    localStorage.setItem(key, value);
  } catch {
    // as above
  }
}

class Screen {
  ground: Ground = $state(
    (read('ground') as Ground | null) ??
      (matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'),
  );

  toggleGround() {
    this.ground = this.ground === 'day' ? 'night' : 'day';
    keep('ground', this.ground);
  }

  get units(): UnitSystem | undefined {
    const kept = read('units');
    return kept === 'metric' || kept === 'us' ? kept : undefined;
  }

  set units(system: UnitSystem | undefined) {
    if (system) keep('units', system);
  }
}

export const screen = new Screen();
