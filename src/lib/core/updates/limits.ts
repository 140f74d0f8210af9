let graphemes: Intl.Segmenter | null = null;
const LINK = /https?:\/\/[^\s<>"]*[^\s<>"'.,;:!?)\]]/giu;

/** User-perceived characters (Unicode, annex 29). */
export function graphemesOf(text: string): string[] {
  graphemes ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  return [...graphemes.segment(text)].map((g) => g.segment);
}

/**
 * The length of a text as a place counts it: graphemes, links at their weight.
 */
export function countText(text: string, linkWeight: number | null = null): number {
  if (linkWeight === null) return graphemesOf(text).length;
  let count = 0;
  let at = 0;
  for (const link of text.matchAll(LINK)) {
    count += graphemesOf(text.slice(at, link.index)).length + linkWeight;
    at = link.index + link[0].length;
  }
  return count + graphemesOf(text.slice(at)).length;
}
