import { GERMAN_GISTS } from '../../lang/de/gists.ts';
import { ENGLISH_GISTS } from '../../lang/en/gists.ts';
import { languageOf } from '../../text/language.ts';
import { contentStems, wordsOf } from '../../text/terms.ts';
import type { Line } from '../line.ts';
import type { ScriptPart } from '../scriptPart.ts';

/** A script whose pictures are shown with the sentences they belong to. */
export interface Placed {
  /** Without the pictures that were given to a sentence. */
  parts: ScriptPart[];
  /** The pictures shown while a line is said, by its id: one, or one before and one after. */
  pictureOf: Map<string, ScriptPart[]>;
}

/**
 * Gives each picture without words of its own to a sentence beside it: the one whose words its text
 * alternative shares most, of the text right before and right behind it under the same heading. Where
 * nothing is said beside it, it stays by itself.
 */
export function placePictures(parts: readonly ScriptPart[], language: string): Placed {
  const pictureOf = new Map<string, ScriptPart[]>();
  const given = new Set<ScriptPart>();
  for (const [i, part] of parts.entries()) {
    if (part.kind !== 'picture' || part.lines.length > 0 || given.has(part)) continue;
    const next = parts[i + 1];
    const pair = next && areBeforeAndAfter(part, next, language) ? [part, next] : [part];
    const line = sentenceFor(pair, parts, i, pictureOf, language);
    if (!line) continue;
    pictureOf.set(line.id, pair);
    for (const picture of pair) given.add(picture);
  }
  return { parts: parts.filter((part) => !given.has(part)), pictureOf };
}

function areBeforeAndAfter(a: ScriptPart, b: ScriptPart, language: string): boolean {
  if (b.kind !== 'picture' || b.lines.length > 0 || !a.picture || !b.picture) return false;
  const { before, after } = languageOf(language).code === 'de' ? GERMAN_GISTS : ENGLISH_GISTS;
  return before.test(a.picture.alt) && after.test(b.picture.alt);
}

/** The text that stands right before or behind, other pictures between passed over. */
function neighbour(parts: readonly ScriptPart[], from: number, step: 1 | -1): ScriptPart | null {
  for (let i = from + step; i >= 0 && i < parts.length; i += step) {
    const part = parts[i]!;
    if (part.kind === 'text') return part;
    if (part.kind !== 'picture') return null;
  }
  return null;
}

function sentenceFor(
  pictures: readonly ScriptPart[],
  parts: readonly ScriptPart[],
  at: number,
  taken: ReadonlyMap<string, unknown>,
  language: string
): Line | null {
  const spoken = languageOf(language);
  const stems = (text: string) => new Set(contentStems(wordsOf(text), spoken));
  const shown = stems(pictures.map((p) => p.picture?.alt ?? '').join(' '));
  const before = neighbour(parts, at, -1)?.lines ?? [];
  const after = neighbour(parts, at, 1)?.lines ?? [];
  const lines = [
    ...before.map((line, i) => ({ line, distance: before.length - i })),
    ...after.map((line, i) => ({ line, distance: i + 1.5 }))
  ].filter(({ line }) => !taken.has(line.id));
  let [best, most]: [Line | null, number] = [null, -Infinity];
  for (const { line, distance } of lines) {
    const shared = [...stems(line.text)].filter((stem) => shown.has(stem)).length;
    // What shares as much is shown where the picture stands.
    const likeness = shared - 0.3 * distance;
    if (likeness > most) [best, most] = [line, likeness];
  }
  return best;
}
