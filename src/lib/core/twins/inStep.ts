import type { Standing, Twin } from '../model/twin.ts';

export type StandingCounts = Record<Standing, number>;

export function countStandings(twins: readonly Twin[]): StandingCounts {
  const counts: StandingCounts = {
    'in-step': 0,
    'no-post': 0,
    'no-video': 0,
    drifted: 0,
    'in-hand': 0,
    'set-aside': 0
  };
  for (const twin of twins) counts[twin.standing]++;
  return counts;
}

/** How many twins of each month stand how; months without any are filled in between. */
export function standingsByMonth(
  twins: readonly Twin[],
  most = 24
): { month: string; counts: StandingCounts }[] {
  const byMonth = new Map<string, Twin[]>();
  for (const twin of twins) {
    if (!twin.date) continue;
    const month = twin.date.slice(0, 7);
    const group = byMonth.get(month);
    if (group) group.push(twin);
    else byMonth.set(month, [twin]);
  }
  const months = [...byMonth.keys()].sort();
  const first = months[0];
  const last = months.at(-1);
  if (!first || !last) return [];
  const all: string[] = [];
  for (let month = last; month >= first && all.length < most; month = monthBefore(month)) {
    all.unshift(month);
  }
  return all.map((month) => ({ month, counts: countStandings(byMonth.get(month) ?? []) }));
}

function monthBefore(month: string): string {
  const [year = 0, number = 1] = month.split('-').map(Number);
  return number === 1
    ? `${String(year - 1).padStart(4, '0')}-12`
    : `${String(year).padStart(4, '0')}-${String(number - 1).padStart(2, '0')}`;
}
