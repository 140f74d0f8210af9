import type { Element, ElementContent, Nodes, Root } from 'hast';
import { visit } from 'unist-util-visit';
import { oneLine } from '../text/html.ts';
import { findElement } from './html.ts';
import { FRAMES, HIDDEN, placedText, type PlacedText } from './placedText.ts';

/** What a post shows that is no part of its prose. */
export type Unspoken = 'code' | 'table' | 'footnote' | 'gallery' | 'embed' | 'folded';

/** An item of a list, with the paragraphs it has. */
export interface ListItem {
  paragraphs: PlacedText[];
  /** In a numbered list which one it is, from 1 on; null in others. */
  step: number | null;
}

/** A block of a post as its reader sees it. Texts are plain, on one line. */
export type PostBlock =
  | ({ kind: 'heading'; level: number } & PlacedText)
  | ({ kind: 'paragraph' } & PlacedText)
  | { kind: 'list'; isOrdered: boolean; first: number; items: ListItem[] }
  | ({ kind: 'quote'; by: string } & PlacedText)
  | { kind: 'picture'; url: string; alt: string; caption: string }
  | ({
      kind: 'unspoken';
      what: Unspoken;
      /** Of a gallery, the text alternatives of the pictures after its first. */
      alts?: string[];
      /** Of a table, its cells by row. */
      rows?: string[][];
    } & PlacedText);

export const itemText = (item: ListItem): string => item.paragraphs.map((p) => p.text).join(' ');

/** The text of an element on one line. */
export const elementText = (element: Element): string => placedText([element]).text;

/** What is being read, and what was found in it so far. */
interface Page {
  blocks: PostBlock[];
  /** The text of nodes, with all that is to be known of it. */
  text: (nodes: readonly ElementContent[]) => PlacedText;
}

const HOLDERS = new Set(
  'html body div section article main header footer aside figure center dl picture'.split(' ')
);

/**
 * The blocks of a post in the order of the page: the one reading of HTML and Markdown that review,
 * updates and narration share. What readers do not see is no part of it.
 * @param options.withOffsets whether each text shall know where its words stand in the source
 */
export function postBlocks(
  tree: Root | Element,
  { withOffsets = false }: { withOffsets?: boolean } = {}
): PostBlock[] {
  const page: Page = { blocks: [], text: (nodes) => placedText(nodes, withOffsets) };
  readInto(page, tree);
  return page.blocks.filter((b) => b.kind !== 'unspoken' || b.what !== 'footnote' || b.text);
}

function readInto(page: Page, parent: Root | Element): void {
  let loose: ElementContent[] = [];
  const closeLoose = () => {
    const found = page.text(loose);
    if (found.text) page.blocks.push({ kind: 'paragraph', ...found });
    loose = [];
  };
  for (const node of parent.children) {
    if (node.type === 'text') loose.push(node);
    if (node.type !== 'element' || HIDDEN.has(node.tagName)) continue;
    if (isInline(node)) {
      loose.push(node);
      page.blocks.push(...picturesIn(node));
    } else {
      closeLoose();
      readElement(page, node);
    }
  }
  closeLoose();
}

function readElement(page: Page, node: Element): void {
  const { blocks } = page;
  const { tagName: tag } = node;
  const unspoken = (what: Unspoken) =>
    blocks.push({ kind: 'unspoken', what, ...page.text([node]) });
  if (isFootnotes(node)) unspoken('footnote');
  else if (/^h[1-6]$/.test(tag)) {
    const found = page.text([node]);
    if (found.text) blocks.push({ kind: 'heading', level: Number(tag[1]), ...found });
  } else if (tag === 'p') readParagraph(page, node);
  else if (tag === 'ul' || tag === 'ol') readList(page, node);
  else if (tag === 'blockquote') readQuote(page, node);
  else if (tag === 'pre') unspoken('code');
  else if (tag === 'table') readTable(page, node);
  else if (tag === 'details') unspoken('folded');
  else if (FRAMES.has(tag)) blocks.push(frame(node));
  else if (tag === 'img') blocks.push(...picturesIn(node));
  else if (tag === 'figure' && picturesIn(node).length > 0) readFigure(page, node);
  else if (HOLDERS.has(tag) && isGallery(node)) readGallery(page, node);
  else if (tag === 'dt' || tag === 'dd') {
    const found = page.text([node]);
    if (found.text) blocks.push({ kind: 'paragraph', ...found });
  } else readInto(page, node);
}

function readTable(page: Page, node: Element): void {
  const rows: string[][] = [];
  visit(node, { tagName: 'tr' }, (row) => {
    const cells = row.children.filter(
      (c): c is Element => c.type === 'element' && (c.tagName === 'th' || c.tagName === 'td')
    );
    rows.push(cells.map(elementText));
  });
  page.blocks.push({ kind: 'unspoken', what: 'table', ...page.text([node]), rows });
}

function readParagraph(page: Page, node: Element): void {
  const pictures = picturesIn(node);
  const found = page.text([node]);
  if (pictures.length > 2 && !found.text) readGallery(page, node);
  else page.blocks.push(...pictures);
  if (found.text) page.blocks.push({ kind: 'paragraph', ...found });
  page.blocks.push(...framesIn(node).map(frame));
}

