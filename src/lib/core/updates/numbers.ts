import { hashOf } from '../model/hash.ts';
import { graphemesOf } from './limits.ts';

const SMALL =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' '
  );
const TENS: Readonly<Record<string, number>> = {
  thirty: 30,
  forty: 40,
  fifty: 50,
  sixty: 60,
  seventy: 70,
  eighty: 80,
  ninety: 90
};

/** A number as it stands in a text. */
export interface FoundNumber {
  from: number;
  to: number;
  value: number;
  isWord: boolean;
  /** Digits after the decimal point. */
  decimals: number;
  /** Sign between thousands, or empty. */
  thousands: string;
  written: string;
}

const DIGITS =
  /(?<![\p{L}\d.,:/#–-])(\d{1,3}(?:[,\u00a0\u202f]\d{3})+|\d+)(\.\d+)?(?![\p{L}\d:/–-]|[.,]\d)/gu;
const WORDS = new RegExp(
  `(?<![\\p{L}-])(?:${[...SMALL.slice(2), ...Object.keys(TENS)].join('|')})(?![\\p{L}-])`,
  'giu'
);

/** Amounts in an English text, in digits or in words from two on; no years, dates, times, versions or ranges. */
export function numbersIn(text: string): FoundNumber[] {
  const found: FoundNumber[] = [];
  for (const match of text.matchAll(DIGITS)) {
    const whole = match[1]!;
    const value = Number(whole.replace(/[^\d]/g, '') + (match[2] ?? ''));
    const isYear = !match[2] && whole.length === 4 && value >= 1500 && value <= 2100;
    if (isYear || value < 2) continue;
    found.push({
      from: match.index,
      to: match.index + match[0].length,
      value,
      isWord: false,
      decimals: match[2] ? match[2].length - 1 : 0,
      thousands: /[^\d]/.exec(whole)?.[0] ?? '',
      written: match[0]
    });
  }
  for (const match of text.matchAll(WORDS)) {
    const word = match[0].toLowerCase();
    const value = TENS[word] ?? SMALL.indexOf(word);
    found.push({
      from: match.index,
      to: match.index + word.length,
      value,
      isWord: true,
      decimals: 0,
      thousands: '',
      written: match[0]
    });
  }
  return found.sort((a, b) => a.from - b.from);
}

/** The value of a number as it is written here. */
export function valueOf(written: string): number {
  const word = written.toLowerCase();
  const small = TENS[word] ?? SMALL.indexOf(word);
  return small >= 0 ? small : Number(word.replace(/[^\d.]/g, ''));
}

/** A value written as another number is. Null where it cannot be: words end at twenty and round tens. */
function writeLike(value: number, like: FoundNumber): string | null {
  if (like.isWord) {
    const word = SMALL[value] ?? Object.entries(TENS).find(([, n]) => n === value)?.[0] ?? null;
    return word && /^\p{Lu}/u.test(like.written) ? word[0]!.toUpperCase() + word.slice(1) : word;
  }
  const [whole, rest] = value.toFixed(like.decimals).split('.');
  const grouped = like.thousands
    ? whole!.replace(/\B(?=(?:\d{3}){1,8}(?!\d))/g, like.thousands)
    : whole!;
  return rest ? `${grouped}.${rest}` : grouped;
}

/** Numbers that a value is rounded to by those who write it: the largest that divides it. */
const STEPS = [1000, 500, 200, 100, 50, 20, 10, 5, 2, 1];

/**
 * Other numbers in a sensible range, written as the right one: of its size and as round, none too
 * close to it, and none of those that must not be among them.
 * @returns up to `count`, the same for the same seed
 */
export function otherNumbers(
  right: FoundNumber,
  count: number,
  not: ReadonlySet<number>,
  highest: number,
  seed: string
): string[] {
  const { value, decimals } = right;
  const scale = 10 ** decimals;
  const n = Math.round(value * scale);
  const step = n <= 12 ? 1 : (STEPS.find((s) => n % s === 0 && s <= n / 2) ?? 1);
  const near = n <= 12 ? [-2, -1, 1, 2, 3, n].map((d) => n + d) : [];
  const far = [0.5, 0.6, 0.75, 1.25, 1.4, 1.5, 1.75, 2].map(
    (f) => Math.round((n * f) / step) * step
  );
  const apart = (v: number) => v >= 2 && v !== n && (n <= 12 || Math.abs(v - n) >= n * 0.15);
  const values = [...new Set(n <= 12 ? near : far)].filter(
    (v) => apart(v) && v / scale <= highest && !not.has(v / scale)
  );
  const ordered = values
    .map((v) => ({ v, order: hashOf(`${seed}/${v}`) }))
    .sort((a, b) => a.order - b.order);
  const written = ordered.flatMap(({ v }) => writeLike(v / scale, right) ?? []);
  return [...new Set(written)].filter((w) => graphemesOf(w).length > 0).slice(0, count);
}
