import { z } from 'zod';
import type { UpdatePayload } from '../delivery/payload.ts';
import { writeMessage, type MessageFile } from '../mail/message.ts';

/** Whoever sends a link may have written the fragment: nothing but web addresses is led to. */
const webAddress = z.string().regex(/^https?:\/\//i);

/** What goes into a header of a message. */
const oneLine = z.string().regex(/^[^\s<>]{1,300}$/);

/** What the page on a telephone needs to have an update posted by hand. */
export const handOffSchema = z.object({
  key: z.string(),
  /** Name of the place, and its page where a new post is begun. */
  place: z.string(),
  placeUrl: webAddress,
  title: z.string(),
  text: z.string(),
  hashtags: z.string(),
  link: z.string(),
  /** Options of a poll or quiz, the right one marked. */
  options: z.array(z.object({ text: z.string(), right: z.boolean() })),
  alt: z.string(),
  /** Of the file that goes with it: its name, and its address where it has one of its own. */
  file: z
    .object({ name: z.string(), url: z.union([webAddress, z.literal('')]), id: z.string() })
    .nullable(),
  /** Where the message that closes it goes, and what it answers. */
  answer: z.object({ messages: webAddress, address: oneLine, messageId: oneLine })
});
export type HandOff = z.infer<typeof handOffSchema>;

/** How many bytes of files a message carries at most. */
export const MAX_ATTACHED = 15_000_000;

const ENDINGS: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/webp': 'webp',
  'image/svg+xml': 'svg',
  'video/webm': 'webm',
  'video/mp4': 'mp4'
};
/** The name that a picture or clip gets as a file. */
export const fileNameFor = (type: string, isClip: boolean): string =>
  `${isClip ? 'clip' : 'picture'}.${ENDINGS[type] ?? 'bin'}`;

export function handOffOf(
  payload: UpdatePayload,
  to: Pick<HandOff, 'key' | 'place' | 'placeUrl' | 'answer' | 'file'>
): HandOff {
  const { title, hasTitle, text, hashtags, options, button, picture, clip } = payload;
  return {
    ...to,
    title: hasTitle ? title : '',
    text,
    options,
    hashtags: hashtags.join(' '),
    link: button?.url ?? '',
    alt: (picture ?? clip)?.alt ?? ''
  };
}

async function through(bytes: Uint8Array, stream: GenericTransformStream): Promise<Uint8Array> {
  const piped = new Blob([bytes as Uint8Array<ArrayBuffer>]).stream().pipeThrough(stream);
  return new Uint8Array(await new Response(piped).arrayBuffer());
}
interface GenericTransformStream {
  readonly readable: ReadableStream;
  readonly writable: WritableStream;
}

/** Letters of an address that may be unpacked: a bomb is refused before it grows. */
const MAX_LETTERS = 60_000;

/**
 * A hand-off as the fragment of an address, which browsers keep to themselves: its JSON, deflated
 * (RFC 1951), in base64url (RFC 4648).
 */
export async function toFragment(handOff: HandOff): Promise<string> {
  const json = new TextEncoder().encode(JSON.stringify(handOff));
  const packed = await through(json, new CompressionStream('deflate-raw'));
  let text = '';
  for (const byte of packed) text += String.fromCharCode(byte);
  return btoa(text).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');
}

/** @returns null where the fragment is cut off or was not made by `toFragment` */
export async function fromFragment(fragment: string): Promise<HandOff | null> {
  if (fragment.length > MAX_LETTERS) return null;
  try {
    const text = atob(fragment.replaceAll('-', '+').replaceAll('_', '/'));
    const packed = Uint8Array.from(text, (c) => c.charCodeAt(0));
    const json = await through(packed, new DecompressionStream('deflate-raw'));
    return handOffSchema.parse(JSON.parse(new TextDecoder().decode(json)));
  } catch {
    return null;
  }
}

const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** The message that hands an update over: what to post, the file, and the page with its buttons. */
export function handOffMessage(
  handOff: HandOff,
  page: string,
  files: readonly MessageFile[],
  mailbox: { name: string; address: string },
  date: Date
): string {
  const { place, title, text, hashtags, link, options, file, answer } = handOff;
  const points = options.map((o) => `- ${o.text}${o.right ? ' (right)' : ''}`).join('\n');
  const whole = [title, text, points, hashtags, link].filter(Boolean).join('\n\n');
  const fileLine = !file
    ? ''
    : files.length > 0
      ? `The file ${file.name} is attached.`
      : file.url
        ? `The file is at ${file.url}`
        : `The file ${file.name} is too large for a message; it lies in the browser that sent this.`;
  const ask = `To be posted by hand at ${place}. Open this page on your telephone; its buttons copy what is needed:`;
  return writeMessage({
    from: mailbox,
    to: mailbox.address,
    subject: `Post by hand at ${place}: ${(title || text).slice(0, 80)}`,
    messageId: answer.messageId,
    date,
    text: [ask, page, fileLine, '----', whole].filter(Boolean).join('\n\n'),
    html: `<p>${escape(ask)}</p><p><a href="${escape(page)}">Open the page for ${escape(place)}</a></p>${
      fileLine ? `<p>${escape(fileLine)}</p>` : ''
    }<hr><p>${escape(whole).replaceAll('\n', '<br>')}</p>`,
    files
  });
}

/** The answer that closes a hand-off with the address it got. */
export function answerMessage(handOff: HandOff, address: string, date: Date): string {
  const { answer, place, key } = handOff;
  return writeMessage({
    from: { name: 'Swift Twin on a telephone', address: answer.address },
    to: answer.address,
    subject: `Posted at ${place}`,
    messageId: `${key}.${date.getTime().toString(36)}.answer@swift-twin.invalid`,
    inReplyTo: answer.messageId,
    date,
    text: `Posted at ${place}:\n${address}\n`
  });
}

/** The address that an answer tells; null where it tells none. */
export function addressIn(text: string): string | null {
  const found = /https?:\/\/[^\s<>"]+/.exec(text)?.[0];
  return found && URL.canParse(found) ? new URL(found).href : null;
}
