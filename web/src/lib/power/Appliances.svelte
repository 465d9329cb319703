<script lang="ts">
  // What else of the household hangs on the same circuits.
  import type { Plan } from '../api/client';
  import { replace, setOptional } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import CheckField from '../fields/CheckField.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NameField from '../fields/NameField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import TimeField from '../fields/TimeField.svelte';
  import { sockets } from './loads';

  const { plan }: { plan: Plan } = $props();
  const words = $derived(bench.words);
  const all = $derived(plan.wiring?.appliances ?? []);
  const into = $derived({
    '': 'nowhere',
    ...Object.fromEntries(
      sockets(plan.wiring?.feeds ?? [], false).map((feed) => [feed.id, feed.name]),
    ),
  });
</script>

<ul class="flex flex-col gap-2" data-testid="household">
  {#each all as load, i (load.id)}
    {@const path = `/wiring/appliances/${i}`}
    <li>
      <details>
        <summary class="cursor-pointer"
          >{load.name}, {words.number(load.watts, 'power_w')}{#if load.hours},
            {words.number(load.hours.from_h, 'clock_h')} to {words.number(
              load.hours.to_h,
              'clock_h',
            )}{/if}</summary
        >
        <div class="mt-1 grid grid-cols-2 gap-2">
          <NameField
            label="What it is"
            value={load.name}
            onset={(name) => bench.keep([replace(`${path}/name`, name)], `called ${name}`)}
          />
          <NumberField
            label="Power"
            value={load.watts}
            quantity="power_w"
            field="/wiring/appliances/watts"
            onset={(watts) =>
              bench.keep([replace(`${path}/watts`, watts)], `${load.name}: ${watts} W`)}
          />
          <ChoiceField
            label="Plugged into"
            value={load.plugged ?? ''}
            choices={into}
            onset={(feed) =>
              bench.keep(
                setOptional(`${path}/plugged`, feed || undefined, load.plugged != null),
                `moved the plug of ${load.name}`,
              )}
          />
          {#if load.hours}
            {@const hours = load.hours}
            <TimeField
              label="On from"
              hour={hours.from_h}
              onset={(from_h) =>
                bench.keep(
                  [replace(`${path}/hours`, { ...hours, from_h })],
                  `${load.name} runs at other hours`,
                )}
            />
            <TimeField
              label="to"
              hour={hours.to_h}
              onset={(to_h) =>
                bench.keep(
                  [replace(`${path}/hours`, { ...hours, to_h })],
                  `${load.name} runs at other hours`,
                )}
            />
          {/if}
        </div>
        <CheckField
          label="Runs all day"
          value={!load.hours}
          onset={(yes) =>
            bench.keep(
              setOptional(
                `${path}/hours`,
                yes ? undefined : { from_h: 6, to_h: 9 },
                load.hours != null,
              ),
              `${load.name} runs at other hours`,
            )}
        />
        <CheckField
          label="Makes heat"
          value={load.heats === true}
          onset={(heats) =>
            bench.keep(
              [{ op: 'add', path: `${path}/heats`, value: heats }],
              `${load.name} ${heats ? 'heats' : 'does not heat'}`,
            )}
        />
        <button
          class="quiet border-line!"
          onclick={() => void bench.edit({ remove_appliance: { appliance: load.id } })}
          >Take it out</button
        >
      </details>
    </li>
  {:else}
    <li class="text-soft">A heater, a dryer or a freezer on the same circuit counts too.</li>
  {/each}
</ul>
<button
  class="quiet mt-1 border-line!"
  onclick={() => void bench.edit({ add_appliance: { name: 'heater', watts: 1500 } })}
  >Add one</button
>
