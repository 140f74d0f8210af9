import { median } from '../../median.ts';
import type { Compared } from './compared.ts';
import type { Told } from './told.ts';

/** What is usual between the videos of one place and language and the posts of another: what their clear pairs are like. */
export interface Usual {
  /** Of the side with fewer items: the share that has a clear pair. */
  share: number;
  /** Median days from a video to its post, and the median distance from that. NaN where too few say it. */
  days: number;
  spread: number;
  /** Means of these likenesses; NaN where too few have them. */
  titleInTitle: number;
  texts: number;
}

/** Log-odds alone from which on a pair may be clear. */
const CLEAR = 1;
/** Fewest clear pairs that tell what is usual. */
const FEWEST = 5;

/**
 * What is usual between whom a pair belongs to. A pair is clear if it is likely and the best of both its video and its
 * post.
 * @param all pairs whose rivals were found
 */
export function usualBetween(
  all: readonly Compared[],
  videos: readonly Told[],
  posts: readonly Told[]
): (pair: Compared) => Usual {
  const [ofVideos, ofPosts] = [groupsOf(videos), groupsOf(posts)];
  const groupOf = ({ video, post }: Compared) =>
    ofVideos.groups[video]! * ofPosts.sizes.length + ofPosts.groups[post]!;
  const clear = new Map<number, Compared[]>();
  for (const pair of all) {
    if (!isClear(pair)) continue;
    const group = groupOf(pair);
    const known = clear.get(group);
    if (known) known.push(pair);
    else clear.set(group, [pair]);
  }
  const known = new Map<number, Usual>();
  for (const [group, pairs] of clear) {
    const { video, post } = pairs[0]!;
    const size = Math.min(
      ofVideos.sizes[ofVideos.groups[video]!]!,
      ofPosts.sizes[ofPosts.groups[post]!]!
    );
    known.set(group, usualAmong(pairs, size));
  }
  return (pair) => known.get(groupOf(pair)) ?? NOTHING;
}

/** By item: the number of its place and language; by that: how many there are. */
function groupsOf(items: readonly Told[]): { groups: Int32Array; sizes: number[] } {
  const ids = new Map<string, number>();
  const sizes: number[] = [];
  const groups = Int32Array.from(items, ({ item, language }) => {
    const name = `${item.placeId} ${language}`;
    const id = ids.get(name) ?? sizes.length;
    ids.set(name, id);
    sizes[id] = (sizes[id] ?? 0) + 1;
    return id;
  });
  return { groups, sizes };
}

const isClear = ({ alone, ofVideo, ofPost, isOfAnother }: Compared): boolean =>
  alone >= CLEAR && alone > ofVideo && alone > ofPost && !isOfAnother;

const NOTHING: Usual = { share: 0, days: NaN, spread: NaN, titleInTitle: NaN, texts: NaN };

function usualAmong(clear: readonly Compared[], size: number): Usual {
  const numbers = (of: (pair: Compared) => number) =>
    clear.map(of).filter((number) => !Number.isNaN(number));
  const days = numbers(({ likeness }) => likeness.days);
  const isSaid = days.length >= FEWEST;
  const middle = isSaid ? median(days) : NaN;
  return {
    share: clear.length / size,
    days: middle,
    spread: isSaid ? median(days.map((day) => Math.abs(day - middle))) : NaN,
    titleInTitle: mean(numbers(({ likeness }) => likeness.titleInTitle)),
    texts: mean(numbers(({ likeness }) => likeness.texts))
  };
}

const mean = (numbers: readonly number[]): number =>
  numbers.length < FEWEST ? NaN : numbers.reduce((sum, number) => sum + number, 0) / numbers.length;
