import { seeded } from '../../../src/lib/core/seeded.ts';
import { anItem } from '../../../src/lib/core/testing.ts';
import type { Catalogue, Talk } from './catalogue.ts';

const DAY = 86_400_000;
/** Words that stay together where a talk is cut down to an article. */
const STRETCH = 24;
const UNDATED = 0.6;

/**
 * A channel of unscripted talks and articles drawn from them, most of them under other titles: nothing but what is said
 * tells who belongs to whom. Some talks have no article, and some articles no talk.
 */
export function talkChannel(talks: readonly Talk[], seed: number): Catalogue {
  const chance = seeded(seed);
  const made: Catalogue = { videos: [], posts: [], texts: new Map(), truth: [] };
  const isUndated = chance() < UNDATED;
  let clock = Date.UTC(2019, 4, 1);
  for (const [i, { title, words }] of talks.entries()) {
    clock += (2 + chance() * 10) * DAY;
    const at = (time: number) => (isUndated ? null : new Date(time).toISOString());
    const [video, post] = [`talks${seed}-v${i}`, `talks${seed}-p${i}`];
    const draw = chance();
    if (draw < 0.85) {
      made.videos.push(
        anItem({ id: video, kind: 'video', title, language: '', published: at(clock) })
      );
      made.texts.set(video, words.join(' '));
    }
    if (draw < 0.25) continue;
    const share = 0.15 + 0.3 * chance();
    const stretches = Array.from({ length: Math.ceil(words.length / STRETCH) }, (_, at) =>
      words.slice(at * STRETCH, (at + 1) * STRETCH)
    );
    const kept = stretches.filter(() => chance() < share);
    const heading = kept[Math.floor(chance() * kept.length)]?.slice(3, 7).join(' ') ?? title;
    made.posts.push(
      anItem({
        id: post,
        kind: 'post',
        title: chance() < 0.25 ? title : heading,
        language: '',
        published: at(clock + chance() ** 2 * 20 * DAY)
      })
    );
    made.texts.set(post, kept.flat().join(' '));
    if (draw < 0.85) made.truth.push({ video, post, relation: 'twin' });
  }
  return made;
}
