import {
  applyRules,
  bareAddress,
  romanValue,
  VULGAR_SIGNS,
  type SpeechRule
} from '../../narration/normalization/rule.ts';
import {
  decadeSaid,
  digitsSaid,
  fractionSaid,
  numberSaid,
  ordinalSaid,
  plural,
  vulgarSaid,
  yearSaid
} from './numbers.ts';

/** A unit's sign, then its name for one and for several. */
const UNITS: Readonly<Record<string, [one: string, many: string]>> = {
  mm: ['millimetre', 'millimetres'],
  cm: ['centimetre', 'centimetres'],
  m: ['metre', 'metres'],
  km: ['kilometre', 'kilometres'],
  nm: ['nanometre', 'nanometres'],
  'm²': ['square metre', 'square metres'],
  'cm²': ['square centimetre', 'square centimetres'],
  mg: ['milligram', 'milligrams'],
  g: ['gram', 'grams'],
  kg: ['kilo', 'kilos'],
  ml: ['millilitre', 'millilitres'],
  mL: ['millilitre', 'millilitres'],
  l: ['litre', 'litres'],
  L: ['litre', 'litres'],
  in: ['inch', 'inches'],
  '"': ['inch', 'inches'],
  '″': ['inch', 'inches'],
  ft: ['foot', 'feet'],
  '′': ['foot', 'feet'],
  yd: ['yard', 'yards'],
  yds: ['yard', 'yards'],
  oz: ['ounce', 'ounces'],
  lb: ['pound', 'pounds'],
  lbs: ['pound', 'pounds'],
  mi: ['mile', 'miles'],
  mph: ['mile an hour', 'miles an hour'],
  'km/h': ['kilometre an hour', 'kilometres an hour'],
  'm/s': ['metre a second', 'metres a second'],
  '°C': ['degree Celsius', 'degrees Celsius'],
  '°F': ['degree Fahrenheit', 'degrees Fahrenheit'],
  '°': ['degree', 'degrees'],
  '%': ['percent', 'percent'],
  '‰': ['per thousand', 'per thousand'],
  ms: ['millisecond', 'milliseconds'],
  s: ['second', 'seconds'],
  sec: ['second', 'seconds'],
  secs: ['second', 'seconds'],
  min: ['minute', 'minutes'],
  mins: ['minute', 'minutes'],
  h: ['hour', 'hours'],
  hr: ['hour', 'hours'],
  hrs: ['hour', 'hours'],
  Hz: ['hertz', 'hertz'],
  kHz: ['kilohertz', 'kilohertz'],
  MHz: ['megahertz', 'megahertz'],
  GHz: ['gigahertz', 'gigahertz'],
  W: ['watt', 'watts'],
  kW: ['kilowatt', 'kilowatts'],
  kWh: ['kilowatt hour', 'kilowatt hours'],
  V: ['volt', 'volts'],
  dB: ['decibel', 'decibels'],
  KB: ['kilobyte', 'kilobytes'],
  MB: ['megabyte', 'megabytes'],
  GB: ['gigabyte', 'gigabytes'],
  TB: ['terabyte', 'terabytes'],
  px: ['pixel', 'pixels'],
  fps: ['frame a second', 'frames a second'],
  epi: ['end per inch', 'ends per inch'],
  ppi: ['pick per inch', 'picks per inch'],
  wpm: ['word a minute', 'words a minute'],
  dpi: ['dot per inch', 'dots per inch'],
  tex: ['tex', 'tex'],
  x: ['time', 'times'],
  '×': ['time', 'times']
};
const escapeSign = (sign: string) => sign.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
const SIGNS = Object.keys(UNITS)
  .sort((a, b) => b.length - a.length)
  .map(escapeSign)
  .join('|');
/** Signs that are words or marks too count as units only right after a number. */
const UNIT = `(?:[ \\u00a0\\u202f]?(?:${SIGNS}))(?![\\p{L}\\p{N}])`;
const NUM = '\\d+(?:[,\\u202f]\\d{3})*(?:\\.\\d+)?';
const unitSaid = (sign: string, many: boolean): string =>
  UNITS[sign.trim()]?.[many ? 1 : 0] ?? sign;

