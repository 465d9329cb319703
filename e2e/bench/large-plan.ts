// A room to measure with: the demo's first rack twelve times.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';

const RACKS = 12;
/** 12 racks with `perShelf` trays on each of five shelves; more than four stand on top of one another. */
export function largePlan(perShelf = 4) {
  const plan = JSON.parse(
    readFileSync(join(import.meta.dirname, '../../demo/kettle-fen.json'), 'utf8'),
  );
  const rack = plan.places[0];
  plan.name = 'a large room';
  plan.room = { ...plan.room, width_mm: 20_000, depth_mm: 6000 };
  plan.places = Array.from({ length: RACKS }, (_, i) => {
    const copy = structuredClone(rack);
    copy.id = `r${i}`;
    copy.name = `Rack ${i + 1}`;
    copy.spot = { x_mm: i * 1300, y_mm: 1590, faces: 'near' };
    copy.tiers[4].storage = false;
    copy.tiers[4].lamps = [];
    return copy;
  });
  const sowings = ['onion', 'pepper', 'tomato', 'cabbage', 'lettuce'];
  plan.trays = plan.places.flatMap((place: { id: string }) =>
    [0, 1, 2, 3, 4].flatMap((tier) =>
      Array.from({ length: perShelf }, (_, x) => x).map((x) => ({
        id: `${place.id}-${tier}-${x}`,
        name: `T${tier}${x}`,
        parts: [{ sowing: sowings[(tier + x) % sowings.length] }],
        format: 'cells-72',
        stands: [
          {
            stage: 'germinate',
            bay: { place: place.id, tier: `t${tier + 1}` },
            x_mm: 40 + (870 / (perShelf - 1)) * x,
            y_mm: 35,
            along: 'y',
          },
        ],
      })),
    ),
  );
  return plan;
}
