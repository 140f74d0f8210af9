import type { Element, ElementContent, Nodes, Root } from 'hast';
import { fromHtml } from 'hast-util-from-html';
import { toHtml } from 'hast-util-to-html';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmFromMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { gfm } from 'micromark-extension-gfm';
import { oneLine } from '../text/html.ts';

/** What a post shows that cannot be read out. */
export type Unspoken = 'code' | 'table' | 'footnote' | 'gallery' | 'embed' | 'folded';

/** A block of a post as its reader sees it. Texts are plain, on one line. */
export type PostBlock =
  | { kind: 'heading'; level: number; text: string }
  | { kind: 'paragraph'; text: string }
  | { kind: 'list'; isOrdered: boolean; first: number; items: string[] }
  | { kind: 'quote'; text: string; by: string }
  | { kind: 'picture'; url: string; alt: string; caption: string }
  | { kind: 'unspoken'; what: Unspoken; text: string };

const HIDDEN = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'head',
  'nav',
  'form',
  'button'
]);
const FRAMES = new Set(['iframe', 'video', 'audio', 'object', 'embed', 'canvas', 'svg']);
const HOLDERS = new Set(
  'html body div section article main header footer aside figure center dl picture'.split(' ')
);

/** The blocks of a post's HTML, in the order of the page. What readers do not see is no part of it. */
export function postBlocks(html: string): PostBlock[] {
  const blocks: PostBlock[] = [];
  readInto(blocks, fromHtml(html, { fragment: true }));
  return blocks.filter((b) => b.kind !== 'unspoken' || b.what !== 'footnote' || b.text);
}

/** Markdown (CommonMark with tables and footnotes; front matter cut off) as HTML. */
export function markdownToHtml(source: string): string {
  const body = source.replace(/^\uFEFF?---[ \t]*\r?\n[\s\S]*?\r?\n---[ \t]*(?:\r?\n|$)/, '');
  const tree = fromMarkdown(body, {
    extensions: [gfm()],
    mdastExtensions: [gfmFromMarkdown()]
  });
  return toHtml(toHast(tree, { allowDangerousHtml: true }), { allowDangerousHtml: true });
}

function readInto(blocks: PostBlock[], parent: Root | Element): void {
  let loose: ElementContent[] = [];
  const closeLoose = () => {
    const text = textOf(loose);
    if (text) blocks.push({ kind: 'paragraph', text });
    loose = [];
  };
  for (const node of parent.children) {
    if (node.type === 'text') loose.push(node);
    if (node.type !== 'element' || HIDDEN.has(node.tagName)) continue;
    if (isInline(node)) {
      loose.push(node);
      blocks.push(...picturesIn(node));
    } else {
      closeLoose();
      readElement(blocks, node);
    }
  }
  closeLoose();
}

function readElement(blocks: PostBlock[], node: Element): void {
  const { tagName: tag } = node;
  const text = () => textOf([node]);
  const unspoken = (what: Unspoken) => blocks.push({ kind: 'unspoken', what, text: text() });
  if (isFootnotes(node)) unspoken('footnote');
  else if (/^h[1-6]$/.test(tag)) {
    if (text()) blocks.push({ kind: 'heading', level: Number(tag[1]), text: text() });
  } else if (tag === 'p') readParagraph(blocks, node);
  else if (tag === 'ul' || tag === 'ol') readList(blocks, node);
  else if (tag === 'blockquote') readQuote(blocks, node);
  else if (tag === 'pre') unspoken('code');
  else if (tag === 'table') unspoken('table');
  else if (tag === 'details') unspoken('folded');
  else if (FRAMES.has(tag)) {
    const title = node.properties.title;
    blocks.push({ kind: 'unspoken', what: 'embed', text: typeof title === 'string' ? title : '' });
  } else if (tag === 'img') blocks.push(...picturesIn(node));
  else if (tag === 'figure' && picturesIn(node).length > 0) readFigure(blocks, node);
  else if (HOLDERS.has(tag) && isGallery(node)) readGallery(blocks, node);
  else if (tag === 'dt' || tag === 'dd') {
    if (text()) blocks.push({ kind: 'paragraph', text: text() });
  } else readInto(blocks, node);
}

function readParagraph(blocks: PostBlock[], node: Element): void {
  const pictures = picturesIn(node);
  const text = textOf([node]);
  if (pictures.length > 2 && !text) readGallery(blocks, node);
  else blocks.push(...pictures);
  if (text) blocks.push({ kind: 'paragraph', text });
  for (const frame of framesIn(node))
    blocks.push({ kind: 'unspoken', what: 'embed', text: String(frame.properties.title ?? '') });
}

