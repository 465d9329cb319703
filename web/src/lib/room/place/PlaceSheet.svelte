<script lang="ts">
  // One place as a whole: its sizes, what it is made of, what it carries, how it stands.
  import type { Place, PlaceOnDay } from '../../api/client';
  import { placePath, setOptional } from '../../bench/edits';
  import { again, movePlace, takeOut } from '../build/actions';
  import { bench } from '../../bench/workbench.svelte';
  import CheckField from '../../fields/CheckField.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import FindingCard from '../../finding/FindingCard.svelte';
  import NameField from '../../fields/NameField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import AsMeasured from '../../learn/AsMeasured.svelte';
  import Airing from './Airing.svelte';
  import { isClosed } from './airing';
  import ChamberParts from './ChamberParts.svelte';
  import CoverParts from './CoverParts.svelte';
  import { figuresOf } from './figures';
  import Settings from './Settings.svelte';
  import Vents from './Vents.svelte';
  import WholeGear from './WholeGear.svelte';
  import WhyNote from '../../finding/WhyNote.svelte';

  const { place, onDay }: { place: Place; onDay: PlaceOnDay | undefined } = $props();

  const words = $derived(bench.words);
  const path = $derived(placePath(bench.draft!, place.id));
  const kind = $derived(place.kind);
  const findings = $derived(bench.findingsOn(place.id));
  /** A sill, a table and a frame have the one deck. */
  const takesMoreDecks = $derived(!('window' in kind || 'cold_frame' in kind || 'surface' in kind));
  /** Sills, floors and frames do not tip. */
  const stands = $derived('rack' in kind || 'bench' in kind || 'chamber' in kind);

  const materials: Record<Place['deck']['material'], string> = {
    wire: 'Wire',
    chipboard: 'Bare chipboard',
    sealed_chipboard: 'Sealed chipboard',
    wood: 'Wood',
    plastic: 'Plastic',
    metal: 'Metal',
    stone: 'Stone',
  };
  const feet = { plain: 'Bare posts', levelling: 'Levelling feet', castors: 'Castors' };
  const faces = {
    near: 'the near wall',
    far: 'the far wall',
    left: 'the left',
    right: 'the right',
  };
  const passage = {
    upright: 'goes through the door upright',
    tilted: 'goes through the door on its side',
    folded: 'goes through the door folded',
    in_pieces: 'must be put together in the room',
  };

  /** What was measured of the air around it. */
  const airs = $derived(
    (
      [
        ['air_day_k', 'by day'],
        ['air_night_k', 'by night'],
      ] as const
    ).flatMap(([field, when]) => {
      const learned = place[field];
      return learned ? [{ field, learned, when }] : [];
    }),
  );

  /** The other rooms there are. */
  const rooms = $derived(bench.draft?.site.rooms ?? []);

  const figures = $derived(figuresOf(place, path));
  const at = $derived(figures.at);
  const number = $derived(figures.number);
  const optional = $derived(figures.optional);
  const sizes = $derived([
    number('Width', 'width_mm', place.width_mm),
    number('Depth', 'depth_mm', place.depth_mm),
    number('Height', 'height_mm', place.height_mm),
  ]);
  const pitched = $derived.by(() => {
    for (const name of ['rack', 'wall_shelf', 'closet', 'chamber'] as const) {
      const own = (kind as Record<string, { pitch_mm: number } | undefined>)[name];
      if (own) return number('Clip holes every', `kind/${name}/pitch_mm`, own.pitch_mm);
    }
    return undefined;
  });

  function stand() {
    bench.keep(
      [{ op: 'add', path: `${path}/spot`, value: { x_mm: 0, y_mm: 0, faces: 'near' } }],
      `gave ${place.name} a spot on the floor`,
    );
  }
</script>

