<script lang="ts">
  // Where a lamp sends its light, how far it is dimmed and how far it has aged.
  import { Label } from 'flowbite-svelte';
  import { api, Refused } from '../../../api/client';
  import type { Lamp, PatchStep } from '../../../api/client';
  import { replace, setOptional } from '../../../bench/edits';
  import { bench } from '../../../bench/workbench.svelte';
  import ChoiceField from '../../../fields/ChoiceField.svelte';
  import NumberField from '../../../fields/NumberField.svelte';

  const { lamp, path }: { lamp: Lamp; path: string } = $props();

  const id = $props.id();
  const words = $derived(bench.words);
  let problem = $state('');

  function keep(patch: PatchStep[], word: string) {
    bench.try(patch, word);
    void bench.settle();
  }

  type Shines = 'down' | 'round' | 'measured';
  const shines = $derived<Shines>(
    lamp.distribution ? 'measured' : lamp.bare_tube ? 'round' : 'down',
  );
  const ways = $derived<Partial<Record<Shines, string>>>({
    down: 'down, in a beam',
    round: 'all round: bare tubes',
    ...(lamp.distribution ? { measured: 'as measured' } : {}),
  });

  function shine(to: Shines) {
    if (to === 'measured') return;
    keep(
      [
        ...setOptional(`${path}/distribution`, undefined, lamp.distribution != null),
        ...setOptional(
          `${path}/bare_tube`,
          to === 'round' ? true : undefined,
          lamp.bare_tube !== undefined,
        ),
      ],
      `${lamp.name} shines ${ways[to]}`,
    );
  }

  const dimmers: Record<string, string> = {
    none: 'on and off',
    3: 'three steps',
    4: 'four steps',
    10: 'ten steps',
  };
  const steps = $derived(lamp.dimmer?.steps ?? []);
  const stepNames = $derived(
    Object.fromEntries(steps.map((share, i) => [String(i), words.number(share, 'share')])),
  );
  const dimmerNames = $derived(
    steps.length === 0 || String(steps.length) in dimmers
      ? dimmers
      : { ...dimmers, [steps.length]: `${steps.length} steps` },
  );

  function dim(to: string) {
    const count = Number(to);
    const dimmer =
      to === 'none'
        ? undefined
        : { steps: Array.from({ length: count }, (_, i) => (i + 1) / count), at: count - 1 };
    keep(
      setOptional(`${path}/dimmer`, dimmer, lamp.dimmer != null),
      `${lamp.name} burns ${dimmers[to] ?? to}`,
    );
  }

  /** Hours after which a typical LED has lost 30 %, until the user gives the maker's. */
  const L70_H = 30_000;

  function age(burnt: number | undefined) {
    const ageing =
      burnt === undefined ? undefined : { burnt_h: burnt, l70_h: lamp.ageing?.l70_h ?? L70_H };
    keep(setOptional(`${path}/ageing`, ageing, lamp.ageing != null), `age of ${lamp.name}`);
  }

  async function readFile(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    problem = '';
    try {
      const read = await api.photometry(await file.text());
      const patch = [
        ...setOptional(`${path}/distribution`, read.distribution, lamp.distribution != null),
        ...setOptional(`${path}/ppf_umol_s`, undefined, lamp.ppf_umol_s != null),
        replace(`${path}/flux_lm`, read.flux_lm),
      ];
      if (read.watts > 0) patch.push(replace(`${path}/watts`, read.watts));
      if (read.opening_mm) {
        const [length_mm, width_mm] = read.opening_mm;
        patch.push(replace(`${path}/emitters`, [{ length_mm, width_mm, across_mm: 0 }]));
      }
      keep(patch, `light of ${lamp.name} as measured`);
    } catch (error) {
      const first = error instanceof Refused ? error.problem.faults?.[0] : undefined;
      problem = first
        ? `${words.say(first.problem)}: ${words.say(first.remedy)}.`
        : 'The file could not be read.';
    }
    input.value = '';
  }
</script>

<div class="grid grid-cols-2 gap-2">
  <ChoiceField
    label="It shines"
    value={shines}
    choices={ways as Record<Shines, string>}
    onset={shine}
  />
  <ChoiceField
    label="It burns"
    value={steps.length === 0 ? 'none' : String(steps.length)}
    choices={dimmerNames}
    onset={dim}
  />
  {#if lamp.dimmer}
    <ChoiceField
      label="Stands on"
      value={String(lamp.dimmer.at)}
      choices={stepNames}
      onset={(to) =>
        keep([replace(`${path}/dimmer/at`, Number(to))], `${lamp.name} at ${stepNames[to]}`)}
    />
  {/if}
  <NumberField
    label="Has burnt"
    value={lamp.ageing?.burnt_h}
    quantity="hours"
    min={0}
    onset={age}
    onclear={() => age(undefined)}
  />
  {#if lamp.ageing}
    <NumberField
      label="70 % left after"
      value={lamp.ageing.l70_h}
      quantity="hours"
      onset={(hours) => keep([replace(`${path}/ageing/l70_h`, hours)], `life of ${lamp.name}`)}
    />
  {/if}
</div>
<div>
  <Label for={id} class="mb-0.5 text-sm text-soft!">Measured light, from an IES file</Label>
  <input
    {id}
    type="file"
    accept=".ies,.IES,.ldt,.LDT"
    class="w-full rounded-lg border border-line bg-raised text-sm text-ink"
    aria-describedby={problem ? `${id}-problem` : undefined}
    onchange={readFile}
  />
  {#if problem}
    <p id="{id}-problem" class="text-sm text-wine" role="alert">{problem}</p>
  {/if}
</div>
