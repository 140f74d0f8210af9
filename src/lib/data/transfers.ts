import { transferSchema, type Transfer } from '$lib/core/lanes/transfer.ts';
import { db } from './db.ts';

export const readTransfer = async (key: string): Promise<Transfer | null> =>
  (await db.transfers.get(key)) ?? null;

export const saveTransfer = (transfer: Transfer): Promise<string> =>
  db.transfers.put(transferSchema.parse(transfer));

/** Changes what is known of a transfer, if it is still wanted. */
export async function updateTransfer(key: string, changes: Partial<Transfer>): Promise<void> {
  await db.transfers.update(key, changes);
}

/** Transfers that are under way or wait for their time. */
export const unsettledTransfers = (): Promise<Transfer[]> =>
  db.transfers.where('state').anyOf('waiting', 'sending', 'at-work').toArray();
