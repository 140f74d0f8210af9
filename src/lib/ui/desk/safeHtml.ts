import DOMPurify from 'dompurify';
import { ATTRIBUTES, TAGS } from '$lib/core/feeds/allowed.ts';

const purifier = DOMPurify(window);
// A player plays and may be opened by itself; it opens nothing here and asks for nothing.
purifier.addHook('afterSanitizeAttributes', (node) => {
  if (node.tagName === 'IFRAME')
    node.setAttribute('sandbox', 'allow-scripts allow-same-origin allow-presentation allow-popups');
});

/** HTML from outside as it is shown: cleaned where it was stored, and by the same list again here. */
export const safeHtml = (html: string): string =>
  purifier.sanitize(html, {
    ALLOWED_TAGS: [...TAGS],
    ALLOWED_ATTR: [...new Set(Object.values(ATTRIBUTES).flat()), 'class'],
    ALLOW_DATA_ATTR: false,
    ALLOW_ARIA_ATTR: false
  });
