/**
 * How well talks become sentences, chapters and articles, on the talks of bin/train/speech: what learns
 * from them is learned anew without each talk that it is measured on (four parts of whole talks).
 * Sentence ends and the chapters of automatic captions need models of sentences that take an hour to
 * learn: `npm run train:folds` once; without them these figures are left out.
 */
import { withoutAntecedent } from './antecedents.ts';
import { existsSync, readFileSync } from 'node:fs';
import { extractArticle } from '../../src/lib/core/article/extract/extract.ts';
import type { Article, ArticleSentence } from '../../src/lib/core/article/extract/article.ts';
import type { Judge } from '../../src/lib/core/article/extract/judge.ts';
import { bare } from '../../src/lib/core/text/bare.ts';
import { proposeChapters } from '../../src/lib/core/chapters/propose.ts';
import { titleParts } from '../../src/lib/core/chapters/titles.ts';
import type { SentenceWeights } from '../../src/lib/core/text/sentenceModel.ts';
import { readTalk, type Talk } from '../../src/lib/core/text/talk.ts';
import { readWeights } from '../../src/lib/core/text/weights.ts';
import type { Scorer } from '../../src/lib/core/text/scorer.ts';
import { judged, learnJudge } from '../train/judge.ts';
import {
  captionsAs,
  fold,
  furtherTalks,
  labelledTalks,
  type CaptionKind,
  type LabelledTalk
} from '../train/speech.ts';
import { editorStarts, learnTitles, termsOf, titleStems } from '../train/titles.ts';
import { learnTurns, turnsOf } from '../train/turns.ts';
import { report } from './report.ts';

export const FOLDS = 4;
const WHERE = 'on talks that were held out';

interface Held {
  labelled: LabelledTalk;
  judge: Judge;
  turns: Scorer;
  titles: Scorer;
  sentenceModel: SentenceWeights | undefined;
}

/** The model of sentences that was learned without a part of the talks. */
export function foldModel(n: number): SentenceWeights | undefined {
  const file = `node_modules/.cache/speech/fold-${n}.json`;
  return existsSync(file) ? readWeights(JSON.parse(readFileSync(file, 'utf8'))) : undefined;
}

export function heldOut(): Held[] {
  const material = (labelled: LabelledTalk) => ({
    labelled,
    judged: judged(labelled),
    terms: termsOf(labelled)
  });
  const learned = labelledTalks().map(material);
  const further = furtherTalks().map(material);
  return Array.from({ length: FOLDS }, (_, n) => {
    const { held, others: rest } = fold(learned, n, FOLDS);
    const others = [...rest, ...further];
    const sentenceModel = foldModel(n);
    const judge = learnJudge(others.map((o) => o.judged));
    const turns = learnTurns(others.flatMap((o) => turnsOf(o.labelled, sentenceModel)));
    const titles = learnTitles(others.flatMap((o) => o.terms));
    return held.map(({ labelled }) => ({ labelled, judge, turns, titles, sentenceModel }));
  }).flat();
}

export function benchSpeech(): void {
  const held = heldOut();
  benchChapters(held);
  benchTitles(held);
  benchArticles(held);
  benchSentences(held);
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);
const two = (value: number): string => value.toFixed(2);

const NEAR = 15;
/** F1 of starts within 15 s, one to one; the opening is not counted. */
export function startsF1(right: readonly number[], said: readonly number[]): number {
  const [gold, found] = [right.filter((x) => x > 5), said.filter((x) => x > 5)];
  const used = new Set<number>();
  for (const x of found) {
    const near = gold
      .map((y, i) => ({ i, off: Math.abs(x - y) }))
      .filter(({ i, off }) => off <= NEAR && !used.has(i))
      .sort((a, b) => a.off - b.off)[0];
    if (near) used.add(near.i);
  }
  return (2 * used.size) / Math.max(1, gold.length + found.length);
}

