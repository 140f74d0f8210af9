import { createMimeMessage } from 'mimetext/browser';
import PostalMime from 'postal-mime';

export interface MessageFile {
  name: string;
  /** Media type. */
  type: string;
  bytes: Uint8Array;
}

export interface OutgoingMessage {
  from: { name: string; address: string };
  to: string;
  subject: string;
  /** Without its angle brackets. */
  messageId: string;
  inReplyTo?: string;
  date: Date;
  text: string;
  html?: string;
  files?: readonly MessageFile[];
}

export interface IncomingMessage {
  messageId: string;
  inReplyTo: string;
  subject: string;
  text: string;
}

/** Characters of a line of base64 (RFC 2045, 6.8). */
const LINE = 76;

function base64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000)
    text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return (btoa(text).match(new RegExp(`.{1,${LINE}}`, 'g')) ?? []).join('\r\n');
}

/** What would begin a header of its own is taken out of a header's value. */
const oneLine = (value: string): string => value.replace(/[\r\n\0]+/g, ' ').trim();

/** A message as it is sent: RFC 5322, with the parts of MIME (RFC 2045). */
export function writeMessage(message: OutgoingMessage): string {
  const { from, to, subject, messageId, inReplyTo, date, text, html, files = [] } = message;
  const made = createMimeMessage();
  made.setSender({ name: oneLine(from.name), addr: from.address });
  made.setRecipient(to);
  made.setSubject(oneLine(subject));
  made.setHeader('Message-ID', `<${messageId}>`);
  if (inReplyTo) made.setHeader('In-Reply-To', `<${inReplyTo}>`);
  made.setHeader('Date', date.toUTCString().replace('GMT', '+0000'));
  const part = (contentType: string, data: string) =>
    made.addMessage({
      contentType,
      encoding: 'base64',
      data: base64(new TextEncoder().encode(data))
    });
  part('text/plain', text);
  if (html) part('text/html', html);
  for (const { name, type, bytes } of files)
    made.addAttachment({ filename: oneLine(name), contentType: type, data: base64(bytes) });
  return made.asRaw();
}

const bare = (id: string | undefined): string => (id ?? '').replace(/^<|>$/g, '').trim();

/** Reads a message from outside; what it lacks is empty. */
export async function readMessage(raw: string | Uint8Array): Promise<IncomingMessage> {
  const read = await PostalMime.parse(raw);
  return {
    messageId: bare(read.messageId),
    inReplyTo: bare(read.inReplyTo),
    subject: read.subject ?? '',
    text: read.text ?? ''
  };
}
