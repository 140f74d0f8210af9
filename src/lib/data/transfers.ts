import { transferSchema, type Transfer } from '$lib/core/delivery/transfer.ts';
import { db } from './db.ts';
import { patchRow } from './patchRow.ts';
import { putRequest, type PublishRequest } from './outbox.ts';

export const readTransfer = async (key: string): Promise<Transfer | null> =>
  (await db.transfers.get(key)) ?? null;

/** Changes some fields of a transfer, if it is still wanted. */
export const patchTransfer = (key: string, patch: Partial<Transfer>): Promise<void> =>
  patchRow(db.transfers, transferSchema, key, patch);

export const removeTransfer = (key: string): Promise<void> => db.transfers.delete(key);

/** Transfers that are under way or wait for their time. */
export const pendingTransfers = (): Promise<Transfer[]> =>
  db.transfers.where('state').anyOf('waiting', 'sending', 'at-work').toArray();

/** Transfers whose video can be watched, and whose post is still to show it. */
export const transfersToEmbed = async (): Promise<Transfer[]> =>
  (await db.transfers.where({ state: 'ready' }).toArray()).filter((t) => t.embeds);

/** Requests that a post shows its video; from then on the outbox sees to it, not the transfer. */
export function requestEmbed(
  transferKey: string,
  request: PublishRequest | null,
  now: number
): Promise<void> {
  return db.transaction('rw', db.transfers, db.outbox, async () => {
    await db.transfers.update(transferKey, { embeds: false });
    if (!request) return;
    await putRequest(request, now);
  });
}
