import { DateTime } from 'luxon';
import { dayOfDate, type Day } from '$lib/core/reach/day.ts';
import type { ReachDay } from '$lib/core/reach/reachRow.ts';
import type { MonthReport } from '$lib/core/reach/report.ts';
import { catalogueSeries, countersOf, type Measure } from '$lib/core/reach/series.ts';
import { allLanes } from '$lib/data/lanes.ts';
import { placeTitles } from '$lib/data/places.ts';
import { firstReachDay, reachDaysSince } from '$lib/data/reach.ts';
import { localZone } from '$lib/localZone.ts';
import { titlesOf, updatesByTags } from '$lib/work/reach/names.ts';
import { reachWorker } from '$lib/workers/reach.ts';
import {
  ageMessage,
  claimMessage,
  dimensionLabels,
  groupLabel,
  linkedUpdateLabel,
  sourceMessage,
  timesUsual
} from './reachMessages.ts';

const COUNTED = [
  ['Video views', 'video', 'reach'],
  ['Post visits', 'post', 'reach'],
  ['Responses to updates', 'update', 'reach'],
  ['Likes of videos', 'video', 'likes'],
  ['Comments on videos', 'video', 'comments']
] as const;
/** Rows of a list in a report. */
const MOST = 10;

/** The months that there are figures of, newest first, as `2026-11`. */
export async function monthsWithReach(): Promise<string[]> {
  const first = await firstReachDay();
  if (first === null) return [];
  const months: string[] = [];
  const begin = DateTime.fromMillis(first * 86_400_000, { zone: 'utc' }).startOf('month');
  let month = DateTime.now().startOf('month').setZone('utc', { keepLocalTime: true });
  for (; month >= begin && months.length < 36; month = month.minus({ months: 1 }))
    months.push(month.toFormat('yyyy-MM'));
  return months;
}

/**
 * What came of a month.
 * @param month as `2026-11`
 */
export async function buildReport(month: string): Promise<MonthReport> {
  const start = DateTime.fromISO(`${month}-01`, { zone: 'utc' });
  const span = { from: dayOfDate(`${month}-01`), to: dayOfDate(start.endOf('month').toISODate()!) };
  const before = {
    from: dayOfDate(start.minus({ months: 1 }).toISODate()!),
    to: span.from - 1
  };
  const days = await reachDaysSince(before.from);
  const { chartImage } = await import('./chartImage.ts');
  const name = start.setLocale('en').toFormat('LLLL yyyy');
  const lines = (['video', 'post', 'update'] as const).map((kind, i) => ({
    kind,
    label: COUNTED[i]![0],
    values: catalogueSeries(days, kind, 'reach', { ...span, by: 'day' })
  }));
  const known = lines.filter(({ values }) => values.some((value) => value !== null));
  const title = `Reach by day in ${name}`;
  const chart = { from: span.from, lines: known, marks: [] };
  return {
    month: name,
    totals: COUNTED.flatMap(([label, kind, measure]) => {
      const now = sumOf(days, kind, measure, span);
      return now === null ? [] : [{ label, now, before: sumOf(days, kind, measure, before) }];
    }),
    charts:
      known.length > 0 ? [{ title, png: await dataAddress(await chartImage(title, chart)) }] : [],
    sections: await sections(span.from)
  };
}

/** What was gained in some days; null where nothing is known of them. */
function sumOf(
  days: readonly ReachDay[],
  kind: ReachDay['kind'],
  measure: Measure,
  { from, to }: { from: Day; to: Day }
): number | null {
  const told = days.filter(
    (day) =>
      day.kind === kind &&
      day.day >= from &&
      day.day <= to &&
      countersOf(kind, measure).some((counter) => counter in day.gained)
  );
  if (told.length === 0) return null;
  return told.reduce(
    (sum, { gained }) =>
      countersOf(kind, measure).reduce((s, counter) => s + (gained[counter] ?? 0), sum),
    0
  );
}

async function sections(from: Day): Promise<MonthReport['sections']> {
  const worker = reachWorker();
  const [overview, sources, lanes, linked, places] = await Promise.all([
    worker.overview(Date.now(), localZone()),
    worker.sources(from),
    allLanes(),
    updatesByTags(),
    placeTitles()
  ]);
  const videos = sources.flatMap(({ source }) =>
    source.startsWith('video ') ? [source.slice(6)] : []
  );
  const ranked = [...overview.better, ...overview.lost];
  const titles = await titlesOf([...ranked.map(({ id }) => id), ...videos]);
  const laneName = (id: string) => lanes.find((lane) => lane.id === id)?.name;
  const rowsOf = (items: typeof ranked) =>
    items
      .slice(0, MOST)
      .map(({ id, total, usual, age }) => [
        titles.get(id) ?? '',
        total.toLocaleString('en'),
        timesUsual(total, usual),
        ageMessage(age)
      ]);
  const columns = ['Title', 'So far', 'Beside the usual', 'Age'];
  return [
    {
      title: 'Better than usual for their age',
      none: 'None stands out.',
      columns,
      rows: rowsOf(overview.better)
    },
    {
      title: 'Hardly found',
      none: 'None lags far behind.',
      columns,
      rows: rowsOf(overview.lost)
    },
    {
      title: 'Where visits came from',
      none: 'Not known: no access log was imported.',
      columns: ['Source', 'Visits since the month began'],
      rows: sources.slice(0, MOST).map(({ source, count }) => [
        sourceMessage(
          source,
          (id) => titles.get(id),
          (tags) => linkedUpdateLabel(linked.get(tags) ?? [])
        ),
        count.toLocaleString('en')
      ])
    },
    {
      title: 'What does well',
      none: 'Nothing can be told from chance.',
      columns: ['What', 'Items', 'Difference'],
      rows: overview.claims.flatMap(({ dimension, groups }) =>
        groups
          .filter(({ isClear }) => isClear)
          .map((group) => [
            `${dimensionLabels[dimension]}: ${groupLabel(dimension, group.group, laneName, (id) => places.get(id))}`,
            String(group.items),
            claimMessage(group)
          ])
      )
    }
  ];
}

function dataAddress(blob: Blob): Promise<string> {
  return new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => fail(reader.error ?? new Error('The picture could not be read.'));
    reader.readAsDataURL(blob);
  });
}
