import type { OutboxEntry } from '$lib/core/delivery/outbox.ts';
import type { Problem } from '$lib/core/model/place.ts';
import { readMessage } from '$lib/core/mail/message.ts';
import { answerMessage, addressIn, type HandOff } from '$lib/core/updates/handOff.ts';
import { MAILBOX_ID, readMailbox } from '$lib/data/mailbox.ts';
import { getNetwork } from '$lib/data/networks.ts';
import { note } from '$lib/data/journal.ts';
import { closeWith, getEntry, openHandOffs } from '$lib/data/outbox.ts';
import { ownSecret } from '$lib/data/secret.ts';
import { byHand } from '$lib/places/adapter.ts';
import { handOffId } from '$lib/places/byHand.ts';
import { sendTo } from '$lib/places/wire.ts';
import { attempt } from './tasks.svelte.ts';

/** Milliseconds between two looks into the mailbox that nobody asked for. */
const LOOK_EVERY = 20_000;
let lookedAt = 0;

/** What the mailbox answered wrong last: the same again is told once. */
let trouble = '';

async function noteTrouble(problem: Problem): Promise<void> {
  const words = `${problem.kind} ${problem.detail}`;
  if (trouble === words) return;
  trouble = words;
  const mailbox = await readMailbox();
  await note({ what: 'read-failed', placeId: MAILBOX_ID, title: mailbox?.name ?? '', problem });
}

/** Looks now and then whether something was posted by hand. */
export async function lookForAnswers(): Promise<void> {
  if (Date.now() - lookedAt < LOOK_EVERY) return;
  lookedAt = Date.now();
  for (const entry of await openHandOffs()) {
    const { problem } = await attempt(() => readAnswer(entry));
    if (problem) return noteTrouble(problem);
  }
  trouble = '';
}

/**
 * Looks in the mailbox whether a hand-off was answered, and closes it with the address it got.
 * @returns the address, or null while there is none
 * @throws PlaceError
 */
export async function readAnswer(entry: OutboxEntry): Promise<string | null> {
  const network = await getNetwork(entry.placeId);
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
  // The look now and then and the one that was asked for may find the same answer.
  if (!(await closeWith(entry.key, address))) return;
  const { key, itemId, placeId, payload } = entry;
  await note({ what: 'posted-by-hand', key, itemId, placeId, title: payload.title, url: address });
}

/**
 * Says from the telephone that something was posted. In the browser that handed it off it is closed
 * at once; from any other the answer goes to the mailbox.
 * @throws PlaceError
 */
export async function answerHandOff(handOff: HandOff, address: string): Promise<void> {
  const entry = await getEntry(handOff.key);
  // A key can be reckoned by anybody; what was handed off here knows the secret of this browser.
  const isOurs = handOff.answer.messageId === (await handOffId(await ownSecret(), handOff.key));
  if (entry && isOurs) return close(entry, address);
  const message = answerMessage(handOff, address, new Date());
  // Through our own server: a telephone has linked nothing, so its policy lets it call nobody.
  await sendTo({ url: handOff.answer.messages, method: 'POST', message });
}
