import type { Element } from 'hast';
import { h } from 'hastscript';
import { ORIGIN_CLASS } from '../feeds/clean.ts';
import { writeHtml } from '../markup/html.ts';

/** A key as the name that a made item carries in its properties (RFC 4122). */
export const uidOfKey = (key: string): string => `urn:uuid:${key}`;

/** The key in such a name, or null. */
export const keyOfUid = (uid: string | undefined): string | null =>
  /^urn:uuid:([\da-f-]{36})$/i.exec(uid?.trim() ?? '')?.[1]?.toLowerCase() ?? null;

/** The marker that a made post carries in its HTML: an element readers do not see. */
export const originElement = (key: string): Element =>
  h('data', { className: ORIGIN_CLASS, value: key });

export const originMarker = (key: string): string => writeHtml(originElement(key));
