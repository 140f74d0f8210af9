import PostalMime, { type Email } from 'postal-mime';
import { z } from 'zod';

/** What the mailbox keeps of a message beside the message itself. */
export const messageSchema = z.object({
  id: z.string(),
  /** Its Message-ID, and that of the message it answers; with their angle brackets. */
  messageId: z.string(),
  inReplyTo: z.string(),
  from: z.string(),
  subject: z.string(),
  /** When it came; milliseconds since 1970. */
  at: z.number()
});
export type Message = z.infer<typeof messageSchema>;

/** Reads a message (RFC 5322 with MIME); null where it is none. */
export async function readMessage(raw: Uint8Array): Promise<Email | null> {
  const read = await PostalMime.parse(raw).catch(() => null);
  return read?.messageId && (read.from ?? read.subject) ? read : null;
}
