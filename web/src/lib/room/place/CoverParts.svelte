<script lang="ts">
  // What covers a spot outdoors, how it is kept, and what air that makes month by month.
  import type { ColdFrame, Cover, Place } from '../../api/client';
  import { replace, setOptional } from '../../bench/edits';
  import CheckField from '../../fields/CheckField.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import { outdoors } from '../../setup/outdoors.svelte';
  import { bench } from '../../bench/workbench.svelte';

  const { place, frame, path }: { place: Place; frame: ColdFrame; path: string } = $props();

  const words = $derived(bench.words);
  /** What is meant where the plan says no more: core's Cover::USUAL. */
  const usual: Cover = { shape: 'frame', glazing: 'single_glass', opens: 'when_warm' };
  const cover = $derived(frame.cover ?? usual);
  const at = $derived(`${path}/kind/cold_frame`);

  const covers = {
    open: 'Nothing: an open spot',
    frame: 'A cold frame',
    greenhouse: 'A greenhouse',
    tunnel: 'Hoops over a bed',
    jugs: 'Clear jugs, caps off',
  };
  const glazings = {
    single_glass: 'One pane of glass',
    double_glass: 'Two panes of glass',
    twin_wall: 'Twin-wall sheet',
    film: 'Film',
    fleece: 'Fleece',
  };
  const openings = {
    never: 'never: it stays shut',
    by_day: 'by day',
    when_warm: 'when it is warm',
  };

  function keep(change: Partial<Cover>, label: string) {
    bench.keep(setOptional(`${at}/cover`, { ...cover, ...change }, frame.cover != null), label);
  }

  function setShape(shape: keyof typeof covers) {
    const label = `${place.name}: ${covers[shape]}`;
    if (shape === 'open') {
      bench.keep(
        [
          replace(`${at}/glazed`, false),
          ...setOptional(`${at}/cover`, undefined, frame.cover != null),
        ],
        label,
      );
      return;
    }
    const film = shape === 'jugs' || shape === 'tunnel';
    const begun: Cover = {
      shape,
      glazing: film ? 'film' : 'single_glass',
      opens: shape === 'jugs' ? 'never' : 'when_warm',
    };
    bench.keep(
      [replace(`${at}/glazed`, true), ...setOptional(`${at}/cover`, begun, frame.cover != null)],
      label,
    );
  }

  const asked = outdoors();
  const plan = $derived(bench.view?.id);
  const revision = $derived(bench.view?.revision);
  $effect(() => {
    void revision;
    if (plan !== undefined && frame.glazed) void asked.ask(plan);
  });
  /** The months of the season, with what it is outdoors and under the cover. */
  const months = $derived.by(() => {
    const own = asked.answer?.covered.find((year) => year.place === place.id);
    const season = bench.draft?.season;
    if (!own || !season) return [];
    const [first, last] = [season.from, season.to].map((day) => Number(day.slice(5, 7)));
    const within = (month: number) =>
      first! <= last! ? month >= first! && month <= last! : month >= first! || month <= last!;
    return asked.answer!.months.flatMap((out, i) =>
      within(out.month) ? [{ out, own: own.months[i]! }] : [],
    );
  });
  const celsius = (c: number) => words.number(c, 'temperature_c');
  /** No model of a garden is surer than that. */
  const about = (c: number) => celsius(Math.round(c) || 0);
</script>

<section aria-label="Cover">
  <h3>What covers it</h3>
  <div class="mt-1 grid grid-cols-2 items-end gap-2">
    <ChoiceField
      label="Cover"
      value={frame.glazed ? cover.shape : 'open'}
      choices={covers}
      onset={setShape}
    />
    {#if frame.glazed}
      <ChoiceField
        label="Lets the sun in through"
        value={cover.glazing}
        choices={glazings}
        onset={(glazing) => keep({ glazing }, `${place.name}: ${glazings[glazing]}`)}
      />
      <ChoiceField
        label="Opened"
        value={cover.opens}
        choices={openings}
        onset={(opens) => keep({ opens }, `${place.name} is opened ${openings[opens]}`)}
      />
      <NumberField
        label="Sun that trees and houses leave it"
        value={cover.sun_share ?? undefined}
        quantity="share"
        none="all of it"
        onset={(share) =>
          keep(
            { sun_share: share },
            `${place.name} gets ${words.number(share, 'share')} of the sun`,
          )}
        onclear={() => keep({ sun_share: undefined }, `${place.name} gets all of the sun`)}
      />
      <NumberField
        label="Heated to"
        value={cover.heated_c ?? undefined}
        quantity="temperature_c"
        none="none"
        onset={(c) => keep({ heated_c: c }, `${place.name} heated to ${celsius(c)}`)}
        onclear={() => keep({ heated_c: undefined }, `${place.name} is not heated`)}
      />
      <NumberField
        label="Water drums, litres"
        value={cover.water_l ?? 0}
        quantity="plain"
        onset={(l) => keep({ water_l: l }, `${words.bare(l, 'plain')} l of water in ${place.name}`)}
      />
    {/if}
  </div>
  {#if frame.glazed}
    <CheckField
      label="A mat of straw or a blanket over it by night"
      value={cover.night_mat ?? false}
      onset={(night_mat) => keep({ night_mat }, `night cover of ${place.name}`)}
    />
  {/if}
  {#if asked.problem}<p class="text-wine" role="alert">{asked.problem}</p>{/if}
  {#if months.length > 0}
    <table class="mt-2 w-full text-right text-sm tabular-nums" data-testid="cover-months">
      <caption class="text-left text-soft"
        >Coolest, mean and warmest of the air; outdoors {words.say(asked.answer!.source)}</caption
      >
      <thead class="text-soft">
        <tr>
          <th class="text-left font-normal">Month</th>
          <th class="font-normal">night outdoors</th>
          <th class="font-normal">night in it</th>
          <th class="font-normal">clear night</th>
          <th class="font-normal">day and night</th>
          <th class="font-normal">clear day</th>
        </tr>
      </thead>
      <tbody>
        {#each months as { out, own } (out.month)}
          <tr class="border-t">
            <th class="text-left font-normal" scope="row">{words.month(out.month)}</th>
            <td>{about(out.night_c)}</td>
            <td class="font-semibold">{about(own.least_c)}</td>
            <td>{about(own.clear_least_c)}</td>
            <td>{about(own.mean_c)}</td>
            <td>{about(own.clear_most_c)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</section>
