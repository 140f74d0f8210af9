import type { Element, ElementContent, Root } from 'hast';
import { fromHtml } from 'hast-util-from-html';
import { toHtml } from 'hast-util-to-html';
import { EXIT, SKIP, visit } from 'unist-util-visit';
import { absoluteAddress } from '../../feeds/address.ts';
import { escapeHtml } from '../../text/escapeHtml.ts';

/** What a post shows in the places that microformats2 names on a page. */
export interface ShownPost {
  title: string;
  /** As it goes out. */
  html: string;
  author: string;
  published: string;
  categories: string[];
  picture: { url: string; alt: string } | null;
}

/**
 * A page of the blog with another post in it: the blog's own markup and style sheet around the
 * very HTML that would be sent. The page tells by microformats2 (`h-entry`, `p-name`, `e-content`,
 * …) where things stand. Scripts are taken out.
 * @param page the HTML of a post at the blog
 * @param url where that page was read
 * @returns null when the page has no `h-entry` with an `e-content`
 */
export function showAsPublished(page: string, url: string, post: ShownPost): string | null {
  const tree = fromHtml(page);
  const entry = firstWith(tree, 'h-entry');
  if (!entry || !firstWith(entry, 'e-content')) return null;
  prepareHead(tree, url, post.title);
  setText(entry, 'p-author', post.author);
  setText(entry, 'p-name', post.title);
  setCategories(entry, post.categories);
  setPicture(entry, post.picture);
  const published = firstWith(entry, 'dt-published');
  if (published) {
    published.properties.dateTime = post.published;
    published.children = [{ type: 'text', value: post.published.slice(0, 10) }];
  }
  const content = firstWith(entry, 'e-content');
  if (content)
    content.children = fromHtml(post.html, { fragment: true }).children as ElementContent[];
  visit(tree, 'element', (node, index, parent) => {
    if (
      !(node.tagName === 'script' || node.tagName === 'noscript') ||
      !parent ||
      index === undefined
    )
      return;
    parent.children.splice(index, 1);
    return [SKIP, index];
  });
  return toHtml(tree);
}

/** A post on a page that tells nothing of the blog's looks. */
export const showBare = ({ title, html }: ShownPost): string =>
  `<html><head><meta charset="utf-8"><title>${escapeHtml(title)}</title></head><body><p>The blog’s pages do not say where a post stands on them, so this is the bare post.</p><h1>${escapeHtml(title)}</h1>${html}</body></html>`;

/** Addresses in the page stay those of the blog, and links open outside the frame. */
function prepareHead(tree: Root, url: string, title: string): void {
  visit(tree, 'element', (node) => {
    if (node.tagName === 'base') node.tagName = 'meta';
    if (node.tagName === 'title') node.children = [{ type: 'text', value: title }];
    for (const name of ['href', 'src'] as const) {
      const value = node.properties[name];
      if (typeof value === 'string' && !value.startsWith('#')) {
        const address = absoluteAddress(value, url);
        if (address) node.properties[name] = address;
      }
    }
    if (node.tagName === 'a') node.properties.target = '_blank';
  });
}

const hasClass = (node: Element, name: string): boolean =>
  Array.isArray(node.properties.className) && node.properties.className.includes(name);

function firstWith(tree: Root | Element, className: string): Element | null {
  let found: Element | null = null;
  visit(tree, 'element', (node) => {
    if (node === tree || !hasClass(node, className)) return;
    found = node;
    return EXIT;
  });
  return found;
}

function setText(entry: Element, className: string, value: string): void {
  const node = firstWith(entry, className);
  if (node && value) node.children = [{ type: 'text', value }];
}

/** The first category becomes the pattern for all; the others go, with the separators before them. */
function setCategories(entry: Element, categories: string[]): void {
  let isFirst = categories.length > 0;
  visit(entry, 'element', (node, index, parent) => {
    if (!hasClass(node, 'p-category') || !parent || index === undefined) return;
    if (isFirst) {
      isFirst = false;
      node.children = [{ type: 'text', value: categories.join(', ') }];
      return SKIP;
    }
    const before = parent.children[index - 1];
    const isSeparator = before?.type === 'text' && /^[^\p{L}\p{N}]*$/u.test(before.value);
    const from = isSeparator ? index - 1 : index;
    parent.children.splice(from, index - from + 1);
    return [SKIP, from];
  });
}

function setPicture(entry: Element, picture: ShownPost['picture']): void {
  const node = firstWith(entry, 'u-photo') ?? firstWith(entry, 'u-featured');
  if (node?.tagName === 'img') {
    if (picture) Object.assign(node.properties, { src: picture.url, alt: picture.alt });
    else {
      node.tagName = 'span';
      node.properties = {};
    }
    return;
  }
  const content = firstWith(entry, 'e-content');
  if (!picture || !content) return;
  visit(entry, 'element', (child, index, parent) => {
    if (child !== content || !parent || index === undefined) return;
    const properties = { src: picture.url, alt: picture.alt, className: ['u-photo'], width: 672 };
    parent.children.splice(index, 0, { type: 'element', tagName: 'img', properties, children: [] });
    return EXIT;
  });
}
