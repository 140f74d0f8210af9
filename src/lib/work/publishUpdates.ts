import { slugOf } from '$lib/core/article/template/slug.ts';
import { type OutboxEntry } from '$lib/core/delivery/outbox.ts';
import { isUpdate, type UpdatePayload } from '$lib/core/delivery/payload.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import { fileNameFor } from '$lib/core/updates/handOff.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { readKey } from '$lib/data/keys.ts';
import { keptFile } from '$lib/data/media.ts';
import { getNetwork } from '$lib/data/networks.ts';
import { approve, entriesOfItem, requestPublishAll } from '$lib/data/outbox.ts';
import { deliverEntry, undoEntry } from '$lib/delivery/deliverEntry.ts';
import { partsOf, updateKey } from '$lib/make/update.ts';
import { isKept, toObject, UpdateNetwork, type Results } from '$lib/places/network.ts';
import { readAddress } from '$lib/places/wire.ts';
import { downloadBlob } from './download.ts';
import { attempt, runTask } from './tasks.svelte.ts';

/** The other parts of the thread that an update begins, as they lie in the outbox, last first. */
async function laterParts(itemId: string, placeId: string): Promise<OutboxEntry[]> {
  const entries = await entriesOfItem(itemId);
  return entries
    .filter((e) => e.placeId === placeId && partNumber(e) > 1 && e.wanted === 'published')
    .sort((a, b) => partNumber(b) - partNumber(a));
}
const partNumber = ({ payload }: OutboxEntry): number =>
  isUpdate(payload) ? (payload.part?.number ?? 1) : 0;

/**
 * Writes updates into the outbox, one for each network, and sends them when their time has come.
 * The parts of a thread are written together: all of them or none.
 * @param at milliseconds since 1970
 * @param isForReview they wait for review first
 */
export async function publishUpdates(
  item: Item,
  versions: readonly { network: Network; version: Version }[],
  at: number,
  isForReview = false
): Promise<void> {
  for (const { network, version } of versions) {
    const parts = partsOf(item, network, version);
    const { form } = version.payload;
    if (form === 'text')
      for (const late of await laterParts(item.id, network.id))
        if (partNumber(late) > parts.length) await undoEntry(late.key);
    const requests = parts.map((payload, i) => ({
      key: updateKey(item, form, network, i + 1),
      itemId: item.id,
      placeId: network.id,
      payload
    }));
    await requestPublishAll(requests, Date.now(), { notBefore: at, isForReview });
    if (!isForReview) void deliverEntry(updateKey(item, form, network));
  }
}

/** Sends updates that waited for review. */
export async function approveUpdates(entries: readonly OutboxEntry[]): Promise<void> {
  for (const { key } of entries) await approve(key, Date.now());
  for (const { key } of entries) await deliverEntry(key);
}

/** Takes an update back, with all that follows it in its thread. */
export async function undoUpdate(entry: OutboxEntry): Promise<void> {
  if (isUpdate(entry.payload) && entry.payload.part)
    for (const late of await laterParts(entry.itemId, entry.placeId)) await undoEntry(late.key);
  await undoEntry(entry.key);
}

/**
 * The same as files in a ZIP, a folder for each network: its text, its picture, and all of it as an
 * ActivityStreams object.
 */
export async function exportUpdates(
  item: Item,
  versions: readonly { network: Network; version: Version }[]
): Promise<void> {
  await runTask('Preparing the files', async (signal) => {
    const files: { name: string; content: string | Blob }[] = [];
    const folders = distinct(versions.map(({ network }) => slugOf(network.title) || 'network'));
    for (const [n, { network, version }] of versions.entries()) {
      const folder = folders[n];
      for (const [i, payload] of partsOf(item, network, version).entries()) {
        const object = toObject(payload, updateKey(item, payload.form, network, i + 1));
        const name = i === 0 ? 'update' : `update-${i + 1}`;
        files.push({ name: `${folder}/${name}.txt`, content: plainText(payload) });
        files.push({ name: `${folder}/${name}.json`, content: JSON.stringify(object, null, 2) });
      }
      const { picture, clip } = version.payload;
      const url = (clip ?? picture)?.url;
      const file = url ? await fileAt(url, signal) : null;
      if (file)
        files.push({ name: `${folder}/${fileNameFor(file.type, clip !== null)}`, content: file });
    }
    const { writeZip } = await import('$lib/core/zip/write.ts');
    const { readable, writable } = new TransformStream<Uint8Array, Uint8Array<ArrayBuffer>>();
    const blob = new Response(readable, { headers: { 'content-type': 'application/zip' } }).blob();
    await writeZip(writable, files, new Date(), signal);
    downloadBlob(`${slugOf(item.title)}-updates.zip`, await blob);
  });
}

/** Names of which none is there twice. */
const distinct = (names: readonly string[]): string[] =>
  names.map((name, i) => {
    const before = names.slice(0, i).filter((other) => other === name).length;
    return before > 0 ? `${name}-${before + 1}` : name;
  });

async function fileAt(url: string, signal: AbortSignal): Promise<Blob | null> {
  if (isKept(url)) return keptFile(url);
  const { value } = await attempt(() => readAddress(url, signal));
  const bytes = value?.bytes as Uint8Array<ArrayBuffer> | undefined;
  return bytes ? new Blob([bytes], { type: value?.contentType.split(';')[0] }) : null;
}

/** As one would paste it. */
function plainText({ title, hasTitle, text, options, hashtags, button }: UpdatePayload): string {
  const points = options.map((o) => `- ${o.text}${o.right ? ' (right)' : ''}`).join('\n');
  const link = button ? `${button.label}: ${button.url}` : '';
  const parts = [hasTitle ? title : '', text, points, link, hashtags.join(' ')];
  return `${parts.filter(Boolean).join('\n\n')}\n`;
}

/** What has come of a poll or quiz so far; null where it is gone. @throws PlaceError */
export async function readResults(entry: OutboxEntry): Promise<Results | null> {
  const network = await getNetwork(entry.placeId);
  if (!network || network.isByHand) return null;
  return new UpdateNetwork(network, await readKey(network.id)).results(entry.key);
}
