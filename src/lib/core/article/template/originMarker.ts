import type { Element } from 'hast';
import { h } from 'hastscript';
import { ORIGIN_CLASS } from '../../feeds/allowed.ts';
import { writeHtml } from '../../markup/html.ts';

/** The marker that a made post carries in its HTML: an element readers do not see. */
export const originElement = (key: string): Element =>
  h('data', { className: ORIGIN_CLASS, value: key });

export const originMarker = (key: string): string => writeHtml(originElement(key));
