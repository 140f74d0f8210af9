import { afterTrouble, resumeTransfer, type Transfer } from '$lib/core/delivery/transfer.ts';
import { toProblem } from '$lib/core/delivery/retry.ts';
import { uidOfKey } from '$lib/core/model/origin.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { note } from '$lib/data/journal.ts';
import { keyLock } from '$lib/data/keyOfKeys.ts';
import { getMedia } from '$lib/data/media.ts';
import { getEntry } from '$lib/data/outbox.ts';
import { getPlace } from '$lib/data/places.ts';
import {
  patchTransfer,
  pendingTransfers,
  readTransfer,
  removeTransfer
} from '$lib/data/transfers.ts';
import { channelFor } from '$lib/places/adapter.ts';
import type { VideoChannel } from '$lib/places/videoChannel.ts';
import { readFile } from '$lib/video/files.ts';
import { readPlaces } from '$lib/work/read.ts';
import { attempt, runTask, type Report } from '$lib/work/tasks.svelte.ts';

/** Milliseconds between two looks at what the channel does with a file. */
const LOOK_EVERY = 1_000;

/** Sends a failed or waiting file at once, on from where it was. */
export async function retryTransfer(key: string): Promise<void> {
  const transfer = await readTransfer(key);
  if (transfer) await patchTransfer(key, resumeTransfer(transfer, Date.now()));
  await continueTransfer(key);
}

/** Takes up files that were left on their way, by this tab or by one that is gone. */
export async function sendPending(): Promise<void> {
  for (const { key, nextTry } of await pendingTransfers())
    if (nextTry <= Date.now()) void continueTransfer(key);
}

/**
 * Brings the file of a placed video to its channel and sees it through until it can be watched.
 * One tab at a time works on a key; a reload or another tab goes on where it was.
 */
export async function continueTransfer(key: string): Promise<void> {
  if ((await keyLock()) === 'locked') return;
  await navigator.locks.request(`transfer/${key}`, { ifAvailable: true }, async (lock) => {
    if (!lock) return;
    const transfer = await readTransfer(key);
    const entry = await getEntry(key);
    if (!transfer || !entry || transfer.state === 'ready') return;
    if (entry.wanted === 'removed') {
      await removeTransfer(key);
      return;
    }
    // The video must stand there before its file can be sent to it.
    if (entry.state !== 'published') return;
    try {
      const place = await getPlace(transfer.placeId);
      const channel = await channelFor(place);
      if (!channel) throw new PlaceError({ kind: 'key-missing', url: place?.url ?? '' });
      if (transfer.state !== 'at-work') await send(transfer, channel);
      await waitUntilReady(transfer, channel, entry.url);
      await finish(key);
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
      detail: 'The file is no longer in this browser. Render the video again, then publish it.'
    });
  await patchTransfer(key, { state: 'sending', problem: null });
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
      onaddress: (uploadUrl) => void patchTransfer(key, { uploadUrl }),
      onprogress: (sent) => {
        report(sizes(sent, file.size), sent / file.size);
        if (performance.now() - savedAt < 500) return;
        savedAt = performance.now();
        void patchTransfer(key, { sent, attempts: 0 });
      }
    });
    const picture = transfer.thumbnail && (await getMedia(transfer.thumbnail));
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
    await patchTransfer(key, { state: 'at-work', sent: file.size, thumbnail: '', attempts: 0 });
  });
}

const sizes = (sent: number, all: number): string =>
  `${(sent / 1e6).toFixed(1)} of ${(all / 1e6).toFixed(1)} MB`;

const AT_WORK = {
  'awaiting-file': 'waits for the file',
  checking: 'checks the file',
  'making-sizes': 'converts it',
  ready: 'ready',
  failed: 'failed'
};

/** Waits until the channel is done with the file. */
function waitUntilReady(transfer: Transfer, channel: VideoChannel, url: string): Promise<void> {
  return runTask(
    `The channel is processing “${transfer.title}”`,
    async (signal, report: Report) => {
      for (;;) {
        const work = await channel.fetchProcessing(url, signal);
        report(AT_WORK[work.state], work.done);
        if (work.state === 'ready') return;
        if (work.state === 'failed')
          throw new PlaceError({ kind: 'refused', url, detail: work.trouble });
        // The channel has lost what it was sent: from the beginning then.
        if (work.state === 'awaiting-file') {
          await patchTransfer(transfer.key, { state: 'waiting', uploadUrl: '', sent: 0 });
          throw new PlaceError({ kind: 'no-answer', url, detail: 'The channel has no file.' });
        }
        await new Promise((done) => setTimeout(done, LOOK_EVERY));
        signal.throwIfAborted();
      }
    }
  );
}

async function finish(key: string): Promise<void> {
  const transfer = await readTransfer(key);
  const entry = await getEntry(key);
  if (!transfer || !entry) return;
  await patchTransfer(key, { state: 'ready', problem: null, updated: Date.now() });
  const { itemId, placeId, title } = transfer;
  await note({ what: 'video-ready', key, itemId, placeId, title, url: entry.url });
  const place = await getPlace(placeId);
  if (place) await attempt(() => readPlaces(place, false));
}

async function noteTrouble(key: string, error: unknown): Promise<void> {
  const transfer = await readTransfer(key);
  if (!transfer) return;
  const problem = toProblem(error);
  const after = afterTrouble(transfer, problem, Date.now());
  await patchTransfer(key, after);
  const { itemId, placeId, title } = transfer;
  if (after.state === 'failed')
    await note({ what: 'publish-failed', key, itemId, placeId, title, problem });
}
