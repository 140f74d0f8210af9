import { z } from 'zod';

/** The user's mailbox, where what is to be done by hand is sent. */
export const mailboxSchema = z.object({
  /** The page people see. */
  url: z.string(),
  name: z.string(),
  /** As mail is addressed to it. */
  address: z.string(),
  /** Where messages are delivered and read. */
  messages: z.string(),
  linked: z.string()
});
export type Mailbox = z.infer<typeof mailboxSchema>;
