import { slugOf } from '$lib/core/article/slug.ts';
import { isUpdate, type OutboxEntry, type UpdatePayload } from '$lib/core/lanes/outbox.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Form } from '$lib/core/updates/draft.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { db } from '$lib/data/db.ts';
import { readKey } from '$lib/data/keys.ts';
import { keptFile } from '$lib/data/media.ts';
import { letGo, wantPlaced } from '$lib/data/outbox.ts';
import { fileNameFor } from '$lib/core/updates/handOff.ts';
import { isKept, toObject, UpdateNetwork, type Results } from '$lib/places/network.ts';
import { readAddress } from '$lib/places/wire.ts';
import { undoPost, workOn } from './post.ts';
import { downloadBlob } from './takeOut.ts';
import { attempt, runTask } from './tasks.svelte.ts';

/**
 * The key of an item's update at a network: one of each form, the same on every machine.
 * @param part of a thread, from 1 on
 */
export const updateKey = (item: Item, form: Form, network: Network, part = 1): string =>
  placementKey(
    item.url || item.nativeId,
    part === 1 ? `update/${form}` : `update/${form}/${part}`,
    network.actor
  );

/** A version as what is placed: one update, or the parts of a thread. */
function partsOf(item: Item, network: Network, { payload, more }: Version): UpdatePayload[] {
  const of = more.length + 1;
  if (of === 1) return [payload];
  return [payload.text, ...more].map((text, i) => ({
    ...payload,
    text,
    title: `${text.slice(0, 60)} (${i + 1}/${of})`,
    part: {
      ...{ number: i + 1, of },
      after: i === 0 ? '' : updateKey(item, payload.form, network, i)
    },
    // What goes with the text goes with the first part.
    ...(i > 0 && { hashtags: [], picture: null, clip: null, button: null, hasTitle: false })
  }));
}

/** The other parts of the thread that an update begins, as they lie in the outbox, last first. */
async function laterParts(itemId: string, placeId: string): Promise<OutboxEntry[]> {
  const entries = await db.outbox.where({ itemId }).toArray();
  return entries
    .filter((e) => e.placeId === placeId && partNumber(e) > 1 && e.wanted === 'placed')
    .sort((a, b) => partNumber(b) - partNumber(a));
}
const partNumber = ({ payload }: OutboxEntry): number =>
  isUpdate(payload) ? (payload.part?.number ?? 1) : 0;

/**
 * Writes updates into the outbox, one for each network, and sends them when their time has come.
 * @param at milliseconds since 1970
 * @param isHeld they wait for review first
 */
export async function tell(
  item: Item,
  versions: readonly { network: Network; version: Version }[],
  at: number,
  isHeld = false
): Promise<void> {
  for (const { network, version } of versions) {
    const parts = partsOf(item, network, version);
    const { form } = version.payload;
    if (form === 'text')
      for (const late of await laterParts(item.id, network.id))
        if (partNumber(late) > parts.length) await undoPost(late.key);
    for (const [i, payload] of parts.entries()) {
      const key = updateKey(item, form, network, i + 1);
      const fields = { key, itemId: item.id, placeId: network.id, payload };
      await wantPlaced(fields, Date.now(), { notBefore: at, isHeld });
    }
    if (!isHeld) void workOn(updateKey(item, form, network));
  }
}

/** Lets updates go out that waited for review. */
export async function sendHeld(entries: readonly OutboxEntry[]): Promise<void> {
  for (const { key } of entries) await letGo(key, Date.now());
  for (const { key } of entries) await workOn(key);
}

/** Takes an update back, with all that follows it in its thread. */
export async function undoUpdate(entry: OutboxEntry): Promise<void> {
  if (isUpdate(entry.payload) && entry.payload.part)
    for (const late of await laterParts(entry.itemId, entry.placeId)) await undoPost(late.key);
  await undoPost(entry.key);
}

/**
 * The same as files in a ZIP, a folder for each network: its text, its picture, and all of it as an
 * ActivityStreams object.
 */
export async function takeOutUpdates(
  item: Item,
  versions: readonly { network: Network; version: Version }[]
): Promise<void> {
  await runTask('Readying the files', async (signal) => {
    const files: { name: string; input: string | Blob }[] = [];
    for (const { network, version } of versions) {
      const folder = slugOf(network.title);
      for (const [i, payload] of partsOf(item, network, version).entries()) {
        const object = toObject(payload, updateKey(item, payload.form, network, i + 1));
        const name = i === 0 ? 'update' : `update-${i + 1}`;
        files.push({ name: `${folder}/${name}.txt`, input: plainText(payload) });
        files.push({ name: `${folder}/${name}.json`, input: JSON.stringify(object, null, 2) });
      }
      const { picture, clip } = version.payload;
      const url = (clip ?? picture)?.url;
      const file = url ? await fileAt(url, signal) : null;
      if (file)
        files.push({ name: `${folder}/${fileNameFor(file.type, clip !== null)}`, input: file });
    }
    const { downloadZip } = await import('client-zip');
    downloadBlob(`${slugOf(item.title)}-updates.zip`, await downloadZip(files).blob());
  });
}

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
  const network = await db.networks.get(entry.placeId);
  if (!network || network.isByHand) return null;
  return new UpdateNetwork(network, await readKey(network.id)).results(entry.key);
}
