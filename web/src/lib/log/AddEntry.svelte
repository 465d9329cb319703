<script lang="ts">
  // Any fact by hand: what happened, where, how much; or the same of an entry that is to be corrected.
  import { untrack } from 'svelte';
  import type { About, BayRef, Entry, Fact } from '../api/client';
  import { keepPhoto } from '../bench/seen';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import CountField from '../fields/CountField.svelte';
  import DateField from '../fields/DateField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import MeaningNow from '../learn/MeaningNow.svelte';
  import { walk } from '../today/walk.svelte';
  import { newId, outbox } from './outbox.svelte';
  import {
    KINDS,
    kindOf,
    LOSSES,
    READINGS,
    readingOf,
    trayOf,
    type FactKind,
    type ReadingKind,
  } from './said';

  interface Props {
    /** The entry that is corrected. */
    corrects?: Entry | undefined;
    /** The tray that is thought of first. */
    tray?: string | undefined;
    onkept: () => void;
    oncancel: () => void;
  }
  const { corrects, tray: first, onkept, oncancel }: Props = $props();

  /** Jobs are noted where they are listed. */
  const kinds = Object.fromEntries(
    Object.entries(KINDS).filter(([kind]) => !['done', 'put_off', 'skipped'].includes(kind)),
  ) as Record<string, string>;

  // The form begins with what is given, and is the gardener's own from then on.
  const [given, thought] = untrack(() => [corrects, first]);
  const old = given?.fact ?? undefined;
  const own = old ? (Object.values(old)[0] as Record<string, unknown>) : {};
  const about = own.about as About | undefined;
  const oldReading = old && 'measured' in old ? readingOf(old.measured.reading) : undefined;
  const oldBay =
    (own.bay as BayRef | undefined) ??
    (typeof about === 'object' && 'bay' in about ? about.bay : undefined) ??
    (typeof about === 'object' && 'spot' in about ? about.spot.bay : undefined);

  let kind: FactKind = $state(old ? kindOf(old) : 'noted');
  let on = $state(given?.on ?? walk.on);
  let tray = $state((given && trayOf(given)) ?? thought ?? bench.draft?.trays[0]?.id ?? '');
  let into = $state((own.into as string | undefined) ?? bench.draft?.trays[0]?.id ?? '');
  let bay = $state(oldBay ? `${oldBay.place}/${oldBay.tier}` : '');
  let where: 'tray' | 'bay' | 'room' = $state(
    oldBay ? 'bay' : about === 'room' || (!given && !thought) ? 'room' : 'tray',
  );
  let count = $state((own.count as number | undefined) ?? 0);
  let plants = $state(((own.plants ?? own.left) as number | undefined) ?? 1);
  let waterMl = $state(own.water_ml as number | undefined);
  let strength = $state((own.strength as number | undefined) ?? 0.5);
  let heightMm = $state((own.height_mm as number | undefined) ?? 250);
  let hoursH = $state((own.hours_h as number | undefined) ?? 14);
  let running = $state(own.on === true ? 'on' : 'off');
  let dome = $state((own.dome as string | undefined) ?? 'vented');
  let outdoors = $state(own.outdoors === false ? 'in' : 'out');
  let why = $state((own.why as keyof typeof LOSSES | undefined) ?? 'damping_off');
  let reading: ReadingKind = $state(oldReading?.[0] ?? 'soil_c');
  let value = $state(oldReading?.[1]);
  let text = $state(given?.text ?? '');
  let photo: File | undefined = $state.raw();
  let problem = $state('');

  const trays = $derived(
    Object.fromEntries((bench.draft?.trays ?? []).map((t) => [t.id, t.name])) as Record<
      string,
      string
    >,
  );
  const bays = $derived(
    Object.fromEntries(
      bench.places.flatMap((place) =>
        place.tiers.map((tier) => [
          `${place.id}/${tier.id}`,
          place.tiers.length === 1 ? place.name : `${place.name}, ${tier.name}`,
        ]),
      ),
    ) as Record<string, string>,
  );
  const cells = $derived.by(() => {
    const its = bench.draft?.trays.find((t) => t.id === tray);
    const format = bench.draft?.tray_formats.find((f) => f.id === its?.format);
    return format ? format.columns * format.rows : 1000;
  });
  const atBay = $derived(['lamp_set', 'mat_switched', 'moved'].includes(kind));
  const loose = $derived(kind === 'measured' || kind === 'noted');
  const ofTray = $derived(
    loose ? where === 'tray' : kind !== 'lamp_set' && kind !== 'mat_switched',
  );

  function bayRef(): BayRef {
    const [place, tier] = (bay || Object.keys(bays)[0] || '/').split('/');
    return { place: place!, tier: tier! };
  }

  function placeOf(): About {
    if (where === 'tray') return { tray };
    if (where === 'room') return 'room';
    // A spot stays where it was measured while its shelf does.
    const spot = typeof about === 'object' && 'spot' in about ? about.spot : undefined;
    return spot && `${spot.bay.place}/${spot.bay.tier}` === (bay || '')
      ? { spot }
      : { bay: bayRef() };
  }

  function fact(): Fact | undefined {
    switch (kind) {
      case 'sown':
        return { sown: { tray } };
      case 'shown': {
        const sowing = own.sowing as string | undefined;
        return {
          shown: { tray, count, of: (own.of as number) ?? cells, ...(sowing ? { sowing } : {}) },
        };
      }
      case 'thinned':
        return { thinned: { tray, left: plants } };
      case 'pricked_out':
        return { pricked_out: { tray, into, plants } };
      case 'potted_on':
        return { potted_on: { tray, into, plants } };
      case 'moved':
        return { moved: { tray, bay: bayRef() } };
      case 'watered':
        return { watered: { tray, ...(waterMl === undefined ? {} : { water_ml: waterMl }) } };
      case 'fed':
        return { fed: { tray, strength } };
      case 'lamp_set':
        return { lamp_set: { bay: bayRef(), height_mm: heightMm, hours_h: hoursH } };
      case 'mat_switched':
        return { mat_switched: { bay: bayRef(), on: running === 'on' } };
      case 'dome':
        return { dome: { tray, dome: dome as 'on' | 'vented' | 'off' } };
      case 'hardening':
        return { hardening: { tray, outdoors: outdoors === 'out' } };
      case 'planted_out':
        return { planted_out: { tray, plants } };
      case 'lost':
        return { lost: { tray, plants, why } };
      case 'measured':
        if (value === undefined) return undefined;
        return { measured: { about: placeOf(), reading: { [reading]: value } as never } };
      default:
        return { noted: { about: placeOf() } };
    }
  }

  /** The reading as it would be noted. */
  const entry = $derived.by(() => {
    const told = kind === 'measured' ? fact() : undefined;
    return told && walk.entry(told, { on, ...(on === walk.on ? {} : { at_h: null }) });
  });

  const PHOTO_MB = 16;

  async function keep() {
    const told = fact();
    problem = '';
    if (!told) return void (problem = 'Type what the instrument shows.');
    if (kind === 'noted' && !text.trim() && !photo)
      return void (problem = 'Write a line, or take a photo.');
    if (photo && photo.size > PHOTO_MB * 2 ** 20)
      return void (problem = `This photo has ${Math.round(photo.size / 2 ** 20)} MB; ${PHOTO_MB} is the most.`);
    const plan = bench.view?.id;
    if (plan === undefined) return;
    const name = photo ? newId() : (corrects?.photo ?? undefined);
    if (photo) await keepPhoto(name!, photo);
    const more: Partial<Entry> = {
      on,
      ...(text.trim() ? { text: text.trim() } : {}),
      ...(name ? { photo: name } : {}),
      ...(corrects ? { corrects: corrects.id } : {}),
      ...(on === walk.on ? {} : { at_h: null }),
    };
    outbox.note(plan, [walk.entry(told, more)]);
    onkept();
  }
