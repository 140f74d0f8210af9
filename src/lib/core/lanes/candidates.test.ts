import assert from 'node:assert/strict';
import { test } from 'node:test';
import { newEntry } from '../delivery/outbox.ts';
import { anItem, aPostPayload } from '../testing.ts';
import { pairTwins } from '../twins/pair.ts';
import { candidatesFrom, countsWords, type LaneCatalogue } from './candidates.ts';
import { newLane, type Lane } from './lane.ts';

const lane = newLane('l', 'Lane', 'Etc/UTC', 1);
const counting: Lane = { ...lane, filter: { ...lane.filter, fewestWords: 3 } };
const TEXT =
  'Sley the reed from the middle outwards, two ends in a dent, and tie every inch as you go along.';
const catalogue = (given: Partial<LaneCatalogue>): LaneCatalogue => ({
  items: [],
  bodies: new Map(),
  owners: new Map(),
  twins: [],
  entries: [],
  listed: new Set(),
  ...given
});
const published = (html: string) => {
  const payload = aPostPayload({ title: 'Sleying', html });
  const entry = newEntry({ key: 'k', itemId: 'v', placeId: 'b', payload }, 1);
  return { ...entry, state: 'published' as const };
};

test('each item comes with its owner, its other half and its playlist', () => {
  const video = anItem({ id: 'v', kind: 'video' });
  const post = anItem({ id: 'p', kind: 'post', title: 'Its post', embeds: [video.embedUrl] });
  const [found] = candidatesFrom(
    lane,
    catalogue({
      items: [video],
      owners: new Map([['channel', 'Isolde']]),
      twins: pairTwins([video], [post]),
      listed: new Set(['v'])
    })
  );
  assert.deepEqual(found, {
    item: video,
    words: 0,
    owner: 'Isolde',
    likeMade: null,
    isInPlaylist: true,
    twin: { other: 'Its post', isSetAside: false, isInHand: false }
  });
});

test('words are counted only where the filter asks for them', () => {
  const items = [anItem({ id: 'p', kind: 'post', summary: 'Two words' })];
  const bodies = new Map([['p', `<p>${TEXT}</p>`]]);
  assert.equal(countsWords(lane), false);
  assert.equal(candidatesFrom(lane, catalogue({ items, bodies }))[0]?.words, 0);
  assert.equal(candidatesFrom(counting, catalogue({ items, bodies }))[0]?.words, 20);
  // Without a body it is the summary that is counted.
  assert.equal(candidatesFrom(counting, catalogue({ items }))[0]?.words, 2);
});

test('a post that lost its marks is known by its text; a marked one and a video need no comparing', () => {
  const post = anItem({ id: 'p', kind: 'post' });
  const bodies = new Map([['p', `<div>${TEXT} </div>`]]);
  const like = (items: LaneCatalogue['items'], html = `<p>${TEXT}</p>`) =>
    candidatesFrom(lane, catalogue({ items, bodies, entries: [published(html)] }))[0]?.likeMade;
  assert.equal(like([post]), 'Sleying');
  assert.equal(like([{ ...post, origin: 'k' }]), null);
  assert.equal(like([anItem({ id: 'p', kind: 'video' })]), null);
  assert.equal(
    like(
      [post],
      '<p>Madder gives red and likes hard water, simmer it slowly or it turns brown.</p>'
    ),
    null
  );
});
