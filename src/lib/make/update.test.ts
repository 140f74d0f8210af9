import assert from 'node:assert/strict';
import { test } from 'node:test';
import { networkSchema } from '$lib/core/model/network.ts';
import { anItem } from '$lib/core/testing.ts';
import { newUpdateDraft } from '$lib/core/updates/draft.ts';
import { versionFor } from '$lib/core/updates/version.ts';
import { linkFor, makeVersions, partsOf, updateKey, weighedUpdate } from './update.ts';

const network = networkSchema.parse({
  id: 'n',
  actor: 'https://notes.example/actor',
  url: 'https://notes.example/',
  title: 'Notes',
  about: '',
  outbox: 'https://notes.example/outbox',
  limitsUrl: '',
  tagCounts: '',
  limits: { text: 300, picture: 'optional', hashtags: 3, hasThreads: true },
  allowance: null,
  hasKey: true,
  isUsual: true,
  origins: [],
  linked: '',
  checked: '',
  problem: null
});
const item = anItem({ id: 'p', kind: 'post', title: 'Madder on wool' });
const text = 'Madder gives red. It likes hard water. Simmer it slowly, or the red turns brown.';
const source = {
  title: item.title,
  kind: 'post' as const,
  link: item.url,
  language: 'en',
  blocks: [{ kind: 'paragraph' as const, text }]
};
const now = '2026-05-01T10:00:00Z';
const worker = {
  versions: (s: typeof source, draft: never, places: never[], at: string) =>
    places.map((place) => versionFor(s, draft, place, at))
} as never;

test('one version for each network, in order, with the tags of its own link', async () => {
  const other = { ...network, id: 'm', title: 'Market Street' };
  const versions = await makeVersions(worker, {
    source,
    draft: newUpdateDraft('p', now),
    targets: [network, other].map((n) => ({ network: n, hashtags: ['#madder'], picture: null })),
    pattern: 'utm_source={{ place.name }}',
    now
  });
  assert.equal(versions.length, 2);
  assert.match(versions[0]!.payload.text, /utm_source=notes/);
  assert.match(versions[1]!.payload.text, /utm_source=market-street/);
});

test('a pattern that names an unknown field is reported as wrong, and one without a value is not', () => {
  assert.equal(linkFor(source, 'text', network, 'a={{ place.nothing }}').isPatternWrong, true);
  assert.equal(linkFor(source, 'text', network, 'a={{ place.name }}').isPatternWrong, false);
});

test('a thread is entries that follow each other; only the first has picture, link and hashtags', () => {
  const draft = { ...newUpdateDraft('p', now), text: `${text} `.repeat(8).trim(), inParts: true };
  const place = {
    id: 'n',
    limits: network.limits,
    link: item.url,
    hashtags: ['#madder'],
    picture: null
  };
  const version = versionFor(source, draft, place, now);
  const parts = partsOf(item, network, version);
  assert.ok(parts.length > 2);
  for (const [i, { part, hashtags }] of parts.entries()) {
    assert.deepEqual([part?.number, part?.of], [i + 1, parts.length]);
    assert.equal(part?.after, i === 0 ? '' : updateKey(item, 'text', network, i));
    assert.equal(hashtags.length > 0, i === 0);
  }
  const keys = parts.map((_, i) => updateKey(item, 'text', network, i + 1));
  assert.equal(new Set(keys).size, keys.length);
});

test('whatever stands in the way of an update makes a lane wait', () => {
  assert.deepEqual(weighedUpdate([{ kind: 'no-text' }]), [
    { of: 'update', level: 'wrong', finding: { kind: 'no-text' } }
  ]);
});
