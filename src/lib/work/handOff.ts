import type { OutboxEntry } from '$lib/core/lanes/outbox.ts';
import { readMessage } from '$lib/core/messages/message.ts';
import { answerMessage, addressIn, type HandOff } from '$lib/core/updates/handOff.ts';
import { db } from '$lib/data/db.ts';
import { openHandOffs } from '$lib/data/handOffs.ts';
import { note } from '$lib/data/journal.ts';
import { closeWith } from '$lib/data/outbox.ts';
import { byHand } from '$lib/places/adapter.ts';
import { sendTo } from '$lib/places/wire.ts';

/** Milliseconds between two looks into the mailbox that nobody asked for. */
const LOOK_EVERY = 20_000;
let lookedAt = 0;

/** Looks now and then whether something was posted by hand. Problems are told when asked for. */
export async function lookForAnswers(): Promise<void> {
  if (Date.now() - lookedAt < LOOK_EVERY) return;
  lookedAt = Date.now();
  for (const entry of await openHandOffs()) await readAnswer(entry).catch(() => null);
}

/**
 * Looks in the mailbox whether a hand-off was answered, and closes it with the address it got.
 * @returns the address, or null while there is none
 * @throws PlaceError
 */
export async function readAnswer(entry: OutboxEntry): Promise<string | null> {
  const network = await db.networks.get(entry.placeId);
  const target = network && (await byHand(network));
  for (const raw of (await target?.answers(entry.key)) ?? []) {
    const address = addressIn((await readMessage(raw)).text);
    if (!address) continue;
    await close(entry, address);
    return address;
  }
  return null;
}

async function close(entry: OutboxEntry, address: string): Promise<void> {
  await closeWith(entry.key, address);
  const { key, itemId, placeId, payload } = entry;
  await note({ what: 'posted-by-hand', key, itemId, placeId, title: payload.title, url: address });
}

/**
 * Says from the telephone that something was posted. In the browser that handed it off it is closed
 * at once; from any other the answer goes to the mailbox.
 * @throws PlaceError
 */
export async function answerHandOff(handOff: HandOff, address: string): Promise<void> {
  const entry = await db.outbox.get(handOff.key);
  if (entry) return close(entry, address);
  const message = answerMessage(handOff, address, new Date());
  // Through our own server: a telephone has linked nothing, so its policy lets it call nobody.
  await sendTo({ url: handOff.answer.messages, method: 'POST', message });
}
