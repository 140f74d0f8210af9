import { writeWebVtt } from '../captions/webvtt.ts';
import { timeCode, type Chapter } from './chapter.ts';

/** A chapter with its end, which is where the next begins. */
export type Span = Chapter & { end: number };

/** @param duration seconds; where the last chapter ends */
export const spans = (chapters: readonly Chapter[], duration: number): Span[] =>
  chapters.map((c, i) => ({ ...c, end: chapters[i + 1]?.start ?? Math.max(duration, c.start) }));

/** A list as one writes it in the description of a video. */
export const descriptionList = (chapters: readonly Chapter[]): string =>
  chapters.map(({ start, title }) => `${timeCode(start)} ${title}`).join('\n');

/** A WebVTT chapter track. */
export const chaptersVtt = (chapters: readonly Chapter[], duration: number): string =>
  writeWebVtt(
    spans(chapters, duration).map(({ start, end, title }) => ({ start, end, text: title }))
  );

/** JSON chapters, as podcasts have them (version 1.2.0 of the Podcast Namespace's format). */
export const chaptersJson = (chapters: readonly Chapter[], duration: number): string =>
  JSON.stringify(
    {
      version: '1.2.0',
      chapters: spans(chapters, duration).map(({ start, end, title }) => ({
        startTime: Math.round(start * 1000) / 1000,
        endTime: Math.round(end * 1000) / 1000,
        title
      }))
    },
    null,
    2
  );

/** @param seekTo address of the video with `{seek_to_second_number}` in it */
export const linkTo = (seekTo: string, seconds: number): string =>
  seekTo.replace('{seek_to_second_number}', String(Math.floor(seconds)));

/** A link into the video a line. */
export const chapterLinks = (chapters: readonly Chapter[], seekTo: string): string =>
  chapters.map(({ start, title }) => `${title}: ${linkTo(seekTo, start)}`).join('\n');

/** schema.org `Clip`s as JSON-LD, to stand in a page about the video. */
export const clipsJsonLd = (
  video: { title: string; url: string },
  chapters: readonly Chapter[],
  duration: number,
  seekTo: string
): string =>
  JSON.stringify(
    {
      '@context': 'https://schema.org',
      '@type': 'VideoObject',
      name: video.title,
      url: video.url,
      hasPart: spans(chapters, duration).map(({ start, end, title }) => ({
        '@type': 'Clip',
        name: title,
        startOffset: Math.floor(start),
        endOffset: Math.floor(end),
        ...(seekTo ? { url: linkTo(seekTo, start) } : {})
      }))
    },
    null,
    2
  );
