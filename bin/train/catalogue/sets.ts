import { furtherTalks, labelledTalks, type LabelledTalk } from '../speech.ts';
import { makeCatalogue, together, type Catalogue, type Manner, type Talk } from './catalogue.ts';
import { CRAFTS, type Craft } from './crafts.ts';
import { bare, inOwnWords, thinned, unnumbered } from './harder.ts';
import { talkChannel } from './talkChannel.ts';

const SIZE = { videos: 100, posts: 83 };
const MANNERS: readonly Manner[] = ['same', 'question', 'diary', 'bait', 'german', 'short'];

const talkOf = ({ title, words }: LabelledTalk): Talk => ({
  title,
  words: words.map((word) => word.text)
});
/** What is said beside the point: never the same in what is learned from and in what is judged. */
const asides = {
  tuning: () => furtherTalks().map(talkOf),
  heldOut: () => labelledTalks().map(talkOf)
};

const mannersOf = ({ things }: Craft): readonly Manner[] =>
  MANNERS.filter((m) => (m === 'german') === Boolean(things[0]![1]));

/** Many catalogues of three crafts, in every manner, to learn from. */
export function tuningCatalogues(): Catalogue[] {
  const talks = asides.tuning();
  return Array.from({ length: 8 }, (_, round) =>
    CRAFTS.tuning.flatMap((craft, c) =>
      mannersOf(craft).map((manner, m) =>
        makeCatalogue(craft, manner, 1 + 100 * round + 10 * c + m, SIZE, talks)
      )
    )
  ).flat();
}

/** Several channels at one network, each in a manner of its own, to learn from. */
export const tuningMixtures = (): Catalogue[] =>
  mixtures(CRAFTS.tuning, 36, 30_001, asides.tuning());
/** The same of crafts that nothing was learned from. */
export const heldOutMixtures = (): Catalogue[] =>
  mixtures(CRAFTS.heldOut, 10, 40_001, asides.heldOut());

/** Channels of nothing but talks, to learn from. */
export const tuningTalkChannels = (): Catalogue[] =>
  Array.from({ length: 24 }, (_, i) => talkChannel(asides.tuning(), 60_001 + i));

/** Channels that have just begun, and those of which little was brought here, to learn from. */
export const tuningSmallChannels = (): Catalogue[] =>
  smallChannels(CRAFTS.tuning, 60, 80_001, asides.tuning());
/** The same of crafts that nothing was learned from. */
export const heldOutSmallChannels = (): Catalogue[] =>
  smallChannels(CRAFTS.heldOut, 60, 90_001, asides.heldOut());

const smallChannels = (
  crafts: readonly Craft[],
  count: number,
  seed: number,
  talks: readonly Talk[]
): Catalogue[] =>
  Array.from({ length: count }, (_, i) => {
    const craft = crafts[i % crafts.length]!;
    const manners = mannersOf(craft);
    const videos = 8 + ((i * 7) % 33);
    const posts = Math.round(videos * (0.5 + 0.1 * (i % 7)));
    return makeCatalogue(craft, manners[i % manners.length]!, seed + i, { videos, posts }, talks);
  });

const mixtures = (
  crafts: readonly Craft[],
  count: number,
  seed: number,
  talks: readonly Talk[]
): Catalogue[] =>
  Array.from({ length: count }, (_, round) =>
    together(
      crafts.map((craft, c) => {
        const manners = mannersOf(craft);
        const manner = manners[(round + 2 * c) % manners.length]!;
        return makeCatalogue(craft, manner, seed + 100 * round + c, SIZE, talks);
      })
    )
  );

/** Channels much of which was never written up, and blogs much of which was never filmed, to learn from. */
export const tuningThinned = (): Catalogue[] =>
  [
    ...tuningCatalogues().slice(0, 66),
    ...tuningMixtures(),
    ...tuningSmallChannels().slice(0, 40)
  ].map((catalogue, i) => thinned(catalogue, 1 + i));
/** The same of crafts that nothing was learned from. */
export const heldOutThinned = (): Catalogue[] =>
  [...heldOutCatalogues(), ...heldOutMixtures()].map((catalogue, i) => thinned(catalogue, 101 + i));

