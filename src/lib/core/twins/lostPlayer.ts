import type { Element } from 'hast';
import { canonicalAddress } from '../feeds/address.ts';
import { findElement, readHtml } from '../markup/html.ts';
import { escapeHtml } from '../text/escapeHtml.ts';

/**
 * A post whose player of a video gives way to a note; all else stays as it is, to the character.
 * @param addresses of the video
 * @returns the same where it has no such player
 */
export function withoutPlayer(html: string, addresses: readonly string[], note: string): string {
  const lost = new Set(addresses.filter(Boolean).map(canonicalAddress));
  const isLost = (node: Element): boolean =>
    /^(?:iframe|video|embed)$/.test(node.tagName) &&
    lost.has(canonicalAddress(String(node.properties.src ?? '')));
  const isHolder = (node: Element): boolean =>
    (node.tagName === 'figure' || node.tagName === 'p' || node.tagName === 'div') &&
    node.children.filter((c) => c.type === 'element').length === 1 &&
    node.children.some((c) => c.type === 'element' && (isLost(c) || isHolder(c)));
  const tree = readHtml(html);
  const found = findElement(tree, (node) => isLost(node) || isHolder(node));
  const [from, to] = [found?.position?.start.offset, found?.position?.end.offset];
  if (from === undefined || to === undefined) return html;
  return `${html.slice(0, from)}<p><em>${escapeHtml(note)}</em></p>${html.slice(to)}`;
}
