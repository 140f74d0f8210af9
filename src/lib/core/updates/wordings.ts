import { GERMAN_WORDINGS } from '../lang/de/updates.ts';
import { ENGLISH_WORDINGS } from '../lang/en/updates.ts';
import type { Wordings } from '../lang/wordings.ts';

/** Other languages: the item's own words and its link, nothing added. */
const nothing = { post: [''], video: [''] };
const NONE: Wordings = {
  opening: { plain: nothing, warm: nothing, brisk: nothing },
  close: { plain: nothing, warm: nothing, brisk: nothing }
};

export function wordingsFor(language: string): Wordings {
  const code = language.toLowerCase().split(/[-_]/)[0];
  return code === 'en' ? ENGLISH_WORDINGS : code === 'de' ? GERMAN_WORDINGS : NONE;
}
