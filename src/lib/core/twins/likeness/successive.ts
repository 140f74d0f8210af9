import type { Item } from '../../model/item.ts';
import { spelledNumber } from './series.ts';

/** A number after a word, with nothing behind it: "evening two: …", "Kitchen 3", "Loom II". */
const NUMBERED =
  /(?<![\p{L}\p{M}\d'’])(\p{L}[\p{L}\p{M}'’]{2,}) (\d{1,2}|[ivx]{1,5}|\p{L}{3,6})(?=$|[:,.)\]|]|\s[|–—-])/giu;

/**
 * Numbers that are those of a series only because the title before, and the next, of the same place go on counting:
 * "evening one", then "evening two".
 * @returns by item its number
 */
export function successiveNumbers(items: readonly Item[]): Map<Item, number> {
  const runs: Numbered[][] = [];
  /** By series and the number that would go on: the run that waits for it. */
  const waiting = new Map<string, Numbered[]>();
  for (const one of inOrder(items.flatMap(numberedIn))) {
    const run = waiting.get(`${one.series} ${one.number}`) ?? [];
    waiting.delete(`${one.series} ${one.number}`);
    waiting.set(`${one.series} ${one.number + 1}`, run);
    if (run.push(one) === 1) runs.push(run);
  }
  const counting = runs.filter((run) => run.length > 1).flat();
  return new Map(counting.map(({ item, number }) => [item, number]));
}

interface Numbered {
  item: Item;
  /** The place, and the word before the number. */
  series: string;
  number: number;
}

/** As they were published; of what came out at once, or says no date, in the order of the numbers. */
const inOrder = (all: readonly Numbered[]): Numbered[] =>
  [...all].sort(
    (a, b) => (a.item.published ?? '').localeCompare(b.item.published ?? '') || a.number - b.number
  );

function numberedIn(item: Item): Numbered[] {
  return [...item.title.matchAll(NUMBERED)].flatMap(([, word = '', written = '']) => {
    const number = spelledNumber(written.toLowerCase());
    return number ? [{ item, series: `${item.placeId} ${word.toLowerCase()}`, number }] : [];
  });
}
