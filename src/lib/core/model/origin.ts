import { ORIGIN_CLASS } from '../feeds/clean.ts';
import { escapeHtml } from '../feeds/text.ts';

/** The marker that a made post carries in its HTML: an element readers do not see. */
export const originMarker = (key: string): string =>
  `<data class="${ORIGIN_CLASS}" value="${escapeHtml(key)}"></data>`;
