import type { Language } from '../text/language.ts';
import { contentStems, isContentWord, wordsOf } from '../text/terms.ts';
import { rankOf } from '../text/vectors.ts';
import { memoryId, type GlossaryEntry, type LinkMemory } from './glossary.ts';
import type { Meaning } from './sense.ts';

/** What a word may be linked to. */
export interface LinkTarget {
  of: 'glossary' | 'post';
  url: string;
  /** Of a post, its title; of an entry, its first word. */
  title: string;
  isPaid: boolean;
  /** Stems of words that stand together. */
  phrases: string[][];
  /** What the text around the word is held against. */
  meaning: Meaning;
  /** Decisions of before, by the word as it is written. */
  remembered: ReadonlyMap<string, Meaning>;
}

/** What of an own post is needed to link to it. */
export interface OwnPost {
  url: string;
  title: string;
  summary: string;
  tags: readonly string[];
  /** ISO 8601, or null. */
  published: string | null;
}

const stemsOf = (text: string, language: Language): string[] =>
  wordsOf(text).map((word) => language.stem(word.replace(/'s$/, '')));

export function glossaryTargets(
  entries: readonly GlossaryEntry[],
  memories: readonly LinkMemory[],
  language: Language
): LinkTarget[] {
  return entries.map((entry) => ({
    of: 'glossary' as const,
    url: entry.url,
    title: entry.words[0] ?? entry.url,
    isPaid: entry.isPaid,
    phrases: entry.words.map((word) => stemsOf(word, language)).filter((stems) => stems.length > 0),
    meaning: { here: entry.about, elsewhere: '' },
    remembered: rememberedOf(entry.url, memories)
  }));
}

/** Posts that a single word may stand in and still be the subject of one of them; as a share where they are many. */
const [FEW_POSTS, MOST_POSTS] = [2, 0.1];
/** Words up to this rank are the subject of nothing. */
const EVERYDAY = 4000;
/** Letters of a word that may be a subject where it is not known how common it is. */
const LONG_WORD = 5;

/**
 * Own posts by their subject: words of a title that few other posts have and that are not in everyday use, and
 * two of them that stand together. What several titles say belongs to the post whose title says least beside it,
 * or to the newest.
 */
export function postTargets(
  posts: readonly OwnPost[],
  memories: readonly LinkMemory[],
  language: Language
): LinkTarget[] {
  const titles = posts.map((post) => subjectsOf(post.title, language));
  const standsIn = new Map<string, number>();
  for (const post of posts)
    for (const stem of new Set(stemsOf(textOf(post), language)))
      standsIn.set(stem, (standsIn.get(stem) ?? 0) + 1);
  const holders = new Map<string, number[]>();
  titles.forEach(({ subjects }, i) => {
    for (const phrase of subjects.keys()) {
      const held = holders.get(phrase);
      if (held) held.push(i);
      else holders.set(phrase, [i]);
    }
  });
  const phrasesOf = new Map<number, string[][]>();
  for (const [phrase, held] of holders) {
    const words = phrase.split(' ');
    const most = Math.max(FEW_POSTS, posts.length * MOST_POSTS);
    if (words.length === 1 && (standsIn.get(phrase) ?? 0) > most) continue;
    const [best] = held.toSorted(
      (a, b) =>
        (titles[a]?.length ?? 0) - (titles[b]?.length ?? 0) ||
        (posts[b]?.published ?? '').localeCompare(posts[a]?.published ?? '')
    );
    if (best !== undefined) phrasesOf.set(best, [...(phrasesOf.get(best) ?? []), words]);
  }
  return [...phrasesOf].flatMap(([i, phrases]) => {
    const post = posts[i];
    if (!post) return [];
    const { url, title } = post;
    return [
      {
        of: 'post' as const,
        url,
        title,
        isPaid: false,
        phrases,
        meaning: { here: textOf(post), elsewhere: '' },
        remembered: rememberedOf(url, memories)
      }
    ];
  });
}

/** What is known of a post without its body. */
const textOf = ({ title, summary, tags }: OwnPost): string => [title, summary, ...tags].join('. ');

/** Phrases of a title that may tell its subject, as stems, and how many words of content it has. */
function subjectsOf(title: string, language: Language): { subjects: Set<string>; length: number } {
  const words = wordsOf(title);
  const subjects = new Set<string>();
  words.forEach((word, i) => {
    if (!isContentWord(word, language)) return;
    const [stem = ''] = stemsOf(word, language);
    if (isUnusual(word, language)) subjects.add(stem);
    const next = words[i + 1];
    if (next === undefined || !isContentWord(next, language)) return;
    if (isUnusual(word, language) || isUnusual(next, language))
      subjects.add(`${stem} ${stemsOf(next, language)[0] ?? ''}`);
  });
  return { subjects, length: contentStems(words, language).length };
}

function isUnusual(word: string, language: Language): boolean {
  if (!/\p{L}/u.test(word) || word.length < 4) return false;
  if (language.code !== 'en') return word.length >= LONG_WORD;
  const rank = rankOf(word);
  return rank === null || rank >= EVERYDAY;
}

function rememberedOf(url: string, memories: readonly LinkMemory[]): Map<string, Meaning> {
  const found = new Map<string, Meaning>();
  for (const { id, linked, declined } of memories) {
    const word = id.slice(0, Math.max(0, id.length - url.length - 1));
    if (memoryId(word, url) === id)
      found.set(word, { here: linked.join(' '), elsewhere: declined.join(' ') });
  }
  return found;
}