const MONTHS =
  'January|February|March|April|May|June|July|August|September|October|November|December'.split(
    '|'
  );
const MONTH = `(${MONTHS.join('|')}|Jan|Feb|Mar|Apr|Jun|Jul|Aug|Sept?|Oct|Nov|Dec)\\.?`;
const monthSaid = (name: string): string =>
  MONTHS.find((m) => m.startsWith(name.slice(0, 3))) ?? name;
const dateSaid = (day: number, month: string, year?: string): string =>
  `the ${ordinalSaid(day)} of ${monthSaid(month)}${year ? ` ${yearSaid(Number(year))}` : ''}`;

/** A sign, its name for one and for several, and what a hundredth is called. */
const MONEY: Readonly<Record<string, [string, string, string, string]>> = {
  '£': ['pound', 'pounds', 'penny', 'pence'],
  $: ['dollar', 'dollars', 'cent', 'cents'],
  '€': ['euro', 'euros', 'cent', 'cents'],
  '¥': ['yen', 'yen', '', '']
};
const CODES: Readonly<Record<string, string>> = { GBP: '£', USD: '$', EUR: '€', JPY: '¥' };
const LARGE: Readonly<Record<string, string>> = {
  k: 'thousand',
  K: 'thousand',
  m: 'million',
  M: 'million',
  bn: 'billion',
  b: 'billion'
};
function moneySaid(sign: string, amount: string, large?: string): string {
  const [one, many, cent, cents] = MONEY[sign] ?? MONEY.$!;
  if (large) return `${numberSaid(amount)} ${LARGE[large] ?? large} ${many}`;
  const [whole = '0', part] = amount.replaceAll(',', '').split('.');
  const units = `${numberSaid(whole)} ${Number(whole) === 1 ? one : many}`;
  if (!part || Number(part) === 0) return units;
  if (part.length !== 2 || !cent) return `${numberSaid(amount)} ${many}`;
  const small = numberSaid(String(Number(part)));
  if (Number(whole) === 0) return `${small} ${Number(part) === 1 ? cent : cents}`;
  return `${units} ${Number(part) < 10 ? `and ${small} ${Number(part) === 1 ? cent : cents}` : small}`;
}

function clockSaid(hour: string, minute: string, half?: string): string {
  const h = numberSaid(String(Number(hour)));
  const m = Number(minute);
  const ending = half ? ` ${half[0]?.toLowerCase()} m` : '';
  if (m === 0) return half ? `${h}${ending}` : `${h} o'clock`;
  return `${h} ${m < 10 ? `oh ${numberSaid(String(m))}` : numberSaid(String(m))}${ending}`;
}

const ABBREVIATIONS: Readonly<Record<string, string>> = {
  'e.g.': 'for example',
  'i.e.': 'that is',
  'etc.': 'and so on',
  'vs.': 'versus',
  'approx.': 'approximately',
  'ca.': 'about',
  'incl.': 'including',
  'excl.': 'excluding',
  'max.': 'at most',
  'min.': 'at least',
  'Dr.': 'Doctor',
  'Mr.': 'Mister',
  'Mrs.': 'Missis',
  'Ms.': 'Miz',
  'Prof.': 'Professor',
  'Fig.': 'figure',
  'fig.': 'figure',
  'Ch.': 'chapter',
  'ch.': 'chapter',
  'Vol.': 'volume',
  'vol.': 'volume',
  'ed.': 'edition',
  'dept.': 'department',
  'w/o': 'without',
  'w/': 'with ',
  'a.k.a.': 'also known as',
  'St.': 'Saint',
  'Ltd.': 'Limited',
  'cf.': 'compare',
  'et al.': 'and others',
  'N.B.': 'note',
  'P.S.': 'P S',
  vs: 'versus'
};
const ABBREVIATION = new RegExp(
  `(?<![\\p{L}\\p{N}.])(?:${Object.keys(ABBREVIATIONS)
    .sort((a, b) => b.length - a.length)
    .map((a) => escapeSign(a) + (/\w$/.test(a) ? '(?!\\w)' : ''))
    .join('|')})`,
  'gu'
);

