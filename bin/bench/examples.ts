/**
 * Writes docs/examples: what becomes of six talks that were held out, every eighth by name from the
 * third, read as edited captions, at medium length. `npm run examples`, about a minute.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { extractArticle } from '../../src/lib/core/article/extract/extract.ts';
import type { ArticleBlock } from '../../src/lib/core/article/extract/article.ts';
import { timeCode } from '../../src/lib/core/chapters/chapter.ts';
import { proposeChapters } from '../../src/lib/core/chapters/propose.ts';
import { titleParts } from '../../src/lib/core/chapters/titles.ts';
import { readTalk } from '../../src/lib/core/text/talk.ts';
import { captionsAs } from '../train/speech.ts';
import { heldOut } from './speech.ts';

const FOLDER = 'docs/examples';
const EVERY = 8;
const FROM = 2;

function blockText(block: ArticleBlock): string {
  switch (block.kind) {
    case 'heading':
      return `### ${block.text}`;
    case 'paragraph':
      return block.sentences.map((s) => s.text).join(' ');
    case 'list':
      return block.items.map((item, i) => `${i + 1}. ${item.text}`).join('\n');
    case 'table':
      return block.rows.map((row) => `- ${row.name}: ${row.value}`).join('\n');
    case 'picture':
      return '';
  }
}

mkdirSync(FOLDER, { recursive: true });
const held = heldOut().sort((a, b) => a.labelled.name.localeCompare(b.labelled.name));
for (const [i, { labelled, judge, turns, titles }] of held.entries()) {
  if (i % EVERY !== FROM) continue;
  const { name, title } = labelled;
  const talk = readTalk(captionsAs(labelled, 'clean'));
  const found = proposeChapters(talk, 0, undefined, turns).chapters;
  const starts = found.map((c) =>
    Math.max(
      0,
      talk.sentences.findIndex((s) => s.start >= c.start)
    )
  );
  // The titles too by a scorer that has not seen the talk.
  const chapters = titleParts(talk, starts, titles).map((heading, k) => ({
    start: found[k]?.start ?? 0,
    title: heading
  }));
  const article = extractArticle(talk, { length: 'medium', chapters, judge });
  const list = (given: readonly { start: number; title: string }[]) =>
    given.map((c) => `- ${timeCode(c.start)} ${c.title}`).join('\n');
  const text = [
    `# ${title}`,
    `Made from [the talk](../../bin/train/speech/talks/${name}.txt), ${talk.words.length} words, by models that had not seen it. The body has ${article.words}.`,
    `## Chapters found\n\n${list(chapters)}`,
    `## Chapters of an editor\n\n${list(labelled.chapters)}`,
    `## Summary\n\n${article.summary.map((s) => s.text).join(' ')}`,
    `## Takeaways\n\n${article.takeaways.map((s) => `- ${s.text}`).join('\n')}`,
    `## Article\n\n${article.body.map(blockText).filter(Boolean).join('\n\n')}`
  ].join('\n\n');
  writeFileSync(`${FOLDER}/${name}.md`, `${text}\n`);
}
