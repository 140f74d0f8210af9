import { h } from 'hastscript';
import { ENGLISH_POST } from '../lang/en/post.ts';
import { postWords } from '../lang/post.ts';
import { writeHtml } from '../markup/html.ts';
import type { LinkProposal } from './propose.ts';
import { textRuns } from './textRuns.ts';

/**
 * A post with words linked. One that somebody pays for is marked so for machines (`rel="sponsored"`) and said
 * to readers in words.
 * @param language BCP 47: of those words
 * @returns `added` is fewer than were given where a paragraph is no longer as it was
 */
export function addLinks(
  html: string,
  proposals: readonly Pick<LinkProposal, 'url' | 'word' | 'paragraph' | 'from' | 'isPaid'>[],
  language: string
): { html: string; added: number } {
  const { tree, runs } = textRuns(html);
  const { paid } = postWords(language) ?? ENGLISH_POST;
  let added = 0;
  // From the end of a paragraph on, so that places before stay where they are.
  for (const proposal of proposals.toSorted((a, b) => b.from - a.from)) {
    const { word, from, url, isPaid } = proposal;
    const run = runs.find(({ text }) => text === proposal.paragraph);
    const place = run?.free.find(
      ({ node, at }) => node.value.slice(from - at, from - at + word.length) === word && from >= at
    );
    if (!place) continue;
    const { node, parent, at } = place;
    const [before, after] = [
      node.value.slice(0, from - at),
      node.value.slice(from - at + word.length)
    ];
    const link = h('a', { href: url, ...(isPaid && { rel: 'sponsored' }) }, word);
    const rest = isPaid ? ` (${paid})${after}` : after;
    const index = parent.children.indexOf(node);
    if (index < 0) continue;
    parent.children.splice(index + 1, 0, link, { type: 'text', value: rest });
    node.value = before;
    added++;
  }
  return { html: writeHtml(tree), added };
}
