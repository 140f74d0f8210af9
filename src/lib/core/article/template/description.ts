import { h } from 'hastscript';
import { find } from 'linkifyjs';
import { chaptersInDescription } from '../../chapters/chapter.ts';
import { writeHtml } from '../../markup/html.ts';
import { escapeHtml } from '../../text/escapeHtml.ts';
import { paragraphsToHtml } from '../../text/html.ts';

const CALL = /\b(subscribe|like and share|hit the bell|follow (me|us) on|abonnier)/i;
const ONLY_HASHTAGS = /^(#[\p{L}\p{N}_]+[\s,]*)+$/u;
const TIME_LINE = /^\W{0,3}(\d{1,2}:)?\d{1,2}:\d{2}\b/;

/**
 * The description of a video as text to be read in a post: without calls to subscribe, lines of
 * hashtags and, where the chapters stand apart, the chapter list.
 */
export function tidyDescription(description: string): string {
  const hasChapters = chaptersInDescription(description).length > 0;
  return description
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .filter((line) => {
      const text = line.trim();
      return (
        !ONLY_HASHTAGS.test(text) && !CALL.test(text) && !(hasChapters && TIME_LINE.test(text))
      );
    })
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/** Plain text as paragraphs, with its addresses as links. */
export const textToHtml = (text: string): string => paragraphsToHtml(text, linked);

/** Escaped text in which addresses are links. */
function linked(text: string): string {
  let html = '';
  let from = 0;
  for (const { href, start, end } of find(text, 'url')) {
    if (!/^https?:\/\//i.test(text.slice(start, end))) continue;
    html +=
      escapeHtml(text.slice(from, start)) + writeHtml(h('a', { href }, text.slice(start, end)));
    from = end;
  }
  return html + escapeHtml(text.slice(from));
}
