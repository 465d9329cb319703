<script lang="ts">
  // Where a lamp sends its light, how far it is dimmed and how far it has aged.
  import { Label } from 'flowbite-svelte';
  import { api, Refused } from '../../../api/client';
  import type { Lamp } from '../../../api/client';
  import { replace, setOptional } from '../../../bench/edits';
  import { bench } from '../../../bench/workbench.svelte';
  import ChoiceField from '../../../fields/ChoiceField.svelte';
  import NumberField from '../../../fields/NumberField.svelte';

  const { lamp, path }: { lamp: Lamp; path: string } = $props();

  const id = $props.id();
  const words = $derived(bench.words);
  const starts = $derived(bench.facts.forms?.starts);
  let problem = $state('');

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
    bench.keep(
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
    const dimmer = starts?.dimmers.find((d) => String(d.steps.length) === to);
    bench.keep(
      setOptional(`${path}/dimmer`, dimmer, lamp.dimmer != null),
      `${lamp.name} burns ${dimmers[to] ?? to}`,
    );
  }

  function age(burnt: number | undefined) {
    const before = lamp.ageing ?? starts?.ageing;
    const ageing = burnt === undefined ? undefined : before && { ...before, burnt_h: burnt };
    bench.keep(setOptional(`${path}/ageing`, ageing, lamp.ageing != null), `age of ${lamp.name}`);
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
      bench.keep(patch, `light of ${lamp.name} as measured`);
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
    label="Light goes"
    value={shines}
    choices={ways as Record<Shines, string>}
    onset={shine}
  />
  <ChoiceField
    label="Dimmer"
    value={steps.length === 0 ? 'none' : String(steps.length)}
    choices={dimmerNames}
    onset={dim}
  />
  {#if lamp.dimmer}
    <ChoiceField
      label="Set to"
      value={String(lamp.dimmer.at)}
      choices={stepNames}
      onset={(to) =>
        bench.keep([replace(`${path}/dimmer/at`, Number(to))], `${lamp.name} at ${stepNames[to]}`)}
    />
  {/if}
  <NumberField
    label="Hours run so far"
    value={lamp.ageing?.burnt_h}
    quantity="hours"
    field="{path}/ageing/burnt_h"
    onset={age}
    onclear={() => age(undefined)}
  />
  {#if lamp.ageing}
    <NumberField
      label="Hours to 70% output"
      value={lamp.ageing.l70_h}
      quantity="hours"
      field="{path}/ageing/l70_h"
      onset={(hours) =>
        bench.keep([replace(`${path}/ageing/l70_h`, hours)], `life of ${lamp.name}`)}
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
