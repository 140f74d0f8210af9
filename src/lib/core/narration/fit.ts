/** Width of a text in pixels when set at so many pixels in a weight. */
export type Measure = (text: string, font: Font) => number;

export interface Font {
  family: string;
  weight: number;
  /** Pixels. */
  size: number;
}

export interface Fitted {
  size: number;
  /** Pages that are shown one after the other; more than one only where the text is too long for one. */
  pages: string[][];
  lineHeight: number;
}

export interface FitOptions {
  width: number;
  height: number;
  family: string;
  weight: number;
  largest: number;
  /** The floor: a size under it is never used. */
  smallest: number;
  lineHeight: number;
}

let graphemes: Intl.Segmenter | null = null;
let words: Intl.Segmenter | null = null;
const UNSPACED = /[\u3040-\u30ff\u3400-\u9fff\u0e00-\u0eff\u1000-\u109f]/;

/** Places where a line may end: at spaces, after hyphens and dashes, and between words of scripts without spaces. */
function pieces(text: string): string[] {
  const spaced = text.split(/(?<=\s)|(?<=[\p{L}\p{N}][-–—/])(?=\p{L})/u).filter(Boolean);
  if (!UNSPACED.test(text)) return spaced;
  words ??= new Intl.Segmenter(undefined, { granularity: 'word' });
  const segments = spaced.flatMap((s) => [...words!.segment(s)].map((w) => w.segment));
  // A mark never begins a line.
  return segments.reduce<string[]>((list, segment) => {
    if (list.length > 0 && /^[\p{P}\s]+$/u.test(segment) && !/^[\p{Ps}\p{Pi}]/u.test(segment))
      list[list.length - 1] += segment;
    else list.push(segment);
    return list;
  }, []);
}

/** By how much, of a line, its width may differ from the sum of the widths of its words. */
const KERNING = 0.03;

/**
 * Lines no wider than the width. A word that is wider than a line by itself is cut. Words are
 * measured by themselves, and a line only where their sum does not tell: words come again, lines do not.
 */
export function breakLines(
  text: string,
  width: number,
  measure: (text: string) => number
): string[] {
  const lines: string[] = [];
  let line = '';
  let sum = 0;
  const fits = (tried: string, about: number) =>
    about < width * (1 - KERNING) ||
    (about < width * (1 + KERNING) + measure(' ') && measure(tried.trimEnd()) <= width);
  for (const piece of pieces(text)) {
    const wide = measure(piece);
    if (fits(line + piece, sum + wide)) {
      line += piece;
      sum += wide;
      continue;
    }
    if (line.trim()) lines.push(line.trim());
    line = piece;
    sum = wide;
    while (measure(line.trimEnd()) > width) {
      const head = fittingHead(line, width, measure);
      lines.push(head);
      line = line.slice(head.length);
      sum = measure(line);
    }
  }
  if (line.trim()) lines.push(line.trim());
  return lines;
}

function fittingHead(word: string, width: number, measure: (text: string) => number): string {
  graphemes ??= new Intl.Segmenter(undefined, { granularity: 'grapheme' });
  let head = '';
  for (const { segment } of graphemes.segment(word)) {
    if (head && measure(head + segment) > width) break;
    head += segment;
  }
  return head;
}

/**
 * Sets a text as large as it fits into a box, by measuring. Where it does not fit at the smallest
 * size, it is divided into pages at the ends of lines. Nothing overflows, nothing is left out.
 */
export function fitText(text: string, options: FitOptions, measure: Measure): Fitted {
  const { width, height, family, weight, largest, smallest, lineHeight } = options;
  const at = (size: number) => {
    const lines = breakLines(text, width, (t) => measure(t, { family, weight, size }));
    return { lines, height: lines.length * size * lineHeight };
  };
  // Sizes step by about four percent, so that cards of like texts come out alike.
  for (let size = largest; size > smallest; size = Math.max(smallest, Math.floor(size * 0.96))) {
    const set = at(size);
    if (set.height <= height && !breaksWord(text, set.lines))
      return {
        size,
        pages: [balanced(text, set.lines, width, (t) => measure(t, { family, weight, size }))],
        lineHeight
      };
  }
  const { lines } = at(smallest);
  const perPage = Math.max(1, Math.floor(height / (smallest * lineHeight)));
  const count = Math.max(1, Math.ceil(lines.length / perPage));
  const even = Math.ceil(lines.length / count);
  const pages = Array.from({ length: count }, (_, p) => lines.slice(p * even, (p + 1) * even));
  return { size: smallest, pages: pages.filter((p) => p.length > 0 || count === 1), lineHeight };
}

/** Whether some line ends inside a word. */
function breaksWord(text: string, lines: readonly string[]): boolean {
  const starts = new Set<number>();
  let at = 0;
  for (const piece of pieces(text)) {
    starts.add(at);
    at += piece.length;
  }
  let from = 0;
  return lines.some((line) => {
    const found = text.indexOf(line, from);
    from = found + line.length;
    return found >= 0 && !starts.has(found) && text.slice(0, found).trim() !== '';
  });
}

/** The same number of lines, as even as they can be: the narrowest width that does not need another. */
function balanced(
  text: string,
  lines: string[],
  width: number,
  measure: (text: string) => number
): string[] {
  if (lines.length < 2) return lines;
  let [low, high] = [width * 0.5, width];
  let best = lines;
  for (let i = 0; i < 6; i++) {
    const mid = (low + high) / 2;
    const tried = breakLines(text, mid, measure);
    if (tried.length === lines.length && !breaksWord(text, tried)) {
      best = tried;
      high = mid;
    } else low = mid;
  }
  return best;
}
