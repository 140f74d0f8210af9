import { timeCode, type Chapter, type EditedChapter } from './chapter.ts';

/** Seconds within which two starts are the same. */
const NEAR = 10;

const inOrder = (chapters: readonly EditedChapter[]): EditedChapter[] =>
  [...chapters].sort((a, b) => a.start - b.start);

/** Moves a start, but never past its neighbours; the first stays at 0. */
export function moveChapter(
  chapters: readonly EditedChapter[],
  index: number,
  to: number
): EditedChapter[] {
  if (index === 0) return [...chapters];
  const least = (chapters[index - 1]?.start ?? 0) + 1;
  const most = (chapters[index + 1]?.start ?? Infinity) - 1;
  return chapters.map((c, i) =>
    i === index ? { ...c, start: Math.min(most, Math.max(least, to)), byHand: true } : c
  );
}

export const renameChapter = (
  chapters: readonly EditedChapter[],
  index: number,
  title: string
): EditedChapter[] => chapters.map((c, i) => (i === index ? { ...c, title, byHand: true } : c));

/** Splits the chapter in which a second lies. Nothing happens where one begins already. */
export function splitChapter(
  chapters: readonly EditedChapter[],
  at: number,
  title: string
): EditedChapter[] {
  if (chapters.some((c) => Math.abs(c.start - at) < 1)) return [...chapters];
  const first = chapters.length === 0 && at > 0 ? [{ start: 0, title: 'Beginning' }] : [];
  return inOrder([...first, ...chapters, { start: at, title, byHand: true }]);
}

/** Joins a chapter to the one before it. */
export const joinChapter = (chapters: readonly EditedChapter[], index: number): EditedChapter[] =>
  index === 0
    ? [...chapters]
    : chapters
        .filter((_, i) => i !== index)
        .map((c, i) => (i === index - 1 ? { ...c, byHand: true } : c));

/** New proposals beside what was made by hand: the hand's chapters stay, and theirs goes before. */
export function keepByHand(
  proposed: readonly Chapter[],
  edited: readonly EditedChapter[]
): EditedChapter[] {
  const kept = edited.filter((c) => c.byHand);
  const apart = proposed.filter((p) => kept.every((k) => Math.abs(k.start - p.start) >= NEAR));
  const all = inOrder([...apart, ...kept]);
  const first = all[0];
  return first && first.start > 0 ? [{ ...first, start: 0 }, ...all.slice(1)] : all;
}

/** What a chapter list lacks to be taken by players; `index` of the chapter it is about. */
export type ChapterFault =
  | { kind: 'not-from-start' }
  | { kind: 'too-few'; count: number }
  | { kind: 'too-short'; index: number; seconds: number }
  | { kind: 'untitled'; index: number }
  | { kind: 'same-title'; index: number };

export function chapterFaults(chapters: readonly Chapter[], duration: number): ChapterFault[] {
  if (chapters.length === 0) return [];
  const faults: ChapterFault[] = [];
  if (timeCode(chapters[0]?.start ?? 0) !== '0:00') faults.push({ kind: 'not-from-start' });
  if (chapters.length < 3) faults.push({ kind: 'too-few', count: chapters.length });
  for (const [index, { start, title }] of chapters.entries()) {
    const seconds = (chapters[index + 1]?.start ?? Math.max(duration, start)) - start;
    if (seconds < 10) faults.push({ kind: 'too-short', index, seconds });
    if (!title.trim()) faults.push({ kind: 'untitled', index });
    else if (chapters.findIndex((c) => c.title === title) < index)
      faults.push({ kind: 'same-title', index });
  }
  return faults;
}
