import type { Chapter } from '../chapters/chapter.ts';
import { ANAPHORA } from '../language/english.ts';
import type { Talk } from '../language/talk.ts';
import { usualRate } from '../language/vectors.ts';
import { bare } from '../captions/words.ts';
import { writeSentence, type LeftOutReason, type WrittenWord } from './spoken.ts';

export type ArticleLength = 'short' | 'medium' | 'long';

/** A sentence of the article: word for word from the talk, less what only speech needs. */
export interface DrawnSentence {
  text: string;
  /** Seconds of the video in which it is said. */
  start: number;
  end: number;
  /** Index of the sentence of the talk. */
  from: number;
}

export type DrawnBlock =
  | { kind: 'heading'; text: string; start: number; end: number }
  | { kind: 'paragraph'; sentences: DrawnSentence[] }
  | { kind: 'list'; items: DrawnSentence[] }
  | { kind: 'picture'; url: string; alt: string; start: number };

/** A picture for the article; `at` is the second it shows, where that is known. */
export interface GivenPicture {
  url: string;
  alt: string;
  at?: number;
}

export interface DrawnArticle {
  summary: DrawnSentence[];
  takeaways: DrawnSentence[];
  body: DrawnBlock[];
  quote: DrawnSentence | null;
  /** Every sentence of the talk that is not in the body, and why. */
  leftOut: { sentence: number; reason: LeftOutReason }[];
  /** Words in the body. */
  words: number;
  /** Words that the talk is about, most telling first. */
  subject: string[];
}

export interface DrawOptions {
  length: ArticleLength;
  chapters: readonly Chapter[];
  pictures?: readonly GivenPicture[];
}

interface Candidate {
  index: number;
  words: WrittenWord[];
  stems: ReadonlySet<string>;
  score: number;
  leans: boolean;
  chapter: number;
}

/** Share of the talk, and fewest and most words, of each length. */
const LENGTHS: Record<ArticleLength, { share: number; least: number; most: number }> = {
  short: { share: 0.2, least: 110, most: 420 },
  medium: { share: 0.45, least: 200, most: 1300 },
  long: { share: 1, least: 0, most: Infinity }
};

/** Sentences below which there is no summary, no takeaways and no quotation. */
const FEW = 5;

/** Words that the body may have at a length, for a talk of so many. */
export const wordsWanted = (talkWords: number, length: ArticleLength): number => {
  const { share, least, most } = LENGTHS[length];
  return Math.round(Math.min(most, Math.max(least, talkWords * share)));
};

/**
 * Draws an article from a talk: the most telling sentences, in their order, under the headings of
 * the chapters. Nothing is invented: each sentence is one of the talk's, shortened by rule.
 */
export function drawArticle(talk: Talk, options: DrawOptions): DrawnArticle {
  const leftOut = new Map<number, LeftOutReason>();
  const subject = subjectOf(talk);
  const candidates = writeAll(talk, options.chapters, subject, leftOut);
  const chosen = choose(candidates, wordsWanted(talk.words.length, options.length), leftOut);
  const varied = withoutOveruse(talk, chosen, subject, leftOut);
  const sentenceOf = (c: Candidate) => drawn(talk, c);
  // Of a few sentences nothing need be summed up: it would be said twice.
  const summed = candidates.length < FEW ? [] : candidates;
  const summary = pickSummary(talk, summed, subject);
  const used = new Set(summary.map((c) => c.index));
  const takeaways = pickTakeaways(talk, summed, used);
  for (const c of takeaways) used.add(c.index);
  const quote = pickQuote(talk, summed, used);
  const body = layOut(talk, varied, options);
  return {
    summary: summary.map(sentenceOf),
    takeaways: takeaways.map(sentenceOf),
    body,
    quote: quote && sentenceOf(quote),
    leftOut: [...leftOut]
      .map(([sentence, reason]) => ({ sentence, reason }))
      .sort((a, b) => a.sentence - b.sentence),
    words: varied.reduce((sum, c) => sum + c.words.length, 0),
    subject
  };
}

