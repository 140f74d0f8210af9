import type { Element, Nodes, RootContent } from 'hast';
import { readHtml } from '../../markup/html.ts';
import { FRAMES } from '../../markup/placedText.ts';
import { breaksText, oneLine } from '../../text/html.ts';
import { ORIGIN_CLASS } from '../../feeds/allowed.ts';

/** A stretch of HTML that is merged as one: a block, or a sentence of a block. */
export interface Piece {
  /** As it stands in the source. */
  source: string;
  /** What stands between it and the next: white space and the marker of its origin. */
  after: string;
  /** The same for two that readers see no difference between, and for no others. */
  key: string;
  /** Name of its element; of a sentence `#sentence`. */
  tag: string;
  /** What it is made of, where it is not merged as a whole. */
  inside: { open: string; pieces: Piece[]; close: string } | null;
}

/** Elements that are merged as a whole. */
const WHOLE: ReadonlySet<string> = new Set([
  ...FRAMES,
  'img',
  'picture',
  'hr',
  'table',
  'pre',
  'figure',
  'form'
]);

/** What of an element's attributes a reader can tell. */
const SEEN = ['href', 'src', 'alt', 'dateTime', 'start'];

/**
 * The blocks of a post, each as it stands in the source, so that those that are left alone stay the same
 * to the character. Paragraphs and headings are cut into sentences; lists and sections into what they hold.
 * @param html of a post, as any blog writes it
 * @returns what stands before the first, and all of them
 */
export function piecesOf(html: string): { before: string; pieces: Piece[] } {
  return piecesIn(readHtml(html).children, html, 0, html.length);
}

/** Where a node begins and ends in the source; null where the source has it in no one place. */
function spanOf({ position }: Nodes): { from: number; to: number } | null {
  const from = position?.start.offset;
  const to = position?.end.offset;
  return from === undefined || to === undefined ? null : { from, to };
}

function piecesIn(
  nodes: readonly RootContent[],
  html: string,
  from: number,
  to: number
): { before: string; pieces: Piece[] } {
  const groups = groupsOf(nodes);
  const spans = groups.map((group) => {
    const [first, last] = [group.at(0), group.at(-1)];
    const [start, end] = [first && spanOf(first), last && spanOf(last)];
    return start && end ? { from: start.from, to: end.to } : null;
  });
  let reached = from;
  const isInOrder = spans.every((span) => {
    const isNext = span !== null && span.from >= reached && span.to >= span.from && span.to <= to;
    reached = span?.to ?? reached;
    return isNext;
  });
  // What a browser has to put elsewhere to show it cannot be cut from the source.
  if (!isInOrder) return { before: '', pieces: [wholePiece(nodes, html.slice(from, to))] };
  const pieces = groups.map((group, i): Piece => {
    const span = spans[i] ?? { from, to };
    const piece = pieceOf(group, html, span);
    return { ...piece, after: html.slice(span.to, spans[i + 1]?.from ?? to) };
  });
  return { before: html.slice(from, spans[0]?.from ?? to), pieces };
}

/** Blocks, each alone, and what stands loose between them, together. */
function groupsOf(nodes: readonly RootContent[]): RootContent[][] {
  const groups: RootContent[][] = [];
  let loose: RootContent[] = [];
  const close = () => {
    while (loose.length > 0 && isBetween(loose.at(-1))) loose.pop();
    if (loose.length > 0) groups.push(loose);
    loose = [];
  };
  for (const node of nodes) {
    if (isBlock(node)) {
      close();
      groups.push([node]);
    } else if (loose.length > 0 || !isBetween(node)) loose.push(node);
  }
  close();
  return groups;
}

/** White space, and the marker by which an item tells where it comes from. */
const isBetween = (node: RootContent | undefined): boolean =>
  node === undefined ||
  (node.type === 'text' && !node.value.trim()) ||
  (node.type === 'element' &&
    node.tagName === 'data' &&
    [node.properties.className].flat().includes(ORIGIN_CLASS));

const isBlock = (node: RootContent): node is Element =>
  (node.type === 'element' &&
    node.tagName !== 'br' &&
    (breaksText(node.tagName) || WHOLE.has(node.tagName))) ||
  node.type === 'comment';

