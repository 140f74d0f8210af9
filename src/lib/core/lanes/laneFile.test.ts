import assert from 'node:assert/strict';
import { test } from 'node:test';
import { defaultTemplate } from '../article/template/template.ts';
import { styleSchema } from '../narration/styles.ts';
import { newLane, type Lane } from './lane.ts';
import { readLaneFile, writeLaneFile } from './laneFile.ts';

const NOW = Date.parse('2026-05-20T12:00:00Z');
const layouts = ['german', 'dyeing', 'unused'].map((id) => ({
  id,
  name: id.toUpperCase(),
  template: defaultTemplate
}));

function ownLane(): Lane {
  const lane = newLane('own-id', 'German videos', 'Europe/Berlin', NOW);
  return {
    ...lane,
    isOn: true,
    since: NOW,
    note: 'For the notebook',
    source: {
      ...lane.source,
      places: ['https://channel.example/feed.xml'],
      playlists: ['https://channel.example/lists/secret/feed.xml'],
      sheet: { columns: ['address'], rows: [['https://channel.example/v']], key: 0 }
    },
    filter: { ...lane.filter, languages: ['de'], mostInAll: 7 },
    make: {
      ...lane.make,
      layout: 'german',
      layoutRules: [{ by: 'tag', is: 'Dyeing', layout: 'dyeing' }]
    },
    targets: [{ placeId: 'https://blog.example/', status: 'public', categories: ['A'], tags: [] }]
  };
}

test('a lane as a file names no place, and carries the layouts that it takes and no other', () => {
  const text = writeLaneFile(ownLane(), layouts);
  assert.doesNotMatch(text, /example|own-id/);
  assert.deepEqual(
    (JSON.parse(text) as { layouts: { id: string }[] }).layouts.map((l) => l.id),
    ['german', 'dyeing']
  );
});

test('what is opened from a file is set as it was, off, without places, with another name for it', () => {
  const own = ownLane();
  const { lane, layouts: carried } = readLaneFile(writeLaneFile(own, layouts), 'new-id', NOW + 5);
  assert.deepEqual(lane, {
    ...own,
    id: 'new-id',
    isOn: false,
    since: null,
    created: NOW + 5,
    changed: NOW + 5,
    targets: [],
    source: { ...own.source, places: [], playlists: [], sheet: null }
  });
  assert.equal(carried.length, 2);
});

test('places that a file from elsewhere names are not taken', () => {
  const written = JSON.parse(writeLaneFile(ownLane(), layouts)) as Record<string, unknown>;
  const forged = JSON.stringify({
    ...written,
    isOn: true,
    id: 'theirs',
    source: { places: ['https://blog.example/'] },
    targets: [{ placeId: 'https://blog.example/', status: 'public' }]
  });
  const { lane } = readLaneFile(forged, 'new-id', NOW);
  assert.deepEqual(
    [lane.source.places, lane.targets, lane.isOn, lane.id],
    [[], [], false, 'new-id']
  );
});

test('what is no lane is refused', () => {
  for (const text of ['', '[]', '{"name":"A"}', '{"scripts":{}}', 'null'])
    assert.throws(() => readLaneFile(text, 'x', NOW), text);
});

test('a file of before opens as well', () => {
  const { filter, approval, ...lane } = JSON.parse(
    writeLaneFile(newLane('l', 'Old', 'Etc/UTC', 1), [])
  );
  const old = { ...lane, sift: { ...filter, keep: ['reed'] }, gate: { opens: 'always' } };
  const read = readLaneFile(JSON.stringify(old), 'new', 2).lane;
  assert.deepEqual([read.filter.keep, read.approval.mode], [['reed'], 'after-review']);
  assert.ok(approval);
});

test('a look goes with the lane, but for the logo that is kept here', () => {
  const own = ownLane();
  const look = {
    frame: 'square' as const,
    resolution: '1080p' as const,
    style: styleSchema.parse({ ground: '#224433', mark: 'own-logo' }),
    format: 'mp4' as const,
    voice: null
  };
  const text = writeLaneFile({ ...own, make: { ...own.make, kind: 'video', look } }, layouts);
  assert.doesNotMatch(text, /own-logo/);
  const { lane } = readLaneFile(text, 'new-id', NOW);
  assert.deepEqual(lane.make.look, { ...look, style: { ...look.style, mark: '' } });
  const hostile = text.replace('"mark": ""', '"mark": "of-another"');
  assert.equal(readLaneFile(hostile, 'new-id', NOW).lane.make.look?.style.mark, '');
});
