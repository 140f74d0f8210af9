import { TITLE_LENGTHS } from './titleLengths.ts';
import { titlePhrases } from '../../chapters/titles.ts';
import type { Talk } from '../../text/talk.ts';
import type { Article } from './article.ts';

export interface TitleProposals {
  /** At most 60 characters each. */
  short: string[];
  /** At most 80. */
  long: string[];
}

const LEADS = /^(?:hi|hello|hey|so|okay|now|and|well)[,\s]+/i;

/** Five titles of each length, from the video's title and what the talk is about. */
export function proposeTitles(talk: Talk, videoTitle: string): TitleProposals {
  const title = tidyTitle(videoTitle);
  const phrases = titlePhrases(talk, 12);
  const head = title.split(/(?:(?<!\s)\s+)?[:–—|]\s*|,\s+/)[0] ?? title;
  const raw = [
    title,
    ...phrases.slice(0, 6).map((phrase) => `${head}: ${lower(phrase)}`),
    ...phrases.slice(0, 5).map((phrase) => `${phrase}: ${lower(head)}`),
    ...phrases
      .slice(0, 4)
      .map((phrase, i) => `${head}: ${lower(phrase)} and ${lower(phrases[i + 1] ?? phrase)}`),
    head,
    ...phrases
  ];
  return {
    short: fitting(raw, TITLE_LENGTHS.short, 0),
    long: fitting(raw, TITLE_LENGTHS.long, 44)
  };
}

function fitting(raw: readonly string[], limit: number, wanted: number): string[] {
  const seen = new Set<string>();
  const fit = raw.filter((title) => {
    const key = title
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
    const words = key.split(' ');
    const isClean =
      new Set(words.filter((w) => w.length > 3)).size === words.filter((w) => w.length > 3).length;
    if (!key || title.length > limit || seen.has(key) || !isClean) return false;
    seen.add(key);
    return true;
  });
  // The longer ones first where there is room for them.
  const roomy = fit.filter((title, i) => i === 0 || title.length >= wanted);
  return [...roomy, ...fit.filter((title) => !roomy.includes(title))].slice(0, 5);
}

const tidyTitle = (title: string): string => title.replace(/\s+/g, ' ').replace(LEADS, '').trim();

/** In lower case at the head, unless it is a name or an abbreviation. */
const lower = (phrase: string): string =>
  /^(?:\p{Lu}\p{Lu}|I\b|\p{Lu}\S* \p{Lu})/u.test(phrase)
    ? phrase
    : phrase.replace(/^\p{Lu}/u, (c) => c.toLowerCase());

/** An excerpt is filled up with a second sentence only where the first is shorter than this. */
const SHORT_EXCERPT = 70;

/**
 * An excerpt that ends at a sentence: what the talk sets out to do, else what it says that matters,
 * else the first of the article that fits. Empty where none does.
 */
export function proposeExcerpt(article: Article, limit: number): string {
  let text = '';
  for (const sentence of [article.aim, ...article.summary]) {
    if (!sentence || text.includes(sentence.text)) continue;
    const longer = text ? `${text} ${sentence.text}` : sentence.text;
    if (longer.length > limit) continue;
    text = longer;
    if (text.length >= SHORT_EXCERPT) break;
  }
  if (text) return text;
  const all = article.body.flatMap((b) => (b.kind === 'paragraph' ? b.sentences : []));
  return all.find((s) => s.text.length <= limit)?.text ?? '';
}
