import { Bests } from './bests.ts';
import type { Compared } from './compared.ts';
import type { Corpus } from './corpus.ts';
import type { Likeness } from './likeness.ts';
import { usualBetween, type Usual } from './usual.ts';

/** Log-odds beside which it makes no difference whether there is a rival. */
const NO_RIVAL = -9;

type NumberOf = (pair: Compared) => number;
const above = (alone: number, rival: number): number => alone - Math.max(rival, NO_RIVAL);
const PARTS = { same: 0, other: 1, one: 2, none: 3 } satisfies Record<Likeness['part'], number>;
const LANGUAGES = { same: 0, other: 1, unknown: 2 } satisfies Record<Likeness['language'], number>;
const NEAR = { both: 0, video: 1, post: 2, none: 3 } satisfies Record<Compared['near'], number>;

/** What is asked of a pair itself, and of its rivals as a whole. */
const OF_PAIR: readonly NumberOf[] = [
  ({ alone }) => alone,
  ({ alone, ofVideo }) => above(alone, ofVideo),
  ({ alone, ofPost }) => above(alone, ofPost),
  ({ alone, ofVideo, ofPost }) => above(alone, Math.max(ofVideo, ofPost)),
  ({ alone, freeOfVideo }) => above(alone, freeOfVideo),
  ({ alone, freeOfPost }) => above(alone, freeOfPost),
  ({ alone, freeOfVideo, freeOfPost }) => above(alone, Math.max(freeOfVideo, freeOfPost)),
  ({ isClip }) => Number(isClip),
  ({ isOfAnother }) => Number(isOfAnother),
  ({ near }) => NEAR[near],
  ({ likeness }) => likeness.tags,
  ({ likeness }) => likeness.days,
  ({ likeness }) => Math.abs(likeness.days),
  ({ likeness }) => PARTS[likeness.part],
  ({ likeness }) => LANGUAGES[likeness.language],
  ({ likeness }) => Number(likeness.samePicture)
];

/** What is asked of a pair beside what is usual here. */
const OF_USUAL: readonly ((pair: Compared, usual: Usual) => number)[] = [
  (_, { share }) => share,
  ({ likeness }, { days }) => Math.abs(likeness.days - days),
  (_, { spread }) => spread,
  ({ likeness }, { titleInTitle }) => likeness.titleInTitle - titleInTitle,
  (_, { titleInTitle }) => titleInTitle,
  ({ likeness }, { texts }) => likeness.texts - texts,
  (_, { texts }) => texts
];

/** What is asked in itself, and against the best of the other pairs of the same video, and of the same post. */
const RESPECTS = [
  'titles',
  'titleInTitle',
  'titleOfPost',
  'titleInPost',
  'titleInVideo',
  'texts',
  'names',
  'figures'
] as const satisfies readonly (keyof Likeness)[];

/** How many numbers tell a pair beside its rivals. */
export const BESIDE_WIDTH = OF_PAIR.length + OF_USUAL.length + 3 * RESPECTS.length;

/** Less than any likeness: what no other pair has. */
const NO_OTHER = -1;

/** One respect: what each pair has of it, and who has most of it of one video, and of one post. */
interface Respect {
  own: Float64Array;
  ofVideo: Bests;
  ofPost: Bests;
}

/**
 * What speaks for each pair beside its rivals, which must have been found: by how much it is better than what else its
 * video and its post could have, as a whole and in each respect.
 */
export class Besides {
  readonly #all: readonly Compared[];
  readonly #respects: readonly Respect[];
  readonly #usualOf: (pair: Compared) => Usual;

  constructor(all: readonly Compared[], { videos, posts }: Pick<Corpus, 'videos' | 'posts'>) {
    this.#all = all;
    this.#usualOf = usualBetween(all, videos, posts);
    const ofVideos = Int32Array.from(all, ({ video }) => video);
    const ofPosts = Int32Array.from(all, ({ post }) => post);
    // Pair by pair: what is scattered in memory takes longer to fetch than to write down.
    const columns = RESPECTS.map(() => new Float64Array(all.length));
    for (let i = 0; i < all.length; i++) {
      const { likeness } = all[i]!;
      for (let r = 0; r < RESPECTS.length; r++) columns[r]![i] = likeness[RESPECTS[r]!];
    }
    this.#respects = columns.map((own) => {
      const known = own.map((number) => (Number.isNaN(number) ? NO_OTHER : number));
      return {
        own,
        ofVideo: new Bests(known, ofVideos, videos.length),
        ofPost: new Bests(known, ofPosts, posts.length)
      };
    });
  }

  /** @param numbers where they are told, `BESIDE_WIDTH` of them; NaN is what is not known */
  read(at: number, numbers: Float64Array): void {
    const pair = this.#all[at]!;
    let place = 0;
    for (const numberOf of OF_PAIR) numbers[place++] = numberOf(pair);
    const usual = this.#usualOf(pair);
    for (const numberOf of OF_USUAL) numbers[place++] = numberOf(pair, usual);
    for (const { own, ofVideo, ofPost } of this.#respects) {
      const number = own[at]!;
      const known = Number.isNaN(number) ? NO_OTHER : number;
      numbers[place++] = number;
      numbers[place++] = known - Math.max(ofVideo.beside(at), NO_OTHER);
      numbers[place++] = known - Math.max(ofPost.beside(at), NO_OTHER);
    }
  }
}
