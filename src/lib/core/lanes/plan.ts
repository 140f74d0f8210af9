import type { OutboxEntry } from '../delivery/outbox.ts';
import { nextAllowed, planSlots, type Pace, type PaceHistory, type PaceReason } from './pace.ts';
import { inTurn, isPinnedAfter } from './runner.ts';

/** One item that a lane publishes, with its entries for all places. Times are milliseconds since 1970. */
export interface PlannedItem {
  itemId: string;
  entries: OutboxEntry[];
  at: number;
  isPinned: boolean;
  /** What it has to wait for until then; null for what the user gave its time. */
  waitsFor: PaceReason | null;
}

/** What goes out, as far as it was given a time by the user, added to what a pace has to keep to. */
function withPins(history: PaceHistory, pins: readonly number[]): PaceHistory {
  return {
    ...history,
    placed: [...history.placed, ...pins],
    allowances: history.allowances.map((a) => ({ ...a, used: [...a.used, ...pins] }))
  };
}

const timesOf = (items: readonly PlannedItem[]): number[] => items.map(({ at }) => at);

/**
 * When all that is planned in a lane goes out, were each to go at its first moment: what the user gave a time at that
 * time, or at the next that the pace allows; the rest in turn.
 * @param history what went out, without what is planned
 * @param entries of the lane
 * @returns by their time; those for which no moment is left within five years are left out
 */
export function planItems(
  pace: Pace,
  history: PaceHistory,
  entries: readonly OutboxEntry[],
  now: number
): PlannedItem[] {
  const items = new Map<string, OutboxEntry[]>();
  for (const entry of inTurn(entries))
    items.set(entry.itemId, [...(items.get(entry.itemId) ?? []), entry]);
  const pinned: PlannedItem[] = [];
  const others: [string, OutboxEntry[]][] = [];
  for (const [itemId, own] of items) {
    const pin = own.find((e) => isPinnedAfter(e, now))?.pin;
    if (!pin) {
      others.push([itemId, own]);
      continue;
    }
    const at = pin.insists
      ? pin.at
      : nextAllowed(pace, withPins(history, timesOf(pinned)), pin.at)?.at;
    if (at !== undefined) pinned.push({ itemId, entries: own, at, isPinned: true, waitsFor: null });
  }
  const given = withPins(history, timesOf(pinned));
  const slots = planSlots(pace, given, now, others.length);
  const inOrder = slots.map(({ at, waitsFor }, i): PlannedItem => {
    const [itemId, own] = others[i]!;
    return { itemId, entries: own, at, isPinned: false, waitsFor };
  });
  return [...pinned, ...inOrder].sort((a, b) => a.at - b.at);
}
