import type { Chapter } from '../chapter.ts';
import { bigEndian, concatenated, indexOfBytes, type Patch } from './bytes.ts';

/** Identifiers of elements (RFC 9559). */
const ID = {
  segment: [0x18, 0x53, 0x80, 0x67],
  seekId: [0x53, 0xab, 0x84],
  seekPosition: [0x53, 0xac],
  info: [0x15, 0x49, 0xa9, 0x66],
  chapters: [0x10, 0x43, 0xa7, 0x70],
  edition: [0x45, 0xb9],
  atom: [0xb6],
  uid: [0x73, 0xc4],
  start: [0x91],
  end: [0x92],
  display: [0x80],
  title: [0x85],
  language: [0x43, 0x7c]
} as const;
const NANOSECONDS = 1e9;

/** The length of an element, in so many bytes: the first has a mark that tells how many there are. */
function sizeField(value: number, width: number): Uint8Array {
  const bytes = bigEndian(value, width);
  bytes[0]! |= 0x80 >> (width - 1);
  return bytes;
}

function element(id: readonly number[], ...content: Uint8Array[]): Uint8Array<ArrayBuffer> {
  const body = concatenated(content);
  return concatenated([new Uint8Array(id), sizeField(body.length, 4), body]);
}

const utf8 = new TextEncoder();

/**
 * Chapters for a WebM or Matroska file that has none: the element itself behind its end, the
 * segment's length, and a place in the list of what stands where (RFC 9559, 5.1.1 and 5.1.7). The
 * list gives up its entry for the segment's information, which stands right behind it.
 * @param head the first bytes of the file, as far as the first cluster
 * @param length bytes of the whole file
 * @param seconds of the whole video: the end of the last chapter
 * @param language ISO 639-2
 * @returns null where the file is laid out otherwise
 */
export function matroskaChapters(
  head: Uint8Array,
  length: number,
  chapters: readonly Chapter[],
  seconds: number,
  language: string
): Patch[] | null {
  const segment = indexOfBytes(head, ID.segment);
  const entry = indexOfBytes(head, [...ID.seekId, ...ID.info]);
  if (segment < 0 || entry < segment) return null;
  const sizeAt = segment + ID.segment.length;
  const sizeWidth = Math.clz32(head[sizeAt]!) - 23;
  const content = sizeAt + sizeWidth;
  const idAt = entry + ID.seekId.length;
  const positionAt = idAt + ID.info.length;
  const hasPosition = ID.seekPosition.every((byte, i) => head[positionAt + i] === byte);
  const width = (head[positionAt + ID.seekPosition.length] ?? 0) & 0x7f;
  if (!hasPosition || sizeWidth > 8 || width < 4 || width > 8) return null;

  const atoms = chapters.map(({ start, title }, i) =>
    element(
      ID.atom,
      element(ID.uid, bigEndian(i + 1, 8)),
      element(ID.start, bigEndian(Math.round(start * NANOSECONDS), 8)),
      element(ID.end, bigEndian(Math.round((chapters[i + 1]?.start ?? seconds) * NANOSECONDS), 8)),
      element(
        ID.display,
        element(ID.title, utf8.encode(title)),
        element(ID.language, utf8.encode(language))
      )
    )
  );
  const added = element(ID.chapters, element(ID.edition, ...atoms));
  return [
    { at: length, bytes: added },
    {
      at: sizeAt,
      bytes: concatenated([sizeField(length + added.length - content, sizeWidth)])
    },
    { at: idAt, bytes: new Uint8Array(ID.chapters) },
    {
      at: positionAt + ID.seekPosition.length + 1,
      bytes: bigEndian(length - content, width)
    }
  ];
}
