/** ISO 639-3 (as the detector has it) to ISO 639-1, and the Snowball stemmer, where there is one. */
export const LANGUAGES: readonly [three: string, two: string, stemmer?: string][] = [
  ['eng', 'en', 'english'],
  ['deu', 'de', 'german'],
  ['fra', 'fr', 'french'],
  ['spa', 'es', 'spanish'],
  ['ita', 'it', 'italian'],
  ['por', 'pt', 'portuguese'],
  ['nld', 'nl', 'dutch'],
  ['swe', 'sv', 'swedish'],
  ['ron', 'ro', 'romanian'],
  ['hun', 'hu', 'hungarian'],
  ['rus', 'ru', 'russian'],
  ['tur', 'tr', 'turkish'],
  ['pol', 'pl'],
  ['ces', 'cs'],
  ['ukr', 'uk'],
  ['ell', 'el'],
  ['vie', 'vi'],
  ['ind', 'id'],
  ['arb', 'ar'],
  ['hin', 'hi'],
  ['jpn', 'ja'],
  ['kor', 'ko'],
  ['cmn', 'zh']
];

/** Where ISO 639-2/T has another code than ISO 639-3. */
const OLDER: Readonly<Record<string, string>> = { arb: 'ara', cmn: 'zho' };

/** The ISO 639-2/T code of a BCP 47 tag, as media files have it; `und` where it is not known. */
export function threeLetterCode(tag: string): string {
  const primary = tag.toLowerCase().split(/[-_]/)[0] ?? '';
  if (primary.length === 3) return primary;
  const three = LANGUAGES.find((l) => l[1] === primary)?.[0] ?? 'und';
  return OLDER[three] ?? three;
}
