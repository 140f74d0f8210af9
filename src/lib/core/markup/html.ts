import type { Element, ElementContent, Nodes, Root, RootContent } from 'hast';
import { fromHtml } from 'hast-util-from-html';
import { toHtml } from 'hast-util-to-html';

/** HTML of a body as a tree. What a browser would mend is mended: nothing stays open. */
export const readHtml = (html: string): Root => fromHtml(html, { fragment: true });

/** A tree as HTML. Special characters are escaped wherever they stand. */
export const writeHtml = (tree: Nodes | readonly RootContent[]): string =>
  toHtml(isNode(tree) ? tree : { type: 'root', children: [...tree] }, {
    characterReferences: { useNamedReferences: true }
  });

const isNode = (tree: Nodes | readonly RootContent[]): tree is Nodes => !Array.isArray(tree);

/** Blocks one under the other, so that the HTML of them can be read by people. */
export const onLines = <T extends ElementContent>(
  blocks: readonly T[]
): (T | { type: 'text'; value: string })[] =>
  blocks.flatMap((block, i) => (i === 0 ? [block] : [{ type: 'text', value: '\n' }, block]));

/** The first element below a node, in the order of the page, that is what is looked for. */
export function findElement(
  node: Root | Element,
  is: (element: Element) => boolean
): Element | null {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (is(child)) return child;
    const inner = findElement(child, is);
    if (inner) return inner;
  }
  return null;
}
