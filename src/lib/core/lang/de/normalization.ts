import { toCardinal, toOrdinal } from 'n2words/de-DE';
import {
  applyRules,
  bareAddress,
  numberFrom,
  VULGAR,
  VULGAR_SIGNS,
  type SpeechRule
} from '../../narration/normalization/rule.ts';

const DIGITS = ['null', 'eins', 'zwei', 'drei', 'vier', 'fünf', 'sechs', 'sieben', 'acht', 'neun'];
const digitsSaid = (digits: string): string =>
  [...digits].map((d) => DIGITS[Number(d)] ?? '').join(' ');

/** `1.250`, `3,5`, `-4` in words. */
function numberSaid(written: string): string {
  const clean = written.replace('\u2212', '-').replace(/[.\u2009\u202f\u00a0 ]/g, '');
  const [, sign, whole = '', part] = /^(-?)(\d*)(?:,(\d+))?$/.exec(clean) ?? [];
  const head = whole.length > 15 ? digitsSaid(whole) : toCardinal(Number(whole || '0'));
  return `${sign ? 'minus ' : ''}${head}${part ? ` Komma ${digitsSaid(part)}` : ''}`;
}
/** One before a noun: ein Zentimeter, eine Minute. */
const counted = (written: string, one: 'ein' | 'eine'): string =>
  numberFrom(written, ',') === 1 ? one : numberSaid(written);

/** Years as they are said: neunzehnhundertfünf, zweitausendsechsundzwanzig. */
function yearSaid(year: number): string {
  if (year < 1100 || year > 1999) return toCardinal(year);
  const low = year % 100;
  return `${toCardinal(Math.floor(year / 100))}hundert${low ? toCardinal(low) : ''}`;
}
const ordinal = (n: number, ending: 'e' | 'en' | 'er'): string =>
  toOrdinal(n).replace(/e$/, ending);

type Gender = 'ein' | 'eine';
const UNITS: Readonly<Record<string, [gender: Gender, one: string, many: string]>> = {
  mm: ['ein', 'Millimeter', 'Millimeter'],
  cm: ['ein', 'Zentimeter', 'Zentimeter'],
  dm: ['ein', 'Dezimeter', 'Dezimeter'],
  m: ['ein', 'Meter', 'Meter'],
  km: ['ein', 'Kilometer', 'Kilometer'],
  'm²': ['ein', 'Quadratmeter', 'Quadratmeter'],
  'cm²': ['ein', 'Quadratzentimeter', 'Quadratzentimeter'],
  mg: ['ein', 'Milligramm', 'Milligramm'],
  g: ['ein', 'Gramm', 'Gramm'],
  kg: ['ein', 'Kilo', 'Kilo'],
  ml: ['ein', 'Milliliter', 'Milliliter'],
  l: ['ein', 'Liter', 'Liter'],
  '°C': ['ein', 'Grad Celsius', 'Grad Celsius'],
  '°': ['ein', 'Grad', 'Grad'],
  '%': ['ein', 'Prozent', 'Prozent'],
  s: ['eine', 'Sekunde', 'Sekunden'],
  Sek: ['eine', 'Sekunde', 'Sekunden'],
  min: ['eine', 'Minute', 'Minuten'],
  Min: ['eine', 'Minute', 'Minuten'],
  h: ['eine', 'Stunde', 'Stunden'],
  Std: ['eine', 'Stunde', 'Stunden'],
  'km/h': ['ein', 'Stundenkilometer', 'Stundenkilometer'],
  W: ['ein', 'Watt', 'Watt'],
  kWh: ['eine', 'Kilowattstunde', 'Kilowattstunden'],
  MB: ['ein', 'Megabyte', 'Megabyte'],
  GB: ['ein', 'Gigabyte', 'Gigabyte'],
  Stk: ['ein', 'Stück', 'Stück']
};
const escapeSign = (sign: string) => sign.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
const SIGNS = Object.keys(UNITS)
  .sort((a, b) => b.length - a.length)
  .map(escapeSign)
  .join('|');
