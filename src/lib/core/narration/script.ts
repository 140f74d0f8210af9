import { sentencesIn } from '../text/sentencesIn.ts';
import { spokenSeconds } from './duration.ts';
import { normalizeForSpeech } from './normalization/normalize.ts';
import {
  BREATH,
  END_HOLD,
  LEAD,
  MIN_CAPTION,
  READABLE,
  SILENT_PICTURE,
  TAIL,
  type Line,
  type ScriptOptions
} from './line.ts';
import { phrasesFor } from './phrases.ts';
import { itemText, type PostBlock, type Unspoken } from '../markup/postBlocks.ts';
import { figureIn } from './direct/figure.ts';
import { placePictures } from './direct/placePictures.ts';
import { readSentence } from './direct/sentence.ts';
import { arePair, thesisIn, weightOfFigures } from './emphasis.ts';
import type { ScriptPart } from './scriptPart.ts';
import { fitLength, type Unit } from './fitLength.ts';

export type LeftSilentReason =
  Unspoken | 'over-length' | 'nothing-to-say' | 'same-as-title' | 'no-text-of-picture';

/** Text of the post that is not read out, and why. */
export interface LeftSilent {
  block: number;
  text: string;
  reason: LeftSilentReason;
}

export interface Script {
  parts: ScriptPart[];
  leftSilent: LeftSilent[];
  /** About how long the whole post would take, and how long this script takes; seconds. */
  wholeSeconds: number;
  seconds: number;
}

/** Seconds between two sentences, and before and after a heading, as reckoned before it is said. */
const SENTENCE_PAUSE = 0.35;
const PART_PAUSE = 0.7;
/** A cut has a picture for each so many seconds, where the post has as many. */
const PICTURE_EVERY = 20;

/**
 * A post as something to be spoken. Nothing of its text is lost: it is read out, or stands among
 * what is not spoken with the reason. Under a target the most telling sentences stay, in order.
 * @param post its title, blocks and address
 */
export function writeScript(
  post: { title: string; blocks: readonly PostBlock[] },
  options: ScriptOptions
): Script {
  const leftSilent: LeftSilent[] = [];
  const parts = [
    titlePart(post.title, options),
    ...readParts(post, options, leftSilent),
    endPart(options)
  ];
  const wholeSeconds = secondsOf(parts, options);
  const kept =
    options.target === null
      ? parts
      : shorten(post.title, parts, options, options.target, leftSilent);
  return { parts: kept, leftSilent, wholeSeconds, seconds: secondsOf(kept, options) };
}

const lineId = (block: number, n: number): string => `${block}.${n}`;

/** About how long a script takes with its pauses, before it is said; seconds. */
export function secondsOf(parts: readonly ScriptPart[], options: ScriptOptions): number {
  const { language, speed } = options;
  let seconds = 0;
  for (const part of parts) {
    for (const { text, spoken } of part.lines) {
      if (!spoken) continue;
      const said = spokenSeconds(spoken, language, speed);
      // Its caption is read before the next one comes.
      seconds += Math.max(said + SENTENCE_PAUSE, MIN_CAPTION, text.length / READABLE);
    }
    if (part.kind === 'section' || part.kind === 'title') seconds += PART_PAUSE;
    if (part.kind === 'text') seconds += SENTENCE_PAUSE * BREATH;
    if (part.kind === 'title') seconds += LEAD;
    if (part.kind === 'end') seconds += END_HOLD + TAIL;
    if (part.kind === 'picture' && part.lines.length === 0) seconds += SILENT_PICTURE;
  }
  return seconds;
}

function spokenLine(
  block: number,
  n: number,
  text: string,
  from: number,
  options: ScriptOptions,
  change: (spoken: string) => string = (spoken) => spoken
): Line {
  const spoken = normalizeForSpeech(text, options.language, options.pronunciations);
  return {
    id: lineId(block, n),
    text,
    spoken: spoken && change(spoken),
    source: { block, from, to: from + text.length }
  };
}

function titlePart(title: string, options: ScriptOptions): ScriptPart {
  const spoken = normalizeForSpeech(title, options.language, options.pronunciations);
  return {
    kind: 'title',
    block: -1,
    lines: title ? [{ id: 'title', text: title, spoken, source: null }] : []
  };
}

function endPart(options: ScriptOptions): ScriptPart {
  const text = phrasesFor(options.language).readMore;
  return {
    kind: 'end',
    block: -1,
    lines: [{ id: 'end', text, spoken: normalizeForSpeech(text, options.language), source: null }]
  };
}

const same = (a: string, b: string): boolean =>
  a
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim() ===
  b
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

