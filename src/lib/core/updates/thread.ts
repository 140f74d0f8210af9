import { sentencesIn } from '../text/sentencesIn.ts';
import { cutText } from './cut.ts';
import { countText, graphemesOf } from './limits.ts';

/**
 * A long text in numbered parts, divided at the ends of sentences; a sentence that is too long by
 * itself is divided at words.
 * @param limit graphemes of a part with its number
 * @returns one part without a number where the whole fits
 * @throws RangeError where a part has no room for a number and a word
 */
export function threadOf(text: string, limit: number, linkWeight: number | null = null): string[] {
  const whole = text.trim();
  const length = (t: string) => countText(t, linkWeight);
  if (length(whole) <= limit) return whole ? [whole] : [];
  if (limit < 20) throw new RangeError('A part of a thread needs at least 20 characters.');
  // How wide the numbers are is known only when the parts are counted.
  for (let digits = 1; ; digits++) {
    const room = limit - ` (${'9'.repeat(digits)}/${'9'.repeat(digits)})`.length;
    const parts = divide(whole, room, length, linkWeight);
    if (String(parts.length).length <= digits)
      return parts.map((part, i) => `${part} (${i + 1}/${parts.length})`);
  }
}

function divide(
  text: string,
  room: number,
  length: (t: string) => number,
  linkWeight: number | null
): string[] {
  const parts: string[] = [];
  let part = '';
  const close = () => {
    if (part) parts.push(part);
    part = '';
  };
  for (const paragraph of text.split(/\n\s*\n/u)) {
    let joint = part ? '\n\n' : '';
    for (const piece of sentencePieces(paragraph)) {
      if (length(part + joint + piece) <= room) part += joint + piece;
      else {
        close();
        let rest = piece;
        while (length(rest) > room) {
          const head = headOf(rest, room, linkWeight);
          parts.push(head);
          rest = rest.slice(head.length).trim();
        }
        part = rest;
      }
      joint = ' ';
    }
  }
  close();
  return parts;
}

/** Sentences with all that stands between them, so that nothing is lost. */
function sentencePieces(paragraph: string): string[] {
  const ends = sentencesIn(paragraph).map((s) => s.to);
  const pieces: string[] = [];
  let at = 0;
  for (const [i, end] of ends.entries()) {
    pieces.push(paragraph.slice(at, i === ends.length - 1 ? paragraph.length : end).trim());
    at = end;
  }
  return pieces.length > 0 ? pieces.filter(Boolean) : [paragraph.trim()].filter(Boolean);
}

/** The longest head of a text that ends at a word; else between graphemes. */
function headOf(text: string, room: number, linkWeight: number | null): string {
  let head = '';
  for (const { index } of text.matchAll(/\s+/gu)) {
    if (countText(text.slice(0, index), linkWeight) > room) break;
    head = text.slice(0, index);
  }
  if (head) return head;
  const cut = cutText(text, room, linkWeight).replace(/…$/u, '');
  return cut && text.startsWith(cut) ? cut : graphemesOf(text).slice(0, room).join('');
}
