import assert from 'node:assert/strict';
import { test } from 'node:test';
import { outboxStateSchema } from '../core/delivery/outbox.ts';
import { type Payload } from '../core/delivery/payload.ts';
import { aPostPayload, anEntry } from '../core/testing.ts';
import {
  canCancel,
  deliveryMessage,
  publishLabel,
  standsMessage,
  videoMessage
} from './deliveryMessages.ts';
import { formatDateTime } from './messages.ts';

const NOW = Date.parse('2026-05-20T12:00:00Z');
const date = formatDateTime(new Date(NOW).toISOString());

test('a delivery says what it does, which attempt it is and when the next one comes', () => {
  assert.equal(deliveryMessage(anEntry(), 'post', 0), 'Publishing…');
  assert.equal(
    deliveryMessage(anEntry({ attempts: 2, nextTry: 12_400 }), 'post', 500),
    'Publishing… Attempt 3 of 8, next try in 12 s.'
  );
  assert.equal(
    deliveryMessage(anEntry({ wanted: 'removed', attempts: 1 }), 'video', 500),
    'Deleting the video… Attempt 2 of 8, trying again now.'
  );
});

test('what waits for a date says so; what is about to be tried again does not', () => {
  const later = anEntry({ nextTry: NOW });
  const said = `Scheduled for ${date}, while this application is open.`;
  assert.equal(deliveryMessage(later, 'update', NOW - 60_000), said);
  assert.equal(deliveryMessage(later, 'update', NOW - 1_000), 'Publishing…');
  assert.match(deliveryMessage({ ...later, attempts: 1 }, 'update', NOW - 60_000), /next try/);
});

test('what was published says how it can be seen', () => {
  const entry = (status: 'draft' | 'public' | 'private' | 'dated') =>
    anEntry({
      state: 'published',
      updated: NOW,
      payload: aPostPayload({ status, date: '2026-05-20T12:00:00Z' })
    });
  assert.equal(deliveryMessage(entry('draft'), 'post', 0), `Saved as a draft ${date}.`);
  assert.equal(deliveryMessage(entry('private'), 'post', 0), `Published as private ${date}.`);
  assert.equal(deliveryMessage(entry('public'), 'post', 0), `Published ${date}.`);
  assert.equal(deliveryMessage(entry('dated'), 'post', 0), `Goes public ${date}.`);
});

test('what failed says what was not done', () => {
  const failed = anEntry({ state: 'failed' });
  assert.equal(deliveryMessage(failed, 'post', 0), 'Not published.');
  const standing = { ...failed, wanted: 'removed' as const };
  assert.equal(deliveryMessage(standing, 'post', 0), 'The post was not deleted.');
});

test('what was not sent can be cancelled, and nothing that may stand at the place', () => {
  for (const state of outboxStateSchema.options) {
    const isUnsent = state === 'in-review' || state === 'planned' || state === 'failed';
    assert.equal(canCancel(anEntry({ state }), 0), isUnsent, state);
    assert.equal(canCancel(anEntry({ state, url: 'https://blog.example/one' }), 0), false, state);
  }
  assert.equal(canCancel(anEntry({ nextTry: NOW }), NOW - 60_000), true);
  assert.equal(canCancel(anEntry({ nextTry: NOW, attempts: 1 }), NOW - 60_000), false);
});

test('a video says who can watch it, once its file is there', () => {
  const video = (visibility: 'public' | 'unlisted' | 'private', publishAt: string | null = null) =>
    ({ kind: 'video', visibility, publishAt }) as Payload;
  assert.equal(videoMessage(video('public'), { state: 'sending' }), 'Uploading…');
  assert.equal(videoMessage(video('public'), { state: 'failed' }), 'Not published.');
  assert.equal(videoMessage(video('public'), { state: 'ready' }), 'Published.');
  assert.match(videoMessage(video('unlisted'), null), /with the link/);
  assert.match(videoMessage(video('private'), null), /only you/);
  assert.equal(
    videoMessage(video('private', '2026-05-20T12:00:00Z'), null),
    `Private until ${date}.`
  );
});

test('the button says what it will do, by what stands at the blog already', () => {
  const stands = (status: 'draft' | 'public' | 'private' | 'dated') => aPostPayload({ status });
  assert.equal(publishLabel(null, 'draft', ''), 'Save as draft');
  assert.equal(publishLabel(null, 'public', ''), 'Publish now');
  assert.equal(publishLabel(stands('draft'), 'public', ''), 'Publish now');
  assert.equal(publishLabel(stands('draft'), 'draft', ''), 'Update the draft');
  assert.equal(publishLabel(stands('public'), 'public', ''), 'Update the post');
  assert.equal(publishLabel(stands('public'), 'draft', ''), 'Unpublish to a draft');
  assert.equal(publishLabel(stands('public'), 'private', ''), 'Make it private');
  assert.equal(publishLabel(null, 'dated', '2026-12-01T14:05'), 'Schedule for Tue 1 Dec, 14:05');
  assert.equal(publishLabel(null, 'dated', ''), 'Schedule');
});

test('what stands at the blog is told with its version, also while a change is on its way', () => {
  const entry = anEntry({
    url: 'https://b/1',
    sent: aPostPayload({ status: 'draft' }),
    sentAt: NOW,
    revision: 3,
    publishedRevision: 2
  });
  assert.equal(
    standsMessage(entry),
    `At the blog: a draft, since ${date}, version 2. Your last changes are not there yet.`
  );
  assert.equal(standsMessage(anEntry()), '');
});
