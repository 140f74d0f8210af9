import { z } from 'zod';
import { PlaceError } from '$lib/core/model/place.ts';
import type { Mailbox } from '$lib/core/model/mailbox.ts';
import { understood } from './understood.ts';
import { callDirectly } from './wire.ts';

const listSchema = z.object({
  messages: z.array(
    z.object({ url: z.string().default(''), raw: z.string(), messageId: z.string().default('') })
  )
});
type Listed = z.infer<typeof listSchema>['messages'][number];

/** A mailbox that is reached over HTTP: messages (RFC 5322) are delivered to it and read from it. */
export class MailboxPlace {
  constructor(
    private readonly linked: Pick<Mailbox, 'messages'>,
    private readonly key: string
  ) {}

  /** The same Message-ID once more takes the place of the first. @returns its address */
  async deliver(message: string): Promise<string> {
    const { messages: url } = this.linked;
    const headers = { 'content-type': 'message/rfc822' };
    const init = { method: 'POST', body: message, headers };
    return callDirectly(
      url,
      init,
      this.key,
      (answer) => new URL(answer.headers.get('location') ?? '', url).href
    );
  }

  async find(messageId: string): Promise<string | null> {
    return (await this.#list('message-id', messageId))[0]?.url ?? null;
  }

  /** The messages that answer one, as they were sent. */
  async answersTo(messageId: string): Promise<string[]> {
    const listed = await this.#list('in-reply-to', messageId);
    return Promise.all(
      listed.map(({ raw }) => callDirectly(this.#own(raw), {}, this.key, (answer) => answer.text()))
    );
  }

  async remove(messageId: string): Promise<void> {
    for (const { raw } of await this.#list('message-id', messageId))
      await callDirectly(this.#own(raw), { method: 'DELETE' }, this.key, () => null);
  }

  async #list(by: 'message-id' | 'in-reply-to', messageId: string): Promise<Listed[]> {
    const url = new URL(this.linked.messages);
    url.searchParams.set(by, `<${messageId}>`);
    const body = await callDirectly(url.href, {}, this.key, (answer): Promise<unknown> =>
      answer.json().catch(() => null)
    );
    return understood(listSchema, body, url.href).messages;
  }

  /** The key goes to the mailbox's own origin only. */
  #own(address: string): string {
    const { origin } = new URL(this.linked.messages);
    const url = new URL(address, origin);
    if (url.origin !== origin)
      throw new PlaceError({
        kind: 'not-understood',
        url: address,
        detail: 'A message lies at another site.'
      });
    return url.href;
  }
}
