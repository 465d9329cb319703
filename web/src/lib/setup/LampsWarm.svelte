<script lang="ts">
  // A room that its own lamps warm: its size, its walls, and what comes out through the season.
  import type {
    Envelope,
    LitRoomSeason,
    OtherRoom,
    RoomSize,
    RoomWalls,
    Site,
  } from '../api/client';
  import { replace, setOptional } from '../bench/edits';
  import CheckField from '../fields/CheckField.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    site: Site;
    /** Another room and where it stands in the plan; the one that is drawn without. */
    other?: { room: OtherRoom; path: string };
    /** As words go on: "the room". */
    whose: string;
    /** What the server makes of it. */
    season: LitRoomSeason | undefined;
  }
  const { site, other, whose, season }: Props = $props();

  const words = $derived(bench.words);
  const size = $derived(other?.room.size ?? undefined);
  const envelope = $derived(other ? size?.envelope : (site.envelope ?? undefined));
  const at = $derived(other ? `${other.path}/size` : '/site/envelope');
  const around = $derived(other ? `${at}/envelope` : at);

  /** An estimate is no surer than that. */
  const about = (c: number) => words.number(Math.round(c) || 0, 'temperature_c');

  const walls: Record<RoomWalls, string> = {
    inner: 'Inner walls, in the middle of a house',
    insulated: 'Well insulated',
    usual: 'As most houses and cellars have',
    thin: 'Thin boards or a bare roof: a shed, an attic',
  };
  const sides: [keyof RoomSize & string, string][] = [
    ['width_mm', 'Width'],
    ['depth_mm', 'Depth'],
    ['height_mm', 'Height'],
  ];

  function humidify(share: number | undefined) {
    const said = share === undefined ? 'none' : words.number(share, 'share');
    bench.keep(
      setOptional(`${around}/humidified`, share, envelope?.humidified != null),
      `humidifier of ${whose}: ${said}`,
    );
  }

  function begin() {
    const usual: Envelope = { walls: 'usual', heated: true };
    const { width_mm, depth_mm, height_mm } = bench.draft!.room;
    const value = other ? { width_mm, depth_mm, height_mm, envelope: usual } : usual;
    bench.keep(setOptional(at, value, false), `the lamps of ${whose} warm it`);
  }
</script>

{#if !envelope}
  <button class="quiet mt-2 self-start border-line!" onclick={begin}
    >Reckon what its lamps add</button
  >
{:else}
  <div class="mt-2 rounded-lg bg-ground p-2" role="group" aria-label="What lamps add to {whose}">
    <p class="text-sm text-soft">
      The air above is the air with the lamps off. What they add is our own estimate: hang a
      thermometer between the shelves and correct the walls until both agree.
    </p>
    {#if size}
      <div class="mt-2 grid grid-cols-3 items-end gap-2">
        {#each sides as [field, label] (field)}
          <NumberField
            {label}
            value={size[field] as number}
            quantity="length_mm"
            onset={(mm) =>
              bench.keep(
                [replace(`${at}/${field}`, mm)],
                `${label.toLowerCase()} of ${whose}: ${words.number(mm, 'length_mm')}`,
              )}
          />
        {/each}
      </div>
    {/if}
    <div class="mt-2 flex flex-col gap-2">
      <ChoiceField
        label="Its walls"
        value={envelope.walls}
        choices={walls}
        onset={(own) =>
          bench.keep([replace(`${around}/walls`, own)], `walls of ${whose}: ${walls[own]}`)}
      />
      <CheckField
        label="A thermostat heats it"
        value={envelope.heated ?? false}
        onset={(heated) =>
          bench.keep(
            setOptional(`${around}/heated`, heated || undefined, envelope.heated === true),
            `${whose} is ${heated ? 'heated' : 'not heated'}`,
          )}
      />
    </div>
    <div class="mt-2">
      <NumberField
        label="A humidifier holds it at"
        value={envelope.humidified ?? undefined}
        quantity="share"
        none="none"
        onset={(share) => humidify(share)}
        onclear={() => humidify(undefined)}
      />
    </div>
    {#if season && season.from.length > 0}
      <table class="mt-2 w-full text-sm">
        <thead>
          <tr class="text-left text-soft">
            <th scope="col">From</th>
            <th scope="col" class="text-right">Lamps</th>
            <th scope="col" class="text-right">By day</th>
            <th scope="col" class="text-right">By night</th>
            {#if envelope.humidified != null}<th scope="col" class="text-right">Water a day</th
              >{/if}
          </tr>
        </thead>
        <tbody>
          {#each season.from as step (step.from)}
            <tr>
              <th scope="row" class="text-left font-normal">{words.date(step.from)}</th>
              <td class="text-right">{words.number(step.lamps_w, 'power_w')}</td>
              <td class="text-right">{about(step.air.day_c)}</td>
              <td class="text-right">{about(step.air.night_c)}</td>
              {#if envelope.humidified != null}<td class="text-right"
                  >{words.number(step.humidify_l_d * 1000, 'volume_ml')}</td
                >{/if}
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="mt-1 text-sm text-soft">
        Reckoned so: {words.say(season.why.rule)} ({season.why.source}).
      </p>
    {/if}
    <button
      class="quiet mt-2 border-line!"
      onclick={() =>
        bench.keep(setOptional(at, undefined, true), `${whose} keeps its air as typed`)}
      >Take the air as typed</button
    >
  </div>
{/if}
