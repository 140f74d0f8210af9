import { dayOf, type Day } from '$lib/core/reach/day.ts';
import type { ReachOverview } from '$lib/core/reach/overview.ts';
import { rhythmOf } from '$lib/core/reach/rhythm.ts';
import {
  catalogueSeries,
  type By,
  type Measure,
  type ReachChart,
  type ReachLine
} from '$lib/core/reach/series.ts';
import { allLanes } from '$lib/data/lanes.ts';
import { allPlaces, placeTitles } from '$lib/data/places.ts';
import { firstReachDay, hasReach, reachDaysSince, visitHoursSince } from '$lib/data/reach.ts';
import { localZone } from '$lib/localZone.ts';
import { titlesOf, updatesByTags } from '$lib/work/reach/names.ts';
import { reachWorker } from '$lib/workers/reach.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import { live } from '../live.svelte.ts';
import { plural } from '../messages.ts';
import { linkedUpdateLabel, sourceMessage } from './reachMessages.ts';

export const RANGES = [28, 90, 365, 730] as const;
export const rangeLabels: Record<number, string> = {
  28: 'Last 28 days',
  90: 'Last 90 days',
  365: 'Last year',
  730: 'Last two years'
};

const LABELS: Record<Measure, Record<'video' | 'post' | 'update', string>> = {
  reach: { video: 'Video views', post: 'Post visits', update: 'Responses to updates' },
  likes: { video: 'Likes of videos', post: 'Likes of posts', update: 'Likes of updates' },
  comments: {
    video: 'Comments on videos',
    post: 'Comments on posts',
    update: 'Replies to updates'
  }
};

/** What came of the whole catalogue, over some time. */
export class CatalogueReach {
  range = $state<number>(90);
  by = $state<By>('day');
  measure = $state<Measure>('reach');
  placeId = $state('');
  overview = $state.raw<ReachOverview | null>(null);
  sources = $state.raw<{ source: string; count: number }[]>([]);
  titles = $state.raw<ReadonlyMap<string, string>>(new Map());
  readonly today: Day = dayOf(Date.now(), localZone());
  readonly from = $derived(this.today - this.range + 1);

  readonly #has = live(() => hasReach);
  readonly #days = live(() => {
    const { from } = this;
    return () => reachDaysSince(from);
  });
  readonly #hours = live(() => {
    const from = this.today - Math.max(this.range, 60);
    return () => visitHoursSince(from);
  });
  readonly #first = live(() => firstReachDay);
  readonly #places = live(() => placeTitles);
  readonly #lanes = live(() => allLanes);
  readonly #linked = live(() => updatesByTags);
  readonly blogs = live(
    () => async () => (await allPlaces()).filter(({ kind }) => kind === 'blog')
  );

  readonly isRead = $derived(this.#has.value !== undefined && this.#days.value !== undefined);
  readonly isEmpty = $derived(this.#has.value === false);
  readonly places = $derived([...(this.#places.value ?? [])]);
  readonly rhythm = $derived(
    rhythmOf(
      (this.#hours.value ?? []).filter((h) => !this.placeId || h.placeId === this.placeId),
      localZone()
    )
  );
  readonly chart: ReachChart = $derived.by(() => {
    const days = (this.#days.value ?? []).filter(
      (day) => !this.placeId || day.placeId === this.placeId
    );
    const { from, by, measure } = this;
    // A log may reach beyond today: clocks of servers differ.
    const to = days.reduce((last, { day }) => Math.max(last, day), this.today);
    const span = { from, to, by };
    const lines = (['video', 'post', 'update'] as const)
      .map((kind): ReachLine => ({
        kind,
        label: LABELS[measure][kind],
        values: catalogueSeries(days, kind, measure, span)
      }))
      // Who shares no updates has no need of an axis for them.
      .filter(({ kind, values }) => kind !== 'update' || values.some((value) => value !== null));
    return { from, lines, marks: [] };
  });
  /** Since when there are figures, where that is later than what is shown. */
  readonly since = $derived(
    this.#first.value && this.#first.value > this.from ? this.#first.value : null
  );

  placeName = (id: string): string | undefined => this.#places.value?.get(id);
  laneName = (id: string): string | undefined =>
    this.#lanes.value?.find((lane) => lane.id === id)?.name;
  sourceName = (source: string): string =>
    sourceMessage(
      source,
      (id) => this.titles.get(id),
      (tags) => linkedUpdateLabel(this.#linked.value?.get(tags) ?? [])
    );
  readonly visitsIn = $derived(this.sources.reduce((sum, { count }) => sum + count, 0));
  readonly sourcesNote = $derived(plural(this.visitsIn, 'visit', 'visits'));

  constructor() {
    // After the first chart: what is found out of all items takes longer.
    $effect(() => {
      if (!this.#days.value || this.isEmpty) return;
      const { from } = this;
      let isOver = false;
      void attempt(async () => {
        const worker = reachWorker();
        const overview = await worker.overview(Date.now(), localZone());
        const sources = await worker.sources(from);
        const videos = sources.flatMap(({ source }) =>
          source.startsWith('video ') ? [source.slice(6)] : []
        );
        const ids = [...overview.better, ...overview.lost, ...overview.top].map(({ id }) => id);
        const titles = await titlesOf([...ids, ...videos]);
        if (isOver) return;
        this.overview = overview;
        this.sources = sources;
        this.titles = titles;
      });
      return () => (isOver = true);
    });
  }
}
