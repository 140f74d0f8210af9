import { DateTime } from 'luxon';
import { MAX_ATTEMPTS, type OutboxEntry } from '$lib/core/delivery/outbox.ts';
import { isPost, isVideo, type Payload, type PostPayload } from '$lib/core/delivery/payload.ts';
import type { Transfer } from '$lib/core/delivery/transfer.ts';
import { formatDateTime } from './messages.ts';

/** Milliseconds by which the next attempt must lie ahead to be called scheduled. */
const SOON = 5_000;

const at = (time: number): string => formatDateTime(new Date(time).toISOString());

/** Whether an entry is being sent, or waits to be. */
export const isUnderWay = ({ state }: Pick<OutboxEntry, 'state'>): boolean =>
  state === 'waiting' || state === 'sending';

/** Whether an entry waits for a date that the user gave, and nothing was tried before it. */
const isScheduled = ({ state, wanted, attempts, nextTry }: OutboxEntry, now: number): boolean =>
  state === 'waiting' && wanted === 'published' && attempts === 0 && nextTry > now + SOON;

/** Whether nothing has been sent of an entry, so that it can still be cancelled. */
export const canCancel = (entry: OutboxEntry, now: number): boolean =>
  entry.url === '' &&
  (entry.state === 'in-review' || entry.state === 'planned' || entry.state === 'failed'
    ? true
    : isScheduled(entry, now));

/** What stands at the place, since when and which version of it; empty where nothing does. */
export function standsMessage({
  sent,
  sentAt,
  url,
  revision,
  publishedRevision
}: OutboxEntry): string {
  if (!url || !sent || !sentAt || !isPost(sent)) return '';
  const how =
    sent.status === 'dated' && sent.date
      ? Date.parse(sent.date) > sentAt
        ? `scheduled for ${formatDateTime(sent.date)}`
        : 'public'
      : sent.status === 'dated'
        ? 'public'
        : sent.status === 'draft'
          ? 'a draft'
          : sent.status;
  const version = publishedRevision > 1 ? `, version ${publishedRevision}` : '';
  const waits = revision > publishedRevision ? ' Your last changes are not there yet.' : '';
  return `At the blog: ${how}, since ${at(sentAt)}${version}.${waits}`;
}

/**
 * What the button does: it depends on what stands at the blog, and on what is chosen.
 * @param stands what the blog last took, or null
 * @param on local date and time, as a date field has it
 */
export function publishLabel(
  stands: Payload | null,
  status: PostPayload['status'],
  on: string
): string {
  const before = stands && isPost(stands) ? stands.status : null;
  if (status === 'dated') {
    const when = DateTime.fromISO(on).setLocale('en');
    const verb = before === 'dated' ? 'Reschedule' : 'Schedule';
    return when.isValid ? `${verb} for ${when.toFormat('ccc d LLL, HH:mm')}` : verb;
  }
  if (before === status) return status === 'draft' ? 'Update the draft' : 'Update the post';
  if (status === 'draft') return before ? 'Unpublish to a draft' : 'Save as draft';
  if (status === 'private')
    return before === 'draft' || !before ? 'Publish as private' : 'Make it private';
  return before === 'private' ? 'Make it public' : 'Publish now';
}

/**
 * How far a delivery has got, in a sentence or two.
 * @param noun what is delivered: post, video, update
 * @param now milliseconds since 1970
 */
export function deliveryMessage(entry: OutboxEntry, noun: string, now: number): string {
  switch (entry.state) {
    case 'in-review':
      return 'Waiting for review.';
    case 'planned':
      return 'Approved. Its lane publishes it in turn.';
    case 'failed':
      if (entry.wanted === 'removed') return `The ${noun} was not deleted.`;
      return entry.sentAt > 0 ? 'Your last changes were not published.' : 'Not published.';
    case 'removed':
      return 'Deleted.';
    case 'published':
      return publishedMessage(entry);
    default:
      if (isScheduled(entry, now))
        return `Scheduled for ${at(entry.nextTry)}, while this application is open.`;
      return attemptMessage(entry, noun, now);
  }
}

function publishedMessage({ payload, updated }: OutboxEntry): string {
  const status = isPost(payload) ? payload.status : 'public';
  if (status === 'draft') return `Saved as a draft ${at(updated)}.`;
  if (status === 'private') return `Published as private ${at(updated)}.`;
  if (status === 'dated' && isPost(payload) && payload.date)
    return `Goes public ${formatDateTime(payload.date)}.`;
  return `Published ${at(updated)}.`;
}

function attemptMessage(
  { wanted, attempts, nextTry }: OutboxEntry,
  noun: string,
  now: number
): string {
  const doing = wanted === 'removed' ? `Deleting the ${noun}…` : 'Publishing…';
  if (attempts === 0) return doing;
  const seconds = Math.max(0, Math.ceil((nextTry - now) / 1_000));
  const when = seconds > 0 ? `next try in ${seconds} s` : 'trying again now';
  return `${doing} Attempt ${attempts + 1} of ${MAX_ATTEMPTS}, ${when}.`;
}

/** Who can watch a video that a channel has taken, and how far its file is. */
export function videoMessage(payload: Payload, transfer: Pick<Transfer, 'state'> | null): string {
  if (transfer?.state === 'failed') return 'Not published.';
  if (transfer?.state === 'waiting') return 'The upload is paused and resumes by itself.';
  if (transfer?.state === 'sending') return 'Uploading…';
  if (transfer?.state === 'at-work') return 'The channel is processing it…';
  if (!isVideo(payload) || payload.visibility === 'public') return 'Published.';
  if (payload.visibility === 'unlisted') return 'Published: anyone with the link can watch it.';
  return payload.publishAt
    ? `Private until ${formatDateTime(payload.publishAt)}.`
    : 'Private: only you can watch it, signed in at the channel.';
}