const UNIT = `(?:[ \\u00a0\\u202f]?(?:${SIGNS})\\.?)(?![\\p{L}\\p{N}])`;
const NUM = '\\d+(?:[.\\u202f]\\d{3})*(?:,\\d+)?';
function withUnit(n: string, unit: string | undefined): string {
  if (!unit) return numberSaid(n);
  const [gender, one, many] = UNITS[unit.trim().replace(/\.$/, '')] ?? ['ein', unit, unit];
  return `${counted(n, gender)} ${numberFrom(n, ',') === 1 ? one : many}`;
}
const unitSaid = (unit: string): string => UNITS[unit.trim().replace(/\.$/, '')]?.[2] ?? unit;

const MONTHS =
  'Januar|Februar|März|April|Mai|Juni|Juli|August|September|Oktober|November|Dezember'.split('|');
const MONEY: Readonly<Record<string, [string, string]>> = {
  '€': ['Euro', 'Cent'],
  $: ['Dollar', 'Cent'],
  '£': ['Pfund', 'Pence'],
  CHF: ['Franken', 'Rappen']
};
function moneySaid(sign: string, amount: string): string {
  const [unit, small] = MONEY[sign] ?? MONEY['€']!;
  const [whole = '0', part] = amount.split(',');
  const said = `${counted(whole, 'ein')} ${unit}`;
  return part && Number(part) > 0
    ? `${said} ${numberSaid(String(Number(part.padEnd(2, '0'))))}${Number(whole) === 0 ? ` ${small}` : ''}`
    : said;
}
const PARTS: Readonly<Record<number, string>> = {
  2: 'halb',
  3: 'Drittel',
  4: 'Viertel',
  8: 'Achtel'
};
function fractionSaid(over: number, under: number): string {
  if (under === 2 && over === 1) return 'ein halb';
  const part = PARTS[under] ?? `${toCardinal(under)}${under < 20 ? 'tel' : 'stel'}`;
  return `${over === 1 ? 'ein' : toCardinal(over)} ${part}`;
}
const mixedSaid = (whole: string, over: number, under: number): string =>
  over === 1 && under === 2
    ? `${whole === '1' ? 'ein' : numberSaid(whole)}einhalb`
    : `${numberSaid(whole)} ${fractionSaid(over, under)}`;

const ABBREVIATIONS: Readonly<Record<string, string>> = {
  'z. B.': 'zum Beispiel',
  'z.B.': 'zum Beispiel',
  'd. h.': 'das heißt',
  'd.h.': 'das heißt',
  'u. a.': 'unter anderem',
  'u.a.': 'unter anderem',
  'usw.': 'und so weiter',
  'bzw.': 'beziehungsweise',
  'ca.': 'zirka',
  'etc.': 'und so weiter',
  'evtl.': 'eventuell',
  'ggf.': 'gegebenenfalls',
  'inkl.': 'inklusive',
  'max.': 'maximal',
  'mind.': 'mindestens',
  'Nr.': 'Nummer',
  'S.': 'Seite',
  'vgl.': 'vergleiche',
  'Dr.': 'Doktor',
  'Abb.': 'Abbildung',
  'o. Ä.': 'oder Ähnliches',
  'v. a.': 'vor allem',
  'Std.': 'Stunden',
  'Str.': 'Straße'
};
const ABBREVIATION = new RegExp(
  `(?<![\\p{L}\\p{N}.])(?:${Object.keys(ABBREVIATIONS)
    .sort((a, b) => b.length - a.length)
    .map(escapeSign)
    .join('|')})`,
  'gu'
);
const addressSaid = (address: string): string =>
  bareAddress(address)
    .replaceAll('.', ' Punkt ')
    .replaceAll('/', ' Schrägstrich ')
    .replaceAll('@', ' ät ')
    .replace(/[-_]/g, ' Strich ')
    .replace(/\d+/g, (d) => ` ${d.length > 4 ? digitsSaid(d) : numberSaid(d)} `);