function benchChapters(held: readonly Held[]): void {
  const bars: [CaptionKind, number][] = [
    ['clean', 0.63],
    ['words', 0.58],
    ['even', 0.55]
  ];
  for (const [kind, bar] of bars) {
    if (kind !== 'clean' && !held[0]?.sentenceModel) continue;
    const rows = held.map(({ labelled, turns, sentenceModel }) => {
      const talk = readTalk(captionsAs(labelled, kind), { sentenceModel });
      const said = proposeChapters(talk, 0, undefined, turns).chapters.map((c) => c.start);
      const right = labelled.chapters.map((c) => c.start);
      const end = talk.sentences.at(-1)?.end ?? 0;
      const even = right.map((_, i) => (i * end) / right.length);
      return {
        f1: startsF1(right, said),
        even: startsF1(right, even),
        off: Math.abs(said.length - right.length) / right.length
      };
    });
    const f1 = mean(rows.map((r) => r.f1));
    const off = mean(rows.map((r) => r.off));
    report(
      `Chapter starts within 15 s ${WHERE}, captions ${kind}`,
      `mean F1 at least ${two(bar)}, parts within a third`,
      `${f1.toFixed(3)}, parts off by ${two(off)}; cut evenly ${two(mean(rows.map((r) => r.even)))}`,
      f1 >= bar && off <= 1 / 3
    );
  }
}

function benchTitles(held: readonly Held[]): void {
  const hits = held.flatMap(({ labelled, titles }) => {
    const talk = readTalk(captionsAs(labelled, 'clean'));
    return titleParts(talk, editorStarts(labelled, talk), titles).map((title, k) => {
      const wanted = titleStems(labelled.chapters[k]?.title ?? '', talk);
      return [...titleStems(title, talk)].some((stem) => wanted.has(stem)) ? 1 : 0;
    });
  });
  const share = mean(hits);
  report(
    `Titles of the editor's ${hits.length} chapters ${WHERE} that share a content word (stem) with the editor's`,
    'at least 0.60',
    two(share),
    share >= 0.6
  );
}

const inBody = (article: Article): ArticleSentence[] =>
  article.body.flatMap((b) =>
    b.kind === 'paragraph' ? b.sentences : b.kind === 'list' ? b.items : []
  );

/** Sentences truly said that a sentence takes at least half of, or that take half of it. */
function saidBy(labelled: LabelledTalk): (s: ArticleSentence) => number[] {
  const spans = labelled.ends.map((to, i) => ({
    from: labelled.words[labelled.ends[i - 1] ?? 0]!.start,
    to: labelled.words[to - 1]!.end
  }));
  return ({ start, end }) =>
    spans.flatMap((span, i) => {
      const both = Math.min(end, span.to) - Math.max(start, span.from);
      return both > 0.5 * Math.min(span.to - span.from, end - start) ? [i] : [];
    });
}

function benchArticles(held: readonly Held[]): void {
  const rows = held.map(({ labelled, judge, turns }) => {
    const talk = readTalk(captionsAs(labelled, 'clean'));
    const { chapters } = proposeChapters(talk, 0, undefined, turns);
    const article = extractArticle(talk, { length: 'medium', chapters, judge });
    const leaning = withoutAntecedent(labelled.name, inBody(article).map(saidBy(labelled)));
    return { ...judgeArticle(labelled, article), leaning };
  });
  type Figure = Exclude<keyof (typeof rows)[number], 'leaning'>;
  const of = (name: Figure) => mean(rows.map((r) => r[name]));
  report(
    `Sentences that must be in the article, that are, ${WHERE}, medium length`,
    'at least 0.68 in at most 0.44 of the words',
    `${two(of('kept'))} in ${two(of('words'))}`,
    of('kept') >= 0.68 && of('words') <= 0.44
  );
  report(
    `Sentences of the body that must not be in any article, ${WHERE}`,
    'at most 0.08',
    two(of('dropped')),
    of('dropped') <= 0.08
  );
  report(
    `Takeaways that an editor takes too, and that must not be in any article, ${WHERE}`,
    'at least 0.52, at most 0.02',
    `${two(of('takeaways'))}, ${two(of('bad'))}`,
    of('takeaways') >= 0.52 && of('bad') <= 0.02
  );
  const leaning = rows.flatMap((r) => r.leaning ?? []);
  const read = leaning.reduce((sum, l) => sum + l.read, 0);
  const lacking = leaning.reduce((sum, l) => sum + l.lacking.length, 0);
  report(
    `Sentences of the body that lean on something the article does not have, of those that were read by hand in ${leaning.length} talks`,
    'at most 0.03',
    `${two(lacking / Math.max(1, read))} (${lacking} of ${read})`,
    lacking <= 0.03 * read
  );
  report(
    `Sentences of the summary that must be in the article, ${WHERE}`,
    'at least 0.85',
    two(of('summary')),
    of('summary') >= 0.85
  );
}

