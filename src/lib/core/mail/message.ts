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

/** What would end a header, or begin another one, is taken out of its value. */
const oneLine = (value: string): string => value.replace(/[\u0000-\u001f\u007f]+/g, ' ').trim();
/** An address or identifier: nothing in it ends its angle brackets. */
const withinBrackets = (value: string): string => oneLine(value).replace(/[\s<>"\\,;]/g, '');

const utf8 = new TextEncoder();
/** Bytes of an encoded word, so that it stays within 75 letters. */
const WORD_BYTES = 42;

/** Words of any script (RFC 2047), folded. */
function encodedWords(line: string): string {
  const parts: string[] = [];
  let part = '';
  for (const character of line) {
    if (utf8.encode(part + character).length > WORD_BYTES) {
      parts.push(part);
      part = '';
    }
    part += character;
  }
  return [...parts, part].map((p) => `=?UTF-8?B?${base64(utf8.encode(p))}?=`).join('\r\n ');
}

/** The value of a header; as it is where each of its letters `may` stand there, and it is short. */
function words(value: string, may: RegExp): string {
  const line = oneLine(value);
  return may.test(line) && !line.includes('=?') ? line : encodedWords(line);
}
const SUBJECT = /^[\x20-\x7e]{0,60}$/;
const NAME = /^[A-Za-z0-9 ]{0,60}$/;

/** A part of MIME: its headers, and its body in base64 or as parts of its own. */
const entity = (headers: readonly string[], body: string): string =>
  `${headers.join('\r\n')}\r\n\r\n${body}\r\n`;
const encoded = (headers: readonly string[], bytes: Uint8Array): string =>
  entity([...headers, 'Content-Transfer-Encoding: base64'], base64(bytes));

/** Base64 has no such letters, so that no body can hold its own boundary. */
function multipart(kind: 'mixed' | 'alternative', parts: readonly string[]): string {
  const boundary = `=_${kind}_=`;
  return entity(
    [`Content-Type: multipart/${kind}; boundary="${boundary}"`],
    `${parts.map((part) => `--${boundary}\r\n${part}`).join('')}--${boundary}--`
  );
}

const mediaType = (type: string): string =>
  /^[a-z]+\/[a-z0-9.+-]+$/i.test(type) ? type : 'application/octet-stream';

function attachment({ name, type, bytes }: MessageFile): string {
  const line = oneLine(name)
    .replace(/\p{Surrogate}/gu, '')
    .slice(0, 100);
  const plain = line.replace(/[^A-Za-z0-9._-]+/g, '_').slice(0, 60);
  const whole = encodeURIComponent(line.replace(/\p{Surrogate}/gu, '')).replace(
    /['()*]/g,
    (c) => `%${c.charCodeAt(0).toString(16)}`
  );
  return encoded(
    [
      `Content-Type: ${mediaType(type)}`,
      `Content-Disposition: attachment; filename="${plain}";\r\n filename*=UTF-8''${whole}`
    ],
    bytes
  );
}

/** A message as it is sent: RFC 5322, with the parts of MIME (RFC 2045 to 2047, 2183). */
export function writeMessage(message: OutgoingMessage): string {
  const { from, to, subject, messageId, inReplyTo, date, text, html, files = [] } = message;
  const part = (type: string, content: string) =>
    encoded([`Content-Type: ${type}; charset=UTF-8`], utf8.encode(content));
  const texts = [part('text/plain', text), ...(html ? [part('text/html', html)] : [])];
  const body = texts.length > 1 ? multipart('alternative', texts) : texts[0]!;
  const headers = [
    `From: ${words(from.name, NAME)} <${withinBrackets(from.address)}>`,
    `To: <${withinBrackets(to)}>`,
    `Subject: ${words(subject, SUBJECT)}`,
    `Message-ID: <${withinBrackets(messageId)}>`,
    ...(inReplyTo ? [`In-Reply-To: <${withinBrackets(inReplyTo)}>`] : []),
    `Date: ${date.toUTCString().replace('GMT', '+0000')}`,
    'MIME-Version: 1.0'
  ];
  const whole = files.length > 0 ? multipart('mixed', [body, ...files.map(attachment)]) : body;
  return `${headers.join('\r\n')}\r\n${whole}`;
}

const bare = (id: string | undefined): string => (id ?? '').replace(/^<|>$/g, '').trim();

/** Lines of a message that are read: what is looked for stands at its beginning. */
const MOST_LINES = 5_000;

function firstLines(raw: Uint8Array): Uint8Array {
  let at = -1;
  for (let line = 0; line < MOST_LINES; line++) {
    at = raw.indexOf(10, at + 1);
    if (at < 0) return raw;
  }
  return raw.subarray(0, at);
}

/** Reads a message from outside, as far as its first 5,000 lines; what it lacks is empty. */
export async function readMessage(raw: string | Uint8Array): Promise<IncomingMessage> {
  const bytes = typeof raw === 'string' ? utf8.encode(raw) : raw;
  const read = await PostalMime.parse(firstLines(bytes));
  return {
    messageId: bare(read.messageId),
    inReplyTo: bare(read.inReplyTo),
    subject: read.subject ?? '',
    text: read.text ?? ''
  };
}
