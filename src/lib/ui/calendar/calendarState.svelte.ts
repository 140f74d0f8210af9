import { localZone } from '$lib/localZone.ts';
import type { CalendarEntry } from '$lib/core/calendar/calendarEntry.ts';
import {
  atHour,
  atSameTime,
  dateOf,
  gapsIn,
  monthDays,
  shiftDays,
  weekDays,
  type CalendarDay,
  type Gap
} from '$lib/core/calendar/grid.ts';
import type { Busy } from '$lib/core/model/busy.ts';
import { readBusy } from '$lib/data/busy.ts';
import { allLanes } from '$lib/data/lanes.ts';
import { dayOf } from '$lib/core/reach/day.ts';
import { rhythmOf } from '$lib/core/reach/rhythm.ts';
import { visitHoursSince } from '$lib/data/reach.ts';
import { placeTitles } from '$lib/data/places.ts';
import {
  letLaneChoose,
  moveAll,
  moveEntry,
  readCalendar,
  whatIsInTheWay
} from '$lib/work/calendar.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import { deck } from '../deck.svelte.ts';
import { live } from '../live.svelte.ts';
import { plural, problemMessage } from '../messages.ts';
import { formatMoment, inTheWayMessage } from './calendarMessages.ts';

export const timeZone = localZone();
export const VIEWS = ['month', 'week', 'list'] as const;
export type View = (typeof VIEWS)[number];
const HOUR = 3_600_000;
/** Visits of so many days tell when the audience is there. */
const AUDIENCE_DAYS = 90;
/** Empty days in a row that are worth filling. */
const FEWEST_EMPTY = 2;
/** Where nothing is known of the audience. */
const USUAL_HOUR = 10;

/** What is shown of the calendar, and what is done in it. */
export class Calendar {
  readonly #view: () => View;
  readonly #date: () => string;
  placeId = $state('');
  /** The one that is looked at, and where it is to go. */
  opened = $state.raw<{ entry: CalendarEntry; to: number } | null>(null);
  /** Ids of those that were ticked in the list. */
  selected = $state.raw<ReadonlySet<string>>(new Set());
  /** The entry that takes the focus when it is drawn at its new time. */
  #moved: { id: string; at: number } | null = null;
  #dropped = 0;

  /**
   * @param view what is shown
   * @param date a day of the month or week that is shown, as `2026-11-26`
   */
  constructor(view: () => View, date: () => string) {
    this.#view = view;
    this.#date = date;
  }

  readonly view = $derived.by(() => this.#view());
  readonly date = $derived.by(() => this.#date());
  readonly days: CalendarDay[] = $derived.by(() =>
    this.view === 'week' ? weekDays(this.date, timeZone) : this.#month()
  );
  readonly #found = live(() => {
    const { start = 0 } = this.days[0] ?? {};
    const { end = 0 } = this.days.at(-1) ?? {};
    return () => readCalendar(start, end);
  });
  readonly #titles = live(() => placeTitles);
  readonly #lanes = live(() => allLanes);