/** The stems that the talk comes back to most, for how usual they are. */
function subjectOf(talk: Talk): string[] {
  const counts = new Map<string, number>();
  for (const stem of talk.stems.flat()) counts.set(stem, (counts.get(stem) ?? 0) + 1);
  const total = Math.max(1, talk.words.length);
  return [...counts]
    .filter(([, n]) => n > 1)
    .map(([stem, n]) => {
      const expected = (total * (talk.language.code === 'en' ? usualRate(stem) : 0.05)) / 1000;
      return { stem, n, score: n * Math.log(Math.max(1.01, n / expected)) };
    })
    .sort((a, b) => b.score - a.score)
    .slice(0, Math.max(8, Math.round(Math.sqrt(total))))
    .map(({ stem }) => stem);
}

function writeAll(
  talk: Talk,
  chapters: readonly Chapter[],
  subject: readonly string[],
  leftOut: Map<number, LeftOutReason>
): Candidate[] {
  const weight = new Map(subject.map((stem, rank) => [stem, 1 / (1 + rank / 6)]));
  return talk.sentences.flatMap((sentence, index) => {
    const written = writeSentence(talk, index);
    if ('leftOut' in written) {
      leftOut.set(index, written.leftOut);
      return [];
    }
    const stems = new Set(talk.stems[index]);
    const told = [...stems].reduce((sum, stem) => sum + (weight.get(stem) ?? 0.12), 0);
    const { words } = written;
    const text = words.map((w) => bare(w.text)).join(' ');
    const length = words.length;
    const score =
      told / Math.sqrt(4 + length) -
      (/\b(?:this one|here|like this|like that|over there)\b/.test(text) ? 0.35 : 0) -
      (/\?$/.test(words.at(-1)?.text ?? '') ? 0.25 : 0) -
      (length < 6 ? 0.2 : 0) -
      (length > 38 ? 0.3 : 0) +
      (/\b(?:because|so that|if|never|always|must|should|instead|means|called|which is)\b/.test(
        text
      )
        ? 0.18
        : 0) +
      (/\d/.test(text) ? 0.08 : 0);
    const head = bare(words[0]?.text ?? '');
    const chapter = chapters.findLastIndex((c) => c.start <= sentence.start + 1);
    return [
      { index, words, stems, score, leans: leansBack(talk, head), chapter: Math.max(0, chapter) }
    ];
  });
}

