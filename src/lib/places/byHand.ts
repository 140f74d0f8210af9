import type { Target } from '$lib/core/delivery/deliver.ts';
import { isUpdate, type Payload, type UpdatePayload } from '$lib/core/delivery/payload.ts';
import type { MessageFile } from '$lib/core/mail/message.ts';
import type { Mailbox } from '$lib/core/model/mailbox.ts';
import type { Network } from '$lib/core/model/network.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import {
  fileNameFor,
  handOffMessage,
  handOffOf,
  MAX_ATTACHED,
  toFragment,
  type HandOff
} from '$lib/core/updates/handOff.ts';
import { MailboxPlace } from './mailbox.ts';
import { isKept } from './network.ts';

/**
 * A place that lets no program post: what is to stand there is sent to the user's mailbox, with a
 * page for the telephone.
 */
export class ByHand implements Target {
  readonly #mailbox: MailboxPlace;

  constructor(
    private readonly network: Pick<Network, 'id' | 'title' | 'url'>,
    private readonly linked: Mailbox,
    private readonly surroundings: {
      key: string;
      /** Known to this browser alone; whoever does not know it cannot close a hand-off. */
      secret: string;
      /** Address of this application. */
      origin: string;
      fileOf: (url: string) => Promise<Blob | null>;
      now(): Date;
    }
  ) {
    this.#mailbox = new MailboxPlace(linked, surroundings.key);
  }

  async findByKey(key: string): Promise<string | null> {
    return this.#mailbox.find(await this.#messageId(key));
  }

  async publish(payload: Payload, key: string): Promise<string> {
    if (!isUpdate(payload)) throw new PlaceError({ kind: 'refused', detail: 'It takes updates.' });
    const { origin, now } = this.surroundings;
    const { handOff, files } = await this.#handOff(payload, key);
    const page = `${origin}/hand-off#${await toFragment(handOff)}`;
    return this.#mailbox.deliver(handOffMessage(handOff, page, files, this.linked, now()));
  }

  /** The mailbox keeps one message for a Message-ID, so the new one takes the place of the old. */
  update(_url: string, payload: Payload, key: string): Promise<string> {
    return this.publish(payload, key);
  }

  async remove(_url: string, key: string): Promise<void> {
    await this.#mailbox.remove(await this.#messageId(key));
  }

  /** What came back from the telephone, message by message. */
  async answers(key: string): Promise<string[]> {
    return this.#mailbox.answersTo(await this.#messageId(key));
  }

  async #handOff(
    payload: UpdatePayload,
    key: string
  ): Promise<{ handOff: HandOff; files: MessageFile[] }> {
    const shown = payload.clip ?? payload.picture;
    const blob = shown && (await this.surroundings.fileOf(shown.url));
    const name = shown ? fileNameFor(blob?.type ?? '', payload.clip !== null) : '';
    const files =
      blob && blob.size <= MAX_ATTACHED
        ? [{ name, type: blob.type, bytes: new Uint8Array(await blob.arrayBuffer()) }]
        : [];
    const { url: placeUrl, title: place } = this.network;
    const { messages, address } = this.linked;
    const handOff = handOffOf(payload, {
      key,
      place,
      placeUrl,
      file: shown && {
        name,
        url: isKept(shown.url) ? '' : shown.url,
        id: isKept(shown.url) ? shown.url : ''
      },
      answer: { messages, address, messageId: await this.#messageId(key) }
    });
    return { handOff, files };
  }

  #messageId(key: string): Promise<string> {
    return handOffId(this.surroundings.secret, key);
  }
}

/** The identifier of the message that hands an update over: the same for the same key, and not to be guessed from it. */
export async function handOffId(secret: string, key: string): Promise<string> {
  const text = new TextEncoder().encode(`${secret} ${key}`);
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', text)).slice(0, 16);
  const code = [...digest].map((b) => b.toString(16).padStart(2, '0')).join('');
  return `${code}@swift-twin.invalid`;
}