  readonly #busy = live(() => readBusy);
  readonly #visits = live(() => () => visitHoursSince(dayOf(Date.now(), timeZone) - AUDIENCE_DAYS));
  /** When the audience was there; null where too little is known. */
  readonly rhythm = $derived(
    rhythmOf(
      (this.#visits.value ?? []).filter((v) => !this.#isBlog || v.placeId === this.placeId),
      timeZone
    )
  );
  /** Whether the place that is shown has visits of its own. */
  get #isBlog(): boolean {
    return (this.#visits.value ?? []).some(({ placeId }) => placeId === this.placeId);
  }

  readonly isRead = $derived(this.#found.value !== undefined);
  readonly entries = $derived(
    (this.#found.value ?? []).filter((e) => !this.placeId || e.placeId === this.placeId)
  );
  readonly byDay = $derived(Map.groupBy(this.entries, (entry) => dateOf(entry.at, timeZone)));
  readonly places = $derived(
    [...(this.#titles.value ?? [])].sort((a, b) => (a[1] < b[1] ? -1 : 1))
  );
  readonly chosen = $derived(this.entries.filter((e) => e.moves && this.selected.has(e.id)));

  #month(): CalendarDay[] {
    const days = monthDays(this.date, timeZone);
    // A list has no need of the days around its month.
    return this.view === 'list' ? days.filter((day) => day.isInMonth) : days;
  }

  placeOf = (entry: CalendarEntry): string => this.#titles.value?.get(entry.placeId) ?? '';
  laneOf = ({ laneId }: CalendarEntry) => this.#lanes.value?.find((lane) => lane.id === laneId);

  /** Empty days in a row that could be filled, by the first of them. */
  readonly gaps: ReadonlyMap<string, Gap> = $derived.by(() => {
    const isEmpty = (date: string) => !this.byDay.has(date) && this.busyOn(date).length === 0;
    const found = gapsIn(this.days, isEmpty, dateOf(Date.now(), timeZone), FEWEST_EMPTY);
    return new Map(found.map((gap) => [gap.date, gap]));
  });
  /** The day that is being filled from review. */
  filling = $state('');

  busyOn(date: string): Busy[] {
    const day = this.days.find((one) => one.date === date);
    return day ? this.busyIn(day.start, day.end) : [];
  }

  /** The hour of a day at which most of the audience is there, within the usual day. */
  bestHour(date: string): number {
    const weekday = (new Date(`${date}T12:00:00Z`).getUTCDay() + 6) % 7;
    const shares = this.rhythm?.shares[weekday];
    return shares ? shares.indexOf(Math.max(...shares)) : USUAL_HOUR;
  }

  /** Busy times that lie within two moments, or reach into them. */
  busyIn = (start: number, end: number): Busy[] =>
    (this.#busy.value ?? []).filter(({ from, to }) => from < end && to > start);

  open(entry: CalendarEntry, to = entry.at): void {
    // A press that ends a drag is none.
    if (Date.now() - this.#dropped > AFTER_DROP) this.opened = { entry, to };
  }

  /** Whether an entry was just moved to where it is; asked once. */
  takeMoved({ id, at }: CalendarEntry): boolean {
    const isMoved = this.#moved?.id === id && this.#moved.at === at;
    if (isMoved) this.#moved = null;
    return isMoved;
  }

  toggle(id: string, isOn: boolean): void {
    const selected = new Set(this.selected);
    if (isOn) selected.add(id);
    else selected.delete(id);
    this.selected = selected;
  }

  /** Where something goes that is dropped on a day, or on an hour of it. */
  async drop(entry: CalendarEntry, date: string, hour: number | null): Promise<void> {
    this.#dropped = Date.now();
    const to =
      hour === null ? atSameTime(entry.at, date, timeZone) : atHour(entry.at, date, hour, timeZone);
    if (to !== entry.at) await this.move(entry, to);
  }

  /** Where a key moves something, or null for keys that do not. */
  keyTarget({ at }: CalendarEntry, key: string): number | null {
    const isWeek = this.view === 'week';
    if (key === 'ArrowLeft') return shiftDays(at, -1, timeZone);
    if (key === 'ArrowRight') return shiftDays(at, 1, timeZone);
    if (key === 'ArrowUp') return isWeek ? at - HOUR : shiftDays(at, -7, timeZone);
    if (key === 'ArrowDown') return isWeek ? at + HOUR : shiftDays(at, 7, timeZone);
    return null;
  }

  /** Moves something where nothing is in the way; else it is asked about. */
  async move(entry: CalendarEntry, to: number): Promise<void> {
    const { value: inTheWay, problem } = await attempt(() => whatIsInTheWay(entry, to));
    if (problem) return this.#tell(problem);
    if (inTheWay) this.opened = { entry, to };
    else await this.moveTo(entry, to);
  }

  /** @param insists against what its lane or its place allows */
  async moveTo(entry: CalendarEntry, to: number, insists = false): Promise<void> {
    this.#moved = { id: entry.id, at: to };
    const { value: undo, problem } = await attempt(() => moveEntry(entry, to, insists));
    if (problem) return this.#tell(problem);
    if (!undo) return deck.say(`“${entry.title}” was not moved: it is already being published.`);
    deck.say(`“${entry.title}” moved to ${formatMoment(to)}.`, {
      label: 'Undo',
      run: () => void undo()
    });
  }

  /** Leaves the time of what was moved to its lane again. */
  async unpin(entry: CalendarEntry): Promise<void> {
    const { value: undo, problem } = await attempt(() => letLaneChoose(entry));
    if (problem) return this.#tell(problem);
    if (!undo) return deck.say(`“${entry.title}” was not moved: it is already being published.`);
    deck.say(`The lane chooses the time of “${entry.title}” again.`, {
      label: 'Undo',
      run: () => void undo()
    });
  }

  async moveChosen(days: number): Promise<void> {
    const { value: done, problem } = await attempt(() => moveAll(this.chosen, days));
    if (!done) return problem ? this.#tell(problem) : undefined;
    const { moved, left, undo } = done;
    this.selected = new Set(left.map(({ entry }) => entry.id));
    const [first] = left;
    const rest = first
      ? ` ${plural(left.length, 'stays where it is', 'stay where they are')}: “${first.entry.title}”: ${inTheWayMessage(first.inTheWay)}`
      : '';
    deck.say(
      `${plural(moved.length, 'entry', 'entries')} moved.${rest}`,
      moved.length > 0 ? { label: 'Undo', run: () => void undo() } : null
    );
  }

  #tell(problem: Parameters<typeof problemMessage>[0]): void {
    const { what, todo } = problemMessage(problem);
    deck.say(`Not moved. ${what} ${todo}`);
  }
}
/** Milliseconds. */
const AFTER_DROP = 400;
