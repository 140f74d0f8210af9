import type { Nodes, Parent, Text } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { parse } from 'yaml';
import type { TextBlock } from './textBlocks.ts';

/** A place in a file, both from 1. */
export interface Point {
  line: number;
  column: number;
}

export interface MarkdownPost {
  title: string;
  /** Where the title stands. */
  titleAt: Point;
  excerpt: string;
  blocks: TextBlock[];
  /** Where a character of a block's text stands in the file. */
  pointOf(block: number, offset: number): Point;
  links: number;
  hasEmbed: boolean;
  picturesWithoutText: Point[];
}

/** Front matter that is not YAML, or not a list of names and values. */
export class FrontMatterError extends Error {
  constructor(
    message: string,
    readonly line: number
  ) {
    super(message);
  }
}

interface MarkdownPart {
  /** Characters of the block's text before this piece. */
  at: number;
  length: number;
  offset: number;
}

/**
 * A post in Markdown (CommonMark) with YAML front matter, as blocks of plain text that know where
 * they stand.
 * @throws FrontMatterError when the front matter cannot be read
 */
export function markdownPost(source: string): MarkdownPost {
  const { front, body } = splitFrontMatter(source);
  const tree = fromMarkdown(body);
  const blocks: TextBlock[] = [];
  const pieces: MarkdownPart[][] = [];
  const post = { title: String(front.title ?? ''), titleAt: { line: 1, column: 1 }, links: 0 };
  let hasEmbed = false;
  const picturesWithoutText: Point[] = [];
  const visit = (node: Nodes, outer: TextBlock['kind'] | null, step: number | null): void => {
    if (node.type === 'html' && /<(?:iframe|video)\b/i.test(node.value)) hasEmbed = true;
    if (node.type === 'code') blocks.push({ kind: 'code', text: node.value });
    if (node.type === 'code') pieces.push([]);
    if (node.type === 'paragraph' || node.type === 'heading') {
      const kind = node.type === 'heading' ? 'heading' : (outer ?? 'paragraph');
      const found = { text: '', pieces: [] as MarkdownPart[] };
      inline(node);
      collect(node, found);
      if (node.type === 'heading' && node.depth === 1 && !post.title) {
        post.title = found.text;
        post.titleAt = startOf(node) ?? post.titleAt;
        return;
      }
      if (node.type === 'heading' && node.depth === 1 && found.text === post.title) return;
      if (found.text.trim()) {
        blocks.push({ kind, text: found.text, ...(step === null ? {} : { step }) });
        pieces.push(found.pieces);
      }
      return;
    }
    const inner = node.type === 'listItem' ? 'item' : node.type === 'blockquote' ? 'quote' : outer;
    const isNumbered = node.type === 'list' && node.ordered;
    if ('children' in node)
      for (const [i, child] of node.children.entries())
        // Only what stands first in a point is the step.
        visit(child, inner, isNumbered ? i + 1 : node.type === 'listItem' && i === 0 ? step : null);
  };
  const inline = (node: Parent): void => {
    for (const child of node.children as Nodes[]) {
      if (child.type === 'link') post.links++;
      if (child.type === 'html' && /<(?:iframe|video)\b/i.test(child.value)) hasEmbed = true;
      if (child.type === 'image') {
        if (child.alt) {
          blocks.push({ kind: 'picture', text: child.alt });
          pieces.push([]);
        } else {
          const start = startOf(child);
          if (start) picturesWithoutText.push(start);
        }
      }
      if ('children' in child) inline(child as Parent);
    }
  };
  visit(tree, null, null);
  return {
    ...post,
    excerpt: String(front.excerpt ?? front.description ?? ''),
    blocks,
    hasEmbed,
    picturesWithoutText,
    pointOf: (block, offset) => {
      const piece = pieces[block]?.findLast((p) => p.at <= offset);
      const index = piece ? piece.offset + Math.min(offset - piece.at, piece.length) : 0;
      const before = body.slice(0, index).split('\n');
      return { line: before.length, column: (before.at(-1)?.length ?? 0) + 1 };
    }
  };
}

const startOf = ({ position }: Nodes): Point | null =>
  position ? { line: position.start.line, column: position.start.column } : null;

function collect(node: Parent, found: { text: string; pieces: MarkdownPart[] }): void {
  for (const child of node.children as Nodes[]) {
    if (child.type === 'text' || child.type === 'inlineCode') {
      const { position, value } = child as Text;
      const offset = (position?.start.offset ?? 0) + (child.type === 'inlineCode' ? 1 : 0);
      found.pieces.push({ at: found.text.length, length: value.length, offset });
      found.text += value;
    } else if (child.type === 'break') found.text += ' ';
    else if ('children' in child) collect(child as Parent, found);
  }
}

/** The front matter is blanked, not cut, so that lines keep their numbers. */
function splitFrontMatter(source: string): { front: Record<string, unknown>; body: string } {
  const text = source.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const match = /^---[ \t]*\n([\s\S]*?\n)?---[ \t]*(?:\n|$)/.exec(text);
  if (!match) return { front: {}, body: text };
  let front: unknown;
  try {
    front = parse(match[1] ?? '');
  } catch (error) {
    const line = (error as { linePos?: { line: number }[] }).linePos?.[0]?.line ?? 1;
    throw new FrontMatterError('The front matter is not YAML.', line + 1);
  }
  if (
    front !== null &&
    front !== undefined &&
    (typeof front !== 'object' || Array.isArray(front))
  ) {
    throw new FrontMatterError('The front matter is not a list of names and values.', 2);
  }
  const blank = match[0].replace(/[^\n]/g, ' ');
  return {
    front: (front ?? {}) as Record<string, unknown>,
    body: blank + text.slice(match[0].length)
  };
}
