import assert from 'node:assert/strict';
import test from 'node:test';
import { claimMessage, groupLabel, sourceMessage, timesUsual } from './reachMessages.ts';

test('where visitors came from is said in words', () => {
  const say = (source: string) =>
    sourceMessage(
      source,
      (id) => (id === 'a' ? 'Warping' : undefined),
      (tags) => (tags === 'utm_source=notes' ? 'Short text at Notes' : undefined)
    );
  assert.equal(say('video a'), 'Page of the video “Warping”');
  assert.equal(say('video b'), 'Page of the video “no longer here”');
  assert.equal(say('tags utm_source=notes'), 'Short text at Notes');
  assert.equal(say('tags utm_campaign=x&utm_source=mail'), 'Link with campaign “x”, source “mail”');
  assert.equal(say('site find.example'), 'find.example');
  assert.equal(say('other'), 'Others');
});

test('a group that cannot be told from chance is said to be like the rest', () => {
  const claim = { group: '2', items: 9, effect: 0.31, low: 0.1, high: 0.55, isClear: true };
  assert.equal(claimMessage(claim), '+31 % (between +10 % and +55 %)');
  assert.equal(claimMessage({ ...claim, isClear: false }), 'no clear difference');
  assert.equal(
    groupLabel(
      'weekday',
      '2',
      () => '',
      () => ''
    ),
    'Wednesday'
  );
  assert.equal(
    groupLabel(
      'lane',
      'gone',
      () => undefined,
      () => ''
    ),
    'A lane that was deleted'
  );
  assert.equal(timesUsual(319, 99), '3.2 × the usual 99');
});
