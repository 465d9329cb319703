// What containers are filled with, in words.
import type { Schemas } from '../../api/client';

export const mixes: Record<Schemas['MixKind'], string> = {
  peat: 'peat mix',
  coir: 'coir',
  bark: 'composted bark',
  compost: 'compost',
};