export function judgeArticle(labelled: LabelledTalk, article: Article) {
  const said = saidBy(labelled);
  const { letters, takeaways } = labelled;
  const body = inBody(article).map(said);
  const have = new Set(body.flat());
  const must = letters.flatMap((letter, i) => (letter === 'K' ? [i] : []));
  const bad = (list: readonly number[][]) =>
    list.filter((ids) => ids.length > 0 && ids.every((i) => letters[i] === 'D')).length;
  const taken = article.takeaways.map(said);
  const share = (part: number, all: readonly unknown[]) => part / Math.max(1, all.length);
  return {
    kept: share(must.filter((i) => have.has(i)).length, must),
    words:
      inBody(article).reduce((n, s) => n + s.text.split(/\s+/).length, 0) / labelled.words.length,
    dropped: share(bad(body), body),
    takeaways: share(
      taken.filter((ids) => takeaways.some((t) => t.some((i) => ids.includes(i)))).length,
      taken
    ),
    bad: share(bad(taken), taken),
    summary: share(
      article.summary.filter((s) => said(s).some((i) => letters[i] === 'K')).length,
      article.summary
    )
  };
}

function benchSentences(held: readonly Held[]): void {
  if (!held.every((h) => h.sentenceModel)) return;
  const bars: [CaptionKind, number][] = [
    ['words', 0.72],
    ['gapless', 0.69],
    ['even', 0.65]
  ];
  for (const [kind, bar] of bars) {
    let [hits, found, right] = [0, 0, 0];
    for (const { labelled, sentenceModel } of held) {
      const got = endsOf(labelled, readTalk(captionsAs(labelled, kind), { sentenceModel }));
      const wanted = new Set(labelled.ends);
      hits += [...got].filter((end) => wanted.has(end)).length;
      found += got.size;
      right += wanted.size;
    }
    const f1 = (2 * hits) / (found + right);
    report(
      `Sentence ends ${WHERE}, captions ${kind}`,
      `F1 at least ${two(bar)}`,
      `${f1.toFixed(3)} (precision ${two(hits / found)}, recall ${two(hits / right)})`,
      f1 >= bar
    );
  }
}

/** Words between which the next of a reading is looked for. */
const REACH = 25;

/** Ends of the sentences of a talk as indexes into the words truly said. */
function endsOf(labelled: LabelledTalk, talk: Talk): Set<number> {
  const letters = (word: string) => bare(word).replace(/[^\p{L}\p{N}]/gu, '');
  const truth = labelled.words.map((w) => letters(w.text));
  const ends = new Set<number>();
  let at = 0;
  for (const { from, to } of talk.sentences) {
    for (let w = from; w < to; w++) {
      const word = letters(talk.plain[w] ?? '');
      const next = truth.slice(at, at + REACH).indexOf(word);
      if (next >= 0) at += next + 1;
    }
    ends.add(at);
  }
  return ends;
}
