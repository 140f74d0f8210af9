import { dayOf, type Day } from '$lib/core/reach/day.ts';
import { fallsOf } from '$lib/core/reach/curve.ts';
import type { Counter } from '$lib/core/reach/figures.ts';
import { totalsOf, visitsBySource, type ReachRow } from '$lib/core/reach/reachRow.ts';
import {
  curvesOf,
  seriesOf,
  type By,
  type Measure,
  type ReachChart,
  type ReachLine
} from '$lib/core/reach/series.ts';
import { linkTagsOf } from '$lib/core/reach/visitSource.ts';
import { localZone } from '$lib/localZone.ts';
import { titlesOf, updatesByTags } from '$lib/work/reach/names.ts';
import { readTwinReach, type HalfReach, type UpdateReach } from '$lib/work/reach/twinReach.ts';
import { live } from '../live.svelte.ts';
import { formatDate, plural } from '../messages.ts';
import { counterLabels, linkedUpdateLabel, sourceMessage } from './reachMessages.ts';

/** Days that are shown; 0 for all. */
export type Span = 0 | 28 | 90;

/** A counter that went down at a place. */
export interface ToldFall {
  title: string;
  counter: string;
  on: Day;
  from: number;
  to: number;
}

/** What came of one twin. */
export class TwinReachView {
  readonly #id: () => string;
  span = $state<Span>(0);
  by = $state<By>('day');
  measure = $state<Measure>('reach');
  readonly today: Day = dayOf(Date.now(), localZone());

  constructor(id: () => string) {
    this.#id = id;
  }

  readonly #found = live(() => {
    const id = this.#id();
    return () => readTwinReach(id);
  });
  readonly #linked = live(() => updatesByTags);
  readonly isRead = $derived(this.#found.value !== undefined);
  readonly twin = $derived(this.#found.value ?? null);
  readonly halves: HalfReach[] = $derived([
    ...(this.twin?.video ? [this.twin.video] : []),
    ...(this.twin?.posts ?? [])
  ]);
  readonly rows: ReachRow[] = $derived([
    ...this.halves.map(({ row }) => row),
    ...(this.twin?.updates ?? []).map(({ row }) => row)
  ]);

  /** The first day of which anything is known, or today. */
  readonly #first: Day = $derived(
    Math.min(
      this.today,
      ...this.halves.flatMap((half) =>
        curvesOf(half.row, this.measure).map(({ days }) => {
          const known = days[0] ?? this.today;
          const published = publishedDay(half);
          return published !== null && known - published <= 7 ? Math.min(published, known) : known;
        })
      )
    )
  );
  /** Today, or what is known beyond it: clocks of servers differ. */
  readonly #last: Day = $derived(
    Math.max(
      this.today,
      ...this.rows.flatMap((row) => curvesOf(row, this.measure).map(({ until }) => until))
    )
  );
  /** Two weeks at least: a single day is no axis. */
  readonly from: Day = $derived(
    this.span > 0 ? this.today - this.span + 1 : Math.min(this.#first, this.today - 13)
  );
  /** Moments by their numbers. */
  readonly moments = $derived(
    (this.twin?.moments ?? []).map((moment, i) => ({
      ...moment,
      number: i + 1,
      day: dayOf(moment.at, localZone())
    }))
  );
  readonly chart: ReachChart = $derived.by(() => {
    const { from, by, measure } = this;
    const span = { from, to: this.#last, by };
    const lines = this.halves.map((half): ReachLine => ({
      kind: half.item.kind === 'video' ? 'video' : 'post',
      label:
        measure === 'reach'
          ? half.item.kind === 'video'
            ? 'Video views'
            : this.#postLabel(half)
          : `${counterLabels[measure]} ${half.item.kind === 'video' ? 'of the video' : 'of the post'}`,
      values: seriesOf(curvesOf(half.row, measure), publishedDay(half), span)
    }));
    const updates = this.twin?.updates ?? [];
    const told = updates.flatMap(({ row, at }) => {
      const curves = curvesOf(row, measure);
      return curves.length > 0 ? [seriesOf(curves, dayOf(at, localZone()), span)] : [];
    });
    if (told.length > 0)
      lines.push({
        kind: 'update',
        label: measure === 'reach' ? 'Responses to updates' : 'Updates',
        values: (told[0] ?? []).map((_, i) =>
          told.reduce<number | null>((sum, values) => {
            const value = values[i] ?? null;
            return value === null ? sum : (sum ?? 0) + value;
          }, null)
        )
      });
    const marks = this.moments.map(({ day, number }) => ({ day, number }));
    return { from, lines, marks };
  });

  #postLabel({ item }: HalfReach): string {
    // A video may have several posts.
    return (this.twin?.posts.length ?? 0) > 1 ? `Post visits: ${item.title}` : 'Post visits';
  }

  readonly falls: ToldFall[] = $derived(
    this.halves.flatMap(({ item, row }) =>
      (Object.entries(row.counters) as [Counter, ReachRow['counters']['views']][]).flatMap(
        ([counter, curve]) =>
          curve
            ? fallsOf(curve).map((fall) => ({
                title: item.title,
                counter: counterLabels[counter],
                ...fall
              }))
            : []
      )
    )
  );

  readonly sources = $derived.by(() => {
    const sums = new Map<string, number>();
    for (const { row } of this.twin?.posts ?? [])
      for (const { source, count } of visitsBySource(row.visits, this.from))
        sums.set(source, (sums.get(source) ?? 0) + count);
    return [...sums]
      .map(([source, count]) => ({ source, count }))
      .sort((a, b) => b.count - a.count);
  });
  readonly #titles = live(() => {
    const ids = this.sources.flatMap(({ source }) =>
      source.startsWith('video ') ? [source.slice(6)] : []
    );
    return () => titlesOf(ids);
  });
  sourceName = (source: string): string =>
    sourceMessage(
      source,
      (id) => this.#titles.value?.get(id),
      (tags) => linkedUpdateLabel(this.#linked.value?.get(tags) ?? [])
    );

  /** Visits that an update brought, by its links. */
  visitsOf = ({ links }: UpdateReach): number => {
    const tags = new Set(links.map((link) => linkTagsOf(new URL(link).search)).filter(Boolean));
    return this.sources
      .filter(({ source }) => source.startsWith('tags ') && tags.has(source.slice(5)))
      .reduce((sum, { count }) => sum + count, 0);
  };
}

/** What came of an update, in words. */
export function updateMessage({ place, at, row }: UpdateReach, visits: number): string {
  const words: Partial<Record<Counter, [string, string]>> = {
    likes: ['like', 'likes'],
    shares: ['share', 'shares'],
    comments: ['reply', 'replies'],
    votes: ['vote', 'votes']
  };
  const told = (Object.entries(totalsOf(row)) as [Counter, number][]).flatMap(([counter, total]) =>
    words[counter] ? [plural(total, ...words[counter])] : []
  );
  const on = formatDate(new Date(at).toISOString());
  const brought = visits > 0 ? [`brought ${plural(visits, 'visit', 'visits')}`] : [];
  return [`${place}, ${on}`, ...told, ...brought].join(' · ');
}

export const publishedDay = ({ item }: HalfReach): Day | null =>
  item.published ? dayOf(Date.parse(item.published), localZone()) : null;

/** Totals of a row, in the order in which counters are told. */
export const shownTotals = (row: ReachRow): { label: string; total: number }[] =>
  (Object.entries(totalsOf(row)) as [Counter, number][]).map(([counter, total]) => ({
    label: counterLabels[counter],
    total
  }));