/** Said as a word although in capitals: it has a vowel between consonants, as names made of initials have. */
const isSaidAsWord = (capitals: string): boolean =>
  capitals.length >= 4 &&
  /[^AEIOUY][AEIOU][^AEIOUY]/.test(capitals) &&
  !/[^AEIOUY]{3}/.test(capitals);
const spelled = (letters: string): string => [...letters].join(' ');
const addressSaid = (address: string): string =>
  bareAddress(address)
    .replaceAll('.', ' dot ')
    .replaceAll('/', ' slash ')
    .replaceAll('@', ' at ')
    .replace(/[-_]/g, ' dash ')
    .replace(/\d+/g, (d) => ` ${d.length > 4 ? digitsSaid(d) : numberSaid(d)} `);

const YEAR_BEFORE =
  /\b(?:in|since|until|till|early|late|mid|circa|year|spring|summer|autumn|fall|winter|class|during|copyright)[ ,]*$/i;
/** After these a number is a year only where it counts nothing. */
const PERHAPS_YEAR_BEFORE =
  /\b(?:from|by|of|around|before|after|about|and|to|through|between)[ ,]*$/i;

/** What stands before a time of day rather than a ratio. */
const CLOCK_BEFORE =
  /\b(?:at|by|from|until|till|to|around|about|before|after|since|past|and|is|it's)\s*$/i;

const rules: SpeechRule[] = [
  // Addresses first: what they hold is no number, date or abbreviation.
  {
    looks: /\b(?:https?:\/\/|www\.)[^\s<>"')\]]*[^\s<>"')\].,;:!?]/gi,
    said: ([m]) => addressSaid(m!)
  },
  { looks: /\b[\w.+-]+@[\w-]+(?:\.[\w-]+)+\b/g, said: ([m]) => addressSaid(m!) },
  {
    looks:
      /\b[a-z][\w-]*(?:\.[a-z][\w-]*)*\.(?:com|org|net|io|co\.uk|de|example|dev|app|tv)(?:\/[\w\-./]*\w)?\b/gi,
    said: ([m]) => addressSaid(m!)
  },
  // Dates.
  {
    looks: /\b(\d{4})-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])\b/g,
    said: ([, y, m, d]) => dateSaid(Number(d), MONTHS[Number(m) - 1]!, y)
  },
  {
    looks: new RegExp(
      `\\b(0?[1-9]|[12]\\d|3[01])(?:st|nd|rd|th)?(?: of)? ${MONTH}(?:,? (\\d{4}))?\\b`,
      'g'
    ),
    said: ([, d, m, y]) => dateSaid(Number(d), m!, y)
  },
  {
    looks: new RegExp(
      `\\b${MONTH} (0?[1-9]|[12]\\d|3[01])(?:st|nd|rd|th)?(?:, (\\d{4}))?(?![\\d:.]|\\s*(?:%|cm|mm|kg))`,
      'g'
    ),
    said: ([, m, d, y]) =>
      `${monthSaid(m!)} ${ordinalSaid(Number(d))}${y ? `, ${yearSaid(Number(y))}` : ''}`
  },
  {
    looks: new RegExp(`\\b${MONTH} (\\d{4})\\b`, 'g'),
    said: ([, m, y]) => `${monthSaid(m!)} ${yearSaid(Number(y))}`
  },
  // A day and a month may stand in either order; which, only the writer knows. Both are read as numbers.
  {
    looks: /\b(\d{1,2})[./](\d{1,2})[./](\d{4})\b/g,
    said: ([m, a, b, y]) =>
      Number(a) > 12 && Number(b) <= 12 && Number(b) > 0 && Number(a) <= 31
        ? dateSaid(Number(a), MONTHS[Number(b) - 1]!, y)
        : Number(b) > 12 && Number(a) <= 12 && Number(a) > 0 && Number(b) <= 31
          ? dateSaid(Number(b), MONTHS[Number(a) - 1]!, y)
          : m!
              .split(/[./]/)
              .map((n, i) => (i === 2 ? yearSaid(Number(n)) : numberSaid(n)))
              .join(' ')
  },
  { looks: /(?<![\d.,])(1\d|20)(\d0)s\b/g, said: ([, a, b]) => decadeSaid(Number(`${a}${b}`)) },
  {
    looks: /['’](\d0)s\b/g,
    said: ([, d]) => decadeSaid(1900 + Number(d)).replace('nineteen ', '')
  },
  {
    looks: /(?<![\d.,])(1[1-9]\d\d|20\d\d)\s?[–—-]\s?(1[1-9]\d\d|20\d\d|\d\d)(?![\d.,]?\d)/g,
    said: ([, a, b]) => {
      const end = b!.length === 2 ? Number(`${a!.slice(0, 2)}${b}`) : Number(b);
      return `${yearSaid(Number(a))} to ${yearSaid(end)}`;
    }
  },
  // Versions and telephone numbers.
  {
    looks: /\b(?:v|version |Version )(\d+(?:\.\d+)+)\b/g,
    said: ([, v]) => `version ${v!.split('.').map(numberSaid).join(' point ')}`
  },
  { looks: /\bv(\d+)\b/g, said: ([, v]) => `version ${numberSaid(v!)}` },
  {
    looks: /(?<![\d.,])\d+(?:\.\d+){2,}(?![\d])/g,
    said: ([m]) => m!.split('.').map(numberSaid).join(' point ')
  },
  {
    looks: /\+(\d[\d ()-]{7,}\d)/g,
    said: ([, m]) =>
      `plus ${m!
        .split(/[ ()-]+/)
        .filter(Boolean)
        .map((d) => digitsSaid(d))
        .join(', ')}`
  },
  {
    looks: /\b0\d(?:[\d -]{6,})\d\b/g,
    said: ([m]) =>
      m!
        .split(/[ -]+/)
        .map((d) => digitsSaid(d))
        .join(', ')
  },
  // Time of day, and lengths of time.
  {
    looks: /\b([01]?\d|2[0-3])[:.]([0-5]\d)\s?([ap])\.?m\b\.?/gi,
    said: ([, h, m, half]) => clockSaid(h!, m!, half)
  },
  { looks: /\b(\d{1,2})\s?([ap])\.?m\b\.?/gi, said: ([, h, half]) => clockSaid(h!, '0', half) },
  {
    looks: /\b(\d{1,2}):([0-5]\d):([0-5]\d)\b/g,
    said: ([, h, m, s]) =>
      [
        [h!, 'hour'],
        [m!, 'minute'],
        [s!, 'second']
      ]
        .filter(([n]) => Number(n) > 0)
        .map(([n, unit]) => `${numberSaid(String(Number(n)))} ${unit}${Number(n) === 1 ? '' : 's'}`)
        .join(' ') || 'zero seconds'
  },
  {
    looks: /(?<![\d:.])(\d{1,2}):([0-5]\d)(?![\d:])/g,
    said: ([m, h, minute], before) => {
      const isClock = h!.length === 2 || minute!.startsWith('0') || CLOCK_BEFORE.test(before);
      if (!isClock) return m!;
      return Number(h) < 24 ? clockSaid(h!, minute!) : `${numberSaid(h!)} ${numberSaid(minute!)}`;
    }
  },
  { looks: /\b(\d+):(\d+)\b/g, said: ([, a, b]) => `${numberSaid(a!)} to ${numberSaid(b!)}` },
  // Money.
  {
    looks:
      /([£$€¥])\s?(\d+(?:,\d{3})*(?:\.\d+)?)(k|m|bn)?\s?[–—-]\s?\1?\s?(\d+(?:,\d{3})*(?:\.\d+)?)(?:(k|m|bn)\b)?/g,
    said: ([, sign, a, largeA, b, largeB]) =>
      `${numberSaid(a!)}${largeA && largeA !== largeB ? ` ${LARGE[largeA]}` : ''} to ${moneySaid(sign!, b!, largeB)}`
  },
  {
    looks:
      /(-|\u2212)?([£$€¥])\s?(\d+(?:,\d{3})*(?:\.\d+)?)(?:(bn|[kKmMb])\b|\s(thousand|million|billion)\b)?/g,
    said: ([, minus, sign, amount, short, long]) =>
      `${minus ? 'minus ' : ''}${moneySaid(sign!, amount!, short ?? long)}`
  },
  {
    looks: /(?<!\d)(\d+(?:,\d{3}){0,6}(?:\.\d+)?)\s?(€|£|GBP|USD|EUR|JPY)(?!\w)/g,
    said: ([, amount, sign]) => moneySaid(CODES[sign!] ?? sign!, amount!)
  },
  {
    looks: /(?<!\d)(\d+(?:\.\d+)?)\s?(p|¢)(?![\p{L}\d])/gu,
    said: ([, n, s]) => `${numberSaid(n!)} ${s === 'p' ? 'pence' : 'cents'}`
  },
  // Fractions, yarn counts and twills: 8/2 and 2/2 are read number by number.
  {
    looks: new RegExp(`(\\d+)\\s?([${VULGAR_SIGNS}])(${UNIT})?`, 'gu'),
    said: ([, whole, sign, unit]) =>
      `${numberSaid(whole!)} and ${vulgarSaid(sign!)}${unit ? ` ${unitSaid(unit, true)}` : ''}`
  },
  {
    looks: new RegExp(`([${VULGAR_SIGNS}])(${UNIT})?`, 'gu'),
    said: ([, sign, unit]) => `${vulgarSaid(sign!)}${unit ? ` of a ${unitSaid(unit, false)}` : ''}`
  },
  {
    looks: /\b(\d+)[ -](\d+)\/(\d+)(?![\d/])/g,
    said: ([m, whole, a, b]) =>
      Number(a) < Number(b)
        ? `${numberSaid(whole!)} and ${fractionSaid(Number(a), Number(b))}`
        : m!.replace(/\d+/g, numberSaid).replace('/', ' ')
  },
  {
    looks: /\b(\d+)\/(\d+)(?:\/(\d+))?(?![\d/])/g,
    said: ([, a, b, c], _, after) => {
      const isFraction =
        !c && Number(a) < Number(b) && Number(b) <= 64 && !/^\s*twill/i.test(after);
      return isFraction
        ? fractionSaid(Number(a), Number(b))
        : [a, b, c].flatMap((n) => (n ? [numberSaid(n)] : [])).join(' ');
    }
  },
  // Sizes, ranges, units.
  {
    looks: new RegExp(`(${NUM})(${UNIT})?\\s?[x×]\\s?(?=\\d)`, 'gu'),
    said: ([, n, unit]) => `${numberSaid(n!)}${unit ? ` ${unitSaid(unit, plural(n!))}` : ''} by `
  },
  {
    looks: new RegExp(
      `(?<![\\p{L}\\d-])(${NUM})(${UNIT})?\\s?(?:[–—]|-)\\s?(${NUM})(${UNIT})?`,
      'gu'
    ),
    said: ([, a, unitA, b, unitB]) =>
      `${numberSaid(a!)}${unitA ? ` ${unitSaid(unitA, plural(a!))}` : ''} to ${numberSaid(b!)}${unitB ? ` ${unitSaid(unitB, plural(b!))}` : ''}`
  },
  {
    looks: new RegExp(`(^|[\\s(])[-\\u2212](${NUM})(${UNIT})?`, 'gu'),
    said: ([, lead, n, unit]) =>
      `${lead}minus ${numberSaid(n!)}${unit ? ` ${unitSaid(unit, plural(n!))}` : ''}`
  },
  { looks: /\b(\d+)(st|nd|rd|th)\b/g, said: ([, n]) => ordinalSaid(Number(n)) },
  {
    looks: /(?:#|\bNo\. ?|\bno\. |№ ?|\bnr\. ?)(\d+)/g,
    said: ([, n]) => `number ${numberSaid(n!)}`
  },
  { looks: /\bpp\. ?(?=\d|\w+ to)/g, said: () => 'pages ' },
  { looks: /\bp\. ?(?=\d)/g, said: () => 'page ' },
  { looks: /\bc\. ?(?=\d{3,4})/g, said: () => 'about ' },
  {
    looks: /\b(\d+(?:\.\d+)?)(k|K|bn)\b/g,
    said: ([, n, large]) => `${numberSaid(n!)} ${LARGE[large!]}`
  },
  {
    looks: /\b(\d+)-(?=\p{L})/gu,
    said: ([, n]) => `${numberSaid(n!)} `
  },
  {
    looks: new RegExp(`(?<![\\p{L}\\d])(${NUM})(${UNIT})`, 'gu'),
    said: ([m, n, unit]) =>
      // "in" after a number is an inch only where no place or time follows.
      / in$/.test(unit ?? '')
        ? m!.replace(n!, numberSaid(n!))
        : `${numberSaid(n!)} ${unitSaid(unit!, plural(n!))}`
  },
  {
    looks: /(?<![\d.,])(1[1-9]\d\d|20\d\d)(?![\d]|[.,]\d)/g,
    said: ([, y], before, after) => {
      const isYear =
        YEAR_BEFORE.test(before) ||
        (PERHAPS_YEAR_BEFORE.test(before) && !/^\s+\p{L}/u.test(after)) ||
        /^\s*(?:[.)!?]\s*)?$/.test(after) ||
        /[(]$/.test(before);
      return isYear ? yearSaid(Number(y)) : numberSaid(y!);
    }
  },
  { looks: /(?<![\d.,])\d{7,}(?!\d|[.,]\d)/g, said: ([m]) => digitsSaid(m!) },
  { looks: /(?<![\d.,])0\d+(?!\d)/g, said: ([m]) => digitsSaid(m!) },
  {
    looks: new RegExp(NUM, 'g'),
    said: ([m], before) => `${/[\p{L}]$/u.test(before) ? ' ' : ''}${numberSaid(m!)}`
  },
  // Words.
  {
    looks: ABBREVIATION,
    said: ([m], _, after) =>
      `${ABBREVIATIONS[m!]}${m!.endsWith('.') && /^\s*$/.test(after) ? '.' : ''}`
  },
  {
    looks: /\b(Part|Chapter|Act|Book|Volume|Section|Step|War|Lesson) ([IVXL]+)\b/g,
    said: ([m, what, numeral]) => {
      const value = romanValue(numeral!);
      return value ? `${what} ${numberSaid(String(value))}` : m!;
    }
  },
  {
    looks: /\b(?:[A-Z]\.){2,}/g,
    said: ([m], _, after) => spelled(m!.replaceAll('.', '')) + (/^\s*$/.test(after) ? '.' : '')
  },
  {
    looks: /\b([A-Z]{2,6})(s?)\b/g,
    said: ([m, letters, s], before, after) => {
      const shouted = /[A-Z]{2}\W*$/.test(before) || /^\W*[A-Z]{2,}\b/.test(after);
      if (shouted || isSaidAsWord(letters!)) return m!.toLowerCase();
      return `${spelled(letters!)}${s ? "'s" : ''}`;
    }
  },
  { looks: /#(?=\p{L})/gu, said: () => '' },
  { looks: /@(?=\w)/g, said: () => 'at ' },
  { looks: /\band\/or\b/gi, said: () => 'and or' },
  { looks: /(\p{L})\s?\/\s?(?=\p{L})/gu, said: ([, a]) => `${a} or ` },
  { looks: /&/g, said: () => ' and ' },
  { looks: /(?<=\w\s?)\+(?=\s?\w)/g, said: () => ' plus ' },
  { looks: /(?<=\w\s?)=(?=\s?\w)/g, said: () => ' equals ' },
  { looks: /≈|~(?=\s?\w)/g, said: () => ' about ' },
  { looks: /[<>]=?|≤|≥/g, said: ([m]) => (/[<≤]/.test(m!) ? ' less than ' : ' more than ') },
  { looks: /→|⇒/g, said: () => ' to ' },
  { looks: /%/g, said: () => ' percent ' },
  { looks: /°/g, said: () => ' degrees ' },
  { looks: /\+/g, said: () => ' plus ' }
];

/** English text as it is said: no digit is left, nor a sign that stands for a word. */
export const normalizeEnglish = (text: string): string => applyRules(text, rules);
