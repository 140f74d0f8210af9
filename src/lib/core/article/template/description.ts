import { chaptersInDescription } from '../../chapters/chapter.ts';
import { escapeHtml, paragraphsToHtml } from '../../text/html.ts';

const CALL = /\b(subscribe|like and share|hit the bell|follow (me|us) on|abonnier)/i;
const ONLY_HASHTAGS = /^(#[\p{L}\p{N}_]+[\s,]*)+$/u;
const TIME_LINE = /^\W{0,3}(\d{1,2}:)?\d{1,2}:\d{2}\b/;
const ADDRESS = /https?:\/\/[^\s<>"]+[^\s<>"'.,;:!?)\]}]/g;

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
  for (const match of text.matchAll(ADDRESS)) {
    const url = escapeHtml(match[0]);
    html += `${escapeHtml(text.slice(from, match.index))}<a href="${url}">${url}</a>`;
    from = match.index + match[0].length;
  }
  return html + escapeHtml(text.slice(from));
}
