import { piecesOf } from './pieces.ts';

/**
 * A text as the desk edits it: every block that stands as it was made knows its seconds of the video.
 * @param marked the text as it was made, with the seconds of each block
 */
export function withSeconds(html: string, marked: string): string {
  const sources = new Map(piecesOf(marked).pieces.map((piece) => [piece.key, piece.source]));
  const { before, pieces } = piecesOf(html);
  return before + pieces.map((p) => (sources.get(p.key) ?? p.source) + p.after).join('');
}
