import type { Element, Root } from 'hast';
import { SKIP, visit } from 'unist-util-visit';
import { readMarkdown } from './markdown.ts';
import { elementText, postBlocks } from './postBlocks.ts';
import { asText, type TextBlock } from './textBlocks.ts';

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

/**
 * A post in Markdown with YAML front matter, as blocks of plain text that know where they stand.
 * @throws MarkdownError when the front matter cannot be read
 */
export function markdownPost(source: string): MarkdownPost {
  const lines = source.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const { front, tree } = readMarkdown(lines);
  const titled = takeTitle(tree, String(front.title ?? ''));
  const rows = asText(postBlocks(tree, { withOffsets: true })).filter(
    ({ block }) => block.kind !== 'picture' || block.text
  );
  const post = { links: 0, hasEmbed: false, picturesWithoutText: [] as Point[] };
  visit(tree, 'element', (node) => {
    if (node.tagName === 'a' && !String(node.properties.href ?? '#').startsWith('#')) post.links++;
    if (node.tagName === 'iframe' || node.tagName === 'video') post.hasEmbed = true;
    if (node.tagName === 'img' && !node.properties.alt)
      post.picturesWithoutText.push(startOf(node));
  });
  return {
    ...titled,
    ...post,
    excerpt: String(front.excerpt ?? front.description ?? ''),
    blocks: rows.map(({ block }) => block),
    pointOf: (block, offset) => {
      const pieces = rows[block]?.from.offsets;
      const piece = pieces?.findLast((p) => p.at <= offset);
      const index = piece ? piece.offset + Math.min(offset - piece.at, piece.length) : 0;
      const before = lines.slice(0, index).split('\n');
      return { line: before.length, column: (before.at(-1)?.length ?? 0) + 1 };
    }
  };
}

/** The title given, else the first heading of the first level. Headings that say it are taken out. */
function takeTitle(tree: Root, given: string): { title: string; titleAt: Point } {
  let title = given;
  let titleAt: Point = { line: 1, column: 1 };
  visit(tree, { tagName: 'h1' }, (node, index, parent) => {
    const text = elementText(node);
    if (!title) {
      title = text;
      titleAt = startOf(node);
    }
    if (text !== title || !parent || index === undefined) return;
    parent.children.splice(index, 1);
    return [SKIP, index];
  });
  return { title, titleAt };
}

const startOf = ({ position }: Element): Point => ({
  line: position?.start.line ?? 1,
  column: position?.start.column ?? 1
});
