import { escapeHtml } from '../../text/escapeHtml.ts';

const literal = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * A text in which a chapter has another title: its heading and its line in the list of chapters
 * follow, where nobody wrote them otherwise.
 */
export function renameHeading(html: string, from: string, to: string): string {
  const [old, now] = [literal(escapeHtml(from)), escapeHtml(to)];
  if (!from.trim()) return html;
  const heading = new RegExp(`(<h[23](?: [^>]*)?>)${old}(?=</h[23]>)`, 'g');
  const line = new RegExp(`(</time>(?:</a>)?\\s*)${old}(?=</(?:p|li)>)`, 'g');
  const renamed = (_whole: string, before: string) => before + now;
  return html.replace(heading, renamed).replace(line, renamed);
}