<div class="flex items-start justify-between gap-2">
  <div class="grow">
    <h2 class="text-2xl">{place.name}</h2>
    {#if onDay?.through_door}<p class="text-soft">{passage[onDay.through_door]}</p>{/if}
  </div>
  <button class="quiet" aria-label="Close the sheet" onclick={() => bench.pick(undefined)}
    >Close <kbd>Esc</kbd></button
  >
</div>

<div class="mt-3 flex flex-col gap-4">
  {#each findings as finding, i (finding.id)}
    <FindingCard {finding} first={i === 0} />
  {/each}

  <div class="flex flex-wrap gap-1.5" role="group" aria-label="What to do with {place.name}">
    <button class="quiet border-line!" onclick={() => void again()}>Add another <kbd>a</kbd></button
    >
    {#if takesMoreDecks}
      <button
        class="quiet border-line!"
        onclick={() => void bench.edit({ add_tier: { place: place.id } })}>Add a shelf</button
      >
    {/if}
    <button class="quiet border-line!" onclick={() => void movePlace(place.id, -1)}
      >Move left</button
    >
    <button class="quiet border-line!" onclick={() => void movePlace(place.id, 1)}
      >Move right</button
    >
    <button class="quiet border-line!" onclick={() => void takeOut()}>Remove <kbd>Del</kbd></button>
  </div>

  <section aria-label="Sizes">
    <NameField
      label="Name"
      value={place.name}
      onset={(name) => bench.keep(at('name', name), `renamed ${place.name} to ${name}`)}
    />
    <div class="mt-2 grid grid-cols-3 gap-2">
      {#each sizes as field (field.label)}<NumberField {...field} />{/each}
      {#if pitched}<NumberField {...pitched} />{/if}
      <NumberField {...number('Empty', 'empty_kg', place.empty_kg, 'mass_kg')} />
      <NumberField {...optional('Safe load in all', 'rating_kg', place.rating_kg)} />
    </div>
  </section>

  {#if rooms.length > 0 && !('cold_frame' in kind)}
    <ChoiceField
      label="Stands in"
      value={place.in_room ?? ''}
      choices={{
        '': 'the room drawn here',
        ...Object.fromEntries(rooms.map((r) => [r.id, r.name])),
      }}
      onset={(room) =>
        bench.keep(
          setOptional(`${path}/in_room`, room || undefined, place.in_room != null),
          `${place.name} stands in ${rooms.find((r) => r.id === room)?.name ?? 'the room'}`,
        )}
    />
  {/if}

  {#each airs as { field, learned, when } (field)}
    <AsMeasured
      {learned}
      quantity="difference_k"
      before="The air around it is taken as"
      after="{learned.value < 0 ? 'off the room’s' : 'over the room’s'} {when}"
      back="As the room’s"
      onback={() =>
        bench.keep(
          setOptional(`${path}/${field}`, undefined, true),
          `the air around ${place.name} as the room’s ${when}`,
        )}
    />
  {/each}

  {#if 'cold_frame' in kind}
    <CoverParts {place} frame={kind.cold_frame} {path} />
  {:else}
    <section aria-label="Lamps and mats">
      <h3 class="mb-1">Lamps and mats on all its shelves</h3>
      <WholeGear {place} />
    </section>
  {/if}
  <Settings {place} />
  <CheckField
    label="Trays may stick out at its front"
    value={place.overhang_accepted ?? false}
    onset={(yes) =>
      bench.keep(
        setOptional(
          `${path}/overhang_accepted`,
          yes || undefined,
          place.overhang_accepted !== undefined,
        ),
        `trays of ${place.name} ${yes ? 'may stick out' : 'do not stick out'}`,
      )}
  />

  <section aria-label="Shelf boards">
    <h3>Shelf boards</h3>
    <div class="mt-1 grid grid-cols-3 items-end gap-2">
      <ChoiceField
        label="Made of"
        value={place.deck.material}
        choices={materials}
        onset={(material) =>
          bench.keep(
            at('deck/material', material),
            `shelves of ${place.name}: ${materials[material]}`,
          )}
      />
      <NumberField {...number('Thickness', 'deck/thickness_mm', place.deck.thickness_mm)} />
      <NumberField {...optional('Safe load per shelf', 'deck/rating_kg', place.deck.rating_kg)} />
    </div>
  </section>

  {#if 'rack' in kind}
    <section aria-label="How it stands">
      <h3>How it stands</h3>
      <CheckField
        label="Braced, or with a back"
        value={kind.rack.braced}
        onset={(yes) => bench.keep(at('kind/rack/braced', yes), `bracing of ${place.name}`)}
      />
      <CheckField
        label="Fixed to the wall"
        value={kind.rack.wall_fixed}
        onset={(yes) => bench.keep(at('kind/rack/wall_fixed', yes), `wall fixing of ${place.name}`)}
      />
      <div class="grid grid-cols-2 items-end gap-2">
        <ChoiceField
          label="Feet"
          value={kind.rack.feet}
          choices={feet}
          onset={(to) => bench.keep(at('kind/rack/feet', to), `feet of ${place.name}: ${feet[to]}`)}
        />
        <NumberField {...number('Posts', 'kind/rack/post_mm', kind.rack.post_mm)} />
      </div>
    </section>
  {:else if 'bench' in kind}
    <CheckField
      label="Folds, or its legs come off"
      value={kind.bench.folds}
      onset={(yes) => bench.keep(at('kind/bench/folds', yes), `folding of ${place.name}`)}
    />
  {:else if 'closet' in kind}
    <CheckField
      label="Doors kept shut, to hold the warmth of the lamps"
      value={kind.closet.shut ?? false}
      onset={(yes) =>
        bench.keep(
          setOptional(`${path}/kind/closet/shut`, yes || undefined, kind.closet.shut !== undefined),
          `${yes ? 'shut' : 'opened'} ${place.name}`,
        )}
    />
    {#if kind.closet.shut}
      <div>
        <Vents
          vents={kind.closet.vents}
          path="{path}/kind/closet/vents"
          name={place.name}
          new_at_mm={place.height_mm - 50}
        />
      </div>
    {/if}
  {:else if 'window' in kind}
    <section aria-label="Pane">
      <h3>Pane</h3>
      <div class="mt-1 grid grid-cols-3 gap-2">
        <NumberField
          {...number('Width of glass', 'kind/window/pane_width_mm', kind.window.pane_width_mm)}
        />
        <NumberField
          {...number('Height of glass', 'kind/window/pane_height_mm', kind.window.pane_height_mm)}
        />
        <NumberField
          {...number(
            'Window faces',
            'kind/window/azimuth_deg',
            kind.window.azimuth_deg,
            'angle_deg',
          )}
        />
        <NumberField
          {...number(
            'Shaded up to',
            'kind/window/obstruction_deg',
            kind.window.obstruction_deg,
            'angle_deg',
          )}
        />
      </div>
      <p class="text-sm text-soft">0° north, 90° east, 180° south, 270° west</p>
    </section>
  {:else if 'chamber' in kind}
    <ChamberParts {place} chamber={kind.chamber} {path} />
  {/if}

  {#if isClosed(place)}
    <Airing {place} {path} />
  {/if}

  {#if onDay && stands}
    <section aria-label="Load">
      <div class="flex items-baseline gap-2">
        <h3>Load on this day</h3>
        <WhyNote of="lean" why={onDay.load.why} />
      </div>
      <dl class="grid grid-cols-2 gap-2" data-testid="place-load">
        {#each [['trays, while watered', words.number(onDay.load.watered_kg, 'mass_kg') + (place.rating_kg == null ? '' : ` of ${words.number(place.rating_kg, 'mass_kg')}`)], ['centre of mass', `${words.number(onDay.load.centre_mm, 'length_mm')} up`], ['height to depth', words.bare(onDay.load.slenderness, 'plain')], ['tips at a lean of', words.number(onDay.load.tips_at_deg, 'angle_deg')]] as [name, value] (name)}
          <div>
            <dt class="text-sm text-soft">{name}</dt>
            <dd class="font-semibold">{value}</dd>
          </div>
        {/each}
      </dl>
    </section>
  {/if}

  {#if place.spot}
    {@const spot = place.spot}
    <section aria-label="On the floor">
      <h3>On the floor</h3>
      <div class="mt-1 grid grid-cols-3 items-end gap-2">
        <NumberField {...number('From the left', 'spot/x_mm', spot.x_mm)} />
        <NumberField {...number('From the near wall', 'spot/y_mm', spot.y_mm)} />
        <ChoiceField
          label="Faces"
          value={spot.faces}
          choices={faces}
          onset={(to) => bench.keep(at('spot/faces', to), `turned ${place.name} to ${faces[to]}`)}
        />
      </div>
      {#if onDay?.free_in_front_mm != null}
        <p class="mt-1 text-sm text-soft">
          {words.number(onDay.free_in_front_mm, 'length_mm')} of floor are free in front
        </p>
      {/if}
    </section>
  {:else if onDay?.through_door}
    <button class="quiet self-start border-line!" onclick={stand}>Choose a spot on the floor</button
    >
  {/if}

  <p class="border-t pt-2 text-sm text-soft"><b>Loads.</b> {bench.assessment?.load_caution}</p>
</div>
