// What the server knows whatever the plan: units, forms, the shelf of kinds.
import { api, type Forms, type Kinds, type UnitRow, type UnitSystem } from '../api/client';

export class Facts {
  units: UnitRow[] = $state.raw([]);
  /** What fields begin with and can be. */
  forms: Forms | undefined = $state.raw();
  kinds: Kinds | undefined = $state.raw();
  #soldIn: UnitSystem | undefined;

  async fetch() {
    const [units, forms] = await Promise.all([api.units(), api.forms()]);
    this.units = units;
    this.forms = forms;
  }

  /** The kinds in the sizes sold to people who measure in `system`. */
  async fetchKinds(system: UnitSystem) {
    if (this.#soldIn === system) return;
    this.kinds = await api.kinds(system);
    this.#soldIn = system;
  }

  /** What the figure at `path` can be: of the plan, or of a calculator under `/calc/`. */
  rangeOf(path: string): { least: number; most: number } | undefined {
    return this.forms?.ranges[inGeneral(path)];
  }
}

/** `/places/3/width_mm` as `/places/*` + `/width_mm`: what holds for one entry of a list holds for all. */
export function inGeneral(path: string): string {
  return path.replace(/\/\d+(?=\/|$)/g, '/*');
}
