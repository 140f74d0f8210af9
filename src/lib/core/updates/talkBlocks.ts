import { extractArticle } from '../article/extract/extract.ts';
import { articleTree } from '../article/template/render.ts';
import { postBlocks } from '../markup/postBlocks.ts';
import { asText, type TextBlock } from '../markup/textBlocks.ts';
import type { Chapter } from '../chapters/chapter.ts';
import { proposeChapters } from '../chapters/propose.ts';
import type { Talk } from '../text/talk.ts';

/**
 * What a video tells, as text that an update can be made from: the sentences that an editor would keep.
 * @param chapters the video's own; where it has none, those that are found stay unnamed, since only
 * names that somebody gave are put before readers
 */
export function talkBlocks(talk: Talk, title: string, chapters: readonly Chapter[]): TextBlock[] {
  if (talk.sentences.length === 0) return [];
  const isNamed = chapters.length > 0;
  const parts = isNamed ? chapters : proposeChapters(talk).chapters;
  const article = extractArticle(talk, { length: 'medium', chapters: parts });
  const blocks = asText(postBlocks(articleTree(title, article))).map(({ block }) => block);
  const names = new Set(parts.map((chapter) => chapter.title));
  return isNamed ? blocks : blocks.filter((b) => b.kind !== 'heading' || !names.has(b.text));
}
