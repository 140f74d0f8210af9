import { z } from 'zod';
import type { Mailbox } from '$lib/core/model/mailbox.ts';
import { callStraight } from './wire.ts';

const listSchema = z.object({
  messages: z
    .array(
      z.object({ url: z.string().catch(''), raw: z.string(), messageId: z.string().catch('') })
    )
    .catch([])
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
    const answer = await callStraight(url, { method: 'POST', body: message, headers }, this.key);
    return new URL(answer.headers.get('location') ?? '', url).href;
  }

  async find(messageId: string): Promise<string | null> {
    return (await this.#list('message-id', messageId))[0]?.url ?? null;
  }

  /** The messages that answer one, as they were sent. */
  async answersTo(messageId: string): Promise<string[]> {
    const listed = await this.#list('in-reply-to', messageId);
    return Promise.all(
      listed.map(async ({ raw }) => (await callStraight(this.#own(raw), {}, this.key)).text())
    );
  }

  async remove(messageId: string): Promise<void> {
    for (const { raw } of await this.#list('message-id', messageId))
      await callStraight(this.#own(raw), { method: 'DELETE' }, this.key);
  }

  async #list(by: 'message-id' | 'in-reply-to', messageId: string): Promise<Listed[]> {
    const url = new URL(this.linked.messages);
    url.searchParams.set(by, `<${messageId}>`);
    const answer = await callStraight(url.href, {}, this.key);
    return listSchema.parse(await answer.json().catch(() => ({}))).messages;
  }

  /** The key goes to the mailbox's own origin only. */
  #own(address: string): string {
    const { origin } = new URL(this.linked.messages);
    const url = new URL(address, origin);
    if (url.origin !== origin) throw new TypeError('A message lies at another site.');
    return url.href;
  }
}