const rules: SpeechRule[] = [
  {
    looks: /\b(?:https?:\/\/|www\.)[^\s<>"')\]]*[^\s<>"')\].,;:!?]/gi,
    said: ([m]) => addressSaid(m!)
  },
  { looks: /\b[\w.+-]+@[\w-]+(?:\.[\w-]+)+\b/g, said: ([m]) => addressSaid(m!) },
  {
    looks: /\b[a-z][\w-]*\.(?:com|org|net|de|at|ch|example)(?:\/[\w\-./]*\w)?\b/gi,
    said: ([m]) => addressSaid(m!)
  },
  {
    looks: /\b(\d{4})-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])\b/g,
    said: ([, y, m, d]) =>
      `${ordinal(Number(d), 'er')} ${MONTHS[Number(m) - 1]} ${yearSaid(Number(y))}`
  },
  {
    looks: new RegExp(
      `(\\b[Aa]m |\\b[Vv]om |\\b[Zz]um |\\b[Bb]is |\\b[Dd]en |\\b[Dd]em )?\\b(0?[1-9]|[12]\\d|3[01])\\. ?(?:(${MONTHS.join('|')})|(0?[1-9]|1[0-2])\\.)(?: ?(\\d{4}))?(?!\\d)`,
      'g'
    ),
    said: ([, lead, d, name, number, y]) =>
      `${lead ?? ''}${ordinal(Number(d), lead ? 'en' : 'er')} ${name ?? MONTHS[Number(number) - 1]}${y ? ` ${yearSaid(Number(y))}` : ''}`
  },
  { looks: /\b(1[1-9]|20)(\d0)er\b/g, said: ([, a, b]) => `${yearSaid(Number(`${a}${b}`))}er` },
  {
    looks: /(?<![\d.,])(1[1-9]\d\d|20\d\d)\s?[–-]\s?(1[1-9]\d\d|20\d\d)(?!\d)/g,
    said: ([, a, b]) => `${yearSaid(Number(a))} bis ${yearSaid(Number(b))}`
  },
  {
    looks: /\bv?(\d+(?:\.\d+){2,})\b/g,
    said: ([, v]) => v!.split('.').map(numberSaid).join(' Punkt ')
  },
  {
    looks: /\b([01]?\d|2[0-3])[:.]([0-5]\d) Uhr\b/g,
    said: ([, h, m]) =>
      `${counted(h!.replace(/^0(?=\d)/, ''), 'ein')} Uhr${Number(m) ? ` ${numberSaid(String(Number(m)))}` : ''}`
  },
  { looks: /\b1 Uhr\b/g, said: () => 'ein Uhr' },
  { looks: /\b(\d+):(\d+)\b/g, said: ([, a, b]) => `${numberSaid(a!)} zu ${numberSaid(b!)}` },
  {
    looks: /(?<!\d)(\d+(?:\.\d{3}){0,6}(?:,\d+)?)\s?(€|Euro\b|\$|£|CHF\b)/g,
    said: ([, n, sign]) => moneySaid(sign === 'Euro' ? '€' : sign!, n!)
  },
  { looks: /([€$£])\s?(\d+(?:\.\d{3})*(?:,\d+)?)/g, said: ([, sign, n]) => moneySaid(sign!, n!) },
  {
    looks: new RegExp(`(\\d+)\\s?([${VULGAR_SIGNS}])(${UNIT})?`, 'gu'),
    said: ([, whole, sign, unit]) =>
      `${mixedSaid(whole!, ...(VULGAR[sign!] ?? [1, 2]))}${unit ? ` ${unitSaid(unit)}` : ''}`
  },
  {
    looks: new RegExp(`([${VULGAR_SIGNS}])(${UNIT})?`, 'gu'),
    said: ([, sign, unit]) =>
      `${fractionSaid(...(VULGAR[sign!] ?? [1, 2]))}${unit ? ` ${unitSaid(unit)}` : ''}`
  },
  {
    looks: /\b(\d+)\/(\d+)(?![\d/])/g,
    said: ([, a, b], _, after) =>
      Number(a) < Number(b) && Number(b) <= 64 && !/^\s*-?köper/i.test(after)
        ? fractionSaid(Number(a), Number(b))
        : `${numberSaid(a!)} ${numberSaid(b!)}`
  },
  {
    looks: new RegExp(`(${NUM})(${UNIT})?\\s?[x×]\\s?(?=\\d)`, 'gu'),
    said: ([, n, unit]) => `${withUnit(n!, unit)} mal `
  },
  {
    looks: new RegExp(`(?<![\\p{L}\\d-])(${NUM})(${UNIT})?\\s?[–—-]\\s?(${NUM})(${UNIT})?`, 'gu'),
    said: ([, a, ua, b, ub]) => `${withUnit(a!, ua)} bis ${withUnit(b!, ub)}`
  },
  {
    looks: new RegExp(`(^|[\\s(])[-\\u2212](${NUM})(${UNIT})?`, 'gu'),
    said: ([, lead, n, unit]) => `${lead}minus ${withUnit(n!, unit)}`
  },
  { looks: /(?:#|\bNr\. ?)(\d+)/g, said: ([, n]) => `Nummer ${numberSaid(n!)}` },
  {
    looks: /\b(der|die|das|beim|am|im|zum|zur|dem|den) (\d+)\. (?=\p{Lu})/gu,
    said: ([, a, n]) => `${a} ${ordinal(Number(n), /^(?:der|die|das)$/.test(a!) ? 'e' : 'en')} `
  },
  { looks: /\b(\d+)-(?=\p{L})/gu, said: ([, n]) => numberSaid(n!) },
  {
    looks: new RegExp(`(?<![\\p{L}\\d])(${NUM})(${UNIT})`, 'gu'),
    said: ([, n, unit], _, after) =>
      withUnit(n!, unit) + (unit!.endsWith('.') && /^\s*$/.test(after) ? '.' : '')
  },
  {
    looks: /(?<![\d.,])(1[1-9]\d\d)(?!\d|[.,]\d)/g,
    said: ([, y], before, after) =>
      /\b(?:Jahr|Jahre|seit|von|bis|um|ab|nach|vor|Anno|im|In|Seit)\s*$/.test(before) ||
      /^\s*(?:[.)!?]\s*)?$/.test(after)
        ? yearSaid(Number(y))
        : numberSaid(y!)
  },
  { looks: /(?<![\d.,])\d{7,}(?!\d|[.,]\d)/g, said: ([m]) => digitsSaid(m!) },
  { looks: /(?<![\d.,])0\d+(?!\d)/g, said: ([m]) => digitsSaid(m!) },
  {
    looks: new RegExp(NUM, 'g'),
    said: ([m], before) => `${/\p{L}$/u.test(before) ? ' ' : ''}${numberSaid(m!)}`
  },
  {
    looks: ABBREVIATION,
    said: ([m], _, after) => `${ABBREVIATIONS[m!]}${/^\s*$/.test(after) ? '.' : ''}`
  },
  { looks: /#(?=\p{L})/gu, said: () => '' },
  { looks: /@(?=\w)/g, said: () => 'ät ' },
  { looks: /&/g, said: () => ' und ' },
  { looks: /(\p{L})\s?\/\s?(?=\p{L})/gu, said: ([, a]) => `${a} oder ` },
  { looks: /≈|~(?=\s?\w)/g, said: () => ' etwa ' },
  { looks: /[<>]=?|≤|≥/g, said: ([m]) => (/[<≤]/.test(m!) ? ' weniger als ' : ' mehr als ') },
  { looks: /→|⇒/g, said: () => ' zu ' },
  { looks: /%/g, said: () => ' Prozent ' },
  { looks: /°/g, said: () => ' Grad ' },
  { looks: /\+/g, said: () => ' plus ' },
  { looks: /=/g, said: () => ' gleich ' }
];

/** German text as it is said. */
export const normalizeGerman = (text: string): string => applyRules(text, rules);