/** Catalogues of which little more than titles is known, to learn from. */
export const tuningBare = (): Catalogue[] =>
  [
    ...tuningCatalogues().slice(66),
    ...tuningMixtures().slice(0, 12),
    ...tuningSmallChannels().slice(40)
  ].map(bare);
/** The same of crafts that nothing was learned from. */
export const heldOutBare = (): Catalogue[] =>
  [...heldOutCatalogues(), ...heldOutMixtures()].map(bare);

/** Catalogues in which half of the series are numbered on one side only, to learn from. */
export const tuningUnnumbered = (): Catalogue[] =>
  [
    ...tuningCatalogues().slice(33, 66),
    ...tuningMixtures().slice(12),
    ...tuningSmallChannels().slice(20, 40)
  ].map((catalogue, i) => unnumbered(catalogue, 1 + i));
/** The same of crafts that nothing was learned from. */
export const heldOutUnnumbered = (): Catalogue[] =>
  [...heldOutCatalogues(), ...heldOutMixtures()].map((catalogue, i) =>
    unnumbered(catalogue, 101 + i)
  );

/** Blogs that tell in their own words what was filmed, to learn from. */
export const tuningOwnWords = (): Catalogue[] =>
  [
    ...tuningCatalogues().slice(0, 22),
    ...tuningMixtures().slice(24),
    ...tuningSmallChannels().slice(0, 30)
  ].map((catalogue, i) => inOwnWords(catalogue, 1 + i));
/** The same of crafts that nothing was learned from. */
export const heldOutOwnWords = (): Catalogue[] =>
  [...heldOutCatalogues(), ...heldOutMixtures(), ...heldOutSmallChannels()].map((catalogue, i) =>
    inOwnWords(catalogue, 101 + i)
  );

/** One catalogue of each of six styles, 600 videos and 500 posts in all; the last three are of crafts never learned from. */
export function sixStyles(): { tuning: Catalogue; heldOut: Catalogue } {
  const made = (
    crafts: readonly Craft[],
    manners: readonly Manner[],
    seed: number,
    talks: readonly Talk[]
  ) => together(crafts.map((craft, i) => makeCatalogue(craft, manners[i]!, seed + i, SIZE, talks)));
  return {
    tuning: made(CRAFTS.tuning, ['same', 'diary', 'german'], 9001, asides.tuning()),
    heldOut: made(CRAFTS.heldOut, ['question', 'bait', 'german'], 9101, asides.heldOut())
  };
}

export function heldOutCatalogues(): Catalogue[] {
  const talks = asides.heldOut();
  return CRAFTS.heldOut.flatMap((craft, c) =>
    mannersOf(craft).map((manner, m) =>
      makeCatalogue(craft, manner, 7001 + 10 * c + m, SIZE, talks)
    )
  );
}

/**
 * A catalogue of so many videos and as many posts, as a hundred channels would have it together: each calls the things it
 * is about by names of its own.
 */
export function largeCatalogue(count: number): Catalogue {
  const channels = Math.ceil(count / SIZE.videos);
  const made = together(
    Array.from({ length: channels }, (_, i) => {
      const craft = [...CRAFTS.tuning, ...CRAFTS.heldOut][i % 6]!;
      const sign = i.toString(26).replace(/\d/g, (d) => 'qrstuvwxyz'[Number(d)]!);
      const own = <T extends string | undefined>(word: T) =>
        word?.replace(/\p{L}{4,}/gu, (w) => `${w}${sign}`) as T;
      const named: Craft = {
        ...craft,
        name: `${craft.name}${i}`,
        things: craft.things.map(([en, de]) => [own(en), own(de)]),
        people: craft.people.map(own),
        towns: craft.towns.map(own)
      };
      const manner = mannersOf(craft)[i % mannersOf(craft).length]!;
      return makeCatalogue(named, manner, 20_001 + i, { videos: 100, posts: 100 });
    })
  );
  return { ...made, videos: made.videos.slice(0, count), posts: made.posts.slice(0, count) };
}
