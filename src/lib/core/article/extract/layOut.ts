import type { Chapter } from '../../chapters/chapter.ts';
import type { Talk } from '../../text/talk.ts';
import { bare } from '../../text/bare.ts';
import { extracted, opening, type Candidate } from './candidate.ts';
import type { ArticleBlock, ArticleSentence, ComparisonRow } from './article.ts';
import type { GivenPicture } from './givenPicture.ts';
import { FEWEST_STEPS, isStep } from './steps.ts';
import { comparisonsIn, type ToldFigure } from './comparison.ts';

/** Words after which a paragraph ends, and silence in seconds that suggests a new one. */
const PARAGRAPH = { words: 75, least: 25, pause: 0.9 };

/** The chosen sentences under the headings of their chapters: paragraphs, lists of steps and pictures. */
export function layOut(
  talk: Talk,
  chosen: readonly Candidate[],
  chapters: readonly Chapter[],
  given: readonly GivenPicture[]
): ArticleBlock[] {
  const blocks: ArticleBlock[] = [];
  const pictures = inOrder(given, chapters);
  const openings = new Set<string>();

  const count = Math.max(1, chapters.length);
  for (let k = 0; k < count; k++) {
    const rows = chosen.filter((c) => c.chapter === k);
    const next = chapters[k + 1]?.start ?? Infinity;
    const due = () => {
      const shown: ArticleBlock[] = [];
      while (pictures[0] && pictures[0].start < next) {
        const picture = pictures.shift();
        if (picture) shown.push({ kind: 'picture', ...picture });
      }
      return shown;
    };
    const heading = chapters[k];
    if (rows.length > 0 && heading && chapters.length > 1) {
      const last = extracted(talk, rows.at(-1) as Candidate);
      blocks.push({ kind: 'heading', text: heading.title, start: heading.start, end: last.end });
    }
    for (const group of withTables(talk, rows)) {
      if ('table' in group) {
        blocks.push({ kind: 'table', rows: group.table });
        continue;
      }
      const sentences = group.rows.map((c) => extracted(talk, c));
      if (group.isList) {
        blocks.push({ kind: 'list', items: sentences });
        continue;
      }
      const head = opening(group.rows[0]?.words ?? []);
      const before = blocks.at(-1);
      // No two paragraphs open alike: the second joins the one before, or begins a sentence later.
      if (openings.has(head)) {
        if (before?.kind === 'paragraph') before.sentences.push(...sentences);
        else blocks.push({ kind: 'paragraph', sentences: varyOpening(sentences, openings) });
      } else blocks.push({ kind: 'paragraph', sentences });
      const added = blocks.at(-1);
      if (added?.kind === 'paragraph') openings.add(openingOfText(added.sentences[0]?.text ?? ''));
    }
    blocks.push(...due());
  }
  return blocks.filter((b) => b.kind !== 'paragraph' || b.sentences.length > 0);
}

const openingOfText = (text: string): string => text.split(/\s+/).slice(0, 3).map(bare).join(' ');

/** Under a heading there is nothing to join, so a sentence with a fresh opening goes first. */
function varyOpening(
  sentences: ArticleSentence[],
  openings: ReadonlySet<string>
): ArticleSentence[] {
  const fresh = sentences.findIndex((s) => !openings.has(openingOfText(s.text)));
  return fresh > 0 ? sentences.slice(fresh) : fresh === 0 ? sentences : [];
}

/** Groups of sentences, with tables after those that tell their last figures. */
function withTables(
  talk: Talk,
  rows: readonly Candidate[]
): ({ rows: Candidate[]; isList: boolean } | { table: ComparisonRow[] })[] {
  const tables = comparisonsIn(talk, rows);
  // What a table says whole need not be said again.
  const shown = tables.flat();
  const told = new Set(
    shown
      .filter(({ from, toldWith }) => shown.filter((f) => f.from === from).length === toldWith)
      .map(({ from }) => from)
  );
  const found: ReturnType<typeof withTables> = [];
  let from = 0;
  for (const table of tables) {
    const to = rows.indexOf((table.at(-1) as ToldFigure).from) + 1;
    found.push(
      ...groups(
        talk,
        rows.slice(from, to).filter((row) => !told.has(row))
      ),
      {
        table: table.map(({ name, value, from: row }) => {
          const { start, end, from: index } = extracted(talk, row);
          return { name, value, start, end, from: index };
        })
      }
    );
    from = to;
  }
  return [...found, ...groups(talk, rows.slice(from))];
}

function groups(talk: Talk, rows: readonly Candidate[]): { rows: Candidate[]; isList: boolean }[] {
  const found: { rows: Candidate[]; isList: boolean }[] = [];
  for (let i = 0; i < rows.length;) {
    let end = i;
    while (end < rows.length && isStep(talk, rows[end] as Candidate)) end++;
    if (end - i >= FEWEST_STEPS) {
      found.push({ rows: rows.slice(i, end), isList: true });
      i = end;
      continue;
    }
    const row = rows[i] as Candidate;
    const last = found.at(-1);
    const length = last?.rows.reduce((sum, c) => sum + c.words.length, 0) ?? 0;
    const before = last?.rows.at(-1);
    const silence = before
      ? (talk.sentences[row.index]?.start ?? 0) - (talk.sentences[row.index - 1]?.end ?? 0)
      : 0;
    const joins =
      last &&
      !last.isList &&
      (row.dependsOnPrevious ||
        length < PARAGRAPH.least ||
        (length < PARAGRAPH.words && silence < PARAGRAPH.pause));
    if (joins) last.rows.push(row);
    else found.push({ rows: [row], isList: false });
    i++;
  }
  return found;
}

/** Pictures by the second they show; those without one are spread over the chapters in their order. */
function inOrder(
  pictures: readonly GivenPicture[],
  chapters: readonly Chapter[]
): { url: string; alt: string; start: number }[] {
  let least = 0;
  return pictures.map(({ url, alt, at }, i) => {
    const spread = chapters[Math.floor((i * chapters.length) / pictures.length)]?.start ?? 0;
    // A picture never goes before one that was given before it.
    least = Math.max(least, at ?? spread);
    return { url, alt, start: least };
  });
}
