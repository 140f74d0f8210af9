import { fitLength } from '../narration/fitLength.ts';
import { cutText } from './cut.ts';
import { countText } from './limits.ts';
import {
  pick,
  plainSentence,
  sourceSentences,
  standsAlone,
  type Spot,
  type UpdateSource
} from './source.ts';
import type { Manner } from '../lang/wordings.ts';
import { wordingsFor } from './wordings.ts';

export interface ShortTextOptions {
  /** Graphemes that the place takes, and what a link counts as there. */
  limit: number;
  linkWeight?: number | null;
  manner?: Manner;
  /** False where the place shows the title apart. */
  withTitle?: boolean;
  /** Chooses among wordings: the key of the item, say. Another one gives another variant. */
  seed?: string;
}

export interface ShortText {
  text: string;
  /** As the place counts. */
  length: number;
  /** Where the sentences stand that were taken. */
  from: Spot[];
}

const SENTENCES: Record<Manner, number> = { plain: 2, warm: 2, brisk: 1 };
/** Graphemes that brisk texts have of the item at most. */
const BRISK = 140;

/**
 * An item told in a few lines: title, blank line, its most telling sentence or two, and the link.
 * Nothing is added but a wording before the title and the link.
 * @returns at most as long as the limit, the link whole; where not even the link fits, an empty text
 */
export function shortText(source: UpdateSource, options: ShortTextOptions): ShortText {
  const { limit, linkWeight = null, manner = 'plain', withTitle = true, seed = '' } = options;
  const length = (text: string) => countText(text, linkWeight);
  const wordings = wordingsFor(source.language);
  const opening = pick(wordings.opening[manner][source.kind], `${seed}/opening`);
  const close = pick(wordings.close[manner][source.kind], `${seed}/close`);
  const { link } = source;
  const closed = link && [close, link].filter(Boolean).join(' ');
  const end = length(closed) <= limit * 0.7 ? closed : link;
  if (length(end) > limit) return { text: '', length: 0, from: [] };
  const title = plainSentence(source.title);
  const room = limit - length(end);
  const head = withTitle ? headIn(opening, title, room - 2, length) : '';
  const texts = [head, end];
  const left = room - length(head) - (head ? 2 : 0) - 2;
  const taken = tellingIn(source, manner, left, length);
  if (taken.length > 0) texts.splice(1, 0, taken.map((t) => t.text).join(' '));
  const text = texts.filter(Boolean).join('\n\n');
  return {
    text,
    length: length(text),
    from: taken.map(({ block, from }) => ({ block, from }))
  };
}

/**
 * The sentence that says most of an item, for a quotation.
 * @param limit graphemes
 * @returns empty where the item has no sentence
 */
export const tellingSentence = (source: UpdateSource, limit = 160): string =>
  tellingIn(source, 'brisk', limit, (text) => countText(text))[0]?.text ?? '';

function headIn(
  opening: string,
  title: string,
  room: number,
  length: (text: string) => number
): string {
  if (length(opening + title) <= room) return opening + title;
  return length(title) <= room ? title : cutText(title, room);
}

function tellingIn(
  source: UpdateSource,
  manner: Manner,
  room: number,
  length: (text: string) => number
): { text: string; block: number; from: number }[] {
  const all = sourceSentences(source.blocks).filter(
    (s) =>
      s.kind !== 'item' && !/https?:\/\//i.test(s.text) && sameWords(s.text, source.title) < 0.9
  );
  const open = all.filter((s) => standsAlone(s.text, source.language) && !/[:?]$/.test(s.text));
  const usable = open.length > 0 ? open : all;
  const most = SENTENCES[manner];
  const budget = manner === 'brisk' ? Math.min(room, BRISK) : room;
  const units = usable.map((s) => ({ ...s, seconds: length(s.text) + 1 }));
  // Half a sentence tells nothing: what has no room is not told.
  const fitting = units.filter((u) => u.seconds <= budget);
  // The most telling first, then the next where it fits; told in the order of the source.
  const chosen: typeof fitting = [];
  let left = budget;
  while (chosen.length < most) {
    const rest = fitting.filter((u) => !chosen.includes(u));
    const best = mostTelling(rest, left, source.language);
    if (!best) break;
    chosen.push(best);
    left -= best.seconds;
  }
  return chosen
    .sort((a, b) => a.block - b.block || a.from - b.from)
    .map((u) => ({ text: u.text, block: u.block, from: u.from }));
}

/** The one that would be told if only one could be. */
function mostTelling<U extends { section: number; text: string; seconds: number }>(
  units: readonly U[],
  room: number,
  language: string
): U | null {
  let best: U | null = null;
  // Narrower and narrower, until one is left: what is taken in the least room tells most.
  for (let low = 20, high = room; low <= high; high = Math.floor(high * 0.75)) {
    const taken = [
      ...fitLength(
        units.filter((u) => u.seconds <= high),
        high,
        language
      )
    ];
    if (taken.length === 0) break;
    best = taken[0] ?? best;
    if (taken.length === 1) break;
  }
  return best;
}

function sameWords(a: string, b: string): number {
  const words = (t: string) => new Set(t.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
  const [x, y] = [words(a), words(b)];
  const shared = [...x].filter((w) => y.has(w)).length;
  return shared / Math.max(1, Math.max(x.size, y.size));
}
