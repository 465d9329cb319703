// How a tray's plants have grown, in a few words.
import type { Schemas } from '../../api/client';
import type { Words } from '../../say/words';

type PlantOnDay = Schemas['PlantOnDay'];

/** Less than this over a sturdy one's height is not worth a word. */
const STRETCHED = 1.15;
/** A cell this full is worth a word. */
const FULL = 0.9;

const because: Record<Schemas['Behind'], string> = {
  light: 'too little light',
  warmth: 'cold air',
  roots: 'a full cell',
  shade: 'taller plants beside it',
};

/** What is worth saying of `plant`, in clauses; none where it grows as it should. */
export function grownWords(plant: PlantOnDay, words: Words): string[] {
  const said: string[] = [];
  if (plant.stretched >= STRETCHED)
    said.push(`stretched by ${words.number(plant.stretched - 1, 'share')}`);
  if (plant.behind_by)
    said.push(
      `${words.number(plant.size, 'share')} of the usual size for its age: ${because[plant.behind_by]}`,
    );
  if (plant.cell_filled > 1) said.push('its cell is full');
  else if (plant.cell_filled > FULL) said.push('its cell is nearly full');
  return said;
}