function readParts(
  post: { title: string; blocks: readonly PostBlock[] },
  options: ScriptOptions,
  leftSilent: LeftSilent[]
): ScriptPart[] {
  const parts: ScriptPart[] = [];
  for (const [block, found] of post.blocks.entries()) {
    const leave = (text: string, reason: LeftSilentReason) =>
      leftSilent.push({ block, text, reason });
    switch (found.kind) {
      case 'heading': {
        if (same(found.text, post.title)) {
          leave(found.text, 'same-as-title');
          break;
        }
        const line = spokenLine(block, 0, found.text, 0, options, (spoken) =>
          options.announcesHeadings ? (/[.!?]$/.test(spoken) ? spoken : `${spoken}.`) : ''
        );
        parts.push({ kind: 'section', block, lines: [line] });
        break;
      }
      case 'paragraph': {
        const lines = linesOf(found.text, block, options);
        for (const line of lines) if (!line.spoken) leave(line.text, 'nothing-to-say');
        const spoken = lines.filter((line) => line.spoken);
        if (spoken.length > 0) parts.push({ kind: 'text', block, lines: spoken });
        break;
      }
      case 'list': {
        const lines = listLines(found, block, options);
        for (const line of lines) if (!line.spoken) leave(line.text, 'nothing-to-say');
        const spoken = lines.filter((line) => line.spoken);
        if (spoken.length > 0)
          parts.push({ kind: 'list', block, lines: spoken, isOrdered: found.isOrdered });
        break;
      }
      case 'quote': {
        const lines = linesOf(found.text, block, options);
        for (const line of lines) if (!line.spoken) leave(line.text, 'nothing-to-say');
        const spoken = lines.filter((line) => line.spoken);
        if (spoken.length > 0) parts.push({ kind: 'quote', block, lines: spoken, by: found.by });
        break;
      }
      case 'picture': {
        // A picture's caption is read; its text alternative tells those who do not see it.
        const lines = found.caption ? linesOf(found.caption, block, options) : [];
        if (!found.alt && !found.caption) leave('', 'no-text-of-picture');
        const { url, alt } = found;
        parts.push({
          kind: 'picture',
          block,
          lines: lines.filter((line) => line.spoken),
          picture: { url, alt: alt || found.caption }
        });
        break;
      }
      case 'unspoken':
        if (found.rows && isReadable(found.rows)) {
          const lines = rowLines(found.rows, found.text, block, options);
          parts.push({ kind: 'table', block, lines, rows: found.rows });
          break;
        }
        leave(found.text, found.what);
        if (options.asides === 'tell' && found.what !== 'footnote') {
          const text = phrasesFor(options.language).aside[found.what];
          const line = { ...spokenLine(block, 0, text, 0, options), source: null };
          parts.push({ kind: 'aside', block, lines: [line] });
        }
    }
  }
  return parts;
}

function linesOf(text: string, block: number, options: ScriptOptions): Line[] {
  const sentences = sentencesIn(text);
  const lines: Line[] = [];
  let at = 0;
  for (const [n, { to }] of sentences.entries()) {
    // What stands between two sentences, such as a bracket, goes with the next one.
    const end = n === sentences.length - 1 ? text.length : to;
    const piece = text.slice(at, end);
    const lead = piece.length - piece.trimStart().length;
    lines.push(spokenLine(block, n, piece.trim(), at + lead, options));
    at = end;
  }
  return lines.length > 0 || !text.trim() ? lines : [spokenLine(block, 0, text, 0, options)];
}

/** A table that can be listened to: a few short cells in a few rows, with heads above them. */
const TABLE = { rows: 9, columns: 4, letters: 40 };
const isReadable = (rows: readonly (readonly string[])[]): boolean =>
  rows.length > 1 &&
  rows.length <= TABLE.rows &&
  rows.every(
    (row) =>
      row.length > 1 &&
      row.length <= TABLE.columns &&
      row.length === rows[0]?.length &&
      row[0] !== '' &&
      row.every((cell) => cell.length <= TABLE.letters)
  );

/** "Wool: width 40 cm, sett 6": each row in one line, with the heads of its columns. */
function rowLines(
  [heads = [], ...rows]: readonly (readonly string[])[],
  whole: string,
  block: number,
  options: ScriptOptions
): Line[] {
  return rows.map(([name = '', ...cells], n) => {
    const told = cells.map((cell, i) => [heads[i + 1] ?? '', cell].filter(Boolean).join(' '));
    const line = spokenLine(block, n, `${name}: ${told.filter(Boolean).join(', ')}.`, 0, options);
    return { ...line, source: { block, from: 0, to: whole.length } };
  });
}

function listLines(
  list: Extract<PostBlock, { kind: 'list' }>,
  block: number,
  options: ScriptOptions
): Line[] {
  const { countOf, numbered } = phrasesFor(options.language);
  let from = 0;
  return list.items.map(itemText).map((item, n) => {
    const line = spokenLine(block, n, item, from, options, (spoken) => {
      const ended = /[.!?]$/.test(spoken) ? spoken : `${spoken}.`;
      const number = list.isOrdered && numbered ? `${numbered(list.first + n)}: ` : '';
      const count =
        n === 0 && options.countsLists && list.items.length > 1 && countOf
          ? `${countOf(list.items.length, list.isOrdered)}. `
          : '';
      return `${count}${number}${ended}`;
    });
    from += item.length + 1;
    return line;
  });
}

