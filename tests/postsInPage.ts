/** Runs in a page: posts of hostile layouts and items, held against the browser's own parser. */
import fc from 'fast-check';
import { ATTRIBUTES, TAGS } from '../src/lib/core/feeds/allowed.ts';
import { compose } from '../src/lib/core/article/template/compose.ts';
import { safeHtml } from '../src/lib/ui/desk/safeHtml.ts';
import { material, materialOf, template } from './attack/hostilePosts.ts';

/** The same HTML as a browser writes it. */
function asBrowserWrites(html: string): string {
  const parsed = new DOMParser().parseFromString(`<div>${html}</div>`, 'text/html');
  for (const frame of parsed.querySelectorAll('iframe')) frame.removeAttribute('sandbox');
  return parsed.body.innerHTML;
}

/** Where two texts part, as a report. */
function differenceOf(shown: string, published: string): string[] {
  if (shown === published) return [];
  let at = 0;
  while (shown[at] === published[at]) at++;
  const around = (text: string) => text.slice(Math.max(0, at - 80), at + 40);
  return [`shown: …${around(shown)}… published: …${around(published)}…`];
}

const may = new Set([...Object.values(ATTRIBUTES).flat(), 'class']);
function wrongIn(html: string): string[] {
  const parsed = new DOMParser().parseFromString(html, 'text/html');
  return [...parsed.body.querySelectorAll('*')].flatMap((element) => [
    ...(TAGS.includes(element.localName) ? [] : [element.localName]),
    ...element.getAttributeNames().filter((name) => !may.has(name))
  ]);
}

/** @returns how many were tried, and what of them was wrong */
export function tryPosts(count: number): { count: number; wrong: string[] } {
  const wrong: string[] = [];
  let ran = 0;
  Object.assign(window, { alert: () => ran++ });
  const samples = fc.sample(fc.tuple(template, material), { numRuns: count, seed: 20 });
  for (const [layout, given] of samples) {
    const { html } = compose(layout, materialOf(given));
    const shown = safeHtml(html);
    wrong.push(...differenceOf(asBrowserWrites(shown), asBrowserWrites(html)));
    wrong.push(...wrongIn(html));
    // As a blog would have it, without any policy of its own.
    const place = document.createElement('div');
    place.innerHTML = html.replaceAll('<iframe', '<span');
    document.body.append(place);
    place.remove();
  }
  if (ran > 0) wrong.push(`${ran} scripts ran`);
  return { count: samples.length, wrong: wrong.slice(0, 5) };
}
