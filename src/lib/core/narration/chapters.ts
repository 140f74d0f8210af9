import type { Chapter } from '../chapters/chapter.ts';
import { isHeading, type Scene } from './scenes.ts';
import type { TimeLine } from './timeLine.ts';

/** The rules that hosts have for chapter lists: the first at 0:00, three or more, each 10 s or longer. */
const MIN_CHAPTERS = 3;
const MIN_SECONDS = 10;

/** Chapters from the headings of a video; none where the rules for them cannot be kept. */
export function narrationChapters(scenes: readonly Scene[], timeLine: TimeLine): Chapter[] {
  const starts: Chapter[] = [];
  for (const [i, scene] of scenes.entries()) {
    const start = timeLine.scenes[i]?.start ?? 0;
    if (!isHeading(scene) && i > 0) continue;
    const title = scene.lines
      .map((l) => l.text)
      .join(' ')
      .replace(/[.:]$/, '');
    if (!title) continue;
    const last = starts.at(-1);
    if (last && start - last.start < MIN_SECONDS) continue;
    starts.push({ start: i === 0 ? 0 : start, title });
  }
  while (starts.length > 1 && timeLine.duration - (starts.at(-1)?.start ?? 0) < MIN_SECONDS)
    starts.pop();
  return starts.length >= MIN_CHAPTERS ? starts : [];
}