function readList(blocks: PostBlock[], node: Element): void {
  const items: string[] = [];
  const flatten = (list: Element) => {
    for (const child of list.children) {
      if (child.type !== 'element') continue;
      const inner = child.children.filter(
        (c): c is Element => c.type === 'element' && (c.tagName === 'ul' || c.tagName === 'ol')
      );
      const own = textOf(child.children.filter((c) => !inner.includes(c as Element)));
      if (own) items.push(own);
      for (const list of inner) flatten(list);
    }
  };
  flatten(node);
  const first = Number(node.properties.start ?? 1) || 1;
  if (items.length > 0)
    blocks.push({ kind: 'list', isOrdered: node.tagName === 'ol', first, items });
  blocks.push(...picturesIn(node));
}

function readQuote(blocks: PostBlock[], node: Element): void {
  const by = find(node, (e) => e.tagName === 'cite' || e.tagName === 'footer');
  const text = textOf(
    node.children.filter((c) => c !== by && !(c.type === 'element' && by && contains(c, by)))
  );
  const credit = by ? textOf([by]).replace(/^[—–-]\s*/, '') : '';
  const withBy = by && !text ? textOf(node.children) : text;
  if (withBy) blocks.push({ kind: 'quote', text: withBy, by: credit });
}

function readFigure(blocks: PostBlock[], node: Element): void {
  const pictures = picturesIn(node);
  const caption = find(node, (e) => e.tagName === 'figcaption');
  const said = caption ? textOf([caption]) : '';
  if (pictures.length > 2) readGallery(blocks, node);
  else for (const picture of pictures) blocks.push({ ...picture, caption: said });
}

/** The first picture of a gallery stands for all of them. */
function readGallery(blocks: PostBlock[], node: Element): void {
  const [first, ...others] = picturesIn(node);
  if (first) blocks.push(first);
  const alts = others.map((p) => p.alt).filter(Boolean);
  blocks.push({
    kind: 'unspoken',
    what: 'gallery',
    text: alts.join('; ') || String(others.length)
  });
}

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
  const prose = find(
    node,
    (e) =>
      /^(?:p|h[1-6]|li|blockquote)$/.test(e.tagName) &&
      textOf([e]) !== '' &&
      picturesIn(e).length === 0
  );
  return prose === null;
}

/** As Markdown makes them, or as what is left of them when classes are cleaned away. */
function isFootnotes(node: Element): boolean {
  if (node.properties.dataFootnotes !== undefined) return true;
  const names = [node.properties.className].flat().join(' ');
  if (/\bfoot-?notes?\b/.test(names) || node.properties.role === 'doc-endnotes') return true;
  return node.tagName === 'ol' && /↩/.test(textOf([node]));
}

const isInline = (node: Element): boolean =>
  /^(?:a|abbr|b|bdi|bdo|br|cite|code|data|del|dfn|em|font|i|ins|kbd|label|mark|q|s|samp|small|span|strong|sub|sup|time|u|var|wbr)$/.test(
    node.tagName
  ) &&
  find(node, (e) => /^(?:p|div|ul|ol|h[1-6]|table|figure|blockquote)$/.test(e.tagName)) === null;

function find(node: Element, is: (e: Element) => boolean): Element | null {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (is(child)) return child;
    const inner = find(child, is);
    if (inner) return inner;
  }
  return null;
}
const contains = (node: Nodes, wanted: Element): boolean =>
  node === wanted ||
  ('children' in node && node.children.some((child) => contains(child as Nodes, wanted)));

/** A mark that leads to a footnote is no text. */
const isNoteMark = (node: Element): boolean =>
  node.tagName === 'sup' &&
  find(node, (e) => e.tagName === 'a') !== null &&
  /^[\s[\](){}\d*†‡§]{0,6}$/.test(node.children.map((c) => rawText(c)).join(''));

function rawText(node: Nodes): string {
  if (node.type === 'text') return node.value;
  if (node.type !== 'element' && node.type !== 'root') return '';
  if (node.type === 'element') {
    if (HIDDEN.has(node.tagName) || FRAMES.has(node.tagName)) return '';
    if (node.tagName === 'br') return '\n';
    if (isNoteMark(node)) return '';
  }
  const text = node.children.map((c) => rawText(c as Nodes)).join('');
  return node.type === 'element' &&
    /^(?:p|li|div|h[1-6]|tr|td|th|dd|dt|section)$/.test(node.tagName)
    ? `\n${text}\n`
    : text;
}

const textOf = (nodes: readonly ElementContent[]): string =>
  oneLine(nodes.map((n) => rawText(n)).join(''));
