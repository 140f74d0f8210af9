import { z } from 'zod';
import type { Cue } from '../captions/cue.ts';

/** Seconds from the start of the video. */
export const chapterSchema = z.object({ start: z.number().min(0), title: z.string() });
export type Chapter = z.infer<typeof chapterSchema>;

/** A chapter that may have been touched by hand; what was stays on recomputing. */
export const editedChapterSchema = chapterSchema.extend({ byHand: z.boolean().optional() });
export type EditedChapter = z.infer<typeof editedChapterSchema>;

const LINE = /^\W{0,3}((?:\d{1,2}:)?\d{1,2}:\d{2})\W{1,4}(.+)$/;

/** Chapters written as a list in a description: lines that begin with a time, the first at 0:00. */
export function chaptersInDescription(description: string): Chapter[] {
  const chapters = description.split('\n').flatMap((line) => {
    const match = LINE.exec(line.trim());
    if (!match?.[1] || !match[2]) return [];
    const start = match[1].split(':').reduce((sum, part) => sum * 60 + Number(part), 0);
    return { start, title: match[2].trim() };
  });
  const rises = chapters.every((c, i) => i === 0 || c.start > (chapters[i - 1]?.start ?? 0));
  return chapters.length >= 3 && chapters[0]?.start === 0 && rises ? chapters : [];
}

/** Chapters from the cues of a WebVTT chapter track. */
export const chaptersFromCues = (cues: readonly Cue[]): Chapter[] =>
  cues.map(({ start, text }) => ({ start, title: text.replace(/\s+/g, ' ') }));

/** `1:02:03` or `2:03`. */
export function timeCode(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const two = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor(whole / 60) % 60;
  return hours > 0
    ? `${hours}:${two(minutes)}:${two(whole % 60)}`
    : `${minutes}:${two(whole % 60)}`;
}

/** Chapters as front matter has them. */
export const chapterFields = (chapters: readonly Chapter[]): { at: string; title: string }[] =>
  chapters.map((c) => ({ at: timeCode(c.start), title: c.title }));
