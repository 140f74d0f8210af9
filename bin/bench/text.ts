import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { extractArticle } from '../../src/lib/core/article/extract/extract.ts';
import { overused } from '../../src/lib/core/article/extract/overuse.ts';
import type { Cue } from '../../src/lib/core/captions/cue.ts';
import { wordsOfCue } from '../../src/lib/core/captions/words.ts';
import { bare } from '../../src/lib/core/text/bare.ts';
import { proposeChapters } from '../../src/lib/core/chapters/propose.ts';
import { segmentText } from '../../src/lib/core/chapters/segment.ts';
import { readTalk, type Talk } from '../../src/lib/core/text/talk.ts';
import { seeded } from '../../src/lib/core/testing.ts';
import { brownFiles } from '../train/brown.ts';
import { report } from './report.ts';
import { demoTalks, evenLines, longCaptions, stripped } from './talks.ts';

const talkOf = (cues: Cue[]): Talk =>
  readTalk({ cues, unreadable: [], format: 'vtt', isTimed: true });

/** Hits, what was said and what is right, summed over talks. */
class Score {
  hits = 0;
  said = 0;
  right = 0;
  add(hits: number, said: number, right: number): void {
    this.hits += hits;
    this.said += said;
    this.right += right;
  }
  get f1(): number {
    return (2 * this.hits) / Math.max(1, this.said + this.right);
  }
  toString(): string {
    const share = (n: number) => (this.hits / Math.max(1, n)).toFixed(2);
    return `F1 ${this.f1.toFixed(3)} (precision ${share(this.said)}, recall ${share(this.right)})`;
  }
}

export function benchText(): void {
  benchSubjects();
  benchSentences();
  benchChapters();
  benchRepetition();
  benchSpeed();
}

/** Error of a division (Beeferman, Berger and Lafferty 1999): 0 is right, 0.5 is chance. */
function pk(right: readonly number[], said: readonly number[], length: number): number {
  const partOf = (starts: readonly number[]) => {
    const begins = new Set(starts);
    let part = 0;
    return Array.from({ length }, (_, i) => (begins.has(i) ? ++part : part));
  };
  const [a, b] = [partOf(right), partOf(said)];
  const apart = Math.max(1, Math.round(length / right.length / 2));
  let wrong = 0;
  for (let i = 0; i + apart < length; i++)
    if ((a[i] === a[i + apart]) !== (b[i] === b[i + apart])) wrong++;
  return wrong / Math.max(1, length - apart);
}

/** Choi's design (2000): ten parts, each the first 3 to 11 sentences of a random Brown file. */
function benchSubjects(): void {
  const files = brownFiles('report');
  const chance = seeded(2026);
  const runs = 400;
  let [error, even, parts] = [0, 0, 0];
  for (let run = 0; run < runs; run++) {
    const text: string[] = [];
    const starts: number[] = [];
    const used = new Set<number>();
    while (starts.length < 10) {
      const file = Math.floor(chance() * files.length);
      if (used.has(file)) continue;
      used.add(file);
      starts.push(text.length);
      text.push(...(files[file] ?? []).slice(0, 3 + Math.floor(chance() * 9)));
    }
    const found = segmentText(text);
    const evenly = Array.from({ length: 10 }, (_, i) => Math.round((i * text.length) / 10));
    error += pk(starts, found, text.length) / runs;
    even += pk(starts, evenly, text.length) / runs;
    parts += found.length / runs;
  }
  report(
    `Where ${runs} texts of ten parts from the reporting half of the Brown corpus change their subject, number of parts not given`,
    'mean Pk at most 0.08',
    `${error.toFixed(4)} with ${parts.toFixed(1)} parts found (cut evenly: ${even.toFixed(3)})`,
    error <= 0.08
  );
}

