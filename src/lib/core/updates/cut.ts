import { sentencesIn } from '../text/sentencesIn.ts';
import { countText, graphemesOf } from './limits.ts';

/**
 * The text within a limit: at the end of a sentence where one fits that is not far too short, else
 * after a word with an ellipsis, and inside a word only where it alone is too long.
 * @param limit graphemes; links count as `linkWeight` says
 * @returns never longer than the limit, and no grapheme cut apart
 */
export function cutText(text: string, limit: number, linkWeight: number | null = null): string {
  const whole = text.trim();
  const length = (t: string) => countText(t, linkWeight);
  if (limit <= 0) return '';
  if (length(whole) <= limit) return whole;
  const ends = graphemeEnds(whole);
  const sentence = sentencesIn(whole)
    .filter((s) => ends.has(s.to))
    .map((s) => whole.slice(0, s.to))
    .findLast((head) => length(head) <= limit);
  if (sentence && length(sentence) >= limit * 0.4) return sentence;
  return cutAtWord(whole, limit, length);
}

/** Where a grapheme ends; a mark that joins may follow a full stop. */
function graphemeEnds(text: string): ReadonlySet<number> {
  let at = 0;
  return new Set(graphemesOf(text).map((grapheme) => (at += grapheme.length)));
}

function cutAtWord(text: string, limit: number, length: (t: string) => number): string {
  if (limit === 1) return length('…') <= limit ? '…' : '';
  let best = '';
  for (const { index } of text.matchAll(/\s+/gu)) {
    const head = bareEnd(text.slice(0, index));
    if (head && length(`${head}…`) <= limit) best = head;
    else if (length(text.slice(0, index)) > limit + 8) break;
  }
  if (best && length(best) >= limit * 0.3) return `${best}…`;
  // No space in reach: between graphemes, but never within a link.
  let head = '';
  for (const grapheme of graphemesOf(text)) {
    if (length(`${head}${grapheme}…`) > limit) break;
    head += grapheme;
  }
  const link = /https?:\/\/\S*$/iu.exec(head);
  const kept = link && text.slice(head.length).match(/^\S/u) ? head.slice(0, link.index) : head;
  return kept.trim() ? `${bareEnd(kept)}…` : best ? `${best}…` : '';
}

const bareEnd = (text: string): string => text.replace(/(?<![\s,;:–—-])[\s,;:–—-]+$/u, '');