function wholePiece(nodes: readonly RootContent[], source: string): Piece {
  const key = oneLine(nodes.map(seenOf).join(''));
  return { source, after: '', key, tag: '#whole', inside: null };
}

function pieceOf(
  group: readonly RootContent[],
  html: string,
  { from, to }: { from: number; to: number }
): Piece {
  const [node] = group;
  const whole = wholePiece(group, html.slice(from, to));
  if (group.length > 1 || node?.type !== 'element' || !isBlock(node)) {
    const pieces = sentencesOf(group, html, from, to);
    return { ...whole, tag: '#loose', inside: { open: '', pieces, close: '' } };
  }
  return {
    ...whole,
    tag: node.tagName,
    inside: WHOLE.has(node.tagName) ? null : insideOf(node, html)
  };
}

function insideOf(node: Element, html: string): Piece['inside'] {
  const span = spanOf(node);
  const [first, last] = [node.children.at(0), node.children.at(-1)];
  const [start, end] = [first && spanOf(first), last && spanOf(last)];
  if (!span || !start || !end || start.from < span.from || end.to > span.to) return null;
  const open = html.slice(span.from, start.from);
  const close = html.slice(end.to, span.to);
  if (!node.children.some(isBlock))
    return { open, pieces: sentencesOf(node.children, html, start.from, end.to), close };
  const { before, pieces } = piecesIn(node.children, html, start.from, end.to);
  return { open: open + before, pieces, close };
}

const ENDS = /(?<=[.!?…]["”’)]{0,3}\s{1,3})(?=\S)/;

/** Sentences of what stands on a line, with the elements that they hold. */
function sentencesOf(
  nodes: readonly RootContent[],
  html: string,
  from: number,
  to: number
): Piece[] {
  const found: Piece[] = [];
  let [begun, seen] = [from, ''];
  const close = (end: number) => {
    const text = html.slice(begun, end);
    const source = text.trimEnd();
    const key = oneLine(seen);
    if (key || source.trim())
      found.push({ source, after: text.slice(source.length), key, tag: '#sentence', inside: null });
    else if (text) {
      const last = found.at(-1);
      if (last) last.after += text;
      else found.push({ source: text, after: '', key: '', tag: '#sentence', inside: null });
    }
    [begun, seen] = [end, ''];
  };
  for (const node of nodes) {
    const span = spanOf(node);
    // What stands in no one place of the source stays with its sentence.
    if (node.type !== 'text' || !span || html.slice(span.from, span.to).includes('<')) {
      seen += seenOf(node);
      if (node.type === 'element' && node.tagName === 'br' && span) close(span.to);
      continue;
    }
    const parts = html.slice(span.from, span.to).split(ENDS);
    let end = span.from;
    for (const [i, part] of parts.entries()) {
      end += part.length;
      // Read again one by one, as the source may write a character by its name.
      seen += seenOf(parts.length === 1 ? node : textOf(part));
      if (i < parts.length - 1) close(end);
    }
  }
  close(to);
  return found;
}

const textOf = (source: string): RootContent => {
  const value = readHtml(source)
    .children.map((c) => (c.type === 'text' ? c.value : ''))
    .join('');
  return { type: 'text', value };
};

/** What a reader sees of a node, with what its links and pictures lead to. */
function seenOf(node: Nodes): string {
  if (node.type === 'text') return node.value;
  if (node.type === 'comment') return `<!--${node.value}-->`;
  if (node.type !== 'element') return '';
  // White space between blocks is not seen.
  const shown = node.children.some(isBlock)
    ? node.children.filter((child) => child.type !== 'text' || child.value.trim())
    : node.children;
  const all = shown.map(seenOf).join('');
  const inner = breaksText(node.tagName) ? oneLine(all) : all;
  if (node.tagName === 'span') return inner;
  const seen = SEEN.flatMap((name) => {
    const value = node.properties[name];
    return value === undefined || value === null ? [] : [` ${name}=${String(value)}`];
  });
  return `<${node.tagName}${seen.join('')}>${inner}</${node.tagName}>`;
}
