import type { Candidate } from './article/extract/candidate.ts';
import { newEntry, type OutboxEntry } from './delivery/outbox.ts';
import { type PostPayload } from './delivery/payload.ts';
import { newLane, type Lane } from './lanes/lane.ts';
import { laneRecordSchema, recordId, type LaneRecord } from './lanes/record.ts';
export { seeded } from './seeded.ts';
import { readTalk, type Talk } from './text/talk.ts';
import type { Item } from './model/item.ts';

/** An item for tests, with what matters in the test given. */
export function anItem(given: Partial<Item> & Pick<Item, 'id' | 'kind'>): Item {
  return {
    placeId: given.kind === 'video' ? 'channel' : 'blog',
    nativeId: given.id,
    url: `https://${given.kind}.example/${given.id}`,
    title: given.id,
    published: '2026-03-01T09:00:00.000Z',
    updated: given.published ?? '2026-03-01T09:00:00.000Z',
    visibility: 'public',
    author: 'Wrenfold Loomworks',
    language: 'en',
    licence: '',
    duration: given.kind === 'video' ? 300 : null,
    summary: '',
    pictures: [],
    embedUrl: given.kind === 'video' ? `https://video.example/embed/${given.id}` : '',
    contentUrl: '',
    captions: [],
    tags: [],
    embeds: [],
    links: [],
    origin: null,
    ...given
  };
}

/** A sentence that may be chosen for an article, with what matters in the test given. */
export const aCandidate = (
  given: Partial<Candidate> & Pick<Candidate, 'index' | 'words'>
): Candidate => ({
  stems: new Set(),
  must: 0.5,
  mustNot: 0,
  takeaway: 0,
  isQuestion: false,
  isKept: false,
  dependsOnPrevious: false,
  chapter: 0,
  ...given
});

/** A talk from lines of captions, each said at three words a second. */
export function aTalk(lines: string[], { gap = 0 }: { gap?: number } = {}): Talk {
  let at = 0;
  const cues = lines.map((text) => {
    const start = at;
    const end = start + Math.max(1, text.split(/\s+/).length) / 3;
    at = end + gap;
    return { start, end, text };
  });
  return readTalk({ cues, unreadable: [], format: 'vtt', isTimed: true });
}

/** A post as it goes into the outbox. */
export const aPostPayload = (given: Partial<PostPayload> = {}): PostPayload => ({
  title: 'One',
  html: '<p>One.</p>',
  slug: 'one',
  excerpt: '',
  author: '',
  categories: [],
  tags: [],
  comments: 'open',
  picture: null,
  status: 'public',
  date: null,
  ...given
});

/** An entry of the outbox for a post; its key is what is given, or `key`. */
export const anEntry = (given: Partial<OutboxEntry> = {}): OutboxEntry => ({
  ...newEntry({ key: 'key', itemId: 'item', placeId: 'blog', payload: aPostPayload() }, 0),
  ...given
});

/** A lane over nothing, in UTC. */
export const aLane = (given: Partial<Lane> = {}): Lane => ({
  ...newLane(given.id ?? 'lane', 'Lane', 'Etc/UTC', 0),
  ...given
});

/** What became of an item in a lane: it was found. */
export const aRecord = (given: Partial<LaneRecord> = {}): LaneRecord =>
  laneRecordSchema.parse({
    id: recordId(given.laneId ?? 'lane', given.itemId ?? 'item'),
    laneId: 'lane',
    itemId: 'item',
    title: 'One',
    url: '',
    state: 'found',
    reason: null,
    problem: null,
    attempts: 0,
    nextTry: 0,
    keys: [],
    runId: 'run',
    found: 0,
    changed: 0,
    ...given
  });
