// Placing every tray, which takes a while: told on the way, kept as one revision.
import { api, type Tick } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

/** Places every tray; what was found in words, or nothing where it came to nothing. */
export async function placeAll(
  afresh: boolean,
  tick: (tick: Tick) => void,
): Promise<string | undefined> {
  await bench.settle();
  const draft = bench.draft;
  if (!draft || bench.clashes || bench.unsaved) return undefined;
  try {
    const edited = await api.placeAll(draft, afresh, tick);
    if (bench.draft !== draft) return 'The plan has changed meanwhile: place again.';
    await bench.adopt(edited);
    return bench.words.say(edited.word);
  } catch (error) {
    bench.explain(error);
    return undefined;
  }
}