function benchSentences(): void {
  const ways: [string, (cues: Cue[]) => Cue[], number | null][] = [
    ['with their times', stripped, 0.7],
    ['in even lines without pauses', (cues) => evenLines(stripped(cues)), null]
  ];
  for (const [how, way, bar] of ways) {
    const score = new Score();
    for (const { speech, isEnglish, hasStops } of demoTalks()) {
      if (!isEnglish || !hasStops) continue;
      const words = speech.cues.flatMap((cue, i) => wordsOfCue(cue, i)).filter((w) => bare(w.text));
      const right = new Set(words.flatMap((w, i) => (/[.!?]["”’)]*$/.test(w.text) ? [i] : [])));
      const { sentences } = readTalk(
        { cues: way(speech.cues), unreadable: [], format: 'vtt', isTimed: true },
        { tidy: { soundNotes: false, speakers: false, fillers: false, stutters: false } }
      );
      const said = sentences.map((s) => s.to - 1);
      score.add(said.filter((i) => right.has(i)).length, said.length, right.size);
    }
    report(
      `Sentence ends restored on the English talks of the demo world, captions stripped of marks and case, ${how}`,
      bar === null ? '(none set)' : `F1 at least ${bar.toFixed(2)}`,
      String(score),
      bar === null || score.f1 >= bar
    );
  }
}

/** Seconds within which a start is found. */
const NEAR = 15;

function benchChapters(): void {
  const ways: [string, (cues: Cue[]) => Cue[], number | null][] = [
    ['as they are', (cues) => cues, 0.65],
    ['stripped of marks and case', stripped, 0.6],
    ['stripped, in even lines without pauses', (cues) => evenLines(stripped(cues)), null]
  ];
  for (const [how, way, bar] of ways) {
    const halves = { tune: new Score(), report: new Score(), even: new Score() };
    for (const { speech, half } of demoTalks()) {
      const right = speech.chapters.slice(1).map((c) => c.start);
      const found = proposeChapters(talkOf(way(speech.cues)), speech.duration).chapters;
      const said = found.slice(1).map((c) => c.start);
      halves[half].add(hits(right, said), said.length, right.length);
      const n = right.length + 1;
      const even = right.map((_, i) => ((i + 1) * speech.duration) / n);
      if (half === 'report') halves.even.add(hits(right, even), even.length, right.length);
    }
    report(
      `Chapter starts on the reporting half of the demo talks, within 15 s, captions ${how}`,
      bar === null ? '(none set)' : `F1 at least ${bar.toFixed(2)}`,
      `${halves.report}; tuning half ${halves.tune.f1.toFixed(3)}; cut evenly ${halves.even.f1.toFixed(3)}`,
      bar === null || halves.report.f1 >= bar
    );
  }
}

function hits(right: readonly number[], said: readonly number[]): number {
  const free = new Set(said);
  return right.filter((at) => {
    const near = [...free].find((s) => Math.abs(s - at) <= NEAR);
    if (near !== undefined) free.delete(near);
    return near !== undefined;
  }).length;
}

function benchRepetition(): void {
  let [articles, words, openings] = [0, 0, 0];
  for (const { speech, isEnglish } of demoTalks()) {
    if (!isEnglish) continue;
    const talk = talkOf(stripped(speech.cues));
    const { chapters } = proposeChapters(talk, speech.duration);
    for (const length of ['short', 'medium', 'long'] as const) {
      const article = extractArticle(talk, { length, chapters });
      const blocks = article.body.flatMap((b) =>
        b.kind === 'paragraph' ? [b.sentences] : b.kind === 'list' ? [b.items] : []
      );
      const sentences = blocks.flat().map((s) => ({
        words: s.text.split(/\s+/).map((text) => ({ text, at: 0 }))
      }));
      articles++;
      words += overused(talk, sentences, new Set(article.subject)).length;
      const heads = article.body.flatMap((b) =>
        b.kind === 'paragraph'
          ? [(b.sentences[0]?.text ?? '').split(/\s+/).slice(0, 3).map(bare).join(' ')]
          : []
      );
      openings += heads.length - new Set(heads).size;
    }
  }
  report(
    `${articles} articles from rough transcripts: words over three times their usual rate that are not the subject, and paragraphs with the same first three words`,
    'none of either',
    `${words} words, ${openings} paragraphs`,
    words === 0 && openings === 0
  );
}

function benchSpeed(): void {
  setFlagsFromString('--expose-gc');
  const collect = runInNewContext('gc') as () => void;
  const held = (): number => {
    collect();
    const { heapUsed, arrayBuffers } = process.memoryUsage();
    return (heapUsed + arrayBuffers) / 1e6;
  };
  const run = (words: number): { time: number; memory: number } => {
    const cues = longCaptions(words);
    const before = held();
    const from = performance.now();
    const talk = talkOf(cues);
    const { chapters } = proposeChapters(talk);
    const article = extractArticle(talk, { length: 'medium', chapters });
    const time = performance.now() - from;
    const memory = held() - before;
    return { time, memory: article.words > 0 && talk.words.length > 0 ? memory : NaN };
  };
  run(2000);
  const [one, three] = [run(9000), run(27_000)];
  report(
    'One hour of captions (9,000 words, no marks) to sentences, chapters and article, on Node',
    'under 1 s',
    `${Math.round(one.time)} ms, ${Math.round(one.memory)} MB held by the talk and its article`,
    one.time < 1000
  );
  report(
    'Three hours (27,000 words) of the same',
    'under 3 s',
    `${Math.round(three.time)} ms, ${Math.round(three.memory)} MB held by the talk and its article`,
    three.time < 3000
  );
}
