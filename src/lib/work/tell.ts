import { slugOf } from '$lib/core/article/slug.ts';
import type { OutboxEntry, UpdatePayload } from '$lib/core/lanes/outbox.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Network } from '$lib/core/model/network.ts';
import type { Form } from '$lib/core/updates/draft.ts';
import type { Version } from '$lib/core/updates/version.ts';
import { db } from '$lib/data/db.ts';
import { readKey } from '$lib/data/keys.ts';
import { wantPlaced } from '$lib/data/outbox.ts';
import { toObject, UpdateNetwork, type Results } from '$lib/places/network.ts';
import { readAddress } from '$lib/places/wire.ts';
import { workOn } from './post.ts';
import { downloadBlob } from './takeOut.ts';
import { attempt, runTask } from './tasks.svelte.ts';

/** The key of an item's update at a network: one of each form, the same on every machine. */
export const updateKey = (item: Item, form: Form, network: Network): string =>
  placementKey(item.url || item.nativeId, `update/${form}`, network.actor);

/**
 * Writes updates into the outbox, one for each network, and sends them when their time has come.
 * @param at milliseconds since 1970
 */
export async function tell(
  item: Item,
  versions: readonly { network: Network; version: Version }[],
  at: number
): Promise<void> {
  for (const { network, version } of versions) {
    const { payload } = version;
    const key = updateKey(item, payload.form, network);
    const fields = { key, itemId: item.id, placeId: network.id, payload };
    await wantPlaced(fields, Date.now(), at);
    void workOn(key);
  }
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
    const files: { name: string; input: string | Uint8Array<ArrayBuffer> }[] = [];
    for (const { network, version } of versions) {
      const { payload } = version;
      const folder = slugOf(network.title);
      const object = toObject(payload, updateKey(item, payload.form, network));
      files.push({ name: `${folder}/update.txt`, input: plainText(payload) });
      files.push({ name: `${folder}/update.json`, input: JSON.stringify(object, null, 2) });
      const { url } = payload.picture ?? {};
      const picture = url ? (await attempt(() => readAddress(url, signal))).value : null;
      const ending = /^image\/(png|jpeg|webp|gif)/.exec(picture?.contentType ?? '')?.[1];
      if (picture && ending)
        files.push({
          name: `${folder}/picture.${ending}`,
          input: picture.bytes as Uint8Array<ArrayBuffer>
        });
    }
    const { downloadZip } = await import('client-zip');
    downloadBlob(`${slugOf(item.title)}-updates.zip`, await downloadZip(files).blob());
  });
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
  if (!network) return null;
  return new UpdateNetwork(network, await readKey(network.id)).results(entry.key);
}
