import { toCardinal, toOrdinal } from 'n2words/en-GB';
import { numberFrom, VULGAR } from '../../narration/normalization/rule.ts';

const DIGITS = ['oh', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];

/** A run of digits, one by one, as in a number that counts nothing. */
export const digitsSaid = (digits: string, zero = 'oh'): string =>
  [...digits].map((d) => (d === '0' ? zero : (DIGITS[Number(d)] ?? ''))).join(' ');

/** `1,250`, `3.05`, `-4` in words. A number too long to be said is read digit by digit. */
export function numberSaid(written: string): string {
  const clean = written.replace('\u2212', '-').replace(/[,\u2009\u202f\u00a0 ]/g, '');
  const [, sign, whole = '', decimals] = /^(-?)(\d*)(?:\.(\d+))?$/.exec(clean) ?? [];
  // 1.70 is said as 1.7; a lone nought is said.
  const part = decimals?.replace(/(?<=[1-9]|^\d)0+$/, '');
  const head =
    whole.length > 15
      ? digitsSaid(whole)
      : toCardinal(numberFrom(whole || '0')).replaceAll('minus ', '');
  const tail = part ? ` point ${digitsSaid(part, part.length > 1 ? 'oh' : 'zero')}` : '';
  return `${sign ? 'minus ' : ''}${head}${tail}`;
}

export const ordinalSaid = (n: number): string => toOrdinal(n);

/** A year as years are said: nineteen oh five, two thousand and eight, twenty twenty-six. */
export function yearSaid(year: number): string {
  const [high, low] = [Math.floor(year / 100), year % 100];
  if (year < 1000 || year > 2999) return toCardinal(year);
  if (low === 0) return high % 10 === 0 ? toCardinal(year) : `${toCardinal(high)} hundred`;
  if (year >= 2000 && year < 2010) return toCardinal(year);
  return low < 10
    ? `${toCardinal(high)} oh ${toCardinal(low)}`
    : `${toCardinal(high)} ${toCardinal(low)}`;
}

/** Years that end a decade: the nineteen twenties. */
export function decadeSaid(year: number): string {
  const said = yearSaid(year);
  return said.endsWith('y') ? `${said.slice(0, -1)}ies` : `${said}s`;
}

/** three quarters, a half, one eighth, seven sixteenths */
export function fractionSaid(over: number, under: number): string {
  if (under === 2) return over === 1 ? 'a half' : `${toCardinal(over)} halves`;
  const part = under === 4 ? 'quarter' : toOrdinal(under);
  return over === 1 ? `${under === 4 ? 'a' : 'one'} ${part}` : `${toCardinal(over)} ${part}s`;
}

export const vulgarSaid = (sign: string): string => {
  const [over, under] = VULGAR[sign] ?? [1, 2];
  return fractionSaid(over, under);
};

export const plural = (written: string): boolean => Math.abs(numberFrom(written)) !== 1;
