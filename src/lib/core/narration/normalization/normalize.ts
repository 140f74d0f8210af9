import { normalizeEnglish } from '../../lang/en/normalization.ts';
import { normalizeGerman } from '../../lang/de/normalization.ts';
import type { Pronunciation } from './pronunciation.ts';

const BY_LANGUAGE: Readonly<Record<string, ((text: string) => string) | undefined>> = {
  en: normalizeEnglish,
  de: normalizeGerman
};

/** Marks that are seen and not spoken; brackets and dashes become the pauses that they are. */
const opened = (text: string): string =>
  text
    .replace(/[\p{Extended_Pictographic}\ufe0f\u200d\u20e3]/gu, (c) =>
      /[\d#*©®™]/.test(c) ? c : ' '
    )
    .replace(/[©®™]/g, ' ')
    .replace(/[\u00ad\u200b-\u200f\u2060\ufeff]/g, '')
    .replace(/(?<!\s)\s+[–—]\s+|—/g, ', ')
    .replace(/(?:(?<!\s)\s+)?[([{]\s*(?=\S)/g, ', ')
    .replace(/(?:(?<!\s)\s+)?[)\]}](?=\s*(?:[.,;:!?…]|$))/g, '')
    .replace(/(?:(?<!\s)\s+)?[)\]}]\s*/g, ', ');

const closed = (text: string): string =>
  text
    .replace(/["“”„«»‹›*_`|\\^~]/g, ' ')
    .replace(/(^|\s)['‘’‚]+|(?<!['‘’])['‘’]+(?=\s|[.,;:!?]|$)/g, '$1')
    .replace(/[…]|\.{2,}/g, '.')
    .replace(/[·•‣▪]/g, ',')
    .replace(/(?<!\s)\s+([.,;:!?])/g, '$1')
    .replace(/([,;:])(?:\s*[,;:])+/g, '$1')
    .replace(/(?<![,;:])[,;:]+(?=[.!?])/g, '')
    .replace(/^[\s,;:.–-]+/, '')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * A sentence as it is to be said: numbers, dates, money, units and abbreviations in words, by the
 * rules of its language; marks that are not spoken taken out.
 * @param language BCP 47; a language without rules of its own keeps its numbers, which its engine reads
 * @param pronunciations words of the user's own; they win over every rule
 * @returns empty when there is nothing to say
 */
export function normalizeForSpeech(
  text: string,
  language: string,
  pronunciations: readonly Pronunciation[] = []
): string {
  const rules = BY_LANGUAGE[language.toLowerCase().split(/[-_]/)[0] ?? ''];
  const { text: kept, put } = setAside(text, pronunciations);
  const plain = opened(kept.normalize('NFC'));
  const said = closed(put(rules ? rules(plain) : plain));
  return /[\p{L}\p{N}]/u.test(said) ? said : '';
}

/** Takes the user's own words out before the rules and puts what is said for them back after. */
function setAside(
  text: string,
  pronunciations: readonly Pronunciation[]
): { text: string; put: (said: string) => string } {
  const own = pronunciations
    .filter((p) => p.written.trim() && p.said.trim())
    .sort((a, b) => b.written.length - a.written.length);
  if (own.length === 0) return { text, put: (said) => said };
  const escape = (s: string) => s.trim().replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const pattern = new RegExp(
    `(?<![\\p{L}\\p{N}])(?:${own.map((p) => escape(p.written)).join('|')})(?![\\p{L}\\p{N}])`,
    'giu'
  );
  // A private-use letter a word stands for it: no rule touches letters it does not know.
  const marks: string[] = [];
  const marked = text.replace(pattern, (found) => {
    const rule = own.find((p) => p.written.trim().toLowerCase() === found.toLowerCase());
    marks.push(rule?.said.trim() ?? found);
    return String.fromCharCode(0xe000 + Math.min(marks.length - 1, 0x18ff));
  });
  return {
    text: marked,
    put: (said) => said.replace(/[\ue000-\uf8ff]/g, (c) => marks[c.charCodeAt(0) - 0xe000] ?? '')
  };
}
