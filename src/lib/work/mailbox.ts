import { z } from 'zod';
import { addressFromInput } from '$lib/core/feeds/address.ts';
import type { Mailbox } from '$lib/core/model/mailbox.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { note } from '$lib/data/journal.ts';
import { MAILBOX_ID, removeMailbox, saveMailbox } from '$lib/data/mailbox.ts';
import { readAddress } from '$lib/places/wire.ts';
import { coreWorker } from '$lib/workers/core.ts';

const aboutSchema = z.object({
  name: z.string().max(200),
  address: z.email(),
  messages: z.string()
});

/** The mailbox behind the address of its page. @throws PlaceError */
export async function findMailbox(input: string, signal: AbortSignal): Promise<Mailbox> {
  const url = addressFromInput(input);
  if (!url) throw new PlaceError({ kind: 'bad-address', url: input });
  const page = await readAddress(url, signal);
  const examined = await coreWorker().examine(page);
  const described = examined.is === 'page' ? examined.page.description : '';
  const read = described ? await readAddress(described, signal) : null;
  const about = read && aboutSchema.safeParse(jsonOf(read.bytes)).data;
  if (!read || !about || !URL.canParse(about.messages, read.url))
    throw new PlaceError({ kind: 'refused', url, detail: 'The page describes no mailbox.' });
  const messages = new URL(about.messages, read.url);
  // The key is sent there.
  if (messages.origin !== new URL(page.url).origin)
    throw new PlaceError({ kind: 'refused', url, detail: 'Its messages lie at another site.' });
  const { name, address } = about;
  return { url: page.url, name, address, messages: messages.href, linked: '' };
}

function jsonOf(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return null;
  }
}

export async function connectMailbox(mailbox: Mailbox, key: string): Promise<void> {
  await saveMailbox({ ...mailbox, linked: new Date().toISOString() }, key.trim());
  await note({ what: 'connected', placeId: MAILBOX_ID, title: mailbox.name, url: mailbox.url });
}

export async function disconnectMailbox({ name, url }: Mailbox): Promise<void> {
  await removeMailbox();
  await note({ what: 'disconnected', placeId: MAILBOX_ID, title: name, url });
}
