import { playerHtml } from '$lib/core/article/player.ts';
import { afterTrouble, resumeTransfer, type Transfer } from '$lib/core/lanes/transfer.ts';
import { isVideo, toProblem } from '$lib/core/lanes/outbox.ts';
import { uidOfKey } from '$lib/core/model/origin.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { db } from '$lib/data/db.ts';
import { note } from '$lib/data/journal.ts';
import {
  readTransfer,
  saveTransfer,
  unsettledTransfers,
  updateTransfer
} from '$lib/data/transfers.ts';
import { blogFor, channelFor } from '$lib/places/adapter.ts';
import type { VideoChannel } from '$lib/places/videoChannel.ts';
import { readFile } from '$lib/video/files.ts';
import { readPlaces } from './read.ts';
import { runTask, type Report } from './tasks.svelte.ts';

/** Milliseconds between two looks at what the channel does with a file. */
const LOOK_EVERY = 1_000;

/** Sends a failed or waiting file at once, on from where it was. */
export async function retryTransfer(key: string): Promise<void> {
  const transfer = await readTransfer(key);
  if (transfer) await saveTransfer(resumeTransfer(transfer, Date.now()));
  await carryOn(key);
}

/** Takes up files that were left on their way, by this tab or by one that is gone. */
export async function workOffTransfers(): Promise<void> {
  for (const { key, nextTry } of await unsettledTransfers())
    if (nextTry <= Date.now()) void carryOn(key);
}

/**
 * Brings the file of a placed video to its channel and sees it through until it can be watched.
 * One tab at a time works on a key; a reload or another tab goes on where it was.
 */
export async function carryOn(key: string): Promise<void> {
  await navigator.locks.request(`transfer/${key}`, { ifAvailable: true }, async (lock) => {
    if (!lock) return;
    const transfer = await readTransfer(key);
    const entry = await db.outbox.get(key);
    if (!transfer || !entry || transfer.state === 'ready') return;
    if (entry.wanted === 'removed') {
      await db.transfers.delete(key);
      return;
    }
    // The video must stand there before its file can be sent to it.
    if (entry.state !== 'placed') return;
    try {
      const place = await db.places.get(transfer.placeId);
      const channel = await channelFor(place);
      if (!channel) throw new PlaceError({ kind: 'key-missing', url: place?.url ?? '' });
      if (transfer.state !== 'at-work') await send(transfer, channel);
      const embedUrl = await waitUntilReady(transfer, channel, entry.url);
      await finish(key, embedUrl);
    } catch (error) {
      await noteTrouble(key, error);
    }
  });
}

async function send(transfer: Transfer, channel: VideoChannel): Promise<void> {
  const { key } = transfer;
  const file = await readFile(transfer.file);
  if (!file)
    throw new PlaceError({
      kind: 'refused',
      detail: 'The file is not in this browser any more. Make the video again and place it anew.'
    });
  await updateTransfer(key, { state: 'sending', problem: null });
  await runTask(`Uploading “${transfer.title}”`, async (signal, report) => {
    // Loaded when first used: most pages send no files.
    const { sendFile } = await import('$lib/places/tus.ts');
    const { endpoint, authorization } = await channel.uploads();
    const common = { endpoint, authorization, signal };
    const uid = uidOfKey(key);
    let savedAt = 0;
    await sendFile({
      ...common,
      file,
      uploadUrl: transfer.uploadUrl,
      metadata: { uid, role: 'video', filename: transfer.file, filetype: transfer.type },
      onaddress: (uploadUrl) => void updateTransfer(key, { uploadUrl }),
      onprogress: (sent) => {
        report(sizes(sent, file.size), sent / file.size);
        if (performance.now() - savedAt < 500) return;
        savedAt = performance.now();
        void updateTransfer(key, { sent, attempts: 0 });
      }
    });
    const picture = transfer.thumbnail && (await db.media.get(transfer.thumbnail));
    if (picture) {
      await sendFile({
        ...common,
        file: picture.blob,
        uploadUrl: '',
        metadata: { uid, role: 'thumbnail', filename: 'thumbnail.png', filetype: 'image/png' },
        onaddress: () => {},
        onprogress: () => {}
      });
    }
    await updateTransfer(key, { state: 'at-work', sent: file.size, thumbnail: '', attempts: 0 });
  });
}

const sizes = (sent: number, all: number): string =>
  `${(sent / 1e6).toFixed(1)} of ${(all / 1e6).toFixed(1)} MB`;

const AT_WORK = {
  'awaiting-file': 'waits for the file',
  checking: 'looks at the file',
  'making-sizes': 'makes its sizes',
  ready: 'ready',
  failed: 'failed'
};

/** @returns the address of the player */
function waitUntilReady(transfer: Transfer, channel: VideoChannel, url: string): Promise<string> {
  return runTask(`The channel works on “${transfer.title}”`, async (signal, report: Report) => {
    for (;;) {
      const work = await channel.workOn(url, signal);
      report(AT_WORK[work.state], work.done);
      if (work.state === 'ready') return work.embedUrl;
      if (work.state === 'failed')
        throw new PlaceError({ kind: 'refused', url, detail: work.trouble });
      // The channel has lost what it was sent: from the beginning then.
      if (work.state === 'awaiting-file') {
        await updateTransfer(transfer.key, { state: 'waiting', uploadUrl: '', sent: 0 });
        throw new PlaceError({ kind: 'no-answer', url, detail: 'The channel has no file.' });
      }
      await new Promise((done) => setTimeout(done, LOOK_EVERY));
      signal.throwIfAborted();
    }
  });
}

async function finish(key: string, embedUrl: string): Promise<void> {
  const transfer = await readTransfer(key);
  const entry = await db.outbox.get(key);
  if (!transfer || !entry) return;
  await saveTransfer({ ...transfer, state: 'ready', problem: null, updated: Date.now() });
  const { itemId, placeId, title } = transfer;
  await note({ what: 'video-ready', key, itemId, placeId, title, url: entry.url });
  const place = await db.places.get(placeId);
  if (place) await readPlaces(place);
  const isOpen = isVideo(entry.payload) && entry.payload.visibility !== 'private';
  if (transfer.embeds && isOpen && embedUrl) await embedInPost(itemId, title, embedUrl);
}

/** Shows the video in the post it was made from, where the blog lets us. */
async function embedInPost(itemId: string, title: string, embedUrl: string): Promise<void> {
  const post = await db.items.get(itemId);
  const place = post && (await db.places.get(post.placeId));
  const blog = await blogFor(place);
  if (!post || !place || !blog || !place.rights.includes('update')) return;
  const line = { itemId, placeId: place.id, title: post.title, url: post.url };
  try {
    await blog.addEmbed(post.url, playerHtml(embedUrl, title), embedUrl);
    await note({ ...line, what: 'embedded' });
    await readPlaces(place);
  } catch (error) {
    await note({ ...line, what: 'placing-failed', problem: toProblem(error) });
  }
}

async function noteTrouble(key: string, error: unknown): Promise<void> {
  const transfer = await readTransfer(key);
  if (!transfer) return;
  const problem = toProblem(error);
  const after = afterTrouble(transfer, problem, Date.now());
  await saveTransfer(after);
  const { itemId, placeId, title } = transfer;
  if (after.state === 'failed')
    await note({ what: 'placing-failed', key, itemId, placeId, title, problem });
}
