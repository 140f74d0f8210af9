import type { Chapter } from '../chapter.ts';
import { bigEndian, concatenated } from './bytes.ts';

const latin = (text: string): Uint8Array => Uint8Array.from(text, (c) => c.charCodeAt(0));
const box = (type: string, ...content: Uint8Array[]): Uint8Array<ArrayBuffer> => {
  const body = concatenated(content);
  return concatenated([bigEndian(body.length + 8, 4), latin(type), body]);
};
const typeAt = (bytes: Uint8Array, at: number): string =>
  String.fromCharCode(...bytes.subarray(at + 4, at + 8));
const sizeAt = (bytes: Uint8Array, at: number): number =>
  new DataView(bytes.buffer, bytes.byteOffset).getUint32(at);

const utf8 = new TextEncoder();
/** A title's length is told in one byte; it is cut between two characters. */
function shortTitle(title: string): Uint8Array {
  let kept = '';
  for (const character of title) {
    if (utf8.encode(kept + character).length > 255) break;
    kept += character;
  }
  return utf8.encode(kept);
}

/** Chapters that one list can have, and units of its times in a second. */
const MOST = 255;
const UNITS = 1e7;

/**
 * The movie box of an MP4 file with a list of chapters among its user data (`chpl`, which players
 * read without a track of its own).
 * @param moov the whole box; it has to be the last of its file, as what comes behind would move
 */
export function mp4Chapters(
  moov: Uint8Array,
  chapters: readonly Chapter[]
): Uint8Array<ArrayBuffer> {
  const entries = chapters.slice(0, MOST).map(({ start, title }) => {
    const name = shortTitle(title);
    return concatenated([bigEndian(Math.round(start * UNITS), 8), bigEndian(name.length, 1), name]);
  });
  // Version 1, no flags, four bytes without a meaning, the count.
  const list = box('chpl', Uint8Array.of(1, 0, 0, 0, 0, 0, 0, 0, entries.length), ...entries);
  const children: Uint8Array[] = [];
  let hasUserData = false;
  for (let at = 8; at + 8 <= moov.length; at += Math.max(8, sizeAt(moov, at))) {
    const child = moov.subarray(at, at + sizeAt(moov, at));
    const isUserData = typeAt(moov, at) === 'udta';
    children.push(isUserData ? box('udta', child.subarray(8), list) : child);
    hasUserData ||= isUserData;
  }
  return box('moov', ...children, ...(hasUserData ? [] : [box('udta', list)]));
}
