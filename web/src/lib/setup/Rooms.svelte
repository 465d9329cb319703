<script lang="ts">
  // The air of the room through the season, and other rooms in which trays stand.
  import type { OtherRoom, Site } from '../api/client';
  import { replace, setOptional } from '../bench/edits';
  import NameField from '../fields/NameField.svelte';
  import { bench } from '../bench/workbench.svelte';
  import AirFields from './AirFields.svelte';
  import LampsWarm from './LampsWarm.svelte';
  import { litRooms } from './outdoors.svelte';

  const { site }: { site: Site } = $props();

  const rooms = $derived(site.rooms ?? []);

  const asked = litRooms();
  const plan = $derived(bench.view?.id);
  const revision = $derived(bench.view?.revision);
  const sized = $derived(site.envelope != null || rooms.some((room) => room.size != null));
  $effect(() => {
    void revision;
    if (plan !== undefined && sized) void asked.ask(plan);
  });
  const lit = (id: string | undefined) =>
    asked.answer?.find((season) => (season.room ?? undefined) === id);

  /** The first identifier that no room has. */
  function free(): string {
    let n = rooms.length + 1;
    while (rooms.some((room) => room.id === `room-${n}`)) n += 1;
    return `room-${n}`;
  }

  function add() {
    const { day_c, night_c } = site.air;
    const room: OtherRoom = { id: free(), name: 'Another room', air: { day_c, night_c } };
    bench.keep(
      setOptional('/site/rooms', [...rooms, room], site.rooms !== undefined),
      'added a room',
    );
  }

  /** What stands there comes back into the room that is drawn. */
  function remove(room: OtherRoom) {
    const left = rooms.filter((other) => other.id !== room.id);
    const places = bench.draft!.places.flatMap((place, i) =>
      place.in_room === room.id ? setOptional(`/places/${i}/in_room`, undefined, true) : [],
    );
    bench.keep(
      [...places, ...setOptional('/site/rooms', left.length > 0 ? left : undefined, true)],
      `removed ${room.name}`,
    );
  }
</script>

<p class="mt-1 text-sm text-soft">
  The heating goes off in April, an attic is cold in March: say so, and dates and advice follow.
  Each place says in its sheet which room it stands in.
</p>
{#if asked.problem}<p class="text-wine" role="alert">{asked.problem}</p>{/if}
<section class="mt-2" aria-label="Air of the room through the season">
  <h3>The room drawn here</h3>
  <AirFields path="/site" whose="the room" air={site.air} changes={site.air_from ?? undefined} />
  <LampsWarm {site} whose="the room" season={lit(undefined)} />
</section>
{#each rooms as room, i (room.id)}
  <section class="mt-3 border-t pt-2" aria-label={room.name}>
    <div class="mb-2 flex items-end justify-between gap-2">
      <NameField
        label="Room"
        value={room.name}
        onset={(name) =>
          bench.keep([replace(`/site/rooms/${i}/name`, name)], `renamed ${room.name} to ${name}`)}
      />
      <button class="quiet border-line!" onclick={() => remove(room)}>Remove this room</button>
    </div>
    <AirFields
      path="/site/rooms/{i}"
      whose={room.name}
      air={room.air}
      changes={room.air_from ?? undefined}
    />
    <LampsWarm
      {site}
      other={{ room, path: `/site/rooms/${i}` }}
      whose={room.name}
      season={lit(room.id)}
    />
  </section>
{/each}
<button class="quiet mt-3 self-start border-line!" onclick={add}>Another room</button>
