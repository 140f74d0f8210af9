import type { Root } from 'hast';
import { raw } from 'hast-util-raw';
import { toMdast } from 'hast-util-to-mdast';
import type { Nodes as MarkdownNodes, Yaml } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { frontmatterFromMarkdown, frontmatterToMarkdown } from 'mdast-util-frontmatter';
import { gfmFromMarkdown, gfmToMarkdown } from 'mdast-util-gfm';
import { toHast } from 'mdast-util-to-hast';
import { toMarkdown } from 'mdast-util-to-markdown';
import { frontmatter } from 'micromark-extension-frontmatter';
import { gfm } from 'micromark-extension-gfm';
import { VFile } from 'vfile';
import { parse, stringify } from 'yaml';
import { writeHtml } from './html.ts';

/** Markdown that cannot be read: its front matter is not YAML, or it is nested without end. */
export class MarkdownError extends Error {
  constructor(
    message: string,
    readonly line: number
  ) {
    super(message);
  }
}

export interface MarkdownFile {
  /** Fields of the YAML front matter. */
  front: Record<string, unknown>;
  /** The rest as HTML would be read, each node with its place in the file. */
  tree: Root;
}

/**
 * Markdown (CommonMark with tables and footnotes) with YAML front matter, as one tree with the HTML
 * that stands in it.
 * @throws MarkdownError
 */
export function readMarkdown(source: string): MarkdownFile {
  try {
    return readTree(source);
  } catch (error) {
    // Each level of nesting takes a piece of the stack.
    if (error instanceof RangeError)
      throw new MarkdownError('It is nested too deeply to be read.', 1);
    throw error;
  }
}

function readTree(source: string): MarkdownFile {
  const tree = fromMarkdown(source.replace(/^\uFEFF/, ''), {
    extensions: [gfm(), frontmatter(['yaml'])],
    mdastExtensions: [gfmFromMarkdown(), frontmatterFromMarkdown(['yaml'])]
  });
  const first = tree.children[0];
  const html = toHast(tree, { allowDangerousHtml: true });
  return {
    front: first?.type === 'yaml' ? frontOf(first) : {},
    tree: raw(html, { file: new VFile(source) }) as Root
  };
}

function frontOf({ value }: Yaml): Record<string, unknown> {
  let front: unknown;
  try {
    front = parse(value);
  } catch (error) {
    const line = (error as { linePos?: { line: number }[] }).linePos?.[0]?.line ?? 1;
    throw new MarkdownError('The front matter is not YAML.', line + 1);
  }
  if (front === null || front === undefined) return {};
  if (typeof front !== 'object' || Array.isArray(front))
    throw new MarkdownError('The front matter is not a list of names and values.', 2);
  return front as Record<string, unknown>;
}

/** Elements that have no Markdown and stand as the HTML they are. */
const AS_HTML = ['iframe', 'details', 'video', 'audio'] as const;

/** A tree as Markdown (CommonMark with tables) with its fields as YAML front matter. */
export function writeMarkdown(front: Record<string, unknown>, tree: Root): string {
  const asHtml = (_state: unknown, node: Parameters<typeof writeHtml>[0]) => ({
    type: 'html' as const,
    value: writeHtml(node)
  });
  const body = toMdast(tree, {
    handlers: {
      ...Object.fromEntries(AS_HTML.map((name) => [name, asHtml])),
      // What only marks where a post comes from.
      data: () => undefined
    }
  }) as MarkdownNodes;
  const yaml: Yaml = { type: 'yaml', value: stringify(front).trimEnd() };
  const children = 'children' in body ? body.children : [body];
  return toMarkdown(
    { type: 'root', children: [yaml, ...children] as never },
    {
      extensions: [gfmToMarkdown(), frontmatterToMarkdown(['yaml'])],
      bullet: '-',
      rule: '-',
      emphasis: '*',
      listItemIndent: 'one'
    }
  );
}
