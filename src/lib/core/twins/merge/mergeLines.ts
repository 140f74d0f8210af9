import { mergePieces, type Merged } from './mergeHtml.ts';
import type { Piece } from './pieces.ts';

/** Merges three versions of a plain text, line by line. As `mergeHtml`. */
export const mergeLines = (base: string, mine: string, fresh: string): Merged =>
  mergePieces(linesOf(base), linesOf(mine), linesOf(fresh));

/** Lines with words in them; empty ones stand behind the line before. */
function linesOf(text: string): Piece[] {
  const pieces: Piece[] = [];
  for (const line of text.split(/(?<=\n)/)) {
    const source = line.trimEnd();
    if (!line) continue;
    const last = pieces.at(-1);
    if (!source && last) last.after += line;
    else {
      const after = line.slice(source.length);
      pieces.push({ source, after, key: source.trim(), tag: '#line', inside: null });
    }
  }
  return pieces;
}