/** Lists in lists become one; what is theirs follows the item that they stand in. */
function readList(page: Page, node: Element): void {
  const items: ListItem[] = [];
  const flatten = (list: Element) => {
    let step = 0;
    for (const child of list.children) {
      if (child.type !== 'element') continue;
      if (child.tagName === 'li') step++;
      const isList = (c: ElementContent): c is Element =>
        c.type === 'element' && (c.tagName === 'ul' || c.tagName === 'ol');
      const own = { ...child, children: child.children.filter((c) => !isList(c)) };
      const paragraphs = paragraphsIn(page, own);
      if (paragraphs.length > 0)
        items.push({ paragraphs, step: list.tagName === 'ol' ? step : null });
      for (const inner of child.children) if (isList(inner)) flatten(inner);
    }
  };
  flatten(node);
  const first = Number(node.properties.start ?? 1) || 1;
  if (items.length > 0)
    page.blocks.push({ kind: 'list', isOrdered: node.tagName === 'ol', first, items });
  page.blocks.push(...picturesIn(node));
  visit(node, { tagName: 'pre' }, (code) => {
    page.blocks.push({ kind: 'unspoken', what: 'code', ...page.text([code]) });
  });
}

/** The texts of an element that stand apart from each other; code is none. */
function paragraphsIn(page: Page, node: Element): PlacedText[] {
  const found: PlacedText[] = [];
  let loose: ElementContent[] = [];
  const close = (nodes: ElementContent[]) => {
    const text = page.text(nodes);
    if (text.text) found.push(text);
    loose = [];
  };
  for (const child of node.children) {
    if (child.type !== 'element' || isInline(child)) loose.push(child);
    else if (child.tagName !== 'pre') {
      close(loose);
      close([child]);
    }
  }
  close(loose);
  const seconds = page.text([node]).seconds;
  return found.map((text) => (seconds && !text.seconds ? { ...text, seconds } : text));
}

function readQuote(page: Page, node: Element): void {
  const by = findElement(node, (e) => e.tagName === 'cite' || e.tagName === 'footer');
  const own = page.text(
    node.children.filter((c) => c !== by && !(c.type === 'element' && by && contains(c, by)))
  );
  const credit = by ? elementText(by).replace(/^[—–-]\s*/, '') : '';
  const found = by && !own.text ? page.text(node.children) : own;
  if (found.text) page.blocks.push({ kind: 'quote', by: credit, ...found });
}

function readFigure(page: Page, node: Element): void {
  const pictures = picturesIn(node);
  const caption = findElement(node, (e) => e.tagName === 'figcaption');
  const said = caption ? elementText(caption) : '';
  if (pictures.length > 2) readGallery(page, node);
  else for (const picture of pictures) page.blocks.push({ ...picture, caption: said });
}

/** The first picture of a gallery stands for all of them. */
function readGallery(page: Page, node: Element): void {
  const [first, ...others] = picturesIn(node);
  if (first) page.blocks.push(first);
  const alts = others.map((p) => p.alt).filter(Boolean);
  page.blocks.push({
    kind: 'unspoken',
    what: 'gallery',
    text: alts.join('; ') || String(others.length),
    alts
  });
}

const frame = ({ properties }: Element): PostBlock => ({
  kind: 'unspoken',
  what: 'embed',
  text: typeof properties.title === 'string' ? properties.title : ''
});

type PictureBlock = Extract<PostBlock, { kind: 'picture' }>;

function picturesIn(node: Element): PictureBlock[] {
  const own: PictureBlock[] = [];
  if (node.tagName === 'img' && typeof node.properties.src === 'string' && node.properties.src) {
    const { src, alt } = node.properties;
    own.push({ kind: 'picture', url: src, alt: oneLine(String(alt ?? '')), caption: '' });
  }
  return [...own, ...node.children.flatMap((c) => (c.type === 'element' ? picturesIn(c) : []))];
}

const framesIn = (node: Element): Element[] =>
  node.children.flatMap((c) =>
    c.type !== 'element' ? [] : FRAMES.has(c.tagName) ? [c] : framesIn(c)
  );

/** Three pictures or more, and no text but their captions. */
function isGallery(node: Element): boolean {
  if (picturesIn(node).length < 3) return false;
  const prose = findElement(
    node,
    (e) =>
      /^(?:p|h[1-6]|li|blockquote)$/.test(e.tagName) &&
      elementText(e) !== '' &&
      picturesIn(e).length === 0
  );
  return prose === null;
}

/** As Markdown makes them, or as what is left of them when classes are cleaned away. */
function isFootnotes(node: Element): boolean {
  if (node.properties.dataFootnotes !== undefined) return true;
  const names = [node.properties.className].flat().join(' ');
  if (/\bfoot-?notes?\b/.test(names) || node.properties.role === 'doc-endnotes') return true;
  return node.tagName === 'ol' && /↩/.test(elementText(node));
}

const isInline = (node: Element): boolean =>
  /^(?:a|abbr|b|bdi|bdo|br|cite|code|data|del|dfn|em|font|i|ins|kbd|label|mark|q|s|samp|small|span|strong|sub|sup|time|u|var|wbr)$/.test(
    node.tagName
  ) &&
  findElement(node, (e) => /^(?:p|div|ul|ol|h[1-6]|table|figure|blockquote)$/.test(e.tagName)) ===
    null;

const contains = (node: Nodes, wanted: Element): boolean =>
  node === wanted ||
  ('children' in node && node.children.some((child) => contains(child as Nodes, wanted)));
