/** One way of writing that is said otherwise: what it looks like, and how it is said. */
export interface SpeechRule {
  looks: RegExp;
  /** @param match the whole match, then its groups; a group that took no part is undefined */
  said(match: (string | undefined)[], before: string, after: string): string;
}

/** Applies rules in their order, each wherever it fits. */
export function applyRules(text: string, rules: readonly SpeechRule[]): string {
  return rules.reduce(
    (written, { looks, said }) =>
      written.replace(looks, (...args: unknown[]) => {
        const at = args.findIndex((a) => typeof a === 'number') as number;
        const groups = args.slice(0, at) as (string | undefined)[];
        const offset = args[at] as number;
        return said(
          groups,
          written.slice(0, offset),
          written.slice(offset + (groups[0]?.length ?? 0))
        );
      }),
    text
  );
}

/** `12` and `1,234.5` as a number; the mark of the decimals may be a point or a comma. */
export function numberFrom(written: string, decimals: '.' | ',' = '.'): number {
  const plain =
    decimals === '.'
      ? written.replace(/[,\u2009\u202f\u00a0 ]/g, '')
      : written.replace(/[.\u2009\u202f\u00a0 ]/g, '').replace(',', '.');
  return Number(plain.replace('\u2212', '-'));
}

export const VULGAR: Readonly<Record<string, [number, number]>> = {
  '½': [1, 2],
  '⅓': [1, 3],
  '⅔': [2, 3],
  '¼': [1, 4],
  '¾': [3, 4],
  '⅕': [1, 5],
  '⅖': [2, 5],
  '⅗': [3, 5],
  '⅘': [4, 5],
  '⅙': [1, 6],
  '⅚': [5, 6],
  '⅐': [1, 7],
  '⅛': [1, 8],
  '⅜': [3, 8],
  '⅝': [5, 8],
  '⅞': [7, 8],
  '⅑': [1, 9],
  '⅒': [1, 10]
};
export const VULGAR_SIGNS = Object.keys(VULGAR).join('');

/** An address as it is read out: without its scheme, `www`, query and last slash. */
export const bareAddress = (address: string): string =>
  address
    .replace(/^(?:https?:\/\/)?(?:www\.)?/i, '')
    .replace(/[?#].*/s, '')
    .replace(/(?<!\/)\/+$/, '');

const ROMAN: Readonly<Record<string, number>> = { I: 1, V: 5, X: 10, L: 50, C: 100 };

/** The value of a Roman numeral up to some hundreds, or null. */
export function romanValue(numeral: string): number | null {
  if (!/^(?:C{0,3})(?:XC|XL|L?X{0,3})(?:IX|IV|V?I{0,3})$/.test(numeral) || !numeral) return null;
  const values = [...numeral].map((c) => ROMAN[c] ?? 0);
  return values.reduce((sum, v, i) => sum + (v < (values[i + 1] ?? 0) ? -v : v), 0);
}