/** What a sentence with a picture, or with a figure that is remembered, is worth beside others. */
const PICTURED = 1.6;
const FIGURED = 1.25;

type CutUnit = Unit & { part: ScriptPart; lines: Line[] };

/**
 * The most telling of the script within so many seconds: what the post rests on first, never one half
 * of a pair, and pictures beside what they belong to. Headings stay where something under them does.
 */
function shorten(
  title: string,
  parts: readonly ScriptPart[],
  options: ScriptOptions,
  target: number,
  leftSilent: LeftSilent[]
): ScriptPart[] {
  const { parts: told, pictureOf } = placePictures(parts, options.language);
  const units = unitsOf(title, told, options, pictureOf);
  const ends = parts.filter((p) => p.kind === 'title' || p.kind === 'end');
  const sectionCost = new Map<number, number>();
  for (const part of parts)
    if (part.kind === 'section') sectionCost.set(sectionCost.size + 1, secondsOf([part], options));
  const pictures = told.filter((p) => p.kind === 'picture').length;
  const forPictures = Math.min(pictures, Math.floor(target / PICTURE_EVERY)) * SILENT_PICTURE;
  const left = Math.max(0, target - secondsOf(ends, options) - forPictures);
  const kept = fitLength(units, left, options.language, sectionCost);
  const keptLines = new Set([...kept].flatMap((unit) => unit.lines));
  const keptSections = new Set([...kept].map((unit) => unit.section));
  const keptParts = new Set([...kept].map((unit) => unit.part));
  for (const picture of picturesBeside(told, keptParts, keptSections, forPictures))
    keptParts.add(picture);
  // Shown while a sentence is said, a picture takes no time of its own.
  for (const line of keptLines)
    for (const picture of pictureOf.get(line.id) ?? []) keptParts.add(picture);
  let at = 0;
  return parts.flatMap((part) => {
    if (part.kind === 'title' || part.kind === 'end') return [part];
    if (part.kind === 'section') at++;
    const stays = part.kind === 'section' ? keptSections.has(at) : keptParts.has(part);
    const lines = part.kind === 'section' ? part.lines : part.lines.filter((l) => keptLines.has(l));
    for (const line of part.lines)
      if (!stays || !lines.includes(line))
        leftSilent.push({ block: part.block, text: line.text, reason: 'over-length' });
    return stays ? [{ ...part, lines }] : [];
  });
}

/** What is told whole or not at all; pictures without words are chosen afterwards. */
function unitsOf(
  title: string,
  parts: readonly ScriptPart[],
  options: ScriptOptions,
  pictureOf: ReadonlyMap<string, unknown>
): CutUnit[] {
  const units: CutUnit[] = [];
  let section = 0;
  for (const part of parts) {
    const seconds = (lines: Line[]) => secondsOf([{ ...part, lines }], options);
    if (part.kind === 'section') section++;
    else if (part.kind === 'text')
      for (const line of part.lines)
        units.push({
          section,
          text: line.text,
          seconds: seconds([line]),
          part,
          lines: [line],
          weight:
            weightOfFigures(line.text) *
            (pictureOf.has(line.id) ? PICTURED : 1) *
            (figureIn(readSentence(line.text, options.language)) ? FIGURED : 1)
        });
    else if (part.kind !== 'title' && part.kind !== 'end' && part.lines.length > 0)
      units.push({
        section,
        text: part.lines.map((l) => l.text).join(' '),
        seconds: seconds(part.lines),
        part,
        lines: part.lines
      });
  }
  for (const [i, unit] of units.entries()) {
    const next = units[i + 1];
    unit.goesWithNext = next?.part === unit.part && arePair(unit.text, next.text);
  }
  const told = units.filter((u) => u.part.kind === 'text');
  const thesis =
    told[
      thesisIn(
        told.map((u) => u.text),
        title,
        options.language
      )
    ];
  if (thesis) thesis.rank = 1;
  const pinned = new Set(options.pinned);
  for (const unit of units) if (unit.lines.some((l) => pinned.has(l.id))) unit.rank = 2;
  return units;
}

/** Pictures that are shown without words, those beside kept text before others of kept sections. */
function picturesBeside(
  parts: readonly ScriptPart[],
  keptParts: ReadonlySet<ScriptPart>,
  keptSections: ReadonlySet<number>,
  seconds: number
): ScriptPart[] {
  let section = 0;
  const found = parts.flatMap((part, i) => {
    if (part.kind === 'section') section++;
    if (part.kind !== 'picture' || keptParts.has(part)) return [];
    const isBeside = [parts[i - 1], parts[i + 1]].some((p) => p && keptParts.has(p));
    return isBeside || keptSections.has(section) ? [{ part, isBeside }] : [];
  });
  return found
    .sort((a, b) => Number(b.isBeside) - Number(a.isBeside))
    .slice(0, Math.floor(seconds / SILENT_PICTURE))
    .map(({ part }) => part);
}