const LEANS_GERMAN = new Set(
  'er sie es das dies diese dieser dann deshalb darum dabei damit'.split(' ')
);
const leansBack = (talk: Talk, head: string): boolean =>
  talk.language.code === 'en'
    ? ANAPHORA.has(head) ||
      /^(?:it's|that's|they're|he's|she's|those|otherwise|or|but|because|which|then)$/.test(head)
    : talk.language.code === 'de' && LEANS_GERMAN.has(head);

/** Share of stems that two sentences have in common, from which on they say the same. */
const SAME = 0.62;

function choose(
  candidates: readonly Candidate[],
  wanted: number,
  leftOut: Map<number, LeftOutReason>
): Candidate[] {
  const fresh: Candidate[] = [];
  const byStem = new Map<string, Candidate[]>();
  for (const c of candidates) {
    const near = new Set([...c.stems].flatMap((stem) => byStem.get(stem) ?? []));
    if (c.stems.size >= 3 && [...near].some((other) => likeness(c.stems, other.stems) >= SAME)) {
      leftOut.set(c.index, 'said-twice');
      continue;
    }
    fresh.push(c);
    for (const stem of c.stems) byStem.set(stem, [...(byStem.get(stem) ?? []), c]);
  }
  const position = new Map(fresh.map((c, i) => [c, i]));
  const taken = new Set<Candidate>();
  let words = 0;
  /** A sentence that leans is taken together with what it leans on. */
  const chain = (c: Candidate): Candidate[] | null => {
    const links = [c];
    for (let first = c; first.leans;) {
      const before = fresh[(position.get(first) ?? 0) - 1];
      // Where what it leans on was left out, it cannot stand.
      if (!before || before.index !== first.index - 1 || before.chapter !== first.chapter)
        return null;
      if (taken.has(before)) break;
      links.unshift(before);
      first = before;
    }
    return links;
  };
  const share = wordsByChapter(fresh, wanted);
  const spent = new Map<number, number>();
  const order = [...fresh].sort((a, b) => b.score - a.score);
  for (const round of ['chapters', 'rest'] as const) {
    for (const c of order) {
      if (taken.has(c)) continue;
      const links = chain(c);
      if (!links) continue;
      const length = links.reduce((sum, link) => sum + link.words.length, 0);
      const room =
        round === 'chapters'
          ? (share.get(c.chapter) ?? 0) - (spent.get(c.chapter) ?? 0)
          : wanted - words;
      if (length > room * 1.1 && !(round === 'chapters' && !spent.has(c.chapter) && length < 60))
        continue;
      for (const link of links) taken.add(link);
      words += length;
      spent.set(c.chapter, (spent.get(c.chapter) ?? 0) + length);
    }
  }
  for (const c of fresh) {
    if (!taken.has(c)) leftOut.set(c.index, chain(c) ? 'over-length' : 'leans');
  }
  return fresh.filter((c) => taken.has(c));
}

function wordsByChapter(candidates: readonly Candidate[], wanted: number): Map<number, number> {
  const said = new Map<number, number>();
  for (const c of candidates) said.set(c.chapter, (said.get(c.chapter) ?? 0) + c.words.length);
  const all = [...said.values()].reduce((sum, n) => sum + n, 0) || 1;
  return new Map([...said].map(([chapter, n]) => [chapter, (wanted * n) / all]));
}

function likeness(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  let both = 0;
  for (const stem of a) if (b.has(stem)) both++;
  return both / (a.size + b.size - both || 1);
}

/** Adverbs that can go without loss. */
const EMPTY_WORDS = new Set(
  'really just very quite actually simply basically literally definitely totally absolutely completely pretty certainly perhaps maybe always even also still already probably usually'.split(
    ' '
  )
);
/** A word is overused from so many uses on, when they are this many times its usual rate. */
const OVERUSE = { fewest: 4, times: 3 };

/** Takes out adverbs, then the least telling sentences, where a word is used far too often. */
function withoutOveruse(
  talk: Talk,
  chosen: Candidate[],
  subject: readonly string[],
  leftOut: Map<number, LeftOutReason>
): Candidate[] {
  if (talk.language.code !== 'en') return chosen;
  const about = new Set(subject);
  let kept = chosen;
  for (let round = 0; round < 40; round++) {
    const word = overused(talk, kept, about)[0];
    if (!word) return kept;
    if (EMPTY_WORDS.has(word)) {
      kept = kept.map((c) => ({ ...c, words: withoutWord(c.words, word) }));
      continue;
    }
    const needed = new Set(
      kept.filter((c, i) => c.leans && kept[i - 1]?.index === c.index - 1).map((c) => c.index - 1)
    );
    const users = kept
      .filter((c) => c.words.some((w) => bare(w.text) === word) && !needed.has(c.index))
      .sort((a, b) => a.score - b.score);
    const worst = users[0];
    if (!worst) return kept;
    leftOut.set(worst.index, 'repeats');
    kept = kept.filter((c) => c !== worst);
  }
  return kept;
}

/** Words used far above their usual rate that the talk is not about, worst first. */
export function overused(
  talk: Pick<Talk, 'language'>,
  sentences: readonly { words: readonly WrittenWord[] }[],
  about: ReadonlySet<string>
): string[] {
  const counts = new Map<string, number>();
  let total = 0;
  for (const { words } of sentences)
    for (const w of words) {
      const word = bare(w.text);
      counts.set(word, (counts.get(word) ?? 0) + 1);
      total++;
    }
  return [...counts]
    .filter(([word, n]) => {
      if (n < OVERUSE.fewest || about.has(talk.language.stem(word))) return false;
      // Pronouns, verbs and articles of speech are no fault of style.
      if (talk.language.stops.has(word) && !EMPTY_WORDS.has(word)) return false;
      return (n * 1000) / total > OVERUSE.times * Math.max(usualRate(word), 0.3);
    })
    .sort((a, b) => b[1] / usualRate(b[0]) - a[1] / usualRate(a[0]))
    .map(([word]) => word);
}

function withoutWord(words: WrittenWord[], word: string): WrittenWord[] {
  if (words.length < 5) return words;
  const kept = words.filter(
    (w, i) => bare(w.text) !== word || /[.!?,;:]$/.test(w.text) || i === words.length - 1
  );
  const first = kept[0];
  if (first && first !== words[0])
    kept[0] = { ...first, text: first.text.replace(/\p{L}/u, (c) => c.toUpperCase()) };
  return kept;
}

const textOf = (words: readonly WrittenWord[]): string => words.map((w) => w.text).join(' ');

function drawn(talk: Talk, { index, words }: Candidate): DrawnSentence {
  const first = talk.words[words[0]?.at ?? 0];
  const last = talk.words[words.at(-1)?.at ?? 0];
  return { text: textOf(words), start: first?.start ?? 0, end: last?.end ?? 0, from: index };
}

const AIM =
  /\b(?:today|this video|this post|going to (?:show|make|learn|talk|look|wind|build|teach|walk)|i(?:'ll| will) show|how to|we're going to|we are going to|in this|heute|zeige)\b/;

function pickSummary(
  talk: Talk,
  candidates: readonly Candidate[],
  subject: readonly string[]
): Candidate[] {
  const fit = candidates.filter(
    (c) =>
      c.words.length >= 7 &&
      c.words.length <= 32 &&
      !c.leans &&
      !/\?$/.test(c.words.at(-1)?.text ?? '')
  );
  const total = talk.sentences.length || 1;
  const opening = fit
    .filter((c) => c.index < Math.max(6, total * 0.15))
    .map((c) => ({
      c,
      score: c.score + (AIM.test(textOf(c.words).toLowerCase()) ? 0.8 : 0) - c.index / total
    }))
    .sort((a, b) => b.score - a.score)[0]?.c;
  const picked = opening ? [opening] : [];
  const covered = new Set(picked.flatMap((c) => [...c.stems]));
  const weight = new Map(subject.map((stem, rank) => [stem, 1 / (1 + rank / 4)]));
  const wanted = talk.words.length > 220 ? 3 : 2;
  while (picked.length < wanted) {
    const next = fit
      .filter((c) => !picked.includes(c) && picked.every((p) => likeness(p.stems, c.stems) < 0.4))
      .map((c) => {
        const news = [...c.stems].reduce(
          (sum, s) => sum + (covered.has(s) ? 0.2 : 1) * (weight.get(s) ?? 0.05),
          0
        );
        return { c, score: news / Math.sqrt(6 + c.words.length) + 0.3 * c.score };
      })
      .sort((a, b) => b.score - a.score)[0]?.c;
    if (!next) break;
    picked.push(next);
    for (const stem of next.stems) covered.add(stem);
  }
  return picked.sort((a, b) => a.index - b.index);
}

const ADVICE =
  /\b(?:never|always|must|should|don't|do not|need to|have to|has to|important|the rule|the trick|because|so that|instead|better|make sure|only)\b/;

function pickTakeaways(
  talk: Talk,
  candidates: readonly Candidate[],
  used: ReadonlySet<number>
): Candidate[] {
  const fit = candidates
    .filter((c) => !used.has(c.index) && !c.leans && c.words.length >= 6 && c.words.length <= 24)
    .filter((c) => !/\?$/.test(c.words.at(-1)?.text ?? ''))
    .map((c) => {
      const isImperative =
        /^VERB$/.test(talk.tags[c.words[0]?.at ?? -1] ?? '') &&
        !/(?:ed|ing|s)$/.test(bare(c.words[0]?.text ?? ''));
      const bonus =
        (ADVICE.test(textOf(c.words).toLowerCase()) ? 0.4 : 0) + (isImperative ? 0.25 : 0);
      return { c, score: c.score + bonus };
    })
    .sort((a, b) => b.score - a.score);
  const picked: Candidate[] = [];
  const most = Math.min(5, Math.max(2, Math.round(talk.words.length / 160)));
  for (const { c } of fit) {
    if (picked.length >= most) break;
    const inChapter = picked.filter((p) => p.chapter === c.chapter).length;
    if (inChapter >= Math.max(1, Math.ceil(most / 4))) continue;
    if (picked.some((p) => likeness(p.stems, c.stems) > 0.35 || sameOpening(p.words, c.words)))
      continue;
    picked.push(c);
  }
  return picked.sort((a, b) => a.index - b.index);
}

function pickQuote(
  talk: Talk,
  candidates: readonly Candidate[],
  used: ReadonlySet<number>
): Candidate | null {
  const fit = candidates
    .filter((c) => !used.has(c.index) && !c.leans && c.words.length >= 6 && c.words.length <= 22)
    .map((c) => {
      const text = textOf(c.words).toLowerCase();
      const turn =
        /\b(?:but|not|never|than|without|only|nothing|everybody|nobody|half|whole)\b/.test(text)
          ? 0.4
          : 0;
      return { c, score: c.score + turn - (/\?$/.test(text) ? 0.5 : 0) };
    })
    .sort((a, b) => b.score - a.score);
  return fit[0]?.c ?? null;
}

const opening = (words: readonly WrittenWord[]): string =>
  words
    .slice(0, 3)
    .map((w) => bare(w.text))
    .join(' ');
const sameOpening = (a: readonly WrittenWord[], b: readonly WrittenWord[]): boolean =>
  opening(a) === opening(b);

/** Words after which a paragraph ends, and silence in seconds that suggests a new one. */
const PARAGRAPH = { words: 75, least: 25, pause: 0.9 };

function layOut(talk: Talk, chosen: readonly Candidate[], options: DrawOptions): DrawnBlock[] {
  const { chapters } = options;
  const blocks: DrawnBlock[] = [];
  const pictures = inOrder(options.pictures ?? [], chapters);
  const openings = new Set<string>();

  const count = Math.max(1, chapters.length);
  for (let k = 0; k < count; k++) {
    const rows = chosen.filter((c) => c.chapter === k);
    const next = chapters[k + 1]?.start ?? Infinity;
    const due = () => {
      const shown: DrawnBlock[] = [];
      while (pictures[0] && pictures[0].start < next) {
        const picture = pictures.shift();
        if (picture) shown.push({ kind: 'picture', ...picture });
      }
      return shown;
    };
    const heading = chapters[k];
    if (rows.length > 0 && heading && chapters.length > 1) {
      const last = drawn(talk, rows.at(-1) as Candidate);
      blocks.push({ kind: 'heading', text: heading.title, start: heading.start, end: last.end });
    }
    for (const group of groups(talk, rows)) {
      const sentences = group.rows.map((c) => drawn(talk, c));
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
function varyOpening(sentences: DrawnSentence[], openings: ReadonlySet<string>): DrawnSentence[] {
  const fresh = sentences.findIndex((s) => !openings.has(openingOfText(s.text)));
  return fresh > 0 ? sentences.slice(fresh) : fresh === 0 ? sentences : [];
}

function groups(talk: Talk, rows: readonly Candidate[]): { rows: Candidate[]; isList: boolean }[] {
  const found: { rows: Candidate[]; isList: boolean }[] = [];
  for (let i = 0; i < rows.length;) {
    let end = i;
    while (end < rows.length && isStep(talk, rows[end] as Candidate)) end++;
    if (end - i >= 3) {
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
      (row.leans ||
        length < PARAGRAPH.least ||
        (length < PARAGRAPH.words && silence < PARAGRAPH.pause));
    if (joins) last.rows.push(row);
    else found.push({ rows: [row], isList: false });
    i++;
  }
  return found;
}

/** A step that is told: it begins with what to do. */
function isStep(talk: Talk, { words }: Candidate): boolean {
  const skip = /^(?:then|first|next|finally|now)$/.test(bare(words[0]?.text ?? '')) ? 1 : 0;
  const word = words[skip];
  if (!word || words.length >= 30 || /(?:ed|ing|[^s]s)$/.test(bare(word.text))) return false;
  const [tag, next] = [talk.tags[word.at], talk.tags[word.at + 1]];
  // "Wind the yarn": a noun right before an article is a verb after all.
  return tag === 'VERB' || (tag === 'NOUN' && next === 'DET');
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