</script>

<form
  class="flex flex-col gap-2"
  onsubmit={(event) => {
    event.preventDefault();
    void keep();
  }}
>
  <h2 class="text-lg">{corrects ? 'Correct this entry' : 'Note or measure'}</h2>
  <div class="grid grid-cols-2 gap-2">
    <ChoiceField
      label="What"
      value={kind}
      choices={kinds}
      onset={(to: string) => (kind = to as FactKind)}
    />
    <DateField label="Day" value={on} onset={(day: string | undefined) => day && (on = day)} />
  </div>
  {#if loose}
    <ChoiceField
      label="Where"
      value={where}
      choices={{ room: 'the room', bay: 'a shelf', tray: 'a tray' }}
      onset={(to: string) => (where = to as typeof where)}
    />
  {/if}
  {#if ofTray}
    <ChoiceField label="Tray" value={tray} choices={trays} onset={(to: string) => (tray = to)} />
  {/if}
  {#if kind === 'pricked_out' || kind === 'potted_on'}
    <ChoiceField label="Into" value={into} choices={trays} onset={(to: string) => (into = to)} />
  {/if}
  {#if atBay || (loose && where === 'bay')}
    <ChoiceField
      label={kind === 'moved' ? 'To' : 'Shelf'}
      value={bay || Object.keys(bays)[0] || ''}
      choices={bays}
      onset={(to: string) => (bay = to)}
    />
  {/if}
  {#if kind === 'shown'}
    <CountField
      label="Cells with something up"
      value={count}
      most={cells}
      onset={(n) => (count = n)}
    />
  {:else if ['thinned', 'pricked_out', 'potted_on', 'planted_out', 'lost'].includes(kind)}
    <CountField
      label={kind === 'thinned' ? 'Plants left' : 'Plants'}
      value={plants}
      least={kind === 'thinned' ? 0 : 1}
      most={10_000}
      onset={(n) => (plants = n)}
    />
  {:else if kind === 'watered'}
    <NumberField
      label="Water for the tray"
      value={waterMl}
      quantity="volume_ml"
      min={0}
      max={50_000}
      none="not measured"
      onclear={() => (waterMl = undefined)}
      onset={(ml) => (waterMl = ml)}
    />
  {:else if kind === 'fed'}
    <NumberField
      label="Strength against the label"
      value={strength}
      quantity="share"
      min={0}
      max={2}
      onset={(share) => (strength = share)}
    />
  {:else if kind === 'lamp_set'}
    <div class="grid grid-cols-2 gap-2">
      <NumberField
        label="Lamps above the shelf"
        value={heightMm}
        quantity="length_mm"
        min={0}
        max={5000}
        onset={(mm) => (heightMm = mm)}
      />
      <NumberField
        label="Hours a day"
        value={hoursH}
        quantity="hours"
        min={0}
        max={24}
        onset={(h) => (hoursH = h)}
      />
    </div>
  {:else if kind === 'mat_switched'}
    <ChoiceField
      label="The mat is now"
      value={running}
      choices={{ on: 'on', off: 'off' }}
      onset={(to: string) => (running = to)}
    />
  {:else if kind === 'dome'}
    <ChoiceField
      label="The dome is now"
      value={dome}
      choices={{ on: 'on', vented: 'vented', off: 'off' }}
      onset={(to: string) => (dome = to)}
    />
  {:else if kind === 'hardening'}
    <ChoiceField
      label="The tray is now"
      value={outdoors}
      choices={{ out: 'outdoors', in: 'back in' }}
      onset={(to: string) => (outdoors = to)}
    />
  {:else if kind === 'measured'}
    <div class="grid grid-cols-2 gap-2">
      <ChoiceField
        label="Instrument"
        value={reading}
        choices={Object.fromEntries(
          Object.entries(READINGS).map(([id, { name }]) => [id, name]),
        ) as Record<string, string>}
        onset={(to: string) => {
          reading = to as ReadingKind;
          value = undefined;
        }}
      />
      <NumberField
        label="It shows"
        {value}
        quantity={READINGS[reading].quantity}
        none=""
        onclear={() => (value = undefined)}
        onset={(to) => (value = to)}
      />
    </div>
    <MeaningNow {entry} />
  {/if}
  {#if kind === 'lost'}
    <ChoiceField
      label="Why"
      value={why}
      choices={LOSSES}
      onset={(to: string) => (why = to as keyof typeof LOSSES)}
    />
  {/if}
  <label class="block text-sm text-soft"
    >In your own words
    <textarea
      rows="2"
      maxlength="2000"
      class="mt-0.5 w-full rounded-lg border-line bg-raised px-2 py-1.5 text-base text-ink"
      bind:value={text}
    ></textarea></label
  >
  <label class="quiet min-h-11! justify-center border-line!"
    >{photo ? photo.name : corrects?.photo ? 'Another photo' : 'Add a photo'}
    <input
      type="file"
      accept="image/jpeg,image/png,image/webp"
      capture="environment"
      class="sr-only"
      aria-label="Photo"
      onchange={(event) => (photo = event.currentTarget.files?.[0])}
    /></label
  >
  {#if photo}<p class="text-sm text-soft">Where it was taken is removed from it.</p>{/if}
  {#if problem}<p class="text-sm text-wine" role="alert">{problem}</p>{/if}
  <div class="flex gap-2">
    <button class="quiet min-h-11! grow justify-center border-coral! font-semibold" type="submit"
      >{corrects ? 'Keep the correction' : 'Keep'}</button
    >
    <button class="quiet min-h-11!" type="button" onclick={oncancel}>Cancel</button>
  </div>
</form>
