import { z } from 'zod';
import { isUnspaced, wordsOf } from '../../text/terms.ts';
import type { Corpus } from './corpus.ts';
import type { Compared } from './compared.ts';

/** What speaks for a pair or against it. Words are given as one of the two writes them. */
export const reasonSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('same-title') }),
  z.object({ kind: z.literal('title-words'), words: z.array(z.string()) }),
  z.object({ kind: z.literal('title-in-text'), side: z.enum(['video', 'post']) }),
  /** Words that few other items have. */
  z.object({ kind: z.literal('words'), words: z.array(z.string()) }),
  /** Of what both say, between 0 and 1. */
  z.object({ kind: z.literal('texts'), alike: z.number() }),
  z.object({ kind: z.literal('names'), words: z.array(z.string()) }),
  z.object({ kind: z.literal('figures'), words: z.array(z.string()) }),
  z.object({ kind: z.literal('tags'), words: z.array(z.string()) }),
  z.object({ kind: z.literal('same-picture') }),
  /** Days from the video to the post. */
  z.object({ kind: z.literal('days'), days: z.number() }),
  z.object({ kind: z.literal('same-part'), part: z.number() }),
  z.object({ kind: z.literal('other-part'), video: z.number(), post: z.number() }),
  z.object({ kind: z.literal('little-in-common') }),
  z.object({ kind: z.literal('other-language'), video: z.string(), post: z.string() }),
  /** Another is nearly as much alike, or more. */
  z.object({ kind: z.literal('rival'), side: z.enum(['video', 'post']) })
]);
export type Reason = z.infer<typeof reasonSchema>;

const AGAINST: ReadonlySet<Reason['kind']> = new Set([
  'other-part',
  'little-in-common',
  'other-language',
  'rival'
]);
/** Days within which two came out together, and beyond which they did not. */
const SOON = 21;
const LATE = 180;

/** Whether it speaks for the pair. */
export const speaksFor = (reason: Reason): boolean =>
  reason.kind === 'days' ? Math.abs(reason.days) <= SOON : !AGAINST.has(reason.kind);

const MOST_WORDS = 6;
/** Letters of a word that names nobody, such as "Mr" and "Dr". */
const SHORT = 2;
/** Rarity from which on a word tells something, and from which on it hardly stands anywhere else. */
const [RARE, RAREST] = [0.3, 0.6];
const NEAR = 1.5;

export function reasonsFor(pair: Compared, corpus: Corpus): Reason[] {
  const [video, post] = [corpus.videos[pair.video]!, corpus.posts[pair.post]!];
  const { likeness } = pair;
  const reasons: Reason[] = [];
  const words = (a: readonly number[], b: readonly number[]) => rareIn(a, b, corpus, RARE);
  if (likeness.titleInTitle > 0.99 && likeness.titleOfPost > 0.99)
    reasons.push({ kind: 'same-title' });
  else {
    const shared = words(video.title, post.title).filter((word) => !/^\d+$/.test(word));
    if (shared.length > 0) reasons.push({ kind: 'title-words', words: shared });
    if (likeness.titleInPost > MOSTLY && likeness.titleInTitle <= MOSTLY)
      reasons.push({ kind: 'title-in-text', side: 'post' });
    if (likeness.titleInVideo > MOSTLY && likeness.titleOfPost <= MOSTLY)
      reasons.push({ kind: 'title-in-text', side: 'video' });
  }
  if (likeness.part === 'same') reasons.push({ kind: 'same-part', part: video.part!.number });
  if (likeness.part === 'other')
    reasons.push({ kind: 'other-part', video: video.part!.number, post: post.part!.number });
  if (likeness.samePicture) reasons.push({ kind: 'same-picture' });
  // Any word of a title may have a capital: those of both titles are told already.
  const isInBoth = (name: string): boolean =>
    [video, post].every(({ item }) => wordsOf(item.title).includes(name.toLowerCase()));
  const names = words(video.names, post.names).filter(
    (name) => name.length > SHORT && !isInBoth(name)
  );
  if (names.length > 0) reasons.push({ kind: 'names', words: names });
  // The number of a part is no figure.
  const figures = words(video.figures, post.figures).filter(
    (figure) => Number(figure) !== video.part?.number
  );
  if (figures.length > 0) reasons.push({ kind: 'figures', words: figures });
  const tags = words(video.tags, post.tags);
  if (tags.length > 0) reasons.push({ kind: 'tags', words: tags });
  const said = wordsOfBoth(pair, corpus, [...names, ...figures]);
  if (said.length > 0) reasons.push({ kind: 'words', words: said });
  if (!Number.isNaN(likeness.texts))
    reasons.push(
      likeness.texts >= MUCH
        ? { kind: 'texts', alike: likeness.texts }
        : { kind: 'little-in-common' }
    );
  if (Math.abs(likeness.days) <= SOON || Math.abs(likeness.days) > LATE)
    reasons.push({ kind: 'days', days: likeness.days });
  if (likeness.language === 'other')
    reasons.push({ kind: 'other-language', video: video.language, post: post.language });
  if (pair.ofVideo > pair.alone - NEAR) reasons.push({ kind: 'rival', side: 'post' });
  if (pair.ofPost > pair.alone - NEAR) reasons.push({ kind: 'rival', side: 'video' });
  return reasons;
}
const MOSTLY = 0.75;
const MUCH = 0.1;

/** The rarest words that both have anywhere, but for those that are told already. */
function wordsOfBoth(pair: Compared, corpus: Corpus, told: readonly string[]): string[] {
  const [video, post] = [corpus.videos[pair.video]!, corpus.posts[pair.post]!];
  const isTold = new Set(told.map((word) => word.toLowerCase()));
  const inTitles = new Set(video.title.filter((id) => post.title.includes(id)));
  const ids = [...video.title, ...video.text].filter((id) => !inTitles.has(id));
  // In a small catalogue a word of these two alone is not that rare yet.
  const ofTwo = 1 - Math.log(2) / Math.log(corpus.videos.length + corpus.posts.length + 1);
  const least = Math.min(RAREST, ofTwo - 1e-6);
  return rareIn(ids, [...post.title, ...post.text], corpus, least).filter(
    (word) => !isTold.has(word) && !/^\d/.test(word)
  );
}

/** The rarest words that stand in both, about as they follow each other. */
function rareIn(
  ids: readonly number[],
  others: readonly number[],
  { rarity, terms }: Corpus,
  least: number
): string[] {
  if (ids.length === 0 || others.length === 0) return [];
  const known = new Set(others);
  const shared = ids
    .filter((id) => known.has(id) && rarity[id]! >= least)
    .sort((a, b) => rarity[b]! - rarity[a]!)
    .slice(0, MOST_WORDS)
    .sort((a, b) => a - b)
    .map((id) => terms.shown(id));
  return joined(shared);
}

/** Pairs of letters, as texts without spaces are compared by, as what they are parts of. */
function joined(words: readonly string[]): string[] {
  const whole: string[] = [];
  for (const word of words) {
    const before = whole.at(-1);
    if (before && isUnspaced(word) && before.endsWith(word[0]!))
      whole[whole.length - 1] = before + word.slice(1);
    else whole.push(word);
  }
  return whole;
}
